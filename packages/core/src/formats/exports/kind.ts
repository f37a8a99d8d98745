import type { ResultSet } from '../../results/index.ts';
import type { TouchstoneView } from '../resultFiles.ts';
import type { Hdf5 } from '../hdf5.ts';

/** Forms in which fields on planes and in boxes are written. */
export const fieldForms = ['csv', 'vtr', 'vti', 'hdf5'] as const;
export type FieldForm = (typeof fieldForms)[number];

/** What is written, and how. */
export interface Exporting {
  result: ResultSet;
  /** Title of the project. */
  title: string;
  /** How the network is seen in Touchstone files. */
  view: TouchstoneView;
  /** Whether waves of several excitations were added up, so that figures of recorders are not there. */
  mixed?: boolean;
  /** Recorders and wires that are wanted by name; absent: all. */
  only?: readonly string[];
  /** Frequencies that are wanted, Hz, of each the nearest that was recorded; absent: all. */
  frequencies?: readonly number[];
  fields?: readonly FieldForm[];
  /** The library that writes HDF5, opened when it is needed. */
  hdf5?: () => Promise<Hdf5>;
}

/** A file of a result, made when it is asked for. */
export interface ResultFile {
  /** What stands behind the result's name in the file's. */
  ending: string;
  write(): string | Uint8Array | Promise<Uint8Array>;
}

/** A kind of file that results have. */
export interface ExportKind {
  key: string;
  /** What it holds, in a few words. */
  title: string;
  type: string;
  /** Arrays that it is made of, where these are the same for all results. */
  arrays?: readonly string[];
  files(e: Exporting): ResultFile[];
}

/** A part of a file's name: letters, digits, points and dashes. */
export const namePart = (text: string): string => text.replaceAll(/[^A-Za-z0-9.]+/g, '-').replaceAll(/^-|-$/g, '');

/** Whether something of a name is wanted. */
export const wanted = ({ only }: Exporting, name: string): boolean => !only?.length || only.includes(name);

/** Numbers of the wanted ones among some frequencies. */
export function numbersWanted({ frequencies }: Exporting, all: readonly number[]): number[] {
  if (!frequencies?.length) return all.map((_, n) => n);
  const nearest = frequencies.map((f) => all.reduce((best, x, n) => (Math.abs(x - f) < Math.abs(all[best] - f) ? n : best), 0));
  return all.map((_, n) => n).filter((n) => nearest.includes(n));
}

/** A frequency as a part of a file's name, such as 2.4GHz. */
export const atFrequency = (f: number): string => (f >= 1e12 ? `${Number((f / 1e12).toPrecision(7))}THz` : `${Number((f / 1e9).toPrecision(7))}GHz`);
