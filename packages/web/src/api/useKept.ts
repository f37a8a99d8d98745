import useSWRImmutable from 'swr/immutable';
import { cache } from './boundedCache.ts';
import { mutate } from './mutate.ts';

interface Kept<T> {
  /** Key that the value is of. */
  of: string;
  value: T;
}

/** What is on its way though nothing shows it yet. */
const ahead = new Map<string, Promise<unknown>>();

/** Begins to read what a key stands for, unless it is there or on its way; it is kept like all that was read. */
export function readAhead(key: string, load: () => Promise<unknown>): void {
  if (ahead.has(key) || cache.get(key)?.data !== undefined) return;
  const promise = load();
  ahead.set(key, promise);
  void promise
    .then((value) => {
      if (cache.get(key)?.data === undefined) return mutate(key, { of: key, value }, { revalidate: false });
    })
    // Who asks for it is told of the failure.
    .catch(() => undefined)
    .finally(() => ahead.delete(key));
}

/**
 * What never changes, read once for all that ask by its key and kept while there is room. While the next is on its way the last stays, with the key
 * that it is of, so that a picture does not blink while a slider moves. Null key: nothing.
 */
export function useKept<T>(key: string | null, load: () => Promise<T>): { data: T | null; of: string | null; loading: boolean; error?: Error } {
  const { data, error } = useSWRImmutable<Kept<T>, Error>(
    key,
    async (of: string) => {
      const known = ahead.get(of) as Promise<T> | undefined;
      return { of, value: await (known ?? load()) };
    },
    { keepPreviousData: true },
  );
  const shown = key === null ? undefined : data;
  return { data: shown?.value ?? null, of: shown?.of ?? null, loading: key !== null && shown?.of !== key && !error, error };
}
