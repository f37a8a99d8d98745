import { nonNegative } from '../numerics/nnls.ts';
import { modelAt, type Pole, type PoleModel, relaxation } from './poleModel.ts';

/** How far the model may be off the causal permittivity of a level loss, as a part of the loss, before one more relaxation is spent on it. */
const tolerance = 5e-3;
/** The most relaxations. */
const most = 8;
/** Frequencies of the fit. */
const samples = 33;

/** Loss 1 over 1..ratio: strength of the conductivity, and relaxations, at frequencies (all in units of the lowest). */
interface Shape {
  conductivity: number;
  at: number[];
  strength: number[];
  /** Largest error of the permittivity, complex, as a part of the loss. */
  error: number;
}

/** The best weights of relaxations at given frequencies. */
function weighed(at: readonly number[], ratio: number): Shape {
  const n = at.length + 2;
  const a = new Float64Array(2 * samples * n);
  const b = new Float64Array(2 * samples);
  for (let i = 0; i < samples; i++) {
    const f = ratio ** (i / (samples - 1));
    const [re, loss] = [2 * i, 2 * i + 1];
    // A part of the permittivity that does not change with frequency, large enough to be positive.
    a[re * n] = 1;
    a[loss * n + 1] = 1 / f;
    at.forEach((own, j) => {
      const x = f / own;
      a[re * n + 2 + j] = 1 / (1 + x * x);
      a[loss * n + 2 + j] = x / (1 + x * x);
    });
    b[re] = 10 - (2 / Math.PI) * Math.log(f);
    b[loss] = 1;
  }
  const x = nonNegative(a, b, 2 * samples, n);
  let error = 0;
  for (let i = 0; i < samples; i++) {
    const off = [2 * i, 2 * i + 1].map((row) => x.reduce((s, v, j) => s + v * a[row * n + j], -b[row]));
    error = Math.max(error, Math.hypot(off[0], off[1]));
  }
  return { conductivity: x[1], at: [...at], strength: Array.from(x.subarray(2)), error };
}

const better = (p: Shape | null, q: Shape): Shape => (p && p.error <= q.error ? p : q);
/** Frequencies of an even spread from below the band to above it, ends in turns of e. */
const spreads = [-0.9, -0.5, -0.1, 0.3].flatMap((low) => [0.5, 1, 1.5].map((high) => [low, high] as const));

/** The best weights of so many relaxations: of even spreads the best, then each frequency moved by steps that halve. */
function placed(terms: number, ratio: number): Shape {
  if (terms === 0) return weighed([], ratio);
  const top = Math.log(ratio);
  let now: Shape | null = null;
  for (const [low, high] of spreads) {
    const at = Array.from({ length: terms }, (_, i) => Math.exp(low + ((i + 0.5 / terms) / Math.max(1, terms - 1 + 1 / terms)) * (top + high - low)));
    now = better(now, weighed(at, ratio));
  }
  for (let step = 0.4; step > 0.01; step /= 2)
    for (let before = Infinity; now!.error < before * (1 - 1e-6);) {
      before = now!.error;
      for (let j = 0; j < terms; j++)
        for (const by of [Math.exp(step), Math.exp(-step)]) {
          const at = now!.at.map((x, i): number => (i === j ? x * by : x));
          now = better(now, weighed(at, ratio));
        }
    }
  return now!;
}

/** The fewest relaxations that keep to the tolerance. */
function fitted(ratio: number): Shape {
  let best: Shape | null = null;
  for (let terms = 0; terms <= most && !(best && best.error < tolerance); terms++) best = better(best, placed(terms, ratio));
  return best!;
}

const known = new Map<number, Shape>();

/**
 * The causal wide-band model of a constant loss tangent. In a band where loss is level, permittivity falls by 2 / pi of it an e-fold of frequency
 * (A. Djordjevic et al., IEEE Trans. EMC 43, 662, 2001, from infinitely many relaxations); a conductivity and the fewest relaxations of positive
 * strength are taken that follow both within 0.5 % of the loss over the band. Permittivity as given at `at`. Frequencies in hertz.
 */
export function lossTangentPoles(permittivity: number, lossTangent: number, at: number, [from, to]: readonly [number, number]): PoleModel {
  const ratio = Math.max(1.05, to / from);
  let shape = known.get(ratio);
  if (!shape) known.set(ratio, (shape = fitted(ratio)));
  const loss = permittivity * lossTangent;
  const w = 2 * Math.PI * from;
  const poles: Pole[] = shape.conductivity > 0 ? [{ p: [0, 0], r: [shape.conductivity * loss * w, 0] }] : [];
  shape.at.forEach((own, j) => {
    if (shape.strength[j] > 0) poles.push(relaxation(shape.strength[j] * loss, 1 / (w * own)));
  });
  return { infinity: permittivity + 1 - modelAt({ infinity: 1, poles }, 2 * Math.PI * at).re, poles };
}
