import { z } from 'zod';
import { parameterName } from '../entries/index.ts';
import { defineCard } from './card.ts';
import { firstTerms } from './terms.ts';

/** How a curve's numbers are told. */
export const forms = ['db', 'dBpower', 'magnitude', 'square', 'real', 'imaginary', 'phase', 'unwrapped', 'vswr', 'plain'] as const;
export type CurveForm = (typeof forms)[number];

const traceSchema = z.strictObject({
  quantity: z.string().min(1).max(40).describe('What is drawn: s, z, delay, gain, ... or formula, data'),
  of: z.string().max(300).default('').describe('Of which term, port, mode or recorder; of a formula its text'),
  form: z.enum(forms).optional().describe('Absent: the first that suits the quantity'),
  axis: z.enum(['left', 'right']).default('left'),
  name: z.string().max(60).optional(),
});
export type CardTrace = z.infer<typeof traceSchema>;

const number = z.number();
const markerSchema = z.strictObject({
  kind: z.enum(['at', 'peak', 'dip', 'level']).describe('at a place, or following the nth peak, dip or crossing of a level'),
  trace: z.number().int().min(0).max(63),
  x: number.optional(),
  level: number.optional(),
  nth: z.number().int().min(1).max(50).default(1),
});
export type Marker = z.infer<typeof markerSchema>;

const spot = z.strictObject({ x: number, y: number });
const limitSchema = z.strictObject({ from: spot, to: spot, side: z.enum(['below', 'above']) });

const axisSchema = z.strictObject({
  min: number.optional(),
  max: number.optional(),
  log: z.boolean().optional(),
  title: z.string().max(60).optional(),
  unit: z.string().max(12).optional().describe('Absent: the one that suits the values'),
});

/** Lines over frequency, wavelength, time or a parameter. */
export const curves = defineCard({
  kind: 'curves',
  title: 'Curves',
  about: 'S, Z, Y, delay, gain, signals, formulas, data',
  fields: {
    traces: z.array(traceSchema).max(64),
    over: parameterName.default('own').describe('own: what the curves are over; wavelength; or the name of a parameter, over the runs'),
    x: axisSchema.default({}),
    left: axisSchema.default({}),
    right: axisSchema.default({}),
    markers: z.array(markerSchema).max(50).default([]),
    base: z.number().int().min(0).max(49).optional().describe('Marker that the others are told against'),
    limits: z.array(limitSchema).max(50).default([]),
    notes: z
      .array(z.strictObject({ x: number, y: number, text: z.string().max(200) }))
      .max(50)
      .default([]),
    bandwidth: z.strictObject({ level: number, side: z.enum(['below', 'above']) }).optional(),
    statistics: z.strictObject({ from: number.optional(), to: number.optional() }).optional(),
    differences: z.boolean().default(false).describe('Runs beside the first less the first'),
  },
  fresh: (meta) => ({
    title: 'Curves',
    traces: firstTerms(meta)
      .slice(0, 1)
      .map((of) => ({ quantity: 's', of })),
  }),
});
export type CurvesCard = z.infer<typeof curves.schema>;

/** Reflections in the plane of the Smith chart. */
export const smith = defineCard({
  kind: 'smith',
  title: 'Smith chart',
  about: 'reflections on impedance or admittance lines',
  fields: {
    terms: z.array(z.string().max(80)).max(32).default([]).describe('Terms of S; none: the first reflection'),
    grid: z.enum(['impedance', 'admittance', 'both']).default('impedance'),
    ratios: z.array(z.number().min(1).max(100)).max(10).default([]).describe('Standing wave ratios whose circles are drawn'),
    markers: z.array(number).max(20).default([]).describe('Hertz'),
  },
  fresh: (meta) => (meta.excitations.length ? {} : null),
});
export type SmithCard = z.infer<typeof smith.schema>;
