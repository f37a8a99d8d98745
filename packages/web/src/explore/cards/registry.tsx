import type { StudyCard, StudyCardOf } from '@jadebell/core/document';
import type { ResultMeta } from '@jadebell/core/results';
import type { ReactNode } from 'react';
import { IconTool } from '../../kit/IconTool.tsx';
import { Close } from '../../kit/icons.tsx';
import type { PointsData } from '../study/useStudyData.ts';
import { CurvesOfPoints } from './CurvesOfPoints.tsx';
import { LimitOfMeshes } from './LimitOfMeshes.tsx';
import { MapOfTwo } from './MapOfTwo.tsx';
import { OverParameter } from './OverParameter.tsx';
import { ParallelCoordinates } from './ParallelCoordinates.tsx';
import { PointTable } from './PointTable.tsx';
import { Spread } from './Spread.tsx';
import { WhatMatters } from './WhatMatters.tsx';
import { Yield } from './Yield.tsx';

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
  parallel: ParallelCoordinates,
  limit: LimitOfMeshes,
  tolerance: Yield,
  histogram: Spread,
  influence: WhatMatters,
  table: PointTable,
};

/** Pixels of a table of so many rows. */
const tall = (rows: number): number => Math.min(440, 84 + 23 * rows);
/** Cards as wide as the page, and how tall they are. */
const wide: { [K in StudyCard['kind']]?: (data: PointsData) => number } = {
  table: ({ rows }) => tall(rows.length),
  parallel: () => 330,
  // What is said of the yield stands above its table.
  tolerance: ({ measures }) => tall(measures.length) + 110,
};

/** A card of a study by its kind. */
export function StudyCardView({ remove, ...props }: Omit<StudyCardProps, 'last'> & { remove?(): void }) {
  const height = wide[props.card.kind];
  const View = views[props.card.kind] as (p: StudyCardProps) => ReactNode;
  return (
    <div className={height ? 'wide' : undefined} style={height ? { height: height(props.data) } : undefined}>
      <View {...props} last={remove && <IconTool label="Take the card away" icon={<Close />} size={15} onClick={remove} />} />
    </div>
  );
}
