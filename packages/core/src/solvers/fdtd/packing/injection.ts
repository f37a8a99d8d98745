import { P } from '../../layout.ts';
import { Rows } from '../../rows.ts';
import type { Sheet } from './sheet.ts';

/** Rows to which a source from without adds, by plane. */
export function packInjection(sheet: Sheet): void {
  const { plan, words } = sheet;
  const { injection } = plan;
  words[P.WAVE_STEPS] = injection?.steps ?? 0;
  if (!injection) return;
  words[P.WAVE_TONES] = injection.tones;
  const tables = injection.tables.map((t) => ({ node: sheet.put(t.node), half: sheet.put(t.half), toIm: 4 * t.length }));
  const place = (magnetic: boolean, list: number, start: number, turn: number, turns: Float32Array): void => {
    const mine = injection.rows.filter((r) => r.field > 2 === magnetic).sort((p, q) => p.at[2] - q.at[2]);
    const rows = new Rows('injectedRow', mine.length);
    mine.forEach((r, n) => {
      const { node, half, toIm } = tables[r.axis];
      rows.set(n, {
        first: sheet.address(r.field, r.at),
        stride: sheet.strides[r.axis],
        count: r.count,
        factors: sheet.putFloats(r.factors, 4 * injection.tones),
        table: (r.half ? half : node) + 4 * r.from,
        toIm,
      });
    });
    words[list] = sheet.putRows(rows);
    words[start] = sheet.put(sheet.planeStarts(mine.map((r) => r.at[2]), sheet.cells[2] + 1)); // prettier-ignore
    words[turn] = sheet.put(turns);
  };
  place(false, P.WAVE_E, P.WAVE_E_START, P.WAVE_E_TURN, injection.turnE);
  place(true, P.WAVE_H, P.WAVE_H_START, P.WAVE_H_TURN, injection.turnH);
}
