import { abs, abs2, type Complex, div, sub } from '@jadebell/core/numerics';
import { sCurve } from '@jadebell/core/results';
import { loadAdmittance, type GridScene, type SceneLoad } from '@jadebell/core/scene';
import { solvers } from '@jadebell/core/solvers';
import { plainBody, plainScene } from './bench.ts';
import type { Case, Row } from './case.ts';

const metal = { name: 'metal', kind: 'conductor' } as const;
const [width, height, length] = [4e-3, 2e-3, 12e-3];

/**
 * A line of two plates between magnetic-like sides: its strip touches no side, so a TEM wave runs between two guided ports; halfway a
 * load stands between strip and ground. `loads` are none, or the one load.
 */
function loadedLine(load: SceneLoad | null): GridScene {
  const middle = length / 2;
  return plainScene({
    bodies: [plainBody('strip', 0, metal, { form: 'box', min: [0, -width / 2, height], max: [length, width / 2, 1.5 * height] })],
    ports: load
      ? [{ name: 'load', order: 2, resistance: 0, load, axis: 2, direction: 1, min: [middle, -width / 2, 0], max: [middle, width / 2, height], across: 1 }]
      : [],
    guides: ([1, -1] as const).map((into, order) => ({
      name: `end ${order}`,
      order,
      normal: 0,
      into,
      min: [into > 0 ? 0 : length, -2 * width, 0],
      max: [into > 0 ? 0 : length, 2 * width, 3 * height],
      modes: 1,
      shift: into > 0 ? middle : length - middle,
    })),
    min: [0, -2 * width, 0],
    max: [length, 2 * width, 3 * height],
    band: { from: 1e9, to: 6e9, points: 11 },
    boundaries: Array<'electric'>(6).fill('electric'),
    accuracy: 'draft',
    details: { cellsPerWavelength: 100 },
  }); // prettier-ignore
}

const loads: readonly (readonly [string, SceneLoad])[] = [
  ['R 75 ohm', { form: 'series', r: 75, l: 0, c: 0 }],
  ['series R 10 ohm, L 2 nH', { form: 'series', r: 10, l: 2e-9, c: 0 }],
  ['series R 5 ohm, L 3 nH, C 0.6 pF', { form: 'series', r: 5, l: 3e-9, c: 0.6e-12 }],
  ['parallel R 200 ohm, L 2 nH, C 1 pF', { form: 'parallel', r: 200, l: 2e-9, c: 1e-12 }],
  ['C 0.5 pF', { form: 'parallel', r: 0, l: 0, c: 0.5e-12 }],
];

/** Loads across a TEM line: reflection S11 = -y / (2 + y), transmission 2 / (2 + y) at the load, y its admittance times Z0. */
const across = (name: string, title: string, slow: boolean, some: typeof loads): Case => ({
  name,
  title,
  slow,
  async run(host) {
    const rows: Row[] = [];
    // A short in the load's place has the inductance of its sheet of current, which stands in series with every load.
    const short = await solvers.fdtd.solve(loadedLine({ form: 'series', r: 1e-3, l: 0, c: 0 }), { host });
    const z0 = short.meta.ports[0].impedance!;
    const sheet = sCurve(short.arrays.s, 0, 0).map((s) => div([-z0 * (1 + s[0]), -z0 * s[1]], [2 * s[0], 2 * s[1]]));
    for (const [title, load] of some) {
      const started = host.now();
      const { arrays, meta } = await solvers.fdtd.solve(loadedLine(load), { host });
      const [s11, s21] = [sCurve(arrays.s, 0, 0), sCurve(arrays.s, 1, 0)];
      let [worst, lost] = [0, 0];
      Array.from(arrays.frequency.data).forEach((f, n) => {
        const [g, b] = loadAdmittance(load, f);
        const own = div([1, 0], [g, b]);
        const y = div([z0, 0], [own[0] + sheet[n][0], own[1] + sheet[n][1]]);
        const sum: Complex = [2 + y[0], y[1]];
        const r = div([-y[0], -y[1]], sum);
        const t = div([2, 0], sum);
        worst = Math.max(worst, abs(sub(s11[n], r)), abs(sub(s21[n], t)));
        const absorbed = 1 - abs2(s11[n]) - abs2(s21[n]);
        lost = Math.max(lost, Math.abs(absorbed - (4 * y[0]) / abs2(sum)));
      });
      const common = { cells: meta.evidence.cells.reduce((p, n) => p * n, 1), seconds: host.now() - started, reference: '0', unit: '%' as const };
      rows.push(
        { ...common, quantity: `${title}: largest difference of S11 and S21, 1 to 6 GHz`, source: 'circuit theory: load and the sheet of its current across a line', computed: worst.toFixed(4), error: 100 * worst, allowed: 0.5 },
        { ...common, quantity: `${title}: largest difference of the absorbed share`, source: 'circuit theory', computed: lost.toFixed(4), error: 100 * lost, allowed: 0.5 },
      ); // prettier-ignore
    }
    return rows;
  },
});

export const element = across('lumped-element', 'A lumped element across a line', false, loads.slice(2, 3));
export const elements = across('lumped-elements', 'Lumped elements across a line', true, loads);
