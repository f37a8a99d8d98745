import { useTolerance } from '../../api/hooks.ts';
import { useProject } from '../../project/store.ts';
import type { PointsData } from '../study/useStudyData.ts';

/** What varies in a study as far as it is solved; another answer as points come, and as what is asked of them changes. */
export function useStudyTolerance(data: PointsData) {
  const study = useProject((s) => s.document?.studies?.find((o) => o.name === data.name));
  const measures = useProject((s) => s.document?.measures);
  const saved = useProject((s) => s.saved === 'saved');
  const what = saved && study && data.done ? `${data.done} ${JSON.stringify([study.moves, study.links, study.goals, measures])}` : '';
  return useTolerance(data.path, what);
}
