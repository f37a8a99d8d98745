import type { z } from 'zod';
import { type Role, roles } from './chips.ts';

/** New text for the texts of some roles; `path` is where they stand, from the value that is walked. */
export type Changes = Partial<Record<Role, (text: string, path: string) => string>>;

type Def = {
  type: string;
  shape: Record<string, z.ZodType>;
  element: z.ZodType;
  items: z.ZodType[];
  innerType: z.ZodType;
  options: z.ZodType[];
  discriminator?: string;
};
const defOf = (schema: z.ZodType): Def => (schema as unknown as { _zod: { def: Def } })._zod.def;

/** Members of a discriminated union by the value that tells them apart. */
const members = new WeakMap<z.ZodType, Map<unknown, z.ZodType>>();
function memberOf(schema: z.ZodType, { options, discriminator }: Def, value: unknown): z.ZodType | undefined {
  let known = members.get(schema);
  if (!known) {
    const kinds = (o: z.ZodType): unknown[] => (defOf(defOf(o).shape[discriminator!]) as unknown as { values: unknown[] }).values;
    members.set(schema, (known = new Map(options.flatMap((o) => kinds(o).map((k) => [k, o] as const)))));
  }
  return known.get((value as Record<string, unknown>)[discriminator!]);
}

/**
 * Changes the texts of a value that play a role, wherever its schema has them: the one way by which renaming, copying and looking for uses know all
 * kinds of entries. What does not change stays the same object. A value that does not fit its schema is left as it is.
 */
export function changeTexts<T>(schema: z.ZodType, value: T, changes: Changes, path = ''): T {
  if (value === undefined || value === null) return value;
  const role = roles.get(schema)?.role;
  if (role !== undefined) return (typeof value === 'string' ? (changes[role]?.(value, path) ?? value) : value) as T;
  const def = defOf(schema);
  const inside = (key: string | number): string => (path ? `${path}.${key}` : String(key));
  switch (def.type) {
    case 'object': {
      if (typeof value !== 'object') return value;
      let out = value as Record<string, unknown>;
      for (const [key, member] of Object.entries(def.shape)) {
        const old = (value as Record<string, unknown>)[key];
        const next = changeTexts(member, old, changes, inside(key));
        if (next !== old) {
          if (out === value) out = { ...out };
          out[key] = next;
        }
      }
      return out as T;
    }
    case 'array':
    case 'tuple': {
      if (!Array.isArray(value)) return value;
      const next = value.map((v, i) => {
        const member = def.type === 'array' ? def.element : def.items[i];
        return member ? changeTexts(member, v, changes, inside(i)) : v;
      });
      return (next.every((v, i) => v === value[i]) ? value : next) as T;
    }
    case 'union': {
      if (!def.discriminator || typeof value !== 'object') return value;
      const member = memberOf(schema, def, value);
      return member ? changeTexts(member, value, changes, path) : value;
    }
    case 'optional':
    case 'nullable':
    case 'default':
      return changeTexts(def.innerType, value, changes, path);
    default:
      return value;
  }
}

/** The texts of a value that play one of some roles, in the order of its schema. */
export function textsOf(schema: z.ZodType, value: unknown, wanted: readonly Role[]): { role: Role; text: string; path: string }[] {
  const found: { role: Role; text: string; path: string }[] = [];
  const collect = (role: Role) => (text: string, path: string) => {
    found.push({ role, text, path });
    return text;
  };
  changeTexts(schema, value, Object.fromEntries(wanted.map((r) => [r, collect(r)])));
  return found;
}
