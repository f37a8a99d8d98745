export type { ActiveRun, Machine, ProjectFull, ProjectSummary, Run, RunState, Sketch } from '@jadebell/api';
