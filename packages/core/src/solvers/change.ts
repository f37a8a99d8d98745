import type { ResultSet } from '../results/index.ts';

/** Largest change between two results of one scene: of S between waves that propagate, or of a scatterer's cross-sections as a part of them. */
export function changeBetween(a: ResultSet, b: ResultSet): number {
  const [s, t] = [a.arrays.s, b.arrays.s];
  if (s && t) {
    const [points, to, from] = s.shape;
    const beta = b.arrays.beta?.data;
    // Below cutoff S has no bound.
    const dead = (f: number, c: number): boolean => !!beta && beta[2 * (f * to + c) + 1] < 0;
    let worst = 0;
    for (let f = 0; f < points; f++)
      for (let c = 0; c < to; c++)
        for (let e = 0; e < from; e++) {
          if (dead(f, c) || dead(f, b.meta.excitations[e])) continue;
          const i = 2 * ((f * to + c) * from + e);
          worst = Math.max(worst, Math.hypot(s.data[i] - t.data[i], s.data[i + 1] - t.data[i + 1]));
        }
    return worst;
  }
  const [p, q] = [a.meta.scattered?.figures ?? [], b.meta.scattered?.figures ?? []];
  return q.reduce((m, f, i) => Math.max(m, Math.abs(p[i].scattering - f.scattering) / f.scattering, Math.abs(p[i].back - f.back) / f.largest), 0);
}
