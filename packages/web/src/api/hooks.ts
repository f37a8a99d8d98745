import { activeRunSchema, machineSchema, projectSummary, runSchema, sketchSchema } from '@jadebell/api';
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

/** A result array; null run or name reads nothing. */
export function useArray(run: string | null, name: string | null, range?: { from: number; count: number }) {
  const key = run && name ? ['array', run, name, range?.from ?? 0, range?.count ?? 0] : null;
  return useSWRImmutable<NumberArray>(key, () => getArray(run!, name!, range), { keepPreviousData: false });
}

/** Follows the server's events and keeps the cached runs up to date. */
export function useServerEvents(project: string): void {
  useEffect(() => {
    const source = new EventSource('/api/events');
    source.addEventListener('run', (event) => {
      const run = JSON.parse((event as MessageEvent<string>).data) as Run;
      const replace = (runs?: Run[]): Run[] | undefined => {
        if (!runs) return runs;
        return runs.some((r) => r.id === run.id) ? runs.map((r) => (r.id === run.id ? run : r)) : [run, ...runs].sort((a, b) => b.number - a.number);
      };
      void mutate(`/projects/${run.projectId}/runs`, replace, { revalidate: false });
      void mutate('/runs/active');
      if (run.state === 'done') void mutate('/machine');
    });
    source.addEventListener('gone', () => void mutate(`/projects/${project}/runs`));
    // After a lost connection the cache may have missed something.
    source.addEventListener('open', () => {
      void mutate(`/projects/${project}/runs`);
      void mutate('/runs/active');
    });
    return () => source.close();
  }, [project]);
}
