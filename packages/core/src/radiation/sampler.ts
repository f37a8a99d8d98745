import { dot, type Vec3 } from '../numerics/vector.ts';
import { globalFrame, outwards, type PatternFrame, sphericalBase } from './frame.ts';
import type { Pattern } from './surface.ts';
import type { FarVector } from './polarisation.ts';

/** Harmonics smaller than this part of the largest are left out. */
const least = 1e-10;

/** The Fourier series of a pattern on the doubled sphere. */
interface Series {
  /** Highest harmonics along theta and phi. */
  nTheta: number;
  nPhi: number;
  /** [m from -nPhi to nPhi][n from -nTheta to nTheta][re, im of E_theta, re, im of E_phi]. */
  c: Float64Array;
}

/**
 * Reads a pattern in any direction by its Fourier series on the doubled sphere: (theta, phi) and (-theta, phi + pi) are one direction, with both
 * components turned round, so that a pattern is periodic in both angles. Exact for fields that the angular step resolves. Far fields of sources within a
 * radius have few harmonics, so that one direction takes microseconds.
 */
export class PatternSampler {
  private series: Series | null = null;
  private turnsTheta = new Float64Array(0);
  constructor(readonly pattern: Pattern) {}

  /** The field in a global direction, V, components along the global theta and phi. */
  at(theta: number, phi: number): FarVector {
    this.series ??= seriesOf(this.pattern);
    const { nTheta, nPhi, c } = this.series;
    const width = 2 * nTheta + 1;
    if (this.turnsTheta.length !== 2 * width) this.turnsTheta = new Float64Array(2 * width);
    const turns = this.turnsTheta;
    for (let n = -nTheta, i = 0; n <= nTheta; n++) {
      turns[i++] = Math.cos(n * theta);
      turns[i++] = Math.sin(n * theta);
    }
    let [a, b, d, e] = [0, 0, 0, 0];
    let at = 0;
    for (let m = -nPhi; m <= nPhi; m++) {
      let [p, q, r, s] = [0, 0, 0, 0];
      for (let i = 0; i < 2 * width; i += 2, at += 4) {
        const [x, y] = [turns[i], turns[i + 1]];
        p += c[at] * x - c[at + 1] * y;
        q += c[at] * y + c[at + 1] * x;
        r += c[at + 2] * x - c[at + 3] * y;
        s += c[at + 2] * y + c[at + 3] * x;
      }
      const [x, y] = [Math.cos(m * phi), Math.sin(m * phi)];
      a += p * x - q * y;
      b += p * y + q * x;
      d += r * x - s * y;
      e += r * y + s * x;
    }
    return [a, b, d, e];
  }

  /**
   * The field in a local direction of a frame, V: components along the frame's own theta and phi, phase about its origin (k in 1/m).
   * Far fields are coefficients of exp(-jkr)/r, so that the phase about r0 is that about 0 less k r0 in the direction.
   */
  inFrame(frame: PatternFrame, k: number, theta: number, phi: number): FarVector {
    if (frame === globalFrame) return this.at(theta, phi);
    const own = sphericalBase(theta, phi);
    const r = outwards(frame, own.r);
    const [gt, gp] = anglesOf(r);
    return turned(this.at(gt, gp), gt, gp, outwards(frame, own.theta), outwards(frame, own.phi), k * dot(r, frame.origin));
  }
}

/** Theta and phi of a direction. */
export const anglesOf = (r: Vec3): [theta: number, phi: number] => [Math.atan2(Math.hypot(r[0], r[1]), r[2]), Math.atan2(r[1], r[0])];

/** A far field in the global direction (theta, phi) along other unit vectors across it, less a phase. */
export function turned(e: FarVector, theta: number, phi: number, along: Vec3, across: Vec3, phase: number): FarVector {
  const base = sphericalBase(theta, phi);
  const [a, b, c, d] = [dot(base.theta, along), dot(base.phi, along), dot(base.theta, across), dot(base.phi, across)];
  const [cos, sin] = [Math.cos(phase), Math.sin(phase)];
  const rotate = (re: number, im: number): [number, number] => [cos * re + sin * im, cos * im - sin * re];
  return [...rotate(a * e[0] + b * e[2], a * e[1] + b * e[3]), ...rotate(c * e[0] + d * e[2], c * e[1] + d * e[3])] as unknown as FarVector;
}

/** One dimension's sum over samples, [of][n] harmonics h of a ring, each sample four numbers. */
function harmonic(
  from: Float64Array,
  offset: number,
  stride: number,
  n: number,
  h: number,
  sign: (i: number) => number,
  place: (i: number) => number,
  out: Float64Array,
  at: number,
): void {
  for (let i = 0; i < n; i++) {
    const angle = (-2 * Math.PI * ((h * i) % n)) / n;
    const w = sign(i) / n;
    const [c, s] = [w * Math.cos(angle), w * Math.sin(angle)];
    const k = offset + stride * place(i);
    out[at] += from[k] * c - from[k + 1] * s;
    out[at + 1] += from[k] * s + from[k + 1] * c;
    out[at + 2] += from[k + 2] * c - from[k + 3] * s;
    out[at + 3] += from[k + 2] * s + from[k + 3] * c;
  }
}

const plain = (i: number): number => i;
const one = (): number => 1;

/** Harmonics in phi ring by ring, from the lowest up until they vanish; then those in theta, likewise. */
function seriesOf({ nTheta, nPhi, values }: Pattern): Series {
  const ring = 2 * (nTheta - 1);
  let largest = 0;
  /** Of harmonic m: [theta from 0 to pi][4]. */
  const inPhi = new Map<number, Float64Array>();
  const half = nPhi / 2;
  let mTop = 0;
  for (let m = 0, quiet = 0; m <= half && quiet < 2; m++) {
    let most = 0;
    for (const own of m === 0 || m === half ? [m] : [m, -m]) {
      const rows = new Float64Array(4 * nTheta);
      for (let t = 0; t < nTheta; t++) harmonic(values, 4 * t * nPhi, 4, nPhi, own, one, plain, rows, 4 * t);
      for (const v of rows) most = Math.max(most, Math.abs(v));
      inPhi.set(own, rows);
    }
    // The highest harmonic of a ring stands for both signs.
    if (m === half && half > 0) {
      const rows = inPhi.get(half)!.map((v) => v / 2);
      inPhi.set(half, rows);
      inPhi.set(-half, rows);
    }
    largest = Math.max(largest, most);
    quiet = most < least * largest ? quiet + 1 : 0;
    if (!quiet) mTop = m;
  }
  const top = ring / 2;
  const full: Map<number, Float64Array>[] = [];
  let nTop = 0;
  for (let n = 0, quiet = 0; n <= top && quiet < 2; n++) {
    let most = 0;
    const row = new Map<number, Float64Array>();
    for (const own of n === 0 || n === top ? [n] : [n, -n]) {
      const out = new Float64Array(4 * (2 * mTop + 1));
      for (let m = -mTop; m <= mTop; m++) {
        // Beyond the pole lies the other side: phi grows by pi, and both components turn round.
        const back = m % 2 === 0 ? -1 : 1;
        harmonic(inPhi.get(m)!, 0, 4, ring, own, (i) => (i < nTheta ? 1 : back), (i) => (i < nTheta ? i : ring - i), out, 4 * (m + mTop)); // prettier-ignore
      }
      if (n === top && n > 0) out.forEach((v, i) => (out[i] = v / 2));
      for (const v of out) most = Math.max(most, Math.abs(v));
      row.set(own, out);
      if (n === top && n > 0) row.set(-n, out);
    }
    full.push(row);
    largest = Math.max(largest, most);
    quiet = most < least * largest ? quiet + 1 : 0;
    if (!quiet) nTop = n;
  }
  const width = 2 * nTop + 1;
  const c = new Float64Array(4 * width * (2 * mTop + 1));
  for (let m = -mTop; m <= mTop; m++)
    for (let n = -nTop; n <= nTop; n++)
      c.set(full[Math.abs(n)].get(n)!.subarray(4 * (m + mTop), 4 * (m + mTop) + 4), 4 * ((m + mTop) * width + n + nTop));
  return { nTheta: nTop, nPhi: mTop, c };
}
