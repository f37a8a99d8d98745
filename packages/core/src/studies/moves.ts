import { z } from 'zod';
import { expression, parameterName } from '../entries/index.ts';
import { endsOf, type Spread } from '../searching/index.ts';

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
  /**
   * `own`: its value in the project.
   * @throws MoveFault where they make no sense.
   */
  values(move: z.output<z.ZodObject<F>>, number: NumberOf, own: number): number[];
  /** Takes any value between its first and its last, where points are spread. */
  between?: boolean;
  /** How it is spread, where that is another thing than each of its values as likely as the others, and how far its middle may be moved. */
  varies?(move: z.output<z.ZodObject<F>>, number: NumberOf, own: number): Varies;
}
/** How a parameter is spread in SI, and how far its middle may be moved. */
export interface Varies {
  spread: Spread;
  shift: number;
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
  varies: (move, number) => ({ spread: { kind: 'even', from: number(move.from, 'from'), to: number(move.to, 'to') }, shift: 0 }),
});

const about = {
  about: expression.optional().describe('Its middle; absent: its value in the project'),
  shift: expression.optional().describe('How far the middle may be moved where that makes more cases keep the goals; absent: it stays'),
};
/**
 * How far its middle may be moved.
 * @throws MoveFault for less than nothing.
 */
function shiftOf(move: { shift?: string }, number: NumberOf): number {
  const shift = move.shift === undefined ? 0 : number(move.shift, 'shift');
  if (shift < 0) throw new MoveFault('The middle moves by less than nothing.', 'Give an amount above zero.', 'shift');
  return shift;
}
/**
 * The ends of what is spread, and of what its middle may come to.
 * @throws MoveFault where it varies by nothing.
 */
function spreadEnds({ spread, shift }: Varies): number[] {
  const [from, to] = endsOf(spread);
  if (!(to > from)) throw new MoveFault('It varies by nothing.', 'Give an amount above zero.', 'by');
  return [from - shift, to + shift];
}

interface About {
  by: string;
  about?: string;
  shift?: string;
}
const middleOf = (move: About, number: NumberOf, own: number): number => (move.about === undefined ? own : number(move.about, 'about'));
function evenAbout(move: About, number: NumberOf, own: number): Varies {
  const [middle, by] = [middleOf(move, number, own), number(move.by, 'by')];
  return { spread: { kind: 'even', from: middle - by, to: middle + by }, shift: shiftOf(move, number) };
}
function normalAbout(move: About & { cut?: number }, number: NumberOf, own: number): Varies {
  const deviation = number(move.by, 'by');
  // Of one below zero its ends lie the wrong way round, which is refused.
  return {
    spread: { kind: 'normal', middle: middleOf(move, number, own), deviation, ...(move.cut ? { cut: move.cut } : {}) },
    shift: shiftOf(move, number),
  };
}

const within = defineMove({
  how: 'within',
  title: 'varies, anywhere within so much of its value',
  word: 'vary by at most',
  fields: { by: expression.describe('As far as it is off at most'), ...about },
  between: true,
  varies: evenAbout,
  values: (move, number, own) => spreadEnds(evenAbout(move, number, own)),
});

const normal = defineMove({
  how: 'normal',
  title: 'varies, normally about its value',
  word: 'vary normally by',
  fields: {
    by: expression.describe('Standard deviation'),
    cut: z.number().min(0.5).max(6).optional().describe('No value is farther off than so many deviations; absent: it is not cut'),
    ...about,
  },
  between: true,
  varies: normalAbout,
  values: (move, number, own) => spreadEnds(normalAbout(move, number, own)),
});

/** All ways in which a parameter moves. A new one is an entry here. */
export const moveKinds = { list, count, step, range, within, normal } as const;

/** Digits to which values are taken: 0.1 + 0.2 and 0.3 are one point. */
const digits = 14;

const parameter = parameterName.min(1).describe('The parameter that moves');
const schemaOf = <K extends string, F extends z.ZodRawShape>(kind: MoveKind<K, F>) =>
  z.strictObject({ parameter, how: z.literal(kind.how), ...kind.fields });
export const moveSchema = z.discriminatedUnion('how', [
  schemaOf(list),
  schemaOf(count),
  schemaOf(step),
  schemaOf(range),
  schemaOf(within),
  schemaOf(normal),
]);
export type Move = z.infer<typeof moveSchema>;

/** Whether a parameter varies about what it should be, so that its ways are asked for all that may come. */
export const variesAbout = (move: Move): boolean => 'by' in move && 'about' in moveKinds[move.how].fields;

/**
 * The values that a parameter takes, in SI; `own`: its value in the project.
 * @throws MoveFault where they make no sense.
 */
export const valuesOf = (move: Move, number: NumberOf, own: number): number[] =>
  moveKinds[move.how].values(move as never, number, own).map((v) => Number(v.toPrecision(digits)));

/** How a parameter is spread, in SI; each of its values as likely as the others where its way says no more. */
export const variesOf = (move: Move, number: NumberOf, own: number): Varies => {
  const kind: { varies?(m: never, n: NumberOf, o: number): Varies } = moveKinds[move.how];
  return kind.varies?.(move as never, number, own) ?? { spread: { kind: 'list', values: valuesOf(move, number, own) }, shift: 0 };
};
