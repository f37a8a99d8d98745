import type { Problem, Quantity } from '@jadebell/core/document';
import { evaluateExpression, evaluateGivens, formatSI } from '@jadebell/core/expressions';
import { evaluateModel, loadGeometryKernel, type MeshCache } from '@jadebell/core/geometry';
import { buildGrid } from '@jadebell/core/grid';
import { buildScene } from '@jadebell/core/scene';
import { solvers } from '@jadebell/core/solvers';
import kernelAddress from 'manifold-3d/manifold.wasm?url';
import type { EvaluateRequest, ExpressionRequest, Preview, Reply, Request, View } from './protocol.ts';

const kernel = loadGeometryKernel(() => kernelAddress);
const cache: MeshCache = new Map();
/** Milliseconds of quiet before the slower part is begun. */
const settle = 60;

/**
 * Evaluates a project in two answers: the model first, so that it follows a dial at once, then checks, cost and grid, which take
 * longer, unless a newer request has come meanwhile.
 */
async function evaluate({ ticket, project, machine, wantGrid }: EvaluateRequest): Promise<void> {
  const { model, ports, scene, problems } = buildScene(project, await kernel, cache);
  const view: View = {
    bodies: model.bodies,
    ports,
    summary: model.scope.summary,
    problems,
    region: scene && { min: scene.min, max: scene.max },
    estimate: null,
    grid: null,
  };
  if (!scene || !machine) return answer({ ticket, view, whole: true });
  answer({ ticket, view, whole: false });
  await new Promise((resolve) => setTimeout(resolve, settle));
  if (ticket !== newest) return;
  const solver = solvers[project.solve.solver];
  const found = solver.check(scene, machine);
  const grid = wantGrid && !found.some((p) => p.severity === 'error') ? buildGrid(scene) : null;
  answer({
    ticket,
    view: {
      ...view,
      problems: [...problems, ...found],
      estimate: found.some((p) => p.severity === 'error') ? null : solver.estimate(scene, machine),
      grid: grid && { lines: grid.lines, pml: grid.pml },
    },
    whole: true,
  });
}

/** Value of an expression; with quantity 'any' it is tried as a given of its own. */
function preview({ project, text, quantity }: ExpressionRequest): Preview {
  const fault = (p: Problem): Preview => ({ text: `${p.message} ${p.fix}`, good: false, si: null });
  const probe = 'preview_';
  if (quantity === 'any') {
    const { summary, problems } = evaluateGivens({ ...project, givens: [...project.givens, { name: probe, expression: text }] });
    const problem = problems.find((p) => p.place.name === probe);
    return problem ? fault(problem) : { text: formatSI(summary[probe].si, summary[probe].measure), good: true, si: summary[probe].si };
  }
  const result = evaluateExpression(text, quantity as Quantity, evaluateGivens(project), { part: 'lines' });
  return 'si' in result ? { text: formatSI(result.si, quantity), good: true, si: result.si } : fault(result.problem);
}

const answer = (reply: Reply): void => postMessage(reply);

/** The newest evaluation asked for; older ones that still wait are dropped. */
let newest = 0;

self.onmessage = async ({ data }: MessageEvent<Request>) => {
  try {
    if (data.kind === 'expression') {
      const value = preview(data);
      answer({ ticket: data.ticket, value });
      return;
    }
    if (data.kind === 'bodies') {
      answer({ ticket: data.ticket, bodies: evaluateModel(data.project, await kernel, cache).bodies });
      return;
    }
    newest = data.ticket;
    await new Promise((resolve) => setTimeout(resolve));
    if (data.ticket !== newest) return;
    await evaluate(data);
  } catch (error) {
    answer({ ticket: data.ticket, fault: (error as Error).message });
  }
};
