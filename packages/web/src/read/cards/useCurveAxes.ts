import type { CurvesCard } from '@jadebell/core/document';
import { type Drawing, overUnit, sourceOf, unitOfAxis } from '@jadebell/core/reading';
import { useMemo } from 'react';
import { axisTitle } from './about.ts';

const largest = (lists: readonly ArrayLike<number>[]): number => {
  let most = 0;
  for (const list of lists) for (let i = 0; i < list.length; i++) if (Math.abs(list[i]) > most && Number.isFinite(list[i])) most = Math.abs(list[i]);
  return most;
};

/** What stands along the axis that curves are over: its title and unit. */
export const overTitle = (card: CurvesCard, over: Drawing['over']): string =>
  card.x.title ?? (over === 'parameter' ? card.over : over === 'number' ? '' : over);

/** The axes of a card of curves: its settings, the size of the unit that suits the values, and what is written beside. */
export function useCurveAxes(card: CurvesCard, { drawn, over }: Drawing) {
  const { size, unit } = unitOfAxis(overUnit[over], largest(drawn.map((d) => d.x)), card.x.unit);
  const title = overTitle(card, over);
  const x = useMemo(() => ({ ...card.x, size, label: unit ? `${title} (${unit})` : title }), [card.x, size, unit, title]);
  return { x, left: useSideAxis(card, drawn, 'left'), right: useSideAxis(card, drawn, 'right') };
}

function useSideAxis(card: CurvesCard, drawn: Drawing['drawn'], side: 'left' | 'right') {
  const settings = card[side];
  const own = drawn.filter((d) => d.axis === side);
  const units = [...new Set(own.map((d) => d.unit))];
  const { size, unit } =
    units.length === 1 ? unitOfAxis(units[0], largest(own.map((d) => d.y)), settings.unit) : { size: 1, unit: units.filter(Boolean).join(', ') };
  const shown = own.map((d) => card.traces[d.trace]);
  const alike = new Set(shown.map((t) => t.quantity)).size === 1 && sourceOf(shown[0]) === 'quantity';
  const title = settings.title ?? (alike ? axisTitle(shown[0].quantity, shown[0].form) : '');
  const label = [title, unit && `(${unit})`].filter(Boolean).join(' ');
  const angles = unit === 'deg';
  return useMemo(() => ({ ...settings, size, angles, label }), [settings, size, angles, label]);
}
