import type { Sketch } from '@jadebell/api';
import { firstTerms, termsOfS } from '@jadebell/core/cards';
import { drawnIndices } from '@jadebell/core/curves';
import { decibel, sCurve } from '@jadebell/core/results';
import { loadArray } from '../db/arrays.ts';
import { RunRow } from '../db/models.ts';
import { storedMeta } from '../db/stored.ts';

/** Pixel columns that a small picture has, and terms that it shows. */
const columns = 60;
const most = 3;

/** S of the newest run of a project that has some, in decibels, thinned to what a small picture shows; null where there is none. */
export async function sketchOf(projectId: string): Promise<Sketch | null> {
  const row = await RunRow.findOne({ where: { projectId, state: 'done' }, order: [['number', 'DESC']], attributes: ['id', 'number', 'meta'] });
  const { meta } = storedMeta(row?.meta ?? null);
  if (!row || !meta?.excitations.length) return null;
  const [frequency, s] = await Promise.all(['frequency', 's'].map((name) => loadArray(row.id, name)));
  if (!frequency || !s || frequency.data.length < 2) return null;
  const shown = firstTerms(meta).slice(0, most);
  const curves = termsOfS(meta)
    .filter((t) => shown.includes(t.key))
    .map((t) => {
      const y = Float64Array.from(sCurve(s, t.to, t.from), decibel);
      const at = Array.from(drawnIndices(frequency.data, y, columns));
      return { name: t.label, x: at.map((i) => frequency.data[i]), y: at.map((i) => y[i]) };
    });
  return { run: row.number, from: frequency.data[0], to: frequency.data[frequency.data.length - 1], curves };
}
