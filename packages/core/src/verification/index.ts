import { absorber } from './absorber.ts';
import { cavity } from './cavity.ts';
import type { Case } from './case.ts';
import { halfWave, lossy, patternIntegral, short } from './dipoles.ts';

export * from './case.ts';
export { inducedEmf } from './dipoles.ts';

/** Every verification case. */
export const cases: readonly Case[] = [absorber, cavity, halfWave, short, lossy, patternIntegral];
