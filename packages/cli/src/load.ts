import { readFile } from 'node:fs/promises';
import { type Problem, problem, type Project, readProject } from '@jadebell/core/document';
import { loadGeometryKernel } from '@jadebell/core/geometry';
import { denseKernel } from '@jadebell/core/solvers/modes';
import { type Checked, checkProject, type Machine } from '@jadebell/core/solvers';
import { nodeHost } from '@jadebell/node';

/** Changes given on the command line. */
export interface Changes {
  /** Parameter name to expression. */
  set: Record<string, string>;
  accuracy?: Project['solve']['accuracy'];
}

export type Loaded = { project: Project } & NonNullable<Checked['ready']>;

/** Applies changes to the parameters; unknown names are problems. */
export function applyChanges(project: Project, changes: Changes): { project: Project; problems: Problem[] } {
  const problems = Object.keys(changes.set)
    .filter((name) => !project.parameters.some((g) => g.name === name))
    .map((name) =>
      problem(
        'error',
        'expression.unknown-name',
        { part: 'parameters', name },
        `There is no parameter named ${name} to set.`,
        `The parameters are ${project.parameters.map((g) => g.name).join(', ') || 'none'}.`,
      ),
    );
  const parameters = project.parameters.map((g) => (g.name in changes.set ? { ...g, expression: changes.set[g.name] } : g));
  const solve = changes.accuracy ? { ...project.solve, accuracy: changes.accuracy } : project.solve;
  return { project: { ...project, parameters, solve }, problems };
}

/** Reads a project file, evaluates and checks it. Throws only if the file cannot be read. */
export async function load(file: string, changes: Changes, machine: Machine): Promise<{ loaded: Loaded | null; problems: Problem[] }> {
  const reading = readProject(await readFile(file, 'utf8'));
  if (!reading.project) return { loaded: null, problems: reading.problems };
  const changed = applyChanges(reading.project, changes);
  return changed.problems.length ? { loaded: null, problems: changed.problems } : check(changed.project, machine);
}

/** Evaluates and checks a project. */
export async function check(project: Project, machine: Machine): Promise<{ loaded: Loaded | null; problems: Problem[] }> {
  const kernel = async () => denseKernel((await nodeHost(1)).module);
  const { ready, problems } = await checkProject(project, machine, await loadGeometryKernel(), kernel);
  return { loaded: ready && { project, ...ready }, problems };
}
