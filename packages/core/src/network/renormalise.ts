import type { Complex } from '../numerics/complex.ts';
import { rightDivide } from '../numerics/complexSolve.ts';
import type { Network, NetworkChannel, ResultArray } from './types.ts';

/** Reference impedance that S of a channel stands on, ohms; null for a mode that has no impedance of its own. */
export const referenceOf = ({ resistance, reactance, mode, impedance }: NetworkChannel): Complex | null =>
  mode === undefined ? [resistance, reactance ?? 0] : impedance === undefined ? null : [impedance, 0];

/**
 * S [n, channels, channels, 2] in power waves on other reference impedances, complex ones allowed, one for each channel (K. Kurokawa, IEEE
 * Trans. MTT-13, 194, 1965). Channels whose impedance is null stay as they are. Columns and rows must be in the same order; null where S is
 * not square or an impedance has no positive real part.
 */
export function renormalised(s: ResultArray, from: readonly (Complex | null)[], to: readonly (Complex | null)[]): ResultArray | null {
  const [points, n, m] = s.shape;
  const bad = (z: Complex | null): boolean => z !== null && !(z[0] > 0);
  if (n !== m || from.length !== n || from.some((z, i) => bad(z) || bad(to[i]))) return null;
  const data = new Float64Array(s.data.length);
  const size = 2 * n * n;
  const a = new Float64Array(size);
  const b = new Float64Array(size);
  for (let f = 0; f < points; f++) {
    // With V = (z* a + z b) / sqrt(Re z) and I = (a - b) / sqrt(Re z), the new waves are (V + z' I) and (V - z'* I) over 2 sqrt(Re z').
    for (let i = 0; i < n; i++) {
      const [z, w] = [from[i], to[i]];
      for (let j = 0; j < n; j++) {
        const at = 2 * (i * n + j);
        const [x, y] = [s.data[f * size + at], s.data[f * size + at + 1]];
        const own = i === j ? 1 : 0;
        if (z === null || w === null) {
          a.set([own, 0], at);
          b.set([x, y], at);
          continue;
        }
        const scale = 1 / (2 * Math.sqrt(z[0] * w[0]));
        a[at] = scale * ((z[0] + w[0]) * own + (z[0] - w[0]) * x - (z[1] - w[1]) * y);
        a[at + 1] = scale * ((w[1] - z[1]) * own + (z[0] - w[0]) * y + (z[1] - w[1]) * x);
        b[at] = scale * ((z[0] - w[0]) * own + (z[0] + w[0]) * x - (z[1] - w[1]) * y);
        b[at + 1] = scale * ((w[1] - z[1]) * own + (z[0] + w[0]) * y + (z[1] - w[1]) * x);
      }
    }
    const out = rightDivide(b, a, n, n);
    if (!out) return null;
    data.set(out, f * size);
  }
  return { shape: s.shape.slice(), data };
}

/** The same for a result, its channels in the order of the ports; null where not every channel was excited. */
export function referredTo(s: ResultArray, { ports, excitations }: Network, to: Complex): ResultArray | null {
  if (excitations.length !== ports.length || excitations.some((c, e) => c !== e)) return null;
  return renormalised(
    s,
    ports.map(referenceOf),
    ports.map(() => to),
  );
}

/** Reads a reference impedance: '50', '50 ohm', '50 - 20j'; null where it is none. */
export function readReference(text: string): Complex | null {
  const found = /^\s*(\d+(?:\.\d+)?)\s*(?:([+-])\s*(?:j\s*)?(\d+(?:\.\d+)?)\s*(?:\*?\s*j)?)?\s*(?:ohm)?\s*$/i.exec(text);
  if (!found || (found[2] && !/j/i.test(text))) return null;
  const re = Number(found[1]);
  const im = found[2] ? Number(found[3]) * (found[2] === '-' ? -1 : 1) : 0;
  return re > 0 ? [re, im] : null;
}
