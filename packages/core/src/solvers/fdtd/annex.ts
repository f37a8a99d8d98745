import type { Boundary } from '../../document/index.ts';
import type { Grid } from '../../grid/index.ts';
import { steppingDefaults } from '../../methods/index.ts';
import type { GridScene, SceneGuide } from '../../scene/index.ts';
import type { Discrete } from './discrete.ts';
import { guideEdges, type GuidePlane, type Index } from './portPlane.ts';
import type { Axis } from '../../numerics/axis.ts';

/**
 * A guide that goes on behind its port in cells of its own, into absorbing layers, where the model ends at the port: what stands behind the port's plane in the
 * model does not meet it. Of the model it has the port's rectangle, one cell deep, and both are one space: H half a cell inside comes from the model, E of the
 * plane goes to it.
 */
export interface Annex {
  discrete: Discrete;
  /** The port's plane in the annex. */
  plane: GuidePlane;
  boundaries: Boundary[];
}

/** Whether a port's guide goes on in cells of its own. */
export const hasAnnex = (g: SceneGuide): boolean => g.inhomogeneous === true && g.ends === true;

/**
 * Whether what rings has nowhere to go but out of guides, so that a run goes on until their waves have settled; a model that ends at its ports radiates, and its energy
 * need not go further down than beside lumped ports, in whose place they stand.
 */
export const leavesByGuides = (guides: readonly SceneGuide[]): boolean => guides.some((g) => !hasAnnex(g));

/** Scene and grid of a port's annex; its plane has the same nodes as in the model. */
export function annexScene(scene: GridScene, grid: Grid, guide: SceneGuide, g: GuidePlane): { scene: GridScene; grid: Grid; plane: GuidePlane } {
  const { normal, into, u, v, plane } = g;
  const x = grid.lines[normal];
  const layers = scene.details.pmlLayers ?? steppingDefaults.pmlLayers;
  const step = Math.abs(x[plane + into] - x[plane]);
  const lines = [...grid.lines] as Grid['lines'];
  lines[normal] = Float64Array.from({ length: layers + 2 }, (_, i) => (into > 0 ? x[plane] + (i - layers) * step : x[plane] + (i - 1) * step));
  // The far node is the model's own to the last bit.
  lines[normal][into > 0 ? layers + 1 : 0] = x[plane + into];
  const boundaries = new Array<Boundary>(6).fill('electric');
  const outerCells = new Array<number>(6).fill(0);
  boundaries[2 * normal + (into > 0 ? 0 : 1)] = 'open';
  outerCells[2 * normal + (into > 0 ? 0 : 1)] = layers;
  const [min, max] = [[...scene.min], [...scene.max]] as [GridScene['min'], GridScene['max']];
  [min[normal], max[normal]] = [Math.min(x[plane], x[plane + into]), Math.max(x[plane], x[plane + into])];
  const lo: [number, number] = [0, 0];
  ([u, v] as const).forEach((a: Axis, n) => {
    // Behind a magnetic wall stands a cell.
    const behind = [0, 1].map((side) => (g.free[2 * n + side] ? 1 : 0));
    const [from, to] = [g.lo[n] - behind[0], g.hi[n] + behind[1]];
    lines[a] = grid.lines[a].slice(from, to + 1);
    lo[n] = behind[0];
    [0, 1].forEach((side) => {
      if (!behind[side]) return;
      boundaries[2 * a + side] = 'magnetic';
      outerCells[2 * a + side] = 1;
    });
    [min[a], max[a]] = [grid.lines[a][g.lo[n]], grid.lines[a][g.hi[n]]];
  });
  const own: SceneGuide = { ...guide, ends: undefined };
  return {
    scene: {
      ...scene,
      ports: [],
      guides: [own],
      source: null,
      recorders: [],
      recordAt: [],
      combine: undefined,
      mirrors: undefined,
      min,
      max,
      boundaries,
    },
    grid: { ...grid, lines, outerCells },
    plane: { ...g, plane: into > 0 ? layers : 1, lo, hi: [lo[0] + g.hi[0] - g.lo[0], lo[1] + g.hi[1] - g.lo[1]] },
  };
}

/** Samples that model and annex share: H half a cell inside (fields 3..5) that the annex takes, E of the plane (0..2) that it gives; places in each. */
export function annexLinks(
  g: GuidePlane,
  own: GuidePlane,
  grid: Grid,
): { inward: { field: number; model: Index; annex: Index }[]; outward: { field: number; model: Index; annex: Index }[] } {
  const cell = (p: GuidePlane): number => (p.into > 0 ? p.plane : p.plane - 1);
  const moved = (at: Index, along: number): Index => {
    const out: Index = [...at];
    out[g.normal] = along;
    out[g.u] += own.lo[0] - g.lo[0];
    out[g.v] += own.lo[1] - g.lo[1];
    return out;
  };
  const { held } = guideEdges(g, grid);
  return {
    // E along u goes with H along v at the same place across, and the other way round.
    inward: held.map(({ c, at }) => {
      const model: Index = [...at];
      model[g.normal] = cell(g);
      return { field: 3 + (c === g.u ? g.v : g.u), model, annex: moved(at, cell(own)) };
    }),
    outward: held.map(({ c, at }) => ({ field: c, model: at, annex: moved(at, own.plane) })),
  };
}
