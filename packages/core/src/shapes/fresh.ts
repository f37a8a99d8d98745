import { atPath, type ChipValues, withPath } from '../entries/chips.ts';
import { handlesOf, type Handle } from './handles.ts';
import type { Line } from './kinds.ts';
import type { Point3 } from './recipe.ts';
import type { Shape } from './shape.ts';

const metres: Record<string, number> = { nm: 1e-9, um: 1e-6, mm: 1e-3, cm: 1e-2, m: 1 };
/** A plain length such as 20 mm, metres; null where it is anything else. */
function plainLength(text: unknown): number | null {
  const found = /^(-?\d+(?:\.\d+)?) ?(nm|um|mm|cm|m)$/.exec(String(text));
  return found && Number(found[1]) * metres[found[2]];
}
/** 1, 2 or 5 times a power of ten at most `limit`. */
function round(limit: number): number {
  const power = 10 ** Math.floor(Math.log10(limit));
  return [5, 2, 1].map((m) => m * power).find((l) => l <= limit * (1 + 1e-9)) ?? power;
}

/** A new line whose largest length is about `size` metres; the others keep their ratios to it. `write` writes a length with its unit. */
export function freshSized(shape: Shape<Line>, name: string, size: number, write: (si: number) => string): Line {
  const line = shape.fresh(name);
  const lengths = shape
    .chips(line)
    .filter((c) => c.quantity === 'length')
    .flatMap(({ path }): { path: string; si: number }[] => {
      const si = plainLength(atPath(line, path));
      return si === null || si === 0 ? [] : [{ path, si }];
    });
  const most = Math.max(0, ...lengths.map(({ si }) => Math.abs(si)));
  if (!(most > 0) || !(size > 0)) return line;
  const factor = round(size / most);
  return lengths.reduce((l, { path, si }) => withPath(l, path, write(si * factor)), line);
}

/** A step in which a new body is given its place or sizes by hand: what it changes, and along which directions. */
export interface PlacingStep {
  kind: 'place' | 'sizes';
  handles: Handle[];
}

const across = (h: Handle, up: Point3): boolean => Math.abs(h.along.reduce((s, d, i) => s + d * up[i], 0)) < 1e-6;

/** Steps by which a line is placed and sized on a face with the normal `up`: its position, all sizes that lie in the face at once, then one by one. */
export function placingSteps(line: Line, values: ChipValues, up: Point3): PlacingStep[] {
  const all = handlesOf(line, values);
  const place = all.filter((h) => /^at\.\d$/.test(h.path));
  const sizes = all.filter((h) => !/^(at|from|to)\./.test(h.path));
  const flat = sizes.filter((h) => across(h, up));
  // Two that are dragged along one direction cannot be told by one point.
  const apart = flat.filter((h, i) => flat.findIndex((o) => o.along.join() === h.along.join()) === i);
  const rest = sizes.filter((h) => !apart.includes(h));
  return [
    ...(place.length ? [{ kind: 'place' as const, handles: place }] : []),
    ...(apart.length ? [{ kind: 'sizes' as const, handles: apart }] : []),
    ...rest.map((h) => ({ kind: 'sizes' as const, handles: [h] })),
  ];
}

/** The plane across each axis. */
const planes = ['yz', 'zx', 'xy'];

/** How a line turns to stand on a face: round and raised ones along its normal, boxes on their base where it looks up. */
export function standingOn(line: Line, up: Point3): Line {
  const axis = up.findIndex((c) => Math.abs(c) > 0.9);
  const l = line as Line & { axis?: unknown; plane?: unknown };
  let out = line;
  if (axis >= 0 && typeof l.axis === 'string' && 'xyz'.includes(l.axis)) out = withPath(out, 'axis', 'xyz'[axis]);
  if (axis >= 0 && typeof l.plane === 'string' && planes.includes(l.plane)) out = withPath(out, 'plane', planes[axis]);
  if (l.kind === 'box') out = withPath(out, 'anchor', up[2] > 0.9 ? 'base' : 'centre');
  return out;
}
