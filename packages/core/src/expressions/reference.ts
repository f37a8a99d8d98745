import type { MathNode } from 'mathjs';

/**
 * A reference to geometry inside an expression, such as film.max.x, board.top.area, edge(board.top, board.hole.side).length
 * or corner(board.top, board.xmax, board.ymin).x.
 */
export interface Reference {
  /** As written, without spaces; the same reference always has the same text. */
  text: string;
  /** What is meant: a line and parts of it, the edge between two faces, or the corner of three. */
  of: 'line' | 'edge' | 'corner';
  /** For a line: the names after each other. Otherwise one such path per face. */
  paths: string[][];
  /** Which of several edges or corners of the same faces, from 1. */
  nth: number;
  /** Names after the bracket of an edge or corner. */
  tail: string[];
}

interface Loose {
  type: string;
  name?: string;
  value?: unknown;
  object?: Loose;
  index?: { dotNotation?: boolean; dimensions: Loose[] };
  fn?: Loose;
  args?: Loose[];
}

/** Names of a chain a.b.c, and the node it hangs on. */
function chain(node: Loose): { head: Loose; names: string[] } | null {
  const names: string[] = [];
  let at = node;
  while (at.type === 'AccessorNode') {
    const value = at.index?.dotNotation ? at.index.dimensions[0]?.value : undefined;
    if (typeof value !== 'string') return null;
    names.unshift(value);
    at = at.object!;
  }
  return { head: at, names };
}

const pathOf = (node: Loose): string[] | null => {
  const found = chain(node);
  return found && found.head.type === 'SymbolNode' && found.names.length ? [found.head.name!, ...found.names] : null;
};

/** The reference that a node of the expression is, or null. */
export function referenceOf(node: MathNode): Reference | null {
  const loose = node as unknown as Loose;
  if (loose.type !== 'AccessorNode') return null;
  const found = chain(loose);
  if (!found) return null;
  const { head, names } = found;
  if (head.type === 'SymbolNode') return { text: [head.name, ...names].join('.'), of: 'line', paths: [[head.name!, ...names]], nth: 1, tail: [] };
  const of = head.type === 'FunctionNode' ? head.fn?.name : undefined;
  if (of !== 'edge' && of !== 'corner') return null;
  const args = [...head.args!];
  const last = args[args.length - 1];
  const nth = last?.type === 'ConstantNode' && typeof last.value === 'number' ? (args.pop(), last.value as number) : 1;
  const paths = args.map(pathOf);
  if (paths.some((p) => !p)) return null;
  const inside = [...paths.map((p) => p!.join('.')), ...(nth !== 1 ? [String(nth)] : [])].join(', ');
  return { text: [`${of}(${inside})`, ...names].join('.'), of, paths: paths as string[][], nth, tail: names };
}
