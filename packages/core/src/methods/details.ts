import { z } from 'zod';
import type { Detail } from './method.ts';

/** How a setting is given: as a number, as an expression with a unit, or by yes and no. */
export type DetailForm = 'number' | 'expression' | 'choice';
/** The form of a setting, from its schema. */
export const detailForm = ({ schema }: Detail): DetailForm =>
  schema instanceof z.ZodNumber ? 'number' : schema instanceof z.ZodBoolean ? 'choice' : 'expression';

/**
 * The bounds of a setting that is a number, from its schema.
 * @throws Error where it is none.
 */
export function detailBounds({ schema, label }: Detail): { min: number; max: number; whole: boolean } {
  if (!(schema instanceof z.ZodNumber)) throw new Error(`${label} is no number.`);
  return { min: schema.minValue!, max: schema.maxValue!, whole: schema.isInt };
}

/** What may be given for a setting, and what is taken where nothing is. */
export function detailHint(detail: Detail): string {
  if (detailForm(detail) !== 'number') return detail.hint ?? '';
  const { min, max } = detailBounds(detail);
  return `${min} to ${max.toLocaleString('en')}${detail.hint ? `; ${detail.hint}` : ''}`;
}

/** Reads what was typed for a setting: nothing for empty text, else what the document takes, or why it is none. */
export function readDetail(detail: Detail, text: string): { value: number | string | undefined } | { fault: string } {
  const trimmed = text.trim();
  if (!trimmed) return { value: undefined };
  if (detailForm(detail) === 'expression') return { value: trimmed };
  const value = Number(trimmed);
  if (detail.schema.safeParse(value).success) return { value };
  const { min, max, whole } = detailBounds(detail);
  return { fault: `Give a ${whole ? 'whole ' : ''}number from ${min} to ${max}, or nothing.` };
}
