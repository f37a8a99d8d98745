import { type Grid, nearestLine } from '../../grid/index.ts';
import { eta0 } from '../../numerics/constants.ts';
import type { ResultArray, ResultMeta } from '../../results/index.ts';
import { frequenciesOf, imageSign, numbersOf, type Scene, type SceneCurrent, type SceneFieldLine } from '../../scene/index.ts';
import { coordinate, extent, type Region, type RegionSums, sumAt } from './recording.ts';

type Index = [number, number, number];
type C = [re: number, im: number];
type Sums = (region: number) => RegionSums;

/** A rectangle whose current is taken by H around it: four rows of H with their signs and the lengths of their samples. */
export interface CurrentPlan {
  name: string;
  normal: 0 | 1 | 2;
  at: number;
  kept?: readonly number[];
  factor: number;
  first: number;
  rows: { sign: 1 | -1; lengths: Float64Array }[];
}

/** A line along an axis: nodes lo to hi, three regions from `first` on. */
export interface LinePlan {
  recorder: SceneFieldLine;
  axis: 0 | 1 | 2;
  node: Index;
  lo: number;
  hi: number;
  first: number;
}

/** First and last node of an axis that lie off the walls and the absorbing layers, or on a plane of symmetry. */
const innerNodes = (scene: Scene, grid: Grid, a: 0 | 1 | 2): [number, number] => [
  Math.max(1, grid.pml[2 * a] + (scene.mirrors?.[a] || scene.boundaries[2 * a] === 'open' ? 0 : 1)),
  grid.lines[a].length - 2 - (scene.boundaries[2 * a + 1] === 'open' ? grid.pml[2 * a + 1] - 1 : grid.pml[2 * a + 1]),
];
const clampTo = ([low, high]: readonly [number, number], i: number): number => Math.min(Math.max(i, low), high);

/** A row of samples of a field along an axis. */
const rowRegion = (field: number, from: Index, along: 0 | 1 | 2, count: number, shift: Index, weights: readonly [number, number]): Region => ({
  field,
  from,
  shift,
  wa: weights[0],
  wb: weights[1],
  innerAxis: along,
  inner: count,
  outerAxis: along === 2 ? 0 : 2,
  outer: 1,
});

/** Weights with which the samples of a field half a cell above and below a node make up its value there. */
function atNode(grid: Grid, axis: 0 | 1 | 2, field: number, i: number): [number, number] {
  const [below, above] = [coordinate(grid, axis, field, i - 1), coordinate(grid, axis, field, i)];
  const wb = (above - grid.lines[axis][i]) / (above - below);
  return [1 - wb, wb];
}

/** Adds the regions of a current: Ampere's law along the dual edges around the rectangle's nodes, interpolated to its plane. */
export function planCurrent(scene: Scene, grid: Grid, r: SceneCurrent, regions: Region[]): CurrentPlan {
  const n = r.normal;
  const [u, v] = [(n + 1) % 3, (n + 2) % 3] as [0 | 1 | 2, 0 | 1 | 2];
  const node = (a: 0 | 1 | 2, x: number): number => clampTo(innerNodes(scene, grid, a), nearestLine(grid.lines[a], x));
  const k = node(n, r.min[n]);
  const [lo, hi] = [r.min, r.max].map((p) => [0, 1, 2].map((a) => node(a as 0, p[a])));
  const first = regions.length;
  const rows: CurrentPlan['rows'] = [];
  for (const [along, across] of [
    [u, v],
    [v, u],
  ] as const)
    for (const end of [0, 1] as const) {
      // On a plane of symmetry the contour runs along the plane, where a magnetic wall has no H along it.
      const onPlane = !end && !!scene.mirrors?.[across] && lo[across] === grid.pml[2 * across];
      if (onPlane) continue;
      const field = 3 + along;
      const from: Index = [lo[0], lo[1], lo[2]];
      from[n] = k;
      from[across] = end ? hi[across] : lo[across] - 1;
      const shift: Index = [0, 0, 0];
      shift[n] = -1;
      const count = hi[along] - lo[along] + 1;
      const lengths = Float64Array.from({ length: count }, (_, i) => extent(grid, along, field, lo[along] + i));
      if (scene.mirrors?.[along] && lo[along] === grid.pml[2 * along]) lengths[0] /= 2;
      regions.push(rowRegion(field, from, along, count, shift, atNode(grid, n, field, k)));
      // Around n from u to v: H_u counts where v is low, H_v where u is high.
      rows.push({ sign: (along === u) === !end ? 1 : -1, lengths });
    }
  return { name: r.name, normal: n, at: r.turned?.[n] ? 2 * scene.mirrors![n]!.at - grid.lines[n][k] : grid.lines[n][k], kept: r.kept, factor: r.sign * (r.images ?? 1), first, rows }; // prettier-ignore
}

/** Currents at each recorded frequency, A. */
export const currentsOf = (
  plans: readonly CurrentPlan[],
  sums: Sums,
  frequencies: readonly number[],
  scales: readonly C[],
): NonNullable<ResultMeta['currents']> =>
  plans.map(({ name, normal, at, kept, factor, first, rows }) => ({
    name,
    normal,
    at,
    ...frequenciesOf(kept, frequencies),
    current: numbersOf(kept, scales.length).map((f): C => {
      const scale = scales[f];
      let [re, im] = [0, 0];
      rows.forEach(({ sign, lengths }, row) => {
        const s = sums(first + row);
        lengths.forEach((length, i) => {
          const [x, y] = sumAt(s, 0, i, f);
          re += sign * length * x;
          im += sign * length * y;
        });
      });
      const by = factor / eta0;
      return [by * (re * scale[0] - im * scale[1]), by * (re * scale[1] + im * scale[0])];
    }),
  }));

/** Adds the regions of a line: three components of E, those across it interpolated to its nodes. */
export function planLine(scene: Scene, grid: Grid, r: SceneFieldLine, regions: Region[]): LinePlan {
  const { axis } = r;
  const node = [0, 1, 2].map((a) => clampTo(innerNodes(scene, grid, a as 0), nearestLine(grid.lines[a], r.at[a]))) as Index;
  const ends = innerNodes(scene, grid, axis);
  const plane = scene.mirrors?.[axis];
  const [from, to] = plane ? [Math.max(plane.at, r.from), Math.max(r.to, 2 * plane.at - r.from)] : [r.from, r.to];
  const lo = r.from < (plane?.at ?? -Infinity) ? ends[0] : clampTo(ends, nearestLine(grid.lines[axis], from));
  const hi = Math.max(lo, clampTo(ends, nearestLine(grid.lines[axis], to)));
  const first = regions.length;
  for (const c of [0, 1, 2] as const) {
    const start: Index = [...node];
    start[axis] = lo;
    const shift: Index = [0, 0, 0];
    if (c === axis) {
      start[axis] = lo - 1;
      regions.push(rowRegion(c, start, axis, hi - lo + 2, shift, [1, 0]));
    } else {
      shift[c] = -1;
      regions.push(rowRegion(c, start, axis, hi - lo + 1, shift, atNode(grid, c, c, node[c])));
    }
  }
  return { recorder: r, axis, node, lo, hi, first };
}

/** Adds the fields along lines to a result's arrays and tells where they are. */
export function lineArrays(
  plans: readonly LinePlan[],
  scene: Scene,
  grid: Grid,
  sums: Sums,
  scales: readonly C[],
  arrays: Record<string, ResultArray>,
): NonNullable<ResultMeta['fieldLines']> {
  return plans.map(({ recorder, axis, node, lo, hi, first }) => {
    const numbers = numbersOf(recorder.kept, scales.length);
    const x = grid.lines[axis];
    const plane = scene.mirrors?.[axis];
    // Nodes as asked for: those behind a plane of symmetry are images of nodes before it.
    const places = Array.from({ length: hi - lo + 1 }, (_, i) => ({ i, at: x[lo + i], image: false }));
    const behind = plane ? places.filter((p) => p.at > plane.at).map((p) => ({ i: p.i, at: 2 * plane.at - p.at, image: true })) : [];
    const slack = 1e-9 * (x[x.length - 1] - x[0]);
    const asked = [...behind.reverse(), ...places];
    const kept = plane ? asked.filter((p) => p.at >= recorder.from - slack && p.at <= recorder.to + slack) : asked;
    const data = new Float32Array(numbers.length * kept.length * 6);
    for (const c of [0, 1, 2] as const) {
      const s = sums(first + c);
      const wb = c === axis ? (i: number): number => atNode(grid, axis, c, lo + i)[1] : null;
      const sign = (image: boolean): number =>
        (scene.mirrors ?? []).reduce((t, m, a) => (m && (a === axis ? image : recorder.turned?.[a]) ? t * imageSign(m.wall, a, c) : t), 1);
      numbers.forEach((number, f) =>
        kept.forEach(({ i, image }, n) => {
          let [re, im] = sumAt(s, 0, i, number);
          const scale = scales[number];
          if (wb) {
            const [p, q] = sumAt(s, 0, i + 1, number);
            const w = wb(i);
            [re, im] = [w * re + (1 - w) * p, w * im + (1 - w) * q];
          }
          const o = (f * kept.length + n) * 6 + 2 * c;
          data[o] = sign(image) * (re * scale[0] - im * scale[1]);
          data[o + 1] = sign(image) * (re * scale[1] + im * scale[0]);
        }),
      );
    }
    arrays[`line:${recorder.name}`] = { shape: [numbers.length, kept.length, 6], data };
    arrays[`line:${recorder.name}:at`] = { shape: [kept.length], data: Float64Array.from(kept, (p) => p.at) };
    const at = node.map((i, a) => (a !== axis && recorder.turned?.[a] ? 2 * scene.mirrors![a]!.at - grid.lines[a][i] : grid.lines[a][i])) as Index;
    return { name: recorder.name, axis, at, ...frequenciesOf(recorder.kept, scene.recordAt) };
  });
}
