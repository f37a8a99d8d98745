import { atPath, type Handle, type Line, placingSteps, type PlacingStep, shapeOf, standingOn, withPath } from '@jadebell/core/document';
import { formatSI } from '@jadebell/core/expressions/format';
import { dot } from '@jadebell/core/numerics';
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
  set({ placing: !now || now.last ? null : { ...placing, step: placing.step + 1, base: null, start: undefined, tall: undefined } });
}

const write = (name: string, change: (line: Line) => Line): void =>
  useProject.getState().edit(`place ${name}`, (d) => {
    const line = d.lines.find((l) => l.name === name);
    return line ? replaceEntry(d, 'lines', name, change(line)) : d;
  });

/** Places are written to so many digits, and a body is held on its face as exactly. */
const digits = 6;

/** From where to where along `up` the body of a line reaches, metres; null where it has none. */
function reach(name: string, up: Point): { low: number; high: number } | null {
  let [low, high] = [Infinity, -Infinity];
  for (const b of useModel.getState().view.bodies) {
    if (b.line !== name && b.name !== name) continue;
    for (let i = 0; i < b.positions.length; i += 3) {
      const d = b.positions[i] * up[0] + b.positions[i + 1] * up[1] + b.positions[i + 2] * up[2];
      low = Math.min(low, d);
      high = Math.max(high, d);
    }
  }
  return high < low ? null : { low, high };
}
const moved = (line: Line, at: readonly number[]): Line =>
  at.reduce((l, x, a) => withPath(l, `at.${a}`, formatSI(Math.abs(x) < 1e-12 ? 0 : x, 'length', digits)), line);

/** How far its own place lies above the lowest point of a line's body along `up`, metres; 0 where it has none. */
function footOf(name: string, up: Point): number {
  const values = useModel.getState().view.values[name];
  const found = values && reach(name, up);
  return found ? dot([values['at.0'], values['at.1'], values['at.2']], up) - found.low : 0;
}

/** Puts the line at a point on what has the normal `up`. */
export function placeAt(placing: Placing, point: Point, up: Point): void {
  // A line that turns is held once it is built anew.
  const foot = up.join() === placing.up.join() ? (placing.foot ?? footOf(placing.line, up)) : undefined;
  useStage.getState().set({ placing: { ...placing, up, on: point, foot } });
  write(placing.line, (line) => moved(standingOn(line, up), point.map((x, a) => x + (foot ?? 0) * up[a]))); // prettier-ignore
}

/** Moves a body that is being placed along the normal of its face until it stands on it, as it grows or turns. */
export function keepStanding(placing: Placing): void {
  const { on, up, line: name } = placing;
  const line = on && lineOf(name);
  if (!line) return;
  const found = footOf(name, up);
  // Drawings have single precision: what differs by no more is the same, or it would move to and fro.
  const same = placing.foot !== undefined && Math.abs(found - placing.foot) <= 1e-6 * (Math.abs(found) + Math.abs(dot(on, up)));
  const foot = same ? placing.foot! : found;
  if (!same) useStage.getState().set({ placing: { ...placing, foot } });
  const held = moved(line, on.map((x, a) => x + foot * up[a])); // prettier-ignore
  // The same place is no edit: each would have the model built anew, and come back here.
  if ([0, 1, 2].some((a) => atPath(held, `at.${a}`) !== atPath(line, `at.${a}`))) write(name, () => held);
}

/** What a ray is asked for: where it meets a plane, and where it is nearest to a line. */
export interface Ray {
  onPlane(through: readonly number[], normal: readonly number[]): Point | null;
  nearAxis(through: readonly number[], along: readonly number[]): Point | null;
}

/** Sizes to which the pointer pulls the handles of a step, rounded to `grain` metres: those across `up` by their handles, those along it by the height. */
export function pulled(
  handles: readonly Handle[],
  values: Readonly<Record<string, number>>,
  { up, on, tall }: Pick<Placing, 'up' | 'on' | 'tall'>,
  ray: Ray,
  grain: number,
): Record<string, number> {
  const out: Record<string, number> = {};
  for (const h of handles) {
    const rises = Math.abs(dot(h.along, up)) > 1e-6;
    const byHeight = rises && on && tall ? { on, tall } : null;
    const p = byHeight ? ray.nearAxis(byHeight.on, up) : rises ? ray.nearAxis(h.at, h.along) : ray.onPlane(h.at, up);
    if (!p) continue;
    const size = byHeight
      ? (values[h.path] * (dot(p, up) - dot(byHeight.on, up))) / byHeight.tall
      : values[h.path] + (dot(p, h.along) - dot(h.at, h.along)) * h.rate;
    out[h.path] = Math.max(grain, Math.round(Math.abs(size) / grain) * grain);
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
  const height = placing.base ? null : reach(placing.line, placing.up);
  const tall = height ? height.high - height.low : placing.tall;
  if (!placing.base) useStage.getState().set({ placing: { ...placing, base: now.step, start: { ...values }, tall } });
  const sizes = pulled(now.step.handles, start, { ...placing, tall }, ray, grain);
  write(placing.line, (line) => Object.entries(sizes).reduce((l, [path, v]) => withPath(l, path, formatSI(v, 'length', 4)), line));
}

/** Gives a value of the step by its text. */
export function typeValue(placing: Placing, path: string, text: string): void {
  // A place that is typed is not held on a face.
  if (path.startsWith('at.')) useStage.getState().set({ placing: { ...placing, on: undefined } });
  write(placing.line, (line) => withPath(line, path, text));
}

/** The texts of a step's values with what they are called. */
export const valuesOfStep = (line: Line, step: PlacingStep): { path: string; label: string; text: string }[] => {
  const labels = new Map(shapeOf(line).chips(line).map((c) => [c.path, c.label])); // prettier-ignore
  return step.handles.map(({ path }) => ({ path, label: labels.get(path) ?? path, text: String(atPath(line, path)) }));
};
