import { formatSI } from '@jadebell/core/expressions/format';
import { colourTables } from '../charts/colours.ts';
import type { Prepared } from '../workers/section.protocol.ts';
import { type Quantity, sectionScale } from './display.ts';

/** For each pixel along an axis the cell it lies in, and the share of the way to its upper line. */
interface Places {
  cell: Int32Array;
  share: Float32Array;
}
function places(x: Float64Array, count: number): Places {
  const cell = new Int32Array(count);
  const share = new Float32Array(count);
  for (let p = 0, k = 0; p < count; p++) {
    const at = x[0] + ((p + 0.5) / count) * (x[x.length - 1] - x[0]);
    while (k < x.length - 2 && x[k + 1] < at) k++;
    cell[p] = k;
    share[p] = (at - x[k]) / (x[k + 1] - x[k]);
  }
  return { cell, share };
}

/** A section to scale: pixels, and pixels in a metre. Columns go from the left, rows from below. */
export interface View {
  width: number;
  height: number;
  scale: number;
  cols: Places;
  rows: Places;
}
/** The largest view of a section that fits into a box with a margin all around, pixels. */
export function viewOf({ x, y }: Pick<Prepared, 'x' | 'y'>, box: { width: number; height: number }, margin = 12): View {
  const [sx, sy] = [x[x.length - 1] - x[0], y[y.length - 1] - y[0]];
  const scale = Math.max(0, Math.min((box.width - 2 * margin) / sx, (box.height - 2 * margin) / sy));
  const width = Math.max(1, Math.floor(sx * scale));
  const height = Math.max(1, Math.floor(sy * scale));
  return { width, height, scale, cols: places(x, width), rows: places(y, height) };
}

/** A quantity of a mode at the nodes [y][x], the end of its colours, and its largest value. */
export interface NodeValues {
  out: Float32Array;
  top: number;
  most: number;
}
/** Reads a quantity of a mode's field [y][x][12]. */
export function valuesOf(field: Float32Array, quantity: Quantity): NodeValues {
  const out = Float32Array.from({ length: field.length / 12 }, (_, n) => quantity.of(field, 12 * n));
  return { out, ...sectionScale(out, out.reduce((most, v) => Math.max(most, Math.abs(v)), 0)) }; // prettier-ignore
}

/** Number of the body that a pixel lies in, from 1; 0 is none. `row` counts from below. */
export const bodyAt = ({ cols, rows }: View, { media }: Prepared, column: number, row: number): number =>
  media.body[(2 * rows.cell[row] + (rows.share[row] < 0.5 ? 0 : 1)) * media.nx + 2 * cols.cell[column] + (cols.share[column] < 0.5 ? 0 : 1)];

/** What a section is painted with: colours as words of opacity, blue, green and red. */
export interface Palette {
  ground: number;
  metal: number;
  /** Of the bodies in turn, where no field is drawn. */
  tints: readonly number[];
}

/** Paints bodies, or values between the nodes where there is no metal, a word for each pixel, rows from above. */
export function paintSection(
  view: View,
  section: Prepared,
  values: NodeValues | null,
  map: keyof typeof colourTables,
  palette: Palette,
  out: Uint32Array,
): void {
  const { cols, rows, width, height } = view;
  const nx = section.x.length;
  const levels = colourTables[map];
  for (let p = 0; p < height; p++) {
    const r = height - 1 - p;
    const [j, t] = [rows.cell[r], rows.share[r]];
    for (let q = 0; q < width; q++) {
      const b = bodyAt(view, section, q, r);
      const inMetal = b > 0 && section.bodies[b - 1].metal;
      if (!values || inMetal) {
        out[p * width + q] = b === 0 ? palette.ground : inMetal ? palette.metal : palette.tints[(b - 1) % palette.tints.length];
        continue;
      }
      const [i, s] = [cols.cell[q], cols.share[q]];
      const a = j * nx + i;
      const v = (1 - t) * ((1 - s) * values.out[a] + s * values.out[a + 1]) + t * ((1 - s) * values.out[a + nx] + s * values.out[a + nx + 1]);
      const level = map === 'signed' ? 0.5 + v / values.top / 2 : v / values.top;
      out[p * width + q] = levels[Math.max(0, Math.min(255, Math.round(255 * level)))];
    }
  }
}

/** Paths over a section, in pixels: where neighbouring half cells lie in different bodies, sheets of metal, and the grid if asked for. */
export function linesOf(
  { x, y, media, metal }: Prepared,
  { width, height, scale }: View,
  grid: boolean,
): { faces: string; metal: string; mesh: string } {
  const px = (v: number): string => ((v - x[0]) * scale).toFixed(1);
  const py = (v: number): string => ((y[y.length - 1] - v) * scale).toFixed(1);
  const half = (c: Float64Array, k: number): number => (k % 2 ? (c[k >> 1] + c[(k >> 1) + 1]) / 2 : c[k >> 1]);
  const faces: string[] = [];
  for (let j = 0; j < media.ny; j++)
    for (let i = 0; i < media.nx; i++) {
      const n = j * media.nx + i;
      if (i > 0 && media.body[n] !== media.body[n - 1]) faces.push(`M${px(half(x, i))} ${py(half(y, j))}V${py(half(y, j + 1))}`);
      if (j > 0 && media.body[n] !== media.body[n - media.nx]) faces.push(`M${px(half(x, i))} ${py(half(y, j))}H${px(half(x, i + 1))}`);
    }
  const sheets: string[] = [];
  for (let k = 0; k < metal.length; k += 4) sheets.push(`M${px(metal[k])} ${py(metal[k + 1])}L${px(metal[k + 2])} ${py(metal[k + 3])}`);
  const mesh = grid ? [...Array.from(x, (v) => `M${px(v)} 0V${height}`), ...Array.from(y, (v) => `M0 ${py(v)}H${width}`)] : [];
  return { faces: faces.join(''), metal: sheets.join(''), mesh: mesh.join('') };
}

/** A rectangle by its corners, pixels from the upper left. */
type Band = [left: number, top: number, right: number, bottom: number];
/** The absorbing edges of a section. */
export function bandsOf({ x, y, layers: [left, right, bottom, top] }: Prepared, { width, height, scale }: View): Band[] {
  const [last, highest] = [x.length - 1, y.length - 1];
  const bands: Band[] = [];
  if (left) bands.push([0, 0, (x[left] - x[0]) * scale, height]);
  if (right) bands.push([(x[last - right] - x[0]) * scale, 0, width, height]);
  if (bottom) bands.push([0, height - (y[bottom] - y[0]) * scale, width, height]);
  if (top) bands.push([0, 0, width, (y[highest] - y[highest - top]) * scale]);
  return bands;
}

/** What is at a pixel, counted from the upper left, in words: its node, its body, and the value there. */
export function tellAt(view: View, section: Prepared, values: NodeValues | null, quantity: Quantity, left: number, top: number): string {
  const { cols, rows } = view;
  const q = Math.min(view.width - 1, Math.max(0, Math.floor(left)));
  const p = Math.min(view.height - 1, Math.max(0, view.height - 1 - Math.floor(top)));
  const [i, j] = [cols.cell[q] + Math.round(cols.share[q]), rows.cell[p] + Math.round(rows.share[p])];
  const [u, v] = section.axes.map((a) => 'xyz'[a]);
  const body = bodyAt(view, section, q, p);
  return [
    `${u} ${formatSI(section.x[i], 'length', 4)}, ${v} ${formatSI(section.y[j], 'length', 4)}`,
    body ? `, ${section.bodies[body - 1].name}` : '',
    values ? `: ${quantity.label} ${values.out[j * section.x.length + i].toPrecision(4)} ${quantity.unit}` : '',
  ].join('');
}
