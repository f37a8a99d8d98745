import type { Point2, Point3 } from '@jadebell/core/document';
import { impedance, type ResultSet, resonances, sCurve } from '@jadebell/core/results';
import type { GridScene } from '@jadebell/core/scene';
import { solvers, type SolverHost } from '@jadebell/core/solvers';
import { plainBody, plainScene } from './bench.ts';
import { type Case, percent, type Row } from './case.ts';
import { plainWire, solveWires, wireScene } from './wireBench.ts';

/** Width of the strip, half the gap at the feed, radius at which the arms begin to turn, metres; what they grow by in a turn, and turns of each. */
const [width, half, inner, pitch, turns] = [2e-3, 2e-3, 4e-3, 15e-3, 0.6];
const margin = 30e-3;
const band = { from: 1.8e9, to: 2.7e9, points: 181 };

/** Middle line of one arm: out along x, then around. */
const arm: Point2[] = [
  [half, 0],
  ...Array.from({ length: 91 }, (_, n): Point2 => {
    const angle = (2 * Math.PI * turns * n) / 90;
    const r = inner + (pitch * angle) / (2 * Math.PI);
    return [r * Math.cos(angle), r * Math.sin(angle)];
  }),
];
const across = (points: readonly Point2[]): Point2[] => points.map(([x, y]) => [-x, -y]);

/** A line beside another, so far to its left; mitred at its corners. */
function beside(points: readonly Point2[], by: number): Point2[] {
  const normal = (i: number): Point2 => {
    const [[x0, y0], [x1, y1]] = [points[i], points[i + 1]];
    const l = Math.hypot(x1 - x0, y1 - y0);
    return [(y0 - y1) / l, (x1 - x0) / l];
  };
  return points.map(([x, y], i) => {
    const [u, v] = [normal(Math.max(0, i - 1)), normal(Math.min(i, points.length - 2))];
    const [mx, my] = [u[0] + v[0], u[1] + v[1]];
    const k = (2 * by) / (mx * mx + my * my);
    return [x + k * mx, y + k * my];
  });
}

/** Two arms of flat strip, fed between their inner ends. */
function strips(accuracy: GridScene['accuracy']): GridScene {
  const outline = [...beside(arm, width / 2), ...beside(arm, -width / 2).reverse()];
  const reach = inner + pitch * turns + width + margin;
  const sheet = (name: string, order: number, loop: Point2[]): ReturnType<typeof plainBody> =>
    plainBody(name, order, { name: 'metal', kind: 'conductor' }, { form: 'sheet', normal: 2, offset: 0, loops: [loop] });
  return plainScene({
    bodies: [sheet('one', 0, outline), sheet('other', 1, across(outline))],
    ports: [{ name: 'feed', order: 0, resistance: 50, axis: 0, direction: 1, min: [-half, -width / 2, 0], max: [half, width / 2, 0], across: 1 }],
    min: [-reach, -reach, -margin],
    max: [reach, reach, margin],
    band,
    accuracy,
  });
}

const series = ({ arrays }: ResultSet): { frequency: number; resistance: number } =>
  resonances(arrays.frequency.data, sCurve(arrays.s, 0, 0).map((s) => impedance(s, [50, 0])))[0]; // prettier-ignore

async function run(host: SolverHost): Promise<Row[]> {
  const points = [...across(arm).reverse(), ...arm].map(([x, y]): Point3 => [x, y, 0]);
  const length = points.slice(1).reduce((sum, p, n) => sum + Math.hypot(p[0] - points[n][0], p[1] - points[n][1]), 0);
  // A strip is as a wire of a quarter of its width (Balanis, Antenna Theory, 4th ed., table 9.3).
  const wire = plainWire('spiral', points, width / 4);
  const reference = series(await solveWires(wireScene({ wires: [wire], ports: [[0, length / 2]], frequency: 2.2e9, band, accuracy: 'fine' }), host));
  const rows: Row[] = [];
  for (const accuracy of ['normal'] as const) {
    const started = host.now();
    const result = await solvers.fdtd.solve(strips(accuracy), { host });
    const own = series(result);
    const common = { source: 'the wire solver, radius a quarter of the width', cells: result.meta.evidence.cells.reduce((p, n) => p * n, 1), seconds: host.now() - started }; // prettier-ignore
    rows.push({
      quantity: `flat spiral, ${accuracy}: resonance`,
      reference: `${(reference.frequency / 1e9).toFixed(4)} GHz`,
      computed: `${(own.frequency / 1e9).toFixed(4)} GHz, ${own.resistance.toFixed(2)} ohm (${reference.resistance.toFixed(2)} ohm)`,
      error: percent(own.frequency, reference.frequency),
      allowed: 2,
      unit: '%',
      ...common,
    });
  }
  return rows;
}

/** A strip that runs in every direction of its plane against the other solver. */
export const flatSpiral: Case = { name: 'flat-spiral', title: 'Flat spiral of strip against wires', slow: true, run };
