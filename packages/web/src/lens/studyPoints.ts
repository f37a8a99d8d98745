import type { StudyView } from '@jadebell/api';
import type { Run } from '../api/types.ts';

/** A point of a study with the run that can be looked at. */
export interface Place {
  values: Record<string, number>;
  run: Run;
}

/** The points of a study whose runs are at hand, in its order. */
export const placesOf = ({ points }: StudyView, runs: readonly Run[]): Place[] =>
  points.flatMap(({ values, run: told }) => {
    const run = told && runs.find((r) => r.id === told.id);
    return run ? [{ values, run }] : [];
  });

/** The point with a value of one parameter that agrees with where one is in most of the others; of alike ones that which is nearest in them. */
export function pointTowards(places: readonly Place[], here: Place, parameter: string, value: number): Place | undefined {
  const others = Object.keys(here.values).filter((p) => p !== parameter);
  const away = (p: Place): number => others.reduce((sum, o) => sum + Math.abs(p.values[o] - here.values[o]) / (Math.abs(here.values[o]) || 1), 0);
  return places
    .filter((p) => p.values[parameter] === value)
    .reduce<Place | undefined>((best, p) => (!best || away(p) < away(best) ? p : best), undefined);
}
