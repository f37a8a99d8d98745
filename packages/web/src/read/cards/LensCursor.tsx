import { c0 } from '@jadebell/core/numerics';
import { PlotCursor } from '../../charts/plot/Marks.tsx';
import { useFrequency } from '../../lens/useFrequency.ts';

/** The frequency of the lens on a plot; it moves without the plot being drawn anew. */
export function LensCursor({ over }: { over: string }) {
  const frequency = useFrequency();
  if (frequency === null || (over !== 'frequency' && over !== 'wavelength')) return null;
  return <PlotCursor x={over === 'wavelength' ? c0 / frequency : frequency} width={1.3} />;
}
