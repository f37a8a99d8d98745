import { dot, type Vec3 } from '../numerics/vector.ts';
import { outwards, type PatternFrame, sphericalBase } from './frame.ts';
import { component, type Polarisation } from './polarisation.ts';
import type { PatternSampler } from './sampler.ts';

/** Directions over which a phase is to be even: a cone about the frame's z, or one plane through it (at the frame's phi), out to an angle, radians. */
export interface PhaseSpan {
  half: number;
  /** Absent: a cone. */
  plane?: number;
}

/** Components whose phase is even about an axis, so that it has a centre. */
export type PhasePart = Extract<Polarisation, 'co' | 'cross' | 'right' | 'left'>;

/** Directions in which the phase is read: steps from the axis to the rim of the cone, and cuts around it. */
const steps = 24;
const around = 24;

export interface PhaseCentre {
  /** Place, metres, in global axes. */
  at: Vec3;
  /** Root of the weighted mean square of the phase about it, and largest less smallest, radians. */
  rms: number;
  spread: number;
}

/** One component of a far field over a span of directions about a frame's z, read once; its phase is told about any origin. */
export class PhaseRays {
  private readonly turns: number;
  /** Of each direction, ray by ray from the axis outwards: unit vector, phase about the global origin, and what it counts: intensity times solid angle. */
  private readonly r: Vec3[] = [];
  private readonly raw: number[] = [];
  private readonly weight: number[] = [];
  private readonly base: Vec3[];

  constructor(
    sampler: PatternSampler,
    private readonly frame: PatternFrame,
    private readonly k: number,
    span: PhaseSpan,
    what: PhasePart,
    reference = 0,
  ) {
    const { plane, half } = span;
    const turns = plane === undefined ? Array.from({ length: around }, (_, i) => (2 * Math.PI * i) / around) : [plane, plane + Math.PI];
    this.turns = turns.length;
    this.base = plane === undefined ? [frame.x, frame.y, frame.z] : [outwards(frame, [Math.cos(plane), Math.sin(plane), 0]), frame.z];
    const still: PatternFrame = { ...frame, origin: [0, 0, 0] };
    for (const phi of turns)
      for (let i = 0; i <= steps; i++) {
        const theta = (half * i) / steps;
        const [re, im] = component(sampler.inFrame(still, k, theta, phi), what, phi, reference);
        this.r.push(outwards(frame, sphericalBase(theta, phi).r));
        this.raw.push(Math.atan2(im, re));
        // The axis is on every ray.
        const solid = plane === undefined ? (i ? Math.sin(theta) : Math.sin(half / steps / 2) / around) : i ? 1 : 0.5;
        this.weight.push((re * re + im * im) * solid);
      }
    const total = this.weight.reduce((a, b) => a + b, 0);
    if (total > 0) this.weight.forEach((w, i) => (this.weight[i] = w / total));
  }

  /** Phases about an origin, each ray unwrapped from the axis outwards. */
  private phases(origin: Vec3): number[] {
    const out: number[] = [];
    for (let t = 0; t < this.turns; t++)
      for (let i = 0; i <= steps; i++) {
        const n = t * (steps + 1) + i;
        const phase = this.raw[n] - this.k * dot(this.r[n], origin);
        const last = i ? out[n - 1] : t ? out[0] : phase - 2 * Math.PI * Math.round(phase / (2 * Math.PI));
        out.push(phase + 2 * Math.PI * Math.round((last - phase) / (2 * Math.PI)));
      }
    return out;
  }

  /** How uneven the phase is about an origin, radians. */
  spread(origin: Vec3): { rms: number; spread: number } {
    const phases = this.phases(origin);
    const mean = phases.reduce((sum, p, i) => sum + this.weight[i] * p, 0);
    return {
      rms: Math.sqrt(phases.reduce((sum, p, i) => sum + this.weight[i] * (p - mean) ** 2, 0)),
      spread: Math.max(...phases) - Math.min(...phases),
    };
  }

  /**
   * The origin about which the phase is as even as can be, by weighted least squares of phase = k r0 . r + const (E of a source at r0 has that
   * phase). In a plane r0 moves within the plane only. The fit is done anew about what it found, where no ray wraps. Null where the component
   * vanishes or does not tell.
   */
  centre(): PhaseCentre | null {
    let origin = this.frame.origin;
    const n = this.base.length + 1;
    for (let pass = 0; pass < 3; pass++) {
      const m = Array.from({ length: n }, () => new Float64Array(n + 1));
      this.phases(origin).forEach((phase, at) => {
        const row = [...this.base.map((b) => dot(b, this.r[at])), 1];
        for (let i = 0; i < n; i++) {
          for (let j = 0; j < n; j++) m[i][j] += this.weight[at] * row[i] * row[j];
          m[i][n] += this.weight[at] * row[i] * phase;
        }
      });
      const x = solved(m);
      if (!x) return null;
      origin = [0, 1, 2].map((i) => origin[i] + this.base.reduce((sum, b, j) => sum + (b[i] * x[j]) / this.k, 0)) as unknown as Vec3;
    }
    return { at: origin, ...this.spread(origin) };
  }
}

/** Gaussian elimination with pivoting of a few equations [n][n + 1]; null where they are singular. */
function solved(m: Float64Array[]): number[] | null {
  const n = m.length;
  for (let k = 0; k < n; k++) {
    let best = k;
    for (let r = k + 1; r < n; r++) if (Math.abs(m[r][k]) > Math.abs(m[best][k])) best = r;
    [m[k], m[best]] = [m[best], m[k]];
    if (!(Math.abs(m[k][k]) > 1e-14)) return null;
    for (let r = 0; r < n; r++) {
      if (r === k) continue;
      const f = m[r][k] / m[k][k];
      for (let c = k; c <= n; c++) m[r][c] -= f * m[k][c];
    }
  }
  return m.map((row, k) => row[n] / row[k]);
}
