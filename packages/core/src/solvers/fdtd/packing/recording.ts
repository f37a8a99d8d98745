import type { Region } from '../../../yee/index.ts';
import { P } from '../../layout.ts';
import { Rows } from '../../rows.ts';
import type { Sheet } from './sheet.ts';

/** Samples kept at every step. Gives the addresses of their series. */
export function packProbes(sheet: Sheet): number[] {
  const { plan, words, arena } = sheet;
  const kept = plan.probes ?? [];
  const rows = new Rows('probe', kept.length);
  const all = kept.map(({ field, at, shift, weights }, n) => {
    const series = arena.take(plan.maxSteps * 4);
    const other = at.map((v, i) => v + shift[i]);
    rows.set(n, { a: sheet.address(field, at), b: sheet.address(field, other), wa: weights[0], wb: weights[1], series });
    return series;
  });
  words[P.PROBES] = sheet.putRows(rows);
  words[P.PROBE_COUNT] = kept.length;
  return all;
}

/** Where the sums of a region stand: floats of a row, frequencies, all floats. */
export interface SumsAt {
  at: number;
  padded: number;
  count: number;
  floats: number;
}

/** Running Fourier sums. */
export function packSums(sheet: Sheet): SumsAt[] {
  const { plan, words, arena, strides } = sheet;
  const { regions, frequencies } = plan;
  const nf = frequencies.length;
  const sums = regions.map((r): SumsAt => {
    const padded = (r.inner + 3) & ~3;
    const count = r.at?.list.length ?? nf;
    const floats = r.outer * count * 2 * padded;
    return { at: arena.take(floats * 4), padded, count, floats };
  });
  const lists = new Map<Region['at'], number>([[undefined, nf ? sheet.put(Uint32Array.from(frequencies, (_, f) => f)) : 0]]);
  for (const { at } of regions) if (at && !lists.has(at)) lists.set(at, sheet.put(Uint32Array.from(at.list)));
  const rows = new Rows('region', regions.length);
  regions.forEach((r, n) =>
    rows.set(n, {
      a: sheet.address(r.field, r.from),
      b: sheet.address(
        r.field,
        r.from.map((v, i) => v + r.shift[i]),
      ),
      wa: r.wa,
      wb: r.wb,
      inner: r.inner,
      innerStride: strides[r.innerAxis],
      outer: r.outer,
      outerStride: strides[r.outerAxis],
      sums: sums[n].at,
      padded: sums[n].padded,
      magnetic: r.field < 3 ? 0 : 1,
      kept: sums[n].count,
      list: lists.get(r.at)!,
    }),
  );
  words[P.DFT_COUNT] = nf ? regions.length : 0;
  words[P.DFT] = sheet.putRows(rows);
  words[P.DFT_EVERY] = nf && regions.length ? plan.every : 0;
  words[P.DFT_NF] = nf;
  words[P.DFT_TWIDDLE] = sheet.put(twiddles(sheet));
  return sums;
}

/** Factors of the Fourier sums, [sample][E, H][frequency][cos, -sin]. */
function twiddles({ plan: { frequencies, maxSteps, every }, d }: Sheet): Float32Array {
  const samples = Math.floor(maxSteps / every);
  const out = new Float32Array(samples * 4 * frequencies.length);
  for (let s = 0, at = 0; s < samples; s++)
    // A step ends with E at (n + 1) dt and then H half a step later.
    for (const later of [0, 0.5])
      for (const f of frequencies) {
        const angle = 2 * Math.PI * f * ((s + 1) * every + later) * d.dt;
        out[at++] = Math.cos(angle);
        out[at++] = -Math.sin(angle);
      }
  return out;
}
