import type { Place, Problem, Project, Quantity } from '../document/index.ts';
import type { Body, Model } from '../geometry/index.ts';
import type { Scope } from '../expressions/index.ts';
import type { Band } from './band.ts';
import type { SceneResult } from './types.ts';

/** Evaluates an expression of a project; NaN, and a problem told, where it fails. */
export type Evaluate = (text: string, quantity: Quantity, place: Place) => number;

/** A project on its way to a scene: evaluated, with what every solver needs. What is found wrong on the way is added to its problems. */
export interface Resolving {
  project: Project;
  model: Model;
  scope: Scope;
  bodies: readonly Body[];
  value: Evaluate;
  band: Band;
  problems: Problem[];
}

/** What a solver makes of a project: its scene, and what shows of it even where there is none. */
export type Built = Omit<SceneResult, 'model' | 'sections' | 'problems'>;
/** Makes the scene of one solver. */
export type SceneBuilder = (resolving: Resolving) => Built;
