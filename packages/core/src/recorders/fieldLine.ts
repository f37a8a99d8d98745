import type { Axis } from '../numerics/axis.ts';
import { axisField, length, pair } from '../entries/index.ts';
import type { Point3 } from '../shapes/index.ts';
import { atNode, imageSign, nearestLine, rowRegion, sumAt } from '../yee/index.ts';
import { components, phasorColumns } from './columns.ts';
import { clampTo, innerNodes, nodeNear } from './current.ts';
import { axisOf, beside, defineRecorder, type GridReading, type GridRecording, type Index } from './recorder.ts';
import { spread } from './spread.ts';
import { sameNumber } from '../numerics/tolerance.ts';

interface Told {
  axis: Axis;
  /** The grid node that stands for its place across the axis, metres. */
  at: Point3;
}
interface Placed {
  axis: Axis;
  /** Its place; the entry along its own axis is its beginning. */
  at: Point3;
  /** Metres along its axis. */
  from: number;
  to: number;
  /** Axes on which this is the image of what was asked for. */
  turned?: boolean[];
}
/** Points along a line that is read from wires. */
const lineSamples = 201;

/** Reads a line of nodes lo to hi, whose components are three regions: places as asked for, those behind a plane of symmetry by images. */
function readLine(
  r: Placed & { name: string },
  { grid, mirrors }: GridRecording,
  reading: GridReading,
  lo: number,
  hi: number,
  regions: number[],
): void {
  const { numbers, sums, scales } = reading;
  const x = grid.lines[r.axis];
  const plane = mirrors?.[r.axis];
  const places = Array.from({ length: hi - lo + 1 }, (_, i) => ({ i, at: x[lo + i], image: false }));
  const behind = plane ? places.filter((p) => p.at > plane.at).map((p) => ({ i: p.i, at: 2 * plane.at - p.at, image: true })) : [];
  const slack = sameNumber * (x[x.length - 1] - x[0]);
  const all = [...behind.reverse(), ...places];
  const shown = plane ? all.filter((p) => p.at >= r.from - slack && p.at <= r.to + slack) : all;
  const data = new Float32Array(numbers.length * shown.length * 6);
  for (const c of [0, 1, 2] as const) {
    const s = sums(regions[c]);
    const sign = (image: boolean): number =>
      (mirrors ?? []).reduce((t, m, a) => (m && (a === r.axis ? image : r.turned?.[a]) ? t * imageSign(m.wall, a, c) : t), 1);
    numbers.forEach((number, f) =>
      shown.forEach(({ i, image }, n) => {
        let [re, im] = sumAt(s, 0, i, number);
        const scale = scales[number];
        if (c === r.axis) {
          const [p, q] = sumAt(s, 0, i + 1, number);
          const w = atNode(grid, r.axis, c, lo + i)[1];
          [re, im] = [w * re + (1 - w) * p, w * im + (1 - w) * q];
        }
        const o = (f * shown.length + n) * 6 + 2 * c;
        data[o] = sign(image) * (re * scale[0] - im * scale[1]);
        data[o + 1] = sign(image) * (re * scale[1] + im * scale[0]);
      }),
    );
  }
  reading.keep(`line:${r.name}`, { shape: [numbers.length, shown.length, 6], data });
  reading.place(`line:${r.name}:at`, { shape: [shown.length], data: Float64Array.from(shown, (p) => p.at) });
}

/** E along a line: array `line:NAME` [frequencies, nodes, 6] re/im of Ex, Ey, Ez at nodes, V/m, at `line:NAME:at` [nodes] metres. */
export const fieldLine = defineRecorder<Placed, Told>()({
  kind: 'field-line',
  title: 'field on a line',
  stem: 'line',
  solvers: ['fdtd', 'moment'],
  over: 'frequencies',
  fields: {
    along: axisField('z', 'direction', 'Axis the line runs along'),
    at: pair('position', ['0 mm', '0 mm'], { about: 'Its place in the two other axes, in the order x, y, z' }),
    from: length('from', '-5 mm', 'Where it begins on its axis'),
    to: length('to', '5 mm', 'Where it ends'),
  },
  sentence: 'Field on the line {name} {along} at {at} · from {from} to {to}',
  fresh: ({ at }) => ({ from: at(2, 'low'), to: at(2, 'high') }),
  resolve(entry, v): Placed | { code: string; chip: string; fault: string; fix: string } {
    const axis = axisOf(entry.along);
    const at: Point3 = [0, 0, 0];
    for (const [i, a] of beside(axis).entries()) at[a] = v[`at.${i}`];
    const [from, to] = [Math.min(v.from, v.to), Math.max(v.from, v.to)];
    if (from === to) return { code: 'recorder.flat', chip: 'to', fault: 'The line has no length.', fix: 'Move one of its ends.' };
    at[axis] = from;
    return { axis, at, from, to };
  },
  mirror(r, mirrors) {
    const turned = r.at.map((x, a) => a !== r.axis && !!mirrors[a] && x < mirrors[a].at);
    return turned.includes(true) ? { ...r, turned, at: r.at.map((x, a) => (turned[a] ? 2 * mirrors[a]!.at - x : x)) as Point3 } : r;
  },
  outside(r, { min, max, out }) {
    const off = beside(r.axis).findIndex((a) => out(r.at[a], a));
    if (off >= 0) return { what: 'line', chip: `at.${off}` };
    // What reaches beyond the region is cut off.
    return r.to <= min[r.axis] || r.from >= max[r.axis] ? { what: 'line', chip: 'from' } : null;
  },
  lines: (r, axis) => (axis === r.axis ? [] : [r.at[axis]]),
  marks: ({ axis, at, to }) => [{ form: 'line', from: at, to: at.map((x, a) => (a === axis ? to : x)) as Point3 }],
  onGrid(r, g) {
    const { axis } = r;
    const { grid } = g;
    const node = [0, 1, 2].map((a) => nodeNear(g, a as Axis, r.at[a])) as Index;
    const ends = innerNodes(g, axis);
    const plane = g.mirrors?.[axis];
    const [from, to] = plane ? [Math.max(plane.at, r.from), Math.max(r.to, 2 * plane.at - r.from)] : [r.from, r.to];
    const lo = r.from < (plane?.at ?? -Infinity) ? ends[0] : clampTo(ends, nearestLine(grid.lines[axis], from));
    const hi = Math.max(lo, clampTo(ends, nearestLine(grid.lines[axis], to)));
    const regions = ([0, 1, 2] as const).map((c) => {
      const start: Index = [...node];
      start[axis] = c === axis ? lo - 1 : lo;
      if (c === axis) return g.add(rowRegion(c, start, axis, hi - lo + 2));
      const shift: Index = [0, 0, 0];
      shift[c] = -1;
      return g.add(rowRegion(c, start, axis, hi - lo + 1, shift, atNode(grid, c, c, node[c])));
    });
    const at = node.map((i, a) => (a !== axis && r.turned?.[a] ? 2 * g.mirrors![a]!.at - grid.lines[a][i] : grid.lines[a][i])) as Point3;
    return (reading): Told => {
      readLine(r, g, reading, lo, hi, regions);
      return { axis, at };
    };
  },
  async onWires(r, { numbers, fieldAt, rest, keep, place }) {
    const s = spread(r.from, r.to, lineSamples);
    const data = new Float32Array(numbers.length * s.length * 6);
    const out = new Float64Array(12);
    for (const [n, f] of numbers.entries()) {
      await rest();
      s.forEach((x, i) => {
        const p = [...r.at];
        p[r.axis] = x;
        fieldAt(f, p, out);
        data.set(out.subarray(0, 6), 6 * (n * s.length + i));
      });
    }
    keep(`line:${r.name}`, { shape: [numbers.length, s.length, 6], data });
    place(`line:${r.name}:at`, { shape: [s.length], data: s });
    return { axis: r.axis, at: r.at };
  },
  values: {
    arrays: ({ name }) => ({ values: `line:${name}`, places: [`line:${name}:at`] }),
    columns: ({ axis }, values, [at]) => [{ title: `${'xyz'[axis]} (m)`, values: at }, ...phasorColumns(values, 6, components('E'), 'V/m')],
  },
  card: 'own',
});
