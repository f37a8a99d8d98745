import {
  activeRunSchema,
  machineSchema,
  projectSummary,
  runSchema,
  searchViewSchema,
  sketchSchema,
  studyCostSchema,
  studyCurvesSchema,
  studyInfluenceSchema,
  studyToleranceSchema,
  studyMeasuresSchema,
  studyViewSchema,
  variantsSchema,
} from '@jadebell/api';
import { materialSchema, projectSchema } from '@jadebell/core/document';
import { z } from 'zod';
import { useEffect } from 'react';
import useSWR from 'swr';
import useSWRImmutable from 'swr/immutable';
import { getArray, type NumberArray, reader } from './client.ts';
import { mutate } from './mutate.ts';
import type { Run } from './types.ts';

const projects = reader(z.array(projectSummary));
const runs = reader(z.array(runSchema));
const active = reader(z.array(activeRunSchema));
const machine = reader(machineSchema);
const materials = reader(z.array(materialSchema));
const sketch = reader(sketchSchema.nullable());
const documents = reader(projectSchema);

export const useProjects = () => useSWR('/projects', projects);
export const useRuns = (project: string) => useSWR(`/projects/${project}/runs`, runs);
export const useActive = () => useSWR('/runs/active', active);
export const useMachine = () => useSWR('/machine', machine);
export const useOwnMaterials = () => useSWR('/materials', materials);
/** Curves of a project’s newest result; `runs` of it, as a new one brings others. */
export const useSketch = (project: string, runs: number) => useSWR(runs ? `/projects/${project}/sketch?runs=${runs}` : null, sketch);
/** The model as a run solved it. */
export const useRunDocument = (run: string | null) => useSWRImmutable(run ? `/runs/${run}/document` : null, documents);

const studies = {
  view: reader(studyViewSchema),
  cost: reader(studyCostSchema),
  measures: reader(studyMeasuresSchema),
  curves: reader(studyCurvesSchema),
  influence: reader(studyInfluenceSchema),
  tolerance: reader(studyToleranceSchema),
};
/** Address of a study of a project as it is stored. */
export const studyPath = (project: string, name: string): string => `/projects/${project}/studies/${encodeURIComponent(name)}`;
const stay = { keepPreviousData: true };
/**
 * The points of a study with the runs that stand for them; asked for anew as another revision of the project is stored (0: none is), and as runs of the
 * study change their state.
 */
export const useStudyView = (project: string, name: string, revision: number, states: string) =>
  useSWR(revision ? [studyPath(project, name), revision, states] : null, ([path]) => studies.view(path), stay);
/** What a study costs; `what` tells when that is another cost. */
export const useStudyCost = (project: string, name: string, what: string) =>
  useSWRImmutable(what ? [`${studyPath(project, name)}/cost`, what] : null, ([path]) => studies.cost(path), stay);
/** Measures of the points that are done; `what` tells when they are others. */
export const useStudyMeasures = (project: string, name: string, what: string) =>
  useSWRImmutable(what ? [`${studyPath(project, name)}/measures`, what] : null, ([path]) => studies.measures(path), stay);
/** Which parameters make a measure what it is. */
export const useInfluence = (path: string, measure: string, what: string) =>
  useSWRImmutable(what ? [`${path}/influence?measure=${encodeURIComponent(measure)}`, what] : null, ([at]) => studies.influence(at), stay);
/** What parameters that vary make of the measures; `what` tells when it is another answer. */
export const useTolerance = (path: string, what: string) =>
  useSWRImmutable(what ? [`${path}/tolerance`, what] : null, ([at]) => studies.tolerance(at), stay);
/** A curve of each point that is done. */
export const useStudyCurves = (path: string, query: string, what: string) =>
  useSWRImmutable(what ? [`${path}/curves?${query}`, what] : null, ([at]) => studies.curves(at), stay);

const variants = reader(variantsSchema);
/** Variants of a project with the runs that stand for them, asked for as the points of a study are. */
export const useVariants = (project: string, revision: number, states: string) =>
  useSWR(revision ? [`/projects/${project}/variants`, revision, states] : null, ([path]) => variants(path), stay);

const search = reader(searchViewSchema);
/** Address of a search of a project as it is stored. */
export const searchPath = (project: string, name: string): string => `/projects/${project}/searches/${encodeURIComponent(name)}`;
/** How far a search is, asked for as the points of a study are. */
export const useSearchView = (project: string, name: string, revision: number, states: string) =>
  useSWR(revision ? [searchPath(project, name), revision, states] : null, ([path]) => search(path), stay);

/** A result array; null run or name reads nothing. */
export function useArray(run: string | null, name: string | null, range?: { from: number; count: number }) {
  const key = run && name ? ['array', run, name, range?.from ?? 0, range?.count ?? 0] : null;
  return useSWRImmutable<NumberArray>(key, () => getArray(run!, name!, range), { keepPreviousData: false });
}

/** Milliseconds for which changes of runs are gathered. */
const together = 150;
/** Runs with others in the place of what they were, new ones before them. */
const merged = (runs: readonly Run[], came: readonly Run[]): Run[] => {
  const own = new Map(came.map((r) => [r.id, r]));
  const known = new Set(runs.map((r) => r.id));
  return [...came.filter((r) => !known.has(r.id)), ...runs.map((r) => own.get(r.id) ?? r)].sort((a, b) => b.number - a.number);
};

/** Follows the server's events and keeps the cached runs up to date. */
export function useServerEvents(project: string): void {
  useEffect(() => {
    const source = new EventSource('/api/events');
    // Points of studies change many at a time: what came together is put in together.
    const changed = new Map<string, Run>();
    let waiting: ReturnType<typeof setTimeout> | undefined;
    const putIn = (): void => {
      waiting = undefined;
      const came = [...changed.values()];
      changed.clear();
      for (const projectId of new Set(came.map((r) => r.projectId)))
        void mutate(`/projects/${projectId}/runs`, (runs?: Run[]) => runs && merged(runs, came.filter((r) => r.projectId === projectId)), { revalidate: false }); // prettier-ignore
      void mutate('/runs/active');
      if (came.some((r) => r.state === 'done')) void mutate('/machine');
    };
    source.addEventListener('run', (event) => {
      const run = JSON.parse((event as MessageEvent<string>).data) as Run;
      changed.set(run.id, run);
      waiting ??= setTimeout(putIn, together);
    });
    source.addEventListener('gone', () => void mutate(`/projects/${project}/runs`));
    // After a lost connection the cache may have missed something.
    source.addEventListener('open', () => {
      void mutate(`/projects/${project}/runs`);
      void mutate('/runs/active');
    });
    return () => {
      clearTimeout(waiting);
      source.close();
    };
  }, [project]);
}
