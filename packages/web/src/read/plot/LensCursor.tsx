import { c0 } from './constants.ts';
import { useFrequency } from '../../lens/useFrequency.ts';

/** The frequency of the lens on a plot; it moves without the plot being drawn anew. */
export function LensCursor({ x, top, bottom, over }: { x(v: number): number; top: number; bottom: number; over: string }) {
  const frequency = useFrequency();
  if (frequency === null || (over !== 'frequency' && over !== 'wavelength')) return null;
  const at = x(over === 'wavelength' ? c0 / frequency : frequency);
  return <line x1={at} x2={at} y1={top} y2={bottom} stroke="var(--plum)" strokeWidth={1.3} strokeDasharray="3 3" />;
}
