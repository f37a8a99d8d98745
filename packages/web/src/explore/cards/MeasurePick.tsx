import { Choice, plainOptions } from '../../kit/Choice.tsx';
import type { PointsData } from '../study/useStudyData.ts';

/** Which measure a card looks at, where there are several. */
export const MeasurePick = ({
  data,
  measure,
  change,
}: {
  data: PointsData;
  measure: PointsData['measures'][number] | undefined;
  change(measure: string): void;
}) =>
  measure && data.measures.length > 1 ? (
    <Choice
      look="tool"
      label="Measure that is looked at"
      value={measure.name}
      options={plainOptions(data.measures.map((m) => m.name))}
      onChange={change}
    />
  ) : null;
