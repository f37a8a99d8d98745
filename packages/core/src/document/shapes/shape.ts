import { z } from 'zod';
import { type Chip, type ChipValues, nameText, type SentencePart } from '../chips.ts';

export type Point2 = [number, number];
export type Point3 = [number, number, number];

/** What a shape evaluates to: plain numbers in metres from which the geometry module makes a body. */
export type Recipe =
  | { form: 'box'; min: Point3; max: Point3 }
  | { form: 'cylinder'; axis: 0 | 1 | 2; base: Point3; height: number; radius: number }
  | { form: 'sheet'; normal: 0 | 1 | 2; offset: number; outline: Point2[] };

export const lineBase = {
  name: nameText,
  material: z.string().min(1).max(60),
  muted: z.boolean().optional().describe('A muted line builds nothing'),
  note: z.string().max(2000).optional(),
};

/** One kind of ledger line: its schema, its chips, its sentence and its evaluation. */
export interface Shape<L = never> {
  kind: string;
  title: string;
  /** One sentence for the palette. */
  about: string;
  schema: z.ZodType;
  chips(line: L): Chip[];
  sentence(line: L): SentencePart[];
  /** Numbers of the chips, in SI, to a recipe. Returns text when the values make no body. */
  recipe(line: L, values: ChipValues): Recipe | { fault: string; fix: string; chip: string };
  /** A new line with sensible expressions. */
  fresh(name: string): L;
}

/** Normal axis and the in-plane axes of a named plane, as indices. */
export const planeAxes = { xy: [0, 1, 2], yz: [1, 2, 0], zx: [2, 0, 1] } as const;
