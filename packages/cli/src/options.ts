import { z } from 'zod';
import { exportKinds, fieldForms } from '@jadebell/core/formats';
import { accuracies } from '@jadebell/core/methods';
import { readReference } from '@jadebell/core/results';

/** What is wrong with how the program was called; ends with the exit code for that. */
export class UsageError extends Error {}

/** Texts of the form NAME=VALUE as pairs; without a name the value is that of all, where that makes sense. */
const pairs = (option: string, form: string, nameless = false) =>
  z
    .array(
      z
        .string()
        .refine((t) => nameless || /^[^=]+=/.test(t), { error: ({ input }) => `--${option} needs ${form}, not '${String(input)}'.` })
        .transform((t): [string, string] => [t.slice(0, Math.max(0, t.indexOf('='))).trim(), t.slice(t.indexOf('=') + 1).trim()]),
    )
    .default([]);

/** Texts of which each may hold several, with commas between; each is one of some words. */
const words = <T extends string>(option: string, of: readonly T[]) =>
  z
    .array(z.string())
    .default([])
    .transform((list) => list.flatMap((t) => t.split(',').map((w) => w.trim())))
    .pipe(z.array(z.enum(of, { error: ({ input }) => `--${option} is one of ${of.join(', ')}, not '${String(input)}'.` })));

/** How waves run in: an amplitude, and its phase in degrees behind an @. */
const wave = /^(\d+(?:\.\d+)?(?:e[+-]?\d+)?)(?:@([+-]?\d+(?:\.\d+)?))?$/i;

/** What the options have to be, each with what is said where it is not. */
const optionsSchema = z.object({
  out: z.string().min(1, '--out needs a folder.').optional(),
  set: pairs('set', 'NAME=EXPRESSION').transform((list) => Object.fromEntries(list)),
  accuracy: z.enum(accuracies, { error: ({ input }) => `--accuracy is one of ${accuracies.join(', ')}, not '${String(input)}'.` }).optional(),
  threads: z
    .string()
    .refine((t) => /^\d+$/.test(t) && Number(t) >= 1 && Number(t) <= 64, {
      error: ({ input }) => `--threads is a whole number from 1 to 64, not '${String(input)}'.`,
    })
    .transform(Number)
    .optional(),
  section: z.string().optional(),
  study: z.string().optional(),
  search: z.string().optional(),
  resume: z.boolean().optional(),
  as: words('as', exportKinds.map((k) => k.key)), // prettier-ignore
  fields: words('fields', fieldForms),
  of: z.array(z.string()).default([]),
  at: z.array(z.string()).default([]),
  touchstone: z.enum(['1', '2'], { error: ({ input }) => `--touchstone is 1 or 2, not '${String(input)}'.` }).optional(),
  gaps: z.enum(['kept', 'out'], { error: ({ input }) => `--gaps is kept or out, not '${String(input)}'.` }).optional(),
  reference: pairs('reference', 'CHANNEL=OHMS or OHMS', true).transform((list, context) =>
    list.map(([name, text]) => {
      const ohms = readReference(text);
      if (!ohms) context.addIssue({ code: 'custom', message: `--reference needs ohms, such as 75 or 50-20j, not '${text}'.` });
      return [name, ohms ?? [50, 0]] as const;
    }),
  ),
  shift: pairs('shift', 'PORT=LENGTH'),
  excite: pairs('excite', 'CHANNEL=AMPLITUDE@DEGREES').transform((list, context) =>
    list.map(([channel, text]) => {
      const found = wave.exec(text);
      if (!found) context.addIssue({ code: 'custom', message: `--excite needs an amplitude and degrees, such as 1@90, not '${text}'.` });
      return { channel, amplitude: Number(found?.[1] ?? 0), phase: Number(found?.[2] ?? 0) };
    }),
  ),
  json: z.boolean().optional(),
  quiet: z.boolean().optional(),
  help: z.boolean().optional(),
});
export type Options = z.infer<typeof optionsSchema>;

/** The same as the program's arguments are cut up; derived, so that no option stands twice. */
export const argumentOptions = Object.fromEntries(
  Object.entries(optionsSchema.shape).map(([name, schema]) => {
    const sample = schema.safeParse(true).success;
    const many = schema.safeParse([]).success;
    return [name, sample ? { type: 'boolean' as const } : { type: 'string' as const, multiple: many }];
  }),
);

/**
 * Options from what was given.
 * @throws UsageError with the first thing that is wrong.
 */
export function readOptions(values: unknown): Options {
  const { data, error } = optionsSchema.safeParse(values);
  if (error) throw new UsageError(error.issues[0].message);
  return data;
}
