import type { SearchView } from '@jadebell/api';
import type { Problem, SearchPlan } from '@jadebell/core/document';
import { planSearch, type Read } from '@jadebell/core/exploring';
import { useMemo } from 'react';
import { searchPath, useRuns, useSearchView } from '../../api/hooks.ts';
import type { Run } from '../../api/types.ts';
import { useProject } from '../../project/store.ts';
import { useFollowed } from '../../ui/useFollowed.ts';
import { order } from '../study/figures.ts';
import { pause, type PointsData, type StudyRow } from '../study/useStudyData.ts';

/** By how many times what may be missed a point misses in all. */
export const missed = 'missed';

/** What is known of a search: its points as cards show them, and how far it is. */
export interface SearchData extends PointsData {
  view: SearchView | undefined;
  problems: readonly Problem[];
  open: readonly Run[];
  fault: string | null;
  stored: boolean;
}

/** A search of the open project with what it has tried. */
export function useSearchData(project: string, search: SearchPlan): SearchData {
  const document = useProject((s) => s.document!);
  const saved = useProject((s) => s.saved === 'saved');
  const revision = useProject((s) => s.revision);
  const runs = useRuns(project).data;
  const own = useMemo(() => (runs ?? []).filter((r) => r.study === search.name), [runs, search.name]);
  const states = useFollowed(own.map((r) => `${r.number}${r.state}`).join(), pause);
  const { data: view, error } = useSearchView(project, search.name, saved ? revision : 0, states);
  const { problems } = useMemo(() => planSearch(document, search), [document, search]);
  const rows = useMemo(() => {
    const measures = document.measures ?? [];
    return (view?.tried ?? [])
      .filter((t) => !t.beyond)
      .map((t, at): StudyRow => {
        const reads = new Map(t.reads.map((r) => [r.name, r as Read]));
        reads.set(missed, { name: missed, value: t.cost === null ? null : Math.sqrt(t.cost), unit: '' });
        for (const m of measures) if (!reads.has(m.name)) reads.set(m.name, { name: m.name, value: null, unit: '' });
        return { values: { [order]: at + 1, ...t.values }, digest: t.digest, run: t.run, at, reads };
      });
  }, [view, document.measures]);
  const moved = useMemo(
    (): PointsData['moved'] => [
      { parameter: order, measure: 'plain number', values: [1, rows.length].map((si) => ({ si, text: String(si) })) },
      ...(view?.bounded ?? []).map((b) => ({ parameter: b.parameter, measure: b.measure, values: [b.from, b.to].map((si) => ({ si, text: '' })) })),
    ],
    [view, rows.length],
  );
  const measures = useMemo(
    () => [
      { name: missed, unit: '' },
      ...(document.measures ?? []).map(({ name }) => ({ name, unit: rows.map((r) => r.reads.get(name)?.unit).find((u) => u) ?? '' })),
    ],
    [document.measures, rows],
  );
  return {
    project,
    name: search.name,
    path: searchPath(project, search.name),
    together: 'beside',
    moved,
    rows,
    measures,
    done: rows.map((r) => r.digest.slice(0, 12)).join(),
    view,
    problems,
    open: own.filter((r) => r.state === 'queued' || r.state === 'running'),
    fault: error ? error.message : null,
    stored: saved && !!view,
  };
}
