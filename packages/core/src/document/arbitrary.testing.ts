import type { z } from 'zod';
import fc from 'fast-check';
import { type Role, roles } from '../entries/index.ts';

type Def = Record<string, never> & { type: string };
const defOf = (schema: z.ZodType): Def => (schema as unknown as { _zod: { def: Def } })._zod.def;

/**
 * For tests: any value of a schema, made from the schema itself, so that a new kind of entry is tried without being named. Texts that play a role are
 * those given; other texts are short words. Refinements are not looked at.
 */
export function arbitraryOf(schema: z.ZodType, texts: Record<Role, string>): fc.Arbitrary<unknown> {
  const role = roles.get(schema)?.role;
  if (role) return fc.constant(texts[role]);
  const def = defOf(schema);
  const inner = (s: unknown): fc.Arbitrary<unknown> => arbitraryOf(s as z.ZodType, texts);
  switch (def.type) {
    case 'object':
      return fc.record(Object.fromEntries(Object.entries(def.shape as Record<string, unknown>).map(([k, s]) => [k, inner(s)])));
    case 'array':
      return fc.array(inner(def.element), { minLength: 1, maxLength: 2 });
    case 'tuple':
      return fc.tuple(...(def.items as unknown[]).map(inner));
    case 'union':
      return fc.oneof(...(def.options as unknown[]).map(inner));
    case 'optional':
      return fc.oneof(fc.constant(undefined), inner(def.innerType));
    case 'nullable':
      return fc.oneof(fc.constant(null), inner(def.innerType));
    case 'record':
      return fc.dictionary(fc.constantFrom('one', 'two'), inner(def.valueType), { maxKeys: 2, noNullPrototype: true });
    case 'default':
      return inner(def.innerType);
    case 'enum':
      return fc.constantFrom(...Object.values(def.entries as Record<string, string>));
    case 'literal':
      return fc.constantFrom(...(def.values as unknown[]));
    case 'number':
      return fc.integer({ min: 1, max: 9 });
    case 'boolean':
      return fc.boolean();
    case 'string':
      return fc.constantFrom('one', 'two', 'three');
    default:
      throw new Error(`No values are made of ${def.type}.`);
  }
}
