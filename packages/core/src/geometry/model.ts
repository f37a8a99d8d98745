import type { ManifoldToplevel } from 'manifold-3d';
import { type Line, type Problem, problem, type Project, type Recipe, shapeOf } from '../document/index.ts';
import { evaluateChips, evaluateGivens, type Scope } from '../expressions/index.ts';
import { findMaterial } from '../materials/index.ts';
import { type Body, bounds } from './body.ts';
import { type Mesh, meshOf } from './kernel.ts';

/** The evaluated structure: every good line as a body, every bad one as problems. */
export interface Model {
  scope: Scope;
  bodies: Body[];
  problems: Problem[];
}

/** Meshes by recipe, so that only lines whose numbers changed are built again. */
export type MeshCache = Map<string, Mesh>;

/** Evaluates one line to a recipe, or says why not. */
function evaluateLine(line: Line, scope: Scope): { recipe: Recipe } | { problems: Problem[] } {
  const shape = shapeOf(line);
  const place = { part: 'lines', name: line.name } as const;
  const { values, problems } = evaluateChips(line, shape.chips(line), scope, place);
  if (!values) return { problems };
  const recipe = shape.recipe(line, values);
  if ('fault' in recipe) return { problems: [problem('error', 'shape.impossible', { ...place, chip: recipe.chip }, recipe.fault, recipe.fix)] };
  return { recipe };
}

/** Evaluates givens and lines to bodies. A line that fails is reported and the others go on. */
export function evaluateModel(project: Project, kernel: ManifoldToplevel, cache: MeshCache = new Map()): Model {
  const scope = evaluateGivens(project);
  const problems = [...scope.problems];
  const bodies: Body[] = [];
  project.lines.forEach((line, order) => {
    if (line.muted) return;
    const material = findMaterial(project, line.material);
    if (!material)
      problems.push(
        problem(
          'error',
          'material.unknown',
          { part: 'lines', name: line.name, chip: 'material' },
          `There is no material named ${line.material}.`,
          'Choose one from the library or add it to the project.',
        ),
      );
    const result = evaluateLine(line, scope);
    if ('problems' in result) {
      problems.push(...result.problems);
      return;
    }
    if (!material) return;
    const { recipe } = result;
    if (recipe.form === 'sheet' && material.kind !== 'conductor')
      problems.push(
        problem(
          'error',
          'material.sheet',
          { part: 'lines', name: line.name, chip: 'material' },
          `${line.name} has no thickness, so ${line.material} has no effect in it.`,
          'Give the sheet a conductor, or use a box for a layer of dielectric.',
        ),
      );
    const key = JSON.stringify(recipe);
    const mesh = cache.get(key) ?? meshOf(kernel, recipe);
    if (cache.size > 2000) cache.clear();
    cache.set(key, mesh);
    bodies.push({ name: line.name, order, material, recipe, ...bounds(recipe), ...mesh });
  });
  return { scope, bodies, problems };
}
