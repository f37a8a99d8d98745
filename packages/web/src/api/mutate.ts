import { mutate as ofNoCache, type ScopedMutator, useSWRConfig } from 'swr';

let bound: ScopedMutator = ofNoCache;

/** Stands inside the page's cache, so that what is not drawn can tell it of changes too. */
export function CacheAtHand(): null {
  bound = useSWRConfig().mutate;
  return null;
}

/** Has what was read under a key read again, or replaced: in the page's own cache, of which the library's own function of that name knows nothing. */
export const mutate: ScopedMutator = ((...args: Parameters<ScopedMutator>) => bound(...args)) as ScopedMutator;
