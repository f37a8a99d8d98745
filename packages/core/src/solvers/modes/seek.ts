import type { Complex } from '../../numerics/complex.ts';
import { arnoldi, type EigenPair } from '../../numerics/arnoldi.ts';
import type { FrontKernel } from '../../numerics/factors.ts';
import { Fronts } from '../../numerics/fronts.ts';
import type { Section } from './section.ts';
import { rootOf } from './root.ts';
import { modeOperator, shifted, unknownsOf, type Unknowns } from './operator.ts';

export interface SeekOptions {
  count: number;
  /** beta^2 near which modes are sought, 1/m^2; absent: those of largest beta^2. */
  near?: Complex;
  kernel?: FrontKernel;
}

/** Eigenpairs of a section's operator, and how its unknowns lie. */
export interface Sought {
  unknowns: Unknowns;
  pairs: EigenPair[];
}

/**
 * The first search, from above all modes. Few modes mostly come in it, and a second elimination costs as much as some thirty steps; of
 * many it only looks where they lie, so that the shift can be placed well.
 */
const firstSearch = (count: number): { most: number; tolerance: number } => (count <= 4 ? { most: 48, tolerance } : { most: 12, tolerance: 1e-3 });
/** Residual at which a mode counts as found; that of the index is far smaller. */
const tolerance = 1e-7;
/** Attenuation over phase constant above which a solution with absorbing edges lives in these edges. */
const mostLeak = 0.2;

/**
 * A bound of beta^2 / k0^2 of all that a section guides: the largest product of permittivity and permeability, or that of a
 * surface wave along a medium of negative permittivity.
 */
function highest(s: Section): number {
  let [most, least, mu] = [0, 0, 1];
  for (const list of [s.eu, s.ev, s.ew])
    for (const e of list) {
      most = Math.max(most, e);
      least = Math.min(least, e);
    }
  for (const list of s.mu ? [s.mu.u, s.mu.v, s.mu.w] : []) for (const m of list) mu = Math.max(mu, m);
  // Of several negative media the one nearest to minus the dielectric's holds the slowest wave; the averages at faces count as media here, so the most negative, the metal itself, is asked.
  const surface = least < -1.05 * most ? (most * least) / (most + least) : 0;
  return mu * Math.max(most, surface);
}

/** The eigenpairs of a section at k0, 1/m: shift and invert, the shift moved beside the modes where these, known roughly by then, take long. */
export function seek(s: Section, k0: number, { count, near, kernel }: SeekOptions): Sought {
  const unknowns = unknownsOf(s);
  if (unknowns.count < 3) return { unknowns, pairs: [] };
  const matrix = modeOperator(s, k0, unknowns);
  const wanted = Math.min(count, unknowns.count);
  const complex = !!matrix.im;
  const keep = (re: number, im: number): boolean => {
    if (!s.absorb) return true;
    const [phase, loss] = rootOf(re, im);
    return -loss < mostLeak * phase;
  };
  const at = (re: number, im: number, start: Float64Array[], options: { most?: number; tolerance?: number } = { tolerance }): EigenPair[] => {
    const fronts = new Fronts(shifted(matrix, re, im), unknowns.points, kernel);
    return arnoldi(unknowns.count, re, wanted, (x) => fronts.solve(x), { ...options, complex, shiftIm: im, start, keep });
  };
  if (near) return { unknowns, pairs: at(near[0], complex ? near[1] : 0, []) };
  // Above all modes, so that the elimination meets no pivot near zero.
  const top = 1.02 * highest(s) * k0 * k0;
  const rough = at(top, 0, [], firstSearch(wanted));
  if (rough.length >= wanted && rough.every((p) => p.residual < tolerance)) return { unknowns, pairs: rough };
  const known = rough.filter((p) => p.residual < 0.1);
  if (!known.length) return { unknowns, pairs: at(top, 0, []) };
  const values = known.map((p) => p.re);
  const [first, last] = [Math.max(...values), Math.min(...values)];
  const shift = Math.min(top, first + 0.1 * (first - last) + 0.002 * Math.abs(first));
  // Two strands, neighbouring modes in different ones, so that both find modes close to one another.
  const strands = [0, 1].map((odd) => known.filter((_, i) => i % 2 === odd));
  const starts = strands.filter((list) => list.length).map((list) => blend(list, complex));
  return { unknowns, pairs: at(shift, 0, starts) };
}

/** One vector with a share of each. */
function blend(pairs: EigenPair[], complex: boolean): Float64Array {
  const n = pairs[0].vector.length;
  const out = new Float64Array(complex ? 2 * n : n);
  for (const { vector, vectorIm } of pairs)
    for (let i = 0; i < n; i++)
      if (complex) {
        out[2 * i] += vector[i];
        out[2 * i + 1] += vectorIm?.[i] ?? 0;
      } else out[i] += vector[i];
  return out;
}
