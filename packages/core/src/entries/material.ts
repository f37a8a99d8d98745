import { z } from 'zod';

const three = (least: number): z.ZodType<[number, number, number]> =>
  z.tuple([z.number().min(least).max(1e4), z.number().min(least).max(1e4), z.number().min(least).max(1e4)]);
const term = z.tuple([z.number(), z.number().min(0).max(1e6)]);

/** A published dispersion formula. Lengths are vacuum wavelengths in micrometres, as such papers have them. */
export const dispersionSchema = z.discriminatedUnion('form', [
  z.strictObject({
    form: z.literal('sellmeier'),
    constant: z.number(),
    terms: z.array(term).min(1).max(8).describe('n^2 = constant + sum of B w^2 / (w^2 - C^2), pairs [B, C in um]'),
  }),
  z.strictObject({
    form: z.literal('debye'),
    infinity: z.number().min(1),
    static: z.number().min(1),
    relaxation: z.number().positive().describe('Relaxation time, seconds'),
  }),
  z.strictObject({
    form: z.literal('drude'),
    infinity: z.number().min(1),
    plasma: z.number().positive().describe('Plasma frequency over 2 pi c, 1/cm'),
    collision: z.number().positive().describe('Collision frequency over 2 pi c, 1/cm'),
  }),
  z.strictObject({
    form: z.literal('lorentz'),
    infinity: z.number().min(1),
    terms: z
      .array(z.tuple([z.number().positive(), z.number().positive(), z.number().min(0)]))
      .min(1)
      .max(12)
      .describe('Resonances [rise of the static permittivity, resonance in Hz, damping in Hz]: rise f0^2 / (f0^2 - f^2 + j f damping)'),
  }),
  z.strictObject({
    form: z.literal('poles'),
    infinity: z.number().min(1),
    poles: z
      .array(z.tuple([z.number(), z.number().min(0), z.number(), z.number()]))
      .min(1)
      .max(24)
      .describe('Poles and residues in rad/s [Re p, Im p, Re r, Im r]: r / (s - p), and the conjugate of each where Im p > 0'),
  }),
  z.strictObject({
    form: z.literal('table'),
    points: z
      .array(z.tuple([z.number().positive(), z.number(), z.number().min(0)]))
      .min(2)
      .max(500)
      .refine((list) => list.every((p, i) => i === 0 || p[0] > list[i - 1][0]), 'frequencies must rise')
      .describe('Measured values [frequency in Hz, real part, loss part] in rising order; straight between them on a logarithmic scale of frequency'),
  }),
]);
export type Dispersion = z.infer<typeof dispersionSchema>;

export const materialSchema = z.strictObject({
  name: z.string().min(1).max(60),
  kind: z.enum(['dielectric', 'conductor']),
  permittivity: z.number().min(1).max(1e4).optional().describe('Relative permittivity of a dielectric'),
  lossTangent: z.number().min(0).max(10).optional(),
  permittivityAlong: three(1).optional().describe('Relative permittivity along x, y and z, where they differ'),
  permeability: z.number().min(1e-3).max(1e5).optional().describe('Relative permeability; absent: 1'),
  permeabilityAlong: three(1e-3).optional().describe('Relative permeability along x, y and z, where they differ'),
  magneticLossTangent: z.number().min(0).max(10).optional(),
  atFrequency: z.number().positive().optional().describe('Frequency in hertz for which the figures are given'),
  conductivity: z.number().positive().max(1e9).optional().describe('S/m, of a conductor; absent: perfect'),
  dispersion: dispersionSchema.optional().describe('Takes the place of the constant permittivity'),
  range: z.tuple([z.number().positive(), z.number().positive()]).optional().describe('Frequencies in hertz between which the figures hold'),
  source: z.string().max(300).optional().describe('Publication of the figures'),
  note: z.string().max(500).optional(),
});
export type MaterialEntry = z.infer<typeof materialSchema>;
