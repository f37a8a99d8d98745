import { z } from 'zod';
import { defineCard } from './card.ts';

const angle = z.number().describe('Radians');
/** What a pattern is told as, and which part of it. */
const reading = {
  quantity: z.enum(['directivity', 'gain', 'realised', 'field']).default('directivity').describe('Of a scatterer always its cross-section'),
  part: z.enum(['total', 'theta', 'phi', 'co', 'cross', 'right', 'left', 'axial-ratio', 'phase']).default('total'),
  reference: angle.default(0).describe('Direction, from phi = 0, of what counts as co-polar'),
};

/** Where a pattern is seen from. */
const patternFrameSchema = z.strictObject({
  origin: z.tuple([z.number(), z.number(), z.number()]).default([0, 0, 0]).describe('Metres'),
  theta: angle.default(0).describe('Direction of the local z'),
  phi: angle.default(0),
  roll: angle.default(0),
});
export type CardFrame = z.infer<typeof patternFrameSchema>;

export const pattern = defineCard({
  kind: 'pattern',
  title: 'Pattern',
  about: 'the far field around the model',
  fields: {
    ...reading,
    linear: z.boolean().default(false),
    floor: z.number().min(3).max(100).default(30).describe('dB below the peak'),
    model: z.boolean().default(true).describe('Drawn around the model'),
  },
  fresh: (meta) => (meta.farField || meta.scattered ? { h: 7 } : null),
});
export type PatternCard = z.infer<typeof pattern.schema>;

export const cut = defineCard({
  kind: 'cut',
  title: 'Cut',
  about: 'through the far field, polar or straight',
  fields: {
    ...reading,
    also: reading.part.optional().describe('A second part in the same plot'),
    path: z.enum(['phi', 'theta', 'great', 'wave']).default('phi').describe('wave: the phi of the plane wave'),
    at: angle.default(0).describe('The phi or theta of the cut, or the theta that the great circle goes through'),
    through: angle.default(0).describe('Phi of the direction that the great circle goes through'),
    tilt: angle.default(0).describe('Direction in which it leaves, from growing theta'),
    frame: patternFrameSchema.optional(),
    cartesian: z.boolean().default(false),
    normalised: z.boolean().default(false),
    floor: z.number().min(3).max(100).default(40),
  },
  fresh: (meta) => (meta.farField || meta.scattered ? { h: 7 } : null),
});
export type CutCard = z.infer<typeof cut.schema>;

export const phaseCentre = defineCard({
  kind: 'phase-centre',
  title: 'Phase centre',
  about: 'over a cone or in a plane',
  fields: {
    part: z.enum(['co', 'cross', 'right', 'left']).default('co'),
    reference: angle.optional().describe('Absent: that of the field in the middle'),
    theta: angle.optional().describe('Axis of the cone; absent: the peak'),
    phi: angle.optional(),
    half: angle.default(Math.PI / 6),
    plane: angle.optional().describe('Only the plane through the axis at this phi of the local frame'),
  },
  fresh: (meta) => (meta.farField ? {} : null),
});
export type PhaseCentreCard = z.infer<typeof phaseCentre.schema>;

export const figures = defineCard({
  kind: 'figures',
  title: 'Antenna figures',
  about: 'gain, widths, lobes, efficiency, polarisation',
  fields: {
    power: z.number().positive().default(1).describe('Watts incident, for the radiated power density'),
  },
  fresh: (meta) => (meta.farField || meta.scattered ? { h: 7 } : null),
});
