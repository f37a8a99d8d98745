import type { Filled } from '../geometry/index.ts';
import { cellsPerWavelengthOf, gridAccuracy, steppingDefaults } from '../methods/index.ts';
import { c0 } from '../numerics/constants.ts';
import { cellCount, type Grid } from '../yee/index.ts';
import { type AxisLimit, constraintsOf, densest, featureSize, gapSize, type Gridded, type Sizes } from './constraints.ts';
import { gridLines } from './lines.ts';
import { resolveConstraints } from './resolve.ts';
import { alignedLimits, closestNeeded } from './aligned.ts';
import { leastCells, slantedLimits } from './slanted.ts';
import { sameNumber } from '../numerics/tolerance.ts';

/** What a pass asks of a grid beyond its scene. */
export interface Refinement {
  /** Makes what follows from the metal's features and from layers finer by this factor. */
  finer: number;
  /** Cells of the shortest wavelength, instead of those of the scene. */
  cellsPerWavelength?: number;
  /** Stretches of an axis with a largest cell of their own, metres. */
  limits: readonly AxisLimit[];
  /** What runs across no axis is left as it falls. */
  alongAxes?: boolean;
}

/** The grid as the scene asks for it. */
export const unrefined: Refinement = { finer: 1, limits: [] };

/** Of the smallest cell that a feature asks for, what no two lines may come closer than. */
const closest = 0.4;
/** Cells of the largest size that the smallest one may be cut into, whatever asks for it. */
const mostRatio = 2000;

/** The sizes by which a scene asks for lines. */
function sizesOf(scene: Gridded, { finer, cellsPerWavelength }: Refinement): Sizes {
  const { ports = [], boxes = [], details = {} } = scene;
  const table = gridAccuracy[scene.accuracy];
  const coarsest = c0 / scene.band.to / (cellsPerWavelength ?? cellsPerWavelengthOf(scene.accuracy, details));
  const own = details.finer ?? 1;
  const times = finer * own;
  const asked = { coarsest, across: table.across * times, layers: table.layers * times };
  const features = [...scene.bodies.map((b) => featureSize(b, asked)), ...ports.map((p) => gapSize(p, asked)), ...boxes.map((b) => b.cell / own)];
  const least = Math.min(closest * Math.min(coarsest, ...features), closestNeeded(scene, asked, closest));
  return { ...asked, minCell: details.smallestCell !== undefined ? details.smallestCell / own : Math.max(least, coarsest / mostRatio) };
}

/** Least cells across a strip or gap for which the grid follows it: with fewer it would have no shape anyway. */
const leastAcross = 2;

/** Grid of a scene: lines on faces, sheet edges and ports, local cell sizes, absorbing layers outside; finer where a pass asks for it. */
export function buildGrid(scene: Gridded, refinement: Refinement = unrefined): Grid {
  const sizes = sizesOf(scene, refinement);
  if (refinement.alongAxes) return lay(scene, sizes, [...refinement.limits, ...alignedLimits(scene, sizes, sizes.across)]);
  const asked = Math.max(leastAcross, sizes.across);
  const affordable = gridAccuracy[scene.accuracy].followed * (scene.details?.finer ?? 1) ** 3;
  let [most, cells] = [0, 0];
  for (let across = asked; across >= leastAcross; across = across > leastAcross ? Math.max(leastAcross, across - 1) : 0) {
    const own = [...alignedLimits(scene, sizes, across), ...slantedLimits(scene, sizes, across)];
    // What is far beyond all means is not laid at all.
    const least = leastCells(own);
    const grid = least <= affordable ? lay(scene, sizes, [...refinement.limits, ...own]) : null;
    if (grid && !own.length) return grid;
    cells = grid ? cellCount(grid) : least;
    most ||= cells;
    if (grid && cells <= affordable) return across < asked ? { ...grid, followed: { across, asked, cells: most, least: cells } } : grid;
  }
  return { ...lay(scene, sizes, refinement.limits), followed: { across: 0, asked, cells: most, least: cells } };
}

/** A grid with what its scene asks for along the axes, and given largest cells. */
function lay(scene: Gridded, sizes: Sizes, limits: Refinement['limits']): Grid {
  const pmlLayers = scene.details?.pmlLayers ?? steppingDefaults.pmlLayers;
  const axes = ([0, 1, 2] as const).map((axis) => {
    const asked = constraintsOf(scene, axis, sizes, limits);
    const { points, dropped } = resolveConstraints(asked, [scene.min[axis], scene.max[axis]], sizes.minCell);
    const kinds = [0, 1].map((s) => scene.boundaries[2 * axis + s]);
    const outer = kinds.map((k) => (k === 'open' ? pmlLayers : k === 'electric' ? 0 : 1));
    return { lines: withLayers(gridLines(points, asked.limits), outer[0], outer[1], kinds[0] === 'periodic'), outer, dropped };
  });
  const grid = {
    lines: axes.map((a) => a.lines) as Grid['lines'],
    unsnapped: axes.map((a) => a.dropped) as Grid['unsnapped'],
    outerCells: axes.flatMap((a) => a.outer),
  };
  return { ...grid, cellsPerWavelength: resolution(scene, grid, c0 / scene.band.to) };
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
function resolution(scene: Filled, grid: Pick<Grid, 'lines'>, shortest: number): number {
  let worst = Infinity;
  const media = [
    { min: scene.min, max: scene.max, n: 1 },
    ...scene.bodies.filter((b) => b.material.kind === 'dielectric').map((b) => ({ min: b.min, max: b.max, n: densest(b) })),
  ];
  for (const { min, max, n } of media)
    for (const axis of [0, 1, 2] as const) {
      const x = grid.lines[axis];
      const slack = sameNumber * (max[axis] - min[axis]);
      for (let i = 0; i + 1 < x.length; i++) {
        const inside = x[i] >= min[axis] - slack && x[i + 1] <= max[axis] + slack;
        if (inside) worst = Math.min(worst, shortest / n / (x[i + 1] - x[i]));
      }
    }
  return worst;
}
