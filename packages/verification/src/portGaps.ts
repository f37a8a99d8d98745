import type { Point2, Point3 } from '@jadebell/core/document';
import type { Body } from '@jadebell/core/geometry';
import { atFrequency, type ResultSet, deembedded } from '@jadebell/core/results';
import { renormalised } from '@jadebell/core/network';
import type { GridScene, ScenePort } from '@jadebell/core/scene';
import { type SolverHost, solvers } from '@jadebell/core/solvers';
import { plainBody, plainScene } from './bench.ts';
import type { Case } from './case.ts';
import { dielectric } from './modes/parts.ts';

const [w, h, er, length] = [1.8e-3, 0.8e-3, 3.5, 30e-3];
const [width, height] = [12e-3, 8e-3];
const band = { from: 1e9, to: 8e9, points: 36 };
const walls = ['electric', 'electric', 'electric', 'electric', 'open', 'open'] as GridScene['boundaries'];

const strip = (from: number, to: number): Body => {
  const outline: Point2[] = [[from, -w / 2], [to, -w / 2], [to, w / 2], [from, w / 2]]; // prettier-ignore
  return plainBody('strip', 1, { name: 'metal', kind: 'conductor' }, { form: 'sheet', normal: 1, offset: h, loops: [outline] });
};
const board = (from: number, to: number): Body => plainBody('board', 0, dielectric(er), { form: 'box', min: [-width, 0, from], max: [width, h, to] });
const floor = (from: number, to: number): Body =>
  plainBody('floor', 2, { name: 'metal', kind: 'conductor' }, { form: 'sheet', normal: 1, offset: 0, loops: [[[from, -width / 2], [to, -width / 2], [to, width / 2], [from, width / 2]]] }); // prettier-ignore

/** A boxed microstrip along z, fed at both ends of its strip by lumped ports whose gaps are to be taken out. */
export function lumpedLine(more: Partial<GridScene> = {}): GridScene {
  const port = (name: string, order: number, z: number, inward: 1 | -1): ScenePort => ({ name, order, resistance: 50, axis: 1, direction: 1, min: [-w / 2, 0, z], max: [w / 2, h, z], across: 0, line: { axis: 2, inward } }); // prettier-ignore
  const beyond = 12e-3;
  return plainScene({
    bodies: [board(0, length), strip(0, length), floor(0, length)],
    ports: [port('left', 0, 0, 1), port('right', 1, length, -1)],
    min: [-width / 2, 0, -beyond],
    max: [width / 2, height, length + beyond],
    band,
    boundaries: [...walls],
    ...more,
  });
}

const guidedLine = (more: Partial<GridScene>): GridScene =>
  plainScene({
    bodies: [board(-1, 1), strip(-1, 1)],
    ports: [],
    guides: ([1, -1] as const).map((into, i) => ({ name: ['left', 'right'][i], order: i, normal: 2, into, min: [-width / 2, 0, i * length] as Point3, max: [width / 2, height, i * length] as Point3, modes: 1, shift: 0, inhomogeneous: true })), // prettier-ignore
    min: [-width / 2, 0, 0],
    max: [width / 2, height, length],
    band,
    boundaries: [...walls],
    ...more,
  });

/** Largest difference of S of a lumped run, as solved or without its gaps, from the guided one referred to what the lumped ports see. */
function againstGuided(lumped: ResultSet, guided: ResultSet): { kept: number; out: number } {
  const f = lumped.arrays.frequency.data;
  const { data } = guided.arrays.s;
  const bare = deembedded(lumped.arrays.s, f, lumped.meta)!.data;
  const { gap, resistance } = lumped.meta.ports[0];
  let [kept, out] = [0, 0];
  for (let n = 0; n < f.length; n++) {
    const z = atFrequency(gap!.impedance!, f[n]);
    const one = renormalised(
      { shape: [1, 2, 2, 2], data: data.slice(8 * n, 8 * n + 8) },
      [
        [z, 0],
        [z, 0],
      ],
      [
        [resistance, 0],
        [resistance, 0],
      ],
    )!.data;
    for (let k = 0; k < 8; k += 2) {
      const off = (s: ArrayLike<number>): number => Math.hypot(s[8 * n + k] - one[k], s[8 * n + k + 1] - one[k + 1]);
      kept = Math.max(kept, off(lumped.arrays.s.data));
      out = Math.max(out, off(bare));
    }
  }
  return { kept, out };
}

/** A microstrip fed by lumped ports, their gaps taken out, against the same fed by guided ports. */
export const portGaps: Case = {
  name: 'port-gaps',
  title: 'Microstrip, 1.8 mm on 0.8 mm of permittivity 3.5, boxed, 30 mm, 1 to 8 GHz: lumped against guided ports',
  slow: true,
  async run(host: SolverHost) {
    const started = host.now();
    const lumped = await solvers.fdtd.solve(lumpedLine({ accuracy: 'fine' }), { host });
    const guided = await solvers.fdtd.solve(guidedLine({ accuracy: 'fine' }), { host });
    const { kept, out } = againstGuided(lumped, guided);
    const cells = lumped.meta.evidence.cells.reduce((p, n) => p * n, 1);
    const gap = lumped.meta.ports[0].gap!;
    return [
      {
        quantity: `largest difference of S, gaps taken out (kept: ${kept.toFixed(4)})`,
        reference: '0',
        source: 'the guided ports’ run, referred to the impedance that the reference line shows',
        computed: `${out.toFixed(4)}, by ${(gap.capacitance[0] * 1e15).toFixed(1)} fF and ${(gap.inductance[0] * 1e12).toFixed(0)} pH`,
        error: out,
        allowed: 0.02,
        unit: '',
        cells,
        seconds: host.now() - started,
      },
    ];
  },
};
