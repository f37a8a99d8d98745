import { emptyProject, type Problem, type Project, type Quantity } from '@jadebell/core/document';
import { evaluateAny, evaluateExpression, evaluateParameters, formatSI, sampleExpression, type Scope } from '@jadebell/core/expressions';
import { type Body, evaluateModel, type Kernel, isSheet, ModelCache } from '@jadebell/core/geometry';
import { wireMarks } from '@jadebell/core/grid';
import { buildScene } from '@jadebell/core/scene';
import { solverOf } from '@jadebell/core/solvers';
import { gathered } from './gathered.ts';
import { packFaces } from './packedFaces.ts';
import { ProjectReceiver } from './sentProject.ts';
import type { BodyHead, EvaluateRequest, ExpressionRequest, Preview, Reply, Request, SentBody, SentView } from './protocol.ts';

const drawn = ({ shape, planes: _p, curved: _c, faces, ...body }: Body): SentBody => ({
  ...body,
  ...packFaces(body.line, faces),
  sheet: isSheet({ shape }),
  normal: shape.form === 'sheet' ? shape.normal : null,
});
const headOf = ({ name, line, order, id, material }: Body): BodyHead => ({ name, line, order, id, material });

/** Milliseconds of quiet before the slower part is begun. */
const settle = 60;

/** Value of an expression; with quantity 'any' it may measure anything. */
function preview({ text, quantity, sampled }: ExpressionRequest, scope: Scope): Preview {
  const fault = (p: Problem): Preview => ({ text: `${p.message} ${p.fix}`, good: false, si: null });
  const place = { part: 'lines' } as const;
  const result = sampled
    ? sampleExpression(text, quantity as Quantity, scope, place, 't', 0, 1, 2)
    : quantity === 'any'
      ? evaluateAny(text, scope, place)
      : evaluateExpression(text, quantity as Quantity, scope, place);
  if ('problem' in result) return fault(result.problem);
  if ('values' in result) return { text: `${formatSI(result.values[0], quantity)} at t = 0`, good: true, si: result.values[0] };
  const measure = 'measure' in result ? result.measure : quantity;
  return { text: formatSI(result.si, measure), good: true, si: result.si };
}

/**
 * What answers the page's questions on a model: evaluates projects, of which only the newest asked for, and tries expressions in the scope of the one
 * evaluated last.
 */
export function modelService(kernel: Promise<Kernel>, answer: (reply: Reply, moved?: ArrayBuffer[]) => void): (request: Request) => Promise<void> {
  const cache = new ModelCache();
  const receiver = new ProjectReceiver();
  /** Geometry that the page holds already. */
  let sent = new Set<number>();
  let scope = evaluateParameters(emptyProject(''));
  /** The newest evaluation asked for; older ones that still wait are dropped. */
  let newest = 0;

  /**
   * Evaluates a project in two answers: the model first, so that it follows a dial at once, then checks, cost and grid, which take
   * longer, unless a newer request has come meanwhile.
   */
  async function evaluate({ ticket, machine, wantMesh }: EvaluateRequest, project: Project): Promise<void> {
    const { model, ports, guides, source, recorders, wires, scene, problems } = buildScene(project, await kernel, cache);
    const { things: bodies, buffer } = gathered(model.bodies.map((b) => (sent.has(b.id) ? headOf(b) : drawn(b))));
    const view: SentView = {
      bodies,
      curves: model.curves,
      frames: model.frames,
      kinds: model.kinds,
      values: model.values,
      ports,
      guides,
      recorders,
      source,
      wires: wires ? { marks: wireMarks(wires), ground: wires.ground?.at ?? null } : null,
      summary: model.scope.summary,
      problems,
      region: scene && { min: scene.min, max: scene.max },
      estimate: null,
      mesh: null,
    };
    sent = new Set(model.bodies.map((b) => b.id));
    scope = model.scope;
    if (!scene || !machine) return answer({ ticket, view, whole: true }, [buffer]);
    answer({ ticket, view, whole: false }, [buffer]);
    const heads = model.bodies.map(headOf);
    await new Promise((resolve) => setTimeout(resolve, settle));
    if (ticket !== newest) return;
    const solver = solverOf(scene);
    const { problems: found, ready } = solver.plan(scene, machine);
    answer({
      ticket,
      view: {
        ...view,
        bodies: heads,
        problems: [...problems, ...found],
        estimate: ready?.estimate ?? null,
        mesh: wantMesh && ready ? solver.meshView(ready.mesh) : null,
      },
      whole: true,
    });
  }

  return async (data) => {
    try {
      if (data.kind === 'expression') return answer({ ticket: data.ticket, value: preview(data, scope) });
      if (data.kind === 'bodies') return answer({ ticket: data.ticket, bodies: evaluateModel(data.project, await kernel).bodies.map(drawn) });
      newest = data.ticket;
      // Every project is taken in, so that its new lines are known, but only the newest is evaluated.
      const project = receiver.unpack(data.project);
      await new Promise((resolve) => setTimeout(resolve));
      if (data.ticket === newest) await evaluate(data, project);
    } catch (error) {
      answer({ ticket: data.ticket, fault: (error as Error).message });
    }
  };
}
