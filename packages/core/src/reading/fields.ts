import { cross, plus, times, unit, type Vec3 } from '../numerics/vector.ts';
import type { FieldCard, FieldQuantity } from '../document/index.ts';
import { eps0, mu0 } from '../numerics/constants.ts';
import type { Axis } from '../numerics/axis.ts';
import { sameNumber } from '../numerics/tolerance.ts';

/** Metres: far below all that is modelled here, where there is no extent to compare with. */
const tiny = 1e-12;

/** Complex vectors on a grid: [z][y][x][6] of re, im of the components x, y, z; absent where not kept. */
export interface FieldVolume {
  axes: readonly [ArrayLike<number>, ArrayLike<number>, ArrayLike<number>];
  e: Float32Array | null;
  h: Float32Array | null;
  /** The component that was kept alone, the others being zero; absent: all three. */
  only?: Axis;
}

/** Relative permittivity and loss along x, y, z of the medium at each place of a volume; null in metal, absent where there is nothing. */
export interface Filling {
  fill: ArrayLike<number>;
  media: ReadonlyMap<number, readonly number[]>;
}

const empty = [1, 0, 1, 0, 1, 0];

/**
 * A volume whose fields are told as another quantity, so that everything else reads it as E or H: D = e0 e' E; J = w e0 e'' E, conduction and
 * relaxation together; B = mu0 H; of loss, w e0 e'' |E|^2 / 2, each component's root, so that the square of the mean is the density. In metal they are 0.
 */
export function inMedia(volume: FieldVolume, quantity: FieldQuantity, frequency: number, filling: Filling | null): FieldVolume {
  if (quantity === 'B') return { ...volume, h: volume.h && volume.h.map((v) => v * mu0) };
  if ((quantity !== 'D' && quantity !== 'J' && quantity !== 'loss') || !volume.e) return volume;
  const w = 2 * Math.PI * frequency;
  const out = new Float32Array(volume.e.length);
  for (let n = 0; n < out.length / 6; n++) {
    const mark = filling?.fill[n] ?? 0;
    if (mark < 0) continue;
    const medium = mark ? (filling!.media.get(mark) ?? empty) : empty;
    for (let c = 0; c < 3; c++) {
      const [re, loss] = [medium[2 * c], medium[2 * c + 1]];
      const factor = quantity === 'D' ? eps0 * re : quantity === 'J' ? w * eps0 * loss : Math.sqrt(w * eps0 * loss);
      for (const p of [0, 1]) out[6 * n + 2 * c + p] = factor * volume.e[6 * n + 2 * c + p];
    }
  }
  return { ...volume, e: out };
}

/** Complex vectors on a plane: [v][u][6]; NaN where the plane leaves what was kept. */
export interface FieldSlice {
  u: ArrayLike<number>;
  v: ArrayLike<number>;
  e: Float32Array | null;
  h: Float32Array | null;
  /** Unit vectors along u and v and across the plane, and where u = v = 0 lies. */
  along: Vec3;
  across: Vec3;
  normal: Vec3;
  origin: Vec3;
}

/** What a box keeps: E, H or both, all their components or one alone. */
export interface BoxFields {
  electric: boolean;
  magnetic: boolean;
  only?: Axis;
}

/** Numbers that a box keeps at each place: real and imaginary part of each component. */
export const boxWidth = ({ electric, magnetic, only }: BoxFields): number => (Number(electric) + Number(magnetic)) * (only === undefined ? 6 : 2);

/** Splits what a box keeps, [.., width], into E and H; components that it does not keep are zero. */
export function volumeOf(axes: FieldVolume['axes'], values: ArrayLike<number>, box: BoxFields): FieldVolume {
  const { electric, magnetic, only } = box;
  const width = boxWidth(box);
  const each = width / (Number(electric) + Number(magnetic));
  const to = 2 * (only ?? 0);
  const count = axes[0].length * axes[1].length * axes[2].length;
  const part = (first: number): Float32Array => {
    const out = new Float32Array(6 * count);
    for (let n = 0; n < count; n++) for (let c = 0; c < each; c++) out[6 * n + to + c] = values[n * width + first + c];
    return out;
  };
  return { axes, e: electric ? part(0) : null, h: magnetic ? part(electric ? each : 0) : null, ...(only === undefined ? {} : { only }) };
}

/** The cut through a volume across an axis at the sample of index `at`. */
export function sliceOfVolume({ axes, e, h }: FieldVolume, normal: Axis, at: number): FieldSlice {
  const [a, b] = [0, 1, 2].filter((x) => x !== normal);
  const step = [1, axes[0].length, axes[0].length * axes[1].length];
  const [nu, nv] = [axes[a].length, axes[b].length];
  const cut = (from: Float32Array | null): Float32Array | null => {
    if (!from) return null;
    const out = new Float32Array(6 * nu * nv);
    for (let j = 0; j < nv; j++)
      for (let i = 0; i < nu; i++) {
        const n = 6 * (i * step[a] + j * step[b] + at * step[normal]);
        for (let c = 0; c < 6; c++) out[6 * (j * nu + i) + c] = from[n + c];
      }
    return out;
  };
  const place = axes[normal][at];
  return {
    u: axes[a],
    v: axes[b],
    e: cut(e),
    h: cut(h),
    along: unit(a),
    across: unit(b),
    normal: unit(normal),
    origin: times(place, unit(normal)),
  };
}

/** Index of the cell that holds x on a growing axis, and the part of it that lies before x; null outside. */
function cellOf(axis: ArrayLike<number>, x: number): [i: number, t: number] | null {
  const last = axis.length - 1;
  if (last === 0) return Math.abs(x - axis[0]) < tiny ? [0, 0] : null;
  const slack = sameNumber * (axis[last] - axis[0]);
  if (!(x >= axis[0] - slack && x <= axis[last] + slack)) return null;
  let [lo, hi] = [0, last];
  while (hi - lo > 1) {
    const mid = (lo + hi) >> 1;
    if (axis[mid] <= x) lo = mid;
    else hi = mid;
  }
  return [lo, Math.max(0, Math.min(1, (x - axis[lo]) / (axis[lo + 1] - axis[lo])))];
}

/** Reads a volume between its samples by trilinear interpolation into `out` (6 numbers); false outside it. */
export function sampleVolume(axes: FieldVolume['axes'], values: Float32Array, [x, y, z]: Vec3, out: Float32Array | Float64Array, at = 0): boolean {
  const cells = [cellOf(axes[0], x), cellOf(axes[1], y), cellOf(axes[2], z)];
  if (!cells[0] || !cells[1] || !cells[2]) return false;
  const [nx, ny] = [axes[0].length, axes[1].length];
  out.fill(0, at, at + 6);
  for (let k = 0; k < 8; k++) {
    let w = 1;
    let n = 0;
    for (let a = 0; a < 3; a++) {
      const [i, t] = cells[a]!;
      const far = (k >> a) & 1;
      w *= far ? t : 1 - t;
      n += (t > 0 || !far ? i + far : i) * [1, nx, nx * ny][a];
    }
    if (w > 0) for (let c = 0; c < 6; c++) out[at + c] += w * values[6 * n + c];
  }
  return true;
}

/** A plane through a volume at any angle: across `normal`, through `through`, with n samples along its longer side. */
export function tiltedSlice(volume: FieldVolume, normal: Vec3, through: Vec3, n = 160): FieldSlice {
  const { axes } = volume;
  // The first axis lies level, or along x where the plane does.
  const level = Math.hypot(normal[0], normal[1]);
  const along: Vec3 = level > sameNumber ? [-normal[1] / level, normal[0] / level, 0] : [1, 0, 0];
  const across = cross(normal, along);
  let [u0, u1, v0, v1] = [Infinity, -Infinity, Infinity, -Infinity];
  for (let k = 0; k < 8; k++) {
    const corner = axes.map((a, i) => a[(k >> i) & 1 ? a.length - 1 : 0] - through[i]);
    const [u, v] = [along, across].map((d) => d[0] * corner[0] + d[1] * corner[1] + d[2] * corner[2]);
    [u0, u1, v0, v1] = [Math.min(u0, u), Math.max(u1, u), Math.min(v0, v), Math.max(v1, v)];
  }
  const step = Math.max(u1 - u0, v1 - v0, tiny) / (n - 1);
  const line = (from: number, to: number): Float64Array =>
    Float64Array.from({ length: Math.max(2, Math.round((to - from) / step) + 1) }, (_, i) => from + i * step);
  const [u, v] = [line(u0, u1), line(v0, v1)];
  const read = (values: Float32Array | null): Float32Array | null => {
    if (!values) return null;
    const out = new Float32Array(6 * u.length * v.length).fill(NaN);
    for (let j = 0; j < v.length; j++) {
      const row = plus(through, times(v[j], across));
      for (let i = 0; i < u.length; i++) sampleVolume(axes, values, plus(row, times(u[i], along)), out, 6 * (j * u.length + i));
    }
    return out;
  };
  return { u, v, e: read(volume.e), h: read(volume.h), along, across, normal, origin: through };
}

/** What is read of a field. */
export type FieldReading = Pick<FieldCard, 'quantity' | 'part' | 'form'>;

/** What a quantity is called and measured in; which fields it needs, and whether all their components. */
export const fieldKinds: Record<FieldQuantity, { title: string; unit: string; needs: ('e' | 'h')[]; medium?: boolean; whole?: boolean }> = {
  E: { title: 'electric field', unit: 'V/m', needs: ['e'] },
  H: { title: 'magnetic field', unit: 'A/m', needs: ['h'] },
  S: { title: 'power flow', unit: 'W/m²', needs: ['e', 'h'], whole: true },
  D: { title: 'electric displacement', unit: 'C/m²', needs: ['e'], medium: true },
  B: { title: 'magnetic induction', unit: 'T', needs: ['h'] },
  J: { title: 'current density in media', unit: 'A/m²', needs: ['e'], medium: true },
  loss: { title: 'power lost in media', unit: 'W/m³', needs: ['e'], medium: true, whole: true },
};

/** Decibels a tenfold value is worth: 20 of a field, 10 of a power. */
export const decibelsOf = (quantity: FieldQuantity): 10 | 20 => (quantity === 'S' || quantity === 'loss' ? 10 : 20);

/** Whether a reading has a sign: drawn around zero. A phase runs round. */
export const fieldScale = ({ part, form, quantity }: FieldReading): 'size' | 'signed' | 'cyclic' => {
  if (quantity === 'loss') return 'size';
  if (form === 'phase' && quantity !== 'S') return 'cyclic';
  const sized = part === 'size' || part === 'tangential';
  return !sized && (form === 'instant' || quantity === 'S') ? 'signed' : 'size';
};

/**
 * Values of a reading at all samples of complex vectors, into `out`. E and H: peak over the phase (of a vector the long half axis of its ellipse,
 * |F|max^2 = (F.F* + |F.F|) / 2), the instant at a phase, the phase of a component in degrees, or the mean over a period (root of the mean square). S: the mean
 * Re(E x H*) / 2, or E x H at the instant.
 */
export function readField(
  slice: Pick<FieldSlice, 'e' | 'h' | 'along' | 'across' | 'normal'>,
  reading: FieldReading,
  phase: number,
  out: Float64Array,
): Float64Array {
  const { quantity, part, form } = reading;
  if (quantity === 'loss') {
    // The mean of the roots' square is the density, whatever was asked for.
    readField(slice, { quantity: 'E', part: 'size', form: 'mean' }, 0, out);
    for (let n = 0; n < out.length; n++) out[n] *= out[n];
    return out;
  }
  const flow = quantity === 'S';
  const field = quantity === 'H' || quantity === 'B' ? slice.h : slice.e;
  if (!field || (flow && !slice.h)) return out.fill(NaN);
  const other = slice.h;
  const [c, s] = [Math.cos(phase), Math.sin(phase)];
  const single: Vec3 | null =
    part === 'x' ? [1, 0, 0] : part === 'y' ? [0, 1, 0] : part === 'z' ? [0, 0, 1] : part === 'normal' ? slice.normal : null;
  const re = [0, 0, 0];
  const im = [0, 0, 0];
  const { normal } = slice;
  for (let n = 0; n < out.length; n++) {
    const at = 6 * n;
    for (let k = 0; k < 3; k++) {
      re[k] = field[at + 2 * k];
      im[k] = field[at + 2 * k + 1];
    }
    if (flow) {
      const h = other!;
      const [hx, ix, hy, iy, hz, iz] = [h[at], h[at + 1], h[at + 2], h[at + 3], h[at + 4], h[at + 5]];
      if (form === 'instant') {
        const ex = c * re[0] - s * im[0], ey = c * re[1] - s * im[1], ez = c * re[2] - s * im[2]; // prettier-ignore
        const mx = c * hx - s * ix, my = c * hy - s * iy, mz = c * hz - s * iz; // prettier-ignore
        [re[0], re[1], re[2]] = [ey * mz - ez * my, ez * mx - ex * mz, ex * my - ey * mx];
      } else {
        const px = re[1] * hz + im[1] * iz - re[2] * hy - im[2] * iy;
        const py = re[2] * hx + im[2] * ix - re[0] * hz - im[0] * iz;
        const pz = re[0] * hy + im[0] * iy - re[1] * hx - im[1] * ix;
        [re[0], re[1], re[2]] = [px / 2, py / 2, pz / 2];
      }
      im[0] = im[1] = im[2] = 0;
    }
    if (part === 'tangential') {
      const [a, b] = [re[0] * normal[0] + re[1] * normal[1] + re[2] * normal[2], im[0] * normal[0] + im[1] * normal[1] + im[2] * normal[2]];
      for (let k = 0; k < 3; k++) {
        re[k] -= a * normal[k];
        im[k] -= b * normal[k];
      }
    }
    if (single) {
      const x = re[0] * single[0] + re[1] * single[1] + re[2] * single[2];
      const y = im[0] * single[0] + im[1] * single[1] + im[2] * single[2];
      out[n] = flow
        ? x
        : form === 'instant'
          ? c * x - s * y
          : form === 'phase'
            ? (180 * Math.atan2(y, x)) / Math.PI
            : Math.sqrt(x * x + y * y) * (form === 'mean' ? Math.SQRT1_2 : 1);
    } else if (flow) out[n] = Math.sqrt(re[0] * re[0] + re[1] * re[1] + re[2] * re[2]);
    else if (form === 'instant') {
      const x = c * re[0] - s * im[0], y = c * re[1] - s * im[1], z = c * re[2] - s * im[2]; // prettier-ignore
      out[n] = Math.sqrt(x * x + y * y + z * z);
    } else {
      const sum = re[0] * re[0] + re[1] * re[1] + re[2] * re[2] + im[0] * im[0] + im[1] * im[1] + im[2] * im[2];
      if (form === 'mean') out[n] = Math.sqrt(sum / 2);
      else {
        const p = re[0] * re[0] + re[1] * re[1] + re[2] * re[2] - im[0] * im[0] - im[1] * im[1] - im[2] * im[2];
        const q = 2 * (re[0] * im[0] + re[1] * im[1] + re[2] * im[2]);
        // Of a whole vector a phase says where in the period it is largest.
        out[n] = form === 'phase' ? (-90 * Math.atan2(q, p)) / Math.PI : Math.sqrt((sum + Math.sqrt(p * p + q * q)) / 2);
      }
    }
  }
  return out;
}

/** Vectors in the plane at a phase (of S the mean), along u and across, into pairs. */
export function readArrows(slice: FieldSlice, quantity: FieldQuantity, form: FieldReading['form'], phase: number, out: Float64Array): Float64Array {
  const count = out.length / 2;
  const one = new Float64Array(count);
  for (const [k, direction] of [slice.along, slice.across].entries()) {
    readField(
      { ...slice, normal: direction },
      { quantity, part: 'normal', form: quantity === 'S' && form !== 'instant' ? 'mean' : 'instant' },
      phase,
      one,
    );
    for (let n = 0; n < count; n++) out[2 * n + k] = one[n];
  }
  return out;
}

/** The value below which a part of all sizes lies; the few cells at a feed or an edge would swallow a scale up to the largest. */
export function percentile(values: ArrayLike<number>, part: number): number {
  const sizes = Float64Array.from(values, Math.abs)
    .filter((v) => Number.isFinite(v))
    .sort();
  return sizes.length ? sizes[Math.floor(part * (sizes.length - 1))] : 0;
}

/** A field along a straight line of n samples: distance, metres, and complex vectors; NaN outside. */
export function alongLine(
  volume: FieldVolume,
  from: Vec3,
  to: Vec3,
  n: number,
): { distance: Float64Array; e: Float32Array | null; h: Float32Array | null } {
  // A flat volume is read where it lies.
  const flat = volume.axes.map((a) => (a.length === 1 ? a[0] : null));
  const length = Math.hypot(to[0] - from[0], to[1] - from[1], to[2] - from[2]);
  const read = (values: Float32Array | null): Float32Array | null => {
    if (!values) return null;
    const out = new Float32Array(6 * n).fill(NaN);
    for (let i = 0; i < n; i++) {
      const place = from.map((v, a) => flat[a] ?? v + ((to[a] - v) * i) / (n - 1)) as unknown as Vec3;
      sampleVolume(volume.axes, values, place, out, 6 * i);
    }
    return out;
  };
  return { distance: Float64Array.from({ length: n }, (_, i) => (length * i) / (n - 1)), e: read(volume.e), h: read(volume.h) };
}

/** What a recorder would have to keep besides, so that a quantity, or a part of it, can be told: E, H, or other components; null where nothing lacks. */
export function lackingFor(
  { needs, whole }: { needs: readonly ('e' | 'h')[]; whole?: boolean },
  { e, h, only }: Pick<FieldVolume, 'e' | 'h' | 'only'>,
  part: FieldCard['part'] = 'size',
): string | null {
  const field = needs.find((n) => !(n === 'e' ? e : h));
  if (field) return field.toUpperCase();
  if (only === undefined) return null;
  return whole || (part !== 'size' && part !== 'xyz'[only]) ? `components but ${'xyz'[only]}` : null;
}
