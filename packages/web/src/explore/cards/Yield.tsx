import type { StudyTolerance } from '@jadebell/api';
import type { StudyCardOf } from '@jadebell/core/document';
import { formatSI } from '@jadebell/core/expressions/format';
import { pointText } from '@jadebell/core/exploring';
import { valueText } from '@jadebell/core/reading';
import { Button } from '@mui/material';
import { Card } from '../../charts/Card.tsx';
import { type Column, DataTable } from '../../kit/DataTable.tsx';
import { Message } from '../../kit/Message.tsx';
import { ToolMenu } from '../../kit/ToolMenu.tsx';
import { keepAndShow, takeValues } from '../study/edits.ts';
import type { PointsData } from '../study/useStudyData.ts';
import { AxisTools } from './AxisTools.tsx';
import type { StudyCardProps } from './registry.tsx';
import { TooFew } from './TooFew.tsx';
import { useStudyTolerance } from './useStudyTolerance.ts';

type Figure = StudyTolerance['figures'][number];
type Known = Figure & { spread: NonNullable<Figure['spread']> };
type Kept = NonNullable<StudyTolerance['kept']>;

const percent = (share: number): string => `${(100 * share).toFixed(1)} %`;
const rangeText = ({ least, most }: Kept): string => `${percent(least)} to ${percent(most)}`;
/** Digits to which values of the model are taken over. */
const digits = 5;
const written = (data: PointsData, values: Readonly<Record<string, number>>): Record<string, string> =>
  Object.fromEntries(
    data.moved
      .filter((m) => m.parameter in values)
      .map((m) => [m.parameter, formatSI(Number(values[m.parameter].toPrecision(digits)), m.measure, digits)]),
  );

function goalText({ measure, low, high, unit }: StudyTolerance['goals'][number]): string {
  if (low !== null && high !== null) return `${measure} from ${valueText(low, unit)} to ${valueText(high, unit)}`;
  return low !== null ? `${measure} at least ${valueText(low, unit)}` : `${measure} at most ${valueText(high ?? NaN, unit)}`;
}

/** How many of all that may come keep the goals, how far measures go, and where the middles should lie. */
export function Yield({ card, data, change, last }: StudyCardProps<StudyCardOf<'tolerance'>>) {
  const { data: found, error } = useStudyTolerance(data);
  const title = card.title ?? 'Yield and worst case';
  const known = (found?.figures ?? []).filter((f): f is Known => f.spread !== null);
  const columns: Column<Known>[] = [
    { title: 'measure', value: (f) => f.measure },
    {
      title: 'mean ± deviation',
      value: (f) => f.spread.mean,
      mono: true,
      cell: (f) => `${valueText(f.spread.mean, f.unit)} ± ${valueText(f.spread.deviation, f.unit, 2)}`,
    },
    {
      title: '98 % lie from',
      value: (f) => f.spread.percentiles[0],
      mono: true,
      cell: (f) => `${valueText(f.spread.percentiles[0], f.unit)} to ${valueText(f.spread.percentiles[2], f.unit)}`,
    },
    {
      title: 'worst',
      value: (f) => f.spread.worst[1].value,
      mono: true,
      cell: (f) => `${valueText(f.spread.worst[0].value, f.unit)}, ${valueText(f.spread.worst[1].value, f.unit)}`,
    },
    {
      title: 'model errs by',
      value: (f) => f.spread.checked?.error ?? f.spread.error,
      mono: true,
      cell: (f) => (
        <span title={f.spread.checked ? `at ${f.spread.checked.points} points that were kept for it` : 'at points that are left out in turn'}>
          {valueText(f.spread.checked?.error ?? f.spread.error, f.unit, 2)}
        </span>
      ),
    },
  ];
  const worst = known.flatMap((f) =>
    f.spread.worst.map(({ value, values }, i) => ({
      title: `${i ? 'Largest' : 'Least'} ${f.measure}: ${valueText(value, f.unit)}`,
      about: pointText(values, data.moved),
      act: () => keepAndShow(written(data, values)),
    })),
  );
  return (
    <Card
      title={title}
      about={known.length ? `by ${Math.max(...known.map((f) => f.spread.points))} points` : undefined}
      file={`${data.name}-yield`}
      waiting={!found}
      tools={
        <>
          {worst.length > 0 && <ToolMenu label="Worst cases" heading="Keep as a variant" items={() => worst} />}
          <AxisTools card={title} title={card.title} setTitle={(t) => change({ ...card, title: t })} sides={none} />
          {last}
        </>
      }
    >
      {error && <Message>{error.message}</Message>}
      {known.length ? (
        <div className="scroll">
          <YieldWords {...{ found: found!, data }} />
          <DataTable label={title} columns={columns} rows={known} keyOf={(f) => f.measure} />
        </div>
      ) : (
        <TooFew {...{ data, measure: data.measures[0], figure: found?.figures[0], waiting: !found && !error }} />
      )}
    </Card>
  );
}

/** The yield of all goals and of each, and the middles that would make it more. */
function YieldWords({ found, data }: { found: StudyTolerance; data: PointsData }) {
  const { kept, goals, centre } = found;
  if (!goals.length) return <p className="quiet pad">Say above what measures should be, and the yield stands here.</p>;
  if (!kept) return <p className="quiet pad">A goal is of a measure that too few points have.</p>;
  const values = centre && written(data, centre.values);
  return (
    <div style={{ padding: '4px 8px 8px', display: 'grid', gap: 3 }}>
      <p>
        <b style={{ fontSize: 17 }}>{percent(kept.share)}</b> keep {goals.length === 1 ? 'the goal' : `all ${goals.length} goals`}
        <span className="quiet">
          {' '}
          ({rangeText(kept)} if the models err by their error; ± {(100 * found.standardError).toFixed(2)} % by as many random cases)
        </span>
      </p>
      {goals.length > 1 &&
        goals.map((g, i) => (
          <p key={i}>
            <span className="mono">{g.kept ? percent(g.kept.share) : '–'}</span> {goalText(g)}
          </p>
        ))}
      {goals.length === 1 && <p className="quiet">{goalText(goals[0])}</p>}
      {centre && values && (
        <p className="row" style={{ gap: 8 }}>
          <span>
            With {Object.entries(values).map(([name, v]) => `${name} ${v}`).join(', ')} it would be <b>{percent(centre.kept.share)}</b>{' '}
            <span className="quiet">({rangeText(centre.kept)})</span>
          </span>
          <Button onClick={() => takeValues(values)}>Take over</Button>
        </p>
      )}
    </div>
  ); // prettier-ignore
}

const none: readonly never[] = [];
