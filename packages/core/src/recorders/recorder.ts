import type { Complex } from '../numerics/complex.ts';
import { z } from 'zod';
import {
  type Chip,
  type ChipValues,
  expression,
  fieldChips,
  type Fields,
  fieldSchemas,
  fieldSentence,
  fieldsFresh,
  nameText,
  type SentencePart,
  type ValuesOf,
} from '../entries/index.ts';
import type { Body } from '../geometry/index.ts';
import type { Dielectric } from '../materials/index.ts';
import type { SolverName } from '../methods/index.ts';
import type { ResultArray } from '../network/types.ts';
import type { Point3 } from '../shapes/index.ts';
import type { Grid, Mirrors, Region, RegionSums } from '../yee/index.ts';
import type { Axis } from '../numerics/axis.ts';

export type Index = [number, number, number];

/** Numbers of the recorded frequencies that a recorder keeps; absent: all. */
export interface Kept {
  kept?: number[];
}
/** Frequencies that a recorder kept, hertz, where those are not all that were recorded; what it tells has these alone. */
export interface AtFrequencies {
  frequencies?: number[];
}

/** What stands in the way of a recorder: where, what and how to mend it. */
export interface Fault {
  code: string;
  chip: string;
  fault: string;
  fix: string;
}

/** The model around a new recorder. */
export interface Surroundings {
  /** Text of a coordinate of the region: its low end, middle or high end on an axis. */
  at(axis: number, where: 'low' | 'middle' | 'high'): string;
  /** Lines with bodies, those first that no recorder looks into yet. */
  lines: readonly string[];
  /** Bodies that are wires. */
  wires: readonly string[];
}

/** A figure that shows on the model where a recorder looks. Metres. */
export type Mark =
  | { form: 'rectangle'; min: Point3; max: Point3; normal: Axis; sign: 1 | -1 }
  | { form: 'plane'; normal: Axis; at: number }
  | { form: 'box'; min: Point3; max: Point3 }
  | { form: 'line'; from: Point3; to: Point3 }
  | { form: 'point'; at: Point3 }
  | { form: 'body'; line: string };

/** A sample over time: the field at a node, as the mean of two samples. */
export interface Probe {
  /** 0..5: Ex, Ey, Ez, Hx, Hy, Hz. */
  field: number;
  at: Index;
  /** Indices by which the second sample is moved, and weights of either. */
  shift: Index;
  weights: Complex;
}

/** Modes of a rectangle of the grid, with what is needed to tell them apart in recorded fields. */
export interface RectangleModes {
  /** Axes of the rectangle, right-handed with its normal. */
  u: Axis;
  /** Coordinate of its plane, metres. */
  at: number;
  /** Samples along u, and of each the areas (m^2) for which E along u and along v stand; 0 in metal. */
  nu: number;
  areas: { u: Float64Array; v: Float64Array };
  /** Free part of each edge, where metal cuts some. */
  free: { u?: Float64Array; v?: Float64Array };
  modes: {
    family: 'TEM' | 'TE' | 'TM' | 'hybrid';
    /** Such as TE10. */
    name: string;
    /** Profiles at a frequency, e x h of which has the integral `flux`. */
    profile(frequency: number): { eu: Float64Array; ev: Float64Array; hu: Float64Array; hv: Float64Array; flux: number };
    at(frequency: number): { admittance: readonly [number, number]; propagates: boolean };
  }[];
}

/** What a run on a grid offers to a recorder while it is planned. */
export interface GridRecording {
  grid: Grid;
  /** Sides of the region, xMin .. zMax, as 'open' and the like. */
  boundaries: readonly string[];
  mirrors?: Mirrors;
  bodies: readonly Body[];
  /** First and last node of each axis at which fields may be told: absorbing layers, and what lies outside a plane wave's box, are left out. */
  inner: { lo: Index; hi: Index };
  /** Keeps running Fourier sums of a region at the recorder's frequencies; gives its number. */
  add(region: Region): number;
  /** Keeps a sample over time; gives its number. */
  addProbe(probe: Probe): number;
  /** Keeps what is lost in metal, for `metalLoss` of the reading. */
  keepMetalLoss(): void;
  /** Seeks the modes of a rectangle between nodes; they are there once the run begins. */
  modes(normal: Axis, lo: Index, hi: Index, count: number): () => RectangleModes;
  /** Dielectric of each body as an axis sees it; null of metal. */
  dielectrics(axis: Axis): readonly (Dielectric | null)[];
  /** By how much the square of the field kept on an edge that metal cuts is to be divided for its energy; 0 inside metal or where nothing cuts. */
  energyPart(component: Axis, i: number, j: number, k: number): number;
}

/** What a run on a grid offers when a recorder is read: at frequencies, or over time. */
export interface GridReading {
  /** All recorded frequencies, hertz, and the factor of each by which sums become fields. */
  all: readonly number[];
  scales: readonly Complex[];
  /** Numbers of those that this recorder keeps. */
  numbers: readonly number[];
  sums(region: number): RegionSums;
  /** Power lost in each line of metal at a recorded frequency by its number, W. */
  metalLoss(f: number): readonly { line: string; power: number }[];
  /** Seconds of a step, and how many were taken. */
  dt: number;
  steps: number;
  /** Samples of a probe, one a step. */
  probe(n: number): ArrayLike<number>;
  /** Adds an array of fields, of which each excitation has its own. */
  keep(name: string, array: ResultArray): void;
  /** Adds an array that tells where fields stand, once for all excitations. */
  place(name: string, array: ResultArray): void;
}

/** What a solution on wires offers to a recorder. */
export interface WireReading {
  /** Frequencies that the recorder keeps, hertz, and their numbers among those that were solved. */
  frequencies: readonly number[];
  numbers: readonly number[];
  /** Corners of the region that is shown. */
  min: Point3;
  max: Point3;
  /** E and H, six pairs, at a point for a solved frequency by its number. */
  fieldAt(f: number, point: readonly number[], out: Float64Array): void;
  /** Segments: start, unit direction, length, radius, 8 values each; the line that each belongs to; current of one at its start and end. */
  segments: Float64Array;
  lineOf(segment: number): string;
  currentAt(f: number, segment: number): readonly [Complex, Complex];
  rest(): Promise<void>;
  keep(name: string, array: ResultArray): void;
  place(name: string, array: ResultArray): void;
}

/** A curve that a recorder offers over its frequencies, for each of its kind that a run has. */
export interface RecordedCurve<T> {
  title: string;
  unit: string;
  forms: readonly ('db' | 'dBpower' | 'magnitude' | 'real' | 'imaginary' | 'phase' | 'plain')[];
  terms(told: Named<T>): { key: string; label: string }[];
  values(told: Named<T>, key: string): readonly (number | Complex)[] | undefined;
}
export type Named<T> = T & { name: string } & AtFrequencies;

/** Numbers of a table, one for each place, moment or frequency. */
export interface Column {
  title: string;
  values: ArrayLike<number>;
}

/** Arrays in which a recorder keeps what it records. */
export interface RecordedValues<T> {
  /** Names of the one with the values, of which each frequency is a part, and of those that tell where these belong. */
  arrays(told: Named<T>): { values: string; places: string[] };
  /** A table of them: the values of one frequency, or all that were kept over time. */
  columns(told: Named<T>, values: ArrayLike<number>, places: readonly ArrayLike<number>[]): Column[];
}

/** A table of all recorders of a kind at their frequencies. */
export interface RecordedTable<T> {
  title: string;
  /** What the figures are, before 'for 1 W in'. */
  about?: string;
  /** End of the name of its file. */
  file: string;
  heads: string[];
  rows(told: Named<T>): { heads: string[]; texts: string[]; columns: Column[] }[];
}

/** What a kind of recorder says of itself; all tables of recorders are made of these. */
interface Definition<K extends string, F extends Fields, P extends object, T extends object> {
  kind: K;
  /** In menus: 'far field'. */
  title: string;
  /** Name of a new one. */
  stem: string;
  /** Solvers that keep it. */
  solvers: readonly SolverName[];
  /** Where it keeps what it records: at frequencies of its own or those of the project, over the whole band, or over time. */
  over: 'frequencies' | 'band' | 'time';
  /** A project may have one alone. */
  single?: true;
  fields: F;
  /** Template: {field} places a field, {name} its name. */
  sentence: string;
  /** Values of a new one that depend on the model. */
  fresh?(around: Surroundings): Partial<ValuesOf<F>>;
  /** The recorder in SI, from the values of its chips. */
  resolve(entry: ValuesOf<F>, values: ChipValues, bodies: readonly Pick<Body, 'line' | 'material' | 'min' | 'max'>[]): P | Fault;
  /** What of it is recorded in the half that planes of symmetry leave; absent: all of it. */
  mirror?(placed: P & Kept, mirrors: Mirrors): P | Fault;
  /** What of it lies outside the computed region, or null. */
  outside?(placed: P, region: { min: Point3; max: Point3; out(x: number, axis: number): boolean }): { what: string; chip: string } | null;
  /** Coordinates on an axis at which it wishes for a grid line. */
  lines?(placed: P, axis: Axis): readonly number[];
  /** Field samples it keeps on a grid, about; `inside` tells those of one field between two corners, `sides` those of whole planes across z, x and y. */
  samples?(
    placed: P,
    size: { sides: readonly [number, number, number]; inside(min: ArrayLike<number>, max: ArrayLike<number>): number; bodies: readonly Body[] },
  ): number;
  marks?(placed: P): Mark[];
  /** Plans what is recorded on a grid; what it gives back reads it. */
  onGrid?(placed: P & Kept & { name: string }, g: GridRecording): (r: GridReading) => T;
  /** Reads it from currents in wires. */
  onWires?(placed: P & Kept & { name: string }, w: WireReading): Promise<T>;
  /** Curves of what it tells, by the name of the quantity. */
  curves?: Record<string, RecordedCurve<T>>;
  table?: RecordedTable<T>;
  values?: RecordedValues<T>;
  /** Cards of a new board: a field picture of each, one card of all, one of each, or none. */
  card?: 'field' | 'table' | 'own';
}

/** A kind of recorder: what it says of itself, and its schema, chips and sentence. */
export interface RecorderKind<K extends string, F extends Fields, P extends object, T extends object> extends Definition<K, F, P, T> {
  schema: z.ZodType<EntryOf<K, F>>;
  chips(entry: EntryOf<K, F>): Chip[];
  words(entry: EntryOf<K, F>): SentencePart[];
  make(name: string, around: Surroundings): EntryOf<K, F>;
}
export type EntryOf<K extends string, F extends Fields> = { kind: K; name: string; frequencies?: [string][] } & ValuesOf<F>;
/** Document, placed form and what is told, of a kind. */
export type EntryOfKind<R> = R extends RecorderKind<infer K, infer F, infer _P, infer _T> ? EntryOf<K, F> : never;
export type PlacedOfKind<R> = R extends RecorderKind<infer K, infer _F, infer P, infer _T> ? { kind: K; name: string } & P & Kept : never;
export type ToldOfKind<R> = R extends RecorderKind<infer K, infer _F, infer _P, infer T> ? { kind: K } & Named<T> : never;

/** Frequencies of a recorder's own, a row each. */
const frequencies = z
  .array(z.tuple([expression]))
  .max(200)
  .optional()
  .describe('Frequencies at which it records; absent: those of the project');
const frequencyList: SentencePart = {
  list: 'frequencies',
  label: 'frequency',
  several: 'frequencies',
  none: 'the frequencies below',
  columns: [{ label: 'frequency', quantity: 'frequency' }],
  least: 0,
};

/** Makes a kind of recorder from what it says of itself; P is its form in SI, T what a result tells of it. */
export const defineRecorder =
  <P extends object, T extends object>() =>
  <K extends string, F extends Fields>(d: Definition<K, F, P, T>): RecorderKind<K, F, P, T> => {
    const own = d.over === 'frequencies';
    return {
      ...d,
      schema: z.strictObject({
        kind: z.literal(d.kind),
        name: nameText,
        ...(own ? { frequencies } : {}),
        ...fieldSchemas(d.fields),
      }) as unknown as z.ZodType<EntryOf<K, F>>,
      chips: (entry) => [
        ...fieldChips(d.fields, entry),
        ...(entry.frequencies ?? []).map((_, i): Chip => ({
          path: `frequencies.${i}.0`,
          label: `frequency ${i + 1}`,
          quantity: 'frequency',
          positive: true,
        })),
      ],
      words: (entry) => [...fieldSentence(d.sentence, d.fields, entry), ...(own ? ['· at', frequencyList] : [])],
      make: (name, around) => ({ kind: d.kind, name, ...fieldsFresh(d.fields), ...d.fresh?.(around) }) as unknown as EntryOf<K, F>,
    };
  };

/** An axis by its letter. */
export const axisOf = (letter: 'x' | 'y' | 'z'): Axis => 'xyz'.indexOf(letter) as Axis;
/** The two axes beside one, in the order x, y, z. */
export const beside = (axis: Axis): [Axis, Axis] => [0, 1, 2].filter((a) => a !== axis) as [Axis, Axis];
/** Whether a placing ended in a fault. */
export const isFault = (x: object): x is Fault => 'fault' in x;
