import { useEffect } from 'react';
import { type NavigateFunction, useLocation, useNavigate, useSearchParams } from 'react-router';

/** What a view's address tells beside project and stage: the large dialog that is open, the section, the study or search, the run, the board, the card that is set up, the picked line. */
type AddressPart = 'way' | 'study' | 'search' | 'dialog' | 'section' | 'run' | 'board' | 'card' | 'line';
type Change = Partial<Record<AddressPart, string | null>>;

let navigate: NavigateFunction = () => undefined;
/** Whether the newest entry of the history was made by opening something from the one before. */
let opened = false;

/** Stands inside the router, so that what is not drawn can open views too. */
export function AddressAtHand(): null {
  navigate = useNavigate();
  opened = (useLocation().state as { opened?: boolean } | null)?.opened === true;
  return null;
}

/** The search part of the address after a change. */
function changed(change: Change): string {
  const parts = new URLSearchParams(window.location.search);
  for (const [key, value] of Object.entries(change)) {
    if (value === null || value === undefined) parts.delete(key);
    else parts.set(key, value);
  }
  const text = parts.toString();
  return text ? `?${text}` : '';
}

/** Goes on to something beside what is seen. */
export function goAt(change: Change): void {
  const search = changed(change);
  if (search !== window.location.search) void navigate({ search });
}

/** Opens something over what is seen: Back closes it, also where it has taken the place of another of its kind. */
export function openAt(change: Change): void {
  const search = changed(change);
  const now = new URLSearchParams(window.location.search);
  const instead = Object.keys(change).every((k) => now.has(k));
  if (search !== window.location.search) void navigate({ search }, { replace: instead, state: { opened: instead ? opened : true } });
}

/** Closes what was opened: the way that Back does where that is how one came here. */
export function closeAt(...parts: AddressPart[]): void {
  const search = changed(Object.fromEntries(parts.map((p) => [p, null])));
  if (search === window.location.search) return;
  if (opened) void navigate(-1);
  else void navigate({ search }, { replace: true });
  // Until one is there, a second asking must not go further back.
  opened = false;
}

/** Changes the address where one is, without a step of the history. */
export function restAt(change: Change): void {
  const search = changed(change);
  if (search !== window.location.search) void navigate({ search }, { replace: true, state: { opened } });
}

/** A part of the address, null where it tells nothing of it. */
export const useAddress = (part: AddressPart): string | null => useSearchParams()[0].get(part);

/**
 * Keeps a part of the address with a value that changes often, without drawing anything anew, and gives a value that the address brings (by a link, or
 * by Back) to `take`.
 */
export function useQuietAddress(part: AddressPart, value: string | null, ready: boolean, take: (value: string) => void): void {
  const { pathname } = useLocation();
  useEffect(() => {
    if (!ready) return;
    const bring = (): void => {
      const told = new URLSearchParams(window.location.search).get(part);
      if (told !== null) take(told);
    };
    bring();
    window.addEventListener('popstate', bring);
    return () => window.removeEventListener('popstate', bring);
  }, [part, ready, take]);
  useEffect(() => {
    if (!ready) return;
    const search = changed({ [part]: value });
    if (search !== window.location.search) window.history.replaceState(window.history.state, '', `${pathname}${search}`);
  }, [part, value, ready, pathname]);
}
