import type { BoardCard, CardOf } from '@jadebell/core/document';
import { recorderKinds } from '@jadebell/core/recorders';
import { recordedOf, type ResultMeta } from '@jadebell/core/results';
import { firstTerms } from '@jadebell/core/reading';
import type { ComponentType } from 'react';
import type { NewCard } from '../board/BoardContext.ts';
import { recorderParts } from '../../recorders/registry.tsx';
import { CurvesSettings, SmithSettings } from '../settings/CurvesSettings.tsx';
import { FieldSettings, VolumeSettings } from '../settings/FieldSettings.tsx';
import { CutSettings, PatternSettings, PhaseCentreSettings } from '../settings/PatternSettings.tsx';
import { WiresSettings } from '../settings/WiresSettings.tsx';
import { AlongCard } from './AlongCard.tsx';
import { CurvesCard } from './CurvesCard.tsx';
import { CutCard } from './CutCard.tsx';
import { FieldCard } from './FieldCard.tsx';
import { FiguresCard } from './FiguresCard.tsx';
import { NoteCard } from './NoteCard.tsx';
import { PatternCard } from './PatternCard.tsx';
import { PhaseCentreCard } from './PhaseCentreCard.tsx';
import { RecorderCard } from './RecorderCard.tsx';
import { EvidenceCard, ModesCard, WavesCard } from './SimpleCards.tsx';
import { SmithCard } from './SmithCard.tsx';
import { TableCard } from './TableCard.tsx';
import { VolumeCard } from './VolumeCard.tsx';
import { WiresCard } from './WiresCard.tsx';

interface Kind<K extends BoardCard['kind']> {
  title: string;
  about: string;
  show: ComponentType<{ card: CardOf<K> }>;
  /** The settings beside the board; absent: there is nothing to set. */
  settings?: ComponentType<{ card: CardOf<K>; meta: ResultMeta; change(next: Partial<CardOf<K>>): void }>;
  /** A new card of the kind for a run; null where it has nothing to show. */
  fresh(meta: ResultMeta): NewCard | null;
}

const firstField = ({ recorded }: ResultMeta): string | null =>
  (['field-plane', 'field-box'] as const).map((kind) => recorded.find((r) => r.kind === kind)?.name).find((name) => name) ?? null;

/** The kinds of cards. A new kind is an entry here, its schema in the core's document, and its component. */
export const cardKinds: { [K in BoardCard['kind']]: Kind<K> } = {
  curves: {
    title: 'Curves',
    about: 'S, Z, Y, delay, gain, signals, formulas, data',
    show: CurvesCard,
    settings: CurvesSettings,
    fresh: (meta) => ({
      kind: 'curves',
      title: 'Curves',
      traces: firstTerms(meta)
        .slice(0, 1)
        .map((of) => ({ quantity: 's', of })),
    }),
  },
  smith: {
    title: 'Smith chart',
    about: 'reflections on impedance or admittance lines',
    show: SmithCard,
    settings: SmithSettings,
    fresh: (meta) => (meta.excitations.length ? { kind: 'smith' } : null),
  },
  pattern: {
    title: 'Pattern',
    about: 'the far field around the model',
    show: PatternCard,
    settings: PatternSettings,
    fresh: (meta) => (meta.farField || meta.scattered ? { kind: 'pattern', h: 7 } : null),
  },
  cut: {
    title: 'Cut',
    about: 'through the far field, polar or straight',
    show: CutCard,
    settings: CutSettings,
    fresh: (meta) => (meta.farField || meta.scattered ? { kind: 'cut', h: 7 } : null),
  },
  figures: {
    title: 'Antenna figures',
    about: 'gain, widths, lobes, efficiency, polarisation',
    show: FiguresCard,
    fresh: (meta) => (meta.farField || meta.scattered ? { kind: 'figures', h: 7 } : null),
  },
  'phase-centre': {
    title: 'Phase centre',
    about: 'over a cone or in a plane',
    show: PhaseCentreCard,
    settings: PhaseCentreSettings,
    fresh: (meta) => (meta.farField ? { kind: 'phase-centre' } : null),
  },
  field: {
    title: 'Field on a plane',
    about: 'a recorded plane, or a cut through a box',
    show: FieldCard,
    settings: FieldSettings,
    fresh(meta) {
      const recorder = firstField(meta);
      return recorder ? { kind: 'field', recorder, h: 7 } : null;
    },
  },
  volume: {
    title: 'Field in space',
    about: 'on the faces of bodies, as a surface of one level, currents on metal',
    show: VolumeCard,
    settings: VolumeSettings,
    fresh(meta) {
      const [box] = recordedOf(meta, 'field-box');
      return box ? { kind: 'volume', recorder: box.name, quantity: box.electric ? 'E' : 'H', h: 7 } : null;
    },
  },
  along: { title: 'Along a line', about: 'drawn on a field', show: AlongCard, fresh: () => null },
  recorder: { title: 'Recorder', about: 'what a recorder kept', show: RecorderCard, fresh: () => null },
  wires: {
    title: 'Current in wires',
    about: 'on the model, or along each wire',
    show: WiresCard,
    settings: WiresSettings,
    fresh: (meta) => (meta.wires && meta.recordAt.length ? { kind: 'wires', h: 7 } : null),
  },
  modes: {
    title: 'Port modes',
    about: 'their fields and constants',
    show: ModesCard,
    fresh: (meta) => (meta.ports.some((p) => p.mode !== undefined) ? { kind: 'modes' } : null),
  },
  waves: {
    title: 'Waves together',
    about: 'active reflection of what was combined',
    show: WavesCard,
    fresh: (meta) => (meta.combined ? { kind: 'waves' } : null),
  },
  table: {
    title: 'Table',
    about: 'S, modes, figures, differences of runs',
    show: TableCard,
    fresh: (meta) => ({ kind: 'table', what: meta.excitations.length ? 's' : 'figures' }),
  },
  evidence: { title: 'Evidence', about: 'balance, passivity, reciprocity, convergence', show: EvidenceCard, fresh: () => ({ kind: 'evidence' }) },
  note: { title: 'Note', about: 'words of your own', show: NoteCard, fresh: () => ({ kind: 'note', w: 4, h: 4 }) },
};

/** A card by its kind. */
export function ShowCard({ card }: { card: BoardCard }) {
  const { show } = cardKinds[card.kind] as unknown as Kind<BoardCard['kind']>;
  const Show = show as ComponentType<{ card: BoardCard }>;
  return <Show card={card} />;
}

/** Cards that the recorders of a run offer besides the plain ones: one of each that has its own, one of all of a kind with a table. */
export function recorderCards({ recorded }: ResultMeta): { title: string; card: NewCard }[] {
  const own = recorded.flatMap((told) => {
    const { card } = recorderParts[told.kind];
    return card ? [{ title: `${card.title} ${told.name}`, card: { kind: 'recorder' as const, recorder: told.name } }] : [];
  });
  const tables = recorderKinds.flatMap(({ kind, table }) =>
    table && recorded.some((r) => r.kind === kind) ? [{ title: table.title, card: { kind: 'recorder' as const, recorder: `*${kind}` } }] : [],
  );
  return [...own, ...tables];
}
