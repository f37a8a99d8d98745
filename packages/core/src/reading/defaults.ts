import { type Board, cardWith, firstTerms, type NewCard, type WrittenCard } from '../cards/index.ts';
import { type AnyRecorderKind, recorderKinds, type RecorderTold } from '../recorders/index.ts';
import type { ResultMeta } from '../results/index.ts';
import { channelKeys } from '../results/index.ts';
import { quantities } from './quantities.ts';

/** Lays cards out in rows of twelve columns, each as high as its highest. */
function laidOut(name: string, cards: readonly NewCard[]): Board {
  let [x, y, row] = [0, 0, 0];
  return {
    name,
    cards: cards.map(({ w = 6, h = 6, ...card }, i) => {
      if (x + w > 12) [x, y, row] = [0, y + row, 0];
      const place = { x, y, w, h };
      x += w;
      row = Math.max(row, h);
      return cardWith({ ...card, id: `c${i + 1}`, place } as WrittenCard);
    }),
  };
}

/** A wave of light: from 20 THz on engineers think in wavelengths. */
export const isOptical = (meta: ResultMeta, frequency: ArrayLike<number>): boolean => (frequency[0] ?? meta.recordAt[0] ?? 0) > 2e13;

/** A card of curves of one quantity. */
const curves = (title: string, quantity: string, of: readonly string[], more: object = {}): NewCard => ({
  kind: 'curves',
  title,
  traces: of.map((key) => ({ quantity, of: key })),
  w: 6,
  h: 6,
  ...more,
});

/** The boards that suit what a run solved: match, pattern, guide, field, optics, whichever there is something for. */
export function defaultBoards(meta: ResultMeta, optical = false): Board[] {
  const { ports, excitations } = meta;
  const several = ports.length > 1;
  const terms = firstTerms(meta);
  const names = channelKeys(ports);
  const guided = ports.some((p) => p.mode !== undefined);
  const boards: Board[] = [];
  const over = optical ? { over: 'wavelength' } : {};
  if (excitations.length) {
    const first = names[excitations[0]];
    const hasInput = quantities.input.terms(meta).some((t) => t.key === first);
    boards.push(
      laidOut('Match', [
        curves(several ? 'Scattering' : 'Reflection S11', 's', terms, over),
        { kind: 'smith', title: 'Smith chart', terms: [], w: 6, h: 6 },
        curves(several ? 'Phase of S' : 'Phase of S11', 's', [], {
          traces: terms.map((of) => ({ quantity: 's', of, form: 'phase' as const })),
          ...over,
        }),
        ...(hasInput
          ? [
              curves('Input impedance', 'input', [], {
                traces: (['real', 'imaginary'] as const).map((form) => ({ quantity: 'input', of: first, form })),
                ...over,
              }),
            ]
          : []),
        ...(several ? [curves('Group delay', 'delay', terms.slice(1, 2), over)] : [curves('Standing wave ratio', 'vswr', terms.slice(0, 1), over)]),
        { kind: 'evidence', w: 6, h: 6 },
      ]),
    );
  }
  if (meta.dipole)
    boards.push(
      laidOut('Source', [curves('Power of the dipole over that in free space', 'dipole-enhancement', [''], over), { kind: 'evidence', w: 6, h: 6 }]),
    );
  if (meta.farField ?? meta.scattered)
    boards.push(
      laidOut('Pattern', [
        { kind: 'pattern', w: 6, h: 7 },
        { kind: 'cut', path: meta.wave ? 'wave' : 'phi', w: 6, h: 7 },
        { kind: 'cut', path: 'phi', at: meta.wave ? 0 : Math.PI / 2, w: 6, h: 6 },
        { kind: 'figures', w: 6, h: 6 },
        ...(meta.farField && meta.recordAt.length > 1
          ? [
              {
                kind: 'curves' as const,
                title: 'Gain over frequency',
                traces: ['directivity', 'gain', 'realised-gain'].map((quantity) => ({ quantity })),
                w: 6,
                h: 6,
              },
            ]
          : []),
        ...(meta.farField ? [{ kind: 'phase-centre' as const, w: 6, h: 6 }] : []),
      ]),
    );
  if (guided)
    boards.push(
      laidOut(optical ? 'Optics' : 'Guide', [
        { kind: 'modes', w: 6, h: 8 },
        curves('Phase constant', 'beta', quantities.beta.terms(meta).slice(0, 8).map((t) => t.key), { h: 8, ...over }), // prettier-ignore
        curves('Effective index', 'index', quantities.index.terms(meta).slice(0, 8).map((t) => t.key), over), // prettier-ignore
        { kind: 'table', what: 'modes', w: 6, h: 6 },
      ]),
    );
  if (meta.wires) boards.push(laidOut('Wires', wireCards(meta)));
  const fields = fieldCards(meta);
  if (fields.length) boards.push(laidOut('Fields', fields));
  if (!excitations.length && !meta.dipole && boards.length) boards[0].cards.push(laidOut('', [{ kind: 'evidence' }]).cards.map((c) => ({ ...c, id: 'evidence', place: { ...c.place, y: 40 } }))[0]); // prettier-ignore
  return boards;
}

/** Currents on the wires and what was read at ports, loads and points. */
function wireCards(meta: ResultMeta): NewCard[] {
  const probes = meta.probes ?? [];
  const loads = probes.filter((p) => p.kind === 'load');
  const read = (loads.length ? loads : probes).slice(0, 4).map((p) => p.name);
  const across = read.filter((name) => probes.find((p) => p.name === name)!.kind !== 'point');
  return [
    ...(meta.recordAt.length
      ? [
          { kind: 'wires' as const, w: 6, h: 7 },
          { kind: 'wires' as const, view: 'along' as const, w: 6, h: 7 },
        ]
      : []),
    ...(read.length ? [curves('Current at ports and loads', 'probe-current', read)] : []),
    ...(across.length ? [curves('Voltage at ports and loads', 'probe-voltage', across)] : []),
    ...(meta.wave?.directions ? [curves('Cross-section over the direction', 'sweep-back', meta.recordAt.slice(0, 4).map((f) => `/${f}`)), ...(across.length ? [curves('Voltage over the direction', 'sweep-voltage', meta.recordAt.slice(0, 4).map((f) => `${across[0]}/${f}`))] : [])] : []), // prettier-ignore
  ];
}

/** A card for each thing that was recorded besides patterns: of each kind as it says. */
function fieldCards(meta: ResultMeta): NewCard[] {
  const waves: NewCard[] = meta.combined ? [{ kind: 'waves', w: 6, h: 5 }] : [];
  const of = (card: AnyRecorderKind['card'], make: (told: RecorderTold[], kind: AnyRecorderKind) => NewCard[]): NewCard[] =>
    recorderKinds
      .filter((kind) => kind.card === card)
      .flatMap((kind) => make(meta.recorded.filter((r) => r.kind === kind.kind), kind)); // prettier-ignore
  return [
    ...of('field', (told) =>
      told.map((r) => ({ kind: 'field', recorder: r.name, ...('electric' in r && !r.electric ? { quantity: 'H' } : {}), w: 6, h: 7 })),
    ),
    ...of('own', (told) => told.map((r) => ({ kind: 'recorder', recorder: r.name, w: 6, h: 6 }))),
    ...waves,
    ...of('table', (told, { kind }) => (told.length ? [{ kind: 'recorder', recorder: `*${kind}`, w: 6, h: 5 }] : [])),
  ];
}
