import type { Problem, Project } from '@jadebell/core/document';
import type { Scope } from '@jadebell/core/expressions';
import type { Body } from '@jadebell/core/geometry';
import type { ScenePort } from '@jadebell/core/scene';
import type { Estimate, Machine } from '@jadebell/core/solvers';

/** What the interface shows of an evaluated project. */
export interface View {
  bodies: Body[];
  ports: ScenePort[];
  summary: Scope['summary'];
  problems: Problem[];
  /** The computed region, null while the project has errors. */
  region: { min: number[]; max: number[] } | null;
  estimate: Estimate | null;
  /** Grid lines with absorbing layers, when asked for. */
  grid: { lines: Float64Array[]; pml: number[] } | null;
}

export interface EvaluateRequest {
  kind: 'evaluate';
  ticket: number;
  project: Project;
  machine: Machine | null;
  wantGrid: boolean;
}
export interface ExpressionRequest {
  kind: 'expression';
  ticket: number;
  project: Project;
  text: string;
  quantity: string;
}
export interface BodiesRequest {
  kind: 'bodies';
  ticket: number;
  project: Project;
}
export type Request = EvaluateRequest | ExpressionRequest | BodiesRequest;
/** Value of an expression, or why it has none. */
export interface Preview {
  text: string;
  good: boolean;
  si: number | null;
}
/** A view that is not whole has no checks, estimate and grid yet; they follow. */
export type Reply =
  | { ticket: number; view: View; whole: boolean }
  | { ticket: number; value: Preview }
  | { ticket: number; bodies: Body[] }
  | { ticket: number; fault: string };
