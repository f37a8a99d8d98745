import { z } from 'zod';
import { expression, parameterName } from '../entries/index.ts';

/** What is wrong with how a parameter moves: in words, what to do, and at which field. */
export class MoveFault extends Error {
  constructor(
    message: string,
    readonly fix: string,
    readonly field: string,
  ) {
    super(message);
    this.name = 'MoveFault';
  }
}

/** Values that one parameter may take in a study. */
export const mostValues = 10_000;

/** Value of an expression of a move, in SI and of the parameter's own measure. */
export type NumberOf = (text: string, field: string) => number;

/** How a parameter moves: its words, its fields, and the values it takes. */
interface MoveKind<K extends string, F extends z.ZodRawShape> {
  how: K;
  title: string;
  /** How a sentence goes on after the parameter: 'bend from', 'bend in steps from'. */
  word: string;
  fields: F;
  /** @throws MoveFault where they make no sense. */
  values(move: z.output<z.ZodObject<F>>, number: NumberOf): number[];
  /** Takes any value between its first and its last, where points are spread. */
  between?: boolean;
}
const defineMove = <K extends string, F extends z.ZodRawShape>(d: MoveKind<K, F>): MoveKind<K, F> => d;

const list = defineMove({
  how: 'list',
  title: 'takes each of some values',
  word: 'through',
  fields: { values: z.array(expression).min(1).max(mostValues) },
  values: ({ values }, number) => values.map((text, i) => number(text, `values.${i}`)),
});

const between = { from: expression, to: expression };

const count = defineMove({
  how: 'count',
  title: 'from one value to another in so many points',
  word: 'from',
  fields: {
    ...between,
    points: z.number().int().min(2).max(mostValues),
    spacing: z.enum(['linear', 'logarithmic']).default('linear').describe('logarithmic: each the same share above the one before'),
  },
  values(move, number) {
    const [from, to] = [number(move.from, 'from'), number(move.to, 'to')];
    const at = (n: number): number => n / (move.points - 1);
    if (from === to) throw new MoveFault('It goes from a value to the same.', 'Give two values that differ.', 'to');
    if (move.spacing === 'linear') return Array.from({ length: move.points }, (_, n) => from + (to - from) * at(n));
    if (!(from * to > 0))
      throw new MoveFault('Logarithmic steps cannot pass or touch zero.', 'Give two values on one side of zero, or linear steps.', 'spacing');
    return Array.from({ length: move.points }, (_, n) => from * (to / from) ** at(n));
  },
});

const step = defineMove({
  how: 'step',
  title: 'from one value to another by steps of a size',
  word: 'in steps from',
  fields: { ...between, by: expression },
  values(move, number) {
    const [from, to, by] = [number(move.from, 'from'), number(move.to, 'to'), number(move.by, 'by')];
    const steps = (to - from) / by;
    if (!(steps > 0))
      throw new MoveFault('Steps of this size never come from the first value to the last.', 'Give a step towards the last value.', 'by');
    // A step that does not divide the way ends before the last value.
    const points = Math.floor(steps + 1e-9) + 1;
    if (points < 2) throw new MoveFault('One step is longer than the whole way.', 'Give a smaller step.', 'by');
    if (points > mostValues)
      throw new MoveFault(
        `Such steps make ${points.toLocaleString('en')} values; ${mostValues.toLocaleString('en')} are the most.`,
        'Give a larger step.',
        'by',
      );
    return Array.from({ length: points }, (_, n) => from + by * n);
  },
});

const range = defineMove({
  how: 'range',
  title: 'anywhere between two values',
  word: 'anywhere between',
  fields: between,
  between: true,
  values(move, number) {
    const [from, to] = [number(move.from, 'from'), number(move.to, 'to')];
    if (from === to) throw new MoveFault('It goes from a value to the same.', 'Give two values that differ.', 'to');
    return [from, to];
  },
});

/** All ways in which a parameter moves. A new one is an entry here. */
export const moveKinds = { list, count, step, range } as const;

/** Digits to which values are taken: 0.1 + 0.2 and 0.3 are one point. */
const digits = 14;

const parameter = parameterName.min(1).describe('The parameter that moves');
const schemaOf = <K extends string, F extends z.ZodRawShape>(kind: MoveKind<K, F>) =>
  z.strictObject({ parameter, how: z.literal(kind.how), ...kind.fields });
export const moveSchema = z.discriminatedUnion('how', [schemaOf(list), schemaOf(count), schemaOf(step), schemaOf(range)]);
export type Move = z.infer<typeof moveSchema>;

/**
 * The values that a parameter takes, in SI.
 * @throws MoveFault where they make no sense.
 */
export const valuesOf = (move: Move, number: NumberOf): number[] =>
  moveKinds[move.how].values(move as never, number).map((v) => Number(v.toPrecision(digits)));
