import type { StudyTolerance } from '@jadebell/api';
import { fewestPoints } from '@jadebell/core/searching';
import type { PointsData } from '../study/useStudyData.ts';

interface Props {
  data: PointsData;
  measure: PointsData['measures'][number] | undefined;
  figure: StudyTolerance['figures'][number] | undefined;
  waiting: boolean;
}

/** Why nothing is told yet of what varies. */
export const TooFew = ({ data, measure, figure, waiting }: Props) => (
  <p className="quiet pad">
    {!measure
      ? 'Say above what is read from each point.'
      : waiting
        ? 'Reckoning …'
        : `The points are too few: ${figure?.fewest ?? fewestPoints(data.moved.length)} with this figure are the least for ${data.moved.length} parameters. Spread more of them.`}
  </p>
);
