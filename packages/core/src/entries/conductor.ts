import { z } from 'zod';
import { type Chip, expression } from './chips.ts';

/** How a metal body or sheet conducts. */
export const conductorSchema = z.strictObject({
  as: z.enum(['finite', 'perfect']).describe('finite: by the conductivity of its material; perfect: without loss'),
  thickness: expression.optional().describe('Thickness of the metal; absent: many skin depths'),
  sides: z.enum(['one', 'two']).optional().describe('Of a sheet: current on one side, or on both (absent)'),
});
export type Conductor = z.infer<typeof conductorSchema>;

/** A line's choice, in SI. */
export interface ConductorChoice {
  perfect: boolean;
  /** Metres; null: many skin depths. */
  thickness: number | null;
  sides: 1 | 2;
}

/** Chips of what is said of a metal body: its thickness, where that is given. */
export const conductorChips = (conductor: Conductor | undefined): Chip[] =>
  conductor?.thickness === undefined ? [] : [{ path: 'conductor.thickness', label: 'thickness of the metal', quantity: 'length', positive: true }];

/** The choice of a line whose chips have been evaluated; null where it makes none. */
export const conductorChoice = (conductor: Conductor | undefined, values: Record<string, number>): ConductorChoice | null =>
  conductor
    ? { perfect: conductor.as === 'perfect', thickness: values['conductor.thickness'] ?? null, sides: conductor.sides === 'one' ? 1 : 2 }
    : null;
