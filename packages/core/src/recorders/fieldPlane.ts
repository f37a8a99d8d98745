import type { Complex } from '../numerics/complex.ts';
import type { Axis } from '../numerics/axis.ts';
import { length, normalField } from '../entries/index.ts';
import type { Point3 } from '../shapes/index.ts';
import { imageSign, nearestLine, planeRegion, type RegionSums, sumAt } from '../yee/index.ts';
import { components, phasorColumns, placeColumns } from './columns.ts';
import { axisOf, beside, defineRecorder, type GridReading, type GridRecording, type Index } from './recorder.ts';
import { spread } from './spread.ts';

interface Told {
  normal: Axis;
  /** Coordinate of the plane that was recorded, metres. */
  at: number;
  /** In-plane axes in storage order: rows along `v`, values along `u`. */
  u: Axis;
  v: Axis;
}
interface Placed {
  normal: Axis;
  /** Metres. */
  at: number;
  /** Axes on which this is the image of what was asked for. */
  turned?: boolean[];
}
/** Coordinates of a plane's samples along x, y and z, one across it. */
export const planeAxes = (
  { normal, u, at }: Told,
  [us, vs]: readonly ArrayLike<number>[],
): [ArrayLike<number>, ArrayLike<number>, ArrayLike<number>] =>
  [0, 1, 2].map((a) => (a === normal ? [at] : a === u ? us : vs)) as [ArrayLike<number>, ArrayLike<number>, ArrayLike<number>];
/** Samples along the longer side of a plane that is read from wires. */
const planeSamples = 81;

/** Signs (1 or -1) of the components Ex, Ey, Ez in the image behind the planes of symmetry of the given axes. */
export const signsOf = ({ mirrors }: Pick<GridRecording, 'mirrors'>, turned: readonly boolean[]): [number, number, number] =>
  [0, 1, 2].map((c) => (mirrors ?? []).reduce((s, m, a) => (m && turned[a] ? s * imageSign(m.wall, a, c) : s), 1)) as [number, number, number];

/** Coordinates of nodes with their images behind the first. */
const unfoldedAxis = (x: Float64Array): Float64Array<ArrayBuffer> =>
  Float64Array.from({ length: 2 * x.length - 1 }, (_, i) => (i < x.length - 1 ? 2 * x[0] - x[x.length - 1 - i] : x[i - x.length + 1]));

/**
 * Fields at the nodes of a plane, [frequency][v][u][6] as pairs of Ex, Ey, Ez, completed by their image behind the first node of an
 * axis; `signs` are those that the components take there.
 */
export function unfolded(
  data: Float32Array<ArrayBuffer>,
  [frequencies, nv, nu]: readonly [number, number, number],
  along: 'u' | 'v',
  signs: readonly [number, number, number],
): Float32Array<ArrayBuffer> {
  const [wide, high] = along === 'u' ? [2 * nu - 1, nv] : [nu, 2 * nv - 1];
  const out = new Float32Array(frequencies * wide * high * 6);
  for (let f = 0; f < frequencies; f++)
    for (let v = 0; v < high; v++)
      for (let u = 0; u < wide; u++) {
        const p = along === 'u' ? u - (nu - 1) : v - (nv - 1);
        const from = ((f * nv + (along === 'v' ? Math.abs(p) : v)) * nu + (along === 'u' ? Math.abs(p) : u)) * 6;
        const to = ((f * high + v) * wide + u) * 6;
        // On the plane itself what is odd vanishes.
        for (let c = 0; c < 6; c++) out[to + c] = data[from + c] * (p < 0 ? signs[c >> 1] : p ? 1 : (1 + signs[c >> 1]) / 2);
      }
  return out;
}

/** One component of E between nodes lo and hi of a plane, brought to the nodes: every sixth pair of `out` from `at` on. */
function componentAtNodes(
  s: RegionSums,
  f: number,
  scale: Complex,
  component: Axis,
  axes: Complex,
  nu: number,
  nv: number,
  out: Float32Array,
  at: number,
): void {
  const { region } = s;
  // Samples along the component's own axis stand between nodes.
  const du = component === axes[0] ? 1 : 0;
  const dv = component === axes[1] ? 1 : 0;
  for (let v = 0; v < nv; v++)
    for (let u = 0; u < nu; u++) {
      const [u0, u1] = [Math.min(Math.max(u - du, 0), region.inner - 1), Math.min(u, region.inner - 1)];
      const [v0, v1] = [Math.min(Math.max(v - dv, 0), region.outer - 1), Math.min(v, region.outer - 1)];
      const [a, b] = [sumAt(s, v0, u0, f), sumAt(s, v1, u1, f)];
      const [re, im] = [a[0] / 2 + b[0] / 2, a[1] / 2 + b[1] / 2];
      const o = at + (v * nu + u) * 6 + 2 * component;
      out[o] = re * scale[0] - im * scale[1];
      out[o + 1] = re * scale[1] + im * scale[0];
    }
}

/** Fields of a plane whose three components are the given regions: brought to the nodes, with what lies behind planes of symmetry. */
function readPlane(r: Placed & { name: string }, g: GridRecording, reading: GridReading, lo: Index, hi: Index, regions: readonly number[]): void {
  const [u, v] = beside(r.normal);
  const { numbers, scales, sums } = reading;
  const [nu, nv] = [hi[u] - lo[u] + 1, hi[v] - lo[v] + 1];
  const data = new Float32Array(numbers.length * nu * nv * 6);
  numbers.forEach((f, i) =>
    ([0, 1, 2] as const).forEach((c) => componentAtNodes(sums(regions[c]), f, scales[f], c, [u, v], nu, nv, data, i * nu * nv * 6)),
  );
  if (r.turned) {
    const signs = signsOf(g, r.turned);
    data.forEach((x, i) => (data[i] = x * signs[(i % 6) >> 1]));
  }
  let whole = data;
  const places = [u, v].map((a) => g.grid.lines[a].slice(lo[a], hi[a] + 1));
  for (const [i, axis] of [u, v].entries()) {
    if (!g.mirrors?.[axis]) continue;
    const turned = [0, 1, 2].map((a) => a === axis);
    whole = unfolded(whole, [numbers.length, places[1].length, places[0].length], i ? 'v' : 'u', signsOf(g, turned));
    places[i] = unfoldedAxis(places[i]);
  }
  reading.keep(`plane:${r.name}`, { shape: [numbers.length, places[1].length, places[0].length, 6], data: whole });
  reading.place(`plane:${r.name}:u`, { shape: [places[0].length], data: places[0] });
  reading.place(`plane:${r.name}:v`, { shape: [places[1].length], data: places[1] });
}

/**
 * E on a plane: array `plane:NAME` [frequencies, v, u, 6] re/im of Ex, Ey, Ez at nodes, V/m, at `plane:NAME:u`, `plane:NAME:v` metres.
 */
export const fieldPlane = defineRecorder<Placed, Told>()({
  kind: 'field-plane',
  title: 'field on a plane',
  stem: 'plane',
  solvers: ['fdtd', 'moment'],
  over: 'frequencies',
  fields: {
    normal: normalField('Axis the plane stands across'),
    at: length('position', '0 mm', 'Coordinate of the plane on that axis'),
  },
  sentence: 'Field on the plane {name} {normal} {at}',
  resolve: ({ normal }, { at }): Placed => ({ normal: axisOf(normal), at }),
  mirror(r, mirrors) {
    const m = mirrors[r.normal];
    return m && r.at < m.at ? { ...r, at: 2 * m.at - r.at, turned: [0, 1, 2].map((a) => a === r.normal) } : r;
  },
  outside: (r, { out }) => (out(r.at, r.normal) ? { what: 'plane', chip: 'at' } : null),
  samples: (_, { sides }) => 3 * Math.max(...sides),
  marks: ({ normal, at }) => [{ form: 'plane', normal, at }],
  onGrid(r, g) {
    const [lo, hi] = [[...g.inner.lo], [...g.inner.hi]] as [Index, Index];
    const last = g.grid.lines[r.normal].length - 2;
    const index = Math.min(Math.max(nearestLine(g.grid.lines[r.normal], r.at), 1), last);
    const regions = ([0, 1, 2] as const).map((c) => g.add(planeRegion(g.grid, c, r.normal, index, lo, hi)));
    const [u, v] = beside(r.normal);
    return (reading): Told => {
      readPlane(r, g, reading, lo, hi, regions);
      const at = g.grid.lines[r.normal][index];
      return { normal: r.normal, at: r.turned ? 2 * g.mirrors![r.normal]!.at - at : at, u, v };
    };
  },
  async onWires(r, { numbers, min, max, fieldAt, rest, keep, place }) {
    const [u, v] = beside(r.normal);
    const longer = Math.max(max[u] - min[u], max[v] - min[v]);
    // The region in square cells.
    const along = (a: Axis): Float64Array => spread(min[a], max[a], Math.max(3, Math.round(((planeSamples - 1) * (max[a] - min[a])) / longer) + 1));
    const [us, vs] = [along(u), along(v)];
    const data = new Float32Array(numbers.length * us.length * vs.length * 6);
    const out = new Float64Array(12);
    let at = 0;
    for (const f of numbers)
      for (const y of vs) {
        await rest();
        for (const x of us) {
          const p: Point3 = [r.at, r.at, r.at];
          [p[u], p[v]] = [x, y];
          fieldAt(f, p, out);
          data.set(out.subarray(0, 6), at);
          at += 6;
        }
      }
    keep(`plane:${r.name}`, { shape: [numbers.length, vs.length, us.length, 6], data });
    place(`plane:${r.name}:u`, { shape: [us.length], data: us });
    place(`plane:${r.name}:v`, { shape: [vs.length], data: vs });
    return { normal: r.normal, at: r.at, u, v };
  },
  values: {
    arrays: ({ name }) => ({ values: `plane:${name}`, places: [`plane:${name}:u`, `plane:${name}:v`] }),
    columns: (told, values, places) => [...placeColumns(planeAxes(told, places)), ...phasorColumns(values, 6, components('E'), 'V/m')],
  },
  card: 'field',
});
