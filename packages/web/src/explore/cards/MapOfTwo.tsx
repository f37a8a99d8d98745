import type { StudyCardOf } from '@jadebell/core/document';
import { pointText } from '@jadebell/core/exploring';
import { valueText } from '@jadebell/core/reading';
import { formatSI } from '@jadebell/core/expressions/format';
import { writeCsv } from '@jadebell/core/formats/csv';
import { useMemo } from 'react';
import { Card } from '../../charts/Card.tsx';
import { ColourScale } from '../../charts/ColourScale.tsx';
import { Plot } from '../../charts/plot/Plot.tsx';
import type { PlotTrace } from '../../charts/plot/parts.ts';
import { Choice, plainOptions } from '../../kit/Choice.tsx';
import { download } from '../../ui/download.ts';
import { figure, movedOf, parameterAxis, restText } from '../study/figures.ts';
import type { PointsData, StudyRow } from '../study/useStudyData.ts';
import { AxisTools } from './AxisTools.tsx';
import { MapCells, MapPointer } from './MapCells.tsx';
import type { StudyCardProps } from './registry.tsx';
import { cellEnds, gridOf, spanOf } from './shares.ts';

/**
 * Points of which a map is made: where more than two parameters move, those that agree in the others with the picked point, or the first. Those that are not
 * solved keep their cells empty, so that none beside them is drawn over what it says nothing of.
 */
function onePlane(data: PointsData, x: string, y: string, picked: string | null): { rows: StudyRow[]; rest: string } {
  const solved = data.rows.filter((r) => r.run?.state === 'done');
  if (data.together !== 'all') return { rows: solved, rest: '' };
  const first = solved.find((r) => r.digest === picked) ?? solved[0];
  const rest = first ? restText(first, data, [x, y]) : '';
  return { rows: data.rows.filter((r) => restText(r, data, [x, y]) === rest), rest };
}

/** A measure over two parameters: the colour of each point's cell, and lines of equal values. */
export function MapOfTwo({ card, data, picked, pick, change, last }: StudyCardProps<StudyCardOf<'map'>>) {
  const x = movedOf(data, card.x, 0);
  const y = movedOf(data, card.y === x?.parameter ? undefined : card.y, x?.parameter === data.moved.at(-1)?.parameter ? 0 : -1);
  const measure = data.measures.find((m) => m.name === card.measure) ?? data.measures[0];
  const [px, py, name] = [x?.parameter ?? '', y?.parameter ?? '', measure?.name ?? ''];
  const { rows, rest } = useMemo(() => onePlane(data, px, py, picked), [data, px, py, picked]);
  const grid = useMemo(() => gridOf(rows, px, py, (r) => figure(r, name)), [rows, px, py, name]);
  const loose = data.together !== 'all';
  const room = useMemo((): PlotTrace[] => {
    if (!grid.xs.length) return [];
    const [ex, ey] = [cellEnds(grid.xs), cellEnds(grid.ys)];
    return [{ name: '', color: '', x: [ex[0], ex.at(-1)!], y: [ey[0], ey.at(-1)!], axis: 'left' }];
  }, [grid]);
  const span = useMemo(() => spanOf(Array.from(grid.values)), [grid]);
  if (!x || !y || x === y || !measure)
    return (
      <Card title={card.title ?? 'Map'} file="map" tools={last}>
        <p className="quiet pad">{measure ? 'A map needs two parameters that move.' : 'Say above what is read from each point.'}</p>
      </Card>
    );
  const [ax, ay] = [
    parameterAxis({ min: room[0]?.x[0], max: room[0]?.x[1] }, px, x.measure, grid.xs),
    parameterAxis({ min: room[0]?.y[0], max: room[0]?.y[1] }, py, y.measure, grid.ys),
  ];
  const title = card.title ?? `${name} over ${px} and ${py}`;
  const csv = (): void =>
    download(
      `${data.name}-map.csv`,
      writeCsv([
        { title: `${py} \\ ${px} (SI)`, values: grid.ys },
        ...grid.xs.map((v, i) => ({ title: String(v), values: grid.ys.map((_, j) => grid.values[j * grid.xs.length + i]) })),
      ]),
      'text/csv',
    );
  return (
    <Card
      title={title}
      about={rest}
      file={`${data.name}-map`}
      exports={[{ label: 'Map (CSV)', act: csv }]}
      tools={
        <>
          {data.measures.length > 1 && (
            <Choice
              look="tool"
              label="Measure of the map"
              value={name}
              options={plainOptions(data.measures.map((m) => m.name))}
              onChange={(m) => change({ ...card, measure: m })}
            />
          )}
          {data.moved.length > 2 && (
            <>
              <Choice
                look="tool"
                label="Across the map"
                value={px}
                options={plainOptions(data.moved.map((m) => m.parameter))}
                onChange={(p) => change({ ...card, x: p })}
              />
              <Choice
                look="tool"
                label="Up the map"
                value={py}
                options={plainOptions(data.moved.map((m) => m.parameter))}
                onChange={(p) => change({ ...card, y: p })}
              />
            </>
          )}
          <Choice
            look="tool"
            label="Lines of equal values"
            value={card.contours}
            options={[0, 4, 8, 16].map((n) => ({ value: n, label: n ? `about ${n} lines` : 'no lines' }))}
            onChange={(contours) => change({ ...card, contours })}
          />
          <AxisTools card={title} title={card.title} setTitle={(t) => change({ ...card, title: t })} sides={none} />
          {last}
        </>
      }
    >
      {Number.isFinite(span[0]) ? (
        <div style={{ display: 'flex', height: '100%' }}>
          <div style={{ flex: 1, minWidth: 0 }}>
            <Plot
              label={title}
              x={ax}
              left={ay}
              traces={none}
              room={room}
              tell={(_, __, v) => formatSI(v, y.measure)}
              tellX={(v) => formatSI(v, x.measure)}
              pointer={(holder) => (
                <MapPointer
                  grid={grid}
                  holder={holder}
                  tell={(row) => [pointText(row.values, data.moved), `${name} ${valueText(figure(row, name), measure.unit)}`]}
                  onPick={(row) => pick(row.digest)}
                />
              )}
            >
              <MapCells grid={grid} span={span} lines={loose ? 0 : card.contours} dots={loose} picked={picked} />
            </Plot>
          </div>
          <div style={{ alignSelf: 'center' }}>
            <div className="quiet">{name}</div>
            <ColourScale top={valueText(span[1], measure.unit, 4)} bottom={valueText(span[0], measure.unit, 4)} />
          </div>
        </div>
      ) : (
        <p className="quiet pad">No point has this figure yet.</p>
      )}
    </Card>
  );
}

const none: readonly never[] = [];
