import type { Part } from '../../entries/index.ts';
import type { Recipe } from '../../shapes/index.ts';
import type { Affine } from '../../numerics/affine.ts';
import { GeometryFault } from '../fault.ts';
import type { Item } from '../item.ts';
import type { Kernel } from '../kernel.ts';
import type { Origins } from '../solids.ts';
import { type Face, surfaceOf } from '../surface.ts';

/** What a maker has at hand. */
export interface BuildContext {
  kernel: Kernel;
  origins: Origins;
  line: string;
  /** Earlier lines that this one builds on, in the order of its chips, with the path of each. */
  inputs: { path: string; item: Item; face?: string[] }[];
  /** Working frame of the line, or null for the axes of the world. */
  frame: Affine | null;
  part(name: string): Part | undefined;
}

/** What a maker makes; the evaluation adds name, material and identity. */
export type BuildResult = Omit<Item, 'id' | 'line' | 'material' | 'conductor' | 'members'> & { members?: BuildResult[] };

export type RecipeOf<F extends Recipe['form']> = Extract<Recipe, { form: F }>;
/** Builds what a recipe of one form says. Throws a GeometryFault. */
export type Maker<F extends Recipe['form']> = (recipe: RecipeOf<F>, bench: BuildContext) => BuildResult;

/**
 * Refuses a body of nothing.
 * @throws GeometryFault for a body of nothing.
 */
export function solidOf(manifold: NonNullable<Item['solid']>['manifold'], exact: NonNullable<Item['solid']>['exact'], what: string): BuildResult {
  if (manifold.isEmpty()) {
    manifold.delete();
    throw new GeometryFault(`${what} leaves nothing.`, 'Move or resize the bodies so that something is left.');
  }
  return { solid: { manifold, exact } };
}

/**
 * The face that an input points at.
 * @throws GeometryFault where there is no such face.
 */
export function faceOf(bench: BuildContext, index = 0): { item: Item; face: Face; number: number } {
  const { item, face: names, path } = bench.inputs[index];
  const { faces } = surfaceOf(bench.kernel, bench.origins, item);
  const found = faces.findIndex((f) =>
    !names?.length ? faces.length === 1 : names.length === 1 ? f.name === names[0] : f.line === names[0] && f.name === names[1],
  );
  if (found < 0)
    throw new GeometryFault(
      `${item.line} has no face named ${names?.join('.') || '(none given)'}.`,
      `Its faces are ${faces.slice(0, 12).map((f) => (f.line === item.line ? f.name : `${f.line}.${f.name}`)).join(', ')}.`, // prettier-ignore
      path,
    );
  return { item, face: faces[found], number: found };
}

/**
 * A frame on a face that must be flat.
 * @throws GeometryFault where it is curved.
 */
export function needFlat(bench: BuildContext, face: Face): asserts face is Face & { normal: [number, number, number] } {
  if (!face.normal) throw new GeometryFault(`The face ${face.name} is curved.`, 'Choose a flat face.', bench.inputs[0].path);
}
