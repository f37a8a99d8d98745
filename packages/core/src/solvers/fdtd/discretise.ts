import { problem } from '../../document/index.ts';
import type { Grid } from '../../grid/index.ts';
import { modelAt } from '../../materials/index.ts';
import { c0, eps0 } from '../../numerics/constants.ts';
import type { GridScene } from '../../scene/index.ts';
import { BranchBuilder } from './branches.ts';
import { cutCourant, CutCells, cutsCells } from './cutCells.ts';
import { anisotropic, collectMedia } from './materials.ts';
import { type PortEdge, portEdges } from './portEdges.ts';
import { componentRows, SpectralRows } from './spectral.ts';
import { mixingOf } from './subpixel.ts';
import { guideEdges, guidePlane } from './portPlane.ts';
import { type MediumRow, type Discrete, isMetal, coefficients, mediumOf, key } from './discrete.ts';
import type { Axis } from '../../numerics/axis.ts';

/** Courant number used. */
const courant = 0.99;

/**
 * The largest stable step times 0.99, from the smallest cells (Courant, Friedrichs and Lewy 1928; Taflove 2005, ch. 4). `cut`
 * says that curved metal cuts cells, which asks for a shorter one.
 */
export function timeStep(grid: Grid, cut: boolean): number {
  const smallest = grid.lines.map((x) => {
    let least = Infinity;
    for (let i = 1; i < x.length; i++) least = Math.min(least, x[i] - x[i - 1]);
    return least;
  });
  return ((cut ? cutCourant : 1) * courant) / (c0 * Math.sqrt(smallest.reduce((s, d) => s + 1 / (d * d), 0)));
}

/** Row length: room for nx + 1 values, a multiple of four. */
export const rowLength = (cells: number): number => (cells + 1 + 3) & ~3;

class Dictionary {
  private readonly byHash = new Map<number, number[]>();
  private rows = new Float32Array(1 << 14);
  count = 0;
  constructor(readonly width: number) {}

  /** Number of the row with these contents. */
  add(row: Float32Array): number {
    const bits = new Uint32Array(row.buffer, row.byteOffset, row.length);
    let hash = 2166136261;
    for (let i = 0; i < bits.length; i++) hash = Math.imul(hash ^ bits[i], 16777619);
    const same = this.byHash.get(hash) ?? [];
    for (const n of same) {
      const at = n * this.width;
      let equal = true;
      for (let i = 0; i < this.width && equal; i++) equal = this.rows[at + i] === row[i];
      if (equal) return n;
    }
    if ((this.count + 1) * this.width > this.rows.length) {
      const bigger = new Float32Array(Math.max(this.rows.length * 2, (this.count + 1) * this.width));
      bigger.set(this.rows);
      this.rows = bigger;
    }
    this.rows.set(row, this.count * this.width);
    this.byHash.set(hash, [...same, this.count]);
    return this.count++;
  }

  data(): Float32Array {
    return this.rows.subarray(0, this.count * this.width);
  }
}

/** Scene to discrete model. Reports ports that the grid shows to be shorted or loose. */
export function discretise(scene: GridScene, grid: Grid, edgesOf: typeof portEdges = portEdges): Discrete {
  const [nx, ny, nz] = grid.lines.map((x) => x.length - 1);
  const cut = cutsCells(scene);
  const dt = timeStep(grid, cut);
  const sx = rowLength(nx);
  const omega = Math.PI * (scene.band.from + scene.band.to);
  const media = collectMedia(scene);
  const cuts = cut ? new CutCells(scene, grid, media) : null;
  const { rows, subpixel } = componentRows(scene, grid, cuts);
  const spectral = SpectralRows.of(scene, grid, dt);
  const branches = new BranchBuilder(grid, dt, media.metals, cuts);
  const sheetRows = new Map<string, Uint16Array>();
  const dictionary = new Dictionary(2 * sx);
  const rowOf = new Uint32Array(nz * 3 * (ny + 1));
  const mediumRows = new Map<string, MediumRow>();
  const ports = scene.ports.map((p) => edgesOf(p, grid));
  const portRows = new Map<string, { port: number; edge: PortEdge }[]>();
  ports.forEach((edges, port) => {
    for (const edge of edges) {
      const k = key(scene.ports[port].axis, edge.index[1], edge.index[2]);
      portRows.set(k, [...(portRows.get(k) ?? []), { port, edge }]);
    }
  });
  const guides = scene.guides.map((g) => guidePlane(g, grid, scene.boundaries));
  const special = new Map<string, { held: number[]; metal: number[] }>();
  for (const [g, guide] of guides.entries()) {
    if (scene.guides[g].mixed) continue;
    const { held, backed } = guideEdges(guide, grid);
    for (const [list, what] of [
      [held, 'held'],
      [backed, 'metal'],
    ] as const)
      for (const { c, at } of list) {
        const k = key(c, at[1], at[2]);
        let entry = special.get(k);
        if (!entry) special.set(k, (entry = { held: [], metal: [] }));
        entry[what].push(at[0]);
      }
  }
  const shorted = ports.map(() => 0);
  const row = new Float32Array(2 * sx);

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
        const loads = portRows.get(key(c, j, k));
        const here = special.get(key(c, j, k));
        if (!edges.mixed && !loads && !here) {
          rowOf[slot] = 1;
          continue;
        }
        if (edges.mixed) branches.mark(c, j, edges.metal);
        let sheet = false;
        row.fill(0);
        const first = c === 0 ? 0 : 1;
        let level: Set<number> | null = null;
        for (let i = first; i < nx; i++) {
          const metal = edges.mixed && edges.metal[i];
          if (metal) continue;
          // A cut edge holds E times its free part.
          const free = edges.mixed && edges.free ? edges.free[i] : 1;
          const kind = kinds?.[i] ?? 0;
          const bare = kind > 0 && ((edges.mixed && edges.sheet[i] > 1) || loads?.some((l) => l.edge.index[0] === i) || here?.held.includes(i));
          if (kind && !bare) {
            const medium = spectral!.classes.list[kind - 1];
            row[i] = medium.ca;
            row[sx + i] = free * medium.cb;
            continue;
          }
          const er = edges.mixed ? edges.re[i] : 1;
          const sigma = edges.mixed ? omega * eps0 * edges.loss[i] : 0;
          if (bare) (level ??= new Set()).add(i);
          const a = (sigma * dt) / (2 * er * eps0);
          row[i] = (1 - a) / (1 + a);
          row[sx + i] = (free * c0 * dt) / er / (1 + a);
          if (edges.mixed && edges.sheet[i] > 1 && !here?.held.includes(i)) {
            branches.sheetEdge(c, i, j, k, edges.sheet[i], row[sx + i]);
            sheet = true;
          }
        }
        if (sheet) sheetRows.set(key(c, j, k), edges.sheet.slice());
        for (const { port, edge } of loads ?? []) {
          const i = edge.index[0];
          if (row[sx + i] === 0) {
            shorted[port]++;
            continue;
          }
          // The port updates its edges itself; the sweep leaves them as they are.
          edge.ca = row[i];
          edge.cb = row[sx + i];
          row[i] = 1;
          row[sx + i] = 0;
        }
        // Guided ports set their edges themselves; right behind them is metal.
        for (const i of here?.metal ?? []) row[i] = row[sx + i] = 0;
        for (const i of here?.held ?? []) {
          row[i] = 1;
          row[sx + i] = 0;
        }
        rowOf[slot] = 2 + dictionary.add(row);
        if (kinds) {
          const from = kinds.findIndex((n) => n > 0);
          let to = nx;
          while (kinds[to] === 0) to--;
          mediumRows.set(key(c, j, k), {
            component: c,
            j,
            k,
            first: from,
            classes: kinds.slice(from, to + 1),
            free: edges.free ? Float32Array.from(edges.free.subarray(from, to + 1)) : null,
            level,
          });
        }
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
    ports,
    guides,
    permittivity: (c, at, f = omega / (2 * Math.PI)) => edgePermittivity(out, c, at, f),
    classes: spectral?.classes.list ?? [],
    mediumRows,
    cuts,
    mixing: null,
    branches: branches.done(),
    sheetRows,
    problems: [],
  };
  // A body that differs along the axes keeps its staircase-free diagonal only.
  if (subpixel?.nodes.length && !anisotropic(scene)) {
    const open = (c: Axis, at: number[]): number => {
      const e = out.permittivity(c, at);
      const medium = mediumOf(out, c, at);
      // The shares are those of a permittivity that is there at once.
      const late = medium !== null && Math.abs(medium.model.infinity - e) > 0.5 * medium.model.infinity;
      return e > 0 && Number.isFinite(e) && !late && (cuts?.free(c, at[0], at[1], at[2]) ?? 1) === 1 ? e : 0;
    };
    out.mixing = mixingOf(subpixel.nodes, grid, open);
  }
  scene.ports.forEach((port, p) => {
    const place = { part: 'ports', name: port.name } as const;
    if (shorted[p])
      out.problems.push(
        problem(
          'error',
          'port.shorted',
          place,
          shorted[p] === ports[p].length ? 'The port lies wholly in metal, so it is shorted.' : 'Metal crosses the port, so part of it is shorted.',
          'Clear the gap, or move the port to where there is no metal.',
        ),
      );
    else if (!endsOnMetal(out, scene, p))
      out.problems.push(
        problem(
          'error',
          'port.touches-nothing',
          place,
          'On the grid the port does not reach metal at both ends.',
          'Let it start and end on conductors; a finer accuracy may be needed for very thin gaps.',
        ),
      );
  });
  return out;
}

/** Relative permittivity that an edge's update coefficients stand for; 0 where it is no dielectric, infinite where a port holds it. */
function edgePermittivity(d: Discrete, c: Axis, at: readonly number[], frequency: number): number {
  if (isMetal(d, c, at)) return 0;
  const medium = mediumOf(d, c, at);
  if (medium) return modelAt(medium.model, 2 * Math.PI * frequency).re;
  const [ca, cb] = coefficients(d, c, at as [number, number, number]);
  const free = d.cuts?.free(c, at[0], at[1], at[2]) ?? 1;
  return (free * c0 * d.dt * (1 + ca)) / (2 * cb);
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
