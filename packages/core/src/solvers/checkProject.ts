import { duplicateNames, type Problem, type Project } from '../document/index.ts';
import type { Kernel, ModelCache } from '../geometry/index.ts';
import type { FrontKernel } from '../numerics/factors.ts';
import { buildScene, type Scene } from '../scene/index.ts';
import { solvers } from './registry.ts';
import type { Machine, Solver } from './solver.ts';

/** A project as it would be solved, and all that is wrong with it. */
export interface Checked {
  /** Null where an error stands in the way of a run. */
  scene: Scene | null;
  solver: Solver;
  problems: Problem[];
}

/**
 * The one check of a project before a run, for interface, server and command line alike: names, the model, what the solver says of it, and what it sees on its
 * grid where `frontKernel` is given, which finds the modes of guided ports. Never throws on bad input.
 */
export async function checkProject(
  project: Project,
  machine: Machine,
  geometry: Kernel,
  frontKernel?: () => Promise<FrontKernel>,
  cache?: ModelCache,
): Promise<Checked> {
  const solver: Solver = solvers[project.solve.solver];
  const twice = duplicateNames(project);
  if (twice.length) return { scene: null, solver, problems: twice };
  const built = buildScene(project, geometry, cache);
  const problems = [...built.problems, ...(built.scene ? solver.check(built.scene, machine) : [])];
  const sound = (): boolean => built.scene !== null && problems.every((p) => p.severity !== 'error');
  if (sound() && solver.look && frontKernel) problems.push(...solver.look(built.scene!, await frontKernel()));
  return { scene: sound() ? built.scene : null, solver, problems };
}
