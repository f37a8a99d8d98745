import { P } from '../../layout.ts';
import { costsOf, type PlaneLoads, slabsOf } from '../slabs.ts';
import type { Sheet } from './sheet.ts';

/** What threads share and what each has of its own: scratch, energies, slabs, their gate. Gives the costs of planes, see slabs.ts. */
export function packThreads(sheet: Sheet, threads: number, loads: Omit<PlaneLoads, 'cells'>): Float64Array {
  const { d, words, arena } = sheet;
  const [nx, ny, nz] = sheet.cells;
  // Samples apart stand in one row however many they are.
  const longest = sheet.plan.regions.reduce((most, r) => Math.max(most, r.inner), 0);
  words[P.SCRATCH_BYTES] = (Math.max(d.sx, ny + 1, nz + 1, longest) + 16) * 4;
  words[P.SCRATCH] = arena.take(words[P.SCRATCH_BYTES] * threads);
  ([P.ENERGY_WX, P.ENERGY_WY, P.ENERGY_WZ] as const).forEach((w, a) => {
    const x = d.grid.lines[a];
    words[w] = sheet.put(Float32Array.from({ length: Math.max(d.sx, x.length) }, (_, i) => (i + 1 < x.length ? x[i + 1] - x[i] : 0)));
  });
  words[P.ENERGY] = arena.take(8 * threads);
  words[P.BUSY] = arena.take(8 * threads);
  const costs = costsOf(nz, { cells: nx * ny, ...loads });
  words[P.SLABS] = sheet.put(slabsOf(costs, threads));
  words[P.BARRIER] = arena.take(64);
  return costs;
}
