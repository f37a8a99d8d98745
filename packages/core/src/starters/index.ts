import { guides } from './guides.ts';
import { lines } from './lines.ts';
import { printed } from './printed.ts';
import type { Starter } from './starter.ts';
import { wires } from './wires.ts';

export { type Starter, type StarterInput, starterGroups } from './starter.ts';

/** Every starter, in the order in which the Shelf offers them. */
export const starters: readonly Starter[] = [...wires, ...printed, ...lines, ...guides];
