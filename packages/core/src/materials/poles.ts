import type { Dispersion, MaterialEntry } from '../entries/index.ts';
import { c0 } from '../numerics/constants.ts';
import { nonNegative } from '../numerics/nnls.ts';
import { lossTangentPoles } from './levelLoss.ts';
import { modelAt, type Pole, type PoleModel, relaxation, resonance } from './poleModel.ts';
import type { Axis } from '../numerics/axis.ts';
import { sameNumber } from '../numerics/tolerance.ts';

/** The exact pole model of a published formula; of a table a fit over its own frequencies. */
export function polesOf(d: Dispersion): PoleModel {
  switch (d.form) {
    case 'sellmeier': {
      const flat = d.terms.filter(([, c]) => c === 0).reduce((s, [b]) => s + b, d.constant);
      return { infinity: flat, poles: d.terms.filter(([, c]) => c > 0).flatMap(([b, c]) => resonance(b, (2e6 * Math.PI * c0) / c, 0)) };
    }
    case 'debye':
      return { infinity: d.infinity, poles: [relaxation(d.static - d.infinity, d.relaxation)] };
    case 'drude': {
      const w = 200 * Math.PI * c0;
      const level = (d.plasma * w) ** 2 / (d.collision * w);
      return { infinity: d.infinity, poles: [{ p: [0, 0], r: [level, 0] }, { p: [-d.collision * w, 0], r: [-level, 0] }] }; // prettier-ignore
    }
    case 'lorentz':
      return { infinity: d.infinity, poles: d.terms.flatMap(([step, f, damping]) => resonance(step, 2 * Math.PI * f, 2 * Math.PI * damping)) };
    case 'poles':
      return { infinity: d.infinity, poles: d.poles.map(([pr, pi, rr, ri]) => ({ p: [pr, pi], r: [rr, pi === 0 ? 0 : ri] })) };
    case 'table': {
      const [first, last] = [d.points[0][0], d.points[d.points.length - 1][0]];
      return fitPoles(
        d.points.map((p) => p[0]),
        d.points.map(([, re, loss]) => ({ re, loss })),
        [],
        [first, last],
      ).model;
    }
  }
}

/** Terms of positive weight from which a passive permittivity is put together. */
function dictionary(media: readonly Pole[][], [from, to]: readonly [number, number]): Pole[][] {
  const w = (f: number): number => 2 * Math.PI * f;
  // Side by side, media add up as they are.
  const out: Pole[][] = [[{ p: [0, 0], r: [w(from), 0] }], ...media.map((poles) => poles.slice())];
  const known = media.flat();
  const spread = (low: number, high: number, n: number): number[] => Array.from({ length: n }, (_, i) => low * (high / low) ** (i / (n - 1)));
  for (const f of spread(from / 30, to * 30, 17)) out.push([relaxation(1, 1 / w(f))]);
  for (const f of [...spread(from / 20, from / 1.3, 6), ...spread(to * 1.3, to * 30, 9)]) out.push(resonance(1, w(f), 0));
  for (const { p, r } of known) {
    const size = Math.hypot(p[0], p[1]);
    if (size === 0) continue;
    if (p[1] === 0) out.push([relaxation(1, 1 / size)]);
    else {
      // A mixture's resonances lie between those of its parts and the frequencies where their permittivity vanishes.
      const highest = Math.sqrt(1 + Math.abs((2 * r[1] * p[1]) / (size * size)));
      const count = Math.min(24, 3 + Math.ceil(((highest - 1) * size) / Math.max(-0.5 * p[0], 0.02 * size)));
      for (let i = 0; i < count; i++) out.push(resonance(1, size * (1 + ((highest - 1) * i) / (count - 1)), -2 * p[0]));
    }
  }
  // Free carriers beside a dielectric ring below their plasma frequency.
  const carriers = known.filter(({ p, r }) => p[1] === 0 && p[0] < 0 && r[0] < 0);
  for (const { p, r } of carriers) for (const shift of spread(0.05, 1, 12)) out.push(resonance(1, shift * Math.sqrt(r[0] * p[0]), -p[0]));
  return out;
}

/** How far a fit's resonances are moved at first, as a part of their damping. */
const nearby = 0.5;

/** A damped resonance moved by a part of its damping; nothing of other poles. */
function around({ p }: Pole, step: number): Pole[][] {
  if (p[1] === 0 || p[0] === 0) return [];
  const [w, g] = [Math.hypot(p[0], p[1]), -2 * p[0]];
  return [-1, -0.75, -0.5, -0.25, 0.25, 0.5, 0.75, 1].map((t) => resonance(1, w + t * step * g, g));
}

/** Weights, none negative, of terms whose sum comes closest to a permittivity given at frequencies in hertz; its limit is 1 or more. */
function weigh(terms: readonly Pole[][], frequencies: readonly number[], values: readonly { re: number; loss: number }[]): Float64Array {
  const n = terms.length + 1;
  const m = 2 * frequencies.length;
  const a = new Float64Array(m * n);
  const b = new Float64Array(m);
  frequencies.forEach((f, i) => {
    const size = Math.hypot(values[i].re, values[i].loss);
    a[2 * i * n] = 1 / size;
    terms.forEach((poles, j) => {
      const c = modelAt({ infinity: 0, poles }, 2 * Math.PI * f);
      a[2 * i * n + j + 1] = c.re / size;
      a[(2 * i + 1) * n + j + 1] = c.loss / size;
    });
    b[2 * i] = (values[i].re - 1) / size;
    b[2 * i + 1] = values[i].loss / size;
  });
  return nonNegative(a, b, m, n);
}

/** Fits a permittivity by given terms, `rounds` times looking more closely around the resonances that were found; see `fewer` for the slack. */
function fitTerms(
  first: readonly Pole[][],
  frequencies: readonly number[],
  values: readonly { re: number; loss: number }[],
  rounds = 0,
  slack = 0,
): { model: PoleModel; error: number } {
  let terms = first;
  let x = weigh(terms, frequencies, values);
  for (let round = 0; round < rounds; round++) {
    terms = terms.flatMap((poles, j) => (x[j + 1] > 0 ? [poles, ...(poles.length === 1 ? around(poles[0], nearby / 4 ** round) : [])] : []));
    x = weigh(terms, frequencies, values);
  }
  if (slack > 0) [terms, x] = fewer(terms, x, frequencies, values, slack);
  // What adds next to nothing costs as much in every step as the rest.
  const kept = terms.map((_, j) => j).filter((j) => x[j + 1] > 0 && effect(terms[j], x[j + 1], frequencies, values) > 2e-6);
  const model = summed(
    kept.map((j) => terms[j]),
    [x[0], ...kept.map((j) => x[j + 1])],
  );
  return { model, error: errorOf(model, frequencies, values) };
}

type Parameter = readonly { re: number; loss: number }[];

/** The model of terms with their weights, the first that of what is there at all frequencies. */
const summed = (terms: readonly Pole[][], x: ArrayLike<number>): PoleModel => ({
  infinity: 1 + x[0],
  poles: terms.flatMap((list, j) => list.map(({ p, r }): Pole => ({ p, r: [r[0] * x[j + 1], r[1] * x[j + 1]] }))),
});

/** Largest part of the permittivity that a weighted term has. */
const effect = (poles: Pole[], weight: number, frequencies: readonly number[], values: Parameter): number =>
  frequencies.reduce((most, f, i) => {
    const v = modelAt({ infinity: 0, poles }, 2 * Math.PI * f);
    return Math.max(most, (weight * Math.hypot(v.re, v.loss)) / Math.hypot(values[i].re, values[i].loss));
  }, 0);

/** Largest difference of a model, as a part of the permittivity. */
const errorOf = (model: PoleModel, frequencies: readonly number[], values: Parameter): number =>
  frequencies.reduce((worst, f, i) => {
    const v = modelAt(model, 2 * Math.PI * f);
    return Math.max(worst, Math.hypot(v.re - values[i].re, v.loss - values[i].loss) / Math.hypot(values[i].re, values[i].loss));
  }, 0);

/** Leaves out terms one after another, each time the one that is missed least, while the others can make up for it within `slack`. */
function fewer(
  all: readonly Pole[][],
  weights: Float64Array,
  frequencies: readonly number[],
  values: Parameter,
  slack: number,
): [Pole[][], Float64Array] {
  const used = (terms: readonly Pole[][], x: Float64Array): [Pole[][], Float64Array] => {
    const keep = terms.map((_, j) => j).filter((j) => x[j + 1] > 0);
    return [keep.map((j) => terms[j]), Float64Array.from([x[0], ...keep.map((j) => x[j + 1])])];
  };
  let now = used(all, weights);
  // Where even all terms together miss it, a little more is let go.
  const allowed = Math.max(slack, 1.2 * errorOf(summed(...now), frequencies, values));
  for (;;) {
    let least: { terms: [Pole[][], Float64Array]; error: number } | null = null;
    for (let j = 0; j < now[0].length; j++) {
      const rest = now[0].filter((_, i) => i !== j);
      const x = weigh(rest, frequencies, values);
      const error = errorOf(summed(rest, x), frequencies, values);
      if (error <= allowed && (!least || error < least.error)) least = { terms: used(rest, x), error };
    }
    if (!least) return now;
    now = least.terms;
  }
}

/**
 * Fits a permittivity given at frequencies (hertz) by terms that are each passive, so that the sum is passive everywhere; `media`
 * are the poles of those that may be mixed in it. With a `slack`, a part of the permittivity, as few terms as keep within it. Gives the largest
 * error over the values.
 */
export const fitPoles = (
  frequencies: readonly number[],
  values: readonly { re: number; loss: number }[],
  media: readonly Pole[][],
  band: readonly [number, number],
  slack = 0,
): { model: PoleModel; error: number } => {
  const all = dictionary(media, band);
  // Side by side, the media themselves are all it takes.
  const own = fitTerms(all.slice(0, 1 + media.length), frequencies, values);
  return own.error < 2e-6 ? own : fitTerms(all, frequencies, values, 3, slack);
};

/** Where a model makes power: the frequency in hertz of its largest gain, or of a pole that grows; null where it is passive. */
export function gainOf(model: PoleModel, [from, to]: readonly [number, number]): number | null {
  const growing = model.poles.find(({ p }) => p[0] > 0);
  if (growing) return Math.hypot(growing.p[0], growing.p[1]) / (2 * Math.PI);
  let [worst, at] = [0, null as number | null];
  const look = (f: number): void => {
    const { re, loss } = modelAt(model, 2 * Math.PI * f);
    // Round-off near a resonance without loss is no gain.
    if (Number.isFinite(loss) && loss < worst - sameNumber * (1 + Math.abs(re))) [worst, at] = [loss, f];
  };
  const own = model.poles.map(({ p }) => Math.hypot(p[0], p[1]) / (2 * Math.PI)).filter((f) => f > 0);
  const [low, high] = [Math.min(from, ...own) / 100, Math.max(to, ...own) * 100];
  for (let i = 0; i <= 600; i++) look(low * (high / low) ** (i / 600));
  for (const f of own) for (const x of [0.97, 0.99, 0.997, 1.003, 1.01, 1.03]) look(f * x);
  return at;
}

/** The pole model of a dielectric in a band, hertz; null where it is a lossless constant. */
export function materialPoles(m: MaterialEntry, band: readonly [number, number], axis?: Axis): PoleModel | null {
  if (m.kind !== 'dielectric') return null;
  if (m.dispersion) return polesOf(m.dispersion);
  const mean = m.permittivityAlong ? m.permittivityAlong.reduce((s, v) => s + v, 0) / 3 : (m.permittivity ?? 1);
  const e = axis !== undefined && m.permittivityAlong ? m.permittivityAlong[axis] : mean;
  if (!m.lossTangent) return null;
  const centre = (band[0] + band[1]) / 2;
  const at = m.atFrequency !== undefined && m.atFrequency >= band[0] && m.atFrequency <= band[1] ? m.atFrequency : centre;
  const model = lossTangentPoles(e, m.lossTangent, at, band);
  if (model.infinity >= 1) return model;
  // So lossy a medium of so low a permittivity has no level loss that is causal: a conductivity stands for it.
  return { infinity: Math.max(1, e), poles: [{ p: [0, 0], r: [2 * Math.PI * centre * e * m.lossTangent, 0] }] };
}

/** How far a compact model may be off, as a part of the permittivity. */
const compactError = 2e-5;

/**
 * A transparent medium's model with fewer poles, far above `clear` (hertz) or far below the band, that gives the same permittivity
 * in the band. What is lossy, or cannot be had so, stays as it is.
 */
export function compactPoles(model: PoleModel, band: readonly [number, number], clear: number): PoleModel {
  const f = Array.from({ length: 9 }, (_, i) => band[0] + ((band[1] - band[0]) * i) / 8);
  const values = f.map((x) => modelAt(model, 2 * Math.PI * x));
  if (!model.poles.length || values.some((v) => v.loss > sameNumber * v.re || v.re < 1)) return model;
  // The nearer the poles, the more of the permittivity is there at once: first those.
  for (const above of [
    [1.2, 1.6],
    [1.2, 1.6, 2.5],
    [1.2, 1.6, 2.5, 4, 8],
  ]) {
    const terms = [0.02 * band[0], ...above.map((x) => x * clear)].map((x) => resonance(1, 2 * Math.PI * x, 0));
    const fit = fitTerms(terms, f, values);
    if (fit.error < compactError) return fit.model;
  }
  return model;
}
