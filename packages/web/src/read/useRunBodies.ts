import type { Project } from '@jadebell/core/document';
import type { Body } from '@jadebell/core/geometry';
import useSWRImmutable from 'swr/immutable';
import { bodiesOf } from '../project/model.ts';

/** Bodies of the model that a run solved. */
export function useRunBodies(run: string | null, document: Project | undefined): readonly Body[] {
  const { data } = useSWRImmutable(run && document ? ['bodies', run] : null, () => bodiesOf(document!));
  return data ?? none;
}
const none: Body[] = [];
