import { fillOf } from '../../geometry/index.ts';
import type { Grid } from '../../grid/index.ts';
import { mediumAt } from '../../materials/index.ts';
import { c0 } from '../../numerics/constants.ts';
import type { GridScene, SceneGuide } from '../../scene/index.ts';
import { dielectricsOf } from '../../discretisation/media.ts';
import type { GuideModes } from './modeTypes.ts';

const axes = [0, 1, 2] as const;
/** Slowest group velocity of a port's mode that is reckoned with, over that of light: slower waves lie at a cutoff within the band itself. */
const slowest = 0.1;

/** Cells between the absorbing layers: their lines, and of each whether it is free of metal, x running first. Sheets do not count. */
export class Space {
  readonly lines: Float64Array[];
  readonly free: Uint8Array;
  private readonly counts: number[];

  constructor(scene: GridScene, { lines, outerCells }: Grid) {
    this.lines = axes.map((a) => lines[a].slice(outerCells[2 * a], lines[a].length - outerCells[2 * a + 1]));
    this.counts = this.lines.map((x) => x.length - 1);
    const middles = this.lines.map((x) => x.slice(1).map((high, i) => (x[i] + high) / 2));
    const [nx, ny, nz] = this.counts;
    this.free = new Uint8Array(nx * ny * nz);
    const metal = [false, ...scene.bodies.map((b) => b.material.kind === 'conductor')];
    for (let k = 0; k < nz; k++)
      fillOf(scene.bodies, middles[0], middles[1], [middles[2][k]]).forEach((mark, n) => (this.free[k * nx * ny + n] = metal[mark] ? 0 : 1));
  }

  /** First and last cell along each axis within a port's rectangle, on the side to which it looks. */
  private beside({ normal, into, min, max }: SceneGuide): [from: number[], to: number[]] {
    const first = (a: number): number => {
      const x = this.lines[a];
      if (a !== normal) return Math.max(0, x.findIndex((v) => v >= min[a])); // prettier-ignore
      const next = x.findIndex((v) => (into > 0 ? v > min[a] : v >= min[a]));
      return Math.min(Math.max(next < 0 ? x.length : next, 1), x.length - 1) - 1;
    };
    const last = (a: number, from: number): number => {
      if (a === normal) return from;
      let to = from;
      while (to + 2 < this.lines[a].length && this.lines[a][to + 2] <= max[a]) to++;
      return to;
    };
    const from = axes.map(first);
    return [from, axes.map((a) => last(a, from[a]))];
  }

  /** Calls for each free cell between two, with its number. */
  private each(from: readonly number[], to: readonly number[], call: (i: number, j: number, k: number, n: number) => void): void {
    const [nx, ny] = this.counts;
    for (let k = from[2]; k <= to[2]; k++)
      for (let j = from[1]; j <= to[1]; j++)
        for (let i = from[0]; i <= to[0]; i++) {
          const n = (k * ny + j) * nx + i;
          if (this.free[n]) call(i, j, k, n);
        }
  }

  private size(a: number, i: number): number {
    return this.lines[a][i + 1] - this.lines[a][i];
  }

  /** Free space over the smallest free cross-section of a port, metres: the length of a tube that holds it all, however it is folded. */
  drawnOut(guides: readonly SceneGuide[]): number {
    let whole = 0;
    const last = this.counts.map((n) => n - 1);
    this.each([0, 0, 0], last, (i, j, k) => (whole += this.size(0, i) * this.size(1, j) * this.size(2, k)));
    const areas = guides.map((g) => {
      let area = 0;
      const [u, v] = axes.filter((a) => a !== g.normal);
      this.each(...this.beside(g), (...at) => (area += this.size(u, at[u]) * this.size(v, at[v])));
      return area;
    });
    return whole / Math.min(...areas.filter((x) => x > 0));
  }

  /**
   * Longest of the shortest ways from a port along the axes through free cells, metres: swept in all eight orders until none gets shorter (after H. Zhao,
   * Math. Comput. 74, 603, 2005), which takes as many rounds as a way has turns back.
   */
  farthest(guide: SceneGuide): number {
    const [nx, ny, nz] = this.counts;
    const way = new Float32Array(this.free.length).fill(Infinity);
    this.each(...this.beside(guide), (_, __, ___, n) => (way[n] = 0));
    const steps = [1, nx, nx * ny];
    const apart = this.lines.map((x) => x.slice(0, -2).map((low, i) => (x[i + 2] - low) / 2));
    for (let changed = true; changed;) {
      changed = false;
      for (let order = 0; order < 8; order++) {
        const range = (a: number, n: number): [number, number, number] => (order & (1 << a) ? [n - 1, -1, -1] : [0, n, 1]);
        const [x0, x1, dx] = range(0, nx);
        const [y0, y1, dy] = range(1, ny);
        const [z0, z1, dz] = range(2, nz);
        for (let k = z0; k !== z1; k += dz)
          for (let j = y0; j !== y1; j += dy)
            for (let i = x0, n = (k * ny + j) * nx + x0; i !== x1; i += dx, n += dx) {
              if (!this.free[n]) continue;
              let least = way[n];
              // From the neighbour behind on each axis.
              if (i !== x0) least = Math.min(least, way[n - dx] + apart[0][dx > 0 ? i - 1 : i]);
              if (j !== y0) least = Math.min(least, way[n - dy * steps[1]] + apart[1][dy > 0 ? j - 1 : j]);
              if (k !== z0) least = Math.min(least, way[n - dz * steps[2]] + apart[2][dz > 0 ? k - 1 : k]);
              // In single precision, which is what is kept.
              if (Math.fround(least) < way[n]) {
                way[n] = least;
                changed = true;
              }
            }
      }
    }
    return way.reduce((most, w) => (w < Infinity && w > most ? w : most), 0);
  }
}

/**
 * Longest way that waves may have through a model from a guided port, metres of vacuum. Where hollow guides end in open space it is that of the farthest place; in
 * closed walls, and along lines, which may be folded wherever there is space, that of all space drawn out to the cross-section of the smallest port. Times the
 * largest refractive index.
 */
export function longestWay(scene: GridScene, grid: Grid, guides: readonly GuideModes[]): number {
  const space = new Space(scene, grid);
  const lines = guides.some(({ modes }) => modes.some((m) => m.at(lineBelow * scene.band.from).propagates));
  const way = scene.boundaries.includes('open') && !lines ? Math.max(...scene.guides.map((g) => space.farthest(g))) : space.drawnOut(scene.guides);
  const centre = (scene.band.from + scene.band.to) / 2;
  const media = axes.flatMap((a) => dielectricsOf(scene, a)).filter((d) => d !== null);
  return way * Math.sqrt(Math.max(1, ...media.map((d) => mediumAt(d, centre).re)));
}
/** Part of the band's lowest frequency at which a mode that propagates has no cutoff. */
const lineBelow = 0.02;

/** Seconds in which all that a port sends in has crossed a model and come back, at the slowest group velocity of the ports' modes at some frequencies. */
export function thereAndBack(way: number, guides: readonly GuideModes[], watch: ArrayLike<number>): number {
  let slow = 1 / c0;
  for (const { modes } of guides)
    for (const mode of modes)
      for (let f = 1; f < watch.length; f++) {
        const [p, q] = [mode.at(watch[f - 1]), mode.at(watch[f])];
        if (p.propagates && q.propagates) slow = Math.max(slow, (q.beta[0] - p.beta[0]) / (2 * Math.PI * (watch[f] - watch[f - 1])));
      }
  return 2 * way * Math.min(slow, 1 / (slowest * c0));
}
