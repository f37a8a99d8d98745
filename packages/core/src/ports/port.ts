import { z } from 'zod';
import {
  type Chip,
  type ChipValues,
  fieldChips,
  type Fields,
  fieldSchemas,
  fieldSentence,
  fieldsFresh,
  nameText,
  type Place,
  type Problem,
  problem,
  type SentencePart,
  type ValuesOf,
} from '../entries/index.ts';
import type { Body } from '../geometry/index.ts';
import type { SceneGuide, ScenePort, SceneSource } from './types.ts';
import type { SceneWire, WireLine, WireLoad, WirePort, WireScene } from './wires.ts';
import type { SolverName } from '../methods/index.ts';

/** What ports, loads and sources are in SI, by their family: the part of a problem that solvers know them by. */
export interface Families {
  lumped: ScenePort;
  guided: SceneGuide;
  source: SceneSource;
  wire: { port: WirePort } | { load: WireLoad } | { line: WireLine };
}
export type Family = keyof Families;

/** The model around a new port. */
export interface PortSurroundings {
  /** Two bodies of metal with the narrowest gap between them in which nothing stands; absent: there are no two. */
  pair?: [string, string];
  /** Wires, those first in which nothing stands yet. */
  wires: readonly string[];
  /** The face that is picked; empty for none. */
  face: string;
  /** Whether there is a solid on which a face could be picked. */
  solids: boolean;
}

/** What a port is placed in: its place among all, the bodies, the wires where the solver takes those, and a way to tell what is wrong. */
export interface Placing {
  order: number;
  bodies: readonly Body[];
  wires: readonly SceneWire[];
  /** Tells of a fault; gives null so that it can be returned. */
  fail(code: string, chip: string | null, message: string, fix: string): null;
}

/** Why a source cannot excite a scene as it is. */
interface SourceFault {
  code: string;
  severity?: 'warning';
  message: string;
  fix: string;
}

interface Definition<K extends string, F extends Fields, Y extends Family, P extends Families[Y]> {
  kind: K;
  /** In menus: 'across the gap between two bodies'. */
  title: string;
  /** Name of a new one. */
  stem: string;
  family: Y;
  /** port: feeds and reads; load: a passive part; source: excites the whole from without, ports being loads then. */
  role: 'port' | 'load' | 'source';
  /** Solvers that take it. */
  solvers: readonly SolverName[];
  /** A project may have one alone. */
  single?: true;
  fields: F;
  sentence: string | ((entry: ValuesOf<F>) => string);
  /** Why none can be added to the model as it is; absent or null: one can. */
  lacking?(around: PortSurroundings): boolean;
  fresh?(around: PortSurroundings): Partial<ValuesOf<F>>;
  /** Of sources: what stands in their way on a grid, and in a scene of wires. */
  onGrid?(placed: P, around: { boundaries: readonly string[]; symmetric: boolean }): SourceFault[];
  onWires?(placed: P, around: { wires: readonly SceneWire[]; ground: WireScene['ground'] }): SourceFault[];
  /** Of sources: cells of the longest size that it needs between bodies and boundary. */
  room?: number;
  /** The port in SI, from the values of its chips; null where that was told to be impossible. */
  resolve(entry: ValuesOf<F> & { name: string }, values: ChipValues, placing: Placing): P | null;
}

/** A kind of port, load or source: what it says of itself, and its schema, chips and sentence. */
export interface PortKind<K extends string, F extends Fields, Y extends Family, P extends Families[Y] = Families[Y]> extends Definition<K, F, Y, P> {
  schema: z.ZodType<PortEntry<K, F>>;
  chips(entry: PortEntry<K, F>): Chip[];
  words(entry: PortEntry<K, F>): SentencePart[];
  make(name: string, around: PortSurroundings): PortEntry<K, F>;
}
export type PortEntry<K extends string, F extends Fields> = { kind: K; name: string; note?: string } & ValuesOf<F>;
export type EntryOfPort<R> = R extends PortKind<infer K, infer F, infer _Y, infer _P> ? PortEntry<K, F> : never;

/** Makes a kind of port from what it says of itself. */
export function definePort<K extends string, F extends Fields, Y extends Family, P extends Families[Y]>(
  d: Definition<K, F, Y, P>,
): PortKind<K, F, Y, P> {
  return {
    ...d,
    schema: z.strictObject({
      kind: z.literal(d.kind),
      name: nameText,
      note: z.string().max(2000).optional(),
      ...fieldSchemas(d.fields),
    }) as unknown as z.ZodType<PortEntry<K, F>>,
    chips: (entry) => fieldChips(d.fields, entry),
    words: (entry) => fieldSentence(typeof d.sentence === 'string' ? d.sentence : d.sentence(entry), d.fields, entry),
    make: (name, around) => ({ kind: d.kind, name, ...fieldsFresh(d.fields), ...d.fresh?.(around) }) as unknown as PortEntry<K, F>,
  };
}

/** A way to tell faults of a port, or of a recorder that stands in a wire as a port does. */
export const failing =
  (name: string, problems: Problem[], part: 'ports' | 'recorders' = 'ports'): Placing['fail'] =>
  (code, chip, message, fix) => {
    const place: Place = { part, name, ...(chip === null ? {} : { chip }) };
    problems.push(problem('error', code, place, message, fix));
    return null;
  };
