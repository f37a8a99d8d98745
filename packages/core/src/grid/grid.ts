import { c0 } from '../numerics/constants.ts';
import { type Body, type Filled, inPlane, isSheet } from '../geometry/index.ts';
import { pointsOf } from '../ports/index.ts';
import type { GridScene } from '../scene/index.ts';
import { gridAccuracy, steppingDefaults } from '../methods/index.ts';
import { recorderKind } from '../recorders/index.ts';
import type { Grid } from '../yee/index.ts';
import { sheetEdges } from './edges.ts';
import { gridLines, growth, type HardPoint, type Limit } from './lines.ts';
import type { Axis } from '../numerics/axis.ts';

interface Wish {
  at: number;
  size: number;
  /** Higher survives when two wishes are too close: 9 walls, 8 ports, 7 sheet planes, 6 metal faces, 5 sheet edges, 3 dielectric faces, 2 points of current, 1 recorders, 0 thin layers. */
  rank: number;
  /** Set at the straight edge of a sheet. */
  outward?: 1 | -1;
  length?: number;
  /** A magnetic wall: the next metal is an image, as far behind it again. */
  mirror?: boolean;
  /** The cell that begins here is one with the next line. */
  whole?: boolean;
}

/** Largest refractive index of a body. */
const densest = ({ material: m }: Body): number => Math.sqrt(m.permittivityAlong ? Math.max(...m.permittivityAlong) : (m.permittivity ?? 1));

/** What a grid is made from: bodies in a region, and what else asks for lines. Metres, hertz. */
export interface Gridded
  extends Filled, Partial<Pick<GridScene, 'ports' | 'guides' | 'recorders' | 'source' | 'details'>>, Pick<GridScene, 'accuracy' | 'boxes'> {
  boundaries: readonly GridScene['boundaries'][number][];
  band: { to: number };
}

/** What a pass asks of a grid beyond its scene. */
export interface Refinement {
  /** Makes what follows from the metal's features and from layers finer by this factor. */
  finer: number;
  /** Cells of the shortest wavelength, instead of those of the scene. */
  cellsPerWavelength?: number;
  /** Stretches of an axis with a largest cell of their own, metres. */
  limits: readonly AxisLimit[];
}

/** A largest cell on a stretch of an axis, metres. */
export interface AxisLimit extends Limit {
  axis: Axis;
}

/** The grid as the scene asks for it. */
export const unrefined: Refinement = { finer: 1, limits: [] };

/** Grid of a scene: lines on faces, sheet edges and ports, local cell sizes, absorbing layers outside; finer where a pass asks for it. */
export function buildGrid(scene: Gridded, { finer, cellsPerWavelength, limits: stretches }: Refinement = unrefined): Grid {
  const { ports = [], guides = [], recorders = [], details = {} } = scene;
  const table = gridAccuracy[scene.accuracy];
  const setting = { ...table, across: table.across * finer, layers: table.layers * finer };
  const perWavelength = cellsPerWavelength ?? details.cellsPerWavelength ?? setting.cellsPerWavelength;
  const shortest = c0 / scene.band.to;
  const coarsest = shortest / perWavelength;

  // The floor: no wish for a line may force cells much smaller than the metal's own features need.
  const features: number[] = [];
  const edgeSize = scene.bodies.map((b) => {
    if (b.material.kind !== 'conductor') return Infinity;
    const extents = b.shape.form === 'sheet' ? inPlane[b.shape.normal].map((a) => b.max[a] - b.min[a]) : [0, 1, 2].map((a) => b.max[a] - b.min[a]);
    const size = Math.min(coarsest, Math.min(...extents) / setting.across);
    features.push(size);
    return size;
  });
  const portSize = ports.map((p) => {
    const gap = (p.halved?.[p.axis] ? 2 : 1) * (p.max[p.axis] - p.min[p.axis]);
    const size = Math.min(coarsest, gap / Math.max(2, setting.across / 2));
    features.push(size);
    return size;
  });
  const floor = details.smallestCell ?? Math.max(0.4 * Math.min(coarsest, ...features, ...(scene.boxes ?? []).map((b) => b.cell)), coarsest / 2000);

  const lines: Float64Array[] = [];
  const unsnapped: number[][] = [];
  const pml: number[] = [];
  for (const axis of [0, 1, 2] as const) {
    const wishes: Wish[] = [
      { at: scene.min[axis], size: coarsest, rank: 9, mirror: scene.boundaries[2 * axis] === 'magnetic' },
      { at: scene.max[axis], size: coarsest, rank: 9, mirror: scene.boundaries[2 * axis + 1] === 'magnetic' },
    ];
    const limits: Limit[] = [{ from: scene.min[axis], to: scene.max[axis], size: coarsest }];
    scene.bodies.forEach((b, i) => {
      const metal = b.material.kind === 'conductor';
      const span = b.max[axis] - b.min[axis];
      if (metal) {
        const size = Math.max(edgeSize[i], floor);
        // At the region's end a body goes on, into the layers or its mirror image, so there is nothing to resolve.
        const ends = (at: number): boolean =>
          Math.min(Math.abs(at - scene.min[axis]), Math.abs(at - scene.max[axis])) < 1e-9 * (scene.max[axis] - scene.min[axis]);
        if (!isSheet(b)) for (const at of facesAcross(b, axis)) wishes.push({ at, size: ends(at) ? coarsest : size, rank: 6 });
        else if (b.shape.form !== 'sheet') return;
        else if (b.shape.normal === axis) wishes.push({ at: b.shape.offset, size, rank: 7 });
        else {
          const found = sheetEdges(b.shape, axis);
          for (const at of found.corners) wishes.push({ at, size, rank: 5 });
          for (const edge of found.edges) wishes.push({ ...edge, size, rank: 5 });
        }
        if (span > 0) limits.push({ from: b.min[axis], to: b.max[axis], size: Math.max(floor, Math.min(coarsest, span / setting.across)) });
        return;
      }
      const n = densest(b);
      const inside = coarsest / n;
      const layer = Math.max(floor, Math.min(inside, span / setting.layers));
      if (n > 1) limits.push({ from: b.min[axis], to: b.max[axis], size: layer });
      // A layer thinner than the floor is not resolved: its material is averaged into the cell it lies in.
      const rank = span >= floor * 0.999 ? 3 : 0;
      for (const at of facesAcross(b, axis)) wishes.push({ at, size: rank ? layer : coarsest, rank });
    });
    ports.forEach((p, i) => {
      const size = Math.max(portSize[i], floor);
      for (const at of new Set([p.min[axis], p.max[axis]])) wishes.push({ at, size: axis === p.axis ? size : coarsest, rank: 8 });
      if (axis === p.axis) limits.push({ from: p.min[axis], to: p.max[axis], size });
    });
    for (const b of scene.boxes ?? [])
      if (b.max[axis] > scene.min[axis] && b.min[axis] < scene.max[axis]) limits.push({ from: b.min[axis], to: b.max[axis], size: b.cell });
    for (const r of recorders) for (const at of new Set(recorderKind(r).lines?.(r, axis))) wishes.push({ at, size: coarsest, rank: 1 });
    for (const at of pointsOf(scene.source)) wishes.push({ at: at[axis], size: coarsest, rank: 2 });
    for (const l of stretches) if (l.axis === axis) limits.push(l);
    for (const g of guides) for (const at of new Set([g.min[axis], g.max[axis]])) wishes.push({ at, size: coarsest, rank: 8 });
    const { points, dropped } = settle(wishes, limits, scene.min[axis], scene.max[axis], floor);
    const inner = gridLines(points, limits);
    const kinds = [0, 1].map((s) => scene.boundaries[2 * axis + s]);
    const layers = kinds.map((k) => (k === 'open' ? (details.pmlLayers ?? steppingDefaults.pmlLayers) : k === 'electric' ? 0 : 1));
    lines.push(withLayers(inner, layers[0], layers[1], kinds[0] === 'periodic'));
    pml.push(...layers);
    unsnapped.push(dropped);
  }
  const grid = { lines, unsnapped, pml } as unknown as Grid;
  grid.cellsPerWavelength = resolution(scene, grid, shortest);
  return grid;
}

/** Coordinates of a body's ends and flat faces across an axis; only its ends where it has very many. */
const facesAcross = (b: Body, axis: Axis): Set<number> =>
  new Set([b.min[axis], b.max[axis], ...(b.planes[axis].length <= mostFaces ? b.planes[axis] : [])]);

/** Flat faces of one body on one axis beyond which they are not followed one by one. */
const mostFaces = 200;

/**
 * Chooses the lines among the wishes. Those of highest rank survive where two are closer than `floor`; equal ones merge.
 * At the straight edge of a sheet, where the field is singular, the two lines beside it stand a third of a cell inside the
 * metal and two thirds outside, which makes the staircase of the grid act like the true edge (rule of thirds).
 */
function settle(wishes: Wish[], limits: Limit[], min: number, max: number, floor: number): { points: HardPoint[]; dropped: number[] } {
  const same = 1e-8 * Math.max(max - min, Math.abs(min), Math.abs(max));
  const inside = wishes.filter((w) => w.at >= min - same && w.at <= max + same);
  const metal = inside.filter((w) => w.rank >= 5);
  const mirrors = inside.filter((w) => w.mirror);
  /** Distance to the next metal there, behind a magnetic wall to its image. */
  const apart = (w: Wish, at: number): number => Math.abs(w.at - at) * (mirrors.some((m) => Math.abs(m.at - w.at) <= same) ? 2 : 1);
  const thirds: { at: number; outward: number; size: number }[] = [];
  for (const edge of [...inside].sort((a, b) => (b.length ?? 0) - (a.length ?? 0))) {
    // At the region's end the sheet goes on.
    if (Math.min(Math.abs(edge.at - min), Math.abs(edge.at - max)) <= same) continue;
    if (edge.outward === undefined || thirds.some((t) => Math.abs(t.at - edge.at) <= same)) continue;
    const solidHere = metal.some((w) => Math.abs(w.at - edge.at) <= same && w.rank !== 5 && w.rank !== 8);
    // One cell must span the two lines, so it may be no larger than what stands around allows.
    const others = metal.filter((w) => Math.abs(w.at - edge.at) > same);
    const size = Math.min(
      edge.size,
      // Three eighths: then a strip or a gap this wide holds whole cells of nearly the same size.
      ...others.map((w) => apart(w, edge.at) * 0.375),
      ...others.map((w) => w.size + (growth - 1) * Math.abs(w.at - edge.at)),
      ...limits.map((l) => l.size + (growth - 1) * Math.max(0, l.from - edge.at, edge.at - l.to)),
    );
    if (!solidHere && size >= floor * 0.999) thirds.push({ at: edge.at, outward: edge.outward, size });
  }
  const kept: Wish[] = thirds.flatMap(({ at, outward, size }) => [
    { at: at - (outward * size) / 3, size, rank: 5, whole: outward > 0 },
    { at: at + (2 * outward * size) / 3, size, rank: 5, whole: outward < 0 },
  ]);
  const dropped: number[] = [];
  for (const wish of [...inside].sort((a, b) => b.rank - a.rank)) {
    const third = thirds.find(
      (t) =>
        Math.abs(t.at - wish.at) <= same ||
        (wish.rank < 5 && (wish.at - t.at) * t.outward > -t.size / 3 && (wish.at - t.at) * t.outward < (2 * t.size) / 3),
    );
    const twin = kept.find((k) => Math.abs(k.at - wish.at) <= same);
    if (third) {
      // A dielectric face at a sheet's edge is met by averaging; ports and sheets are held by the two lines.
      if (wish.rank < 5) dropped.push(wish.at);
    } else if (twin) twin.size = Math.min(twin.size, wish.size);
    else if (wish.rank === 0 || kept.some((k) => Math.abs(k.at - wish.at) < floor * 0.999)) dropped.push(wish.at);
    else kept.push({ ...wish });
  }
  return { points: kept.sort((a, b) => a.at - b.at).map(({ at, size, whole }) => ({ at, size, whole })), dropped };
}

/** Adds absorbing layers of the outermost cells' size, or on a periodic axis the cells of the other end. */
function withLayers(inner: Float64Array, low: number, high: number, periodic: boolean): Float64Array {
  const sizes = [inner[1] - inner[0], inner[inner.length - 1] - inner[inner.length - 2]];
  const [first, last] = periodic ? sizes.reverse() : sizes;
  const before = Array.from({ length: low }, (_, i) => inner[0] - (low - i) * first);
  const after = Array.from({ length: high }, (_, i) => inner[inner.length - 1] + (i + 1) * last);
  return Float64Array.from([...before, ...inner, ...after]);
}

/** The least number of cells per wavelength that any material gets. */
function resolution(scene: Filled, grid: Grid, shortest: number): number {
  let worst = Infinity;
  const media = [
    { min: scene.min, max: scene.max, n: 1 },
    ...scene.bodies.filter((b) => b.material.kind === 'dielectric').map((b) => ({ min: b.min, max: b.max, n: densest(b) })),
  ];
  for (const { min, max, n } of media)
    for (const axis of [0, 1, 2] as const) {
      const x = grid.lines[axis];
      for (let i = 0; i + 1 < x.length; i++) {
        const inside = x[i] >= min[axis] - 1e-12 && x[i + 1] <= max[axis] + 1e-12;
        if (inside) worst = Math.min(worst, shortest / n / (x[i + 1] - x[i]));
      }
    }
  return worst;
}
