import { type Node, parse, SyntaxFault } from '../syntax/index.ts';

/** Functions of plain numbers that a formula knows: db and db10 are 20 and 10 times the decimal logarithm. */
const functions: Readonly<Record<string, { takes: readonly [number, number]; of(...v: number[]): number }>> = {
  abs: { takes: [1, 1], of: Math.abs },
  sqrt: { takes: [1, 1], of: Math.sqrt },
  exp: { takes: [1, 1], of: Math.exp },
  log: { takes: [1, 1], of: Math.log },
  log10: { takes: [1, 1], of: Math.log10 },
  sin: { takes: [1, 1], of: Math.sin },
  cos: { takes: [1, 1], of: Math.cos },
  tan: { takes: [1, 1], of: Math.tan },
  atan: { takes: [1, 1], of: Math.atan },
  atan2: { takes: [2, 2], of: Math.atan2 },
  min: { takes: [1, Infinity], of: Math.min },
  max: { takes: [1, Infinity], of: Math.max },
  db: { takes: [1, 1], of: (v) => 20 * Math.log10(Math.abs(v)) },
  db10: { takes: [1, 1], of: (v) => 10 * Math.log10(v) },
};
const operations: Record<'+' | '-' | '*' | '/' | '^', (a: number, b: number) => number> = {
  '+': (a, b) => a + b,
  '-': (a, b) => a - b,
  '*': (a, b) => a * b,
  '/': (a, b) => a / b,
  '^': (a, b) => a ** b,
};
type At = (values: Readonly<Record<string, number>>) => number;

/** A formula on curves that cannot be used, in words. */
export class CurveFormulaFault extends Error {}

/** A formula of curves' letters, x and pi: what it uses, and its value for one point. */
export interface CurveFormula {
  uses: string[];
  at(values: Readonly<Record<string, number>>): number;
}

/**
 * What a tree comes to for one point; `uses` receives the letters of curves.
 * @throws CurveFormulaFault where it is no formula of curves.
 */
function built(node: Node, letters: readonly string[], uses: Set<string>): At {
  const of = (n: Node): At => built(n, letters, uses);
  switch (node.kind) {
    case 'number':
      return () => node.value;
    case 'group':
      return of(node.of);
    case 'sign': {
      const inner = of(node.of);
      return node.negative ? (v) => -inner(v) : inner;
    }
    case 'binary': {
      const [a, b, operation] = [of(node.a), of(node.b), operations[node.op]];
      return (v) => operation(a(v), b(v));
    }
    case 'call': {
      const known = Object.hasOwn(functions, node.name) ? functions[node.name] : null;
      if (!known) throw new CurveFormulaFault(`There is no function ${node.name}. Use one of ${Object.keys(functions).join(', ')}.`);
      const args = node.args.map(of);
      if (args.length < known.takes[0] || args.length > known.takes[1])
        throw new CurveFormulaFault(`${node.name} takes ${known.takes[1] === Infinity ? 'one value or more' : known.takes[0]}, not ${args.length}.`);
      return (v) => known.of(...args.map((a) => a(v)));
    }
    case 'name': {
      const { name } = node;
      if (name === 'pi') return () => Math.PI;
      if (name !== 'x') {
        if (!letters.includes(name))
          throw new CurveFormulaFault(
            letters.length
              ? `There is no curve ${name}. The curves are ${letters.join(', ')}; x is the place on the axis.`
              : `There is no curve ${name}: add the curves it is made of first.`,
          );
        uses.add(name);
      }
      return (v) => v[name];
    }
    case 'path':
      throw new CurveFormulaFault("A formula of curves holds no dots between names. Write it like 'a - b' or 'db(a / b)'.");
  }
}

/**
 * Reads a formula such as 'a - b' or 'db(a / b)': arithmetic, brackets and a few functions on the values of other curves.
 * @throws CurveFormulaFault, with the place of the fault in words, where the text is no formula of curves.
 */
export function readCurveFormula(text: string, letters: readonly string[]): CurveFormula {
  if (text.length > 300) throw new CurveFormulaFault('The formula is longer than 300 characters. Split it over two curves.');
  const uses = new Set<string>();
  try {
    const at = built(parse(text), letters, uses);
    return { uses: [...uses], at };
  } catch (error) {
    if (!(error instanceof SyntaxFault)) throw error;
    throw new CurveFormulaFault(`‘${text}’ cannot be read: ${error.message}. Write it like 'a - b'.`);
  }
}
