import type { Parameter, MaterialEntry, Part } from '../entries/index.ts';
import type { Line } from './kinds.ts';

/** The part of a project that its geometry is made of. */
export interface ModelSource {
  parameters: readonly Parameter[];
  materials: readonly MaterialEntry[];
  parts?: readonly Part[];
  lines: readonly Line[];
}
