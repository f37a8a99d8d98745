import { type CurveMeasure, figureOf, type Quantity, takeKinds } from '../document/index.ts';
import { evaluateExpression, type Scope } from '../expressions/index.ts';
import {
  asSolved,
  curveForms,
  overUnit,
  unitInForm,
  quantities,
  type QuantityKind,
  type RunReading,
  viewNetwork,
  wavesOf,
} from '../reading/index.ts';
import type { ResultSet } from '../results/index.ts';

/** A measure of one result; without a value it says why. */
export interface Read {
  name: string;
  value: number | null;
  /** Unit of the value, SI but for angles, in degrees; empty for a plain number. */
  unit: string;
  /** The curve ends before the figure does: it is at least so much. */
  open?: boolean;
  why?: string;
}

const measured: Record<QuantityKind['over'], [quantity: Quantity, toCurve: number]> = {
  frequency: ['frequency', 1],
  time: ['time', 1],
  angle: ['angle', 180 / Math.PI],
};

/** A result as curves are taken from it: as it was solved. */
export function readingOf({ meta, arrays }: ResultSet): RunReading {
  const frequency = arrays.frequency?.data ?? new Float64Array(0);
  return {
    meta,
    frequency,
    network: arrays.s ? viewNetwork(meta, frequency, arrays.s, arrays.beta, asSolved) : null,
    waves: wavesOf(meta, null),
    array: (name) => arrays[name],
  };
}

/** Of what a curve is: as on cards. */
export type CurveOf = Pick<CurveMeasure, 'quantity' | 'of' | 'form'>;

/** Arrays of a result that a curve is read from. */
export const arraysOfCurve = ({ quantity, of }: CurveOf, meta: ResultSet['meta']): string[] => {
  const kind = quantities[quantity];
  return ['frequency', 's', 'beta', ...(kind?.needs?.(meta, of || (kind.terms(meta)[0]?.key ?? '')) ?? [])];
};

/** A curve of a result in a form. */
export interface FoundCurve {
  x: ArrayLike<number>;
  y: Float64Array;
  /** Of the curve; angles in degrees. */
  unit: string;
  over: QuantityKind['over'];
}

/** A curve read from a result, or why there is none. */
export function readCurve({ quantity, of: wanted, form: asked }: CurveOf, run: RunReading): FoundCurve | { why: string } {
  const kind = quantities[quantity];
  if (!kind) return { why: `There is no quantity named ${quantity}.` };
  const terms = kind.terms(run.meta);
  const of = wanted || terms[0]?.key;
  if (of === undefined || !terms.some((t) => t.key === of))
    return { why: `The result has no ${kind.title.toLowerCase()}${wanted ? ` of ${wanted}` : ''}.` };
  const curve = kind.curve(run, of);
  if (!curve) return { why: `The result has no ${kind.title.toLowerCase()} of ${of}.` };
  const form = asked ?? kind.forms[0];
  return { x: curve.x, y: curveForms[form].of(curve), unit: unitInForm(quantity, form, kind.unit), over: kind.over };
}

/** The unit that a figure of a curve is told in; null where its quantity is not known. */
export function unitOfTaken({ quantity, form, take }: CurveMeasure): string | null {
  const kind = quantities[quantity];
  if (!kind) return null;
  if (takeKinds[take].of === 'place') return overUnit[kind.over];
  return unitInForm(quantity, form ?? kind.forms[0], kind.unit);
}

/** A figure of a curve read from a result, with the parameters that the result was solved for. */
export function readTaken(measure: CurveMeasure, run: RunReading, scope: Scope): Read {
  const none = (why: string): Read => ({ name: measure.name, value: null, unit: '', why });
  const curve = readCurve(measure, run);
  if ('why' in curve) return none(curve.why);
  const [quantity, toCurve] = measured[curve.over];
  let refused: string | null = null;
  const place = (text: string | undefined, field: string): number | undefined => {
    if (text === undefined) return undefined;
    const found = evaluateExpression(text, quantity, scope, { part: 'measures', name: measure.name, chip: field });
    if ('si' in found) return found.si * toCurve;
    refused ??= `${found.problem.message} ${found.problem.fix}`;
    return NaN;
  };
  const taken = figureOf(measure, { ...curve, decibels: curve.unit === 'dB' || curve.unit === 'dBi' }, place);
  if (refused || !taken) return none(refused ?? 'The curve has no value there.');
  const unit = taken.of === 'curve' ? curve.unit : overUnit[curve.over];
  return { name: measure.name, value: taken.value, unit, ...(taken.open ? { open: true } : {}) };
}
