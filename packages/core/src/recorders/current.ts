import { type Complex, mul } from '../numerics/complex.ts';
import type { Axis } from '../numerics/axis.ts';
import { eta0 } from '../numerics/constants.ts';
import { atNode, extent, nearestLine, rowRegion, sumAt } from '../yee/index.ts';
import { formatSI } from '../expressions/format.ts';
import { sameMesh } from '../numerics/tolerance.ts';
import { complexColumns } from './columns.ts';
import { rectangleText } from './flux.ts';
import { defineRecorder, type GridReading, type GridRecording, type Index } from './recorder.ts';
import {
  across,
  mirrorRectangle,
  type Rectangle,
  rectangleFields,
  rectangleMarks,
  rectangleOutside,
  recordedAt,
  resolveRectangle,
} from './rectangle.ts';

interface Told {
  normal: Axis;
  at: number;
  /** The rectangle around which it was taken, along the two other axes in their order, metres; older results lack it. */
  taken?: [from: number, to: number][];
  /** A, peak, at each frequency. */
  current: Complex[];
}
/** Points along each side of a rectangle at which H is taken from wires. */
const points = 400;

/** First and last node of an axis that lie off the walls and the absorbing layers, or on a plane of symmetry. */
export const innerNodes = ({ grid, mirrors, boundaries }: GridRecording, a: Axis): Complex => [
  Math.max(1, grid.outerCells[2 * a] + (mirrors?.[a] || boundaries[2 * a] === 'open' ? 0 : 1)),
  grid.lines[a].length - 2 - (boundaries[2 * a + 1] === 'open' ? grid.outerCells[2 * a + 1] - 1 : grid.outerCells[2 * a + 1]),
];
/** A node brought into a range. */
export const clampTo = ([low, high]: Complex, i: number): number => Math.min(Math.max(i, low), high);

/** Node along an axis that is nearest to a coordinate, off walls and layers. */
export const nodeNear = (g: GridRecording, a: Axis, x: number): number => clampTo(innerNodes(g, a), nearestLine(g.grid.lines[a], x));

/**
 * First and last node of an axis for a rectangle: those whose contour, half a cell beyond them, comes closest to its ends. A rectangle thinner than a cell holds the
 * node nearest to its middle.
 */
export function nodesWithin(g: GridRecording, a: Axis, from: number, to: number): [lo: number, hi: number] {
  const x = g.grid.lines[a];
  const between = (i: number): number => (x[i] + x[i + 1]) / 2;
  const ends = innerNodes(g, a);
  const nearest = (at: number): number => {
    let best = 0;
    for (let i = 1; i + 1 < x.length; i++) if (Math.abs(between(i) - at) < Math.abs(between(best) - at)) best = i;
    return best;
  };
  const plane = g.mirrors?.[a]?.at;
  const onPlane = plane !== undefined && Math.abs(from - plane) <= sameMesh * (to - from);
  const [lo, hi] = [onPlane ? ends[0] : clampTo(ends, nearest(from) + 1), clampTo(ends, nearest(to))];
  const middle = clampTo(ends, nearestLine(x, (from + to) / 2));
  return lo <= hi ? [lo, hi] : [middle, middle];
}

/**
 * Plans the current through a rectangle of nodes: Ampere's law along the dual edges around them, H interpolated to the plane. Where a rectangle begins on a
 * plane of symmetry its contour is completed by the image. What is given back reads it, A, before any sign or number of images.
 */
export function planAmpere(g: GridRecording, normal: Axis, lo: Index, hi: Index): (r: GridReading, f: number) => Complex {
  const { grid, mirrors } = g;
  const [u, v] = [(normal + 1) % 3, (normal + 2) % 3] as [Axis, Axis];
  const k = lo[normal];
  const rows: { region: number; sign: 1 | -1; lengths: Float64Array }[] = [];
  for (const [along, aside] of [
    [u, v],
    [v, u],
  ] as const)
    for (const end of [0, 1] as const) {
      // On a plane of symmetry the contour runs along the plane, where a magnetic wall has no H along it.
      if (!end && mirrors?.[aside] && lo[aside] === grid.outerCells[2 * aside]) continue;
      const field = 3 + along;
      const from: Index = [lo[0], lo[1], lo[2]];
      from[normal] = k;
      from[aside] = end ? hi[aside] : lo[aside] - 1;
      const shift: Index = [0, 0, 0];
      shift[normal] = -1;
      const count = hi[along] - lo[along] + 1;
      const lengths = Float64Array.from({ length: count }, (_, i) => extent(grid, along, field, lo[along] + i));
      if (mirrors?.[along] && lo[along] === grid.outerCells[2 * along]) lengths[0] /= 2;
      // Around the normal from u to v: H_u counts where v is low, H_v where u is high.
      rows.push({
        region: g.add(rowRegion(field, from, along, count, shift, atNode(grid, normal, field, k))),
        sign: (along === u) === !end ? 1 : -1,
        lengths,
      });
    }
  return ({ sums, scales }, f) => {
    let [re, im] = [0, 0];
    for (const { region, sign, lengths } of rows) {
      const s = sums(region);
      lengths.forEach((length, i) => {
        const [x, y] = sumAt(s, 0, i, f);
        re += sign * length * x;
        im += sign * length * y;
      });
    }
    return mul([re / eta0, im / eta0], scales[f]);
  };
}

/** A current, A, in words: its size in mA and its phase. */
export const milliamperes = ([re, im]: Complex): string =>
  `${(1e3 * Math.hypot(re, im)).toPrecision(4)} mA, ${((180 * Math.atan2(im, re)) / Math.PI).toFixed(1)}°`;
/** The rectangle that was taken, in words. */
const takenText = ({ normal, taken }: Told): string =>
  taken?.length
    ? `, ${[0, 1, 2]
        .filter((a) => a !== normal)
        .map((a, i) => `${'xyz'[a]} ${taken[i].map((t) => formatSI(t, 'length', 3)).join(' to ')}`)
        .join(', ')}`
    : '';

export const current = defineRecorder<Rectangle, Told>()({
  kind: 'current',
  title: 'current through a rectangle',
  stem: 'current',
  solvers: ['fdtd', 'moment'],
  over: 'frequencies',
  fields: rectangleFields('current counts that flows'),
  sentence: 'Current through the rectangle {name} {normal} {at} · from {from} to {to} · counted {towards}',
  fresh: across,
  resolve: (entry, v) => resolveRectangle(entry, v),
  mirror: (r, mirrors) => mirrorRectangle<Rectangle>(r, mirrors, true),
  outside: rectangleOutside,
  marks: rectangleMarks,
  onGrid(r, g) {
    const k = nodeNear(g, r.normal, r.min[r.normal]);
    const [lo, hi]: [Index, Index] = [
      [k, k, k],
      [k, k, k],
    ];
    const taken = ([0, 1, 2] as const).flatMap((a): [number, number][] => {
      if (a === r.normal) return [];
      [lo[a], hi[a]] = nodesWithin(g, a, r.min[a], r.max[a]);
      const x = g.grid.lines[a];
      const plane = g.mirrors?.[a]?.at;
      const ends: [number, number] = [(x[lo[a] - 1] + x[lo[a]]) / 2, (x[hi[a]] + x[hi[a] + 1]) / 2];
      // Over a plane of symmetry it goes on as its image; what lies behind one was taken as its image.
      if (plane !== undefined && lo[a] === g.grid.outerCells[2 * a]) ends[0] = 2 * plane - ends[1];
      return [r.turned?.[a] && plane !== undefined ? [2 * plane - ends[1], 2 * plane - ends[0]] : ends];
    });
    const read = planAmpere(g, r.normal, lo, hi);
    const factor = r.sign * (r.images ?? 1);
    return (reading): Told => ({
      normal: r.normal,
      at: recordedAt(r, g, k),
      taken,
      current: reading.numbers.map((f) => read(reading, f).map((x) => factor * x) as Complex),
    });
  },
  async onWires(r, { numbers, fieldAt, rest }) {
    const [u, w] = [(r.normal + 1) % 3, (r.normal + 2) % 3];
    const out = new Float64Array(12);
    const told: Complex[] = [];
    for (const f of numbers) {
      await rest();
      const sum: Complex = [0, 0];
      const edge = (axis: number, other: number, place: number, sign: number): void => {
        for (let i = 0; i < points; i++) {
          const p: number[] = [...r.min];
          p[axis] = r.min[axis] + ((i + 0.5) / points) * (r.max[axis] - r.min[axis]);
          p[other] = place;
          fieldAt(f, p, out);
          const dl = (sign * r.sign * (r.max[axis] - r.min[axis])) / points;
          sum[0] += dl * out[6 + 2 * axis];
          sum[1] += dl * out[7 + 2 * axis];
        }
      };
      edge(u, w, r.min[w], 1);
      edge(w, u, r.max[u], 1);
      edge(u, w, r.max[w], -1);
      edge(w, u, r.min[u], -1);
      told.push(sum);
    }
    return { normal: r.normal, at: r.min[r.normal], current: told };
  },
  curves: {
    current: {
      title: 'Current through a rectangle',
      unit: 'A',
      forms: ['magnitude', 'real', 'imaginary', 'phase', 'db'],
      terms: ({ name }) => [{ key: name, label: name }],
      values: (told, key) => (told.name === key ? told.current : undefined),
    },
  },
  table: {
    title: 'Current through rectangles',
    about: 'peak; through the rectangle whose sides are told, which lie between the lines of the grid',
    file: 'current',
    heads: ['rectangle'],
    rows: (x) => [
      { heads: [`${rectangleText(x)}${takenText(x)}`], texts: x.current.map(milliamperes), columns: complexColumns(x.name, 'A', x.current) },
    ],
  },
  card: 'table',
});
