import { useEffect, useReducer } from 'react';

interface Entry {
  value?: unknown;
  error?: Error;
  /** Bytes that it is taken to hold. */
  weight: number;
  waiting: Set<() => void>;
}

/** Results that never change, by key; the oldest that nobody waits for are let go when they are many or heavy. */
const entries = new Map<string, Entry>();
const most = 400;
const heaviest = 500_000_000;
let weightOfAll = 0;
/** Milliseconds after which what failed may be tried again. */
const retryAfter = 5000;

function drop(key: string): void {
  weightOfAll -= entries.get(key)?.weight ?? 0;
  entries.delete(key);
}

/** Begins to load what a key stands for, unless it is there or on its way; `weight` is about how many bytes it will hold. */
export function loadAhead(key: string, load: () => Promise<unknown>, weight = 0): Entry {
  const known = entries.get(key);
  if (known) return known;
  const entry: Entry = { weight, waiting: new Set() };
  entries.set(key, entry);
  weightOfAll += weight;
  for (const [old, e] of entries) {
    if (entries.size <= most && weightOfAll <= heaviest) break;
    if (e !== entry && e.waiting.size === 0) drop(old);
  }
  void load()
    .then(
      (value) => (entry.value = value),
      (error: Error) => {
        entry.error = error;
        // Asked for after a while it is tried anew.
        setTimeout(() => drop(key), retryAfter);
      },
    )
    .finally(() => entry.waiting.forEach((tell) => tell()));
  return entry;
}

/**
 * What a key stands for, loaded once and shared. While the next is on its way the last stays, with the key that it is of, so that a picture does not
 * blink while a slider moves. Null key: nothing.
 */
export function useLoaded<T>(key: string | null, load: () => Promise<T>, weight = 0): { data: T | null; of: string | null; error?: Error } {
  const [, again] = useReducer((n: number) => n + 1, 0);
  const [last] = useReducer((l: { data: T | null; of: string | null }) => l, { data: null, of: null });
  const entry = key === null ? null : loadAhead(key, load, weight);
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
