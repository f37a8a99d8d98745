import type { SolverHost } from '@jadebell/core/solvers';

/** One line of the verification table. */
export interface Row {
  quantity: string;
  /** Reference value and unit as text, and where it comes from. */
  reference: string;
  source: string;
  computed: string;
  /** Error and what is allowed, in the same measure (relative unless the text says dB). */
  error: number;
  allowed: number;
  /** '' is an absolute error. */
  unit: '%' | 'dB' | '';
  cells: number;
  seconds: number;
}

export interface Case {
  name: string;
  title: string;
  /** Left out of the quick set that the tests run. */
  slow: boolean;
  run(host: SolverHost): Promise<Row[]>;
}

/** Relative error in percent. */
export const percent = (computed: number, reference: number): number => (Math.abs(computed - reference) / Math.abs(reference)) * 100;

/** Whether a row is within what is allowed; an error that is no number fails. */
export const passes = (row: Row): boolean => row.error <= row.allowed;
