import { dot, globalFrame, outwards, type PatternFrame, sphericalBase, type Vec3 } from './frame.ts';
import type { Pattern } from './nearToFar.ts';
import type { FarVector } from './polarisation.ts';

/** Weight of the sample at distance x on a ring of n (even) of them, with which a periodic function below half the sampling rate is met exactly. */
function ringWeight(x: number, n: number): number {
  const half = Math.sin(x / 2);
  if (Math.abs(half) < 1e-12) return 1;
  return (Math.sin((n * x) / 2) * Math.cos(x / 2)) / (n * half);
}

/**
 * Reads a pattern in any direction by trigonometric interpolation on the doubled sphere: (theta, phi) and (-theta, phi + pi) are one direction, with
 * both components turned round. Exact for fields that the angular step resolves; on the grid's own lines it is the samples.
 */
export class PatternSampler {
  private readonly columns: Float64Array;
  private readonly rows: Float64Array;
  constructor(readonly pattern: Pattern) {
    this.columns = new Float64Array(pattern.nPhi);
    this.rows = new Float64Array(2 * (pattern.nTheta - 1));
  }

  /** The field in a global direction, V, components along the global theta and phi. */
  at(theta: number, phi: number): FarVector {
    const { nTheta, nPhi, values } = this.pattern;
    const { columns, rows } = this;
    for (let p = 0; p < nPhi; p++) columns[p] = ringWeight(phi - (2 * Math.PI * p) / nPhi, nPhi);
    for (let t = 0; t < rows.length; t++) rows[t] = ringWeight(theta - (2 * Math.PI * t) / rows.length, rows.length);
    const out: [number, number, number, number] = [0, 0, 0, 0];
    const half = nPhi / 2;
    for (let t = 0; t < rows.length; t++) {
      if (Math.abs(rows[t]) < 1e-13) continue;
      const back = t >= nTheta;
      const row = (back ? rows.length - t : t) * nPhi;
      const w = back ? -rows[t] : rows[t];
      for (let p = 0; p < nPhi; p++) {
        const v = w * columns[p];
        if (Math.abs(v) < 1e-14) continue;
        const at = 4 * (row + (back ? (p + half) % nPhi : p));
        for (let c = 0; c < 4; c++) out[c] += v * values[at + c];
      }
    }
    return out;
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
