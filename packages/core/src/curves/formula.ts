import mathjs from 'mathjs/lib/browser/math.js';
import type { MathNode } from 'mathjs';

const math = mathjs.create(mathjs.all, { number: 'number', predictable: true });
const functions = ['abs', 'sqrt', 'exp', 'log', 'log10', 'sin', 'cos', 'tan', 'atan', 'atan2', 'min', 'max', 'db', 'db10'] as const;
/** Names that a formula knows besides the curves: 20 and 10 times the decimal logarithm. */
const own = { db: (v: number): number => 20 * Math.log10(Math.abs(v)), db10: (v: number): number => 10 * Math.log10(v) };
const operators = new Set(['add', 'subtract', 'multiply', 'divide', 'pow', 'unaryMinus', 'unaryPlus']);

/** A formula on curves that cannot be used, in words. */
export class CurveFormulaFault extends Error {}

/** A formula of curves' letters, x and pi: what it uses, and its value for one point. */
export interface CurveFormula {
  uses: string[];
  at(values: Readonly<Record<string, number>>): number;
}

/**
 * Reads a formula such as 'a - b' or 'db(a / b)': arithmetic, brackets and a few functions on the values of other curves. Throws
 * CurveFormulaFault with the place of the fault in words.
 * @throws CurveFormulaFault where the text is no formula of curves.
 */
export function readCurveFormula(text: string, letters: readonly string[]): CurveFormula {
  if (text.length > 300) throw new CurveFormulaFault('The formula is longer than 300 characters. Split it over two curves.');
  let tree: MathNode;
  try {
    tree = math.parse(text);
  } catch (error) {
    throw new CurveFormulaFault(`‘${text}’ cannot be read: ${(error as Error).message.replace(/\.$/, '')}. Write it like 'a - b'.`);
  }
  const uses = new Set<string>();
  tree.traverse((node, path, parent) => {
    const any = node as MathNode & { fn?: { name?: string } | string; name?: string; value?: unknown };
    if (node.type === 'ParenthesisNode' || (node.type === 'ConstantNode' && typeof any.value === 'number')) return;
    if (node.type === 'OperatorNode' && operators.has(any.fn as string)) return;
    if (node.type === 'FunctionNode') {
      const name = (any.fn as { name?: string }).name ?? '';
      if ((functions as readonly string[]).includes(name)) return;
      throw new CurveFormulaFault(`There is no function ${name || 'of that kind'}. Use one of ${functions.join(', ')}.`);
    }
    if (node.type === 'SymbolNode') {
      if (path === 'fn' && parent?.type === 'FunctionNode') return;
      if (any.name === 'x' || any.name === 'pi') return;
      if (letters.includes(any.name!)) return void uses.add(any.name!);
      throw new CurveFormulaFault(
        letters.length
          ? `There is no curve ${any.name}. The curves are ${letters.join(', ')}; x is the place on the axis.`
          : `There is no curve ${any.name}: add the curves it is made of first.`,
      );
    }
    throw new CurveFormulaFault(`‘${text}’ uses something that is not arithmetic on curves. Write it like 'a - b' or 'db(a / b)'.`);
  });
  const code = tree.compile();
  return {
    uses: [...uses],
    at: (values) => {
      const v = code.evaluate({ ...values, ...own }) as unknown;
      return typeof v === 'number' ? v : NaN;
    },
  };
}
