import type { Quantity } from '../entries/index.ts';
import { type Formula, FormulaFault, formulas } from '../formulas/index.ts';
import { type Node, parse, SyntaxFault } from '../syntax/index.ts';
import { alike, Amount, functions, measure, measures, negated, operations, unit, type Value } from './amount.ts';
import { type constantNames, functionNames, unitNameList } from './names.ts';
import { type Reference, referenceOf } from './reference.ts';

export type { Value } from './amount.ts';

/** A number in SI as a value with what it measures. */
export const valueOf = (si: number, quantity: Exclude<Quantity, 'number'> | 'area' | 'volume' | 'number'): Value =>
  quantity === 'number' ? si : new Amount(si, measures[quantity]);

const over = (a: string, b: string): Amount => operations['/'](unit(a), unit(b)) as Amount;
const constants: Record<(typeof constantNames)[number], Value> = {
  pi: Math.PI,
  e: Math.E,
  c0: new Amount(299792458, over('m', 's').dimensions),
  eps0: new Amount(8.8541878128e-12, over('F', 'm').dimensions),
  mu0: new Amount(1.25663706212e-6, over('H', 'm').dimensions),
  eta0: new Amount(376.730313668, measures.resistance),
};
/** Names that have a value everywhere. */
const builtins: ReadonlyMap<string, Value> = new Map<string, Value>([
  ...unitNameList.map((n) => [n, unit(n)] as const),
  ...Object.entries(constants),
]);

/** An expression that cannot be used, with the reason and the cure. */
export class ExpressionFault extends Error {
  constructor(
    readonly code: string,
    message: string,
    readonly fix: string,
  ) {
    super(message);
  }
}

export interface Compiled {
  /** Names of parameters that the expression uses. */
  uses: string[];
  /** References to geometry. */
  references: Reference[];
  /** Values in SI by what was asked for, of an expression that is the same for ever. */
  fixed: Map<Quantity, number> | null;
  /** The value. `notes` receives a sentence for each function used outside its range of validity. */
  evaluate(parameter: (name: string) => Value | undefined, geometry: (reference: Reference) => Value, notes?: string[]): Value;
}

/** Whence an evaluation takes what it does not know, and where it leaves its notes. */
interface Around {
  parameter(name: string): Value | undefined;
  geometry(reference: Reference): Value;
  notes?: string[];
}
type Evaluated = (around: Around) => Value;

const formulaOf: ReadonlyMap<string, Formula> = new Map(formulas.map((f) => [f.name, f]));

/**
 * A design function of quantities, each checked against what it must measure.
 * @throws ExpressionFault where one is missing or does not fit.
 */
function applied(formula: Formula, given: readonly Value[], around: Around): Value {
  const si = formula.args.map((arg, i) => {
    if (i >= given.length) {
      if (arg.otherwise !== undefined) return arg.otherwise;
      throw new ExpressionFault('function.arguments', `${formula.name} lacks its ${arg.name}, the ${arg.about}.`, `Write ${shapeOf(formula)}.`);
    }
    const v = toSI(given[i], arg.quantity, `the ${arg.name} of ${formula.name}`);
    if (!arg.anyReal && v <= 0)
      throw new ExpressionFault(
        'function.arguments',
        `The ${arg.about} (${arg.name}) of ${formula.name} is not above zero.`,
        'Give a positive value.',
      );
    return v;
  });
  try {
    const { si: value, outside } = formula.compute(si);
    if (outside) around.notes?.push(outside);
    return valueOf(value, formula.result);
  } catch (error) {
    if (error instanceof FormulaFault) throw new ExpressionFault('function.impossible', error.message, error.fix);
    throw error;
  }
}
const shapeOf = (formula: Formula): string => `${formula.name}(${formula.args.map((a) => a.name).join(', ')})`;

const maxNodes = 200;
const cache = new Map<string, Compiled>();

/** What a text was read to before, or undefined. */
export const knownCode = (text: string): Compiled | undefined => cache.get(text);

/**
 * Reads an expression of the restricted language: numbers, units, names, + - * / ^, brackets and the functions of `names.ts`; at most 300 characters
 * and 200 terms.
 * @throws ExpressionFault where the text is no expression.
 */
export function compile(text: string): Compiled {
  const known = cache.get(text);
  if (known) return known;
  if (text.length > 300)
    throw new ExpressionFault('expression.too-long', 'The expression is longer than 300 characters.', 'Split it into parameters.');
  const builder = new Builder(text);
  const code = builder.build(treeOf(text));
  // An expression of numbers and units alone has one value for ever.
  const isFixed = builder.uses.size + builder.references.size === 0;
  let constant: Value | undefined;
  const compiled: Compiled = {
    uses: [...builder.uses],
    references: [...builder.references.values()],
    fixed: isFixed ? new Map() : null,
    evaluate(parameter, geometry, notes) {
      if (constant !== undefined) return constant;
      const value = code({ parameter, geometry, notes });
      if (isFixed && !notes?.length) constant = value;
      return value;
    },
  };
  if (cache.size > 20_000) cache.clear();
  cache.set(text, compiled);
  return compiled;
}

function treeOf(text: string): Node {
  try {
    return parse(text);
  } catch (error) {
    if (!(error instanceof SyntaxFault)) throw error;
    throw new ExpressionFault('expression.syntax', `‘${text}’ cannot be read: ${error.message}.`, "Write it like '2*arm + 0.5 mm'.");
  }
}

/** Makes functions of a tree, and keeps what it uses. */
class Builder {
  readonly uses = new Set<string>();
  readonly references = new Map<string, Reference>();
  private nodes = 0;
  constructor(private readonly text: string) {}

  build(node: Node): Evaluated {
    if (++this.nodes > maxNodes) throw new ExpressionFault('expression.too-long', 'The expression has too many terms.', 'Split it into parameters.');
    switch (node.kind) {
      case 'number':
        return () => node.value;
      case 'group':
        return this.build(node.of);
      case 'sign': {
        const of = this.build(node.of);
        return node.negative ? (around) => negated(of(around)) : of;
      }
      case 'binary': {
        const [a, b] = [this.build(node.a), this.build(node.b)];
        const operation = operations[node.op];
        return (around) => operation(a(around), b(around));
      }
      case 'name':
        return this.name(node.name);
      case 'path':
        return this.path(node);
      case 'call':
        return this.call(node.name, node.args);
    }
  }

  private name(name: string): Evaluated {
    const builtin = builtins.get(name);
    if (builtin !== undefined) return () => builtin;
    this.uses.add(name);
    return ({ parameter }) => {
      const value = parameter(name);
      if (value === undefined) throw new Error(`${name} has no value`);
      return value;
    };
  }

  private path(node: Node): Evaluated {
    const read = referenceOf(node);
    if (!read || read.paths.some((p) => builtins.has(p[0])))
      throw new ExpressionFault(
        'expression.not-allowed',
        `‘${this.text}’ has a dot where no part of the model is named.`,
        'Write it like film.max.x or edge(film.top, film.xmax).length.',
      );
    const reference = this.references.get(read.text) ?? read;
    this.references.set(reference.text, reference);
    return ({ geometry }) => geometry(reference);
  }

  private call(name: string, args: readonly Node[]): Evaluated {
    const own = functions.get(name);
    const formula = formulaOf.get(name);
    if (name === 'edge' || name === 'corner')
      throw new ExpressionFault('expression.not-allowed', `What of ${name}(...) is meant is not said.`, `Write it like ${name}(...).x.`);
    if (!own && !formula)
      throw new ExpressionFault('expression.unknown-function', `There is no function ${name}.`, `Use one of ${functionNames.join(', ')}.`);
    const values = args.map((a) => this.build(a));
    if (formula) {
      if (args.length > formula.args.length)
        throw new ExpressionFault('function.arguments', `${name} takes at most ${formula.args.length} values.`, `Write ${shapeOf(formula)}.`);
      return (around) =>
        applied(
          formula,
          values.map((v) => v(around)),
          around,
        );
    }
    const { takes, of } = own!;
    const [least, most] = takes;
    if (args.length < least || args.length > most)
      throw new ExpressionFault(
        'function.arguments',
        `${name} takes ${least === most ? least : most === Infinity ? 'one or more' : `${least} or ${most}`} ${most === 1 ? 'value' : 'values'}, not ${args.length}.`,
        most === 1 ? `Write ${name}(x).` : `Write ${name}(x, y).`,
      );
    return (around) => of(...values.map((v) => v(around)));
  }
}

const examples: Record<Quantity, string> = {
  length: '2 mm',
  angle: '5 deg',
  frequency: '868 MHz',
  resistance: '50 ohm',
  inductance: '3 nH',
  capacitance: '2 pF',
  conductivity: '58 MS/m',
  time: '2 ns',
  number: '3',
};

/**
 * The value in SI if it measures `quantity`; throws ExpressionFault if not. A bare 0 is taken for any quantity.
 * @throws ExpressionFault where it measures something else.
 */
export function toSI(value: Value, quantity: Quantity, text: string): number {
  const fits =
    typeof value === 'number' ? quantity === 'number' || value === 0 : quantity !== 'number' && alike(value.dimensions, measures[quantity]);
  if (!fits)
    throw new ExpressionFault(
      'expression.wrong-unit',
      `‘${text}’ is ${measure(value)}, but ${article(quantity)} is needed here.`,
      typeof value === 'number' ? `Add a unit, as in ${examples[quantity]}.` : `Give it a unit that fits, as in ${examples[quantity]}.`,
    );
  const si = anySI(value);
  if (!Number.isFinite(si))
    throw new ExpressionFault(
      'expression.not-finite',
      `‘${text}’ has no finite real value.`,
      'Look for a division by zero or the root of a negative number.',
    );
  return si;
}

const article = (quantity: Quantity): string => (quantity === 'angle' ? 'an angle' : `a ${quantity}`);

/** The value in SI whatever it measures. */
export const anySI = (value: Value): number => (typeof value === 'number' ? value : value.si);
