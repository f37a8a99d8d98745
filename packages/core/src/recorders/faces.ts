import type { Complex } from '../numerics/complex.ts';
import type { Axis } from '../numerics/axis.ts';
import { eta0 } from '../numerics/constants.ts';
import type { FaceSamples } from '../radiation/index.ts';
import { coordinate, extent, type Grid, type RegionSums, sumAt } from '../yee/index.ts';

/** A tangential field component on a plane of nodes. */
export interface Face {
  normal: Axis;
  outward: 1 | -1;
  index: number;
  component: Axis;
  magnetic: boolean;
}

/** The tangential fields of a plane, each a face of its own. */
export const facesOn = (normal: Axis, outward: 1 | -1, index: number): Face[] =>
  ([0, 1, 2] as const)
    .filter((c) => c !== normal)
    .flatMap((component) => [false, true].map((magnetic): Face => ({ normal, outward, index, component, magnetic })));

/** Number of a face's field: 0..5 for Ex, Ey, Ez, Hx, Hy, Hz. */
export const fieldOf = ({ component, magnetic }: Face): number => component + (magnetic ? 3 : 0);

/** Coordinates of samples of a field along an axis, and the widths they stand for, between the ends of a box. */
function samplesAlong(grid: Grid, axis: Axis, field: number, from: number, count: number, [b0, b1]: Complex): [Float64Array, Float64Array] {
  const at = new Float64Array(count);
  const width = new Float64Array(count);
  const lines = grid.lines[axis];
  for (let i = 0; i < count; i++) {
    at[i] = coordinate(grid, axis, field, from + i);
    width[i] = extent(grid, axis, field, from + i);
    // A sample on the box's edge stands for the half of its dual cell that lies inside.
    if (at[i] === b0) width[i] = (lines[from + i + 1] - lines[from + i]) / 2;
    if (at[i] === b1) width[i] = (lines[from + i] - lines[from + i - 1]) / 2;
  }
  return [at, width];
}

/** Samples of a face between nodes lo and hi at one recorded frequency by its number, times a complex factor. */
export function faceSamples(
  face: Face,
  s: RegionSums,
  grid: Grid,
  lo: readonly number[],
  hi: readonly number[],
  f: number,
  scale: Complex,
): FaceSamples {
  const { region } = s;
  const field = fieldOf(face);
  const [a, b] = [region.innerAxis, region.outerAxis];
  const box = (axis: Axis): Complex => [grid.lines[axis][lo[axis]], grid.lines[axis][hi[axis]]];
  const [ca, wa] = samplesAlong(grid, a, field, region.from[a], region.inner, box(a));
  const [cb, wb] = samplesAlong(grid, b, field, region.from[b], region.outer, box(b));
  const re = new Float64Array(region.inner * region.outer);
  const im = new Float64Array(region.inner * region.outer);
  for (let o = 0; o < region.outer; o++)
    for (let i = 0; i < region.inner; i++) {
      const [x, y] = sumAt(s, o, i, f);
      re[o * region.inner + i] = x * scale[0] - y * scale[1];
      im[o * region.inner + i] = x * scale[1] + y * scale[0];
    }
  const { normal, outward, component, magnetic } = face;
  return { normal, outward, at: grid.lines[normal][face.index], component, magnetic, axes: [a, b], coordinates: [ca, cb], widths: [wa, wb], re, im };
}

/**
 * Time-averaged power through faces along their outward sides, W. On a node plane of the staggered grid E_u and H_v stand at the same
 * points, once H has been interpolated to the plane, so the product needs no further averaging.
 */
export function powerThrough(faces: readonly FaceSamples[]): number {
  let total = 0;
  for (const e of faces) {
    if (e.magnetic) continue;
    const component = 3 - e.normal - e.component;
    const h = faces.find((f) => f.magnetic && f.normal === e.normal && f.outward === e.outward && f.component === component)!;
    // (E x H*) . n = E_c H_other* with the sign of the permutation (c, other, n).
    const sign = ((component - e.component + 3) % 3 === 1 ? 1 : -1) * e.outward;
    const n = e.coordinates[0].length;
    for (let o = 0; o < e.coordinates[1].length; o++)
      for (let i = 0; i < n; i++) {
        const at = o * n + i;
        total += (sign * 0.5 * (e.re[at] * h.re[at] + e.im[at] * h.im[at]) * e.widths[0][i] * e.widths[1][o]) / eta0;
      }
  }
  return total;
}
