import type { Section } from '../modes/index.ts';
import { type Discrete, permittivityOf } from './discrete.ts';
import { type GuidePlane, offRim, indexOf } from './portPlane.ts';

/** The cross-section of a port at a frequency, as the grid has it one cell inside; its rim counts as metal but on magnetic walls. */
export function guideSection(d: Discrete, g: GuidePlane, frequency?: number): Section {
  const [nu, nv] = [g.hi[0] - g.lo[0] + 1, g.hi[1] - g.lo[1] + 1];
  const size = nu * nv;
  const inner = g.plane + g.into;
  const cell = g.into > 0 ? g.plane : g.plane - 1;
  const eu = new Float64Array(size);
  const ev = new Float64Array(size);
  const ew = new Float64Array(size);
  for (let j = 0; j < nv; j++)
    for (let i = 0; i < nu; i++) {
      const n = j * nu + i;
      const [gi, gj] = [g.lo[0] + i, g.lo[1] + j];
      const [offU, offV] = offRim(g, i, j);
      if (i + 1 < nu && offV) eu[n] = permittivityOf(d, g.u, indexOf(g, inner, gi, gj), frequency);
      if (j + 1 < nv && offU) ev[n] = permittivityOf(d, g.v, indexOf(g, inner, gi, gj), frequency);
      if (offU && offV) ew[n] = permittivityOf(d, g.normal, indexOf(g, cell, gi, gj), frequency);
    }
  const { lines } = d.grid;
  const { cuts } = d;
  const fractions = cuts && {
    lu: eu.map((e, n) => (e > 0 ? cuts.free(g.u, ...indexOf(g, inner, g.lo[0] + (n % nu), g.lo[1] + Math.floor(n / nu))) : 1)),
    lv: ev.map((e, n) => (e > 0 ? cuts.free(g.v, ...indexOf(g, inner, g.lo[0] + (n % nu), g.lo[1] + Math.floor(n / nu))) : 1)),
    area: Float64Array.from({ length: size }, (_, n) => cuts.area(g.normal, indexOf(g, inner, g.lo[0] + (n % nu), g.lo[1] + Math.floor(n / nu)))),
  };
  return { ...fractions, u: lines[g.u].slice(g.lo[0], g.hi[0] + 1), v: lines[g.v].slice(g.lo[1], g.hi[1] + 1), eu, ev, ew };
}
