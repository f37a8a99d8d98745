import { useEffect, useReducer } from 'react';

interface Entry {
  value?: unknown;
  error?: Error;
  waiting: Set<() => void>;
}

/** Results that never change, by key; the oldest are let go when they are many. */
const entries = new Map<string, Entry>();
const most = 300;
/** Milliseconds after which what failed may be tried again. */
const retryAfter = 5000;

function entryOf(key: string, load: () => Promise<unknown>): Entry {
  const known = entries.get(key);
  if (known) return known;
  const entry: Entry = { waiting: new Set() };
  entries.set(key, entry);
  if (entries.size > most) for (const [old, e] of entries) if (e.waiting.size === 0 && e !== entry && entries.size > most) entries.delete(old);
  load()
    .then(
      (value) => (entry.value = value),
      (error: Error) => {
        entry.error = error;
        // Asked for after a while it is tried anew.
        setTimeout(() => entries.delete(key), retryAfter);
      },
    )
    .finally(() => entry.waiting.forEach((tell) => tell()));
  return entry;
}

/**
 * What a key stands for, loaded once and shared. While the next is on its way the last stays, with the key that it is of, so that a picture does not
 * blink while a slider moves. Null key: nothing.
 */
export function useLoaded<T>(key: string | null, load: () => Promise<T>): { data: T | null; of: string | null; error?: Error } {
  const [, again] = useReducer((n: number) => n + 1, 0);
  const [last] = useReducer((l: { data: T | null; of: string | null }) => l, { data: null, of: null });
  const entry = key === null ? null : entryOf(key, load);
  useEffect(() => {
    if (!entry || entry.value !== undefined || entry.error) return;
    entry.waiting.add(again);
    return () => void entry.waiting.delete(again);
  }, [entry]);
  if (entry?.value !== undefined) {
    last.data = entry.value as T;
    last.of = key;
  }
  return { data: key === null ? null : last.data, of: last.of, error: entry?.error };
}
