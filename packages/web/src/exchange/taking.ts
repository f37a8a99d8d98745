import type { Line, Part, Project } from '@jadebell/core/document';
import { z } from 'zod';
import { freeName } from '../project/edits.ts';
import { previewExpression } from '../project/model.ts';
import type { Found } from '../workers/exchange.protocol.ts';

/** Metres of the units that a file may be in. */
export const units = { nm: 1e-9, um: 1e-6, mm: 1e-3, cm: 1e-2, m: 1, mil: 25.4e-6, inch: 25.4e-3 } as const;
export type FileUnit = keyof typeof units;

/** A length as it is typed, which may use the project's parameters. */
const lengthText = z.string().check(async (ctx) => {
  const { good, text } = await previewExpression(ctx.value, 'length');
  if (!good) ctx.issues.push({ code: 'custom', message: text, input: ctx.value });
});

/** What is to become of the parts of a file. */
export const takingSchema = z.object({
  unit: z.enum(Object.keys(units) as FileUnit[], 'Choose the unit of the file.'),
  parts: z
    .array(z.object({ taken: z.boolean(), material: z.string().min(1), thickness: lengthText }))
    .refine((parts) => parts.some((p) => p.taken), 'Take at least one part.'),
});
export type TakingValues = Omit<z.infer<typeof takingSchema>, 'unit'> & { unit: FileUnit | '' };
export type Taking = TakingValues['parts'][number];

/** What is offered for a file: all that closes, in the unit that it names. */
export const offered = ({ unit, parts }: Found): TakingValues => ({
  unit: unit ?? '',
  parts: parts.map((p) => ({ taken: p.closed, material: p.kind === 'mesh' ? 'Polyethylene' : 'Copper', thickness: '0 mm' })),
});

/** A name for a line from one in a file. */
const lineName = (text: string): string => {
  const plain = text
    .replaceAll(/[^A-Za-z0-9_]+/g, '_')
    .replace(/^[^A-Za-z_]+/, '')
    .slice(0, 30);
  return plain || 'part';
};

/** Parts of the project and lines that show them. */
export function withParts(project: Project, parts: readonly Part[], takings: readonly Taking[]): Project {
  let next = project;
  parts.forEach((given, i) => {
    const taken = new Set((next.parts ?? []).map((p) => p.name));
    let name = given.name.slice(0, 70) || 'part';
    for (let n = 2; taken.has(name); n++) name = `${given.name.slice(0, 70)} ${n}`;
    const base = { name: freeName(next, 'lines', lineName(given.name)), material: takings[i].material };
    const zero: [string, string, string] = ['0 mm', '0 mm', '0 mm'];
    const line: Line =
      given.kind === 'mesh'
        ? { kind: 'import', ...base, part: name, scale: '1', at: zero, turn: ['0 deg', '0 deg', '0 deg'], simplify: '0 mm' }
        : { kind: 'drawing', ...base, part: name, plane: 'xy', scale: '1', thickness: takings[i].thickness, at: zero };
    next = { ...next, parts: [...(next.parts ?? []), { ...given, name }], lines: [...next.lines, line] };
  });
  return next;
}
