import { z } from 'zod';

const short = z.string().max(120);

/** Waves that run in together: by channel's name an amplitude and a phase in degrees. */
export const combinationSchema = z.strictObject({
  name: z.string().min(1).max(40),
  waves: z.array(z.strictObject({ channel: short, amplitude: z.number(), phase: z.number() })).max(400),
});
export type Combination = z.infer<typeof combinationSchema>;

/** How results are looked at, kept with the project: names are those of the runs, which later renaming leaves as they are. */
export const lensSchema = z.strictObject({
  run: short.nullable().optional().describe('The run that is looked at first; absent or null: the newest'),
  beside: z
    .array(z.strictObject({ id: short, project: short }))
    .max(50)
    .optional()
    .describe('Runs beside it, of this project or others'),
  gaps: z.enum(['kept', 'out', 'both']).optional().describe('Gaps of lumped ports: kept, taken out, or both'),
  references: z.record(short, short).optional().describe('Reference impedance by port or channel, ohms, as 50 or 50-20j'),
  shifts: z.record(short, z.number()).optional().describe('How far the plane of each port is moved into the structure, metres'),
  excitation: combinationSchema.nullable().optional().describe('Waves that run in; absent or null: as recorded'),
  combinations: z.array(combinationSchema).max(100).optional().describe('Named combinations of waves to choose from'),
});
