import { gauss } from '../../numerics/gauss.ts';
import { nothing, sameNumber } from '../../numerics/tolerance.ts';

/**
 * What two segments close to each other do to each other at rest: integrals of their linear shape functions over 1 / R. On one
 * axis R is averaged around both surfaces (the exact kernel, a complete elliptic integral); where wires touch at an angle the larger radius is added to the
 * distance of the axes (the extended kernel); else the distance of the axes is that of two wires exactly, as the mean of a logarithm around a circle is its
 * value at the middle.
 */

const { points: nodes, weights } = gauss(8);

type Four = [number, number, number, number];
type Integrand = (x: number, out: Float64Array) => void;

/** Eight-point rule of four functions at once. */
function rule(f: Integrand, a: number, b: number, value: Float64Array): Four {
  const sum: Four = [0, 0, 0, 0];
  for (let i = 0; i < 8; i++) {
    f(a + (b - a) * nodes[i], value);
    for (let c = 0; c < 4; c++) sum[c] += (b - a) * weights[i] * value[c];
  }
  return sum;
}

/** Integrates four functions, halving where eight points do not suffice; logarithms at the ends are allowed. */
function adaptive(f: Integrand, a: number, b: number, tolerance: number): Four {
  const value = new Float64Array(4);
  const go = (lo: number, hi: number, whole: Four, depth: number): Four => {
    const mid = (lo + hi) / 2;
    const left = rule(f, lo, mid, value);
    const right = rule(f, mid, hi, value);
    const both = left.map((x, c) => x + right[c]) as Four;
    const off = Math.max(...both.map((x, c) => Math.abs(x - whole[c])));
    if (off <= tolerance || depth > 40) return both;
    const [l, r] = [go(lo, mid, left, depth + 1), go(mid, hi, right, depth + 1)];
    return l.map((x, c) => x + r[c]) as Four;
  };
  return go(a, b, rule(f, a, b, value), 0);
}

/** Mean of 1 / R between two circles on one axis, `u` apart: (2 / pi) K / sqrt(u^2 + (a + b)^2), K by the arithmetic-geometric mean. */
export function ringMean(u: number, a: number, b: number): number {
  let x = Math.sqrt(u * u + (a + b) ** 2);
  let y = Math.sqrt(u * u + (a - b) ** 2);
  // K(k) = pi / 2 / agm(1, k'); scaled by the larger distance.
  for (let i = 0; i < 60 && x - y > 1e-15 * x; i++) [x, y] = [(x + y) / 2, Math.sqrt(x * y)];
  return 1 / ((x + y) / 2);
}

/** How two segments stand to each other. */
export interface Pair {
  /** Of the static integrals: start-start, start-end, end-start, end-end of the first and the second segment. */
  integrals: Four;
  /** To be added to the square of the distance of the axes, m^2. */
  rho2: number;
}

/** Least distance between two straight pieces, rows of the table of segments, in metres. */
export function distanceOf(a: Float64Array, b: Float64Array): number {
  // Nearest points of two lines, then of the pieces by clamping; A. Sunday's scheme in short.
  const w = [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
  const uv = a[3] * b[3] + a[4] * b[4] + a[5] * b[5];
  const uw = a[3] * w[0] + a[4] * w[1] + a[5] * w[2];
  const vw = b[3] * w[0] + b[4] * w[1] + b[5] * w[2];
  const d = 1 - uv * uv;
  const clamp = (x: number, l: number): number => Math.min(l, Math.max(0, x));
  let s = d > nothing ? clamp((uv * vw - uw) / d, a[6]) : 0;
  const t = clamp(vw + uv * s, b[6]);
  s = clamp(uv * t - uw, a[6]);
  const q = clamp(vw + uv * s, b[6]);
  return Math.hypot(w[0] + s * a[3] - q * b[3], w[1] + s * a[4] - q * b[4], w[2] + s * a[5] - q * b[5]);
}

/** Static integrals of two segments, rows of 8 as in a mesh. */
export function nearPair(a: Float64Array, b: Float64Array): Pair {
  const scale = a[6] * b[6];
  const cosine = a[3] * b[3] + a[4] * b[4] + a[5] * b[5];
  const off = [b[0] - a[0], b[1] - a[1], b[2] - a[2]];
  const along = off[0] * a[3] + off[1] * a[4] + off[2] * a[5];
  const aside = Math.hypot(off[0] - along * a[3], off[1] - along * a[4], off[2] - along * a[5]);
  const most = Math.max(a[7], b[7]);
  // What rounding leaves of places that are meant to be the same.
  const slack = sameNumber * (a[6] + b[6]);
  const tolerance = (sameNumber * scale) / Math.max(a[6], b[6]);
  if (Math.abs(cosine) > 1 - sameNumber && aside < Math.max(1e-3 * most, slack))
    return { integrals: coaxial(a, b, along, Math.sign(cosine), tolerance), rho2: most * most };
  const rho2 = distanceOf(a, b) < a[7] + b[7] + slack ? most * most : 0;
  return { integrals: skew(a, b, rho2, tolerance), rho2 };
}

/** On one axis: one integral over the distance u of kernel times the overlap of the two shape functions. */
function coaxial(a: Float64Array, b: Float64Array, start: number, direction: number, tolerance: number): Four {
  const [la, lb] = [a[6], b[6]];
  const lo = direction > 0 ? start : start - lb;
  const hi = lo + lb;
  const f: Integrand = (u, out) => {
    // Points x of the first and x + u of the second; the product of two linear functions needs two points.
    const from = Math.max(0, lo - u);
    const to = Math.min(la, hi - u);
    out.fill(0);
    if (!(to > from)) return;
    const k = (ringMean(u, a[7], b[7]) * (to - from)) / 2;
    for (const g of [-1, 1]) {
      const x = (from + to) / 2 + (g * (to - from)) / (2 * Math.sqrt(3));
      const s = x / la;
      const t = direction > 0 ? (x + u - lo) / lb : (hi - x - u) / lb;
      out[0] += k * (1 - s) * (1 - t);
      out[1] += k * (1 - s) * t;
      out[2] += k * s * (1 - t);
      out[3] += k * s * t;
    }
  };
  const places = [lo - la, lo, hi - la, hi, 0].filter((u) => u >= lo - la && u <= hi).sort((p, q) => p - q);
  const sum: Four = [0, 0, 0, 0];
  for (let i = 1; i < places.length; i++)
    if (places[i] - places[i - 1] > nothing * (la + lb)) adaptive(f, places[i - 1], places[i], tolerance).forEach((x, c) => (sum[c] += x));
  return sum;
}

/** Anywhere: the potential of the second in closed form, the first by quadrature. */
function skew(a: Float64Array, b: Float64Array, rho2: number, tolerance: number): Four {
  const [la, lb] = [a[6], b[6]];
  const f: Integrand = (x, out) => {
    const p = [0, 1, 2].map((c) => a[c] + x * a[3 + c] - b[c]);
    const w = p[0] * b[3] + p[1] * b[4] + p[2] * b[5];
    const h2 = Math.max(p[0] * p[0] + p[1] * p[1] + p[2] * p[2] - w * w, 0) + rho2;
    const h = Math.sqrt(Math.max(h2, 1e-24 * lb * lb));
    const i0 = Math.asinh((lb - w) / h) + Math.asinh(w / h);
    const i1 = Math.hypot(lb - w, h) - Math.hypot(w, h) + w * i0;
    const [end, begin] = [i1 / lb, i0 - i1 / lb];
    const s = x / la;
    out[0] = (1 - s) * begin;
    out[1] = (1 - s) * end;
    out[2] = s * begin;
    out[3] = s * end;
  };
  // Split where the other segment is nearest.
  const w = [b[0] - a[0], b[1] - a[1], b[2] - a[2]];
  const ends = [0, b[6]].map((t) => w[0] * a[3] + w[1] * a[4] + w[2] * a[5] + t * (b[3] * a[3] + b[4] * a[4] + b[5] * a[5]));
  const places = [0, ...ends.filter((x) => x > sameNumber * la && x < la * (1 - sameNumber)), la].sort((p, q) => p - q);
  const sum: Four = [0, 0, 0, 0];
  for (let i = 1; i < places.length; i++) adaptive(f, places[i - 1], places[i], tolerance).forEach((x, c) => (sum[c] += x));
  return sum;
}

/** Pairs that are close, by segment: in the order of their sources. */
export interface NearList {
  /** First entry of each segment, and one more. */
  first: Int32Array;
  /** Source of each entry. */
  source: Int32Array;
  pairs: Pair[];
}

/** All pairs of segments and sources that stand closer than 2.5 of their lengths or 12 radii; like pairs are computed once. */
export function nearPairs(segments: Float64Array, sources: Float64Array): NearList {
  const count = segments.length / 8;
  const first = new Int32Array(count + 1);
  const source: number[] = [];
  const pairs: Pair[] = [];
  const known = new Map<string, Pair>();
  const rows = Array.from({ length: count }, (_, i) => segments.subarray(8 * i, 8 * i + 8));
  const others = Array.from({ length: sources.length / 8 }, (_, j) => sources.subarray(8 * j, 8 * j + 8));
  const middle = (r: Float64Array, c: number): number => r[c] + (r[6] * r[3 + c]) / 2;
  const middles = Float64Array.from(others.flatMap((r) => [middle(r, 0), middle(r, 1), middle(r, 2)]));
  for (let i = 0; i < count; i++) {
    const a = rows[i];
    const [x, y, z] = [middle(a, 0), middle(a, 1), middle(a, 2)];
    for (let j = 0; j < others.length; j++) {
      const b = others[j];
      const reach = Math.max(2.5 * a[6], 2.5 * b[6], 12 * a[7], 12 * b[7]);
      if ((middles[3 * j] - x) ** 2 + (middles[3 * j + 1] - y) ** 2 + (middles[3 * j + 2] - z) ** 2 > reach * reach) continue;
      source.push(j);
      const key = keyOf(a, b);
      let pair = known.get(key);
      if (!pair) known.set(key, (pair = nearPair(a, b)));
      pairs.push(pair);
    }
    first[i + 1] = source.length;
  }
  return { first, source: Int32Array.from(source), pairs };
}

/** The same for pairs that stand alike: lengths, radii and the distances of their four ends. */
function keyOf(a: Float64Array, b: Float64Array): string {
  const end = (r: Float64Array, e: number, c: number): number => r[c] + e * r[6] * r[3 + c];
  const d = (e: number, f: number): number => Math.hypot(end(a, e, 0) - end(b, f, 0), end(a, e, 1) - end(b, f, 1), end(a, e, 2) - end(b, f, 2));
  const tidy = (x: number): string => (Math.abs(x) < sameNumber * a[6] ? '0' : x.toPrecision(9));
  return [a[6], b[6], a[7], b[7], d(0, 0), d(0, 1), d(1, 0), d(1, 1)].map(tidy).join(' ');
}
