import { z } from 'zod';
import { type Accepts, type Chip, type ChipValues, lineName, materialName, nameText, type SentencePart } from '../entries/chips.ts';
import { type Conductor, conductorChips, conductorSchema } from '../entries/conductor.ts';
import { fieldChips, fieldInputs, type Fields, fieldSchemas, fieldSentence, fieldsFresh, type ValuesOf } from '../entries/fields.ts';
import type { Impossible, Point2, Point3, Recipe } from './recipe.ts';
import type { Axis } from '../numerics/axis.ts';
import { sameNumber } from '../numerics/tolerance.ts';

/** Groups under which the interface offers the shapes. */
export const shapeGroups = ['Solids', 'Wires', 'Flat', 'Curves', 'From other lines', 'Combine', 'Place', 'Patterns', 'Order'] as const;
export type ShapeGroup = (typeof shapeGroups)[number];

/** Values of expressions sampled over t, by chip path. */
export type Samples = Record<string, readonly number[]>;

export interface LineBase {
  name: string;
  muted?: boolean;
  note?: string;
  /** Name of the frame whose axes the line's coordinates count in; absent: the axes of the world. */
  in?: string;
  conductor?: Conductor;
}
const lineBase = {
  name: nameText,
  muted: z.boolean().optional().describe('A muted line builds nothing'),
  note: z.string().max(2000).optional(),
  in: lineName.optional().describe('Working frame in which its coordinates count'),
};

/** One kind of ledger line: its schema, its chips, its sentence and its evaluation. */
export interface Shape<L = Record<string, unknown> & LineBase> {
  kind: string;
  title: string;
  group: ShapeGroup;
  /** One sentence for the palette. */
  about: string;
  schema: z.ZodType;
  /** 'own': it has a material; 'first': it may have one, else takes that of its first input; 'none'. */
  material: 'own' | 'first' | 'none';
  chips(line: L): Chip[];
  sentence(line: L): SentencePart[];
  /** Lines that it builds on. */
  inputs(line: L): { path: string; name: string; accepts: Accepts }[];
  /** Which of its inputs it uses up, so that they are bodies no more. */
  consumes(line: L): string[];
  recipe(line: L, values: ChipValues, samples: Samples): Recipe | Impossible;
  /** A new line with sensible expressions. */
  fresh(name: string): L;
}

interface Definition<K extends string, F extends Fields> {
  kind: K;
  title: string;
  group: ShapeGroup;
  about: string;
  fields: F;
  material?: 'own' | 'first' | 'none';
  freshMaterial?: string;
  /** Template: {field} places a field, {name} and {material} what they say. */
  sentence: string | ((line: LineOf<K, F>) => string);
  consumes?(line: LineOf<K, F>): string[];
  recipe(line: LineOf<K, F>, values: ChipValues, samples: Samples): Recipe | Impossible;
}
export type LineOf<K extends string, F extends Fields> = LineBase & { kind: K; material?: string } & ValuesOf<F>;
export type LineOfShape<S> = S extends Shape<infer L> ? L : never;

/** Makes a shape from its fields: schema, chips, sentence and inputs follow from them. */
export function defineShape<K extends string, F extends Fields>(d: Definition<K, F>): Shape<LineOf<K, F>> {
  const { fields, material = 'own' } = d;
  return {
    kind: d.kind,
    title: d.title,
    group: d.group,
    about: d.about,
    material,
    schema: z.strictObject({
      kind: z.literal(d.kind),
      ...lineBase,
      ...(material === 'own' ? { material: materialName } : material === 'first' ? { material: materialName.optional() } : {}),
      ...(material === 'none' ? {} : { conductor: conductorSchema.optional() }),
      ...fieldSchemas(fields),
    }),
    chips: (line) => [...fieldChips(fields, line), ...conductorChips(line.conductor)],
    inputs: (line) => fieldInputs(fields, line),
    consumes: d.consumes ?? (() => []),
    sentence(line) {
      const parts = fieldSentence(typeof d.sentence === 'string' ? d.sentence : d.sentence(line), fields, line);
      return line.in === undefined ? parts : [...parts, '· in frame', { ref: 'in', label: 'frame', accepts: 'frame', optional: true }];
    },
    recipe: d.recipe,
    fresh: (name) =>
      ({
        kind: d.kind,
        name,
        ...(material === 'own' ? { material: d.freshMaterial ?? 'Copper' } : {}),
        ...fieldsFresh(fields),
      }) as unknown as LineOf<K, F>,
  };
}

/** The three values of a vector field. */
export const v3 = (v: ChipValues, path: string): Point3 => [v[`${path}.0`], v[`${path}.1`], v[`${path}.2`]];
/** The points of a list field in the plane; polar ones are converted. */
export const listed2 = (v: ChipValues, path: string, rows: readonly unknown[], entry: string | undefined): Point2[] =>
  rows.map((_, i) => {
    const [a, b] = [v[`${path}.${i}.0`], v[`${path}.${i}.1`]];
    return entry === 'polar' ? [a * Math.cos(b), a * Math.sin(b)] : [a, b];
  });
/** The points of a list field in space; cylindrical ones are converted. */
export const listed3 = (v: ChipValues, path: string, rows: readonly unknown[], entry: string | undefined): Point3[] =>
  rows.map((_, i) => {
    const [a, b, c] = [v[`${path}.${i}.0`], v[`${path}.${i}.1`], v[`${path}.${i}.2`]];
    return entry === 'cylindrical' ? [a * Math.cos(b), a * Math.sin(b), c] : [a, b, c];
  });
/** Number of an axis letter. */
export const axisNumber = (letter: string): Axis => 'xyz'.indexOf(letter) as Axis;

/** Two points that follow each other must differ. */
export const firstDuplicate = (points: readonly Point3[], path: string, closed: boolean) => {
  const size = Math.max(...points.map((p) => Math.hypot(p[0] - points[0][0], p[1] - points[0][1], p[2] - points[0][2])));
  const i = points.findIndex((p, k) => {
    if (!closed && k + 1 === points.length) return false;
    const q = points[(k + 1) % points.length];
    return !(Math.hypot(p[0] - q[0], p[1] - q[1], p[2] - q[2]) > sameNumber * size);
  });
  return i < 0
    ? null
    : { fault: `Points ${i + 1} and ${((i + 1) % points.length) + 1} are the same.`, fix: 'Move or remove one of them.', chip: `${path}.${i}.0` };
};
