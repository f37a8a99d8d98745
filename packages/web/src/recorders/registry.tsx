import { Apps, Blur, Bolt, BothWays, Box, East, LinearScale, Radar, Stored, Timeline } from '../kit/icons.tsx';
import type { RecorderTold } from '@jadebell/core/recorders';
import type { Recorder } from '@jadebell/core/document';
import type { ComponentType, ReactNode } from 'react';
import type { RecorderCardProps } from './cardProps.ts';
import { BodyCurrentCard } from './bodyCurrent.tsx';
import { FieldLineCard } from './fieldLine.tsx';
import { SignalCard } from './signal.tsx';

interface RecorderParts<K extends Recorder['kind']> {
  glyph: ReactNode;
  /** Title of a card of its own, before its name, and the card. */
  card?: { title: string; show: ComponentType<RecorderCardProps<Extract<RecorderTold, { kind: K }>>> };
}

/** What the interface adds to each kind of recorder; marks on the model and tables are drawn from what the kinds say themselves. */
export const recorderParts: { [K in Recorder['kind']]: RecorderParts<K> } = {
  'wire-probe': { glyph: <Bolt /> },
  'far-field': { glyph: <Radar /> },
  'field-plane': { glyph: <Apps /> },
  'field-line': { glyph: <LinearScale />, card: { title: 'E along', show: FieldLineCard } },
  flux: { glyph: <East /> },
  current: { glyph: <Bolt /> },
  'body-current': { glyph: <Blur />, card: { title: 'Current on a body,', show: BodyCurrentCard } },
  mode: { glyph: <BothWays /> },
  energy: { glyph: <Stored /> },
  'field-box': { glyph: <Box /> },
  signal: { glyph: <Timeline />, card: { title: 'E at', show: SignalCard } },
};
