import type { NewCard } from '@jadebell/core/cards';
import { createContext } from 'react';

/** What cards may do to the board they stand on. */
export const BoardContext = createContext<{ addCard(card: NewCard): void } | null>(null);
