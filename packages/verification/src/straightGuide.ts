import type { Point3 } from '@jadebell/core/document';
import type { Body } from '@jadebell/core/geometry';
import { c0, eta0, mu0, type Axis, arg, abs } from '@jadebell/core/numerics';
import { decibel, type ResultSet, sCurve } from '@jadebell/core/results';
import type { GridScene, SceneGuide } from '@jadebell/core/scene';
import { solvers } from '@jadebell/core/solvers';
import { plainBody, plainScene } from './bench.ts';
import { type Case, percent, type Row } from './case.ts';
const [a, b, length] = [15.8e-3, 7.9e-3, 24e-3];

/** Which axes the guide's length, width and height lie along. */
type Axes = readonly [Axis, Axis, Axis];

const ends = ([along, wide, high]: Axes, modes: number): SceneGuide[] =>
  ([1, -1] as const).map((into, i) => {
    const min: Point3 = [0, 0, 0];
    const max: Point3 = [0, 0, 0];
    max[wide] = a;
    max[high] = b;
    min[along] = max[along] = i * length;
    return { name: `port${i + 1}`, order: i, normal: along, into, min, max, modes, shift: 0 };
  });

/** A perfect guide between two ports of four modes each: phase, attenuation below cutoff, reflection, transmission. */
export const straightGuide: Case = {
  name: 'straight-guide',
  title: 'Straight guide 15.8 x 7.9 mm, 24 mm long, four modes at each end',
  slow: true,
  async run(host) {
    const rows: Row[] = [];
    for (const [name, axes, from, to] of [
      ['along x', [0, 1, 2], 12e9, 15e9],
      ['along z, wide side along x', [2, 0, 1], 22.5e9, 27e9],
    ] as const) {
      const started = host.now();
      const max: Point3 = [0, 0, 0];
      [length, a, b].forEach((s, i) => (max[axes[i]] = s));
      const scene = plainScene({
        bodies: [],
        ports: [],
        guides: ends(axes, 4),
        min: [0, 0, 0],
        max,
        band: { from, to, points: 13 },
        boundaries: Array<'electric'>(6).fill('electric'),
        accuracy: 'fine',
        details: { cellsPerWavelength: 40, stopAt: 1e-6 },
      });
      const result = await solvers.fdtd.solve(scene, { host });
      const seconds = host.now() - started;
      const cells = result.meta.evidence.cells.reduce((p, n) => p * n, 1);
      const f = result.arrays.frequency.data;
      const add = (quantity: string, reference: string, computed: string, error: number, allowed: number, unit: Row['unit']): void => {
        rows.push({
          quantity: `${name}: ${quantity}`,
          reference,
          source: 'closed form (Pozar, Microwave Engineering, ch. 3)',
          computed,
          error,
          allowed,
          unit,
          cells,
          seconds,
        });
      };
      const own = sCurve(result.arrays.s, 0, 0);
      const through = sCurve(result.arrays.s, 4, 0);
      const worst = Math.max(...own.map(decibel));
      add(`largest |S11| of TE10, ${from / 1e9} to ${to / 1e9} GHz`, 'below -60 dB', `${worst.toFixed(1)} dB`, worst, -60, 'dB');
      const loss = Math.max(...through.map((s) => Math.abs(decibel(s))));
      add('largest deviation of |S21| of TE10 from 0 dB', '0 dB', `${loss.toFixed(5)} dB`, loss, 0.002, 'dB');
      for (const [mode, p, q] of [
        ['TE10', 1, 0],
        ['TE20 or TE01', 2, 0],
        ['TE01 or TE20', 0, 1],
        ['TE11 or TM11', 1, 1],
      ] as const) {
        const m =
          [1, 2, 2, 3][['TE10', 'TE20 or TE01', 'TE01 or TE20', 'TE11 or TM11'].indexOf(mode)] -
          1 +
          (mode === 'TE01 or TE20' ? 1 : 0) +
          (mode === 'TE11 or TM11' ? 1 : 0);
        const s = sCurve(result.arrays.s, 4 + m, m);
        const at = 6;
        const k = (2 * Math.PI * f[at]) / c0;
        const beta2 = k * k - ((p * Math.PI) / a) ** 2 - ((q * Math.PI) / b) ** 2;
        const reference = Math.sqrt(Math.abs(beta2));
        if (beta2 > 0) {
          const turns = Math.round((reference * length + arg(s[at])) / (2 * Math.PI));
          const beta = (2 * Math.PI * turns - arg(s[at])) / length;
          add(
            `${mode} at ${f[at] / 1e9} GHz, phase constant from S`,
            `${reference.toFixed(3)} 1/m`,
            `${beta.toFixed(3)} 1/m`,
            percent(beta, reference),
            0.05,
            '%',
          );
        } else {
          const alpha = -Math.log(abs(s[at])) / length;
          add(
            `${mode} at ${f[at] / 1e9} GHz, attenuation below cutoff from S`,
            `${reference.toFixed(3)} 1/m`,
            `${alpha.toFixed(3)} 1/m`,
            percent(alpha, reference),
            1,
            '%',
          );
        }
      }
      const { asymmetry, largestReflection } = result.meta.evidence;
      add('largest difference of S and its transpose', '0', (asymmetry ?? NaN).toExponential(1), 100 * (asymmetry ?? NaN), 0.1, '%');
      add(
        'largest root of the power out for 1 in, less 1',
        '0',
        (largestReflection - 1).toExponential(1),
        100 * Math.abs(largestReflection - 1),
        0.1,
        '%',
      );
    }
    return rows;
  },
};

/** A guide whose walls are a poor metal: what is lost on the way. */
export const lossyGuide: Case = {
  name: 'lossy-guide',
  title: 'Guide 15.8 x 7.9 mm with walls of a poor metal',
  slow: false,
  async run(host) {
    const rows: Row[] = [];
    const [from, to] = [13e9, 17e9];
    const wall = 1.5e-3;
    const box = (name: string, order: number, material: Body['material'], min: Point3, max: Point3): Body =>
      plainBody(name, order, material, { form: 'box', min, max });
    const air = { name: 'air', kind: 'dielectric', permittivity: 1 } as const;
    const run = async (
      bodies: Body[],
      min: Point3,
      max: Point3,
      details: GridScene['details'],
    ): Promise<{ result: ResultSet; cells: number; seconds: number }> => {
      const started = host.now();
      const scene = plainScene({
        bodies,
        ports: [],
        guides: ends([0, 1, 2], 1),
        min,
        max,
        band: { from, to, points: 9 },
        boundaries: Array<'electric'>(6).fill('electric'),
        accuracy: 'fine',
        details,
      });
      const result = await solvers.fdtd.solve(scene, { host });
      return { result, cells: result.meta.evidence.cells.reduce((p, n) => p * n, 1), seconds: host.now() - started };
    };
    {
      const sigma = 1e5;
      const outer: [Point3, Point3] = [
        [0, -wall, -wall],
        [length, a + wall, b + wall],
      ];
      const { result, cells, seconds } = await run(
        [box('shell', 0, { name: 'metal', kind: 'conductor', conductivity: sigma }, ...outer), box('air', 1, air, [0, 0, 0], [length, a, b])],
        ...outer,
        {},
      );
      const s = sCurve(result.arrays.s, 1, 0);
      for (const at of [0, 4, 8]) {
        const f = result.arrays.frequency.data[at];
        const k = (2 * Math.PI * f) / c0;
        const beta = Math.sqrt(k * k - (Math.PI / a) ** 2);
        const rs = Math.sqrt((Math.PI * f * mu0) / sigma);
        const alpha = (rs * (2 * b * Math.PI ** 2 + a ** 3 * k * k)) / (a ** 3 * b * beta * k * eta0);
        const got = -Math.log(abs(s[at])) / length;
        rows.push({
          quantity: `attenuation of TE10 by walls of 1e5 S/m at ${f / 1e9} GHz, from |S21|`,
          reference: `${alpha.toFixed(4)} Np/m`,
          source: 'Pozar, Microwave Engineering, eq. 3.96',
          computed: `${got.toFixed(4)} Np/m`,
          error: percent(got, alpha),
          allowed: 5,
          unit: '%',
          cells,
          seconds,
        });
      }
    }
    return rows;
  },
};
