import { type Complex, complexEigen } from '@jadebell/core/numerics';
import { Matrix, solve } from 'ml-matrix';
import type { Point3 } from '@jadebell/core/document';
import { sCurve } from '@jadebell/core/results';
import type { SceneGuide } from '@jadebell/core/scene';
import { solvers } from '@jadebell/core/solvers';
import { plainBody, plainScene } from './bench.ts';
import { type Case, percent, type Row } from './case.ts';
import { type IrisFilter, irisReflection } from './modeMatching.ts';

/**
 * Poles of a rational function of order n through a reflection over frequency, hertz, in complex frequency (exp(j 2 pi f t)): the
 * linearised least squares of E. C. Levy, IRE Trans. Autom. Control 4, 37, 1959, on a frequency scaled to -1 .. 1.
 */
export function polesOf(frequencies: readonly number[], s: readonly Complex[], n: number): Complex[] {
  const [low, high] = [frequencies[0], frequencies[frequencies.length - 1]];
  const scaled = frequencies.map((f) => (2 * f - low - high) / (high - low));
  // N(x) - S D(x) = 0 with D of leading coefficient 1; unknowns are complex, equations split into two.
  const rows: number[][] = [];
  const right: number[] = [];
  scaled.forEach((x, i) => {
    const [re, im] = s[i];
    const [a, b]: number[][] = [[], []];
    for (let k = 0; k <= n; k++) {
      a.push(x ** k, 0);
      b.push(0, x ** k);
    }
    for (let k = 0; k < n; k++) {
      a.push(-re * x ** k, im * x ** k);
      b.push(-im * x ** k, -re * x ** k);
    }
    rows.push(a, b);
    right.push(re * x ** n, im * x ** n);
  });
  const found = solve(new Matrix(rows), Matrix.columnVector(right), true).getColumn(0);
  const d = found.slice(2 * (n + 1));
  // Roots of D by its companion matrix.
  const [re, im] = [new Float64Array(n * n), new Float64Array(n * n)];
  for (let k = 0; k < n; k++) {
    if (k) re[k * n + k - 1] = 1;
    re[k * n + n - 1] = -d[2 * k];
    im[k * n + n - 1] = -d[2 * k + 1];
  }
  const roots = complexEigen(re, im, n);
  return Array.from({ length: n }, (_, k): Complex => [(roots.re[k] * (high - low) + low + high) / 2, (roots.im[k] * (high - low)) / 2]).sort(
    (p, q) => p[0] - q[0],
  );
}

const filter: IrisFilter = {
  width: 15.8e-3,
  openings: [9.02e-3, 6.16e-3, 5.31e-3, 5.31e-3, 6.16e-3, 9.02e-3],
  thickness: 1e-3,
  cavities: [9.45e-3, 11.13e-3, 11.47e-3, 11.13e-3, 9.45e-3],
};
const lead = 12e-3;
/** TEm0 modes do not know the guide's height. */
const height = 1.5e-3;

/** A filter of five cavities between inductive irises. */
export const irisFilter: Case = {
  name: 'iris-filter',
  title: 'Iris filter of five cavities in WR-62, inductive irises 1 mm thick',
  slow: true,
  async run(host) {
    const { width, openings, thickness, cavities } = filter;
    const started = host.now();
    let x = lead;
    const bodies = openings.flatMap((w, i) => {
      const [from, to] = [x, x + thickness];
      x = to + (cavities[i] ?? lead);
      return [-1, 1].map((side) => {
        const [y0, y1] = side < 0 ? [-width, -w / 2] : [w / 2, width];
        return plainBody(`iris${i}${side}`, i, { name: 'metal', kind: 'conductor' }, { form: 'box', min: [from, y0, -1], max: [to, y1, 1] });
      });
    });
    const length = x;
    const ports = ([1, -1] as const).map((into, i): SceneGuide => {
      const at = i * length;
      return { name: `port${i + 1}`, order: i, normal: 0, into, min: [at, -width / 2, 0], max: [at, width / 2, height], modes: 1, shift: lead };
    });
    const scene = plainScene({
      bodies,
      ports: [],
      guides: ports,
      min: [0, -width / 2, 0] as Point3,
      max: [length, width / 2, height] as Point3,
      band: { from: 14.2e9, to: 15.8e9, points: 161 },
      boundaries: Array<'electric'>(6).fill('electric'),
      excite: ['port1'],
      accuracy: 'fine',
      details: { cellsPerWavelength: 120, stopAt: 1e-7 },
    });
    const result = await solvers.fdtd.solve(scene, { host });
    const seconds = host.now() - started;
    const cells = result.meta.evidence.cells.reduce((p, n) => p * n, 1);
    const f = Array.from(result.arrays.frequency.data);
    const found = sCurve(result.arrays.s, 0, 0).map(([re, im]): Complex => [re, im]);
    const exact = f.map((v) => irisReflection(filter, v, 60));
    const [p, q] = [polesOf(f, found, 5), polesOf(f, exact, 5)];
    const source = 'mode matching (modeMatching.ts), 60 modes';
    const common = { source, unit: '%' as const, cells, seconds };
    const rows = q.map((pole, i): Row => ({
      ...common,
      quantity: `pole ${i + 1}, frequency`,
      reference: `${(pole[0] / 1e9).toFixed(4)} GHz, Q ${(Math.abs(pole[0] / pole[1]) / 2).toFixed(1)}`,
      computed: `${(p[i][0] / 1e9).toFixed(4)} GHz, Q ${(Math.abs(p[i][0] / p[i][1]) / 2).toFixed(1)}`,
      error: percent(p[i][0], pole[0]),
      allowed: 0.2,
    }));
    return rows;
  },
};
