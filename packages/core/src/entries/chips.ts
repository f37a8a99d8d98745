import { z } from 'zod';

/** Kinds of quantity a chip may ask for. The expression's unit must match. */
export const quantities = ['length', 'angle', 'frequency', 'resistance', 'inductance', 'capacitance', 'conductivity', 'time', 'number'] as const;
export type Quantity = (typeof quantities)[number];

/** What a text in a project stands for, beyond what it says: an expression, or the name of something else. */
export type Role = 'expression' | 'line' | 'face' | 'port' | 'parameter' | 'material' | 'part' | 'measure';
/** Schemas whose texts play a role; a schema that is made of one by `describe` plays it too. */
export const roles = z.registry<{ role: Role }>();
const playing = <S extends z.ZodType>(role: Role, schema: S): S => {
  roles.add(schema, { role });
  return schema;
};

/** Every expression is text as the user wrote it; 300 characters keep parsing time bounded. */
export const expression = playing('expression', z.string().min(1).max(300)).describe("An expression with units, e.g. 'arm / 2 + 1 mm'");
export const vector2 = z.tuple([expression, expression]);
export const vector3 = z.tuple([expression, expression, expression]);
const nameForm = /^[A-Za-z_][A-Za-z0-9_]{0,39}$/;
const nameRule = 'A name starts with a letter and has letters, digits and _ only, at most 40';
/** An entry's own name. */
export const nameText = z.string().regex(nameForm, nameRule).describe('A name: letters, digits and _');
/** Name of an earlier line, or of one of the bodies that it makes. */
export const lineName = playing('line', z.string().regex(nameForm, nameRule));
/** The same, or nothing yet. */
export const chosenLine = playing('line', z.union([z.string().regex(nameForm, nameRule), z.literal('')]));
/** Name of a port. */
export const portName = playing('port', z.string().regex(nameForm, nameRule)).describe('Name of a port');
/** Name of a material of the project or the library. */
export const materialName = playing('material', z.string().min(1).max(60));
/** Name of a part that came from a file. */
export const partName = playing('part', z.string().max(80));
/** Name of a measure of the project. */
export const measureName = playing('measure', z.string().max(40));
/** Name of a parameter, or a word that stands for something else. */
export const parameterName = playing('parameter', z.string().max(64));
/** A face of an earlier line, or nothing yet. */
export const faceText = playing(
  'face',
  z
    .string()
    .max(130)
    .regex(/^([A-Za-z_]\w*(\.[A-Za-z_]\w*){1,2})?$/, 'A face is written line.face'),
).describe('A face of an earlier line, e.g. board.top');
export const axis = z.enum(['x', 'y', 'z']);
export const planeName = z.enum(['xy', 'yz', 'zx']);

/** One expression inside an entry: where it stands and what it must measure. */
export interface Chip {
  /** Dotted path inside the entry, e.g. 'size.0'. */
  path: string;
  label: string;
  quantity: Quantity;
  /** What an absent one stands for. */
  otherwise?: string;
  /** Fails unless the value is above zero. */
  positive?: boolean;
  /** Fails unless the value is a whole number between these two. */
  whole?: readonly [number, number];
  /** The expression is a function of t, sampled between the chips at these paths. */
  over?: { from: string; to: string; count: string };
}

/** What a reference to an earlier line may point at. */
export type Accepts = 'body' | 'solid' | 'sheet' | 'curve' | 'frame' | 'any' | 'metal';

/** A column of a list of rows. */
export interface Column {
  label: string;
  quantity: Quantity;
}

/** Part of an entry's sentence in the ledger. */
export type SentencePart =
  | string
  | { chip: string }
  | { name: true }
  | { material: true }
  /** How a metal body conducts. */
  | { conductor: true }
  | { choice: string; label: string; options: readonly { value: string; label: string }[]; otherwise?: string }
  /** One earlier line; `optional` may be left out. */
  | { ref: string; label: string; accepts: Accepts; optional?: boolean }
  /** Several earlier lines. */
  | { refs: string; label: string; accepts: Accepts }
  /** A face of an earlier line, as 'line.face'. */
  | { face: string; label: string }
  /** Rows of expressions, such as the points of an outline; what more than one of them are called, and what stands for no row. */
  | { list: string; label: string; columns: Column[]; least: number; several?: string; none?: string }
  | { text: string; label: string }
  /** A part of the project that came from a file. */
  | { part: string; label: string };

/** Values of an entry's chips by path, in SI. */
export type ChipValues = Record<string, number>;

/** Reads a value at a dotted path of plain data. */
export function atPath(entry: unknown, path: string): unknown {
  let at: unknown = entry;
  for (const key of path.split('.')) at = (at as Record<string, unknown> | undefined)?.[key];
  return at;
}

/** A copy of plain data with the value at a dotted path replaced. */
export function withPath<T>(entry: T, path: string, value: unknown): T {
  const [key, ...rest] = path.split('.');
  const copy: Record<string, unknown> | unknown[] = Array.isArray(entry) ? [...entry] : { ...(entry as object) };
  const slot = copy as Record<string, unknown>;
  slot[key] = rest.length ? withPath(slot[key], rest.join('.'), value) : value;
  return copy as T;
}

/** Chips of the first `count` components of a vector of lengths. */
export const vectorChips = (path: string, label: string, count: number, names = 'xyz'): Chip[] =>
  Array.from({ length: count }, (_, i) => ({ path: `${path}.${i}`, label: `${label} ${names[i]}`, quantity: 'length' }));
