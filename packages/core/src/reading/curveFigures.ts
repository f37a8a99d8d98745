import { type Band, bands, held, type Limit, type Spot, statistics } from '../curves/index.ts';
import type { CurvesCard } from '../document/index.ts';
import { overUnit, valueText } from './curveUnits.ts';
import { spotOf } from './spots.ts';
import type { Drawing, DrawnTrace } from './traces.ts';

/** A marker where it stands on a curve, and how far it is from the one that the others are told against. */
export interface MarkerRow {
  /** Its place among the card's markers, and among the curves that are drawn. */
  marker: number;
  curve: number;
  spot: Spot;
  /** The marker that others are told against. */
  isBase: boolean;
  /** Differences; y null where the two curves have different units. Absent: nothing to be told against. */
  apart?: { x: number; y: number | null };
}

/** The markers of a card on its curves: each on every run's curve of its trace. */
export function markerRows({ markers, base, x }: Pick<CurvesCard, 'markers' | 'base' | 'x'>, drawn: readonly DrawnTrace[]): MarkerRow[] {
  const view = { from: x.min, to: x.max };
  const spots = markers.flatMap((marker, m) =>
    drawn.flatMap((d, n) => {
      const spot = d.trace === marker.trace ? spotOf(marker, d, view) : null;
      return spot ? [{ marker: m, curve: n, spot, isBase: base === m }] : [];
    }),
  );
  return spots.map((row) => {
    // Of the same curve, or the one of a trace that is no other run's of this one.
    const from = spots.find((s) => s.isBase && (s.curve === row.curve || drawn[s.curve].trace !== drawn[row.curve].trace));
    if (!from || row.isBase) return row;
    const alike = drawn[from.curve].unit === drawn[row.curve].unit;
    return { ...row, apart: { x: row.spot.x - from.spot.x, y: alike ? row.spot.y - from.spot.y : null } };
  });
}

/** A limit with what the curves on the left axis make of it: null where none reaches it, and where they come closest to breaking it or break it most. */
export type JudgedLimit = Limit & { ok: boolean | null; worst: { margin: number; at: number } | null };
/** The limits of a card, judged. */
export const judgedLimits = ({ limits }: Pick<CurvesCard, 'limits'>, drawn: readonly DrawnTrace[]): JudgedLimit[] =>
  limits.map((limit) => {
    const verdicts = drawn.filter((d) => d.axis === 'left').flatMap((d) => held(d, limit) ?? []);
    return {
      ...limit,
      ok: verdicts.length ? verdicts.every((v) => v.ok) : null,
      worst: verdicts.reduce<(typeof verdicts)[number] | null>((a, b) => (!a || b.margin < a.margin ? b : a), null),
    };
  });

/** A judged limit in words, by its number from 1; null where no curve reaches it. */
export const limitText = ({ ok, worst }: JudgedLimit, number: number, unit: string, over: Drawing['over']): string | null =>
  worst &&
  `${ok ? 'keeps' : 'breaks'} limit ${number}: ${valueText(Math.abs(worst.margin), unit)} ${ok ? 'to spare' : 'beyond'} at ${valueText(worst.at, overUnit[over], 5)}`;

/** Stretches of each curve on the wanted side of the card's level. */
export const bandStretches = ({ bandwidth }: Pick<CurvesCard, 'bandwidth'>, drawn: readonly DrawnTrace[]): Band[][] =>
  bandwidth ? drawn.map((d) => bands(d, bandwidth.level, bandwidth.side === 'below' ? -1 : 1)) : [];

/** Most stretches that are told of one curve. */
const mostBands = 4;
function bandText({ from, to, openFrom, openTo }: Band, over: Drawing['over']): string {
  const unit = overUnit[over];
  const share = from > 0 && over === 'frequency' ? `, ${((200 * (to - from)) / (to + from)).toPrecision(3)} %` : '';
  const ends = `${openFrom ? '≤ ' : ''}${valueText(from, unit, 5)} to ${openTo ? '≥ ' : ''}${valueText(to, unit, 5)}`;
  return `${openFrom || openTo ? 'at least ' : ''}${valueText(to - from, unit)} (${ends}${share})`;
}

/** The bandwidths of the curves of a card in words, a line each. `names` are those of the curves. */
export function bandLines({ bandwidth }: Pick<CurvesCard, 'bandwidth'>, { drawn, over }: Drawing, names: readonly string[]): string[] {
  if (!bandwidth) return [];
  return bandStretches({ bandwidth }, drawn).map((stretches, n) => {
    const told = stretches.slice(0, mostBands).map((b) => bandText(b, over));
    return `${names[n]}: ${bandwidth.side} ${valueText(bandwidth.level, drawn[n].unit)} ${told.join('; ') || 'nowhere'}`;
  });
}

/** The statistics of the curves of a card in words, a line for each that has values in the stretch. */
export function statisticsLines({ statistics: asked }: Pick<CurvesCard, 'statistics'>, { drawn, over }: Drawing, names: readonly string[]): string[] {
  if (!asked) return [];
  return drawn.flatMap((d, n) => {
    const s = statistics(d, asked.from, asked.to);
    if (!s) return [];
    const at = (x: number): string => valueText(x, overUnit[over], 5);
    const value = (y: number): string => valueText(y, d.unit);
    return [
      `${names[n]}: min ${value(s.min.y)} at ${at(s.min.x)}, max ${value(s.max.y)} at ${at(s.max.x)}, mean ${value(s.mean)}, peak to peak ${value(s.span)}`,
    ];
  });
}
