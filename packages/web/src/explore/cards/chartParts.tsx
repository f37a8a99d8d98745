import { createPortal } from 'react-dom';
import { usePlotArea, useXAxisScale, useYAxisScale } from 'recharts';
import { PlotTip } from '../../charts/plot/PlotTip.tsx';

export type Scale = (v: number) => number | undefined;

/** Scales of a chart as plain functions, and its area; null until it is laid out. */
export function useScales() {
  const area = usePlotArea();
  const x = useXAxisScale() as Scale | undefined;
  const y = useYAxisScale('left') as Scale | undefined;
  return area && x && y ? { area, x, y } : null;
}

/** Layer of what is drawn over the grid of a chart, and of what takes the pointer. */
export const layers = { drawn: 400, lit: 401, pointer: 1500 };

interface NoteProps {
  area: { x: number; width: number };
  holder: HTMLElement;
  /** The pointer is in the right half: the words stand on the left. */
  late: boolean;
  lines: readonly string[];
}

/** What is said of what is under the pointer, on the other side of the chart. */
export const PointerNote = ({ area, holder, late, lines }: NoteProps) =>
  createPortal(
    <PlotTip side={late ? { left: area.x + 6 } : { right: holder.clientWidth - area.x - area.width + 6 }}>
      {lines.map((line, i) => (
        <div key={i} className={i ? 'mono' : undefined}>
          {line}
        </div>
      ))}
    </PlotTip>,
    holder,
  );
