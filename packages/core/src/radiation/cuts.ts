import { plus, times } from '../numerics/vector.ts';
import { anglesOf, type PatternSampler } from './sampler.ts';
import { type PatternFrame, sphericalBase } from './frame.ts';
import type { FarVector } from './polarisation.ts';
import { sameNumber } from '../numerics/tolerance.ts';

/**
 * A closed path of directions: `phi` a full turn of theta through both poles at a phi, `theta` the cone of one theta, `great` the great circle
 * through the direction (theta, phi) that leaves it at the angle `tilt` from growing theta. Angles in radians, in the frame's own axes.
 */
export type CutPath = { kind: 'phi'; phi: number } | { kind: 'theta'; theta: number } | { kind: 'great'; theta: number; phi: number; tilt: number };

/** Local theta and phi at an angle along a path, from 0 to 2 pi: theta itself, phi itself, or the angle from the great circle's direction. */
function directionOn(path: CutPath, angle: number): [theta: number, phi: number] {
  switch (path.kind) {
    case 'phi':
      return [angle, path.phi];
    case 'theta':
      return [path.theta, angle];
    case 'great': {
      const base = sphericalBase(path.theta, path.phi);
      const leave = plus(times(Math.cos(path.tilt), base.theta), times(Math.sin(path.tilt), base.phi));
      return anglesOf(plus(times(Math.cos(angle), base.r), times(Math.sin(angle), leave)));
    }
  }
}

/** The field along a path at n equally spaced angles from 0, V, in the frame's own components. */
export function alongCut(
  sampler: PatternSampler,
  path: CutPath,
  n: number,
  frame: PatternFrame,
  k: number,
): { theta: number; phi: number; e: FarVector }[] {
  return Array.from({ length: n }, (_, i) => {
    const [theta, phi] = directionOn(path, (2 * Math.PI * i) / n);
    if (path.kind !== 'phi' || theta <= Math.PI) return { theta, phi, e: sampler.inFrame(frame, k, theta, phi) };
    // Beyond the pole the direction has its angles on the other side, and its own unit vectors.
    const [t, p] = [2 * Math.PI - theta, phi + Math.PI];
    return { theta: t, phi: p, e: sampler.inFrame(frame, k, t, p) };
  });
}

export interface CutFigures {
  /** Largest value, dB, and the angle it stands at, radians. */
  peak: number;
  angle: number;
  /** Widths 3 and 10 dB below the peak, radians; null where the cut does not fall that far on both sides. */
  width3: number | null;
  width10: number | null;
  /** Middle of the 3 dB width. */
  middle: number | null;
  /** Strongest other lobe below the peak, dB (positive), and its angle; null where there is none. */
  sideLobe: { below: number; angle: number } | null;
  /** Of the whole field: its level where the peak is less that half a turn away, dB. */
  frontToBack: number;
}

/**
 * Figures of a cut from values in dB, at equally spaced angles over a full turn. Peaks are refined by a parabola through three samples; widths by
 * linear interpolation. Where the values are of one part of the field, `whole` has those of all of it, for the ratio of front to back: a part may vanish behind while
 * the field does not. A side lobe is a maximum beyond the first minimum on either side of the peak that lies at least 0.05 dB above the minima beside it.
 */
export function cutFigures(db: ArrayLike<number>, whole: ArrayLike<number> = db): CutFigures {
  const n = db.length;
  const step = (2 * Math.PI) / n;
  const v = (i: number): number => db[((i % n) + n) % n];
  let top = 0;
  for (let i = 1; i < n; i++) if (db[i] > db[top] + sameNumber) top = i;
  const refined = (i: number): { off: number; value: number } => {
    const [rise, bend] = [v(i - 1) - v(i + 1), v(i - 1) - 2 * v(i) + v(i + 1)];
    const off = bend < 0 ? (0.5 * rise) / bend : 0;
    return { off, value: v(i) - 0.25 * rise * off };
  };
  const { off, value: peak } = refined(top);
  const edge = (way: 1 | -1, down: number): number | null => {
    for (let i = 1; i <= n / 2; i++) {
      const [a, b] = [v(top + way * (i - 1)), v(top + way * i)];
      if (b <= peak - down) return (i - 1 + (a - (peak - down)) / (a - b)) * step;
    }
    return null;
  };
  const width = (down: number): [left: number, right: number] | null => {
    const [left, right] = [edge(-1, down), edge(1, down)];
    return left === null || right === null ? null : [left, right];
  };
  const lobeLimit = (way: 1 | -1): number => {
    let i = 1;
    while (i < n && v(top + way * i) <= v(top + way * (i - 1))) i++;
    return i - 1;
  };
  const [right, left] = [lobeLimit(1), lobeLimit(-1)];
  let side: CutFigures['sideLobe'] = null;
  let low = v(top + right);
  let high = { value: -Infinity, at: 0 };
  // From the first minimum on one side round to that on the other: a lobe counts once the cut has risen above a minimum and come down again, or ends so.
  for (let i = right; i <= n - left; i++) {
    const x = v(top + i);
    if (x > high.value) high = { value: x, at: top + i };
    if (high.value - low > 0.05 && (high.value - x > 0.05 || i === n - left)) {
      const lobe = refined(high.at);
      if (!side || peak - lobe.value < side.below) side = { below: peak - lobe.value, angle: ((high.at + lobe.off + n) % n) * step };
      low = x;
      high = { value: x, at: top + i };
    }
    if (x < low) {
      low = x;
      high = { value: x, at: top + i };
    }
  }
  const [w3, w10] = [width(3.0103), width(10)];
  return {
    peak,
    angle: (((top + off + n) % n) * step) % (2 * Math.PI),
    width3: w3 && w3[0] + w3[1],
    width10: w10 && w10[0] + w10[1],
    middle: w3 && (top * step + (w3[1] - w3[0]) / 2 + 2 * Math.PI) % (2 * Math.PI),
    sideLobe: side,
    frontToBack: (whole === db ? peak : whole[top]) - (whole[(top + Math.floor(n / 2)) % n] + whole[(top + Math.ceil(n / 2)) % n]) / 2,
  };
}
