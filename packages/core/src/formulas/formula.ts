/** Quantities that formulas take and give; all in SI. */
export type FormulaQuantity = 'length' | 'frequency' | 'resistance' | 'conductivity' | 'number';

export interface FormulaArgument {
  name: string;
  about: string;
  quantity: FormulaQuantity;
  /** Taken when the argument is left out (SI). */
  otherwise?: number;
  /** A value to begin with on the calculator page, as an expression. */
  example: string;
  /** Zero or below is allowed. */
  anyReal?: boolean;
}

/** An argument that no structure can have, with the cure. */
export class FormulaFault extends Error {
  constructor(
    message: string,
    readonly fix: string,
  ) {
    super(message);
  }
}

/** A value, with a sentence where it lies outside the stated range of validity. */
export interface FormulaValue {
  si: number;
  outside?: string;
}

/** A closed-form design function that expressions may call. */
export interface Formula {
  name: string;
  title: string;
  /** Structure that it belongs to; formulas of one family stand together on the calculator page. */
  family: string;
  about: string;
  args: readonly FormulaArgument[];
  result: FormulaQuantity;
  /** Publication. */
  source: string;
  /** Range of validity and stated error. */
  range: string;
  compute(args: readonly number[]): FormulaValue;
}

/** Speed of light, m/s; impedance and constants of free space (CODATA 2018). */
export { c0, eps0, eta0, mu0 } from '../numerics/constants.ts';

/**
 * Root of a monotonic function between two positive bounds, by bisection on the logarithm; 1e-13 relative.
 * Throws a FormulaFault with `message` where the bounds do not enclose one.
 * @throws FormulaFault where no value between the bounds gives it.
 */
export function solveMonotonic(f: (x: number) => number, low: number, high: number, message: string, fix: string): number {
  let [a, b] = [Math.log(low), Math.log(high)];
  const fa = f(low);
  if (!(fa * f(high) <= 0)) throw new FormulaFault(message, fix);
  for (let i = 0; i < 200 && b - a > 1e-13; i++) {
    const mid = (a + b) / 2;
    if (f(Math.exp(mid)) * fa > 0) a = mid;
    else b = mid;
  }
  return Math.exp((a + b) / 2);
}

/** Complete elliptic integral of the first kind K(k), k the modulus from 0 to below 1, by the arithmetic-geometric mean (Abramowitz and Stegun 17.6). */
function ellipticK(k: number): number {
  let a = 1;
  let b = Math.sqrt((1 - k) * (1 + k));
  while (Math.abs(a - b) > 1e-15 * a) [a, b] = [(a + b) / 2, Math.sqrt(a * b)];
  return Math.PI / (2 * a);
}

/** The ratio K(k') / K(k) with the complementary modulus given, so that k near 1 loses nothing. */
export const ellipticRatio = (k: number, complement: number): number => ellipticK(complement) / ellipticK(k);

export const widthArgument: FormulaArgument = { name: 'w', about: 'width of the strip', quantity: 'length', example: '1 mm' };
export const impedanceArgument: FormulaArgument = { name: 'z', about: 'characteristic impedance', quantity: 'resistance', example: '50 ohm' };
export const permittivityArgument: FormulaArgument = { name: 'er', about: 'relative permittivity', quantity: 'number', example: '3.5' };
export const heightArgument: FormulaArgument = { name: 'h', about: 'thickness of the board', quantity: 'length', example: '0.5 mm' };
export const frequencyArgument: FormulaArgument = {
  name: 'f',
  about: 'frequency',
  quantity: 'frequency',
  otherwise: 0,
  anyReal: true,
  example: '10 GHz',
};

/**
 * Checks that a permittivity is that of a passive dielectric.
 * @throws FormulaFault where it is not.
 */
export function needPermittivity(er: number): void {
  if (er < 1) throw new FormulaFault('The relative permittivity is below 1.', 'Give 1 for air, or more.');
}
