import type { Board, CardPlace } from '@jadebell/core/document';

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

/** A name that is not taken. */
export function freeName(taken: readonly string[], wanted: string): string {
  let name = wanted;
  for (let n = 2; taken.includes(name); n++) name = `${wanted} ${n}`;
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
    : { ArrowRight: 'right', ArrowLeft: 'left', ArrowDown: 'down', ArrowUp: 'up' }
  )[key] ?? null;
