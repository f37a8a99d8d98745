type Fields = Record<string, unknown>;

function isPlain(v: unknown): v is Fields {
  if (typeof v !== 'object' || v === null) return false;
  const prototype: unknown = Object.getPrototypeOf(v);
  return prototype === Object.prototype || prototype === null;
}
const isNumbers = (v: unknown): v is Float64Array => ArrayBuffer.isView(v) && !(v instanceof DataView);

function sameNumbers(old: Float64Array, next: Float64Array): boolean {
  if (old.constructor !== next.constructor || old.length !== next.length) return false;
  for (let i = 0; i < old.length; i++) if (!Object.is(old[i], next[i])) return false;
  return true;
}

/**
 * The next value with every part of the old one in it that says the same, so that what hangs on a part that did not change is not drawn anew.
 * Plain objects, arrays and arrays of numbers are gone through; all else is the same only if it is one. `next` must be nobody else's: parts of the old one are
 * put into it.
 */
export function kept<T>(old: unknown, next: T): T {
  if (Object.is(old, next)) return next;
  if (isNumbers(next)) return isNumbers(old) && sameNumbers(old, next) ? (old as T) : next;
  if (Array.isArray(next)) {
    if (!Array.isArray(old)) return next;
    let same = old.length === next.length;
    for (let i = 0; i < next.length; i++) {
      next[i] = kept(old[i], next[i] as unknown);
      same &&= Object.is(next[i], old[i]);
    }
    return (same ? old : next) as T;
  }
  if (isPlain(next)) {
    if (!isPlain(old)) return next;
    const fields = next as Fields;
    const keys = Object.keys(fields);
    let same = keys.length === Object.keys(old).length;
    for (const key of keys) {
      const part = kept(old[key], fields[key]);
      if (!Object.is(part, fields[key])) fields[key] = part;
      same &&= key in old && Object.is(part, old[key]);
    }
    return (same ? old : next) as T;
  }
  return next;
}
