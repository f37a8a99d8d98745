import { filled, point, time } from '../entries/index.ts';
import type { Point3 } from '../shapes/index.ts';
import { nearestLine } from '../yee/index.ts';
import { everyNth } from './columns.ts';
import { signsOf } from './fieldPlane.ts';
import { defineRecorder, type Fault, type Index } from './recorder.ts';
import { sameNumber } from '../numerics/tolerance.ts';

interface Told {
  /** The grid node that stands for the point, metres. */
  at: Point3;
}
interface Placed {
  at: Point3;
  /** Seconds; 0 for `stop`: the end, for `every`: as close as a result may hold. */
  start?: number;
  stop?: number;
  every?: number;
  /** Axes on which this is the image of what was asked for. */
  turned?: boolean[];
}
/** Most samples of a signal that a result keeps unless it is told how many. */
const mostSamples = 4000;

/** E over time at a point: array `point:NAME` [m, 3] Ex, Ey, Ez over `point:NAME:time` [m] s, V/m as the pulse of the first excitation makes them. */
export const signal = defineRecorder<Placed, Told>()({
  kind: 'signal',
  title: 'field over time at a point',
  stem: 'point',
  solvers: ['fdtd'],
  over: 'time',
  fields: {
    at: point('at', ['0 mm', '0 mm', '0 mm'], { about: 'The point; the grid node nearest to it is taken' }),
    start: filled(time('start', '0 ns', 'Time from which it is kept')),
    stop: filled(time('stop (0: end of the run)', '0 ns', 'Time until which it is kept; 0 for the end of the run')),
    every: filled(time('time between samples (0: as close as 4000 allow)', '0 ns', 'Time between samples; 0 for as close as 4000 of them allow')),
  },
  sentence: 'E over time at the point {name} · {at} · from {start} until {stop} every {every}',
  resolve: (_, v): Placed | Fault =>
    v.stop && v.stop <= v.start
      ? {
          code: 'recorder.time',
          chip: 'stop',
          fault: 'The signal ends before it begins.',
          fix: 'Raise the time until which it is kept, or give 0 ns for the end of the run.',
        }
      : { at: [v['at.0'], v['at.1'], v['at.2']], start: v.start, stop: v.stop, every: v.every },
  mirror(r, mirrors) {
    const turned = r.at.map((x, a) => !!mirrors[a] && x < mirrors[a].at);
    const at = r.at.map((x, a) => (turned[a] ? 2 * mirrors[a]!.at - x : x)) as Point3;
    return turned.includes(true) ? { ...r, at, turned } : r;
  },
  outside(r, { out }) {
    const a = r.at.findIndex((x, i) => out(x, i));
    return a >= 0 ? { what: 'point', chip: `at.${a}` } : null;
  },
  lines: (r, axis) => [r.at[axis]],
  marks: ({ at }) => [{ form: 'point', at }],
  onGrid(r, g) {
    const { lines } = g.grid;
    const node = r.at.map((x, a) => Math.min(Math.max(nearestLine(lines[a], x), 1), lines[a].length - 2)) as Index;
    const probes = ([0, 1, 2] as const).map((c) => {
      const x = lines[c];
      const [below, above] = [x[node[c]] - x[node[c] - 1], x[node[c] + 1] - x[node[c]]];
      const shift: Index = [0, 0, 0];
      shift[c] = -1;
      // Straight between the middles of the two edges.
      return g.addProbe({ field: c, at: node, shift, weights: [below / (below + above), above / (below + above)] });
    });
    return ({ dt, steps, probe, keep, place }): Told => {
      const { start = 0, stop = 0, every = 0, turned } = r;
      const signs = turned ? signsOf(g, turned) : [1, 1, 1];
      const series = probes.map(probe);
      const end = stop ? Math.min(steps, Math.ceil(stop / dt)) : steps;
      const first = Math.min(Math.ceil(start / dt - sameNumber), end);
      const step = every ? Math.max(1, Math.round(every / dt)) : Math.max(1, Math.ceil((end - first) / mostSamples));
      const count = Math.floor((end - first) / step);
      // Sample i is that after so many steps.
      const after = (i: number): number => first + (i + 1) * step;
      const data = Float32Array.from({ length: 3 * count }, (_, i) => signs[i % 3] * series[i % 3][after(Math.floor(i / 3)) - 1]);
      keep(`point:${r.name}`, { shape: [count, 3], data });
      place(`point:${r.name}:time`, { shape: [count], data: Float64Array.from({ length: count }, (_, i) => after(i) * dt) });
      return { at: node.map((i, a) => (turned?.[a] ? 2 * g.mirrors![a]!.at - lines[a][i] : lines[a][i])) as Point3 };
    };
  },
  values: {
    arrays: ({ name }) => ({ values: `point:${name}`, places: [`point:${name}:time`] }),
    columns: (_, values, [time]) => [
      { title: 'time (s)', values: time },
      ...[...'xyz'].map((c, n) => ({ title: `E${c} (V/m)`, values: everyNth(values, 3, n) })),
    ],
  },
  card: 'own',
});
