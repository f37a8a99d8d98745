import { Box } from '@mui/material';
import { type ReactNode, useId, useMemo } from 'react';
import { Area, CartesianGrid, ComposedChart, Line, ReferenceArea, ReferenceLine, XAxis, YAxis, ZIndexLayer } from 'recharts';
import { useSize } from '../../ui/useSize.ts';
import { WithLegend } from '../Legend.tsx';
import { tickText } from './axis.ts';
import { drawnOf, layAxes, room } from './layout.ts';
import { PlotLimitShape, PlotMarkShape } from './Marks.tsx';
import { chartText, type Laid, type PlotAxis, type PlotLimit, type PlotMark, type PlotTrace } from './parts.ts';
import { PlotPointer } from './Pointer.tsx';
import { useReadByKeys } from './useReadByKeys.ts';

interface Props {
  label: string;
  x: PlotAxis;
  left: PlotAxis;
  right?: PlotAxis;
  traces: readonly PlotTrace[];
  marks?: readonly PlotMark[];
  limits?: readonly PlotLimit[];
  /** Stretches of x to be shaded. */
  bands?: readonly { from: number; to: number }[];
  levels?: readonly number[];
  /** A band around a curve of the left axis: x, its low and its high side. */
  ribbon?: readonly { x: number; sides: [number, number] }[];
  /** Further parts of the chart: where the lens is, or what else is drawn on its axes. */
  children?: ReactNode;
  /** Curves that further parts draw: the axes make room for them. */
  room?: readonly PlotTrace[];
  /** What reads under the pointer in place of the curves' own; it is told where to put words. */
  pointer?(holder: HTMLElement): ReactNode;
  /** How a place is told under the pointer. */
  tell(trace: PlotTrace, x: number, y: number): string;
  tellX(x: number): string;
  /** A click on a trace, and a stretch that was drawn out with the pointer; null: the whole. */
  onPick?(trace: PlotTrace, x: number): void;
  onZoom?(range: { min: number; max: number } | null): void;
}

const none: readonly never[] = [];
const margin = { top: room.top, right: 0, bottom: 0, left: 0 };
const axisLine = { stroke: 'var(--faint)', strokeWidth: 0.8 };

/** Lines on linear or logarithmic axes below their names. Draws a few points a pixel column; values are read from all of them. */
export function Plot({ traces, ...rest }: Props) {
  return <WithLegend traces={traces}>{(shown) => <Lines traces={shown} {...rest} />}</WithLegend>;
}

function Lines({ label, x, left, right, traces, room: more = none, pointer, children, ...rest }: Props) {
  const { marks = none, limits = none, bands = none, levels = none, ribbon = none, ...acts } = rest;
  const [holder, box] = useSize();
  const clip = useId();
  const laid = useMemo(() => layAxes([...traces, ...more], { x, left, right }, box), [traces, more, x, left, right, box]);
  const lines = useMemo(
    () =>
      traces.map((t) => {
        const axis = t.axis === 'right' && right ? right : left;
        return drawnOf(t, laid.x, (t.axis === 'right' && laid.right) || laid.left, Math.ceil(box.width), !!axis.angles);
      }),
    [traces, laid, left, right, box.width],
  );
  const keys = useReadByKeys(traces, laid.x, acts);
  return (
    <Box
      ref={holder}
      {...keys.props}
      aria-label={`Plot of ${label}: ${keys.about(traces)}`}
      sx={{ height: '100%', position: 'relative', overflow: 'hidden', '& *:focus': { outline: 'none' } }}
    >
      {box.width >= 40 && box.height >= 40 && (
        <ComposedChart width={box.width} height={box.height} margin={margin} accessibilityLayer={false}>
          <CartesianGrid yAxisId="left" stroke="var(--line)" strokeWidth={0.7} />
          <XAxis {...common(laid.x, x)} dataKey="x" height={room.x} label={{ value: x.label, position: 'insideBottom', offset: 4, ...chartText }} />
          {sideAxis('left', laid.left, left)}
          {laid.right && right ? (
            sideAxis('right', laid.right, right)
          ) : (
            <YAxis yAxisId="right" orientation="right" width={room.free} tick={false} axisLine={false} tickLine={false} domain={[0, 1]} />
          )}
          {bands.map((b, i) => (
            <ReferenceArea key={i} x1={b.from} x2={b.to} yAxisId="left" fill="var(--wash)" fillOpacity={0.6} ifOverflow="hidden" />
          ))}
          {levels.map((v, i) => (
            <ReferenceLine key={i} y={v} yAxisId="left" stroke="var(--jade)" strokeDasharray="2 4" />
          ))}
          {limits.map((limit, i) => (
            <PlotLimitShape key={i} limit={limit} clip={`${clip}l${i}`} />
          ))}
          {ribbon.length > 0 && (
            <Area
              data={ribbon}
              dataKey="sides"
              yAxisId="left"
              type="linear"
              stroke="none"
              fill="var(--jade)"
              fillOpacity={0.18}
              activeDot={false}
              isAnimationActive={false}
            />
          )}
          {traces.map((t, n) => (
            <Line
              key={n}
              data={lines[n]}
              dataKey="y"
              name={t.name}
              yAxisId={t.axis}
              type="linear"
              stroke={t.loose ? 'none' : t.color}
              strokeDasharray={t.dash}
              strokeWidth={1.8}
              dot={t.points || t.x.length === 1 ? { r: 3, fill: t.color, strokeWidth: 0, strokeDasharray: '' } : false}
              activeDot={false}
              isAnimationActive={false}
            />
          ))}
          {children}
          <ZIndexLayer zIndex={900}>{marks.map((m, i) => (!m.on || traces.includes(m.on) ? <PlotMarkShape key={i} mark={m} /> : null))}</ZIndexLayer>
          {holder.current && pointer?.(holder.current)}
          {holder.current && !pointer && <PlotPointer traces={traces} holder={holder.current} read={keys.read} {...acts} />}
        </ComposedChart>
      )}
    </Box>
  );
}

/** What both kinds of axes have: ends and ticks are ours, so that all charts of the program count alike. */
const common = (laid: Laid, { size }: PlotAxis) =>
  ({
    type: 'number',
    scale: laid.log ? 'log' : 'linear',
    domain: [laid.min, laid.max],
    allowDataOverflow: true,
    ticks: laid.ticks,
    interval: 0,
    tickFormatter: (v: number) => tickText(v, laid.ticks, size),
    tick: chartText,
    tickSize: 4,
    tickMargin: 4,
    axisLine,
    tickLine: axisLine,
  }) as const;

const sideAxis = (side: 'left' | 'right', laid: Laid, axis: PlotAxis) => (
  <YAxis
    key={side}
    yAxisId={side}
    orientation={side}
    {...common(laid, axis)}
    width={room.y}
    label={{
      value: axis.label,
      angle: side === 'left' ? -90 : 90,
      position: side === 'left' ? 'insideLeft' : 'insideRight',
      offset: 8,
      style: { textAnchor: 'middle' },
      ...chartText,
    }}
  />
);
