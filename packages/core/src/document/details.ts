import type { z } from 'zod';
import { type Details, detailsSchema } from './schema.ts';

type Numeric = { [K in keyof Details]-?: NonNullable<Details[K]> extends number ? K : never }[keyof Details];

/** The bounds of a detail that is a number, from the schema. */
export function detailBounds(key: Numeric): { min: number; max: number; whole: boolean } {
  const { minValue, maxValue, isInt } = detailsSchema.shape[key].unwrap() as z.ZodNumber;
  return { min: minValue!, max: maxValue!, whole: isInt };
}

/** Reads what was typed for a detail: nothing for empty text, else a number that the document allows, or why it is none. */
export function readDetail(key: Numeric, text: string): { value: number | undefined } | { fault: string } {
  if (!text.trim()) return { value: undefined };
  const { min, max, whole } = detailBounds(key);
  const value = Number(text);
  return detailsSchema.shape[key].safeParse(value).success
    ? { value }
    : { fault: `Give a ${whole ? 'whole ' : ''}number from ${min} to ${max}, or nothing.` };
}
