import { contours } from 'd3-contour';
import { ticks } from 'd3-array';
import { interpolateViridis } from 'd3-scale-chromatic';
import { useMemo, useState } from 'react';
import { usePlotArea, useXAxisInverseScale, useYAxisInverseScale, ZIndexLayer } from 'recharts';
import type { StudyRow } from '../study/useStudyData.ts';
import { layers, PointerNote, useScales } from './chartParts.tsx';
import { cellEnds, cellOf, type Grid, shareOf } from './shares.ts';

/** A line of equal values, in places of the grid: 0 is the first value of a parameter, 1 the second. */
type Line = [number, number][];

/** Lines of equal values through the values at the middles of cells; none while some are missing. Those along the border are left out. */
export function equalLines({ xs, ys, values }: Grid, span: readonly [number, number], count: number): Line[] {
  const [nx, ny] = [xs.length, ys.length];
  if (!count || nx < 2 || ny < 2 || values.some((v) => !Number.isFinite(v))) return [];
  const levels = ticks(span[0], span[1], count);
  // What closes a line round the border runs along one of its sides.
  const along = ([x, y]: [number, number], [u, v]: [number, number]): boolean =>
    Math.max(x, u) <= 0 || Math.max(y, v) <= 0 || Math.min(x, u) >= nx - 1 || Math.min(y, v) >= ny - 1;
  const out: Line[] = [];
  for (const shape of contours().size([nx, ny]).thresholds(levels)(Array.from(values)))
    for (const ring of shape.coordinates.flat()) {
      let line: Line = [];
      const end = (): void => {
        if (line.length > 1) out.push(line);
        line = [];
      };
      ring.forEach(([x, y]) => {
        const p: [number, number] = [x - 0.5, y - 0.5];
        if (line.length && along(p, line.at(-1)!)) end();
        line.push(p);
      });
      end();
    }
  return out;
}

/** The value at a place among values. */
const between = (values: readonly number[], at: number): number => {
  const i = Math.max(0, Math.min(values.length - 2, Math.floor(at)));
  return values[i] + (at - i) * (values[i + 1] - values[i]);
};

interface Props {
  grid: Grid;
  span: readonly [number, number];
  lines: number;
  /** Points stand by themselves. */
  dots: boolean;
  picked: string | null;
}

/** A picture of the cells, as wide and high as the plot. */
function pictureOf(grid: Grid, span: readonly [number, number], { area, x, y }: NonNullable<ReturnType<typeof useScales>>): string | null {
  const canvas = document.createElement('canvas');
  canvas.width = Math.round(area.width);
  canvas.height = Math.round(area.height);
  const g = canvas.getContext('2d');
  if (!g) return null;
  const [ex, ey] = [cellEnds(grid.xs).map((v) => Math.round(x(v)! - area.x)), cellEnds(grid.ys).map((v) => Math.round(y(v)! - area.y))];
  grid.ys.forEach((_, j) =>
    grid.xs.forEach((__, i) => {
      const v = grid.values[j * grid.xs.length + i];
      if (!Number.isFinite(v)) return;
      g.fillStyle = interpolateViridis(shareOf(v, span));
      g.fillRect(ex[i], ey[j + 1], ex[i + 1] - ex[i], ey[j] - ey[j + 1]);
    }),
  );
  return canvas.toDataURL();
}

/** The cells of a map on the axes of a chart. */
export function MapCells({ grid, span, lines, dots, picked }: Props) {
  const scales = useScales();
  const { width, height } = scales?.area ?? { width: 0, height: 0 };
  const picture = useMemo(() => (scales && !dots ? pictureOf(grid, span, scales) : null), [grid, span, dots, width, height]); // oxlint-disable-line react/exhaustive-deps -- scales are made anew with each drawing.
  const equal = useMemo(() => equalLines(grid, span, lines), [grid, span, lines]);
  if (!scales) return null;
  const { area, x, y } = scales;
  const place = ([u, v]: [number, number]): string => `${x(between(grid.xs, u))!.toFixed(1)} ${y(between(grid.ys, v))!.toFixed(1)}`;
  const own = grid.rows.find((r) => r?.digest === picked);
  const at = (r: StudyRow): { cx?: number; cy?: number } => {
    const n = grid.rows.indexOf(r);
    return { cx: x(grid.xs[n % grid.xs.length]), cy: y(grid.ys[Math.floor(n / grid.xs.length)]) };
  };
  return (
    <ZIndexLayer zIndex={layers.drawn}>
      {picture && <image {...area} href={picture} preserveAspectRatio="none" />}
      {dots &&
        grid.rows.map(
          (r, n) => r && <circle key={n} {...at(r)} r={5} fill={interpolateViridis(shareOf(grid.values[n], span))} stroke="var(--line)" />,
        )}
      {equal.map((line, n) => (
        <path key={n} d={`M${line.map(place).join('L')}`} fill="none" stroke="#fff" strokeOpacity={0.85} strokeWidth={1.1} />
      ))}
      {own && <circle {...at(own)} r={6} fill="none" stroke="var(--plum)" strokeWidth={2.5} />}
    </ZIndexLayer>
  );
}

interface PointerProps {
  grid: Grid;
  holder: HTMLElement;
  tell(row: StudyRow): string[];
  onPick(row: StudyRow): void;
}

/** Tells of the point in whose cell the pointer is, and picks it. */
export function MapPointer({ grid, holder, tell, onPick }: PointerProps) {
  const area = usePlotArea();
  const [x, y] = [useXAxisInverseScale(), useYAxisInverseScale('left')];
  const [hit, setHit] = useState<{ row: StudyRow; late: boolean } | null>(null);
  const ends = useMemo(() => [cellEnds(grid.xs), cellEnds(grid.ys)], [grid]);
  if (!area || !x || !y) return null;
  const find = (e: React.MouseEvent): typeof hit => {
    const r = e.currentTarget.getBoundingClientRect();
    const i = cellOf(ends[0], Number(x(area.x + e.clientX - r.left)));
    const j = cellOf(ends[1], Number(y(area.y + e.clientY - r.top)));
    const row = i < 0 || j < 0 ? null : grid.rows[j * grid.xs.length + i];
    return row ? { row, late: e.clientX - r.left > area.width / 2 } : null;
  };
  return (
    <>
      <ZIndexLayer zIndex={layers.pointer}>
        <rect
          {...area}
          fill="transparent"
          style={{ cursor: hit ? 'pointer' : undefined }}
          onPointerMove={(e) => setHit(find(e))}
          onPointerLeave={() => setHit(null)}
          onClick={(e) => {
            const at = find(e);
            if (at) onPick(at.row);
          }}
        />
      </ZIndexLayer>
      {hit && <PointerNote area={area} holder={holder} late={hit.late} lines={tell(hit.row)} />}
    </>
  );
}
