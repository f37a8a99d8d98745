import { createContext } from 'react';
import type { BoardCard } from '@jadebell/core/cards';

/** What a card's frame needs of the board it stands on. */
export interface OnBoard {
  card: BoardCard;
  /** Entries of its menu besides the exports. */
  actions: { label: string; act(): void }[];
  /** Opens its settings. */
  setUp: (() => void) | null;
  settingUp: boolean;
  change(next: Partial<BoardCard>): void;
}

export const CardContext = createContext<OnBoard | null>(null);
