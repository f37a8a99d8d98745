import type { Axis } from '../numerics/axis.ts';
import { choice, count, filled, point } from '../entries/index.ts';
import { fillOf } from '../geometry/index.ts';
import { mediumAt } from '../materials/index.ts';
import { eta0 } from '../numerics/constants.ts';
import type { Point3 } from '../shapes/index.ts';
import { blockValues, imageSign, isHalf, nearestLine, planVolume, type VolumePlan } from '../yee/index.ts';
import { phasorColumns, placeColumns } from './columns.ts';
import { axisOf, defineRecorder, type GridReading, type GridRecording, type Index } from './recorder.ts';
import { spread } from './spread.ts';
import { sameNumber } from '../numerics/tolerance.ts';

interface Told {
  electric: boolean;
  magnetic: boolean;
  /** The component that is kept alone; absent: all three. */
  only?: Axis;
  /** Media that `box:NAME:fill` marks: relative permittivity and loss along x, y, z at each recorded frequency. */
  media?: { mark: number; permittivity: number[][] }[];
}
interface Placed {
  min: Point3;
  max: Point3;
  electric: boolean;
  magnetic: boolean;
  /** The component that is kept alone; absent: all three. */
  only?: Axis;
  /** Interpolated to the middles of the cells; otherwise to the nodes. */
  centres: boolean;
  /** Every so many nodes or cells along each axis. */
  every: number;
}
/** Samples along the longest side of a flat and of a true box that is read from wires. */
const [flatSamples, boxSamples] = [81, 41];

/** Fields that are kept, 0..5 for Ex to Hz. */
const fieldsOf = ({ electric, magnetic, only }: Placed): number[] =>
  [...(electric ? [0, 1, 2] : []), ...(magnetic ? [3, 4, 5] : [])].filter((f) => only === undefined || f % 3 === only);
const toldOf = ({ electric, magnetic, only }: Placed): Told => ({ electric, magnetic, ...(only === undefined ? {} : { only }) });

/** Names of what a box keeps at each place, in their order. */
const boxParts = ({ electric, magnetic, only }: Told): string[] =>
  [...(electric ? ['E'] : []), ...(magnetic ? ['H'] : [])].flatMap((f) => [...'xyz'].filter((_, c) => only === undefined || c === only).map((c) => f + c)); // prettier-ignore

/** A place along an axis at which fields are told: the samples that make it up, from fields half a cell off its nodes and from those on them. */
interface Spot {
  at: number;
  /** Behind a plane of symmetry: the image of the place whose samples are taken. */
  image: boolean;
  half: [index: number, weight: number][];
  node: [index: number, weight: number][];
}

/** Interpolates straight to a node, or to the middle of the cell after it. */
function spotAt(x: Float64Array, i: number, centre: boolean): Spot {
  const spot = (at: number, half: Spot['half'], node: Spot['node']): Spot => ({ at, image: false, half, node });
  const halves: Spot['node'] = [
    [i, 0.5],
    [i + 1, 0.5],
  ];
  if (centre) return spot((x[i] + x[i + 1]) / 2, [[i, 1]], halves);
  if (i === 0) return spot(x[i], [[0, 1]], [[i, 1]]);
  if (i === x.length - 1) return spot(x[i], [[i - 1, 1]], [[i, 1]]);
  const above = (x[i] - x[i - 1]) / (x[i + 1] - x[i - 1]);
  const pair: Spot['half'] = [
    [i - 1, 1 - above],
    [i, above],
  ];
  return spot(x[i], pair, [[i, 1]]);
}

/** Nodes of a box on an axis and its places there: the part of it that is computed, with images behind a plane of symmetry told from it. */
function along(r: Placed, { grid, inner, mirrors }: GridRecording, a: Axis): { lo: number; hi: number; spots: Spot[] } {
  const x = grid.lines[a];
  const node = (at: number): number => Math.min(Math.max(nearestLine(x, at), inner.lo[a]), inner.hi[a]);
  const plane = mirrors?.[a]?.at;
  const [min, max] = [r.min[a], r.max[a]];
  const folded = (at: number): number => (plane !== undefined && at < plane ? 2 * plane - at : at);
  const across = plane !== undefined && min < plane && max > plane;
  const ends = [folded(min), folded(max)];
  const lo = node(across ? plane : Math.min(...ends));
  const hi = node(Math.max(...ends));
  const centre = r.centres && lo !== hi;
  const found: Spot[] = [];
  for (let i = lo; i <= hi - (centre ? 1 : 0); i += r.every) found.push(spotAt(x, i, centre));
  if (plane === undefined || min >= plane) return { lo, hi, spots: found };
  const images = found.map((p): Spot => ({ ...p, at: 2 * plane - p.at, image: true })).reverse();
  if (!across) return { lo, hi, spots: images };
  const slack = sameNumber * (x[x.length - 1] - x[0]);
  const both = [...images.filter((p) => p.at < plane - slack), ...found];
  return { lo, hi, spots: both.filter((p) => p.at >= min - slack && p.at <= max + slack) };
}

/** Fields of a box at its spots, [frequency][z][y][x][re, im of each field kept]. */
function valuesAt(
  volume: VolumePlan,
  spots: readonly Spot[][],
  { mirrors }: GridRecording,
  { numbers, sums, scales }: GridReading,
): Float32Array<ArrayBuffer> {
  const [px, py, pz] = spots;
  const width = 2 * volume.blocks.length;
  const size = px.length * py.length * pz.length * width;
  const data = new Float32Array(numbers.length * size);
  numbers.forEach((f, n) =>
    volume.blocks.forEach((block, b) => {
      const { field, from, count: counts } = block;
      const { re, im } = blockValues(block, sums, f, scales[f]);
      const c = field % 3;
      const unit = field < 3 ? 1 : 1 / eta0;
      const taps = (p: Spot, a: number): Spot['half'] => (isHalf(a, field) ? p.half : p.node);
      const sign = (p: Spot, a: Axis): number => (p.image ? imageSign(mirrors![a]!.wall, a, c, field > 2) : 1);
      let out = n * size + 2 * b;
      for (const z of pz)
        for (const y of py)
          for (const x of px) {
            let [sr, si] = [0, 0];
            for (const [k, wz] of taps(z, 2))
              for (const [j, wy] of taps(y, 1))
                for (const [i, wx] of taps(x, 0)) {
                  const at = ((k - from[2]) * counts[1] + j - from[1]) * counts[0] + i - from[0];
                  sr += wx * wy * wz * re[at];
                  si += wx * wy * wz * im[at];
                }
            const by = unit * sign(x, 0) * sign(y, 1) * sign(z, 2);
            data[out] = by * sr;
            data[out + 1] = by * si;
            out += width;
          }
    }),
  );
  return data;
}

/** What fills the places of a box: 0 nothing, -1 metal, else the number of a body from 1, and the media of those that occur; null where it is empty. */
function filling(
  g: GridRecording,
  spots: readonly Spot[][],
  frequencies: readonly number[],
): { fill: Float32Array<ArrayBuffer>; media: NonNullable<Told['media']> } | null {
  const [x, y, z] = spots.map((list, a) => list.map((p) => (p.image ? 2 * g.mirrors![a as 0]!.at - p.at : p.at)));
  const marks = fillOf(g.bodies, x, y, z);
  if (!marks.some((m) => m)) return null;
  const own = ([0, 1, 2] as const).map((a) => g.dielectrics(a));
  const metal = g.bodies.map((b) => b.material.kind === 'conductor');
  const present = [...new Set(marks)].filter((m) => m && !metal[m - 1]);
  const media = present.map((mark) => ({
    mark,
    permittivity: frequencies.map((f) =>
      own.flatMap((list) => {
        const medium = list[mark - 1];
        const { re, loss } = medium ? mediumAt(medium, f) : { re: 1, loss: 0 };
        return [re, loss];
      }),
    ),
  }));
  return { fill: Float32Array.from(marks, (m) => (m && metal[m - 1] ? -1 : m)), media };
}

/**
 * Fields in a box: array `box:NAME` [frequencies, z, y, x, 6 or 12, a third of it for one component] re/im of Ex, Ey, Ez (V/m) and Hx, Hy, Hz (A/m) at
 * `box:NAME:x`, `:y`, `:z` metres, and `box:NAME:fill` [z, y, x] 0 empty, -1 metal, else the mark of a medium.
 */
export const fieldBox = defineRecorder<Placed, Told>()({
  kind: 'field-box',
  title: 'fields in a box',
  stem: 'box',
  solvers: ['fdtd', 'moment'],
  over: 'frequencies',
  fields: {
    from: point('from', ['-5 mm', '-5 mm', '-5 mm'], { about: 'One corner' }),
    to: point('to', ['5 mm', '5 mm', '5 mm'], { about: 'The opposite corner; the same as the first along an axis makes a plane, a line or a point' }),
    fields: choice('fields', { e: 'E', h: 'H', eh: 'E and H' }, 'Which fields are kept'),
    components: filled(
      choice('components', { all: 'all components', x: 'along x alone', y: 'along y alone', z: 'along z alone' }, 'Which of their components'),
    ),
    where: choice(
      'places',
      { nodes: 'nodes', centres: 'cell middles' },
      'Whether they are interpolated to the grid nodes or the middles of the cells',
    ),
    every: count('every how many', '1', 1, 1000, 'Which of them is kept along each axis: 1 for each, 2 for every other'),
  },
  sentence: 'Fields {name} {fields} {components} in the box from {from} to {to} · at every {every} {where}',
  fresh({ at }) {
    const corner = (where: 'low' | 'high'): [string, string, string] => [at(0, where), at(1, where), at(2, where)];
    return { from: corner('low'), to: corner('high') };
  },
  resolve({ fields, where, components }, v): Placed {
    const [p, q] = ['from', 'to'].map((end) => [0, 1, 2].map((a) => v[`${end}.${a}`]));
    const corner = (pick: (...x: number[]) => number): Point3 => p.map((x, a) => pick(x, q[a])) as Point3;
    return {
      min: corner(Math.min),
      max: corner(Math.max),
      electric: fields !== 'h',
      magnetic: fields !== 'e',
      ...(components === 'all' ? {} : { only: axisOf(components) }),
      centres: where === 'centres',
      every: v.every,
    };
  },
  outside(r, { min, max, out }) {
    const off = [0, 1, 2].findIndex((a) => (r.min[a] === r.max[a] ? out(r.min[a], a) : r.max[a] <= min[a] || r.min[a] >= max[a]));
    return off >= 0 ? { what: 'box', chip: `from.${off}` } : null;
  },
  samples: (r, { inside }) => fieldsOf(r).length * inside(r.min, r.max),
  marks: ({ min, max }) => [{ form: 'box', min, max }],
  onGrid(r, g) {
    const [x, y, z] = ([0, 1, 2] as const).map((a) => along(r, g, a));
    const volume = planVolume(g.grid, fieldsOf(r), [x.lo, y.lo, z.lo], [x.hi, y.hi, z.hi], g.add);
    const spots = [x.spots, y.spots, z.spots];
    return (reading): Told => {
      const { numbers, all, keep, place } = reading;
      const shape = [z.spots.length, y.spots.length, x.spots.length];
      keep(`box:${r.name}`, { shape: [numbers.length, ...shape, 2 * volume.blocks.length], data: valuesAt(volume, spots, g, reading) });
      const filled = filling(g, spots, numbers.map((f) => all[f])); // prettier-ignore
      if (filled) place(`box:${r.name}:fill`, { shape, data: filled.fill });
      spots.forEach((list, a) => place(`box:${r.name}:${'xyz'[a]}`, { shape: [list.length], data: Float64Array.from(list, (p) => p.at) }));
      return { ...toldOf(r), ...(filled?.media.length ? { media: filled.media } : {}) };
    };
  },
  async onWires(r, { numbers, fieldAt, rest, keep, place }) {
    const sides = [0, 1, 2].map((a) => r.max[a] - r.min[a]);
    const most = sides.includes(0) ? flatSamples : boxSamples;
    const axes = sides.map((l, a) =>
      spread(r.min[a], r.max[a], l === 0 ? 1 : Math.max(2, Math.ceil(((most - 1) * l) / Math.max(...sides) / r.every) + 1)),
    );
    const fields = fieldsOf(r);
    const shape: Index = [axes[2].length, axes[1].length, axes[0].length];
    const data = new Float32Array(numbers.length * shape[0] * shape[1] * shape[2] * 2 * fields.length);
    const out = new Float64Array(12);
    let at = 0;
    for (const f of numbers)
      for (const z of axes[2])
        for (const y of axes[1]) {
          await rest();
          for (const x of axes[0]) {
            fieldAt(f, [x, y, z], out);
            for (const c of fields) {
              data[at++] = out[2 * c];
              data[at++] = out[2 * c + 1];
            }
          }
        }
    keep(`box:${r.name}`, { shape: [numbers.length, ...shape, 2 * fields.length], data });
    axes.forEach((x, a) => place(`box:${r.name}:${'xyz'[a]}`, { shape: [x.length], data: x }));
    return toldOf(r);
  },
  values: {
    arrays: ({ name }) => ({ values: `box:${name}`, places: [...'xyz'].map((a) => `box:${name}:${a}`) }),
    columns(told, values, axes) {
      const names = boxParts(told);
      return [
        ...placeColumns(axes),
        ...names.flatMap((of, n) => phasorColumns(values, 2 * names.length, [{ of, at: 2 * n }], of.startsWith('E') ? 'V/m' : 'A/m')),
      ];
    },
  },
  card: 'field',
});
