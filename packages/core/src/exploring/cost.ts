import { durationText, formatSI } from '../expressions/index.ts';
import { type Plan, type Point, studyText } from './points.ts';

/** Most points of which each is looked at for what it costs; of more only these, spread over them. */
const looked = 24;

/** Places of the points by which the cost of a study is told. */
export function pointsLookedAt(points: readonly unknown[]): number[] {
  const step = Math.max(1, (points.length - 1) / (looked - 1));
  return [...new Set(Array.from({ length: Math.min(looked, points.length) }, (_, n) => Math.round(n * step)))];
}

/** What a point that was looked at costs, or why it cannot be solved. */
export type PointCost = { at: number } & ({ seconds: number } | { fault: string });

/** What a study costs. */
export interface Cost {
  /** Of `points` points; null where none that was looked at can be solved. */
  seconds: number | null;
  dearest: { at: number; seconds: number } | null;
  faults: { at: number; fault: string }[];
}

/** The cost of so many points of a study by those that were looked at. */
export function costOf(looks: readonly PointCost[], points: number): Cost {
  const good = looks.filter((c) => 'seconds' in c);
  const faults = looks.filter((c) => 'fault' in c);
  const dearest = good.reduce<(typeof good)[number] | null>((best, c) => (!best || c.seconds > best.seconds ? c : best), null);
  const mean = good.reduce((sum, c) => sum + c.seconds, 0) / good.length;
  return { seconds: good.length ? (mean * points * good.length) / looks.length : null, dearest, faults };
}

/** A point in words: 'bend 34 mm, width 1 mm'. */
export const pointText = (values: Point['values'], moved: Plan['moved']): string =>
  moved.map((m) => `${m.parameter} ${formatSI(values[m.parameter], m.measure)}`).join(', ');

/** What a study is and costs, in words; points that cannot be solved are told. */
export function costText(name: string, plan: Pick<Plan, 'moved'> & { points: readonly Pick<Point, 'values'>[] }, cost: Cost): string {
  const at = (n: number): string => pointText(plan.points[n].values, plan.moved);
  const head = `${name}: ${studyText(plan.moved)}; ${plan.points.length} points`;
  const faults = cost.faults.map((f) => `  ${at(f.at)}: ${f.fault}`);
  if (!cost.dearest) return [head, ...faults].join('\n');
  const { dearest } = cost;
  return [`${head}, about ${durationText(cost.seconds!)} in all; the longest, ${at(dearest.at)}, ${durationText(dearest.seconds)}`, ...faults].join(
    '\n',
  );
}
