import { documentVersion } from './schema.ts';

const isRecord = (data: unknown): data is Record<string, unknown> => typeof data === 'object' && data !== null;

/** What each version of the format changed, by the version that it starts from. */
const steps: Record<number, (data: Record<string, unknown>) => Record<string, unknown>> = {
  // Parameters were called givens.
  1: ({ givens, ...rest }) => ({ ...rest, parameters: givens }),
  // Adaptive accuracy was called certain.
  2: ({ solve, ...rest }) => ({ ...rest, solve: isRecord(solve) && solve.accuracy === 'certain' ? { ...solve, accuracy: 'adaptive' } : solve }),
};

/** A document of an earlier version of the format, as it is written today; anything else as it is. */
export function currentDocument(data: unknown): unknown {
  let now = data;
  while (isRecord(now) && typeof now.version === 'number' && now.version < documentVersion && steps[now.version])
    now = { ...steps[now.version](now), version: now.version + 1 };
  return now;
}
