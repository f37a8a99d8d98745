import { z } from 'zod';
import { forms } from '../cards/index.ts';
import { bands, type Curve, statistics, valueAt } from '../curves/index.ts';
import { expression, nameText } from '../entries/index.ts';

/** A figure of a curve: a value of the curve itself, or a place or width of what the curve is over. */
export interface Taken {
  value: number;
  of: 'curve' | 'place';
  /** The curve ends before the figure does: it is at least so much. */
  open?: boolean;
}

/** A curve as figures are taken of it; one in decibels is so also between its samples. */
export interface Measured extends Curve {
  decibels?: boolean;
}

/** What is taken of a curve as one figure: its words, its fields, and the figure; null where the curve has none. */
interface TakeKind<K extends string, F extends z.ZodRawShape> {
  take: K;
  title: string;
  /** Whether it is a value of the curve, or a place or width of what the curve is over. */
  of: Taken['of'];
  fields: F;
  /** `place` gives the value of an expression of what the curve is over, or undefined where it is absent. */
  figure(measure: z.output<z.ZodObject<F>>, curve: Measured, place: (text: string | undefined, field: string) => number | undefined): Taken | null;
}
const defineTake = <K extends string, F extends z.ZodRawShape>(d: TakeKind<K, F>): TakeKind<K, F> => d;

const stretch = {
  from: expression.optional().describe('Where it begins; absent: with the curve'),
  to: expression.optional().describe('Where it ends; absent: with the curve'),
};

/**
 * Where a curve turns about a sample: the vertex of the parabola through it and its neighbours, of powers where the curve is in decibels, as those are
 * smooth where a dip in decibels is not; the sample itself at an end.
 */
function turningOf({ x, y, decibels }: Measured, at: number): number {
  let i = 0;
  while (i < x.length && x[i] !== at) i++;
  if (i < 1 || i > x.length - 2) return at;
  const [a, b, c] = [-1, 0, 1].map((d) => (decibels ? 10 ** (y[i + d] / 10) : y[i + d]));
  const [left, right] = [(b - a) / (x[i] - x[i - 1]), (c - b) / (x[i + 1] - x[i])];
  // At the end of a stretch a curve may go on rising: there it does not turn.
  if (left * right >= 0) return at;
  const bend = (right - left) / (x[i + 1] - x[i - 1]);
  return (x[i] + x[i - 1]) / 2 - left / (2 * bend);
}

/** A figure of the samples in a stretch. */
const over = <K extends string>(
  take: K,
  title: string,
  of: Taken['of'],
  value: (s: NonNullable<ReturnType<typeof statistics>>, curve: Measured) => number,
) =>
  defineTake({
    take,
    title,
    of,
    fields: stretch,
    figure(measure, curve, place) {
      const found = statistics(curve, place(measure.from, 'from'), place(measure.to, 'to'));
      return found && { value: value(found, curve), of };
    },
  });

const at = defineTake({
  take: 'at',
  title: 'the value at a place',
  of: 'curve',
  fields: { at: expression.describe('Frequency, time or angle') },
  figure(measure, curve, place) {
    const value = valueAt(curve, place(measure.at, 'at')!);
    return Number.isFinite(value) ? { value, of: 'curve' } : null;
  },
});
const width = defineTake({
  take: 'width',
  title: 'the widest stretch on one side of a level',
  of: 'place',
  fields: { level: z.number().describe('In the unit of the curve'), side: z.enum(['below', 'above']) },
  figure(measure, curve) {
    const widest = bands(curve, measure.level, measure.side === 'below' ? -1 : 1).reduce<ReturnType<typeof bands>[number] | null>(
      (best, b) => (!best || b.to - b.from > best.to - best.from ? b : best),
      null,
    );
    if (!widest) return { value: 0, of: 'place' };
    return { value: widest.to - widest.from, of: 'place', ...(widest.openFrom || widest.openTo ? { open: true } : {}) };
  },
});
const least = over('least', 'the least value', 'curve', (s) => s.min.y);
const most = over('most', 'the largest value', 'curve', (s) => s.max.y);
const mean = over('mean', 'the mean value', 'curve', (s) => s.mean);
const whereLeast = over('where-least', 'where it is least', 'place', (s, curve) => turningOf(curve, s.min.x));
const whereMost = over('where-most', 'where it is largest', 'place', (s, curve) => turningOf(curve, s.max.x));

/** Everything that can be taken of a curve. A new figure is an entry here. */
export const takeKinds = { at, least, most, mean, 'where-least': whereLeast, 'where-most': whereMost, width } as const;

const common = {
  name: nameText,
  quantity: z.string().min(1).max(40).describe('Of which curve, as on cards: s, input, gain, ...'),
  of: z.string().max(300).default('').describe('Of which term, port, mode or recorder; absent: the first'),
  form: z.enum(forms).optional().describe('Absent: the first that suits the quantity'),
  note: z.string().max(500).optional(),
};
const schemaOf = <K extends string, F extends z.ZodRawShape>(kind: TakeKind<K, F>) =>
  z.strictObject({ ...common, take: z.literal(kind.take), ...kind.fields });
const formulaSchema = z.strictObject({
  name: common.name,
  take: z.literal('formula'),
  formula: expression.describe('Of other measures, by their names, and parameters'),
  note: common.note,
});
/** A named figure that is read from each result, or made of others. */
export const measureSchema = z.discriminatedUnion('take', [
  schemaOf(at),
  schemaOf(least),
  schemaOf(most),
  schemaOf(mean),
  schemaOf(whereLeast),
  schemaOf(whereMost),
  schemaOf(width),
  formulaSchema,
]);
export type Measure = z.infer<typeof measureSchema>;
/** A measure that is made of others. */
export type FormulaMeasure = z.infer<typeof formulaSchema>;
/** A measure that is taken of a curve. */
export type CurveMeasure = Exclude<Measure, FormulaMeasure>;
/** Whether a measure is made of others. */
export const isFormula = (measure: Measure): measure is FormulaMeasure => measure.take === 'formula';
/** Everything that a measure can be, in words. */
export const takeTitles: Record<Measure['take'], string> = {
  ...(Object.fromEntries(Object.values(takeKinds).map((k) => [k.take, k.title])) as Record<CurveMeasure['take'], string>),
  formula: 'a formula of others',
};

/** The figure that a measure takes of a curve; null where the curve has none. */
export const figureOf = (
  measure: CurveMeasure,
  curve: Measured,
  place: (text: string | undefined, field: string) => number | undefined,
): Taken | null => takeKinds[measure.take].figure(measure as never, curve, place);
