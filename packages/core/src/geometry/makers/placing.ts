import type { Point3 } from '../../shapes/index.ts';
import { type Affine, apply, compose, identity, invert, translation } from '../../numerics/affine.ts';
import { type Exact, holdsMesh } from '../exact.ts';
import { unionLoops } from '../flat.ts';
import { alignedAxis, axisFrame, frameAlong, inPlaneOf, type Item, kindOf, originOf } from '../item.ts';
import { GeometryFault } from '../fault.ts';
import { curveLength, pointAlong } from '../paths.ts';
import { release } from '../solids.ts';
import { columns } from './basic.ts';
import type { BuildContext, BuildResult, Maker } from './maker.ts';
import type { Axis } from '../../numerics/axis.ts';
import { nothing, sameNumber } from '../../numerics/tolerance.ts';

/** An item at another place. */
export function placed(item: Item | BuildResult, m: Affine): BuildResult {
  if (item.solid) {
    const { manifold, exact } = item.solid;
    const wire = item.wire && isRigid(m) ? { ...item.wire, points: item.wire.points.map((p) => apply(m, p)) } : undefined;
    return { solid: { manifold: manifold.transform(columns(m)), exact: exact && movedExact(exact, m) }, ...(wire ? { wire } : {}) };
  }
  if (item.sheet) return { sheet: placedSheet(item.sheet, m) };
  if (item.curve) return { curve: { ...item.curve, points: item.curve.points.map((p) => apply(m, p)) } };
  if (item.frame) return { frame: compose(m, item.frame) };
  return { members: (item.members ?? []).map((part) => placed(part, m)) };
}

const isRigid = (m: Affine): boolean =>
  [0, 4, 8].every((r) => [0, 4, 8].every((q) => Math.abs(m[r] * m[q] + m[r + 1] * m[q + 1] + m[r + 2] * m[q + 2] - (r === q ? 1 : 0)) < sameNumber));

/** Moves an exact tree. A shift of a simple shape changes its numbers; other maps wrap it. Null for a tree with a mesh in it. */
function movedExact(e: Exact, m: Affine): Exact | null {
  if (holdsMesh(e)) return null;
  const shift: Point3 = [m[3], m[7], m[11]];
  const plain = [0, 5, 10].every((i) => m[i] === 1) && [1, 2, 4, 6, 8, 9].every((i) => m[i] === 0);
  const add = (p: Point3): Point3 => p.map((x, i) => x + shift[i]) as Point3;
  if (plain) {
    if (e.form === 'box') return { ...e, min: add(e.min), max: add(e.max) };
    if (e.form === 'cylinder' || e.form === 'cone') return { ...e, base: add(e.base) };
    if (e.form === 'ball') return { ...e, centre: add(e.centre) };
  }
  if (e.form === 'box' && keepsAxes(m)) {
    const [a, b] = [apply(m, e.min), apply(m, e.max)];
    return { form: 'box', min: a.map((x, i) => Math.min(x, b[i])) as Point3, max: a.map((x, i) => Math.max(x, b[i])) as Point3 };
  }
  if (e.form === 'moved') {
    const matrix = compose(m, e.matrix);
    return { form: 'moved', matrix, inverse: invert(matrix), of: e.of };
  }
  return { form: 'moved', matrix: m, inverse: invert(m), of: e };
}

/** Whether a map sends every axis to an axis. */
const keepsAxes = (m: Affine): boolean => [0, 4, 8].every((r) => [0, 1, 2].filter((c) => m[r + c] !== 0).length === 1);

/** A sheet at another place. Its outlines keep their numbers unless the map stretches; a sheet across an axis is brought to that axis’s own frame. */
function placedSheet({ frame, loops }: NonNullable<Item['sheet']>, m: Affine): NonNullable<Item['sheet']> {
  const moved = compose(m, frame);
  if (!isRigid(m) || alignedAxis(moved) !== null || determinantSign(moved) < 0) {
    // Points are mapped one by one to a frame with unit axes.
    const point = (p: readonly number[]): Point3 => apply(moved, [p[0], p[1], 0]);
    const x: Point3 = [moved[0], moved[4], moved[8]];
    const y: Point3 = [moved[1], moved[5], moved[9]];
    const n: Point3 = [x[1] * y[2] - x[2] * y[1], x[2] * y[0] - x[0] * y[2], x[0] * y[1] - x[1] * y[0]];
    const l = Math.hypot(...n);
    const unit = n.map((c) => (Math.abs(Math.abs(c / l) - 1) < nothing ? Math.sign(c) : Math.abs(c / l) < nothing ? 0 : c / l)) as Point3;
    const axis = unit.findIndex((c) => Math.abs(c) === 1);
    const target = axis >= 0 ? axisFrame(axis as Axis, originOf(moved)[axis]) : frameAlong(originOf(moved), unit);
    const inverse = invert(target);
    return { frame: target, loops: loops.map((loop) => loop.map((p) => apply(inverse, point(p)).slice(0, 2) as [number, number])) };
  }
  return { frame: moved, loops };
}
const determinantSign = (m: Affine): number =>
  Math.sign(m[0] * (m[5] * m[10] - m[6] * m[9]) - m[1] * (m[4] * m[10] - m[6] * m[8]) + m[2] * (m[4] * m[9] - m[5] * m[8]));

/** A map given in the working frame, as one of the world. */
const inWorld = (m: Affine, frame: Affine | null): Affine => (frame ? compose(frame, compose(m, invert(frame))) : m);

/**
 * One body of several copies.
 * @throws GeometryFault where they cannot become one.
 */
function together(bench: BuildContext, copies: BuildResult[]): BuildResult {
  if (copies.length === 1) return copies[0];
  const kinds = new Set(copies.map((c) => kindOf(c as Item)));
  if (kinds.size > 1 || !(kinds.has('solid') || kinds.has('sheet')))
    throw new GeometryFault('These cannot become one body.', 'Choose separate bodies.', 'as');
  if (copies[0].solid) {
    const manifold = bench.kernel.Manifold.union(copies.map((c) => c.solid!.manifold));
    copies.forEach((c) => release(c.solid!));
    const parts = copies.map((c) => c.solid!.exact);
    return { solid: { manifold, exact: parts.includes(null) ? null : { form: 'join', parts: parts as Exact[] } } };
  }
  const first = copies[0].sheet!;
  const inverse = invert(first.frame);
  const loops = copies.map((c) => inPlaneOf(first.frame, inverse, c.sheet!, sameNumber));
  if (loops.includes(null))
    throw new GeometryFault('The sheets lie in different planes, so they cannot become one.', 'Choose separate bodies.', 'as');
  return { sheet: { frame: first.frame, loops: unionLoops(bench.kernel, loops as NonNullable<(typeof loops)[0]>[]) } };
}

function copies(bench: BuildContext, places: readonly Affine[], as: 'one' | 'many'): BuildResult {
  const { item } = bench.inputs[0];
  const made = places.map((m) => placed(item, inWorld(m, bench.frame)));
  if (as === 'many') return { members: made };
  return together(bench, made);
}

/** A line at places, in its place or as copies. */
export const place: Maker<'place'> = ({ places, as }, bench) => copies(bench, places, as);

/** Copies of a line along a curve. */
export const alongCurve: Maker<'along'> = ({ count, turn, as }, bench) => {
  const path = bench.inputs[1].item.curve!;
  const step = count > 1 ? curveLength(path) / (path.closed ? count : count - 1) : 0;
  const start = pointAlong(path, 0);
  const frames = Array.from({ length: count }, (_, i) => pointAlong(path, i * step));
  const zero = turn ? invert(onCurve(start)) : translation(start.point.map((c) => -c) as Point3);
  const places = frames.map((f, i) => (i === 0 ? identity : compose(turn ? onCurve(f) : translation(f.point), zero)));
  // The curve is in world axes already.
  return copies({ ...bench, frame: null }, places, as);
};

const onCurve = ({ point, direction }: { point: Point3; direction: Point3 }): Affine => frameAlong(point, direction);
