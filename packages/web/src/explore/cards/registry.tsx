import type { StudyCard, StudyCardOf } from '@jadebell/core/document';
import type { ResultMeta } from '@jadebell/core/results';
import type { ReactNode } from 'react';
import { IconTool } from '../../kit/IconTool.tsx';
import { Close } from '../../kit/icons.tsx';
import type { PointsData } from '../study/useStudyData.ts';
import { CurvesOfPoints } from './CurvesOfPoints.tsx';
import { MapOfTwo } from './MapOfTwo.tsx';
import { OverParameter } from './OverParameter.tsx';
import { PointTable } from './PointTable.tsx';
import { WhatMatters } from './WhatMatters.tsx';

/** What a card of a study is given. */
export interface StudyCardProps<C extends StudyCard = StudyCard> {
  card: C;
  data: PointsData;
  /** Facts of a result of the project. */
  meta: ResultMeta | undefined;
  /** Digest of the point that is looked at. */
  picked: string | null;
  pick(digest: string | null): void;
  change(next: C): void;
  /** What stands at the end of its head. */
  last: ReactNode;
}

const views: { [K in StudyCard['kind']]: (p: StudyCardProps<StudyCardOf<K>>) => ReactNode } = {
  over: OverParameter,
  map: MapOfTwo,
  curves: CurvesOfPoints,
  influence: WhatMatters,
  table: PointTable,
};

/** Pixels of a table of so many rows. */
const tall = (rows: number): number => Math.min(440, 84 + 23 * rows);

/** A card of a study by its kind. */
export function StudyCardView({ remove, ...props }: Omit<StudyCardProps, 'last'> & { remove?(): void }) {
  const View = views[props.card.kind] as (p: StudyCardProps) => ReactNode;
  return (
    <div
      className={props.card.kind === 'table' ? 'wide' : undefined}
      style={props.card.kind === 'table' ? { height: tall(props.data.rows.length) } : undefined}
    >
      <View {...props} last={remove && <IconTool label="Take the card away" icon={<Close />} size={15} onClick={remove} />} />
    </div>
  );
}
