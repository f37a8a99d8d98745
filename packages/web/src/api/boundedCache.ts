import type { Cache, State } from 'swr';

/** Bytes that a value holds, by its arrays of numbers: all else is small beside them. */
function weightOf(value: unknown, deep = 4): number {
  if (ArrayBuffer.isView(value)) return value.byteLength;
  if (deep === 0 || typeof value !== 'object' || value === null) return 0;
  let sum = 0;
  for (const v of value instanceof Map ? value.values() : Object.values(value)) sum += weightOf(v, deep - 1);
  return sum;
}

/**
 * The cache of all that is read from the server: when it holds more than so many bytes, what was looked at longest ago is let go. What is on the screen
 * is looked at whenever it is drawn, and the newest is always kept.
 */
export class BoundedCache implements Cache<unknown> {
  private readonly entries = new Map<string, { state: State<unknown>; weight: number }>();
  private held = 0;

  constructor(private readonly most = 500_000_000) {}

  /** As they are now: who looks at each puts it to the end, and would never come there. */
  keys(): IterableIterator<string> {
    return [...this.entries.keys()].values();
  }

  get(key: string): State<unknown> | undefined {
    const entry = this.entries.get(key);
    if (!entry) return undefined;
    // The order of a map is that of its insertions: what is looked at goes to its end.
    this.entries.delete(key);
    this.entries.set(key, entry);
    return entry.state;
  }

  set(key: string, state: State<unknown>): void {
    const known = this.entries.get(key);
    const weight = known && known.state.data === state.data ? known.weight : weightOf(state.data);
    this.held += weight - (known?.weight ?? 0);
    this.entries.delete(key);
    this.entries.set(key, { state, weight });
    for (const old of this.entries.keys()) {
      if (this.held <= this.most || old === key) break;
      if (this.entries.get(old)!.weight) this.delete(old);
    }
  }

  delete(key: string): void {
    this.held -= this.entries.get(key)?.weight ?? 0;
    this.entries.delete(key);
  }
}

/** The one of the page. */
export const cache = new BoundedCache();
