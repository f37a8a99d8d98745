import type { Project } from '@jadebell/core/document';
import type { Machine } from '@jadebell/core/solvers';
import { useEffect } from 'react';
import useSWR from 'swr';
import useSWRImmutable from 'swr/immutable';
import { getArray, getJson, type NumberArray } from './client.ts';
import { mutate } from './mutate.ts';
import type { ProjectSummary, Run } from './types.ts';

export const useProjects = () => useSWR<ProjectSummary[]>('/projects', getJson);
export const useRuns = (project: string) => useSWR<Run[]>(`/projects/${project}/runs`, getJson);
export const useActive = () => useSWR<(Run & { title: string })[]>('/runs/active', getJson);
export const useMachine = () => useSWR<Machine>('/machine', getJson);
/** The model as a run solved it. */
export const useRunDocument = (run: string | null) => useSWRImmutable<Project>(run ? `/runs/${run}/document` : null, getJson);

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
