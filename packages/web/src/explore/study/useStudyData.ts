import type { StudyPoint, StudyView } from '@jadebell/api';
import type { Problem, Study } from '@jadebell/core/document';
import { planMoves, type Read } from '@jadebell/core/exploring';
import { useMemo } from 'react';
import { studyPath, useRuns, useStudyMeasures, useStudyView } from '../../api/hooks.ts';
import type { Run } from '../../api/types.ts';
import { useProject } from '../../project/store.ts';
import { useFollowed } from '../../ui/useFollowed.ts';

/** A point of a study with what was read from it. */
export interface StudyRow extends StudyPoint {
  at: number;
  reads: ReadonlyMap<string, Read>;
}

/** Points that cards show, of a study or a search. */
export interface PointsData {
  project: string;
  name: string;
  /** Where the server tells of it. */
  path: string;
  /** How its points lie. */
  together: Study['together'];
  moved: StudyView['moved'];
  rows: readonly StudyRow[];
  /** Names of the measures, and their units as far as they were read. */
  measures: readonly { name: string; unit: string }[];
  /** Tells which points are done: others are another reading. */
  done: string;
}

/** What is known of a study. */
export interface StudyData extends PointsData {
  study: Study;
  /** Against it as it stands in the project now. */
  problems: readonly Problem[];
  /** How many points it has as it stands now; what is stored may not have followed yet. */
  count: number;
  /** Runs of it that wait or are under way. */
  open: readonly Run[];
  fault: string | null;
  stored: boolean;
}

/** Milliseconds between two looks at points that are being solved: they may be shorter than a look takes. */
export const pause = 800;

const noReads: ReadonlyMap<string, Read> = new Map();

/** A study of the open project with its points, runs and measures. */
export function useStudyData(project: string, study: Study): StudyData {
  const document = useProject((s) => s.document!);
  const saved = useProject((s) => s.saved === 'saved');
  const revision = useProject((s) => s.revision);
  const runs = useRuns(project).data;
  const own = useMemo(() => (runs ?? []).filter((r) => r.study === study.name), [runs, study.name]);
  const states = useFollowed(own.map((r) => `${r.number}${r.state}`).join(), pause);
  const view = useStudyView(project, study.name, saved ? revision : 0, states);
  const { moved, count, problems } = useMemo(() => planMoves(document, study), [document.parameters, document.lines, document.solve, study]); // oxlint-disable-line react/exhaustive-deps -- what else the project holds moves nothing.
  const points = view.data?.points;
  const done = useMemo(() => (points ?? []).filter((p) => p.run?.state === 'done').map((p) => p.run!.number + p.digest.slice(0, 12)).join(), [points]); // prettier-ignore
  const asked = document.measures ?? [];
  const reads = useStudyMeasures(project, study.name, saved && done && asked.length ? `${done} ${JSON.stringify(asked)}` : '');
  const rows = useMemo(() => {
    const known = new Map((reads.data ?? []).map((r) => [r.digest, new Map(r.measures.map((m) => [m.name, m as Read]))]));
    return (points ?? []).map((p, at): StudyRow => ({ ...p, at, reads: known.get(p.digest) ?? noReads }));
  }, [points, reads.data]);
  const measures = useMemo(
    () => asked.map(({ name }) => ({ name, unit: rows.map((r) => r.reads.get(name)?.unit).find((u) => u) ?? '' })),
    [asked, rows], // oxlint-disable-line react/exhaustive-deps
  );
  return {
    project,
    study,
    name: study.name,
    path: studyPath(project, study.name),
    together: study.together,
    moved: view.data?.moved ?? moved,
    rows,
    problems,
    count,
    measures,
    open: own.filter((r) => r.state === 'queued' || r.state === 'running'),
    done,
    fault: view.error?.message ?? reads.error?.message ?? null,
    stored: saved && !!view.data,
  };
}
