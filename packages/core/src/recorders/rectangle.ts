import type { Axis } from '../numerics/axis.ts';
import { type ChipValues, choice, length, normalField, pair, type ValuesOf } from '../entries/index.ts';
import type { Point3 } from '../shapes/index.ts';
import { imageOf, imageSign, type Mirrors, nearestLine } from '../yee/index.ts';
import { axisOf, beside, type Fault, type GridRecording, type Index, type Mark, type Surroundings } from './recorder.ts';
import { sameMesh } from '../numerics/tolerance.ts';

/** A rectangle across an axis, of which a recorder tells what passes through it. */
export interface Rectangle {
  normal: Axis;
  /** +1: counted towards larger coordinates. */
  sign: 1 | -1;
  /** Metres; min and max are the same along `normal`. */
  min: Point3;
  max: Point3;
  /** Parts of the whole rectangle, of which this is one; absent: 1. */
  images?: number;
  /** Axes on which this is the image of what was asked for. */
  turned?: boolean[];
}

/** Fields of a recorder on a rectangle; `up` says what counts upwards. */
export const rectangleFields = (up: string) => ({
  normal: normalField('Axis the rectangle stands across'),
  towards: choice('direction', { up: 'upwards', down: 'downwards' }, `up: ${up} towards larger coordinates`),
  at: length('position', '0 mm', 'Coordinate of the rectangle on that axis'),
  from: pair('from', ['-5 mm', '-5 mm'], { about: 'One corner, in the two other axes in the order x, y, z' }),
  to: pair('to', ['5 mm', '5 mm'], { about: 'The opposite corner' }),
});
type Entry = ValuesOf<ReturnType<typeof rectangleFields>>;

/** A rectangle across the whole region, at its middle. */
export const across = ({ at }: Surroundings): Pick<Entry, 'normal' | 'at' | 'from' | 'to'> => ({
  normal: 'z',
  at: at(2, 'middle'),
  from: [at(0, 'low'), at(1, 'low')],
  to: [at(0, 'high'), at(1, 'high')],
});

/** The rectangle of an entry. */
export function resolveRectangle(entry: Entry, v: ChipValues): Rectangle | Fault {
  const normal = axisOf(entry.normal);
  const min: Point3 = [v.at, v.at, v.at];
  const max: Point3 = [...min];
  for (const [i, a] of beside(normal).entries()) {
    const [p, q] = [v[`from.${i}`], v[`to.${i}`]];
    [min[a], max[a]] = [Math.min(p, q), Math.max(p, q)];
    if (p === q)
      return { code: 'recorder.flat', chip: `to.${i}`, fault: `The rectangle has no extent along ${'xyz'[a]}.`, fix: 'Move one of its corners.' };
  }
  return { normal, sign: entry.towards === 'up' ? 1 : -1, min, max };
}

/**
 * The part of a rectangle in the computed half. What lies behind a plane is told by its image: power flow turns round across the plane, a current does as E
 * does (`ofCurrent`).
 */
export function mirrorRectangle<R extends Rectangle>(r: R, mirrors: Mirrors, ofCurrent: boolean): R | Fault {
  const out = { ...r, min: [...r.min] as Point3, max: [...r.max] as Point3, images: 1, turned: [false, false, false] };
  for (const [a, m] of mirrors.entries()) {
    if (!m) continue;
    const slack = sameMesh * Math.max(...r.max.map((x, i) => x - r.min[i]));
    if (r.min[a] >= m.at - slack && (a === r.normal || r.max[a] > m.at + slack)) continue;
    if (r.max[a] <= m.at + slack) {
      [out.min[a], out.max[a]] = imageOf(m, [r.min[a], r.max[a]]);
      out.turned[a] = true;
      if (ofCurrent ? imageSign(m.wall, a, r.normal) < 0 : a === r.normal) out.sign = out.sign === 1 ? -1 : 1;
    } else if (Math.abs((r.min[a] + r.max[a]) / 2 - m.at) <= slack) {
      out.min[a] = m.at;
      // Currents on both sides of an electric plane are opposite.
      out.images *= ofCurrent && m.wall === 'electric' ? 0 : 2;
    } else
      return {
        code: 'symmetry.recorder',
        chip: `from.${beside(r.normal).indexOf(a as Axis)}`,
        fault: `The rectangle reaches unevenly across the plane of symmetry across ${'xyz'[a]}.`,
        fix: 'Let it end at the plane, or reach equally far on both sides.',
      };
  }
  return out;
}

/** Where a rectangle lies outside the region. What reaches beyond it in part is cut off; nothing is computed there. */
export function rectangleOutside(
  r: Rectangle,
  { min, max, out }: { min: Point3; max: Point3; out(x: number, axis: number): boolean },
): { what: string; chip: string } | null {
  if (out(r.min[r.normal], r.normal)) return { what: 'rectangle', chip: 'at' };
  const off = beside(r.normal).findIndex((a) => r.max[a] <= min[a] || r.min[a] >= max[a]);
  return off >= 0 ? { what: 'rectangle', chip: `from.${off}` } : null;
}

/** The mark of a rectangle on the model. */
export const rectangleMarks = ({ min, max, normal, sign }: Rectangle): Mark[] => [{ form: 'rectangle', min, max, normal, sign }];

/** Nodes of a rectangle's corners. What reaches into the absorbing layers is cut off; the plane itself needs samples on both sides. */
export function rectangleNodes(r: Rectangle, { grid, inner }: GridRecording): [lo: Index, hi: Index] {
  const ends = (p: readonly number[]): Index =>
    ([0, 1, 2] as const).map((a) => {
      const i = Math.min(Math.max(nearestLine(grid.lines[a], p[a]), inner.lo[a]), inner.hi[a]);
      return a === r.normal ? Math.min(Math.max(i, 1), grid.lines[a].length - 2) : i;
    }) as Index;
  return [ends(r.min), ends(r.max)];
}

/** Coordinate of the plane at which a rectangle was recorded, behind a plane of symmetry that of its image. */
export function recordedAt({ normal, turned }: Rectangle, { grid, mirrors }: GridRecording, node: number): number {
  const at = grid.lines[normal][node];
  return turned?.[normal] ? 2 * mirrors![normal]!.at - at : at;
}
