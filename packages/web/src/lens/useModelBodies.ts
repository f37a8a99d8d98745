import { useRunDocument } from '../api/hooks.ts';
import type { Run } from '../api/types.ts';
import type { ViewBody } from '../workers/protocol.ts';
import { useRunBodies } from './useRunBodies.ts';

/** Bodies of the model that a run solved. */
export function useModelBodies(run: Run | undefined): readonly ViewBody[] {
  const solved = useRunDocument(run?.id ?? null).data;
  return useRunBodies(run?.id ?? null, solved);
}
