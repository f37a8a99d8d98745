import type { BoardCard, CardOf, NewCard } from '@jadebell/core/cards';
import { recorderKinds } from '@jadebell/core/recorders';
import type { ResultMeta } from '@jadebell/core/results';
import type { ComponentType } from 'react';
import { recorderParts } from '../../recorders/registry.tsx';
import { CurvesSettings } from '../settings/CurvesSettings.tsx';
import { SmithSettings } from '../settings/SmithSettings.tsx';
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

interface Parts<K extends BoardCard['kind']> {
  show: ComponentType<{ card: CardOf<K> }>;
  /** The settings beside the board; absent: there is nothing to set. */
  settings?: ComponentType<{ card: CardOf<K>; meta: ResultMeta; change(next: Partial<CardOf<K>>): void }>;
}

/** What the interface has for each kind of card; what a kind is stands in the core. */
export const cardParts: { [K in BoardCard['kind']]: Parts<K> } = {
  curves: { show: CurvesCard, settings: CurvesSettings },
  smith: { show: SmithCard, settings: SmithSettings },
  pattern: { show: PatternCard, settings: PatternSettings },
  cut: { show: CutCard, settings: CutSettings },
  figures: { show: FiguresCard },
  'phase-centre': { show: PhaseCentreCard, settings: PhaseCentreSettings },
  field: { show: FieldCard, settings: FieldSettings },
  volume: { show: VolumeCard, settings: VolumeSettings },
  along: { show: AlongCard },
  recorder: { show: RecorderCard },
  wires: { show: WiresCard, settings: WiresSettings },
  modes: { show: ModesCard },
  waves: { show: WavesCard },
  table: { show: TableCard },
  evidence: { show: EvidenceCard },
  note: { show: NoteCard },
};

/** A card by its kind. */
export function ShowCard({ card }: { card: BoardCard }) {
  const { show } = cardParts[card.kind] as unknown as Parts<BoardCard['kind']>;
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
