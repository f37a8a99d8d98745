import { type Problem, problem, ProblemError, type Project } from '@jadebell/core/document';
import { evaluateExpression } from '@jadebell/core/expressions';
import { type Body, ModelCache } from '@jadebell/core/geometry';
import { buildScene, type SceneSection } from '@jadebell/core/scene';
import {
  convergeSection,
  nodeFields,
  nodeParts,
  prepareSection,
  rasterOf,
  sectionCells,
  sectionOfGuide,
  solveModes,
  sweepSection,
} from '@jadebell/core/solvers/sections';
import { loadDense, loadGeometry } from './kernels.ts';
import { ProjectReceiver } from './sentProject.ts';
import type { Prepared, SectionReply, SectionRequest } from './section.protocol.ts';

const geometry = loadGeometry();
const dense = loadDense();
const cache = new ModelCache();
const receiver = new ProjectReceiver();
const answer = (reply: SectionReply, transfer: Transferable[] = []): void => postMessage(reply, { transfer });

interface Found {
  bodies: Body[];
  section: SceneSection;
  frequency(text: string, chip: string): number;
}

/** The section of a name, or what is wrong with it. */
async function find(project: Project, name: string): Promise<Found | Problem[]> {
  const { model, sections, guides, problems } = buildScene(project, await geometry, cache);
  const guide = guides.find((g) => g.name === name);
  const frequency = (text: string, chip: string): number => {
    const value = evaluateExpression(text, 'frequency', model.scope, { part: 'sections', name, chip });
    if ('problem' in value) throw new ProblemError([value.problem]);
    if (!(value.si > 0)) throw new ProblemError([problem('error', 'value.not-positive', { part: 'sections', name, chip }, 'The frequency is not above zero.', 'Give a positive one.')]); // prettier-ignore
    return value.si;
  };
  const section =
    sections.find((s) => s.name === name) ??
    (guide && sectionOfGuide(guide, { from: frequency(project.solve.from, 'from'), to: frequency(project.solve.to, 'to') }, project.solve.accuracy));
  if (section) return { bodies: model.bodies, section, frequency };
  const own = problems.filter((p) => p.place.name === name);
  return own.length ? own : problems.filter((p) => p.severity === 'error');
}

/** An array on the solver's u and v as the page shows it. */
function shown<T extends Float32Array | Uint16Array>(a: T, nu: number, nv: number, parts: number, turned: boolean): T {
  if (!turned) return a;
  const out = a.slice() as T;
  for (let j = 0; j < nv; j++)
    for (let i = 0; i < nu; i++) for (let k = 0; k < parts; k++) out[parts * (i * nv + j) + k] = a[parts * (j * nu + i) + k];
  return out;
}

function prepared(name: string, s: SceneSection, ready: Extract<ReturnType<typeof prepareSection>, { filled: object }>, bodies: Body[]): Prepared {
  const { grid, filled } = ready;
  const turned = grid.axes[0] !== s.axes[0];
  const raster = rasterOf(filled, s, grid, 2);
  const [x, y] = turned ? [grid.v, grid.u] : [grid.u, grid.v];
  const w = grid.u.length;
  const metal: number[] = [];
  const segment = (n: number, along: 0 | 1): void => {
    const [i, j] = [n % w, Math.floor(n / w)];
    const p = [grid.u[i], grid.v[j]];
    const q = along ? [grid.u[i], grid.v[j + 1]] : [grid.u[i + 1], grid.v[j]];
    metal.push(...(turned ? [p[1], p[0], q[1], q[0]] : [...p, ...q]));
  };
  // Only what borders on open cells: sheets and faces, not the inside of metal.
  const { eu, ev } = filled.section;
  for (let n = 0; n < eu.length; n++) {
    if (filled.metal.u[n] && (ev[n] || ev[n + 1] || ev[n - w] || ev[n - w + 1])) segment(n, 0);
    if (filled.metal.v[n] && (eu[n] || eu[n + w] || eu[n - 1] || eu[n + w - 1])) segment(n, 1);
  }
  const [a, b, c, d] = grid.layers;
  return {
    name,
    axes: [...s.axes],
    normal: s.normal,
    at: s.at,
    frequency: s.frequency,
    x: x.slice(),
    y: y.slice(),
    layers: turned ? [c, d, a, b] : [a, b, c, d],
    cells: sectionCells(grid),
    bodies: filled.bodies.map((f) => ({ name: bodies.find((o) => o.name === f.name)!.name, metal: f.material.kind === 'conductor' })),
    media: { nx: turned ? raster.nv : raster.nu, ny: turned ? raster.nu : raster.nv, body: shown(raster.body, raster.nu, raster.nv, 1, turned) },
    metal: Float32Array.from(metal),
    bent: s.bend !== null,
  };
}

async function serve(request: SectionRequest, project: Project): Promise<void> {
  const { ticket, name } = request;
  const found = await find(project, name);
  if (Array.isArray(found)) return answer({ ticket, problems: found });
  const { bodies, section } = found;
  if (request.task === 'prepare' || request.task === 'modes') {
    const ready = prepareSection(bodies, section);
    if (!('filled' in ready)) return answer({ ticket, problems: ready.problems });
    answer({ ticket, prepared: prepared(name, section, ready, bodies), problems: ready.problems });
    if (request.task === 'prepare') return;
    const started = performance.now();
    const solved = solveModes(bodies, section, ready, section.frequency, await dense);
    const turned = ready.grid.axes[0] !== section.axes[0];
    const fields = solved.modes.map((m) => {
      const raw = nodeFields(ready.filled.section, m);
      const out = shown(raw, ready.grid.u.length, ready.grid.v.length, nodeParts, turned);
      // On the page the first axis comes first.
      if (turned) for (let n = 0; n < out.length; n += 6) [out[n], out[n + 1], out[n + 2], out[n + 3]] = [out[n + 2], out[n + 3], out[n], out[n + 1]];
      return out;
    });
    return answer(
      { ticket, modes: { figures: solved.figures, fields, seconds: (performance.now() - started) / 1000 } },
      fields.map((f) => f.buffer),
    );
  }
  if (request.task === 'converge') {
    for (const pass of convergeSection(bodies, section, request.bound, await dense)) answer({ ticket, pass });
    return answer({ ticket, end: true });
  }
  const [from, to] = [found.frequency(request.from, 'sweep'), found.frequency(request.to, 'sweep')];
  const frequencies = Array.from({ length: request.points }, (_, i) => from + ((to - from) * i) / Math.max(1, request.points - 1));
  // From the top of the band down: there the modes stand apart most clearly.
  for (const step of sweepSection(bodies, section, frequencies.sort((p, q) => q - p), await dense)) answer({ ticket, step, of: request.points }); // prettier-ignore
  answer({ ticket, end: true });
}

/** Only the newest request is served; one under way is ended with its worker. */
let newest = 0;
self.onmessage = async ({ data }: MessageEvent<SectionRequest>) => {
  newest = data.ticket;
  const project = receiver.unpack(data.project);
  await new Promise((resolve) => setTimeout(resolve));
  if (data.ticket !== newest) return;
  try {
    await serve(data, project);
  } catch (error) {
    answer(
      error instanceof ProblemError ? { ticket: data.ticket, problems: error.problems } : { ticket: data.ticket, fault: (error as Error).message },
    );
  }
};
