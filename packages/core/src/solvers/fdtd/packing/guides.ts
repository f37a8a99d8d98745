import { c0 } from '../../../numerics/constants.ts';
import { portalEdges, weightedEdges } from '../guides.ts';
import { P } from '../../layout.ts';
import type { GuideModes } from '../modeTypes.ts';
import { Rows } from '../../rows.ts';
import type { Sheet } from './sheet.ts';

/** Signals that a guided port records: one for each mode or profile. */
const signalsOf = (modes: GuideModes['modes']): number => modes.reduce((n, m) => n + (m.shape?.profiles.length ?? 1), 0);

/** Guided ports: edges with the modes' fields, a line for each mode or absorbing layers behind, what they send. Gives the addresses of what is recorded. */
export function packGuides(sheet: Sheet): number[] {
  const { words, arena, plan } = sheet;
  const guides = plan.guides ?? [];
  const records = guides.map(({ modes }) => arena.take(signalsOf(modes) * 2 * plan.maxSteps * 8));
  const [ended, open]: [number[], number[]] = [[], []];
  guides.forEach((guide, g) => {
    // What goes on in an annex stands before layers there.
    if (sheet.d.annexes[g]) return;
    (guide.modes[0].line ? ended : open).push((guide.modes[0].line ? packEnded : packPortal)(sheet, guide, g, records[g]));
  });
  words[P.PORTALS] = sheet.put(Uint32Array.from(open));
  words[P.PORTAL_COUNT] = open.length;
  words[P.GUIDES] = sheet.put(Uint32Array.from(ended));
  words[P.GUIDE_COUNT] = ended.length;
  return records;
}

/** What each mode sends at each step. */
const sourcesOf = ({ plan, d }: Sheet, g: number, modes: number): Float32Array =>
  Float32Array.from({ length: modes * plan.maxSteps }, (_, i) => plan.drive!(g, Math.floor(i / plan.maxSteps), ((i % plan.maxSteps) + 0.5) * d.dt));

/** A port behind whose plane absorbing layers stand. */
function packPortal(sheet: Sheet, guide: GuideModes, g: number, records: number): number {
  const { modes } = guide;
  const edges = portalEdges(sheet.d, guide);
  const profiles = signalsOf(modes);
  const rows = new Rows('portalEdge', edges.length, modes.length + 2 * profiles);
  edges.forEach(({ c, at, other, beyond, source, e, h }, n) =>
    rows.set(n, { field: sheet.address(c, at), beyond: sheet.address(3 + other, beyond) }, [...source, ...e.flatMap((v, k) => [v, h[k]])]),
  );
  const head = new Rows('portal', 1);
  head.set(0, {
    edges: sheet.putRows(rows),
    count: edges.length,
    modes: modes.length,
    profiles,
    sources: sheet.put(sourcesOf(sheet, g, modes.length)),
    records,
    steps: sheet.plan.maxSteps,
  });
  return sheet.putRows(head);
}

/** A port whose modes go on along lines of their own. */
function packEnded(sheet: Sheet, guide: GuideModes, g: number, records: number): number {
  const { modes, step } = guide;
  const { dt } = sheet.d;
  const { maxSteps } = sheet.plan;
  const edges = weightedEdges(guide);
  const rows = new Rows('guideEdge', edges.length, 2 * modes.length);
  edges.forEach(
    ({ c, at, beyond, other, e, w }, n) =>
    rows.set(n, { field: sheet.address(c, at), beyond: sheet.address(3 + other, beyond) }, modes.flatMap((_, m) => [e[m], w[m]])), // prettier-ignore
  );
  const reach = (c0 * dt) / step;
  const cells = Math.ceil(0.5 * maxSteps * Math.min(1, reach)) + 8;
  const head = new Rows('guide', 1);
  head.set(0, {
    edges: sheet.putRows(rows),
    count: edges.length,
    modes: modes.length,
    cells,
    lines: sheet.arena.take(modes.length * (3 * cells + 6) * 8),
    sources: sheet.put(sourcesOf(sheet, g, modes.length)),
    records,
    steps: maxSteps,
    reach,
  });
  const lines = new Rows('guideMode', modes.length);
  modes.forEach(({ line }, m) => {
    const { c, l, kc, form } = line!;
    const cut = c0 * dt * kc;
    lines.set(m, {
      cv: (c0 * dt) / (c * step),
      ci: (c0 * dt) / (l * step),
      cs: form === 'shunt' ? cut : 0,
      cq: form === 'series' ? cut / l : 0,
      pull: cut / c,
      charge: cut / c,
    });
  });
  // The lines' factors stand right behind the head.
  const both = new Uint8Array(head.bytes.length + lines.bytes.length);
  both.set(head.bytes);
  both.set(lines.bytes, head.bytes.length);
  return sheet.put(both);
}
