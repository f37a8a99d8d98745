import { type Line, shapeOf } from '@jadebell/core/document';
import { formatSI } from '@jadebell/core/expressions/format';
import { useModel } from '../project/model.ts';
import { madeBy } from '../project/ofLine.ts';

/** The extents of what a line makes, those along which it has any, such as 96 mm × 24 mm. */
export function extentText(boxes: readonly { min: readonly number[]; max: readonly number[] }[]): string {
  if (!boxes.length) return '';
  return [0, 1, 2]
    .map((a) => Math.max(...boxes.map((b) => b.max[a])) - Math.min(...boxes.map((b) => b.min[a])))
    .filter((d) => d > 0)
    .map((d) => formatSI(d, 'length', 3))
    .join(' × ');
}

/** A line in one row: its name, what it is, of what, and how large. */
export function DenseLine({ line }: { line: Line }) {
  const size = useModel(({ view }) => extentText(madeBy(view, line.name).bodies));
  const material = useModel(({ view }) => line.material ?? madeBy(view, line.name).bodies[0]?.material.name ?? '');
  return (
    <span className="dense">
      <b>{line.name}</b>
      <span className="quiet">{shapeOf(line).title.toLowerCase()}</span>
      <span>{material}</span>
      <span className="mono">{size}</span>
    </span>
  );
}
