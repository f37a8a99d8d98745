import type { Board, BoardCard, CardPlace } from '@jadebell/core/document';
import { useProject } from '../../project/store.ts';

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

/** An id that no card of the board has. */
export function freshId({ cards }: Board): string {
  let n = cards.length + 1;
  while (cards.some((c) => c.id === `c${n}`)) n++;
  return `c${n}`;
}

/** The first free place for a card, row by row. */
export function freePlace({ cards }: Board, w = 6, h = 6): CardPlace {
  const meets = (x: number, y: number): boolean => cards.some(({ place: p }) => x < p.x + p.w && p.x < x + w && y < p.y + p.h && p.y < y + h);
  for (let y = 0; y < 1000; y++) for (let x = 0; x + w <= 12; x++) if (!meets(x, y)) return { x, y, w, h };
  return { x: 0, y: 1000, w, h };
}

/** A name that no board has. */
export function freshName(boards: readonly Board[], wanted: string): string {
  let name = wanted;
  for (let n = 2; boards.some((b) => b.name === name); n++) name = `${wanted} ${n}`;
  return name;
}

const steps: Record<string, (p: CardPlace) => CardPlace> = {
  left: (p) => ({ ...p, x: Math.max(0, p.x - 1) }),
  right: (p) => ({ ...p, x: Math.min(12 - p.w, p.x + 1) }),
  up: (p) => ({ ...p, y: Math.max(0, p.y - 1) }),
  down: (p) => ({ ...p, y: Math.min(1000, p.y + 1) }),
  wider: (p) => ({ ...p, w: Math.min(12 - p.x, p.w + 1) }),
  narrower: (p) => ({ ...p, w: Math.max(2, p.w - 1) }),
  taller: (p) => ({ ...p, h: Math.min(40, p.h + 1) }),
  lower: (p) => ({ ...p, h: Math.max(2, p.h - 1) }),
};
export type Step = keyof typeof steps;
/** A place after one step of the keyboard. */
export const stepped = (place: CardPlace, step: Step): CardPlace => steps[step](place);

/** Keys that move and size the card that has the focus. */
export const stepOfKey = (key: string, shift: boolean): Step | null =>
  (shift
    ? { ArrowRight: 'wider', ArrowLeft: 'narrower', ArrowDown: 'taller', ArrowUp: 'lower' }
    : { ArrowRight: 'right', ArrowLeft: 'left', ArrowDown: 'down', ArrowUp: 'up' })[key] ?? null;
