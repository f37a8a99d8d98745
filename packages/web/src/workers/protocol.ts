import type { Line, Part, Problem, Project } from '@jadebell/core/document';
import type { Scope } from '@jadebell/core/expressions';
import type { Body, Model, ModelCurve } from '@jadebell/core/geometry';
import type { WireMark } from '@jadebell/core/grid';
import type { SceneGuide, ScenePort, PlacedRecorder, SceneSource } from '@jadebell/core/scene';
import type { Machine, MeshView } from '@jadebell/core/solvers';
import type { Estimate } from '@jadebell/core/methods';
import type { PackedFaces } from './packedFaces.ts';

/** A body as it is drawn: without the exact shape that only solvers ask for. */
export type ViewBody = Omit<Body, 'shape' | 'planes' | 'curved'> & {
  /** No thickness. */
  sheet: boolean;
  /** Axis across which it stands, for a sheet. */
  normal: number | null;
};
/** What changes with every evaluation of a body whose geometry is known already. */
export type BodyHead = Pick<ViewBody, 'name' | 'line' | 'order' | 'id' | 'material'>;

/** What the interface shows of an evaluated project. */
export interface View {
  bodies: ViewBody[];
  curves: ModelCurve[];
  frames: Model['frames'];
  kinds: Model['kinds'];
  values: Model['values'];
  ports: ScenePort[];
  guides: SceneGuide[];
  source: SceneSource | null;
  recorders: PlacedRecorder[];
  /** What stands in wires, and their ground's height, where the solver takes those. */
  wires: { marks: WireMark[]; ground: number | null } | null;
  summary: Scope['summary'];
  problems: Problem[];
  /** The computed region, null while the project has errors. */
  region: { min: number[]; max: number[] } | null;
  estimate: Estimate | null;
  /** The grid or the segments, when asked for. */
  mesh: MeshView | null;
}
/** A body on its way. */
export type SentBody = Omit<ViewBody, 'faces'> & PackedFaces;
/** A view on its way: bodies that were sent before come as their heads. */
export type SentView = Omit<View, 'bodies'> & { bodies: (SentBody | BodyHead)[] };

/** A project on its way: lines and parts by number, with those that were not sent before. */
export interface SentProject {
  rest: Omit<Project, 'lines' | 'parts'>;
  lines: number[];
  parts: number[];
  fresh: [number, Line | Part][];
}

export interface EvaluateRequest {
  kind: 'evaluate';
  ticket: number;
  project: SentProject;
  machine: Machine | null;
  wantMesh: boolean;
}
/** An expression to be tried in the newest evaluated project. */
export interface ExpressionRequest {
  kind: 'expression';
  ticket: number;
  text: string;
  quantity: string;
  /** The expression is a function of t. */
  sampled?: boolean;
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
  | { ticket: number; view: SentView; whole: boolean }
  | { ticket: number; value: Preview }
  | { ticket: number; bodies: SentBody[] }
  | { ticket: number; fault: string };
