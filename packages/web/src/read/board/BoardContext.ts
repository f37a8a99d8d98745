import type { cardWith } from '@jadebell/core/document';
import { createContext } from 'react';

type Loose = Parameters<typeof cardWith>[0];
/** A card before it has its place. */
export type NewCard = { [K in Loose['kind']]: Omit<Extract<Loose, { kind: K }>, 'id' | 'place'> & { w?: number; h?: number } }[Loose['kind']];

/** What cards may do to the board they stand on. */
export const BoardContext = createContext<{ addCard(card: NewCard): void } | null>(null);
