import type { Problem } from '@jadebell/core/document';
import type { ConvergencePass, ModeFigures, SweepStep } from '@jadebell/core/solvers/sections';
import type { SentProject } from './protocol.ts';

/** What is asked of a section, by its name or by that of a guided port. */
export type SectionTask =
  | { task: 'prepare' }
  | { task: 'modes' }
  | { task: 'sweep'; from: string; to: string; points: number }
  | { task: 'converge'; bound: number };

export type SectionRequest = { ticket: number; project: SentProject; name: string } & SectionTask;

/** The section as it will be solved. Arrays lie with the first axis of the section across and the second upwards. */
export interface Prepared {
  name: string;
  /** Axes across and upwards, 0 to 2. */
  axes: [number, number];
  normal: number;
  at: number;
  frequency: number;
  x: Float64Array;
  y: Float64Array;
  /** Layers of absorbing edges: low and high x, low and high y. */
  layers: [number, number, number, number];
  cells: number;
  bodies: { name: string; metal: boolean }[];
  /** Body at each half cell: 1 + place, 0 for none; x fastest. */
  media: { nx: number; ny: number; body: Uint16Array };
  /** Edges in metal sheets and faces: x0, y0, x1, y1, metres. */
  metal: Float32Array;
  bent: boolean;
}

export interface FoundModes {
  figures: ModeFigures[];
  /** Of each mode: [y][x][12], real and imaginary parts of E along x, y, the guide, then of H. */
  fields: Float32Array[];
  seconds: number;
}

export type SectionReply = { ticket: number } & (
  | { prepared: Prepared; problems: Problem[] }
  | { modes: FoundModes }
  | { step: SweepStep; of: number }
  | { pass: ConvergencePass }
  | { end: true }
  | { problems: Problem[] }
  | { fault: string }
);
