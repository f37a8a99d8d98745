import type { Exact } from '@jadebell/core/geometry';
import { c0, eta0, type Axis, arg } from '@jadebell/core/numerics';
import { decibel, sCurve } from '@jadebell/core/results';
import type { GridScene, SceneGuide } from '@jadebell/core/scene';
import { solvers } from '@jadebell/core/solvers';
import { plainBody, plainScene } from './bench.ts';
import { type Case, percent, type Row } from './case.ts';
const metal = { name: 'metal', kind: 'conductor' } as const;
const inner = 1e-3;
const ratio = Math.exp((50 * 2 * Math.PI) / eta0);
const outer = inner * ratio;
const length = 12e-3;

/** An air coax between two guided ports: a round pin in a round bore of a block of metal, along an axis. */
export function airCoax(axis: Axis, cells: number, modes = 1): GridScene {
  const [u, v] = [(axis + 1) % 3, (axis + 2) % 3];
  const at = (along: number, across: number): [number, number, number] => {
    const p: [number, number, number] = [0, 0, 0];
    p[axis] = along;
    p[u] = p[v] = across;
    return p;
  };
  const half = 1.15 * outer;
  const bore: Exact = { form: 'cylinder', axis, base: at(-length, 0), height: 3 * length, radius: outer };
  const block: Exact = { form: 'cut', from: { form: 'box', min: at(-length, -2 * half), max: at(2 * length, 2 * half) }, tools: [bore] };
  const pin: Exact = { form: 'cylinder', axis, base: at(-length, 0), height: 3 * length, radius: inner };
  const port = (name: string, order: number, into: 1 | -1): SceneGuide => ({
    name,
    order,
    normal: axis,
    into,
    min: at(into > 0 ? 0 : length, -half),
    max: at(into > 0 ? 0 : length, half),
    modes,
    shift: 0,
  });
  return plainScene({
    bodies: [plainBody('block', 0, metal, block), plainBody('pin', 1, metal, pin)],
    ports: [],
    guides: [port('left', 0, 1), port('right', 1, -1)],
    min: at(0, -half),
    max: at(length, half),
    band: { from: 2e9, to: 18e9, points: 9 },
    boundaries: Array<'electric'>(6).fill('electric'),
    details: { cellsPerWavelength: (c0 / 18e9 / (outer - inner)) * cells },
  });
}

/** A 50 ohm air line: its impedance from the port's mode, its phase and reflection between two ports. */
export const coax: Case = {
  name: 'coax',
  title: 'Air coax, 50 ohm',
  slow: true,
  async run(host) {
    const rows: Row[] = [];
    for (const [axis, cells] of [
      [2, 4],
      [2, 8],
      [0, 8],
    ] as const) {
      // prettier-ignore
      const started = host.now();
      const { arrays, meta } = await solvers.fdtd.solve(airCoax(axis, cells), { host });
      const common = { cells: meta.evidence.cells.reduce((p, n) => p * n, 1), seconds: host.now() - started };
      const where = `along ${'xyz'[axis]}, ${cells} cells in the gap`;
      const echo = Math.max(...sCurve(arrays.s, 0, 0).map(decibel));
      rows.push({ ...common, quantity: `largest |S11|, ${where}`, reference: 'none', source: 'uniform line', computed: `${echo.toFixed(1)} dB`, error: echo, allowed: -40, unit: 'dB' }); // prettier-ignore
      const impedance = meta.ports[0].impedance!;
      rows.push({ ...common, quantity: `impedance, ${where}`, reference: '50.00 ohm', source: 'eta0 / (2 pi) ln(b / a)', computed: `${impedance.toFixed(3)} ohm`, error: percent(impedance, 50), allowed: 0.5, unit: '%' }); // prettier-ignore
      const f = arrays.frequency.data[4];
      const s = sCurve(arrays.s, 1, 0)[4];
      const turn = (2 * Math.PI * f * length) / c0;
      const phase = -arg(s);
      const got = phase + 2 * Math.PI * Math.round((turn - phase) / (2 * Math.PI));
      rows.push({ ...common, quantity: `phase over 12 mm at ${f / 1e9} GHz, ${where}`, reference: `${turn.toFixed(4)} rad`, source: 'speed of light', computed: `${got.toFixed(4)} rad`, error: percent(got, turn), allowed: 0.5, unit: '%' }); // prettier-ignore
    }
    return rows;
  },
};
