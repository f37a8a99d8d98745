import type { ManifoldToplevel } from 'manifold-3d';
import { problem, type Project } from '../document/index.ts';
import { evaluateExpression } from '../expressions/index.ts';
import { evaluateModel, type ModelCache } from '../geometry/index.ts';
import type { SolverName } from '../methods/index.ts';
import { resolveBand } from './band.ts';
import { buildOnGrid } from './onGrid/build.ts';
import { buildOnWires } from './onWires/build.ts';
import type { Evaluate, SceneBuilder } from './resolving.ts';
import { resolveSections } from './sections.ts';
import type { SceneResult } from './types.ts';

/** The builder of each solver's scene. */
const builders: Record<SolverName, SceneBuilder> = { fdtd: buildOnGrid, moment: buildOnWires };

/** Document to scene: evaluates everything and gathers what is wrong. Never throws on bad input. */
export function buildScene(project: Project, kernel: ManifoldToplevel, cache?: ModelCache): SceneResult {
  const model = evaluateModel(project, kernel, cache);
  const { scope, bodies } = model;
  const problems = [...model.problems];
  const value: Evaluate = (text, quantity, place) => {
    const result = evaluateExpression(text, quantity, scope, place);
    if ('si' in result) return result.si;
    problems.push(result.problem);
    return NaN;
  };
  if (!bodies.length && !model.problems.length)
    problems.push(problem('error', 'model.empty', { part: 'lines' }, 'The model has no body.', 'Add a line under Shape.'));
  const { sections, problems: ofSections } = resolveSections(project, scope);
  problems.push(...ofSections);
  const band = resolveBand(project, value, problems);
  const built = builders[project.solve.solver]({ project, model, scope, bodies, value, band, problems });
  const stopped = problems.some((p) => p.severity === 'error' && p.place.part !== 'sections');
  return { ...built, model, sections, scene: stopped ? null : built.scene, problems };
}
