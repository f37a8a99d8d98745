import { valueAt } from '../curves/index.ts';
import type { CurvesCard, DataSet } from '../document/index.ts';
import { c0 } from '../numerics/constants.ts';
import { sameSolved } from '../numerics/tolerance.ts';
import { curveName, quantities } from './quantities.ts';
import type { RunReading } from './quantity.ts';
import { type FormedCurve, nameOfTrace, type Over, sourceOf, TraceCurves } from './traceSources.ts';

/** A reading with what tells it from others. */
export interface NamedReading extends RunReading {
  label: string;
  bare: boolean;
  /** Value of a parameter of its model in SI; null where it has none. */
  parameter(name: string): number | null;
}

/** A curve as it is drawn and read. */
export interface DrawnTrace {
  /** Its place among the card's traces, and the reading it is of; -1 for data. */
  trace: number;
  run: number;
  name: string;
  axis: 'left' | 'right';
  unit: string;
  x: Float64Array;
  y: Float64Array;
}

export interface Drawing {
  drawn: DrawnTrace[];
  /** What the traces are over. */
  over: Over;
  /** What could not be drawn and why, by trace. */
  faults: { trace: number; text: string }[];
}

type RunCurve = FormedCurve & { run: number };
type Labels = Pick<DrawnTrace, 'trace' | 'axis' | 'name'>;

/** A point of each run: the parameter's value, and the curve at the frequency of the lens. */
function overParameter(
  found: readonly RunCurve[],
  runs: readonly NamedReading[],
  parameter: string,
  frequency: number | null,
  labels: Labels,
): DrawnTrace[] {
  const points = found.flatMap((c) => {
    const x = runs[c.run].parameter(parameter);
    const y = frequency === null ? NaN : valueAt(c, frequency);
    return x === null || !Number.isFinite(y) ? [] : [{ x, y }];
  });
  points.sort((a, b) => a.x - b.x);
  if (!points.length) return [];
  return [{ ...labels, run: -1, unit: found[0].unit, x: Float64Array.from(points, (p) => p.x), y: Float64Array.from(points, (p) => p.y) }];
}

/** The curves of runs less that of the first, which then is not drawn. */
function lessFirst(found: readonly RunCurve[]): RunCurve[] {
  const [first, ...others] = found;
  return others.map((c) => ({ ...c, y: c.y.map((v, k) => v - valueAt(first, c.x[k])) }));
}

/** A curve over frequency as one over wavelength, where the order turns round. */
const overWavelength = (c: RunCurve): RunCurve =>
  c.over === 'frequency' ? { ...c, over: 'wavelength', x: c.x.map((f) => c0 / f).reverse(), y: c.y.slice().reverse() } : c;

/** Whether two curves of one run lie on one another: like modes of like ports do. */
function sameCurve(a: DrawnTrace, b: DrawnTrace): boolean {
  if (a.run !== b.run || a.axis !== b.axis || a.unit !== b.unit || a.x.length !== b.x.length) return false;
  let [most, apart] = [0, 0];
  for (let i = 0; i < a.y.length; i++) {
    if (a.x[i] !== b.x[i]) return false;
    most = Math.max(most, Math.abs(a.y[i]));
    if (a.y[i] !== b.y[i]) apart = Math.max(apart, Math.abs(a.y[i] - b.y[i]));
  }
  return apart <= sameSolved * most;
}

/** The traces of a card over what it asks for, of each run that has them. `frequency`, hertz, is where curves over a parameter are taken. */
export function drawTraces(
  card: Pick<CurvesCard, 'traces' | 'over' | 'differences'>,
  runs: readonly NamedReading[],
  data: readonly DataSet[],
  frequency: number | null,
): Drawing {
  const curves = new TraceCurves(card.traces, runs, data);
  const drawn: DrawnTrace[] = [];
  let over: Over | null = null;
  const alike = card.traces.length > 1 && new Set(card.traces.map((t) => t.quantity)).size === 1;
  const parameter = card.over !== 'own' && card.over !== 'wavelength' ? card.over : null;
  card.traces.forEach((t, i) => {
    const source = sourceOf(t);
    const ofData = source === 'data';
    const found = (ofData ? [-1] : runs.map((_, r) => r)).flatMap((run): RunCurve[] => {
      const curve = curves.of(i, run);
      return curve && curve.x.length ? [{ ...curve, run }] : [];
    });
    if (!found.length && !ofData && runs.length && !curves.faults.some((f) => f.trace === i))
      curves.fault(
        i,
        `No run that is shown has ${source === 'formula' ? 'the curves of this formula' : curveName(t.quantity, t.of, t.form, runs[0].meta)}.`,
      );
    const labels: Labels = { trace: i, axis: t.axis, name: nameOfTrace(t, alike, runs[0]?.meta) };
    if (parameter) {
      // Data are of no run, and so have no parameter.
      const points = ofData ? [] : overParameter(found, runs, parameter, frequency, labels);
      if (points.length) over ??= 'parameter';
      drawn.push(...points);
      return;
    }
    const apart = card.differences && !ofData && found.length > 0;
    const name = apart ? `${labels.name}, difference` : labels.name;
    for (const c of apart ? lessFirst(found) : found) {
      const shown = card.over === 'wavelength' ? overWavelength(c) : c;
      if (over && shown.over !== over) {
        curves.fault(i, `${labels.name} is over ${shown.over}, the others are over ${over}: put it on a card of its own.`);
        continue;
      }
      over ??= shown.over;
      const next = { ...labels, name, run: c.run, unit: c.unit, x: shown.x, y: shown.y };
      const same = quantities[t.quantity]?.group === 'lines' ? drawn.find((d) => sameCurve(d, next)) : undefined;
      if (same) same.name = `${same.name} and ${next.name}`;
      else drawn.push(next);
    }
  });
  return { drawn, over: over ?? (card.over === 'wavelength' ? 'wavelength' : 'frequency'), faults: curves.faults };
}

/** Arrays that the traces of a card need of a run, besides S. */
export const arraysOf = (card: Pick<CurvesCard, 'traces'>, meta: RunReading['meta']): string[] => [
  ...new Set(card.traces.flatMap((t) => quantities[t.quantity]?.needs?.(meta, t.of) ?? [])),
];
