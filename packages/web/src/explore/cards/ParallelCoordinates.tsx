import type { StudyCardOf } from '@jadebell/core/document';
import { formatSI } from '@jadebell/core/expressions/format';
import { pointText } from '@jadebell/core/exploring';
import { valueText } from '@jadebell/core/reading';
import { Slider } from '@mui/material';
import { useMemo, useState } from 'react';
import { Card } from '../../charts/Card.tsx';
import { lineMaps } from '../../charts/ColourScale.tsx';
import { Choice, plainOptions } from '../../kit/Choice.tsx';
import { Tool } from '../../kit/Tool.tsx';
import { useDark } from '../../ui/useDark.ts';
import { useSize } from '../../ui/useSize.ts';
import { figure } from '../study/figures.ts';
import type { PointsData, StudyRow } from '../study/useStudyData.ts';
import { AxisTools } from './AxisTools.tsx';
import type { StudyCardProps } from './registry.tsx';
import { shareOf, spanOf } from './shares.ts';

/** An axis: a parameter or a measure, with the share of its span at which a point lies. */
interface Axis {
  name: string;
  span: [number, number];
  of(row: StudyRow): number;
  told(value: number): string;
}

/** Room around the axes for their names and ends, in pixels. */
const room = { top: 40, bottom: 24, side: 56 };
/** Pixels within which a line is meant by a click. */
const near = 14;
/** Steps of what is marked on an axis. */
const steps = 200;
const everything: [number, number] = [0, 1];

const axesOf = ({ moved, measures, rows }: PointsData): Axis[] => {
  const solved = rows.filter((r) => r.run?.state === 'done');
  const axis = (name: string, of: Axis['of'], told: Axis['told']): Axis => ({ name, of, told, span: spanOf(solved.map(of).filter(Number.isFinite)) });
  return [
    ...moved.map((m) =>
      axis(
        m.parameter,
        (r) => r.values[m.parameter],
        (v) => formatSI(v, m.measure, 4),
      ),
    ),
    ...measures
      .filter((m) => solved.some((r) => Number.isFinite(figure(r, m.name))))
      .map((m) =>
        axis(
          m.name,
          (r) => figure(r, m.name),
          (v) => valueText(v, m.unit, 4),
        ),
      ),
  ];
};

/** All parameters and measures side by side, a line a point; what is marked on the axes leaves the points within it. */
export function ParallelCoordinates({ card, data, picked, pick, change, last }: StudyCardProps<StudyCardOf<'parallel'>>) {
  const map = useDark() ? 'lineDark' : 'line';
  const [holder, box] = useSize();
  const [marked, setMarked] = useState<Readonly<Record<string, [number, number]>>>({});
  const axes = useMemo(() => axesOf(data), [data]);
  const by = axes.find((a) => a.name === card.by) ?? axes[data.moved.length] ?? axes[0];
  const rows = useMemo(() => data.rows.filter((r) => r.run?.state === 'done' && axes.every((a) => Number.isFinite(a.of(r)))), [data.rows, axes]);
  const within = (r: StudyRow): boolean =>
    axes.every((a) => {
      const [low, high] = marked[a.name] ?? everything;
      const share = shareOf(a.of(r), a.span);
      return share >= low - 1e-9 && share <= high + 1e-9;
    });
  const inside = rows.filter(within);
  const [wide, tall] = [Math.max(1, box.width - 2 * room.side), Math.max(1, box.height - room.top - room.bottom)];
  const xOf = (n: number): number => room.side + (axes.length > 1 ? (n / (axes.length - 1)) * wide : wide / 2);
  const yOf = (a: Axis, r: StudyRow): number => room.top + (1 - shareOf(a.of(r), a.span)) * tall;
  const pathOf = (r: StudyRow): string => axes.map((a, n) => `${n ? 'L' : 'M'}${xOf(n).toFixed(1)} ${yOf(a, r).toFixed(1)}`).join('');
  // Lines of one colour are one path.
  const coloured = new Map<string, string>();
  for (const r of inside) {
    const color = lineMaps[map](shareOf(by.of(r), by.span));
    coloured.set(color, (coloured.get(color) ?? '') + pathOf(r));
  }
  const outside = rows.filter((r) => !inside.includes(r));
  const chosen = rows.find((r) => r.digest === picked);
  const pickAt = (e: React.MouseEvent<SVGElement>): void => {
    const r = e.currentTarget.getBoundingClientRect();
    const [px, py] = [e.clientX - r.left, e.clientY - r.top];
    const between = Math.max(0, Math.min(axes.length - 2, Math.floor(((px - room.side) / wide) * (axes.length - 1))));
    const share = (px - xOf(between)) / (xOf(between + 1) - xOf(between));
    const off = (row: StudyRow): number => Math.abs(yOf(axes[between], row) + share * (yOf(axes[between + 1], row) - yOf(axes[between], row)) - py);
    const best = inside.reduce<StudyRow | null>((b, row) => (!b || off(row) < off(b) ? row : b), null);
    if (best && off(best) < near) pick(best.digest);
  };
  const title = card.title ?? 'Parallel coordinates';
  return (
    <Card
      title={title}
      about={Object.keys(marked).length ? `${inside.length} of ${rows.length} points within what is marked` : `${rows.length} points`}
      file={`${data.name}-parallel`}
      tools={
        <>
          {Object.keys(marked).length > 0 && <Tool onClick={() => setMarked({})}>All again</Tool>}
          {axes.length > 1 && (
            <Choice
              look="tool"
              label="Coloured by"
              value={by.name}
              options={plainOptions(axes.map((a) => a.name))}
              onChange={(name) => change({ ...card, by: name })}
            />
          )}
          <AxisTools card={title} title={card.title} setTitle={(t) => change({ ...card, title: t })} sides={none} />
          {last}
        </>
      }
    >
      <div ref={holder} style={{ position: 'relative', height: '100%', overflow: 'hidden' }}>
        {rows.length > 0 && axes.length > 1 && box.width > 0 ? (
          <>
            <svg
              width={box.width}
              height={box.height}
              role="img"
              aria-label={`${rows.length} points over ${axes.map((a) => a.name).join(', ')}`}
              onClick={pickAt}
              style={{ position: 'absolute', inset: 0 }}
            >
              <path d={outside.map(pathOf).join('')} stroke="var(--line)" strokeWidth={0.8} fill="none" />
              {[...coloured].map(([color, d]) => (
                <path key={color} d={d} stroke={color} strokeWidth={inside.length > 100 ? 0.8 : 1.4} fill="none" />
              ))}
              {chosen && (
                <path d={pathOf(chosen)} stroke="var(--plum)" strokeWidth={2.6} fill="none">
                  <title>{pointText(chosen.values, data.moved)}</title>
                </path>
              )}
              {axes.map((a, n) => (
                <g key={a.name} fill="var(--faint)" fontSize={11.5} textAnchor="middle">
                  <text x={xOf(n)} y={14} fill="var(--ink)">
                    {a.name}
                  </text>
                  <text x={xOf(n)} y={30}>
                    {a.told(a.span[1])}
                  </text>
                  <text x={xOf(n)} y={box.height - 6}>
                    {a.told(a.span[0])}
                  </text>
                </g>
              ))}
            </svg>
            {axes.map((a, n) => (
              <MarkedAxis
                key={a.name}
                axis={a}
                at={{ left: xOf(n), top: room.top, height: tall }}
                value={marked[a.name] ?? everything}
                change={(value) => {
                  const { [a.name]: _, ...others } = marked;
                  setMarked(value[0] > 0 || value[1] < 1 ? { ...others, [a.name]: value } : others);
                }}
              />
            ))}
          </>
        ) : (
          <p className="quiet pad">{data.rows.length ? 'No point has all figures yet.' : 'There are no points yet.'}</p>
        )}
      </div>
    </Card>
  );
}

interface MarkedProps {
  axis: Axis;
  at: { left: number; top: number; height: number };
  value: [number, number];
  change(value: [number, number]): void;
}

/** An axis with its two ends, which are drawn together to mark a part of it. */
const MarkedAxis = ({ axis, at, value, change }: MarkedProps) => {
  const [low, high] = axis.span;
  const told = (v: number): string => axis.told(low + (v / steps) * (high - low));
  return (
    <Slider
      orientation="vertical"
      size="small"
      min={0}
      max={steps}
      value={value.map((v) => Math.round(v * steps))}
      getAriaLabel={(end) => `${end ? 'Most' : 'Least'} of ${axis.name}`}
      getAriaValueText={told}
      valueLabelDisplay="auto"
      valueLabelFormat={told}
      onChange={(_, v) => change((v as number[]).map((s) => s / steps) as [number, number])}
      sx={{
        position: 'absolute',
        left: at.left - 12,
        top: at.top,
        height: at.height,
        width: 24,
        p: '0 !important',
        '& .MuiSlider-rail, & .MuiSlider-track': { left: '50%', width: 2 },
        '& .MuiSlider-thumb': { left: '50%', width: 12, height: 12, borderRadius: '3px' },
      }}
    />
  );
};

const none: readonly never[] = [];
