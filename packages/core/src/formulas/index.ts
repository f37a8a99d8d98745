import { coax } from './coax.ts';
import { coplanar } from './coplanar.ts';
import type { Formula } from './formula.ts';
import { microstrip } from './microstrip.ts';
import { stripline } from './stripline.ts';
import { waves } from './waves.ts';

export { type Formula, type FormulaArgument, FormulaFault, type FormulaQuantity, type FormulaValue } from './formula.ts';
export { coplanarLine, groundedCoplanarLine } from './coplanar.ts';
export { microstripImpedance, microstripPermittivity } from './microstrip.ts';
export { striplineImpedance } from './stripline.ts';

/** Every design function, in the order in which the interface offers them. */
export const formulas: readonly Formula[] = [...waves, ...microstrip, ...coplanar, ...stripline, ...coax];
export * from './solve.ts';
