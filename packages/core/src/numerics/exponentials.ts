import { complexEigen } from './complexEigen.ts';
import { rightDivide } from './complexSolve.ts';
import { symmetricEigen } from './symmetricEigen.ts';

/** A sum of exponentials common to several real signals: signal s at sample m is the sum over k of amplitude[s][k] z[k]^m. */
export interface Exponentials {
  zRe: Float64Array;
  zIm: Float64Array;
  /** Pairs of real and imaginary part, one list a signal. */
  amplitudes: Float64Array[];
}

/** Eigenvalues below this part of the largest count as noise. */
const noise = 1e-10;
/** Longest window of the covariance, samples. */
const longest = 80;

/**
 * Fits signals of one length and equal sampling by common decaying exponentials: signal subspace of the covariance of their windows,
 * poles from its shift invariance (R. Roy and T. Kailath, ESPRIT, IEEE Trans. ASSP 37, 984, 1989), amplitudes by least squares.
 * Signals count by their size. Growing ones are left out. At most `most` exponentials. Null where there are too few samples or nothing is found.
 */
export function fitExponentials(signals: readonly Float64Array[], most: number): Exponentials | null {
  const samples = signals[0]?.length ?? 0;
  const window = Math.min(longest, samples >> 1);
  if (window < 4) return null;
  const covariance = new Float64Array(window * window);
  for (const raw of signals) {
    const shifts = samples - window + 1;
    for (let lag = 0; lag < window; lag++) {
      let sum = 0;
      for (let m = 0; m < shifts; m++) sum += raw[m + lag] * raw[m];
      // Along a diagonal the windows move by one.
      for (let j = 0, i = lag; i < window; j++, i++) {
        covariance[i * window + j] += sum;
        sum += raw[shifts + i] * raw[shifts + j] - raw[i] * raw[j];
      }
    }
  }
  for (let i = 0; i < window; i++) for (let j = 0; j < i; j++) covariance[j * window + i] = covariance[i * window + j];
  const { values, vectors } = symmetricEigen(covariance, window);
  const order = Array.from(values.keys()).sort((a, b) => values[b] - values[a]);
  const kept = order.filter((k, n) => n < Math.min(most, window >> 1) && values[k] > noise * values[order[0]]);
  const p = kept.length;
  if (!p || !(values[order[0]] > 0)) return null;
  // U1 F = U2 in the least squares, U1 and U2 the subspace without its last and its first row.
  const a = new Float64Array(2 * p * p);
  const b = new Float64Array(2 * p * p);
  for (let r = 0; r < p; r++)
    for (let c = 0; c < p; c++) {
      let [own, next] = [0, 0];
      for (let i = 0; i + 1 < window; i++) {
        own += vectors[i * window + kept[r]] * vectors[i * window + kept[c]];
        next += vectors[(i + 1) * window + kept[r]] * vectors[i * window + kept[c]];
      }
      a[2 * (r * p + c)] = own;
      b[2 * (r * p + c)] = next;
    }
  const shift = rightDivide(b, a, p, p);
  if (!shift) return null;
  const { re, im } = complexEigen(
    Float64Array.from({ length: p * p }, (_, i) => shift[2 * i]),
    new Float64Array(p * p),
    p,
  );
  const decaying = Array.from(re.keys()).filter((k) => Math.hypot(re[k], im[k]) < 1);
  if (!decaying.length) return null;
  const zRe = Float64Array.from(decaying, (k) => re[k]);
  const zIm = Float64Array.from(decaying, (k) => im[k]);
  const amplitudes = amplitudesOf(signals, zRe, zIm);
  return amplitudes && { zRe, zIm, amplitudes };
}

/** Values of signal s from sample `from` on, `step` samples apart (parts of one allowed). */
export function exponentialsAt({ zRe, zIm, amplitudes }: Exponentials, s: number, from: number, step: number, count: number): Float64Array {
  const out = new Float64Array(count);
  for (let k = 0; k < zRe.length; k++) {
    const [size, angle] = [Math.log(Math.hypot(zRe[k], zIm[k])), Math.atan2(zIm[k], zRe[k])];
    const start = Math.exp(size * from);
    const [a, b] = [amplitudes[s][2 * k], amplitudes[s][2 * k + 1]];
    let re = start * (a * Math.cos(angle * from) - b * Math.sin(angle * from));
    let im = start * (a * Math.sin(angle * from) + b * Math.cos(angle * from));
    const grow = Math.exp(size * step);
    const [c, d] = [grow * Math.cos(angle * step), grow * Math.sin(angle * step)];
    for (let m = 0; m < count; m++) {
      out[m] += re;
      const next = re * c - im * d;
      im = re * d + im * c;
      re = next;
    }
  }
  return out;
}

/** Least-squares amplitudes of given exponentials, by the normal equations. */
function amplitudesOf(signals: readonly Float64Array[], zRe: Float64Array, zIm: Float64Array): Float64Array[] | null {
  const p = zRe.length;
  const samples = signals[0].length;
  const gram = new Float64Array(2 * p * p);
  const right = new Float64Array(2 * p * signals.length);
  const [pr, pi] = [new Float64Array(p).fill(1), new Float64Array(p)];
  for (let m = 0; m < samples; m++) {
    for (let r = 0; r < p; r++) {
      for (let c = 0; c < p; c++) {
        // Row r of X A = B belongs to the conjugate of z_r.
        const at = 2 * (c * p + r);
        gram[at] += pr[r] * pr[c] + pi[r] * pi[c];
        gram[at + 1] += pr[r] * pi[c] - pi[r] * pr[c];
      }
      signals.forEach((y, s) => {
        right[2 * (s * p + r)] += pr[r] * y[m];
        right[2 * (s * p + r) + 1] -= pi[r] * y[m];
      });
    }
    for (let k = 0; k < p; k++) [pr[k], pi[k]] = [pr[k] * zRe[k] - pi[k] * zIm[k], pr[k] * zIm[k] + pi[k] * zRe[k]];
  }
  const x = rightDivide(right, gram, signals.length, p);
  return x && signals.map((_, s) => x.slice(2 * s * p, 2 * (s + 1) * p));
}
