import type { Board } from '@jadebell/core/document';
import { useProject } from '../../project/store.ts';
import type { BoardCard } from '@jadebell/core/cards';

/** Changes the boards of the project; those that were only proposed become its own with the first change. */
export function editBoards(label: string, shown: readonly Board[], change: (boards: Board[]) => Board[]): void {
  useProject.getState().edit(label, (d) => ({ ...d, boards: change([...(d.boards?.length ? d.boards : shown)]) }));
}

/** Changes one board by its place in the list. */
export const editBoard = (label: string, shown: readonly Board[], at: number, change: (b: Board) => Board): void =>
  editBoards(label, shown, (all) => all.map((b, i) => (i === at ? change(b) : b)));

/** Changes one card. */
export const editCard = (label: string, shown: readonly Board[], at: number, id: string, change: (c: BoardCard) => BoardCard): void =>
  editBoard(`${label} ${id}`, shown, at, (b) => ({ ...b, cards: b.cards.map((c) => (c.id === id ? change(c) : c)) }));
