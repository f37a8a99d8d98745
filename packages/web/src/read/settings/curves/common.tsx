import { Close } from '../../../kit/icons.tsx';
import type { CurvesCard } from '@jadebell/core/document';
import { axisUnits, type Drawing, freshSpot, quantities } from '@jadebell/core/reading';
import { IconTool } from '../../../kit/IconTool.tsx';
import { Tool } from '../../../kit/Tool.tsx';
import { measureOf } from '../Fields.tsx';

/** What every part of the settings of curves is given: the card, its curves as they are drawn, and what to do with a change. */
export interface CurvesProps {
  card: CurvesCard;
  drawing: Drawing;
  change(next: Partial<CurvesCard>): void;
}

/** Takes an entry of a list away. */
export const remove = (label: string, act: () => void) => <IconTool label={label} icon={<Close />} size={15} onClick={act} />;
/** Adds an entry to a list. */
export const add = (label: string, act: () => void, disabled = false) => (
  <Tool onClick={act} disabled={disabled}>
    {label}
  </Tool>
);

/** A list with one of its entries changed, and with one of them taken out. */
export const set = <T,>(list: readonly T[], i: number, next: Partial<T>): T[] => list.map((t, k) => (k === i ? { ...t, ...next } : t));
export const without = <T,>(list: readonly T[], i: number): T[] => list.filter((_, k) => k !== i);

/** Unit of what the curves of a card run over. */
const unitOver = (card: CurvesCard): string =>
  card.over === 'wavelength'
    ? 'm'
    : card.over !== 'own'
      ? ''
      : ({ time: 's', angle: 'deg', frequency: 'Hz' } as const)[quantities[card.traces[0]?.quantity]?.over ?? 'frequency'];
/** The same as a measure, for typing. */
export const measureOver = (card: CurvesCard): ReturnType<typeof measureOf> => measureOf(unitOver(card));

/** Units that an axis can be told in, where all its curves measure the same. */
export function unitsOf(card: CurvesCard, side: 'x' | 'left' | 'right'): string[] {
  if (side === 'x') return axisUnits(unitOver(card));
  const units = new Set(card.traces.filter((t) => t.axis === side).map((t) => quantities[t.quantity]?.unit ?? ''));
  return units.size === 1 ? axisUnits([...units][0]) : [];
}

/** Where something new on the curves begins. */
export const freshPlace = ({ drawn }: Drawing): ReturnType<typeof freshSpot> => freshSpot(drawn);
