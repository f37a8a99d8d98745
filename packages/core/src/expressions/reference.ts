import type { Node } from '../syntax/index.ts';

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

const pathOf = (node: Node): string[] | null => (node.kind === 'path' && node.head.kind === 'name' ? [node.head.name, ...node.names] : null);

/** The reference that a node of the expression is, or null. */
export function referenceOf(node: Node): Reference | null {
  const path = pathOf(node);
  if (path) return { text: path.join('.'), of: 'line', paths: [path], nth: 1, tail: [] };
  if (node.kind !== 'path' || node.head.kind !== 'call') return null;
  const { name: of, args: all } = node.head;
  if (of !== 'edge' && of !== 'corner') return null;
  const args = [...all];
  const last = args.at(-1);
  const nth = last?.kind === 'number' ? (args.pop(), last.value) : 1;
  const paths = args.map(pathOf);
  if (!paths.every((p) => p !== null)) return null;
  const inside = [...paths.map((p) => p.join('.')), ...(nth !== 1 ? [String(nth)] : [])].join(', ');
  return { text: [`${of}(${inside})`, ...node.names].join('.'), of, paths, nth, tail: node.names };
}
