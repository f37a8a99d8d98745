import { z } from 'zod';
import {
  type Accepts,
  axis,
  type Chip,
  chosenLine,
  type Column,
  expression,
  faceText,
  lineName,
  partName,
  planeName,
  type Quantity,
  type SentencePart,
  vector2,
  vector3,
} from './chips.ts';

/** One editable value of a line: its schema, its chips and how it reads in the sentence. */
export interface Field<T> {
  schema: z.ZodType<T>;
  /** Value in a new line. */
  fresh: T;
  chips?(path: string, value: T, line: Record<string, unknown>): Chip[];
  parts(path: string, value: T, line: Record<string, unknown>): SentencePart[];
  /** Lines that the value names, and what each must be. */
  inputs?(path: string, value: T): { path: string; name: string; accepts: Accepts }[];
}
// oxlint-disable-next-line typescript/no-explicit-any
export type Fields = Record<string, Field<any>>;
type ValueOf<F> = F extends Field<infer T> ? T : never;
/** Values of fields; one that a document may lack is optional. */
export type ValuesOf<F extends Fields> = {
  [P in keyof F as undefined extends ValueOf<F[P]> ? never : P]: ValueOf<F[P]>;
} & { [P in keyof F as undefined extends ValueOf<F[P]> ? P : never]?: ValueOf<F[P]> };

const chipPart = (path: string): SentencePart[] => [{ chip: path }];

/** One expression. */
export const value = (quantity: Quantity, label: string, fresh: string, more: Partial<Chip> & { about?: string } = {}): Field<string> => {
  const { about, ...rest } = more;
  return {
    schema: about ? expression.describe(about) : expression,
    fresh,
    chips: (path) => [{ path, label, quantity, ...rest }],
    parts: chipPart,
  };
};
/** One expression that a document may lack. */
export const optional = (
  quantity: Quantity,
  label: string,
  otherwise: string,
  about?: string,
  more: Partial<Chip> = {},
): Field<string | undefined> => ({
  schema: (about ? expression.describe(about) : expression).optional(),
  fresh: undefined,
  chips: (path) => [{ path, label, quantity, otherwise, ...more }],
  parts: chipPart,
});
/** A length. */
export const length = (label: string, fresh: string, about?: string): Field<string> => value('length', label, fresh, { about });
/** A length above zero. */
export const positive = (label: string, fresh: string, about?: string): Field<string> => value('length', label, fresh, { positive: true, about });
/** An angle. */
export const angle = (label: string, fresh: string, more: Partial<Chip> & { about?: string } = {}): Field<string> =>
  value('angle', label, fresh, more);
/** A whole number from `least` to `most`. */
export const count = (label: string, fresh: string, least: number, most: number, about?: string): Field<string> =>
  value('number', label, fresh, { whole: [least, most], about });
/** A time. */
export const time = (label: string, fresh: string, about?: string): Field<string> => value('time', label, fresh, { about });
/** A number without a unit. */
export const number = (label: string, fresh: string, about?: string): Field<string> => value('number', label, fresh, { about });

/** Letters of a vector's components: fixed, or those of the entry's plane, or those across its normal or its own axis. */
const letters = (line: Record<string, unknown>, names?: string): string =>
  names ?? (line.plane as string | undefined) ?? 'xyz'.replace(String(line.normal ?? line.along ?? ''), '');

interface VectorOptions {
  positive?: boolean;
  names?: string;
  between?: string;
  quantity?: Quantity;
  about?: string;
}
const vector = <T extends string[]>(schema: z.ZodType<T>, label: string, fresh: T, options: VectorOptions): Field<T> => ({
  schema: options.about ? schema.describe(options.about) : schema,
  fresh,
  chips: (path, v, line) =>
    v.map((_, i) => ({
      path: `${path}.${i}`,
      label: `${label} ${letters(line, options.names)[i]}`,
      quantity: options.quantity ?? 'length',
      ...(options.positive ? { positive: true } : {}),
    })),
  parts: (path, v) => v.flatMap((_, i): SentencePart[] => [...(i && options.between ? [options.between] : []), { chip: `${path}.${i}` }]),
});
/** Three expressions for x, y and z. */
export const point = (label: string, fresh: [string, string, string] = ['0 mm', '0 mm', '0 mm'], options: VectorOptions = {}) =>
  vector(vector3, label, fresh, { names: 'xyz', ...options });
/** Three lengths above zero, for x, y and z. */
export const size3 = (label: string, fresh: [string, string, string], about?: string) =>
  vector(vector3, label, fresh, { names: 'xyz', positive: true, between: '×', about });
/** Two expressions, for the axes of the line's plane unless names are given. */
export const pair = (label: string, fresh: [string, string], options: VectorOptions = {}) => vector(vector2, label, fresh, options);

/** One of a few words. */
export const choice = <K extends string>(label: string, options: Record<K, string>, about?: string): Field<K> => {
  const keys = Object.keys(options) as K[];
  const words = z.enum(keys as [K, ...K[]]) as unknown as z.ZodType<K>;
  return {
    schema: about ? words.describe(about) : words,
    fresh: keys[0],
    parts: (path) => [{ choice: path, label, options: keys.map((v) => ({ value: v, label: options[v] })), otherwise: keys[0] }],
  };
};
/** The same, taken as the first where a document lacks it. */
export const optionalChoice = <K extends string>(label: string, options: Record<K, string>, about?: string): Field<K | undefined> => {
  const { schema, ...rest } = choice(label, options);
  return { ...rest, fresh: undefined, schema: about ? schema.optional().describe(about) : schema.optional() } as Field<K | undefined>;
};
/** One of the axes. */
export const axisField = (fresh: 'x' | 'y' | 'z' = 'z', label = 'axis', about?: string): Field<'x' | 'y' | 'z'> => ({
  schema: about ? axis.describe(about) : axis,
  fresh,
  parts: (path) => [{ choice: path, label, options: (['x', 'y', 'z'] as const).map((v) => ({ value: v, label: `along ${v}` })) }],
});
/** The axis that a plane stands across, written before its coordinate. */
export const normalField = (about: string): Field<'x' | 'y' | 'z'> => ({
  schema: axis.describe(about),
  fresh: 'z',
  parts: (path) => [{ choice: path, label: 'normal', options: (['x', 'y', 'z'] as const).map((v) => ({ value: v, label: `${v} =` })) }],
});
export const planeField: Field<'xy' | 'yz' | 'zx'> = {
  schema: planeName,
  fresh: 'xy',
  parts: (path) => [{ choice: path, label: 'plane', options: (['xy', 'yz', 'zx'] as const).map((v) => ({ value: v, label: `in the ${v} plane` })) }],
};

/** An earlier line. */
export const ref = (label: string, accepts: Accepts, about = `Name of an earlier line: ${accepts}`): Field<string> => ({
  schema: chosenLine.describe(about),
  fresh: '',
  parts: (path) => [{ ref: path, label, accepts }],
  inputs: (path, name) => [{ path, name, accepts }],
});
/** Several earlier lines. */
export const refs = (label: string, accepts: Accepts): Field<string[]> => ({
  schema: z.array(lineName).max(2000).describe(`Names of earlier lines: ${accepts}`),
  fresh: [],
  parts: (path) => [{ refs: path, label, accepts }],
  inputs: (path, names) => names.map((name, i) => ({ path: `${path}.${i}`, name, accepts })),
});
/** A face of an earlier line. */
export const faceRef = (label: string): Field<string> => ({
  schema: faceText,
  fresh: '',
  parts: (path) => [{ face: path, label }],
  inputs: (path, name) => [{ path, name: name.split('.')[0], accepts: 'any' }],
});

/** Rows of expressions. `columns` may follow the line, for entry in polar coordinates. */
export const rows = (label: string, fresh: string[][], least: number, columns: (line: Record<string, unknown>) => Column[]): Field<string[][]> => ({
  schema: z.array(z.array(expression).min(1).max(6)).min(least).max(2000),
  fresh,
  chips: (path, v, line) =>
    v.flatMap((_, i) => columns(line).map((c, k) => ({ path: `${path}.${i}.${k}`, label: `${label} ${i + 1} ${c.label}`, quantity: c.quantity }))),
  parts: (path, _, line) => [{ list: path, label, columns: columns(line), least }],
});
/** Entry of points in the plane of the line: rectangular, or polar about its origin. */
export const entry2 = optionalChoice('entry', { rectangular: 'as lengths', polar: 'as radius and angle' });
/** Entry of points in space: rectangular, or cylindrical about z. */
export const entry3 = optionalChoice('entry', { rectangular: 'as x, y, z', cylindrical: 'as radius, angle and z' });
/** Points of a plane, at least so many. */
export const points2 = (fresh: string[][], least: number): Field<string[][]> =>
  rows('point', fresh, least, (line) =>
    line.entry === 'polar'
      ? [
          { label: 'radius', quantity: 'length' },
          { label: 'angle', quantity: 'angle' },
        ]
      : [0, 1].map((i) => ({ label: letters(line)[i], quantity: 'length' })),
  );
/** Points in space, at least so many. */
export const points3 = (fresh: string[][], least: number): Field<string[][]> =>
  rows('point', fresh, least, (line) =>
    line.entry === 'cylindrical'
      ? [
          { label: 'radius', quantity: 'length' },
          { label: 'angle', quantity: 'angle' },
          { label: 'z', quantity: 'length' },
        ]
      : ['x', 'y', 'z'].map((l) => ({ label: l, quantity: 'length' as const })),
  );

/** What an older document lacks is filled in when it is read. */
export const filled = <T>(field: Field<T>): Field<T> => ({ ...field, schema: field.schema.default(field.fresh as never) as unknown as z.ZodType<T> });

/** Plain text. */
export const words = (label: string, fresh: string, most: number): Field<string> => ({
  schema: z.string().max(most),
  fresh,
  parts: (path) => [{ text: path, label }],
});
/** A part of the project that came from a file. */
export const partRef = (label: string): Field<string> => ({
  schema: partName,
  fresh: '',
  parts: (path) => [{ part: path, label }],
});

const valueAt = (entry: object, name: string): unknown => (entry as Record<string, unknown>)[name];

/** Schemas of fields, to be spread into that of an entry. */
export const fieldSchemas = (fields: Fields): Record<string, z.ZodType> =>
  Object.fromEntries(Object.entries(fields).map(([name, f]) => [name, f.schema as z.ZodType]));
/** Values of a new entry's fields. */
export const fieldsFresh = (fields: Fields): Record<string, unknown> =>
  Object.fromEntries(Object.entries(fields).map(([name, f]) => [name, structuredClone(f.fresh) as unknown]));
/** The chips of an entry, in the order of its fields. */
export const fieldChips = (fields: Fields, entry: object): Chip[] =>
  Object.entries(fields).flatMap(([name, f]) => f.chips?.(name, valueAt(entry, name), entry as never) ?? []);
/** Lines that an entry names. */
export const fieldInputs = (fields: Fields, entry: object): { path: string; name: string; accepts: Accepts }[] =>
  Object.entries(fields).flatMap(([name, f]) => f.inputs?.(name, valueAt(entry, name)) ?? []);
/** An entry's sentence from a template: {field} places a field, {name} the entry's name, {material} its material and how it conducts. */
export const fieldSentence = (template: string, fields: Fields, entry: object): SentencePart[] =>
  template
    .split(/(\{\w+\})/)
    .filter((t) => t.trim())
    .flatMap((t): SentencePart[] => {
      const name = /^\{(\w+)\}$/.exec(t)?.[1];
      if (!name) return [t.trim()];
      if (name === 'name') return [{ name: true }];
      if (name === 'material') return [{ material: true }, { conductor: true }];
      return fields[name].parts(name, valueAt(entry, name), entry as never);
    });
