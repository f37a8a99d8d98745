import { P } from '../../layout.ts';
import type { AxisFactors } from '../pml.ts';
import { Rows } from '../../rows.ts';
import type { Sheet } from './sheet.ts';

const hasCellBehind = (boundary: string): boolean => boundary === 'magnetic' || boundary === 'periodic';

/** Rows of coefficients, and which of them each row of edges has. */
export function packRows(sheet: Sheet): void {
  const { d, words } = sheet;
  const dictionary = sheet.put(d.dictionary);
  words[P.ROWS] = sheet.put(d.rowOf.map((r) => (r < 2 ? r : dictionary + (r - 2) * 2 * d.sx * 4)));
}

/** Steps of the grid, absorbing layers and what they remember, walls with a cell behind. Gives the slot of each plane across z in the layers, -1 for none. */
export function packLayers(sheet: Sheet): Int32Array {
  const { d, words, arena, open, plan } = sheet;
  const { sx, grid } = d;
  const [nx, ny, nz] = sheet.cells;
  const pick = (k: keyof AxisFactors, a: number): number => sheet.putFloats(sheet.factors[a][k], Math.max(sx, grid.lines[a].length));
  ([P.EX_INV, P.EY_INV, P.EZ_INV] as const).forEach((w, a) => (words[w] = pick('eInverse', a)));
  ([P.HX_INV, P.HY_INV, P.HZ_INV] as const).forEach((w, a) => (words[w] = pick('hInverse', a)));
  for (const a of [0, 1, 2]) {
    words[P.PML_E + 2 * a] = pick('eB', a);
    words[P.PML_E + 2 * a + 1] = pick('eC', a);
    words[P.PML_H + 2 * a] = pick('hB', a);
    words[P.PML_H + 2 * a + 1] = pick('hC', a);
  }
  words[P.MIRROR] = plan.boundaries.some(hasCellBehind) ? sheet.putRows(wallsOf(sheet)) : 0;
  const low = (open[0] + 3) & ~3;
  const high = open[1] ? Math.max(low, (nx - open[1]) & ~3) : sx;
  words[P.X_LOW] = low;
  words[P.X_HIGH] = high;
  const slots = (a: 1 | 2): Int32Array => {
    const n = grid.lines[a].length;
    let next = 0;
    return Int32Array.from({ length: n }, (_, i) => (i < open[2 * a] || (open[2 * a + 1] > 0 && i >= n - 1 - open[2 * a + 1]) ? next++ : -1));
  };
  const [ySlots, zSlots] = [slots(1), slots(2)];
  const used = (s: Int32Array): number => s.reduce((m, v) => Math.max(m, v + 1), 0);
  words[P.Y_SLOT] = sheet.put(ySlots);
  words[P.Z_SLOT] = sheet.put(zSlots);
  words[P.Y_SLOTS] = used(ySlots);
  const yBytes = used(ySlots) * (nz + 1) * sx * 4;
  const zBytes = used(zSlots) * (ny + 1) * sx * 4;
  const xBytes = (low + sx - high) * (ny + 1) * (nz + 1) * 4;
  for (const base of [P.PSI_E, P.PSI_H])
    [yBytes, zBytes, zBytes, xBytes, xBytes, yBytes].forEach((bytes, i) => (words[base + i] = arena.take(bytes)));
  return zSlots;
}

/** What the cell behind each wall holds. */
function wallsOf({ plan, d }: Sheet): Rows<'side'> {
  const rows = new Rows('side', 6);
  plan.boundaries.forEach((b, s) => {
    const last = d.grid.lines[s >> 1].length - 2;
    const [own, beside, far] = s & 1 ? [last, last - 1, 1] : [0, 1, last - 1];
    const periodic = b === 'periodic';
    rows.set(s, { to: hasCellBehind(b) ? own : -1, from: periodic ? far : beside, sign: periodic ? 1 : -1 });
  });
  return rows;
}
