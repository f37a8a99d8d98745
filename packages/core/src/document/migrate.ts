import { documentVersion } from './schema.ts';

const isRecord = (data: unknown): data is Record<string, unknown> => typeof data === 'object' && data !== null;

/** A list of records with one of their lists changed entry by entry; anything else as it is. */
const eachOf = (list: unknown, key: string, change: (entry: unknown) => unknown): unknown =>
  Array.isArray(list) ? list.map((r: unknown) => (isRecord(r) && Array.isArray(r[key]) ? { ...r, [key]: r[key].map(change) } : r)) : list;

const formNames: Record<string, string> = { db10: 'dBpower', size: 'magnitude', turn: 'unwrapped', ratio: 'vswr' };
/** A card whose curves' forms have the names of version 3. */
const withForms = (card: unknown): unknown =>
  isRecord(card) && Array.isArray(card.traces)
    ? {
        ...card,
        traces: card.traces.map((t: unknown) =>
          isRecord(t) && typeof t.form === 'string' && formNames[t.form] ? { ...t, form: formNames[t.form] } : t,
        ),
      }
    : card;

/** What each version of the format changed, by the version that it starts from. */
const steps: Record<number, (data: Record<string, unknown>) => Record<string, unknown>> = {
  // Parameters were called givens.
  1: ({ givens, ...rest }) => ({ ...rest, parameters: givens }),
  // Adaptive accuracy was called certain, and forms of curves had other names.
  2: ({ solve, boards, ...rest }) => ({
    ...rest,
    solve: isRecord(solve) && solve.accuracy === 'certain' ? { ...solve, accuracy: 'adaptive' } : solve,
    ...(boards === undefined ? {} : { boards: eachOf(boards, 'cards', (card) => withForms(card)) }),
  }),
};

/** A document of an earlier version of the format, as it is written today; anything else as it is. */
export function currentDocument(data: unknown): unknown {
  let now = data;
  while (isRecord(now) && typeof now.version === 'number' && now.version < documentVersion && steps[now.version])
    now = { ...steps[now.version](now), version: now.version + 1 };
  return now;
}
