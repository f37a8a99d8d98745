import { formulas } from '../formulas/index.ts';
import { arithmeticNames, constantNames, geometryNames, unitNameList } from './names.ts';

const known = new Set<string>([...unitNameList, ...constantNames, ...arithmeticNames, ...geometryNames, ...formulas.map((f) => f.name)]);

/**
 * Names of parameters that an expression seems to use, by its words alone, without a parser: for copying and for marking what is
 * unused. Names of lines before a dot and what follows a dot are left out.
 */
export function namesUsed(text: string): string[] {
  return [...new Set([...text.matchAll(/(?<![\w.])[A-Za-z_]\w*(?![\w]|\s*\.)/g)].map((m) => m[0]))].filter((n) => !known.has(n));
}
