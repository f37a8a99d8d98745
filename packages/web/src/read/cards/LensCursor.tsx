import { c0 } from '@jadebell/core/numerics';
import { ReferenceLine } from 'recharts';
import { useFrequency } from '../../lens/useFrequency.ts';

/** The frequency of the lens on a plot; it moves without the plot being drawn anew. */
export function LensCursor({ over }: { over: string }) {
  const frequency = useFrequency();
  if (frequency === null || (over !== 'frequency' && over !== 'wavelength')) return null;
  return (
    <ReferenceLine
      x={over === 'wavelength' ? c0 / frequency : frequency}
      yAxisId="left"
      stroke="var(--plum)"
      strokeWidth={1.3}
      strokeDasharray="3 3"
    />
  );
}
