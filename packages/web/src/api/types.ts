import type { Problem, Project } from '@jadebell/core/document';
import type { ResultMeta } from '@jadebell/core/results';
import type { Progress } from '@jadebell/core/solvers';

export interface ProjectSummary {
  id: string;
  title: string;
  note?: string;
  revision: number;
  updatedAt: string;
  runs: number;
}
export interface ProjectFull {
  id: string;
  revision: number;
  updatedAt: string;
  document: Project;
}
export type RunState = 'queued' | 'running' | 'done' | 'stopped' | 'failed' | 'interrupted';
export interface Run {
  id: string;
  projectId: string;
  number: number;
  state: RunState;
  createdAt: string;
  startedAt: string | null;
  endedAt: string | null;
  accuracy: string;
  parameters: { name: string; expression: string; si: number | null; measure: string }[];
  progress: Progress | null;
  problems: Problem[];
  /** Excitations of a run that was stopped or interrupted which are done and kept. */
  kept: number;
  meta: ResultMeta | null;
}
