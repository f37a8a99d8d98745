import type { MeshData, Point2 } from '../../document/index.ts';

/** A closed body or open surface of a file, in the unit of the file. */
export interface ImportedMesh {
  name: string;
  mesh: MeshData;
}
/** Outlines of one layer of a drawing, in the unit of the file. */
export interface ImportedLayer {
  name: string;
  loops: Point2[][];
  /** Pieces that do not close to an outline. */
  open: number;
}
/** What a file holds. */
export interface Imported {
  meshes: ImportedMesh[];
  layers: ImportedLayer[];
  /** Unit that the file states, or null where it states none. */
  unit: LengthUnit | null;
  /** Sentences on what was left out. */
  notes: string[];
}
export const lengthUnits = { nm: 1e-9, um: 1e-6, mm: 1e-3, cm: 1e-2, m: 1, mil: 25.4e-6, inch: 25.4e-3 } as const;
export type LengthUnit = keyof typeof lengthUnits;

/** A file that cannot be taken, with the reason and the cure. */
export class ImportFault extends Error {
  constructor(
    message: string,
    readonly fix: string,
  ) {
    super(message);
  }
}

export interface Importer {
  /** Lower-case endings of file names. */
  endings: readonly string[];
  title: string;
  /** Reads a whole file. Throws an ImportFault. */
  read(bytes: Uint8Array, tools: ImportTools): Imported | Promise<Imported>;
}
/** What the place that an importer runs in has to give. */
export interface ImportTools {
  /** Address of the STEP reader's WebAssembly file where the default does not serve. */
  stepReader?: string;
}

export const mostTriangles = 2_000_000;
/** The fault of a file with more triangles than are taken. */
export const tooManyTriangles = (n: number): ImportFault =>
  new ImportFault(
    `The file has ${n.toLocaleString('en')} triangles; at most ${mostTriangles.toLocaleString('en')} are taken.`,
    'Simplify it where it was made, and import it again.',
  );

/** The fault of a file that holds nothing of what was looked for. */
export const nothing = (what: string): ImportFault => new ImportFault(`The file holds no ${what}.`, 'Check that it is the right file.');
/** Bytes as text, whatever they hold. */
export const textOf = (bytes: Uint8Array): string => new TextDecoder('utf-8', { fatal: false }).decode(bytes);
