import type { Axis } from '../../numerics/axis.ts';

/** One row of field samples: what is added to them each step is the real part of a sum over tones. */
export interface InjectedRow {
  /** 0..5: Ex .. Hz. */
  field: number;
  /** First sample; the row runs along `axis`. */
  at: [number, number, number];
  axis: Axis;
  count: number;
  /** Tables of the row's axis: at nodes or between them, from this index. */
  half: boolean;
  from: number;
  /** Complex factor of each tone, re and im in turn. */
  factors: Float32Array;
}

/** What a source from without adds to the fields, step by step. */
export interface Injection {
  tones: number;
  /** Steps after which nothing is added any more. */
  steps: number;
  /** Tables [tone][re, im][index] along each axis, at nodes and between; `length`, a multiple of four, is that of one. */
  tables: { node: Float32Array; half: Float32Array; length: number }[];
  rows: InjectedRow[];
  /** Factor of tone t at step n for rows of E (times of H) and of H (times of E): [n][tone][re, im]. */
  turnE: Float32Array;
  turnH: Float32Array;
}
