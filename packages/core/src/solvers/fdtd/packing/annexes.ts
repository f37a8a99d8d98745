import { type Annex, annexLinks } from '../annex.ts';
import { P } from '../../layout.ts';
import { Rows } from '../../rows.ts';
import type { GuideModes } from '../modeTypes.ts';
import { packGuides } from './guides.ts';
import { packLayers, packRows } from './layers.ts';
import { packMedia } from './media.ts';
import { packBranches, packCuts } from './metal.ts';
import { packInjection } from './injection.ts';
import { packPorts } from './ports.ts';
import { packProbes, packSums } from './recording.ts';
import { Sheet } from './sheet.ts';
import { packSplits } from './splits.ts';
import { packThreads } from './threads.ts';

/** Cells in which guides go on behind their ports, each a small model of its own in the same memory. Puts the addresses of what their ports record into `records`. */
export function packAnnexes(sheet: Sheet, records: number[]): Sheet[] {
  const { d, words, plan } = sheet;
  const all = d.annexes.flatMap((annex, g) => (annex ? [{ annex, g, modes: plan.guides![g] }] : []));
  const rows = new Rows('annex', all.length);
  const own = all.map(({ annex, g, modes }, n) => {
    const small = annexSheet(sheet, annex, g, modes);
    [records[g]] = packGuides(small);
    const { inward, outward } = annexLinks(d.guides[g], annex.plane, d.grid);
    const links = (list: typeof inward, into: boolean): number => {
      const out = new Rows('annexLink', list.length);
      list.forEach(({ field, model, annex: at }, i) => {
        const [from, to] = [sheet.address(field, model), small.address(field, at)];
        out.set(i, into ? { from, to } : { from: to, to: from });
      });
      return sheet.putRows(out);
    };
    rows.set(n, {
      config: small.config,
      inward: links(inward, true),
      inwardCount: inward.length,
      outward: links(outward, false),
      outwardCount: outward.length,
    });
    return small;
  });
  words[P.ANNEXES] = sheet.putRows(rows);
  words[P.ANNEX_COUNT] = all.length;
  return own;
}

/** An annex laid out for the kernel, all but its port. */
function annexSheet({ plan, arena }: Sheet, { discrete, plane, boundaries }: Annex, g: number, modes: GuideModes): Sheet {
  const small = new Sheet(
    {
      ...plan,
      discrete,
      guides: [{ ...modes, plane }],
      drive: (_, mode, t) => plan.drive!(g, mode, t),
      injection: undefined,
      probes: [],
      regions: [],
      boundaries,
    },
    arena,
  );
  packRows(small);
  packSplits(small);
  const zSlots = packLayers(small);
  packBranches(small, packPorts(small).edges);
  const media = packMedia(small);
  packInjection(small);
  packCuts(small);
  packProbes(small);
  packSums(small);
  packThreads(small, 1, { layer: (k) => zSlots[k] >= 0, ...media });
  return small;
}
