import { c0 } from '@jadebell/core/numerics';
import { denseKernel, emptySection, type Section, solveSection, type Walls } from '@jadebell/core/solvers/modes';
import { type Case, percent, type Row } from './case.ts';
import { bisect } from './cavity.ts';

const even = (from: number, to: number, cells: number): Float64Array =>
  Float64Array.from({ length: cells + 1 }, (_, i) => from + ((to - from) * i) / cells);
const joined = (...parts: Float64Array[]): Float64Array => Float64Array.from(parts.flatMap((p, i) => [...(i ? p.subarray(1) : p)]));
const cellsOf = (s: Section): number => (s.u.length - 1) * (s.v.length - 1);

/** Sets the permittivity of a section by a function of place, averaged over the two sides of each edge that lies across v. */
function fillLayers(s: Section, permittivity: (v: number) => number): void {
  const w = s.u.length;
  for (let j = 0; j < s.v.length; j++) {
    const below = j > 0 ? permittivity((s.v[j] + s.v[j - 1]) / 2) : 0;
    const above = j + 1 < s.v.length ? permittivity((s.v[j] + s.v[j + 1]) / 2) : 0;
    const [db, da] = [j > 0 ? s.v[j] - s.v[j - 1] : 0, j + 1 < s.v.length ? s.v[j + 1] - s.v[j] : 0];
    const along = (below * db + above * da) / (db + da);
    for (let i = 0; i < w; i++) {
      const n = j * w + i;
      if (s.eu[n] > 0) s.eu[n] = along;
      if (s.ew[n] > 0) s.ew[n] = along;
      if (s.ev[n] > 0) s.ev[n] = above;
    }
  }
}

/** Rectangular guide 15.8 x 7.9 mm: phase constants and attenuation below cutoff. */
export const guideModes: Case = {
  name: 'guide-modes',
  title: 'Section: rectangular guide 15.8 x 7.9 mm',
  slow: false,
  async run(host) {
    const kernel = await denseKernel(host.module);
    const [a, b] = [15.8e-3, 7.9e-3];
    const rows: Row[] = [];
    for (const f of [15e9, 25e9]) {
      const started = host.now();
      const k0 = (2 * Math.PI * f) / c0;
      const s = emptySection(even(0, a, 96), even(0, b, 48));
      const found = solveSection(s, k0, { count: 4, kernel });
      const seconds = host.now() - started;
      // TE20 and TE01 of a guide twice as wide as high share their cutoff: the shares of E along u and v tell them apart, where the grid does.
      for (const [name, p, q] of [
        ['TE10', 1, 0],
        ['TE20', 2, 0],
        ['TE01', 0, 1],
      ] as const) {
        const beta2 = k0 * k0 - ((p * Math.PI) / a) ** 2 - ((q * Math.PI) / b) ** 2;
        const candidates = name === 'TE10' ? [found[0]] : found.slice(1, 3);
        const mode = candidates.reduce((best, m) => (Math.abs(m.beta2 - beta2) < Math.abs(best.beta2 - beta2) ? m : best));
        const reference = Math.sqrt(Math.abs(beta2));
        const got = Math.sqrt(Math.abs(mode.beta2));
        const propagates = beta2 > 0;
        rows.push({
          quantity: `${name} at ${f / 1e9} GHz, ${propagates ? 'phase constant' : 'attenuation below cutoff'}`,
          reference: `${reference.toFixed(3)} 1/m`,
          source: 'closed form (Pozar, Microwave Engineering, eq. 3.82)',
          computed: `${got.toFixed(3)} 1/m`,
          error: mode.beta2 > 0 === propagates ? percent(got, reference) : Infinity,
          allowed: propagates ? 0.05 : 1,
          unit: '%',
          cells: cellsOf(s),
          seconds,
        });
      }
    }
    return rows;
  },
};

/** Effective index of a slab, exact: TE (E along the slab) or TM, order 0. */
function slabIndex(core: number, clad: number, thickness: number, k0: number, tm: boolean): number {
  const f = (n: number): number => {
    const kappa = k0 * Math.sqrt(core * core - n * n);
    const gamma = k0 * Math.sqrt(n * n - clad * clad);
    const ratio = tm ? (core * core) / (clad * clad) : 1;
    return Math.atan((ratio * gamma) / kappa) - (kappa * thickness) / 2;
  };
  return bisect(f, clad * (1 + 1e-9), core * (1 - 1e-9));
}

/** A silicon slab in silica at 1.55 um, full-vectorial, against the exact dispersion relation. */
export const slabModes: Case = {
  name: 'slab-modes',
  title: 'Section: slab waveguide, 220 nm of index 3.476 in 1.444',
  slow: false,
  async run(host) {
    const kernel = await denseKernel(host.module);
    const [core, clad, t] = [3.476, 1.444, 0.22e-6];
    const k0 = (2 * Math.PI) / 1.55e-6;
    const rows: Row[] = [];
    for (const tm of [false, true]) {
      const errors: number[] = [];
      const exact = slabIndex(core, clad, t, k0, tm);
      for (const cells of [33, 66, 132]) {
        const started = host.now();
        const h = t / cells;
        const far: number[] = [t / 2];
        for (let step = h; far[far.length - 1] < 1.6e-6; step = Math.min(step * (1 + 0.9 / cells), 0.05e-6)) far.push(far[far.length - 1] + step);
        const side = Float64Array.from(far);
        const v = joined(side.map((x) => -x).reverse(), even(-t / 2, t / 2, cells), side);
        // E along u stands across electric side walls, E across the slab along magnetic ones.
        const walls: Walls = tm ? ['magnetic', 'magnetic', 'electric', 'electric'] : ['electric', 'electric', 'electric', 'electric'];
        const s = emptySection(even(0, 4 * h, 4), v, 1, walls);
        fillLayers(s, (y) => (Math.abs(y) < t / 2 ? core : clad) ** 2);
        const [mode] = solveSection(s, k0, { count: 1, kernel });
        const n = Math.sqrt(mode.beta2) / k0;
        errors.push(Math.abs(n - exact));
        if (cells === 132)
          rows.push({
            quantity: `${tm ? 'TM' : 'TE'}0 effective index (allowed 1e-4 absolute)`,
            reference: exact.toFixed(6),
            source: 'exact slab dispersion relation',
            computed: n.toFixed(6),
            error: percent(n, exact),
            allowed: (100 * 1e-4) / exact,
            unit: '%',
            cells: cellsOf(s),
            seconds: host.now() - started,
          });
      }
      const order = Math.log2(errors[1] / errors[2]);
      rows.push({
        quantity: `${tm ? 'TM' : 'TE'}0, order of convergence from 66 to 132 cells in the slab`,
        reference: '2',
        source: 'second-order scheme',
        computed: order.toFixed(2),
        error: percent(order, 2),
        allowed: 15,
        unit: '%',
        cells: 0,
        seconds: 0,
      });
    }
    return rows;
  },
};

/**
 * Phase constant of the fundamental of a guide a x b with a layer of height d on its broad floor: LSM to the layer's normal, one
 * half wave across; the impedances of both layers cancel (R. E. Collin, Field Theory of Guided Waves, 2nd ed., ch. 6).
 */
export function slabOnFloor(a: number, b: number, d: number, er: number, k0: number): number {
  const kx2 = (Math.PI / a) ** 2;
  const tan = (k2: number, x: number): number =>
    k2 >= 0 ? Math.sqrt(k2) * Math.tan(Math.sqrt(k2) * x) : -Math.sqrt(-k2) * Math.tanh(Math.sqrt(-k2) * x);
  const resonance = (beta2: number): number => tan(er * k0 * k0 - kx2 - beta2, d) / er + tan(k0 * k0 - kx2 - beta2, b - d);
  const top = er * k0 * k0 - kx2;
  // The fundamental is the root of largest beta below the first pole of the tangent.
  return Math.sqrt(bisect(resonance, Math.max((top - (Math.PI / 2 / d) ** 2) * (1 + 1e-9), 0), top));
}

/** A guide with a slab of permittivity 4 on its floor: hybrid modes against their transverse resonance. */
export const filledGuide: Case = {
  name: 'filled-guide',
  title: 'Section: guide 20 x 10 mm with a slab of permittivity 4 on its floor',
  slow: false,
  async run(host) {
    const kernel = await denseKernel(host.module);
    const [a, b, d, er] = [20e-3, 10e-3, 4e-3, 4];
    const started = host.now();
    const f = 10e9;
    const k0 = (2 * Math.PI * f) / c0;
    const s = emptySection(even(0, a, 60), joined(even(0, d, 16), even(d, b, 24)));
    fillLayers(s, (y) => (y < d ? er : 1));
    const [mode] = solveSection(s, k0, { count: 2, kernel });
    const exact = slabOnFloor(a, b, d, er, k0);
    return [
      {
        quantity: 'phase constant of the fundamental at 10 GHz',
        reference: `${exact.toFixed(3)} 1/m`,
        source: 'transverse resonance (Collin, Field Theory of Guided Waves, ch. 6)',
        computed: `${Math.sqrt(mode.beta2).toFixed(3)} 1/m`,
        error: mode.kind === 'hybrid' ? percent(Math.sqrt(mode.beta2), exact) : Infinity,
        allowed: 0.1,
        unit: '%',
        cells: cellsOf(s),
        seconds: host.now() - started,
      },
    ];
  },
};
