import type { Project } from '@jadebell/core/document';
import useSWRImmutable from 'swr/immutable';
import type { ViewBody } from '../workers/protocol.ts';
import { bodiesOf } from '../project/model.ts';

/** Bodies of the model that a run solved. */
export function useRunBodies(run: string | null, document: Project | undefined): readonly ViewBody[] {
  const { data } = useSWRImmutable(run && document ? ['bodies', run] : null, () => bodiesOf(document!));
  return data ?? none;
}
const none: ViewBody[] = [];
