import { type Place, type Point3, type Problem, problem } from '../document/index.ts';
import type { Body } from '../geometry/index.ts';
import { evaluateChips, type Scope } from '../expressions/index.ts';
import { isFault, ownValues, type Placed, type PlacedRecorder, type Recorder, recorderChips, recorderKind } from '../recorders/index.ts';
import type { Mirrors } from '../yee/index.ts';
import { sameNumber } from '../numerics/tolerance.ts';

/** Numbers of the frequencies that a recorder keeps, of so many; absent: all. */
export const numbersOf = (kept: readonly number[] | undefined, of: number): readonly number[] => kept ?? Array.from({ length: of }, (_, f) => f);

/** What a result says of a recorder's frequencies: nothing where it keeps all. */
export const frequenciesOf = (kept: readonly number[] | undefined, all: readonly number[]): { frequencies?: number[] } =>
  kept ? { frequencies: kept.map((f) => all[f]) } : {};

/** A recorder in its place, and the frequencies of its own, hertz: none where it has those of the project. */
export interface Located {
  recorder: PlacedRecorder;
  own: number[];
}

/** Places a recorder of the document. `bodies` are those that the model has. */
export function placeRecorder(recorder: Recorder, scope: Scope, bodies: readonly Body[]): Located | { problems: Problem[] } {
  const place: Place = { part: 'recorders', name: recorder.name };
  const { values, problems } = evaluateChips(recorder, recorderChips(recorder), scope, place);
  if (!values) return { problems };
  const found = recorderKind(recorder).resolve(recorder as never, values, bodies);
  if (isFault(found)) return { problems: [problem('error', found.code, { ...place, chip: found.chip }, found.fault, found.fix)] };
  return { recorder: { kind: recorder.kind, name: recorder.name, ...found } as PlacedRecorder, own: ownValues(recorder, values) };
}

/** A recorder in the half that is computed, or what stands against it. Where it lies behind a plane, its image is taken. */
export function mirrorRecorder(r: PlacedRecorder, mirrors: Mirrors): { kept: PlacedRecorder } | { problem: Problem } {
  const found = recorderKind(r).mirror?.(r, mirrors) ?? r;
  return isFault(found)
    ? { problem: problem('error', found.code, { part: 'recorders', name: r.name, chip: found.chip }, found.fault, found.fix) }
    : { kept: found as PlacedRecorder };
}

/** Tells of a recorder that does not lie in the computed region, and where. */
export function recorderOutside(r: PlacedRecorder, min: Point3, max: Point3): Problem | null {
  const slack = sameNumber * Math.max(...max.map((m, a) => m - min[a]));
  const out = (x: number, a: number): boolean => x < min[a] - slack || x > max[a] + slack;
  const found = recorderKind(r).outside?.(r, { min, max, out });
  return found
    ? problem(
        'error',
        'recorder.outside',
        { part: 'recorders', name: r.name, chip: found.chip },
        `The ${found.what} lies outside the computed region.`,
        'Move it closer to the bodies, or widen the margin.',
      )
    : null;
}

/** The far field that a scene asks for, if it does. */
export const farFieldOf = (scene: { recorders: readonly PlacedRecorder[] }): Placed<'far-field'> | undefined =>
  scene.recorders.find((r): r is Placed<'far-field'> => r.kind === 'far-field');
