import { acrossOf, type Vec3 } from '../numerics/vector.ts';
import type { WiresCard } from '../document/index.ts';

/** Corners of a drawn wire around it. */
const sides = 10;

/**
 * Wires as triangles, [n][3][3] metres, and for each corner the end of the segment whose current it shows, 2 segment + end. Radii below `least` are
 * drawn at it, so that thin wires can be seen.
 */
export function wireTubes(segments: ArrayLike<number>, least: number): { corners: Float32Array; ends: Int32Array } {
  const n = Math.floor(segments.length / 8);
  const corners = new Float32Array(n * sides * 18);
  const ends = new Int32Array(n * sides * 6);
  let at = 0;
  let e = 0;
  for (let i = 0; i < n; i++) {
    const g = Array.from({ length: 8 }, (_, c) => segments[8 * i + c]);
    const d: Vec3 = [g[3], g[4], g[5]];
    const [u, w] = acrossOf(d);
    const radius = Math.max(g[7], least);
    const corner = (side: number, end: number): void => {
      const t = (2 * Math.PI * side) / sides;
      for (let a = 0; a < 3; a++) corners[at++] = g[a] + end * g[6] * d[a] + radius * (Math.cos(t) * u[a] + Math.sin(t) * w[a]);
      ends[e++] = 2 * i + end;
    };
    for (let s = 0; s < sides; s++)
      for (const [side, end] of [[s, 0], [s + 1, 0], [s + 1, 1], [s, 0], [s + 1, 1], [s, 1]] as const) corner(side, end); // prettier-ignore
  }
  return { corners, ends };
}

/** Currents [segment][start, end][re, im] told in a form at a phase, radians: A, or degrees. */
export function readWireCurrents(currents: ArrayLike<number>, form: WiresCard['form'], phase: number): Float64Array {
  const out = new Float64Array(currents.length / 2);
  const [c, s] = [Math.cos(phase), Math.sin(phase)];
  for (let i = 0; i < out.length; i++) {
    const [re, im] = [currents[2 * i], currents[2 * i + 1]];
    out[i] = form === 'peak' ? Math.hypot(re, im) : form === 'phase' ? (180 * Math.atan2(im, re)) / Math.PI : re * c - im * s;
  }
  return out;
}

/** Largest size of a current. */
export function largestCurrent(currents: ArrayLike<number>): number {
  let most = 0;
  for (let i = 0; i < currents.length; i += 2) most = Math.max(most, Math.hypot(currents[i], currents[i + 1]));
  return most;
}

/** One wire's currents over the way along it, metres: both ends of each segment. */
export function alongWire(
  values: ArrayLike<number>,
  along: ArrayLike<number>,
  segments: ArrayLike<number>,
  { first, count }: { first: number; count: number },
): { x: Float64Array; y: Float64Array } {
  const x = new Float64Array(2 * count);
  const y = new Float64Array(2 * count);
  for (let i = 0; i < count; i++)
    for (const end of [0, 1]) {
      x[2 * i + end] = along[first + i] + end * segments[8 * (first + i) + 6];
      y[2 * i + end] = values[2 * (first + i) + end];
    }
  return { x, y };
}
