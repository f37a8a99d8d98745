import { settingOf, type StudyCardOf } from '@jadebell/core/document';
import { meshLimit } from '@jadebell/core/exploring';
import { fewestMeshes, sizeFor } from '@jadebell/core/numerics';
import { axisUnits, unitOfAxis, valueText } from '@jadebell/core/reading';
import { useMemo } from 'react';
import { Card } from '../../charts/Card.tsx';
import { Plot } from '../../charts/plot/Plot.tsx';
import type { PlotTrace } from '../../charts/plot/parts.ts';
import { traceStyle } from '../../charts/traces.ts';
import { TypedField } from '../../kit/Field.tsx';
import { useDark } from '../../ui/useDark.ts';
import { figureAxis } from '../study/figures.ts';
import type { PointsData } from '../study/useStudyData.ts';
import { AxisTools } from './AxisTools.tsx';
import { MeasurePick } from './MeasurePick.tsx';
import type { StudyCardProps } from './registry.tsx';

/** Points of the curve through the figures. */
const drawn = 60;

/** The parameter that makes the mesh finer: a setting of Solve where one moves, else the first. */
const meshOf = ({ moved }: PointsData): PointsData['moved'][number] | undefined => moved.find((m) => settingOf(m.parameter)) ?? moved[0];

/** What a measure comes to on ever finer meshes, how far each is off, and which is fine enough. */
export function LimitOfMeshes({ card, data, pick, change, last }: StudyCardProps<StudyCardOf<'limit'>>) {
  const dark = useDark();
  const measure = data.measures.find((m) => m.name === card.measure) ?? data.measures[0];
  const mesh = meshOf(data);
  const name = measure?.name ?? '';
  const unit = measure?.unit ?? '';
  const rows = useMemo(() => data.rows.filter((r) => r.run?.state === 'done'), [data.rows]);
  const found = useMemo(
    () => (mesh ? meshLimit(mesh.parameter, name, rows.map((r) => ({ point: r, reads: [...r.reads.values()] }))) : null),
    [mesh, name, rows],
  ); // prettier-ignore
  const { sizes, figures, limit } = found ?? { sizes: [], figures: [], limit: null };
  const points: PlotTrace = { name, ...traceStyle(1, dark), x: sizes, y: figures, axis: 'left', points: true, loose: true }; // prettier-ignore
  const through: PlotTrace | null = limit && {
    name: 'by its order',
    ...traceStyle(2, dark),
    x: Array.from({ length: drawn + 1 }, (_, i) => (i / drawn) * Math.max(...sizes)),
    y: Array.from({ length: drawn + 1 }, (_, i) => limit.value + limit.off * ((i / drawn) * Math.max(...sizes)) ** limit.order),
    axis: 'left',
  };
  const traces = through ? [through, points] : [points];
  const title = card.title ?? `What ${name || 'a measure'} comes to`;
  const y = figureAxis(card.y, name, unit, traces.flatMap((t) => Array.from(t.y))); // prettier-ignore
  const x = {
    label: card.x.title ?? `size of the mesh (1 / ${mesh?.parameter ?? ''})`,
    min: card.x.min ?? 0,
    max: card.x.max,
    log: card.x.log,
    size: 1,
  };
  const own = unitOfAxis(unit, Math.abs(limit?.value ?? 1), card.y.unit);
  const enough = limit && card.wanted ? 1 / sizeFor(limit, card.wanted) : null;
  return (
    <Card
      title={title}
      file={`${data.name}-limit`}
      tools={
        <>
          <MeasurePick {...{ data, measure }} change={(m) => change({ ...card, measure: m })} />
          <AxisTools
            card={title}
            title={card.title}
            setTitle={(t) => change({ ...card, title: t })}
            sides={[
              { word: 'across', settings: card.x, size: 1, units: [], change: (s) => change({ ...card, x: s }) },
              { word: 'up', settings: card.y, size: y.size, units: axisUnits(unit), change: (s) => change({ ...card, y: s }) },
            ]}
          />
          {last}
        </>
      }
    >
      {limit && mesh ? (
        <div style={{ display: 'grid', gridTemplateRows: 'minmax(0, 1fr) auto', height: '100%' }}>
          <Plot
            label={title}
            x={x}
            left={y}
            traces={traces}
            levels={[limit.value]}
            tell={(_, __, v) => valueText(v, unit)}
            tellX={(v) => `1 / ${(1 / v).toPrecision(3)}`}
            onPick={(_, v) => pick(rows.find((r) => Math.abs(1 / r.values[mesh.parameter] - v) < 1e-9)?.digest ?? null)}
          />
          <div style={{ padding: '2px 8px 6px', fontSize: 12.5 }}>
            <p>
              Limit <b>{valueText(limit.value, unit, 6)}</b>, approached by order {limit.order.toFixed(1)}
              {limit.found ? '' : ' (taken: none was found between 0.5 and 2.1)'}.{' '}
              {sizes.map((h, i) => `At ${(1 / h).toPrecision(3)} within ${valueText(limit.errors[i], unit, 2)}`).join('; ')}.
            </p>
            <p className="row" style={{ gap: 6 }}>
              For an error of
              <TypedField
                mono
                label="Error that is wanted"
                width={80}
                value={card.wanted === undefined ? '' : String(card.wanted / own.size)}
                placeholder="so much"
                check={(t) => (t === '' || (Number(t) > 0 && Number.isFinite(Number(t))) ? null : 'above zero')}
                onChange={(t) => change({ ...card, wanted: t === '' ? undefined : Number(t) * own.size })}
              />
              {own.unit}
              {enough !== null && <b>{enough > 0 ? ` ${mesh.parameter} of ${enough.toPrecision(3)}` : ' any mesh'}</b>}
            </p>
          </div>
        </div>
      ) : (
        <p className="quiet pad">
          {measure ? `${sizes.length} of at least ${fewestMeshes} meshes are solved.` : 'Say above what is read from each point.'}
        </p>
      )}
    </Card>
  );
}
