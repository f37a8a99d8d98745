import type { Point2 } from '@jadebell/core/document';
import { microstripImpedance, microstripPermittivity } from '@jadebell/core/formulas';
import { buildGrid, nearestLine } from '@jadebell/core/grid';
import { abs, add, c0, type Complex, div, mul, scale, sub } from '@jadebell/core/numerics';
import { type ResultSet, sCurve } from '@jadebell/core/results';
import type { GridScene } from '@jadebell/core/scene';
import { solvers, type SolverHost } from '@jadebell/core/solvers';
import { filament, plainBody, plainScene } from './bench.ts';
import { type Case, percent, type Row } from './case.ts';

/** Board, and how far from the strip's ends its ports stand, metres. */
const [permittivity, height, inset, margin] = [2.2, 0.787e-3, 0.4e-3, 10e-3];
/** Lengths of the two strips that are compared, so that their ends drop out. */
const [short, long] = [20e-3, 60e-3];

/** Width of a strip of 50 ohm at 2 GHz. */
function width(): number {
  let w = 3 * height;
  for (let n = 0; n < 40; n++) w *= microstripImpedance(w, permittivity, height, 2e9) / 50;
  return w;
}

/** A strip that leans by an angle in degrees, with ports at its ends, and how far apart these are on the grid. */
function strip(angle: number, length: number): { scene: GridScene; apart: number } {
  const [cos, sin] = [Math.cos((angle * Math.PI) / 180), Math.sin((angle * Math.PI) / 180)];
  const turned = ([x, y]: Point2): Point2 => [x * cos - y * sin, x * sin + y * cos];
  const [l, w] = [length / 2, width() / 2];
  const outline = ([[-l, -w], [l, -w], [l, w], [-l, w]] as Point2[]).map(turned); // prettier-ignore
  const [hx, hy] = [0, 1].map((a) => Math.max(...outline.map((p) => p[a])) + margin);
  const ends = ([[inset - l, 0], [l - inset, 0]] as Point2[]).map(turned); // prettier-ignore
  const scene = plainScene({
    bodies: [
      plainBody('board', 0, { name: 'board', kind: 'dielectric', permittivity }, { form: 'box', min: [-hx, -hy, 0], max: [hx, hy, height] }),
      plainBody('strip', 1, { name: 'metal', kind: 'conductor' }, { form: 'sheet', normal: 2, offset: height, loops: [outline] }),
    ],
    ports: ends.map(([x, y], order) => ({ ...filament(['near', 'far'][order], [x, y, 0], 2, height, 50), order })),
    min: [-hx, -hy, 0],
    max: [hx, hy, 8e-3],
    band: { from: 1e9, to: 4e9, points: 13 },
    boundaries: ['open', 'open', 'open', 'open', 'electric', 'open'],
    accuracy: 'normal',
  });
  const { lines } = buildGrid(scene);
  const [p, q] = ends.map((at) => at.map((x, a) => lines[a][nearestLine(lines[a], x)]));
  return { scene, apart: (q[0] - p[0]) * cos + (q[1] - p[1]) * sin };
}

type Matrix = [Complex, Complex, Complex, Complex];
/** Transfer matrix of a two-port at a frequency of the band by its number. */
function transfer({ arrays }: ResultSet, f: number): Matrix {
  const [s11, s12, s21, s22] = [[0, 0], [0, 1], [1, 0], [1, 1]].map(([to, from]) => sCurve(arrays.s, to, from)[f]); // prettier-ignore
  return [sub(s12, div(mul(s11, s22), s21)), div(s11, s21), scale(-1, div(s22, s21)), div([1, 0], s21)];
}

/**
 * Phase constant, 1/m, from strips of two lengths: their transfer matrices differ by a line alone, whose trace is 2 cos(beta l) whatever stands at the ends (the
 * two lines of R. B. Marks, IEEE Trans. Microw. Theory Tech. 39, 1205, 1991). Of the angles that fit that next to `about`.
 */
function phaseConstant([a, b, c, d]: Matrix, [p, q, r, s]: Matrix, apart: number, about: number): number {
  const det = sub(mul(p, s), mul(q, r));
  const trace = div(sub(add(mul(a, s), mul(d, p)), add(mul(b, r), mul(c, q))), det);
  const angle = Math.acos(Math.max(-1, Math.min(1, trace[0] / 2)));
  const all = Array.from({ length: 12 }, (_, n) => 2 * Math.PI * Math.ceil(n / 2) + (n % 2 ? -angle : angle));
  return all.reduce((best, x) => (Math.abs(x - about * apart) < Math.abs(best - about * apart) ? x : best)) / apart;
}

async function turned(host: SolverHost, angle: number): Promise<Row[]> {
  const started = host.now();
  const [one, other] = [strip(angle, short), strip(angle, long)];
  const [p, q] = [await solvers.fdtd.solve(one.scene, { host }), await solvers.fdtd.solve(other.scene, { host })];
  const band = Array.from(p.arrays.frequency.data);
  const told = band.map((f, n) => {
    const beta = ((2 * Math.PI * f) / c0) * Math.sqrt(microstripPermittivity(width(), permittivity, height, f));
    const own = phaseConstant(transfer(q, n), transfer(p, n), other.apart - one.apart, beta);
    return { own, beta, error: percent(own, beta) };
  });
  const worst = told.reduce((a, b) => (b.error > a.error ? b : a));
  const back = Math.max(...[p, q].flatMap((r) => sCurve(r.arrays.s, 0, 0).filter((_, n) => band[n] <= 3e9).map(abs))); // prettier-ignore
  const common = { cells: q.meta.evidence.cells.reduce((n, c) => n * c, 1), seconds: host.now() - started };
  const name = `microstrip of 50 ohm turned by ${angle} degrees, normal`;
  return [
    { quantity: `${name}: phase constant, 1 to 4 GHz`, reference: `${worst.beta.toFixed(2)} 1/m`, source: 'Kirschning and Jansen 1982', computed: `${worst.own.toFixed(2)} 1/m`, error: worst.error, allowed: 0.5, unit: '%', ...common }, // prettier-ignore
    { quantity: `${name}: largest |S11|, 1 to 3 GHz, two lengths`, reference: '0', source: 'Hammerstad and Jensen 1980', computed: `${(20 * Math.log10(back)).toFixed(1)} dB`, error: back, allowed: 10 ** (-25 / 20), unit: '', ...common }, // prettier-ignore
  ];
}

/** Printed lines that run across no axis. */
export const turnedLine: Case = {
  name: 'turned-line',
  title: 'Microstrips across no axis',
  slow: true,
  async run(host) {
    const rows: Row[] = [];
    for (const angle of [0, 17, 45]) rows.push(...(await turned(host, angle)));
    return rows;
  },
};
