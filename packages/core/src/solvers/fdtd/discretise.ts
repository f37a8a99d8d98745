import { type Problem, problem } from '../../document/index.ts';
import type { Filled } from '../../geometry/index.ts';
import type { Grid } from '../../grid/index.ts';
import { c0 } from '../../numerics/constants.ts';
import type { GridScene } from '../../scene/index.ts';
import { type Annex, annexScene, hasAnnex } from './annex.ts';
import { BranchBuilder } from './branches.ts';
import { courantOfCuts, Cuts } from '../../discretisation/cuts.ts';
import { stableStep } from '../../discretisation/stableStep.ts';
import { anisotropic, collectMedia } from '../../discretisation/media.ts';
import { type PortEdge, portEdges } from './portEdges.ts';
import { componentRows } from '../../discretisation/componentRows.ts';
import { SpectralRows } from './spectral.ts';
import type { SplitEdge } from '../../discretisation/split/types.ts';
import { mixingOf } from '../../discretisation/subpixel.ts';
import { guideEdges, type GuidePlane, guidePlane } from './portPlane.ts';
import type { EdgeRow } from '../../discretisation/rows.ts';
import { Dictionary } from './dictionary.ts';
import { type HeldEdge, type MediumRow, type Discrete, isMetal, mediumOf, permittivityOf, key } from './discrete.ts';
import type { Axis } from '../../numerics/axis.ts';

/** Courant number used. */
const courant = 0.99;

/**
 * The largest stable step times 0.99, from the smallest cells (Courant, Friedrichs and Lewy 1928; Taflove 2005, ch. 4), and times what
 * metal leaves of it that cuts cells.
 */
export function timeStep(grid: Grid, scene: Filled): number {
  const smallest = grid.lines.map((x) => {
    let least = Infinity;
    for (let i = 1; i < x.length; i++) least = Math.min(least, x[i] - x[i - 1]);
    return least;
  });
  return (courantOfCuts(scene) * courant) / (c0 * Math.sqrt(smallest.reduce((s, d) => s + 1 / (d * d), 0)));
}

/** Row length: room for nx + 1 values, a multiple of four. */
const rowLength = (cells: number): number => (cells + 1 + 3) & ~3;

/** What ports do to a row of edges: those of lumped ports, and x indices that guided ones hold or that are metal right behind them. */
interface Overlay {
  loads: { port: number; edge: PortEdge }[];
  held: number[];
  metal: number[];
}

/** What ports do to rows of edges, by the row's key. */
function overlays(scene: GridScene, grid: Grid, ports: readonly PortEdge[][], guides: readonly GuidePlane[]): Map<string, Overlay> {
  const rows = new Map<string, Overlay>();
  const at = (c: number, j: number, k: number): Overlay => {
    const name = key(c, j, k);
    let row = rows.get(name);
    if (!row) rows.set(name, (row = { loads: [], held: [], metal: [] }));
    return row;
  };
  ports.forEach((edges, port) => {
    for (const edge of edges) at(scene.ports[port].axis, edge.index[1], edge.index[2]).loads.push({ port, edge });
  });
  guides.forEach((guide, g) => {
    const annexed = hasAnnex(scene.guides[g]);
    if (scene.guides[g].inhomogeneous && !annexed) return;
    const { held, backed, rim } = guideEdges(guide, grid);
    if (annexed) backed.push(...rim);
    for (const { c, at: [i, j, k] } of held) at(c, j, k).held.push(i); // prettier-ignore
    for (const { c, at: [i, j, k] } of backed) at(c, j, k).metal.push(i); // prettier-ignore
  });
  return rows;
}

/** Coefficients of one row of edges, as they are filled in. */
interface RowParts {
  /** ca, then cb. */
  row: Float32Array;
  /** Relative permittivities as `Discrete.media` has them. */
  medium: Float32Array;
  /** Edges in a medium with memory that remember nothing of it. */
  level: Set<number> | null;
}

/** Makes rows of coefficients from what the edges lie in. */
class RowMaker {
  private readonly row: Float32Array;
  private readonly medium: Float32Array;
  constructor(
    private readonly nx: number,
    private readonly sx: number,
    private readonly dt: number,
    /** Angular frequency at which a loss that is not remembered is taken. */
    private readonly omega: number,
    private readonly spectral: SpectralRows | null,
    private readonly branches: BranchBuilder,
  ) {
    this.row = new Float32Array(2 * sx);
    this.medium = new Float32Array(sx);
  }

  /** Row j, k of component c, without what ports do to it; valid until the next call. `kinds` are its classes with memory. */
  make(
    c: Axis,
    j: number,
    k: number,
    edges: EdgeRow,
    kinds: Uint16Array | null,
    over: Overlay | undefined,
    split: readonly SplitEdge[] = [],
  ): RowParts {
    const { row, medium, sx, dt, omega } = this;
    row.fill(0);
    medium.fill(0);
    let level: Set<number> | null = null;
    for (let i = c === 0 ? 0 : 1; i < this.nx; i++) {
      if (edges.mixed && edges.metal[i]) continue;
      // A cut edge holds E times its free part.
      const free = edges.mixed && edges.free ? edges.free[i] : 1;
      const er = edges.mixed ? edges.re[i] : 1;
      const held = over?.held.includes(i) ?? false;
      const sheet = edges.mixed && edges.sheet[i] > 1;
      const kind = kinds?.[i] ?? 0;
      if (kind && !sheet && !held && !over?.loads.some((l) => l.edge.index[0] === i) && !split.some((e) => e.at[0] === i)) {
        const { ca, cb } = this.spectral!.classes.list[kind - 1];
        row[i] = ca;
        row[sx + i] = free * cb;
        medium[i] = er;
        continue;
      }
      if (kind) (level ??= new Set()).add(i);
      const a = edges.mixed ? (omega * edges.loss[i] * dt) / (2 * er) : 0;
      row[i] = (1 - a) / (1 + a);
      row[sx + i] = (free * c0 * dt) / er / (1 + a);
      if (sheet && !held) this.branches.sheetEdge(c, i, j, k, edges.sheet[i], row[sx + i]);
      else medium[i] = er;
    }
    return { row, medium, level };
  }

  /** Takes an edge that sheets split, or that stands beside what they split, out of the sweep; `free` is what solids leave of it. */
  part({ row, medium }: RowParts, edge: SplitEdge, free: number): HeldEdge {
    const i = edge.at[0];
    if (!edge.parts.length) row[i] = row[this.sx + i] = medium[i] = 0;
    const held = { edge, ca: row[i], cb: row[this.sx + i] / free };
    if (held.cb > 0) [row[i], row[this.sx + i]] = [1, 0];
    return held;
  }

  /** Lays ports on a row: they update their edges themselves, the sweep leaves these as they are. Gives the ports of which an edge is shorted. */
  lay({ row, medium }: RowParts, { loads, held, metal }: Overlay, split: readonly SplitEdge[] = []): number[] {
    const { sx } = this;
    const hold = (i: number): void => {
      row[i] = 1;
      row[sx + i] = 0;
      medium[i] = Infinity;
    };
    const shorted: number[] = [];
    for (const { port, edge } of loads) {
      const i = edge.index[0];
      // An edge that a sheet crosses is no way for a current.
      if (row[sx + i] === 0 || split.some((s) => s.at[0] === i && s.parts.length !== 1)) {
        shorted.push(port);
        continue;
      }
      edge.ca = row[i];
      edge.cb = row[sx + i];
      hold(i);
    }
    for (const i of metal) row[i] = row[sx + i] = medium[i] = 0;
    held.forEach(hold);
    return shorted;
  }
}

/** Scene to discrete model, of its own largest step unless one is given (seconds). Reports ports that the grid shows to be shorted or loose. */
export function discretise(scene: GridScene, grid: Grid, edgesOf: typeof portEdges = portEdges, step?: number): Discrete {
  const [nx, ny, nz] = grid.lines.map((x) => x.length - 1);
  const sx = rowLength(nx);
  const omega = Math.PI * (scene.band.from + scene.band.to);
  const found = collectMedia(scene);
  const cuts = Cuts.of(scene, grid, found);
  const { rows, subpixel } = componentRows(scene, grid, cuts);
  cuts?.split(rows);
  const largest = timeStep(grid, scene);
  const dt = step ?? (cuts ? stableStep(cuts, grid, largest) : largest);
  const spectral = SpectralRows.of(scene, grid, dt);
  const branches = new BranchBuilder(grid, dt, found.metals, cuts);
  const maker = new RowMaker(nx, sx, dt, omega, spectral, branches);
  const dictionary = new Dictionary(2 * sx);
  const rowOf = new Uint32Array(nz * 3 * (ny + 1));
  const media = new Dictionary(sx);
  const mediaOf = new Uint32Array(rowOf.length);
  const mediumRows = new Map<string, MediumRow>();
  const ports = scene.ports.map((p) => edgesOf(p, grid));
  const guides = scene.guides.map((g) => guidePlane(g, grid, scene.boundaries));
  const laid = overlays(scene, grid, ports, guides);
  const shorted = ports.map(() => 0);
  const splitEdges: HeldEdge[] = [];

  for (let k = 0; k < nz; k++) {
    subpixel?.plane(k);
    for (let c = 0 as Axis; c < 3; c++)
      for (let j = 0; j <= ny; j++) {
        const slot = (k * 3 + c) * (ny + 1) + j;
        const wall = (c !== 1 && (j === 0 || j === ny)) || (c === 1 && j === ny) || (c !== 2 && k === 0);
        if (wall) {
          branches.mark(c, j, 1);
          continue;
        }
        const edges = rows[c].at(c, j, k);
        const kinds = spectral?.at(edges, j, k) ?? null;
        const over = laid.get(key(c, j, k));
        const split = cuts?.splits?.rows.get(key(c, j, k));
        if (!edges.mixed && !over && !split) {
          rowOf[slot] = 1;
          continue;
        }
        if (edges.mixed) branches.mark(c, j, edges.metal);
        const parts = maker.make(c, j, k, edges, kinds, over, split);
        if (over) for (const port of maker.lay(parts, over, split)) shorted[port]++;
        for (const edge of split ?? []) splitEdges.push(maker.part(parts, edge, (edges.mixed && edges.free?.[edge.at[0]]) || 1));
        rowOf[slot] = 2 + dictionary.add(parts.row);
        mediaOf[slot] = media.add(parts.medium);
        if (kinds) mediumRows.set(key(c, j, k), mediumRow(c, j, k, edges, kinds, parts.level));
      }
    branches.endPlane(k);
  }
  // The last plane is a wall: its tangential edges are perfect metal.
  for (const c of [0, 1] as const) for (let j = 0; j <= ny; j++) branches.mark(c, j, 1);
  branches.endPlane(nz);

  const out: Discrete = {
    grid,
    dt,
    centre: omega / (2 * Math.PI),
    sx,
    dictionary: dictionary.data(),
    rowOf,
    media: media.data(),
    mediaOf,
    ports,
    guides,
    annexes: guides.map((g, n) => annexOf(scene, grid, n, g, dt)),
    classes: spectral?.classes.list ?? [],
    mediumRows,
    cuts,
    splitEdges: splitEdges.filter((e) => e.cb > 0),
    mixing: null,
    branches: branches.done(),
    problems: [],
    withStep: (other) => discretise(scene, grid, edgesOf, other),
  };
  // A body that differs along the axes keeps its staircase-free diagonal only.
  if (subpixel?.nodes.length && !anisotropic(scene)) out.mixing = mixingOf(subpixel.nodes, grid, (c, at) => clearPermittivity(out, c, at));
  out.problems.push(...portFaults(out, scene, shorted));
  return out;
}

/** The cells in which a port's guide goes on, where it has some of its own. */
function annexOf(scene: GridScene, grid: Grid, n: number, g: GuidePlane, dt: number): Annex | null {
  if (!hasAnnex(scene.guides[n])) return null;
  const own = annexScene(scene, grid, scene.guides[n], g);
  return { discrete: discretise(own.scene, own.grid, portEdges, dt), plane: own.plane, boundaries: own.scene.boundaries };
}

/** The stretch of a row that lies in media with memory. */
function mediumRow(component: Axis, j: number, k: number, edges: EdgeRow, kinds: Uint16Array, level: Set<number> | null): MediumRow {
  const first = kinds.findIndex((n) => n > 0);
  let last = kinds.length - 1;
  while (kinds[last] === 0) last--;
  return {
    component,
    j,
    k,
    first,
    classes: kinds.slice(first, last + 1),
    free: edges.free ? Float32Array.from(edges.free.subarray(first, last + 1)) : null,
    level,
  };
}

/** Permittivity of an edge at a curved dielectric whose change may mix with its neighbours'; 0 where it may not. */
function clearPermittivity(d: Discrete, c: Axis, at: number[]): number {
  const e = permittivityOf(d, c, at);
  const medium = mediumOf(d, c, at);
  // The shares are those of a permittivity that is there at once.
  const late = medium !== null && Math.abs(medium.model.infinity - e) > 0.5 * medium.model.infinity;
  return e > 0 && Number.isFinite(e) && !late && !d.cuts?.splits?.edgeAt(c, at) && (d.cuts?.free(c, at[0], at[1], at[2]) ?? 1) === 1 ? e : 0;
}

/** Lumped ports that metal shorts, by the number of their shorted edges, or that do not reach it at both ends. */
function portFaults(d: Discrete, scene: GridScene, shorted: readonly number[]): Problem[] {
  return scene.ports.flatMap((port, p): Problem[] => {
    const place = { part: 'ports', name: port.name } as const;
    if (shorted[p])
      return [
        problem(
          'error',
          'port.shorted',
          place,
          shorted[p] === d.ports[p].length ? 'The port lies wholly in metal, so it is shorted.' : 'Metal crosses the port, so part of it is shorted.',
          'Clear the gap, or move the port to where there is no metal.',
        ),
      ];
    if (endsOnMetal(d, scene, p)) return [];
    return [
      problem(
        'error',
        'port.touches-nothing',
        place,
        'On the grid the port does not reach metal at both ends.',
        'Let it start and end on conductors; a finer accuracy may be needed for very thin gaps.',
      ),
    ];
  });
}

/** Whether some metal edge meets each end of each of a port's columns. */
function endsOnMetal(d: Discrete, scene: GridScene, p: number): boolean {
  const { axis } = scene.ports[p];
  const along = d.ports[p].map((e) => e.index[axis]);
  const ends = [Math.min(...along), Math.max(...along) + 1];
  return ends.every((end, side) =>
    d.ports[p]
      .filter((e) => e.index[axis] === (side ? end - 1 : end))
      .some((e) => {
        const node = [...e.index];
        node[axis] = end;
        if (d.cuts?.splits?.touchesNode(node)) return true;
        return ([0, 1, 2] as const).some((c) =>
          [0, 1].some((back) =>
            isMetal(
              d,
              c,
              node.map((v, a) => (a === c ? v - back : v)),
            ),
          ),
        );
      }),
  );
}
