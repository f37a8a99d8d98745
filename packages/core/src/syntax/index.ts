/**
 * The grammar of expressions: numbers, names, paths with dots, calls, + - * / ^, brackets, and products without a sign between ('2 mm', '2(a + b)').
 * `^` binds first and from the right, then signs, then products without a sign, then * and /, then + and -; but 1/2 mm is half a millimetre, as it is
 * read aloud: two numbers parted by / that a name or a bracket follows belong together.
 */
export type Node =
  | { kind: 'number'; value: number }
  | { kind: 'name'; name: string }
  /** Names after dots, on a name or on a call. */
  | { kind: 'path'; head: Node; names: string[] }
  | { kind: 'call'; name: string; args: Node[] }
  | { kind: 'sign'; negative: boolean; of: Node }
  | { kind: 'group'; of: Node }
  | { kind: 'binary'; op: Operator; a: Node; b: Node };
export type Operator = '+' | '-' | '*' | '/' | '^';

/** Text that is no expression, with where and why. */
export class SyntaxFault extends Error {}

interface Token {
  kind: 'number' | 'name' | 'sign' | 'end';
  text: string;
  /** Place in the text, from 1. */
  at: number;
}
const pattern = /\s*(?:((?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d+)?)|([\p{L}_][\p{L}\p{N}_]*)|([-+*/^(),.]))/uy;

function tokensOf(text: string): Token[] {
  const tokens: Token[] = [];
  let at = 0;
  while (at < text.trimEnd().length) {
    pattern.lastIndex = at;
    const found = pattern.exec(text);
    if (!found) {
      at += text.slice(at).length - text.slice(at).trimStart().length;
      throw new SyntaxFault(`‘${text[at]}’ at place ${at + 1} means nothing here`);
    }
    const [whole, number, name, sign] = found;
    const own = number ?? name ?? sign;
    tokens.push({ kind: number ? 'number' : name ? 'name' : 'sign', text: own, at: at + whole.length - own.length + 1 });
    at += whole.length;
  }
  return [...tokens, { kind: 'end', text: '', at: text.length + 1 }];
}

const isNumber = (node: Node): boolean => node.kind === 'number' || (node.kind === 'sign' && node.of.kind === 'number');

/**
 * The tree of an expression.
 * @throws SyntaxFault where the text is none.
 */
export function parse(text: string): Node {
  const tokens = tokensOf(text);
  let next = 0;
  const is = (sign: string, ahead = 0): boolean => tokens[next + ahead]?.kind === 'sign' && tokens[next + ahead].text === sign;
  const take = (sign: string): boolean => is(sign) && ++next > 0;
  const fail = (wanted: string): never => {
    const { kind, text: found, at } = tokens[next];
    throw new SyntaxFault(kind === 'end' ? `it ends where ${wanted} should follow` : `${wanted} should stand in place of ‘${found}’ at place ${at}`);
  };
  const close = (): void => {
    if (!take(')')) fail('a closing bracket');
  };

  function sum(): Node {
    let node = product();
    while (is('+') || is('-')) node = { kind: 'binary', op: tokens[next++].text as Operator, a: node, b: product() };
    return node;
  }
  function product(): Node {
    let node = adjoined();
    while (is('*') || is('/')) node = { kind: 'binary', op: tokens[next++].text as Operator, a: node, b: adjoined() };
    return node;
  }
  /** Products without a sign; a number may follow a bracket or a name, but not another number. */
  function adjoined(): Node {
    let node = quotient();
    let last = node;
    while (
      tokens[next].kind === 'name' ||
      is('(') ||
      (tokens[next].kind === 'number' && last.kind !== 'number' && last.kind !== 'binary' && last.kind !== 'sign')
    ) {
      last = quotient();
      node = { kind: 'binary', op: '*', a: node, b: last };
    }
    return node;
  }
  /** A number over a number, where a name or a bracket follows. */
  function quotient(): Node {
    let node = signed();
    let last = node;
    while (is('/') && isNumber(last) && tokens[next + 1].kind === 'number' && (tokens[next + 2].kind === 'name' || is('(', 2))) {
      next++;
      last = signed();
      node = { kind: 'binary', op: '/', a: node, b: last };
    }
    return node;
  }
  function signed(): Node {
    if (take('+')) return { kind: 'sign', negative: false, of: signed() };
    return take('-') ? { kind: 'sign', negative: true, of: signed() } : power();
  }
  function power(): Node {
    const node = operand();
    return take('^') ? { kind: 'binary', op: '^', a: node, b: signed() } : node;
  }
  function operand(): Node {
    const token = tokens[next];
    if (token.kind === 'number') {
      next++;
      return { kind: 'number', value: Number(token.text) };
    }
    if (take('(')) {
      const of = sum();
      close();
      return path({ kind: 'group', of });
    }
    if (token.kind !== 'name') return fail('a number, a name or a bracket');
    next++;
    return path(take('(') ? { kind: 'call', name: token.text, args: listed() } : { kind: 'name', name: token.text });
  }
  function listed(): Node[] {
    const args: Node[] = [];
    if (take(')')) return args;
    do args.push(sum());
    while (take(','));
    close();
    return args;
  }
  function path(head: Node): Node {
    const names: string[] = [];
    while (take('.')) {
      if (tokens[next].kind !== 'name') fail('a name');
      names.push(tokens[next++].text);
    }
    return names.length ? { kind: 'path', head, names } : head;
  }

  const node = sum();
  if (tokens[next].kind !== 'end') fail('+, -, *, / or the end');
  return node;
}
