import type { Complex } from '../../../numerics/complex.ts';
import { c0, eps0, mu0 } from '../../../numerics/constants.ts';
import { gauss } from '../../../numerics/gauss.ts';
import type { WireMesh } from '../../../grid/index.ts';
import type { Ground } from '../../../scene/index.ts';
import type { NearList } from '../near.ts';
import { endsOf, type WireSystem } from '../system.ts';
import { earthPermittivity, staticReflection } from './halfSpace.ts';
import { kernelParts } from './sommerfeld.ts';
import { EarthTable, type Reach } from './table.ts';

export type Earth = Extract<Ground, { kind: 'earth' }>;

/** Heights and distances that a mesh spans, metres. */
function reachOf({ segments, count }: WireMesh, ground: number): Reach {
  let [low, high] = [Infinity, 0];
  const [min, max] = [
    [Infinity, Infinity],
    [-Infinity, -Infinity],
  ];
  for (let i = 0; i < count; i++)
    for (const end of [0, 1]) {
      const p = [0, 1, 2].map((a) => segments[8 * i + a] + end * segments[8 * i + 6] * segments[8 * i + 3 + a]);
      low = Math.min(low, p[2] - ground);
      high = Math.max(high, p[2] - ground);
      for (const a of [0, 1]) {
        min[a] = Math.min(min[a], p[a]);
        max[a] = Math.max(max[a], p[a]);
      }
    }
  return { rho: Math.hypot(max[0] - min[0], max[1] - min[1]), low: 2 * low, high: 2 * high };
}

/** Points for each segment of a pair: more where their images are closer than their length. */
const rules = [gauss(2), gauss(4), gauss(6)];

/**
 * Adds to a filled system what real earth sends back: images at rest, whose static parts for close pairs are in `near`, and what the
 * table tells beyond them, exactly by Sommerfeld's integrals.
 */
export function addEarth(system: WireSystem, earth: Earth, near: NearList, frequency: number): void {
  const { mesh } = system;
  const { segments, count } = mesh;
  const w = 2 * Math.PI * frequency;
  const k = w / c0;
  const eps = earthPermittivity(earth, frequency);
  const still = staticReflection(eps);
  const reach = reachOf(mesh, earth.at);
  const table = new EarthTable(eps, { rho: k * reach.rho, low: k * reach.low, high: k * reach.high });
  const vector = (w * mu0) / (4 * Math.PI);
  const scalar = 1 / (4 * Math.PI * w * eps0);
  const ends = endsOf(mesh);
  const told = new Float64Array(kernelParts);
  // Vector parts of the four products of shape functions, and the scalar part.
  const sums = new Float64Array(10);
  for (let i = 0; i < count; i++) {
    let entry = near.first[i];
    const last = near.first[i + 1];
    for (let j = 0; j < count; j++) {
      const close = entry < last && near.source[entry] === j ? near.pairs[entry++] : null;
      if (j < i) continue;
      pairSums(i, j, close ? close.rho2 : null);
      if (close) {
        const s = close.integrals;
        const vertical = segments[8 * i + 5] * segments[8 * j + 5];
        for (let n = 0; n < 4; n++) {
          sums[2 * n] += -2 * still[0] * vertical * s[n];
          sums[2 * n + 1] += -2 * still[1] * vertical * s[n];
        }
        const whole = s[0] + s[1] + s[2] + s[3];
        sums[8] += still[0] * whole;
        sums[9] += still[1] * whole;
      }
      scatter(i, j);
      if (i !== j) scatter(j, i, true);
    }
  }

  /** Quadrature over a pair; `rho2` is null where the image's static part is not taken out. */
  function pairSums(i: number, j: number, rho2: number | null): void {
    sums.fill(0);
    const a = segments.subarray(8 * i, 8 * i + 8);
    const b = segments.subarray(8 * j, 8 * j + 8);
    const longer = Math.max(a[6], b[6]);
    const mid = (s: Float64Array, c: number): number => s[c] + (s[6] * s[3 + c]) / 2;
    const far = Math.hypot(mid(a, 0) - mid(b, 0), mid(a, 1) - mid(b, 1), mid(a, 2) + mid(b, 2) - 2 * earth.at) / longer;
    const { points, weights } = rules[far > 5 ? 0 : far > 1.5 ? 1 : 2];
    const level = a[3] * b[3] + a[4] * b[4];
    const upright = a[5] * b[5];
    for (let p = 0; p < points.length; p++)
      for (let q = 0; q < points.length; q++) {
        const [s, t] = [points[p], points[q]];
        const x = a[0] + s * a[6] * a[3] - b[0] - t * b[6] * b[3];
        const y = a[1] + s * a[6] * a[4] - b[1] - t * b[6] * b[4];
        const h = a[2] + s * a[6] * a[5] + b[2] + t * b[6] * b[5] - 2 * earth.at;
        const rho = Math.hypot(x, y);
        const weight = weights[p] * weights[q] * a[6] * b[6];
        table.at(k * rho, k * h, told);
        const r = Math.sqrt(rho * rho + h * h + (rho2 ?? 0));
        const [cos, sin] = [Math.cos(k * r), -Math.sin(k * r)];
        // exp(-jkR) / R of the image, less what its static integral holds.
        const image: Complex = [(cos - (rho2 === null ? 0 : 1)) / r, sin / r];
        const apart = Math.hypot(rho, h);
        // Between a level and an upright element: closed form beside the table.
        let [cr, ci] = [0, 0];
        const slope = rho > 0 ? (a[5] * (b[3] * x + b[4] * y) - b[5] * (a[3] * x + a[4] * y)) / rho : 0;
        if (slope) {
          const small = rho < 1e-4 * h;
          const [eh, ei] = [Math.cos(k * h), -Math.sin(k * h)];
          const [er, es] = [Math.cos(k * apart), -Math.sin(k * apart)];
          const lim = rho / (2 * h * h);
          const dr = small ? lim * (eh - k * h * ei) : (eh - (h / apart) * er) / rho;
          const di = small ? lim * (ei + k * h * eh) : (ei - (h / apart) * es) / rho;
          cr = slope * (k * told[4] + still[0] * dr - still[1] * di);
          ci = slope * (k * told[5] + still[0] * di + still[1] * dr);
        }
        const ir = still[0] * image[0] - still[1] * image[1];
        const ii = still[0] * image[1] + still[1] * image[0];
        const vr = weight * (level * k * told[0] + upright * (k * told[6] - 2 * ir) + cr);
        const vi = weight * (level * k * told[1] + upright * (k * told[7] - 2 * ii) + ci);
        sums[0] += (1 - s) * (1 - t) * vr;
        sums[1] += (1 - s) * (1 - t) * vi;
        sums[2] += (1 - s) * t * vr;
        sums[3] += (1 - s) * t * vi;
        sums[4] += s * (1 - t) * vr;
        sums[5] += s * (1 - t) * vi;
        sums[6] += s * t * vr;
        sums[7] += s * t * vi;
        sums[8] += weight * (k * told[2] + ir);
        sums[9] += weight * (k * told[3] + ii);
      }
  }

  /** Adds a pair's sums to the bases of both segments; `turned`: they were taken with the segments exchanged. */
  function scatter(i: number, j: number, turned = false): void {
    for (let e = 0; e < 2; e++)
      for (let f = 0; f < 2; f++) {
        const n = turned ? 2 * f + e : 2 * e + f;
        const slope = (scalar * (e === f ? 1 : -1)) / (segments[8 * i + 6] * segments[8 * j + 6]);
        // j vector V - j slope S
        const re = -vector * sums[2 * n + 1] + slope * sums[9];
        const im = vector * sums[2 * n] - slope * sums[8];
        for (let p = ends.first[2 * i + e]; p < ends.first[2 * i + e + 1]; p++)
          for (let q = ends.first[2 * j + f]; q < ends.first[2 * j + f + 1]; q++) {
            const sign = ends.list[p][1] * ends.list[q][1];
            system.add(ends.list[p][0], ends.list[q][0], sign * re, sign * im);
          }
      }
  }
}
