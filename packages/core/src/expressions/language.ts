import type { MathNode, Unit } from 'mathjs';
import mathjs from 'mathjs/lib/browser/math.js';
import type { Quantity } from '../entries/index.ts';
import { FormulaFault, formulas } from '../formulas/index.ts';
import { type constantNames, functionNames, unitNameList } from './names.ts';
import { type Reference, referenceOf } from './reference.ts';
import { sameNumber } from '../numerics/tolerance.ts';

/** mathjs with nothing reachable from an expression but arithmetic on numbers and units. */
const math = mathjs.create(mathjs.all, { number: 'number', predictable: false });

/** A value with its unit, as mathjs keeps it, or a plain number. */
export type Value = number | Unit;

const constants: Record<(typeof constantNames)[number], Value> = {
  pi: Math.PI,
  e: Math.E,
  c0: math.unit(299792458, 'm/s'),
  eps0: math.unit(8.8541878128e-12, 'F/m'),
  mu0: math.unit(1.25663706212e-6, 'H/m'),
  eta0: math.unit(376.730313668, 'ohm'),
};

const unitValues: Record<string, Value> = Object.fromEntries(unitNameList.map((n) => [n, math.unit(1, n)]));
const builtins: Record<string, Value> = { ...unitValues, ...constants };

const references: Record<Exclude<Quantity, 'number'> | 'area' | 'volume', Unit> = {
  length: math.unit(1, 'm'),
  angle: math.unit(1, 'rad'),
  frequency: math.unit(1, 'Hz'),
  resistance: math.unit(1, 'ohm'),
  inductance: math.unit(1, 'H'),
  capacitance: math.unit(1, 'F'),
  conductivity: math.unit(1, 'S/m'),
  time: math.unit(1, 's'),
  area: math.unit(1, 'm^2'),
  volume: math.unit(1, 'm^3'),
};

/** A number in SI as a value with the unit of what it measures. */
export const valueOf = (si: number, quantity: keyof typeof references | 'number'): Value =>
  quantity === 'number' ? si : (math.multiply(references[quantity], si) as Unit);

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

/** Where functions leave their notes during an evaluation. */
let noted: string[] | undefined;

// Design functions take and give quantities with units, checked against what each argument must measure.
math.import(
  Object.fromEntries(
    formulas.map((formula) => [
      formula.name,
      (...given: Value[]): Value => {
        const shape = `${formula.name}(${formula.args.map((a) => a.name).join(', ')})`;
        if (given.length > formula.args.length)
          throw new ExpressionFault('function.arguments', `${formula.name} takes at most ${formula.args.length} values.`, `Write ${shape}.`);
        const si = formula.args.map((arg, i) => {
          if (i >= given.length) {
            if (arg.otherwise !== undefined) return arg.otherwise;
            throw new ExpressionFault('function.arguments', `${formula.name} lacks its ${arg.name}, the ${arg.about}.`, `Write ${shape}.`);
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
          if (outside) noted?.push(outside);
          return valueOf(value, formula.result);
        } catch (error) {
          if (error instanceof FormulaFault) throw new ExpressionFault('function.impossible', error.message, error.fix);
          throw error;
        }
      },
    ]),
  ),
);

const operators = new Set(['add', 'subtract', 'multiply', 'divide', 'pow', 'unaryMinus', 'unaryPlus']);
const maxNodes = 200;
const cache = new Map<string, Compiled>();

/**
 * Parses an expression of the restricted language: numbers, units, names, + - * / ^, brackets and the functions above.
 * No assignment, no function definition, no strings, matrices or property access; at most 300 characters and 200 nodes.
 * Throws ExpressionFault.
 * @throws ExpressionFault where the text is no expression.
 */
export function compile(text: string): Compiled {
  const known = cache.get(text);
  if (known) return known;
  if (text.length > 300)
    throw new ExpressionFault('expression.too-long', 'The expression is longer than 300 characters.', 'Split it into parameters.');
  let tree: MathNode;
  try {
    tree = math.parse(text);
  } catch (error) {
    throw new ExpressionFault(
      'expression.syntax',
      `‘${text}’ cannot be read: ${(error as Error).message.replace(/\.$/, '')}.`,
      "Write it like '2*arm + 0.5 mm'.",
    );
  }
  const uses = new Set<string>();
  const pointed = new Map<string, Reference>();
  tree = tree.transform((node) => {
    const reference = referenceOf(node);
    if (!reference || reference.paths.some((p) => Object.hasOwn(builtins, p[0]))) return node;
    const name = `§${reference.text}`;
    pointed.set(name, reference);
    return new math.SymbolNode(name);
  });
  for (const name of namesIn(tree, text)) if (!pointed.has(name)) uses.add(name);
  const code = tree.compile();
  // An expression of numbers and units alone has one value for ever.
  let constant: Value | undefined;
  const isFixed = uses.size + pointed.size === 0;
  const compiled: Compiled = {
    uses: [...uses],
    references: [...pointed.values()],
    fixed: isFixed ? new Map() : null,
    evaluate(parameter, geometry, notes) {
      if (constant !== undefined) return constant;
      const outer = noted;
      noted = notes;
      try {
        const value = code.evaluate({
          get: (name: string) => {
            const reference = pointed.get(name);
            return reference ? geometry(reference) : (parameter(name) ?? builtins[name]);
          },
          set: () => undefined,
          has: (name: string) => pointed.has(name) || Object.hasOwn(builtins, name) || uses.has(name),
          keys: () => uses.keys(),
        } as unknown as object) as Value;
        if (isFixed && !notes?.length) constant = value;
        return value;
      } finally {
        noted = outer;
      }
    },
  };
  if (cache.size > 20_000) cache.clear();
  cache.set(text, compiled);
  return compiled;
}

/** Names that an expression uses beside those of the language; throws ExpressionFault where it holds anything but arithmetic. */
function namesIn(tree: MathNode, text: string): string[] {
  const names: string[] = [];
  let nodes = 0;
  tree.traverse((node, path, parent) => {
    if (++nodes > maxNodes) throw new ExpressionFault('expression.too-long', 'The expression has too many terms.', 'Split it into parameters.');
    const any = node as MathNode & { fn?: { name?: string } | string; name?: string; value?: unknown };
    switch (node.type) {
      case 'ParenthesisNode':
        return;
      case 'ConstantNode':
        if (typeof any.value === 'number') return;
        break;
      case 'OperatorNode':
        if (operators.has(any.fn as string)) return;
        break;
      case 'FunctionNode': {
        const name = (any.fn as { name?: string }).name ?? '';
        if (functionNames.includes(name)) return;
        throw new ExpressionFault(
          'expression.unknown-function',
          `There is no function ${name || 'of that kind'}.`,
          `Use one of ${functionNames.join(', ')}.`,
        );
      }
      case 'SymbolNode':
        if (path === 'fn' && parent?.type === 'FunctionNode') return;
        if (!Object.hasOwn(builtins, any.name!)) names.push(any.name!);
        return;
    }
    throw new ExpressionFault(
      'expression.not-allowed',
      `‘${text}’ uses something that is not arithmetic.`,
      'Use numbers, units, names of parameters, + - * / ^ and functions.',
    );
  });
  return names;
}

const isUnit = (v: unknown): v is Unit => typeof v === 'object' && v !== null && (v as { isUnit?: boolean }).isUnit === true;

/** The name of what a value measures, for messages. */
export function measure(value: Value): string {
  if (!isUnit(value)) return 'a plain number';
  for (const [name, unit] of Object.entries(references)) if (unit.equalBase(value)) return `${name.startsWith('a') ? 'an' : 'a'} ${name}`;
  return `a quantity in ${value.toSI().formatUnits() || 'other units'}`;
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
  let si = NaN;
  if (isUnit(value)) {
    const dimensionless = (value as unknown as { dimensions: number[] }).dimensions.every((d) => Math.abs(d) < sameNumber);
    const fits = quantity === 'number' ? dimensionless : references[quantity].equalBase(value);
    if (!fits)
      throw new ExpressionFault(
        'expression.wrong-unit',
        `‘${text}’ is ${measure(value)}, but ${article(quantity)} is needed here.`,
        `Give it a unit that fits, as in ${examples[quantity]}.`,
      );
    si = (value as unknown as { value: number }).value ?? NaN;
  } else if (typeof value === 'number') {
    if (quantity !== 'number' && value !== 0)
      throw new ExpressionFault(
        'expression.wrong-unit',
        `‘${text}’ is a plain number, but ${article(quantity)} is needed here.`,
        `Add a unit, as in ${examples[quantity]}.`,
      );
    si = value;
  }
  if (!Number.isFinite(si))
    throw new ExpressionFault(
      'expression.not-finite',
      `‘${text}’ has no finite real value.`,
      'Look for a division by zero or the root of a negative number.',
    );
  return si;
}

const article = (quantity: Quantity): string => (quantity === 'angle' ? 'an angle' : `a ${quantity}`);

/** The value in SI whatever it measures, with the name of the measure. */
export function anySI(value: Value): number {
  if (typeof value === 'number') return value;
  return isUnit(value) ? ((value as unknown as { value: number }).value ?? NaN) : NaN;
}
