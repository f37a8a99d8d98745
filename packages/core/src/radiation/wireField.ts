import { c0, eps0, mu0 } from '../numerics/constants.ts';
import { gauss } from '../numerics/gauss.ts';
import type { Pattern } from './surface.ts';
import { sameNumber } from '../numerics/tolerance.ts';

/**
 * Straight segments with a current that runs linearly along each: rows of start x, y, z, direction x, y, z, length, radius (metres), and currents
 * [segment][start, end][re, im], A.
 */
export interface WireCurrents {
  segments: Float64Array;
  currents: Float64Array;
}

/** Currents with their images in a perfect plane at a height. */
export function withGround({ segments, currents }: WireCurrents, ground: number): WireCurrents {
  const n = segments.length / 8;
  const all = new Float64Array(16 * n);
  all.set(segments);
  const both = new Float64Array(8 * n);
  both.set(currents);
  for (let i = 0; i < n; i++) {
    const o = 8 * (n + i);
    all.set(segments.subarray(8 * i, 8 * i + 8), o);
    all[o + 2] = 2 * ground - all[o + 2];
    all[o + 5] = -all[o + 5];
    // The mirrored segment carries the current the other way.
    for (let c = 0; c < 4; c++) both[4 * (n + i) + c] = -currents[4 * i + c];
  }
  return { segments: all, currents: both };
}

/** Ground of real earth under wires: its height, and what it reflects of the tangential field of TM (e) and TE (h) waves by the cosine of theta. */
export interface FarGround {
  at: number;
  reflection(cosine: number): { e: readonly [number, number]; h: readonly [number, number] };
}

const { points: nodes, weights } = gauss(3);

/**
 * Far field of wires as a function of the direction: coefficient of exp(-jkr)/r, V, re and im of E_theta, E_phi; over real earth zero below the horizon.
 * E = -j w mu0 / 4 pi  sum of the current's transverse part times exp(jk r . r').
 */
export function wireFarFieldOf(
  { segments, currents }: WireCurrents,
  frequency: number,
  ground?: FarGround,
): (theta: number, phi: number, out: Float64Array) => void {
  const k = (2 * Math.PI * frequency) / c0;
  const n = segments.length / 8;
  const factor = -(2 * Math.PI * frequency * mu0) / (4 * Math.PI);
  // Moments of the quadrature points: place and complex I dl.
  const points = new Float64Array(3 * 3 * n);
  const moments = new Float64Array(6 * 3 * n);
  for (let i = 0; i < n; i++)
    for (let q = 0; q < 3; q++) {
      const l = segments[8 * i + 6];
      const m = 3 * i + q;
      for (let a = 0; a < 3; a++) {
        points[3 * m + a] = segments[8 * i + a] + nodes[q] * l * segments[8 * i + 3 + a];
        for (const c of [0, 1]) {
          const current = (1 - nodes[q]) * currents[4 * i + c] + nodes[q] * currents[4 * i + 2 + c];
          moments[6 * m + 2 * a + c] = weights[q] * l * segments[8 * i + 3 + a] * current;
        }
      }
    }
  return (theta, phi, out) => {
    const [ct, st] = [Math.cos(theta), Math.sin(theta)];
    out.fill(0);
    if (ground && ct < sameNumber) return;
    const back = ground?.reflection(Math.max(ct, 0));
    const [cp, sp] = [Math.cos(phi), Math.sin(phi)];
    const [kx, ky, kz] = [k * st * cp, k * st * sp, k * ct];
    let [xr, xi, yr, yi, zr, zi] = [0, 0, 0, 0, 0, 0];
    for (let m = 0; m < 3 * n; m++) {
      const phase = kx * points[3 * m] + ky * points[3 * m + 1] + kz * points[3 * m + 2];
      const [c, s] = [Math.cos(phase), Math.sin(phase)];
      const o = 6 * m;
      xr += moments[o] * c - moments[o + 1] * s;
      xi += moments[o] * s + moments[o + 1] * c;
      yr += moments[o + 2] * c - moments[o + 3] * s;
      yi += moments[o + 2] * s + moments[o + 3] * c;
      zr += moments[o + 4] * c - moments[o + 5] * s;
      zi += moments[o + 4] * s + moments[o + 5] * c;
    }
    let [tr, ti] = [ct * cp * xr + ct * sp * yr - st * zr, ct * cp * xi + ct * sp * yi - st * zi];
    let [pr, pi] = [-sp * xr + cp * yr, -sp * xi + cp * yi];
    if (back) {
      // By the way over the ground: level parts with the reflection of the tangential field, the upright one with its opposite.
      let [ar, ai, br, bi] = [0, 0, 0, 0];
      for (let m = 0; m < 3 * n; m++) {
        const phase = kx * points[3 * m] + ky * points[3 * m + 1] - kz * (points[3 * m + 2] - 2 * ground!.at);
        const [c, s] = [Math.cos(phase), Math.sin(phase)];
        const o = 6 * m;
        const [lr, li] = [cp * moments[o] + sp * moments[o + 2], cp * moments[o + 1] + sp * moments[o + 3]];
        const [er, ei] = [ct * lr + st * moments[o + 4], ct * li + st * moments[o + 5]];
        const [wr, wi] = [-sp * moments[o] + cp * moments[o + 2], -sp * moments[o + 1] + cp * moments[o + 3]];
        ar += er * c - ei * s;
        ai += er * s + ei * c;
        br += wr * c - wi * s;
        bi += wr * s + wi * c;
      }
      tr += ar * back.e[0] - ai * back.e[1];
      ti += ar * back.e[1] + ai * back.e[0];
      pr += br * back.h[0] - bi * back.h[1];
      pi += br * back.h[1] + bi * back.h[0];
    }
    // times j factor
    out[0] = -factor * ti;
    out[1] = factor * tr;
    out[2] = -factor * pi;
    out[3] = factor * pr;
  };
}

/** The same on the usual grid of directions, [theta][phi][4] in V. */
export function wireFarField(currents: WireCurrents, frequency: number, nTheta: number, nPhi: number, ground?: FarGround): Pattern {
  const at = wireFarFieldOf(currents, frequency, ground);
  const values = new Float64Array(4 * nTheta * nPhi);
  for (let t = 0; t < nTheta; t++)
    for (let f = 0; f < nPhi; f++)
      at((Math.PI * t) / (nTheta - 1), (2 * Math.PI * f) / nPhi, values.subarray(4 * (t * nPhi + f), 4 * (t * nPhi + f) + 4));
  return { nTheta, nPhi, values };
}

const [two, four] = [gauss(2), gauss(4)];

/**
 * E (V/m) and H (A/m) of wires at a point, added to `out`: re and im of Ex, Ey, Ez, Hx, Hy, Hz. By currents and the charges that their slopes
 * make; a segment that is near is cut until its pieces are shorter than their distance. The point must not lie within a wire.
 */
export function wireNearField({ segments, currents }: WireCurrents, frequency: number, [x, y, z]: readonly number[], out: Float64Array): void {
  const w = 2 * Math.PI * frequency;
  const k = w / c0;
  const magnetic = (w * mu0) / (4 * Math.PI);
  const electric = 1 / (4 * Math.PI * eps0 * w);
  const n = segments.length / 8;
  for (let i = 0; i < n; i++) {
    const o = 8 * i;
    const [dx, dy, dz, length, radius] = [segments[o + 3], segments[o + 4], segments[o + 5], segments[o + 6], segments[o + 7]];
    const [px, py, pz] = [x - segments[o], y - segments[o + 1], z - segments[o + 2]];
    const along = px * dx + py * dy + pz * dz;
    const nearest = Math.min(length, Math.max(0, along));
    const aside2 = Math.max(px * px + py * py + pz * pz - along * along, 0);
    const distance = Math.max(radius, Math.hypot(Math.sqrt(aside2), along - nearest));
    const [ar, ai, br, bi] = [currents[4 * i], currents[4 * i + 1], currents[4 * i + 2], currents[4 * i + 3]];
    // Charge times -j w: the slope of the current.
    const [sr, si] = [(br - ar) / length, (bi - ai) / length];
    const pieces = Math.max(1, Math.ceil(length / (1.5 * distance)));
    // Uneven cuts, fine where it is near, would do with fewer; a cap keeps the worst in hand.
    const cuts = Math.min(pieces, 48);
    const { points: t, weights: v } = length < 0.5 * distance ? two : four;
    for (let c = 0; c < cuts; c++)
      for (let q = 0; q < t.length; q++) {
        const s = (length * (c + t[q])) / cuts;
        const dl = (length * v[q]) / cuts;
        const [rx, ry, rz] = [px - s * dx, py - s * dy, pz - s * dz];
        const r2 = rx * rx + ry * ry + rz * rz;
        const r = Math.sqrt(r2);
        const [cos, sin] = [Math.cos(k * r), Math.sin(k * r)];
        const [gr, gi] = [(cos / r) * dl, (-sin / r) * dl];
        const share = s / length;
        const [ir, ii] = [ar + share * (br - ar), ai + share * (bi - ai)];
        // (1 + jkr) g / r^2
        const [hr, hi] = [(gr - k * r * gi) / r2, (gi + k * r * gr) / r2];
        // -j w mu / 4 pi I g along the segment.
        const [er, ei] = [magnetic * (ir * gi + ii * gr), -magnetic * (ir * gr - ii * gi)];
        // Charge q' = j I' / w; E = q' / (4 pi eps) (1 + jkr) g / r^2 times the distance.
        const [qr, qi] = [-electric * (sr * hi + si * hr), electric * (sr * hr - si * hi)];
        out[0] += er * dx + qr * rx;
        out[1] += ei * dx + qi * rx;
        out[2] += er * dy + qr * ry;
        out[3] += ei * dy + qi * ry;
        out[4] += er * dz + qr * rz;
        out[5] += ei * dz + qi * rz;
        const [jr, ji] = [(ir * hr - ii * hi) / (4 * Math.PI), (ir * hi + ii * hr) / (4 * Math.PI)];
        const [cx, cy, cz] = [dy * rz - dz * ry, dz * rx - dx * rz, dx * ry - dy * rx];
        out[6] += jr * cx;
        out[7] += ji * cx;
        out[8] += jr * cy;
        out[9] += ji * cy;
        out[10] += jr * cz;
        out[11] += ji * cz;
      }
  }
}
