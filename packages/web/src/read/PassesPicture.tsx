import { formatSI } from '@jadebell/core/expressions/format';
import { changeToCome } from '@jadebell/core/methods';
import { unitOfAxis } from '@jadebell/core/reading';
import { decibel, passKey, sCurve, sName } from '@jadebell/core/results';
import { useMemo } from 'react';
import { getArray } from '../api/client.ts';
import type { Run } from '../api/types.ts';
import { useKept } from '../api/useKept.ts';
import type { PlotTrace } from '../charts/plot/parts.ts';
import { Plot } from '../charts/plot/Plot.tsx';
import { traceStyle } from '../charts/traces.ts';
import { useDark } from '../ui/useDark.ts';

/** Amplitudes that decibels are still told of. */
const least = 1e-4;

/** The first reflection of each pass laid over that of the last, with what is still to come as a band around it. */
export function PassesPicture({ run }: { run: Run }) {
  const dark = useDark();
  const { ports, excitations, evidence } = run.meta!;
  const passes = evidence.passes!;
  const names = useMemo(() => [...passes.slice(1).map((_, n) => passKey(n + 1)), 's'], [passes]);
  const { data } = useKept(`passes ${run.id}`, () => Promise.all(['frequency', ...names].map((name) => getArray(run.id, name))));
  const own = excitations[0];
  const drawn = useMemo(() => {
    if (!data) return null;
    const [frequency, ...arrays] = data;
    const traces = arrays.map((s, n): PlotTrace => {
      const last = n === arrays.length - 1;
      // The last stands out; the others are fainter the earlier they are.
      const style = traceStyle(1, dark);
      return {
        name: `pass ${n + 1}`,
        color: last ? style.color : `color-mix(in srgb, var(--faint) ${Math.round(30 + (60 * (n + 1)) / arrays.length)}%, transparent)`,
        dash: last ? '' : '4 3',
        x: frequency.data,
        y: Float64Array.from(sCurve(s, own, 0), decibel),
        axis: 'left',
      };
    });
    const toCome = changeToCome(passes);
    const final = sCurve(arrays[arrays.length - 1], own, 0).map((v) => Math.hypot(...v));
    const level = (a: number): number => 20 * Math.log10(Math.max(least, a));
    const ribbon =
      toCome === null ? [] : final.map((a, i) => ({ x: frequency.data[i], sides: [level(a - toCome), level(a + toCome)] as [number, number] }));
    const { size, unit } = unitOfAxis('Hz', frequency.data[frequency.data.length - 1]);
    return { traces, ribbon, axis: { label: `frequency (${unit})`, size } };
  }, [data, dark, own, passes]);
  if (!drawn) return null;
  return (
    <div style={{ height: 190 }}>
      <Plot
        label={`${sName(ports, own, own)} of the passes`}
        x={drawn.axis}
        left={side}
        traces={drawn.traces}
        ribbon={drawn.ribbon}
        tell={(_, __, y) => `${y.toFixed(2)} dB`}
        tellX={(v) => formatSI(v, 'frequency')}
      />
    </div>
  );
}
const side = { label: 'reflection (dB)', size: 1 };
