import type { Quantity } from '../entries/index.ts';
import { compile, ExpressionFault, toSI } from './language.ts';

/** The value in SI of an expression without names, '12.5 mm' or '2*pi/3 rad'; a sentence where it has none. */
export function compileValue(text: string, quantity: Quantity): number | string {
  try {
    const { uses, references, evaluate } = compile(text);
    const name = uses[0] ?? references[0]?.text;
    if (name !== undefined) return `${name} is not known here: write a number with its unit.`;
    return toSI(evaluate(() => undefined, () => 0), quantity, text); // prettier-ignore
  } catch (error) {
    return error instanceof ExpressionFault ? `${error.message} ${error.fix}` : `‘${text}’ cannot be computed.`;
  }
}
