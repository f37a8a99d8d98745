import { drawnIndices } from '@jadebell/core/curves';
import { spanOf, ticksOf } from './axis.ts';
import type { Laid, PlotAxis, PlotTrace } from './parts.ts';

/** Room of an axis with its numbers and title, in pixels. */
export const room = { x: 42, y: 60, free: 20, top: 8 };

const laid = ([min, max]: [number, number], { log, size, angles }: PlotAxis, pixels: number, each: number): Laid => ({
  min,
  max,
  log: !!log,
  ticks: ticksOf(min / size, max / size, !!log, Math.max(2, Math.min(8, pixels / each)), angles).map((t) => t * size),
});

/** The axes of traces on a box of pixels: y spans what is seen of x, on round bounds. */
export function layAxes(
  traces: readonly PlotTrace[],
  axes: { x: PlotAxis; left: PlotAxis; right?: PlotAxis },
  box: { width: number; height: number },
): { x: Laid; left: Laid; right: Laid | null } {
  const { x, left, right } = axes;
  const second = traces.some((t) => t.axis === 'right');
  const span = spanOf(traces.map((t) => t.x), x, !!x.log, false); // prettier-ignore
  const whole = x.min === undefined && x.max === undefined;
  const tall = box.height - room.top - room.x;
  const side = (which: 'left' | 'right', a: PlotAxis): Laid => {
    const own = traces.filter((t) => t.axis === which).map((t) => (whole ? t.y : within(t, span)));
    return laid(spanOf(own, a, !!a.log, true, a.angles), a, tall, 34);
  };
  return {
    x: laid(span, x, box.width - room.y - (second ? room.y : room.free), 74),
    left: side('left', left),
    right: second && right ? side('right', right) : null,
  };
}

/** The values of a trace within a stretch of x. */
function within({ x, y }: PlotTrace, [from, to]: [number, number]): number[] {
  const out: number[] = [];
  for (let i = 0; i < x.length; i++) if (x[i] >= from && x[i] <= to) out.push(y[i]);
  return out;
}

/** A point that is drawn; without y the line is broken there. */
export interface Drawn {
  x: number;
  y: number | null;
}

/** How many spans beyond the picture a line may run: what lies farther is held there, as drawing takes no endless numbers. */
const reach = 20;

/** What of a trace is drawn on so many pixel columns: all of it looks so, and no peak is lost. */
export function drawnOf(trace: PlotTrace, x: Laid, y: Laid, columns: number, angles: boolean): Drawn[] {
  const out: Drawn[] = [];
  let last = NaN;
  const span = y.max - y.min;
  for (const i of drawnIndices(trace.x, trace.y, Math.max(2, columns), x.min, x.max)) {
    const v = trace.y[i];
    const at = trace.x[i];
    // A phase that jumps by a turn is one that goes on: no line is drawn down.
    if (angles && Math.abs(v - last) > 270) out.push({ x: at, y: null });
    last = v;
    const shown = Number.isFinite(v) && !(y.log && v <= 0) && !(x.log && at <= 0);
    out.push({ x: at, y: !shown ? null : y.log ? v : Math.max(y.min - reach * span, Math.min(y.max + reach * span, v)) });
  }
  return out;
}
