import { eta0 } from '../../numerics/constants.ts';
import type { FrontKernel } from '../../numerics/factors.ts';
import { areasOf, conductorsOf, type Mode, type Section, solveSection, stepsOf } from '../modes/index.ts';
import type { Dispersion, ModeShape, PortMode } from './modeTypes.ts';

/** A mode at one frequency: k as the scheme has it, beta^2, and the integral of e x h, which is Y times beta. */
interface Sample {
  k: number;
  beta2: number;
  flux: number;
  mode: Mode;
}

/** Frequencies at which a port's modes are solved, a narrow band's and a wide one's. */
const samples = { narrow: 5, wide: 7 };

/** Shares of the samples in the polynomial of k^2 through them. */
const sharesAt = (list: readonly Sample[], k: number): number[] =>
  list.map((a, i) => list.reduce((w, b, j) => (i === j ? w : (w * (k * k - b.k * b.k)) / (a.k * a.k - b.k * b.k)), 1));

/** Sum of the product of two transverse fields over area. */
function product(s: Section, a: Mode, b: Mode): number {
  const area = areasOf(s);
  return area.u.reduce((sum, w, n) => sum + w * a.e.u[n] * b.e.u[n] + area.v[n] * a.e.v[n] * b.e.v[n], 0);
}

/** Integral of e x h of two modes over area. */
function crossed(s: Section, a: Mode, b: Mode): number {
  const area = areasOf(s);
  return area.u.reduce((sum, w, n) => sum + w * a.e.u[n] * b.h.v[n] - area.v[n] * a.e.v[n] * b.h.u[n], 0);
}

/** The same mode with all its fields turned round. */
export function reversed(mode: Mode): Mode {
  const turn = (f: Float64Array): Float64Array => f.map((x) => -x);
  return { ...mode, e: { u: turn(mode.e.u), v: turn(mode.e.v) }, h: { u: turn(mode.h.u), v: turn(mode.h.v) }, ew: turn(mode.ew), hw: turn(mode.hw) };
}

/** 2P / I^2 of a mode on two conductors, ohms; null of others. The current is that of the conductor that is not the first. */
function lineImpedance(s: Section, mode: Mode): number | null {
  const { of, count } = conductorsOf(s);
  if (count !== 2 || !(mode.beta2 > 0)) return null;
  const st = stepsOf(s);
  const w = st.nu + 1;
  let current = 0;
  for (let n = 0; n < of.length; n++) {
    const [i, j] = [n % w, Math.floor(n / w)];
    if (i < st.nu && s.eu[n] > 0 && (of[n] === 1) !== (of[n + 1] === 1)) current += (of[n] === 1 ? 1 : -1) * mode.h.v[n] * st.dualV[j];
    if (j < st.nv && s.ev[n] > 0 && (of[n] === 1) !== (of[n + w] === 1)) current += (of[n] === 1 ? -1 : 1) * mode.h.u[n] * st.dualU[i];
  }
  const b = Math.sqrt(mode.beta2);
  return (eta0 * (mode.flux / b)) / (current / b) ** 2;
}

/**
 * Modes of a port that sees several media. Their fields are those at the middle of the band; phase constant and admittance are
 * solved at some frequencies and run smoothly between them.
 */
export function inhomogeneousModes(
  sectionAt: (f: number) => Section,
  band: { from: number; to: number },
  count: number,
  discreteK: (f: number) => number,
  cell: (beta2: number, y: (b: number) => number) => Dispersion,
  kernel?: FrontKernel,
): PortMode[] {
  const n = band.to > 1.5 * band.from ? samples.wide : samples.narrow;
  // Denser towards the ends, as polynomials through them want it.
  const fs = Array.from({ length: n }, (_, i) => band.from + ((band.to - band.from) * (1 - Math.cos((Math.PI * i) / (n - 1)))) / 2);
  const ks = fs.map(discreteK);
  const middle = n >> 1;
  const section = sectionAt(fs[middle]);
  const reference = solveSection(section, ks[middle], { count, kernel });
  const lists = reference.map((mode): Sample[] => [{ k: ks[middle], beta2: mode.beta2, flux: mode.flux, mode }]);
  for (const [i, k] of ks.entries()) {
    if (i === middle) continue;
    // A few more, as modes change places.
    const found = solveSection(sectionAt(fs[i]), k, { count: count + 2, kernel });
    for (const list of lists) {
      const alike = (m: Mode): number => product(section, m, list[0].mode);
      const best = found.reduce((a, b) => (Math.abs(alike(b)) > Math.abs(alike(a)) ? b : a));
      list.push({ k, beta2: best.beta2, flux: best.flux, mode: alike(best) < 0 ? reversed(best) : best });
    }
  }
  return lists.map((list): PortMode => {
    list.sort((a, b) => a.k - b.k);
    const { mode } = list[middle];
    const profiles = list.map((s) => s.mode);
    const table = profiles.map((a) => profiles.map((b) => crossed(section, a, b)));
    const shape: ModeShape = {
      profiles,
      // h grows with k, e does not: what runs smoothly in k^2 is h / k.
      shares: (f) => {
        const k = discreteK(f);
        const e = sharesAt(list, k);
        return { e, h: e.map((share, i) => (share * k) / list[i].k) };
      },
      flux: (f) => {
        const { e, h } = shape.shares(f);
        return e.reduce((sum, a, i) => h.reduce((t, b, j) => t + a * b * table[i][j], sum), 0);
      },
    };
    return {
      mode,
      impedance: lineImpedance(section, mode),
      line: null,
      shape,
      at: (f) => {
        const shares = sharesAt(list, discreteK(f));
        const beta2 = list.reduce((sum, s, i) => sum + shares[i] * s.beta2, 0);
        const flux = shape.flux(f);
        const out = cell(beta2, (b) => Math.abs(flux) / b);
        // Below cutoff beta is -j |beta|, so that Y = flux / beta is imaginary with the sign of the flux.
        return out.propagates ? out : { ...out, admittance: [0, Math.sign(flux) * out.admittance[1]] };
      },
    };
  });
}
