type Fields = Record<string, unknown>;

const isPlain = (v: unknown): v is Fields => typeof v === 'object' && v !== null && [Object.prototype, null].includes(Object.getPrototypeOf(v));
const isNumbers = (v: unknown): v is Float64Array => ArrayBuffer.isView(v) && !(v instanceof DataView);

/**
 * The next value with every part of the old one in it that says the same, so that what hangs on a part that did not change is not drawn anew.
 * Plain objects, arrays and arrays of numbers are gone through; all else is the same only if it is one.
 */
export function kept<T>(old: unknown, next: T): T {
  if (Object.is(old, next)) return next;
  if (isNumbers(old) && isNumbers(next))
    return old.constructor === next.constructor && old.length === next.length && old.every((v, i) => Object.is(v, next[i])) ? (old as T) : next;
  if (Array.isArray(old) && Array.isArray(next)) {
    const parts = next.map((v, i) => kept(old[i], v) as unknown);
    return (parts.length === old.length && parts.every((v, i) => Object.is(v, old[i])) ? old : parts) as T;
  }
  if (isPlain(old) && isPlain(next)) {
    const keys = Object.keys(next);
    const parts = Object.fromEntries(keys.map((k) => [k, kept(old[k], next[k])]));
    const same = keys.length === Object.keys(old).length && keys.every((k) => k in old && Object.is(parts[k], old[k]));
    return (same ? old : parts) as T;
  }
  return next;
}
