import { atPath, type Handle, type Line, placingSteps, type PlacingStep, shapeOf, standingOn, withPath } from '@jadebell/core/document';
import { formatSI } from '@jadebell/core/expressions/format';
import { replaceEntry } from '../project/edits.ts';
import { useModel } from '../project/model.ts';
import { useProject } from '../project/store.ts';
import { type Placing, useStage } from '../project/stageState.ts';

type Point = [number, number, number];

const floor: Point = [0, 0, 1];

/** Lines that can be placed by hand have a position in space. */
export const canPlace = (line: Line): boolean =>
  shapeOf(line)
    .chips(line)
    .some((c) => c.path === 'at.2');

/** Begins to place a line that was just added. */
export const startPlacing = (name: string): void => useStage.getState().set({ placing: { line: name, step: 0, up: floor, base: null } });
export const stopPlacing = (): void => useStage.getState().set({ placing: null });

const lineOf = (name: string): Line | undefined => useProject.getState().document?.lines.find((l) => l.name === name);

/** The step that placing is at; null where the line is gone or not built yet. */
export function stepOf({ line: name, step, up, base }: Placing): { line: Line; step: PlacingStep; last: boolean } | null {
  const line = lineOf(name);
  const values = useModel.getState().view.values[name];
  if (!line || !values) return null;
  const steps = placingSteps(line, values, up);
  const now = base ?? steps[step];
  return now ? { line, step: now, last: step >= steps.length - 1 } : null;
}

/** Goes on to the next step, or ends. */
export function nextStep(): void {
  const { placing, set } = useStage.getState();
  if (!placing) return;
  const now = stepOf(placing);
  set({ placing: !now || now.last ? null : { ...placing, step: placing.step + 1, base: null, start: undefined } });
}

const write = (name: string, change: (line: Line) => Line): void =>
  useProject.getState().edit(`place ${name}`, (d) => {
    const line = d.lines.find((l) => l.name === name);
    return line ? replaceEntry(d, 'lines', name, change(line)) : d;
  });

/** Puts the line at a point on what has the normal `up`. */
export function placeAt(placing: Placing, point: Point, up: Point): void {
  if (up.join() !== placing.up.join()) useStage.getState().set({ placing: { ...placing, up } });
  write(placing.line, (line) => point.reduce((l, x, a) => withPath(l, `at.${a}`, formatSI(x, 'length', 6)), standingOn(line, up)));
}

/** What a ray is asked for: where it meets a plane, and where it is nearest to a line. */
export interface Ray {
  onPlane(through: readonly number[], normal: readonly number[]): Point | null;
  nearAxis(through: readonly number[], along: readonly number[]): Point | null;
}

/** Sizes to which the pointer pulls the handles of a step, rounded to `grain` metres. */
export function pulled(
  handles: readonly Handle[],
  values: Readonly<Record<string, number>>,
  up: Point,
  ray: Ray,
  grain: number,
): Record<string, number> {
  const out: Record<string, number> = {};
  for (const h of handles) {
    const flat = Math.abs(h.along.reduce((s, d, i) => s + d * up[i], 0)) < 1e-6;
    const p = flat ? ray.onPlane(h.at, up) : ray.nearAxis(h.at, h.along);
    if (!p) continue;
    const by = p.reduce((s, x, i) => s + (x - h.at[i]) * h.along[i], 0);
    out[h.path] = Math.max(grain, Math.round(Math.abs(values[h.path] + by * h.rate) / grain) * grain);
  }
  return out;
}

/** Sizes the line by where the pointer is. */
export function sizeTo(placing: Placing, ray: Ray, grain: number): void {
  const values = useModel.getState().view.values[placing.line];
  const now = stepOf(placing);
  if (!now || !values) return;
  // Sizes count from where the step began: the handles move with them.
  const start = placing.start ?? values;
  if (!placing.base) useStage.getState().set({ placing: { ...placing, base: now.step, start: { ...values } } });
  const sizes = pulled(now.step.handles, start, placing.up, ray, grain);
  write(placing.line, (line) => Object.entries(sizes).reduce((l, [path, v]) => withPath(l, path, formatSI(v, 'length', 4)), line));
}

/** Gives a value of the step by its text. */
export const typeValue = (placing: Placing, path: string, text: string): void => write(placing.line, (line) => withPath(line, path, text));

/** The texts of a step's values with what they are called. */
export const valuesOfStep = (line: Line, step: PlacingStep): { path: string; label: string; text: string }[] => {
  const labels = new Map(shapeOf(line).chips(line).map((c) => [c.path, c.label])); // prettier-ignore
  return step.handles.map(({ path }) => ({ path, label: labels.get(path) ?? path, text: String(atPath(line, path)) }));
};
