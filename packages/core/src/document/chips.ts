import { z } from 'zod';

/** Kinds of quantity a chip may ask for. The expression's unit must match. */
export const quantities = ['length', 'angle', 'frequency', 'resistance', 'number'] as const;
export type Quantity = (typeof quantities)[number];

/** Every expression is text as the user wrote it; 300 characters keep parsing time bounded. */
export const expression = z.string().min(1).max(300).describe("An expression with units, e.g. 'arm / 2 + 1 mm'");
export const vector2 = z.tuple([expression, expression]);
export const vector3 = z.tuple([expression, expression, expression]);
export const nameText = z
  .string()
  .regex(/^[A-Za-z_][A-Za-z0-9_]{0,39}$/, 'A name starts with a letter and has letters, digits and _ only, at most 40')
  .describe('A name: letters, digits and _');
export const axis = z.enum(['x', 'y', 'z']);
export type Axis = z.infer<typeof axis>;
export const planeName = z.enum(['xy', 'yz', 'zx']);
export type PlaneName = z.infer<typeof planeName>;

/** One expression inside an entry: where it stands and what it must measure. */
export interface Chip {
  /** Dotted path inside the entry, e.g. 'size.0'. */
  path: string;
  label: string;
  quantity: Quantity;
  /** Fails unless the value is above zero. */
  positive?: boolean;
}

/** Part of an entry's sentence in the ledger. */
export type SentencePart =
  | string
  | { chip: string }
  | { name: true }
  | { material: true }
  | { choice: string; label: string; options: readonly { value: string; label: string }[] }
  | { body: string; label: string };

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

const plane = [
  { value: 'xy', label: 'in the xy plane' },
  { value: 'yz', label: 'in the yz plane' },
  { value: 'zx', label: 'in the zx plane' },
] as const;
export const planeChoice: SentencePart = { choice: 'plane', label: 'plane', options: plane };
export const vectorChips = (path: string, label: string, count: number, names = 'xyz'): Chip[] =>
  Array.from({ length: count }, (_, i) => ({ path: `${path}.${i}`, label: `${label} ${names[i]}`, quantity: 'length' }));
