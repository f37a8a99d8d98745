import { duplicateNames, type Problem, type Project } from '../document/index.ts';
import type { Kernel, ModelCache } from '../geometry/index.ts';
import type { Estimate } from '../methods/index.ts';
import type { FrontKernel } from '../numerics/factors.ts';
import { buildScene, type Scene } from '../scene/index.ts';
import { solverOf } from './registry.ts';
import type { Machine, Solver } from './solver.ts';

/** A project as it would be solved, and all that is wrong with it. */
export interface Checked {
  /** What would be solved, by what, and what it will cost; null where an error stands in the way of a run. */
  ready: { scene: Scene; solver: Solver; estimate: Estimate } | null;
  problems: Problem[];
}

/**
 * The one check of a project before a run, for interface, server and command line alike: names, the model, what the solver says of it, and what it sees on its
 * mesh where `frontKernel` is given, which finds the modes of guided ports. Never throws on bad input.
 */
export async function checkProject(
  project: Project,
  machine: Machine,
  geometry: Kernel,
  frontKernel?: () => Promise<FrontKernel>,
  cache?: ModelCache,
): Promise<Checked> {
  const twice = duplicateNames(project);
  if (twice.length) return { ready: null, problems: twice };
  const { scene, problems } = buildScene(project, geometry, cache);
  if (!scene) return { ready: null, problems };
  const solver = solverOf(scene);
  const plan = solver.plan(scene, machine);
  const found = [...problems, ...plan.problems];
  if (!plan.ready) return { ready: null, problems: found };
  const { mesh, estimate } = plan.ready;
  if (solver.checkOnMesh && frontKernel) found.push(...solver.checkOnMesh(scene, mesh, await frontKernel()));
  return { ready: found.some((p) => p.severity === 'error') ? null : { scene, solver, estimate }, problems: found };
}
