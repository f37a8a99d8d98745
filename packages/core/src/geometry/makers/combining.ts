import type { Manifold } from 'manifold-3d';
import { inPlane, type Point2, type Point3 } from '../../shapes/index.ts';
import { apply, compose, invert } from '../../numerics/affine.ts';
import type { Exact } from '../exact.ts';
import { GeometryFault } from '../fault.ts';
import { commonLoops, cutLoops, type Loops, offsetLoops, unionLoops } from '../flat.ts';
import { axisFrame, frameAlong, inPlaneOf, type Item, kindOf, originOf, type SheetPart } from '../item.ts';
import { edgeRuns } from '../naming.ts';
import { SolidMesh } from '../solids.ts';
import { surfaceOf } from '../surface.ts';
import { columns, prismOn } from './basic.ts';
import { type BuildContext, faceOf, type BuildResult, type Maker, needFlat, solidOf } from './maker.ts';
import type { Axis } from '../../numerics/axis.ts';
import { sameMesh } from '../../numerics/tolerance.ts';

/** Extent of a body, for tolerances. */
const extentOf = (bench: BuildContext, item: Item): number => {
  const { positions } = surfaceOf(bench.kernel, bench.origins, item);
  let most = 0;
  for (let i = 3; i < positions.length; i++) most = Math.max(most, Math.abs(positions[i] - positions[i % 3]));
  return most || 1;
};

/** Outlines where the plane of `frame` meets a solid, in that frame. */
function sectionOf(bench: BuildContext, item: Item, frame: readonly number[]): Loops {
  const scale = 1 / extentOf(bench, item);
  // Cross-sections keep eight decimals, so the body is brought to unit size.
  const inverse = invert(frame);
  const unit = inverse.map((v) => v * scale);
  const moved = item.solid!.manifold.transform(columns(unit));
  const section = moved.slice(0);
  const loops = section.toPolygons().map((l) => l.map((p): Point2 => [p[0] / scale, p[1] / scale]));
  moved.delete();
  section.delete();
  return loops;
}

/** Bodies of a combination as what they are all: solids, or outlines in the plane of the first sheet. */
function sheetsOf(bench: BuildContext, items: Item[], solidsMayCut: boolean): { frame: readonly number[]; loops: Loops[] } {
  const first = items[0].sheet!;
  const inverse = invert(first.frame);
  const loops = items.map((item) => {
    if (item.sheet) {
      const found = inPlaneOf(first.frame, inverse, item.sheet, 1e-7 * extentOf(bench, item));
      if (found) return found;
      throw new GeometryFault(
        `${item.line} does not lie in the plane of ${items[0].line}.`,
        'Combine sheets of one plane, or give them thickness first.',
      );
    }
    if (item.solid && solidsMayCut) return sectionOf(bench, item, first.frame);
    throw new GeometryFault(
      `${item.line} is a ${kindOf(item)} and ${items[0].line} a sheet.`,
      'Combine bodies of one kind, or thicken the sheet first.',
    );
  });
  return { frame: first.frame, loops };
}

const flatten = (item: Item): Item[] => (item.members ? item.members.flatMap(flatten) : [item]);
const inputsOf = (bench: BuildContext): Item[] => bench.inputs.flatMap(({ item }) => flatten(item));

const exactOf = (items: Item[]): Exact[] | null => {
  const found = items.map((i) => i.solid!.exact);
  return found.includes(null) ? null : (found as Exact[]);
};

function sheetMade(frame: readonly number[], loops: Loops, what: string): BuildResult {
  if (!loops.length) throw new GeometryFault(`${what} leaves nothing.`, 'Move or resize the sheets so that something is left.');
  return { sheet: { frame, loops } };
}

function needSolids(items: Item[]): void {
  const other = items.find((i) => !i.solid);
  if (other)
    throw new GeometryFault(
      `${other.line} is a ${kindOf(other)}, which cannot be combined with a solid.`,
      'Combine bodies of one kind, or thicken the sheet first.',
    );
}

/** The union of lines. */
export const join: Maker<'join'> = (_, bench) => {
  const items = inputsOf(bench);
  if (items[0].sheet) {
    const { frame, loops } = sheetsOf(bench, items, false);
    return sheetMade(frame, unionLoops(bench.kernel, loops), 'Joining');
  }
  needSolids(items);
  const parts = exactOf(items);
  return solidOf(bench.kernel.Manifold.union(items.map((i) => i.solid!.manifold)), parts && { form: 'join', parts }, 'Joining');
};

/** What lines have in common. */
export const common: Maker<'common'> = (_, bench) => {
  const items = inputsOf(bench);
  const sheet = items.findIndex((i) => i.sheet);
  if (sheet >= 0) {
    const ordered = [items[sheet], ...items.filter((_i, k) => k !== sheet)];
    const { frame, loops } = sheetsOf(bench, ordered, true);
    return sheetMade(frame, commonLoops(bench.kernel, loops), 'The common part');
  }
  needSolids(items);
  const parts = exactOf(items);
  return solidOf(bench.kernel.Manifold.intersection(items.map((i) => i.solid!.manifold)), parts && { form: 'common', parts }, 'The common part');
};

/** A body without its tools. */
function cutBy(bench: BuildContext, from: Item, tools: Item[]): BuildResult {
  if (from.sheet) {
    const { frame, loops } = sheetsOf(bench, [from, ...tools], true);
    return sheetMade(frame, cutLoops(bench.kernel, loops[0], loops.slice(1)), 'The cut');
  }
  needSolids([from, ...tools]);
  const exact = exactOf([from, ...tools]);
  const manifold = bench.kernel.Manifold.difference([from, ...tools].map((i) => i.solid!.manifold));
  return solidOf(manifold, exact && { form: 'cut', from: exact[0], tools: exact.slice(1) }, 'The cut');
}

/** A line less others. */
export const cut: Maker<'cut'> = (_, bench) => {
  const [first, ...rest] = bench.inputs.map((i) => i.item);
  const tools = rest.flatMap(flatten);
  if (!first.members) return cutBy(bench, first, tools);
  return { members: first.members.map((m) => cutBy(bench, m, tools)) };
};

/** World normal and offset of a plane given in the working frame. */
function worldPlane(bench: BuildContext, normal: Point3, offset: number): { normal: Point3; offset: number; frame: readonly number[] } {
  const at = normal.map((c) => c * offset) as Point3;
  const f = bench.frame;
  if (!f) return { normal, offset, frame: frameAlong(at, normal) };
  const n: Point3 = [0, 4, 8].map((r) => f[r] * normal[0] + f[r + 1] * normal[1] + f[r + 2] * normal[2]) as Point3;
  const p = apply(f, at);
  return { normal: n, offset: n[0] * p[0] + n[1] * p[1] + n[2] * p[2], frame: frameAlong(p, n) };
}

/** The half space above or below a plane, as large as a body needs it. */
function halfSpace(bench: BuildContext, item: Item, frame: readonly number[], side: 1 | -1): Exact {
  const far = 1e3 * (extentOf(bench, item) + Math.max(...originOf(frame as number[]).map(Math.abs)));
  const of = { form: 'box', min: [-far, -far, side > 0 ? 0 : -far], max: [far, far, side > 0 ? far : 0] } as Exact;
  return { form: 'moved', matrix: frame, inverse: invert(frame), of };
}

/** One side of a line that a plane cuts, or both. */
export const split: Maker<'split'> = ({ normal, offset, keep }, bench) => {
  const { item } = bench.inputs[0];
  const plane = worldPlane(bench, normal, offset);
  if (item.sheet) {
    const half = (side: 1 | -1): BuildResult => {
      const size = 4 * (extentOf(bench, item) + Math.abs(plane.offset) + Math.max(...originOf(item.sheet!.frame).map(Math.abs)));
      const box = bench.kernel.Manifold.cube([size, size, size], true)
        .translate(0, 0, (side * size) / 2)
        .transform(columns(plane.frame));
      const cutter = { ...item, id: -1, sheet: undefined, surface: undefined, solid: { manifold: box, exact: null }, line: 'the plane' };
      const { frame, loops } = sheetsOf(bench, [item, cutter], true);
      box.delete();
      return sheetMade(frame, commonLoops(bench.kernel, loops), 'The split');
    };
    return keep === 'both' ? { members: [half(1), half(-1)] } : half(keep === 'above' ? 1 : -1);
  }
  needSolids([item]);
  const [above, below] = item.solid!.manifold.splitByPlane(plane.normal, plane.offset);
  const made = (manifold: Manifold, side: 1 | -1): BuildResult => {
    const exact = item.solid!.exact;
    return solidOf(manifold, exact && { form: 'common', parts: [exact, halfSpace(bench, item, plane.frame, side)] }, 'The split');
  };
  if (keep === 'both') return { members: [made(above, 1), made(below, -1)] };
  (keep === 'above' ? below : above).delete();
  return keep === 'above' ? made(above, 1) : made(below, -1);
};

/**
 * Faces of both halves, sewn together again along the plane, so that each face is divided and the body is whole.
 * @throws GeometryFault where the plane does not meet the body.
 */
export const imprint: Maker<'imprint'> = ({ normal, offset }, bench) => {
  const { item } = bench.inputs[0];
  const plane = worldPlane(bench, normal, offset);
  const halves = item.solid!.manifold.splitByPlane(plane.normal, plane.offset);
  if (halves.some((h) => h.isEmpty())) throw new GeometryFault(`The plane does not meet ${item.line}.`, 'Move the plane through the body.', 'offset');
  const mesh = new SolidMesh();
  const corners = new Map<string, number>();
  const size = extentOf(bench, item);
  const corner = (p: Point3): number => {
    const key = p.map((c) => Math.round(c / size / sameMesh)).join();
    let found = corners.get(key);
    if (found === undefined) corners.set(key, (found = mesh.corner(p)));
    return found;
  };
  for (const [h, half] of halves.entries()) {
    const { positions, triangles, faceOf, faces } = surfaceOf(bench.kernel, bench.origins, {
      ...item,
      solid: { manifold: half, exact: null },
    });
    for (let t = 0; t < faceOf.length; t++) {
      const face = faces[faceOf[t]];
      const points = [0, 1, 2].map((i) => Array.from(positions.subarray(3 * triangles[3 * t + i], 3 * triangles[3 * t + i] + 3)) as Point3);
      const on = points.every((p) => Math.abs(p[0] * plane.normal[0] + p[1] * plane.normal[1] + p[2] * plane.normal[2] - plane.offset) < 2e-6 * size);
      if (on && face.name === 'surface') continue;
      const [a, b, c] = points.map(corner);
      mesh.triangle(a, b, c, mesh.face(`${face.name}_${h ? 'below' : 'above'}`));
    }
    half.delete();
  }
  return { solid: { manifold: mesh.solid(bench.kernel, bench.origins, bench.line), exact: item.solid!.exact } };
};

const sheetOf = (bench: BuildContext): SheetPart => bench.inputs[0].item.sheet!;

/** A solid from a sheet. */
export const thicken: Maker<'thicken'> = ({ up, down }, bench) => {
  const { frame, loops } = sheetOf(bench);
  return prismOn(bench, frame, loops, -down, up);
};

/** A sheet with its outline moved. */
export const offset: Maker<'offset'> = ({ by, corners }, bench) => {
  const { frame, loops } = sheetOf(bench);
  return sheetMade(frame, offsetLoops(bench.kernel, loops, by, corners), 'Narrowing by this much');
};

/** Outlines of a flat face, in a frame on it. */
function faceLoops(bench: BuildContext): SheetPart {
  const { item, face, number } = faceOf(bench);
  if (item.sheet) return item.sheet;
  needFlat(bench, face);
  const aligned = face.normal.findIndex((c) => Math.abs(c) === 1);
  const frame = aligned >= 0 ? axisFrame(aligned as Axis, face.centre[aligned]) : frameAlong(face.centre, face.normal);
  const inverse = invert(frame);
  const { positions, triangles, faceOf: owner } = surfaceOf(bench.kernel, bench.origins, item);
  const pieces: Loops[] = [];
  for (let t = 0; t < owner.length; t++) {
    if (owner[t] !== number) continue;
    const loop = [0, 1, 2].map((i) => {
      const v = 3 * triangles[3 * t + i];
      return apply(inverse, [positions[v], positions[v + 1], positions[v + 2]]).slice(0, 2) as Point2;
    });
    pieces.push([loop]);
  }
  return { frame, loops: unionLoops(bench.kernel, pieces) };
}

/** A face of a line as a sheet. */
export const copyFace: Maker<'copy face'> = (_, bench) => {
  const { frame, loops } = faceLoops(bench);
  return sheetMade(frame, loops, 'The copy');
};

/** A solid drawn out of a face. */
export const extrudeFace: Maker<'extrude face'> = ({ by }, bench) => {
  const { frame, loops } = faceLoops(bench);
  const { face } = faceOf(bench);
  // The frame's z may run into the body where the face looks down an axis.
  const up = (face.normal ? frame[2] * face.normal[0] + frame[6] * face.normal[1] + frame[10] * face.normal[2] : 1) * by;
  return prismOn(bench, frame, loops, Math.min(0, up), Math.max(0, up));
};

/** The sheet in which a plane meets a line. */
export const section: Maker<'section'> = ({ normal, offset: at }, bench) => {
  const plane = axisFrame(normal, at);
  const frame = bench.frame ? compose(bench.frame, plane) : plane;
  return sheetMade(frame, sectionOf(bench, bench.inputs[0].item, frame), 'The plane meets nothing; the cross-section');
};

/** The outline of a line in a plane, as a curve. */
export const outline: Maker<'outline'> = ({ normal, offset: at }, bench) => {
  const { item } = bench.inputs[0];
  const plane = axisFrame(normal, at);
  const frame = bench.frame ? compose(bench.frame, plane) : plane;
  const inverse = invert(frame);
  const { positions, triangles } = surfaceOf(bench.kernel, bench.origins, item);
  const pieces: Loops[] = [];
  for (let t = 0; t < triangles.length; t += 3)
    pieces.push([
      [0, 1, 2].map((i) => {
        const v = 3 * triangles[t + i];
        return apply(inverse, [positions[v], positions[v + 1], positions[v + 2]]).slice(0, 2) as Point2;
      }),
    ]);
  return sheetMade(frame, unionLoops(bench.kernel, pieces), 'The outline');
};

/**
 * A box around lines.
 * @throws GeometryFault where it has no extent along an axis.
 */
export const container: Maker<'container'> = ({ below, above, hollow }, bench) => {
  const items = inputsOf(bench);
  const toLocal = bench.frame ? invert(bench.frame) : null;
  const min: Point3 = [Infinity, Infinity, Infinity];
  const max: Point3 = [-Infinity, -Infinity, -Infinity];
  for (const item of items) {
    const { positions, edges } = surfaceOf(bench.kernel, bench.origins, item);
    for (const list of [positions, edges])
      for (let i = 0; i < list.length; i += 3) {
        const p: Point3 = [list[i], list[i + 1], list[i + 2]];
        (toLocal ? apply(toLocal, p) : p).forEach((c, a) => {
          min[a] = Math.min(min[a], c);
          max[a] = Math.max(max[a], c);
        });
      }
  }
  const low = min.map((c, a) => c - below[a]) as Point3;
  const high = max.map((c, a) => c + above[a]) as Point3;
  if (low.some((c, a) => !(high[a] > c)))
    throw new GeometryFault('The container has no extent along one axis.', 'Give it a margin there.', 'below.0');
  const [u, w] = inPlane[2];
  const loops: Loops = [[[low[u], low[w]], [high[u], low[w]], [high[u], high[w]], [low[u], high[w]]]]; // prettier-ignore
  const whole = prismOn(bench, bench.frame ?? [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0], loops, low[2], high[2]);
  if (!bench.frame) whole.solid!.exact = { form: 'box', min: low, max: high };
  if (!hollow) return whole;
  const solids = items.filter((i) => i.solid);
  return solids.length ? cutBy(bench, { ...whole, id: -1, line: bench.line, material: null } as Item, solids) : whole;
};

/**
 * An edge of a line as a curve.
 * @throws GeometryFault where the two faces have no such edge.
 */
export const edge: Maker<'edge'> = ({ nth }, bench) => {
  const [first, second] = [faceOf(bench, 0), faceOf(bench, 1)];
  if (first.item.id !== second.item.id) throw new GeometryFault('The two faces are of different bodies.', 'Choose two faces of one body.', 'second');
  const runs = edgeRuns(surfaceOf(bench.kernel, bench.origins, first.item), first.number, second.number);
  if (!runs.length) throw new GeometryFault('The two faces do not meet.', 'Choose two faces that share an edge.', 'second');
  if (nth > runs.length)
    throw new GeometryFault(`The two faces meet in ${runs.length} ${runs.length === 1 ? 'edge' : 'edges'} only.`, 'Give a smaller number.', 'nth');
  const points = runs[nth - 1];
  const [a, b] = [points[0], points[points.length - 1]];
  const closed = points.length > 3 && Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]) < 1e-7 * extentOf(bench, first.item);
  return { curve: { points: closed ? points.slice(0, -1) : points, closed, marks: closed ? [0] : [0, points.length - 1] } };
};
