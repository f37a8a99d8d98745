import { type Body, type Filled, inPlane, isSheet } from '../geometry/index.ts';
import { pointsOf, type SceneGuide, type ScenePort } from '../ports/index.ts';
import type { GridScene } from '../scene/index.ts';
import { recorderKind } from '../recorders/index.ts';
import type { Axis } from '../numerics/axis.ts';
import { sheetEdges } from './edges.ts';
import type { Limit } from './lines.ts';
import { sameNumber } from '../numerics/tolerance.ts';

/** What asks for a grid line; of two that are too close the one with the higher number stays. */
const priority = {
  wall: 9,
  port: 8,
  'sheet plane': 7,
  'metal face': 6,
  'sheet edge': 5,
  'dielectric face': 3,
  current: 2,
  recorder: 1,
  /** Thinner than the smallest cell: its material is averaged into the cell that it lies in. */
  'thin layer': 0,
} as const;

/** A line that is asked for. */
export interface LineConstraint {
  /** Coordinate, and the cell size wanted beside it, metres. */
  at: number;
  size: number;
  by: keyof typeof priority;
  /** At the straight edge of a sheet: which way is out of it, and how long it is. */
  outward?: 1 | -1;
  length?: number;
  /** A magnetic wall: the next metal is an image, as far behind it again. */
  mirror?: boolean;
  /** What ends here goes on all the same, behind a port: its edges are held by this line. */
  through?: boolean;
  /** The cell that begins here is one with the next line. */
  whole?: boolean;
}
/** How much a line matters: of two that are too close the one with more stays. */
export const priorityOf = ({ by }: LineConstraint): number => priority[by];
/** Whether the field is strong there: walls, ports, sheets and faces of metal. */
export const isMetal = (c: LineConstraint): boolean => priorityOf(c) >= priority['sheet edge'];

/** What a grid is made from: bodies in a region, and what else asks for lines. Metres, hertz. */
export interface Gridded
  extends Filled, Partial<Pick<GridScene, 'ports' | 'guides' | 'recorders' | 'source' | 'details'>>, Pick<GridScene, 'accuracy' | 'boxes'> {
  boundaries: readonly GridScene['boundaries'][number][];
  band: { to: number };
}

/** A largest cell on a stretch of an axis, metres. */
export interface AxisLimit extends Limit {
  axis: Axis;
}

/** Sizes by which lines are asked for, metres. */
export interface Sizes {
  /** Largest cell in empty space. */
  coarsest: number;
  /** No line may force cells smaller than this. */
  minCell: number;
  /** Cells across a strip or gap, and across a layer. */
  across: number;
  layers: number;
}

/** What is asked for on an axis. */
export interface Asked {
  lines: LineConstraint[];
  limits: Limit[];
}
const nothing: Asked = { lines: [], limits: [] };

/** Cell that the features of a body of metal ask for: of the least of its extents; of anything else none. */
export const featureSize = (b: Body, { coarsest, across }: Pick<Sizes, 'coarsest' | 'across'>): number => {
  if (b.material.kind !== 'conductor') return Infinity;
  const extents = b.shape.form === 'sheet' ? inPlane[b.shape.normal].map((a) => b.max[a] - b.min[a]) : [0, 1, 2].map((a) => b.max[a] - b.min[a]);
  return Math.min(coarsest, Math.min(...extents) / across);
};
/** Cell that the gap of a lumped port asks for. */
export const gapSize = (p: ScenePort, { coarsest, across }: Pick<Sizes, 'coarsest' | 'across'>): number =>
  Math.min(coarsest, ((p.halved?.[p.axis] ? 2 : 1) * (p.max[p.axis] - p.min[p.axis])) / Math.max(2, across / 2));

/** Flat faces of one body on one axis beyond which they are not followed one by one. */
const mostFaces = 200;
/** Coordinates of a body's ends and flat faces across an axis; only its ends where it has very many. */
const facesAcross = (b: Body, axis: Axis): number[] => [
  ...new Set([b.min[axis], b.max[axis], ...(b.planes[axis].length <= mostFaces ? b.planes[axis] : [])]),
];
/** Largest refractive index of a body. */
export const densest = ({ material: m }: Body): number => Math.sqrt(m.permittivityAlong ? Math.max(...m.permittivityAlong) : (m.permittivity ?? 1));

function ofWalls({ min, max, boundaries }: Gridded, axis: Axis, { coarsest: size }: Sizes): Asked {
  const wall = (at: number, side: number): LineConstraint => ({ at, size, by: 'wall', mirror: boundaries[2 * axis + side] === 'magnetic' });
  return { lines: [wall(min[axis], 0), wall(max[axis], 1)], limits: [{ from: min[axis], to: max[axis], size }] };
}

function ofMetal(b: Body, { min, max }: Gridded, axis: Axis, sizes: Sizes): Asked {
  const { coarsest, minCell, across } = sizes;
  const size = Math.max(featureSize(b, sizes), minCell);
  const span = b.max[axis] - b.min[axis];
  const limits = span > 0 ? [{ from: b.min[axis], to: b.max[axis], size: Math.max(minCell, Math.min(coarsest, span / across)) }] : [];
  // At the region's end a body goes on, into the layers or its mirror image, so there is nothing to resolve.
  const ends = (at: number): boolean => Math.min(Math.abs(at - min[axis]), Math.abs(at - max[axis])) < sameNumber * (max[axis] - min[axis]);
  if (!isSheet(b)) return { lines: facesAcross(b, axis).map((at) => ({ at, size: ends(at) ? coarsest : size, by: 'metal face' })), limits };
  if (b.shape.form !== 'sheet') return nothing;
  if (b.shape.normal === axis) return { lines: [{ at: b.shape.offset, size, by: 'sheet plane' }], limits };
  const { corners, edges } = sheetEdges(b.shape, axis);
  const edge = { size, by: 'sheet edge' } as const;
  return { lines: [...corners.map((at) => ({ at, ...edge })), ...edges.map((e) => ({ ...e, ...edge }))], limits };
}

function ofDielectric(b: Body, axis: Axis, { coarsest, minCell, layers }: Sizes): Asked {
  const n = densest(b);
  const span = b.max[axis] - b.min[axis];
  const layer = Math.max(minCell, Math.min(coarsest / n, span / layers));
  const thin = span < minCell * 0.999;
  return {
    lines: facesAcross(b, axis).map((at) => ({ at, size: thin ? coarsest : layer, by: thin ? 'thin layer' : 'dielectric face' })),
    limits: n > 1 ? [{ from: b.min[axis], to: b.max[axis], size: layer }] : [],
  };
}

function ofPort(p: ScenePort, axis: Axis, sizes: Sizes): Asked {
  const along = axis === p.axis;
  const size = Math.max(gapSize(p, sizes), sizes.minCell);
  return {
    lines: [...new Set([p.min[axis], p.max[axis]])].map((at) => ({ at, size: along ? size : sizes.coarsest, by: 'port' })),
    limits: along ? [{ from: p.min[axis], to: p.max[axis], size }] : [],
  };
}

const ofGuide = (g: SceneGuide, axis: Axis, { coarsest: size }: Sizes): Asked => ({
  lines: [...new Set([g.min[axis], g.max[axis]])].map((at) => ({ at, size, by: 'port', through: axis === g.normal && g.ends })),
  limits: [],
});

/** All lines and largest cells that are asked for on an axis. */
export function constraintsOf(scene: Gridded, axis: Axis, sizes: Sizes, stretches: readonly AxisLimit[]): Asked {
  const { ports = [], guides = [], recorders = [], boxes = [], source, min, max } = scene;
  const { coarsest: size } = sizes;
  const inside = boxes.filter((b) => b.max[axis] > min[axis] && b.min[axis] < max[axis]);
  const asked: Asked[] = [
    ofWalls(scene, axis, sizes),
    ...scene.bodies.map((b) => (b.material.kind === 'conductor' ? ofMetal(b, scene, axis, sizes) : ofDielectric(b, axis, sizes))),
    ...ports.map((p) => ofPort(p, axis, sizes)),
    { lines: [], limits: inside.map((b) => ({ from: b.min[axis], to: b.max[axis], size: b.cell / (scene.details?.finer ?? 1) })) },
    {
      lines: recorders.flatMap((r) => [...new Set(recorderKind(r).lines?.(r, axis))].map((at) => ({ at, size, by: 'recorder' as const }))),
      limits: [],
    },
    { lines: pointsOf(source).map((p) => ({ at: p[axis], size, by: 'current' })), limits: stretches.filter((l) => l.axis === axis) },
    ...guides.map((g) => ofGuide(g, axis, sizes)),
  ];
  // What ends at a port behind which it goes on has no end there that would ask for small cells.
  const through = guides.filter((g) => g.ends && g.normal === axis).map((g) => g.min[axis]);
  const goesOn = ({ at }: LineConstraint): boolean => through.some((x) => Math.abs(at - x) < sameNumber * (max[axis] - min[axis]));
  const lines = asked.flatMap((a) => a.lines);
  return { lines: lines.map((l) => (goesOn(l) ? { ...l, size: Math.max(l.size, size) } : l)), limits: asked.flatMap((a) => a.limits) };
}
