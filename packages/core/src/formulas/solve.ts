import { type Formula, FormulaFault, type FormulaValue } from './formula.ts';

/** Parameters that were given as numbers in SI units, with the optional ones filled in; null where one is missing. */
export function complete(formula: Formula, given: readonly (number | null)[]): number[] | null {
  const out = formula.args.map((a, i) => given[i] ?? a.otherwise ?? null);
  return out.includes(null) ? null : (out as number[]);
}

/**
 * The value, or the sentence why there is none.
 * @throws what is no fault of the formula.
 */
export function tryCompute(formula: Formula, args: readonly number[]): FormulaValue | { fault: string } {
  const bad = formula.args.findIndex((a, i) => !a.anyReal && !(args[i] > 0));
  if (bad >= 0) return { fault: `The ${formula.args[bad].about} must be above zero.` };
  try {
    const value = formula.compute(args);
    return Number.isFinite(value.si) ? value : { fault: 'This has no finite value.' };
  } catch (error) {
    if (error instanceof FormulaFault) return { fault: `${error.message} ${error.fix}` };
    throw error;
  }
}

/** The formula along one argument, from half to twice its value; points without a value are left out. */
export function curveAround(formula: Formula, args: readonly number[], vary: number, points = 81): { x: number[]; y: number[] } {
  const x: number[] = [];
  const y: number[] = [];
  const centre = args[vary] || 1;
  for (let i = 0; i < points; i++) {
    const at = centre * 2 ** (-1 + (2 * i) / (points - 1));
    const value = tryCompute(
      formula,
      args.map((a, k) => (k === vary ? at : a)),
    );
    if ('fault' in value) continue;
    x.push(at);
    y.push(value.si);
  }
  return { x, y };
}
