import { unit } from '../numerics/vector.ts';
import type { ChipValues } from '../entries/chips.ts';
import { inPlane, planeAxes, type Point3 } from './recipe.ts';
import type { Line } from './kinds.ts';
import type { Axis } from '../numerics/axis.ts';

/** A place on the picked body that is dragged along a direction to change one value. Metres, in the axes of the line. */
export interface Handle {
  /** Chip that it changes. */
  path: string;
  at: Point3;
  /** Unit direction in which it is dragged. */
  along: Point3;
  /** Change of the value for a metre of dragging. */
  rate: number;
}

const plus = (p: Point3, d: Point3, by: number): Point3 => p.map((c, a) => c + d[a] * by) as Point3;
const at3 = (v: ChipValues, path = 'at'): Point3 => [v[`${path}.0`], v[`${path}.1`], v[`${path}.2`]];
const axisOf = (line: { axis?: unknown }): Axis => 'xyz'.indexOf(String(line.axis)) as Axis;

type Maker = (line: never, v: ChipValues) => Handle[];

/** A length along the axis of a round body, and radii at its ends. */
const round =
  (radii: readonly (readonly [string, 0 | 1])[]): Maker =>
  (line: { axis: string }, v) => {
    const axis = axisOf(line);
    const base = at3(v);
    const across = unit(inPlane[axis][0]);
    return [
      { path: 'height', at: plus(base, unit(axis), v.height), along: unit(axis), rate: 1 },
      ...radii.map(([path, end]): Handle => ({ path, at: plus(plus(base, unit(axis), end * v.height), across, v[path]), along: across, rate: 1 })),
    ];
  };
/** Radii about a centre in a plane or along an axis. */
const radial =
  (...paths: string[]): Maker =>
  (line: { plane?: keyof typeof planeAxes; axis?: string }, v) => {
    const across = line.plane ? planeAxes[line.plane][0] : line.axis ? inPlane[axisOf(line)][0] : 0;
    return paths.map((path) => ({ path, at: plus(at3(v), unit(across), v[path]), along: unit(across), rate: 1 }));
  };
const raised: Maker = (line: { plane?: keyof typeof planeAxes; axis?: string }, v) => {
  const axis = line.plane ? planeAxes[line.plane][2] : axisOf(line);
  return [{ path: 'height', at: plus(at3(v), unit(axis), v.height), along: unit(axis), rate: 1 }];
};
/** A point that moves freely, one handle an axis. */
const free = (v: ChipValues, path: string): Handle[] => [0, 1, 2].map((a) => ({ path: `${path}.${a}`, at: at3(v, path), along: unit(a), rate: 1 }));

/** Handles by the kind of line, besides that of the position. */
const makers: Partial<Record<Line['kind'], Maker>> = {
  box: (line: { anchor: string }, v) =>
    [0, 1, 2].map((a): Handle => {
      const centred = line.anchor === 'centre' || (line.anchor === 'base' && a < 2);
      const middle = [0, 1, 2].map(
        (b) => v[`at.${b}`] + (line.anchor === 'corner' || (line.anchor === 'base' && b === 2) ? v[`size.${b}`] / 2 : 0),
      ) as Point3;
      return { path: `size.${a}`, at: plus(middle, unit(a), v[`size.${a}`] / 2), along: unit(a), rate: centred ? 2 : 1 };
    }),
  rectangle: (line: { anchor: string; plane: keyof typeof planeAxes }, v) =>
    [0, 1].map((i): Handle => {
      const corner = line.anchor === 'corner' ? 0.5 : 0;
      let middle = at3(v);
      for (const k of [0, 1]) middle = plus(middle, unit(planeAxes[line.plane][k]), corner * v[`size.${k}`]);
      const along = unit(planeAxes[line.plane][i]);
      return { path: `size.${i}`, at: plus(middle, along, v[`size.${i}`] / 2), along, rate: corner ? 1 : 2 };
    }),
  cylinder: round([['radius', 1]]),
  tube: round([
    ['radius', 1],
    ['bore', 1],
  ]),
  cone: round([
    ['from', 0],
    ['to', 1],
  ]),
  sphere: radial('radius'),
  ellipsoid: (_line: never, v) =>
    [0, 1, 2].map((a): Handle => ({ path: `radii.${a}`, at: plus(at3(v), unit(a), v[`radii.${a}`]), along: unit(a), rate: 1 })),
  torus: (line: { axis: string }, v) => {
    const across = unit(inPlane[axisOf(line)][0]);
    return [
      { path: 'major', at: plus(at3(v), across, v.major), along: across, rate: 1 },
      { path: 'minor', at: plus(at3(v), across, v.major + v.minor), along: across, rate: 1 },
    ];
  },
  disc: radial('radius', 'bore'),
  sector: radial('radius'),
  arc: radial('radius'),
  helix: radial('radius'),
  prism: raised,
  frustum: raised,
  loft: raised,
  line: (_line: never, v) => [...free(v, 'from'), ...free(v, 'to')],
};

/** Handles of a line whose chips have these values: its position, and what its kind adds. */
export function handlesOf(line: Line, v: ChipValues): Handle[] {
  const own = (makers[line.kind] as ((l: Line, v: ChipValues) => Handle[]) | undefined)?.(line, v) ?? [];
  const position = 'at.0' in v && 'at.1' in v && 'at.2' in v && line.kind !== 'turn' && line.kind !== 'scale' ? free(v, 'at') : [];
  return [...position, ...own].filter((h) => h.at.every(Number.isFinite));
}

const tail = /^(.*\S)\s*([+-])\s*(\d+(?:\.\d+)?(?:e[-+]?\d+)?)\s*([A-Za-z]+)$/;

/**
 * An expression changed by dragging: a plain number with a unit becomes another, anything else keeps what it says and gets a
 * length added at its end, so that it still follows what it followed. `write` writes a length with its unit.
 */
export function draggedExpression(text: string, before: number, by: number, write: (si: number) => string): string {
  if (/^\s*-?\d+(\.\d+)?(e[-+]?\d+)?\s*[A-Za-z]*\s*$/.test(text)) return write(before + by);
  const found = tail.exec(text);
  // What was added by an earlier drag is taken up again.
  const scale: Record<string, number> = { nm: 1e-9, um: 1e-6, mm: 1e-3, cm: 1e-2, m: 1 };
  const old = found && found[4] in scale ? (found[2] === '-' ? -1 : 1) * Number(found[3]) * scale[found[4]] : 0;
  const stem = found && found[4] in scale ? found[1] : text.trim();
  const added = old + by;
  if (Math.abs(added) < 1e-15) return stem;
  return `${stem} ${added < 0 ? '-' : '+'} ${write(Math.abs(added))}`;
}
