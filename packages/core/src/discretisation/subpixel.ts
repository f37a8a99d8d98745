import { type Body, Filling, isSheet } from '../geometry/index.ts';
import type { Grid } from '../grid/index.ts';
import type { Filled } from '../geometry/index.ts';
import type { Media } from './media.ts';
import { nodesAround } from './nodeRegion.ts';
import type { Axis } from '../numerics/axis.ts';
import { sameMesh, sameNumber } from '../numerics/tolerance.ts';

/** Whether some dielectric of the scene is curved or slanted. */
export const blendsCells = (scene: Filled): boolean => scene.bodies.some(blends);
const blends = (b: Body): boolean => b.curved && b.material.kind !== 'conductor' && !isSheet(b);

/** Sample rows in an eighth of a cell, each way across x, and points along x: fewer than 256 in all, as they are counted in bytes. */
const rowsEach = 3;
const pointsEach = 8;

/** Off-diagonal part of the inverse permittivity at a node. */
export interface NodeTensor {
  at: [number, number, number];
  /** xy, yz, zx. */
  across: [number, number, number];
}

/** What fills one layer of half cells: the medium of each, or `several`, and then how many samples lie in each medium. */
interface Slab {
  layer: number;
  medium: Uint16Array;
  counts: Map<number, Uint8Array>;
}
const several = 0xffff;

/** Means over a box of eight half cells, with the gradient of permittivity in it. */
interface Blend {
  re: number;
  loss: number;
  inverse: number;
  inverseLoss: number;
  normal: [number, number, number];
}

/**
 * Second-order averages at curved and slanted dielectric surfaces: along the surface's normal the mean of 1/e counts, across it
 * the inverse of the mean of e; inv = n n <1/e> + (1 - n n) / <e> (A. Farjadpour et al., Opt. Lett. 31, 2972, 2006). The diagonal
 * belongs to the edges, the rest to the nodes between them, which makes the scheme symmetric (G. Werner and J. Cary, J. Comput.
 * Phys. 226, 1085, 2007). Planes are asked for in rising order.
 */
export class Subpixel {
  readonly nodes: NodeTensor[] = [];
  private readonly lo: number[];
  /** Nodes of the region on each axis. */
  private readonly size: number[];
  private readonly slabs: Slab[];
  private readonly filling: Filling;
  private readonly xs: Float64Array;
  private readonly found: Uint16Array;
  private readonly centres: Float64Array[];
  private readonly widths: Float64Array[];
  private readonly media: Media;
  private nodePlane = -1;

  /** The media as they are at each of several frequencies. */
  constructor(
    scene: Filled,
    grid: Grid,
    private readonly views: readonly Media[],
  ) {
    const [media] = views;
    this.media = media;
    ({ lo: this.lo, size: this.size } = nodesAround(scene.bodies.filter(blends), scene, grid));
    this.filling = new Filling(scene.bodies, media.ofBody, scene);
    const halves = (a: number): { centre: Float64Array; width: Float64Array } => {
      const x = grid.lines[a];
      const count = 2 * (this.size[a] - 1);
      const centre = new Float64Array(count);
      const width = new Float64Array(count);
      for (let h = 0; h < count; h++) {
        const i = this.lo[a] + (h >> 1);
        width[h] = (x[i + 1] - x[i]) / 2;
        centre[h] = x[i] + width[h] * (h & 1 ? 1.5 : 0.5);
      }
      return { centre, width };
    };
    const all = [0, 1, 2].map(halves);
    this.centres = all.map((h) => h.centre);
    this.widths = all.map((h) => h.width);
    this.xs = Float64Array.from({ length: this.centres[0].length * pointsEach }, (_, p) => {
      const h = Math.floor(p / pointsEach);
      return this.filling.clamp(0, this.centres[0][h] + this.widths[0][h] * (((p % pointsEach) + 0.5) / pointsEach - 0.5));
    });
    this.found = new Uint16Array(this.xs.length);
    const cells = this.centres[0].length * this.centres[1].length;
    this.slabs = Array.from({ length: 4 }, () => ({ layer: -1, medium: new Uint16Array(cells), counts: new Map<number, Uint8Array>() }));
  }

  /** Range of x indices of a row of edges that lies inside, if any. */
  range(c: Axis, j: number, k: number): [number, number] | null {
    const inside = (a: number, i: number): boolean =>
      c === a ? i >= this.lo[a] && i < this.lo[a] + this.size[a] - 1 : i > this.lo[a] && i < this.lo[a] + this.size[a] - 1;
    if (!inside(1, j) || !inside(2, k)) return null;
    return [this.lo[0] + (c === 0 ? 0 : 1), this.lo[0] + this.size[0] - 1];
  }

  private slab(layer: number): Slab {
    const s = this.slabs[layer & 3];
    if (s.layer === layer) return s;
    s.layer = layer;
    s.medium.fill(0);
    s.counts.clear();
    const [cy, cz] = [this.centres[1], this.centres[2][layer]];
    const [wy, wz] = [this.widths[1], this.widths[2][layer]];
    const width = this.centres[0].length;
    const { found } = this;
    for (let h = 0; h < cy.length; h++) {
      if (!this.filling.near(cy[h] - wy[h] / 2, cy[h] + wy[h] / 2, cz - wz / 2, cz + wz / 2)) continue;
      for (let row = 0; row < rowsEach * rowsEach; row++) {
        const [p, q] = [Math.floor(row / rowsEach), row % rowsEach];
        this.filling.row(cy[h] + wy[h] * ((p + 0.5) / rowsEach - 0.5), cz + wz * ((q + 0.5) / rowsEach - 0.5), this.xs, found);
        for (let x = 0, n = h * width, at = 0; x < width; x++, n++, at += pointsEach) {
          const m = found[at];
          let same = true;
          for (let i = 1; i < pointsEach && same; i++) same = found[at + i] === m;
          if (same && row === 0) s.medium[n] = m;
          if (same && s.medium[n] === m) continue;
          let counts = s.counts.get(n);
          if (!counts) {
            counts = new Uint8Array(this.media.re.length);
            if (row) counts[s.medium[n]] = row * pointsEach;
            s.counts.set(n, counts);
            s.medium[n] = several;
          }
          for (let i = 0; i < pointsEach; i++) counts[found[at + i]]++;
        }
      }
    }
    return s;
  }

  /** Means of permittivity and of its inverse over half cell n of a layer, as a set of media has them, into `mean`; false where metal is in it. */
  private meanOf(s: Slab, n: number, view: number): boolean {
    const { conductor } = this.media;
    const { mean } = this;
    mean.re = mean.loss = mean.inverse = mean.inverseLoss = 0;
    const m = s.medium[n];
    if (m !== several) {
      if (conductor[m]) return false;
      this.addMedium(m, 1, view);
      return true;
    }
    const counts = s.counts.get(n)!;
    for (let i = 0; i < counts.length; i++) {
      if (!counts[i]) continue;
      if (conductor[i]) return false;
      this.addMedium(i, counts[i] / (rowsEach * rowsEach * pointsEach), view);
    }
    return true;
  }
  private addMedium(m: number, share: number, view: number): void {
    const { mean } = this;
    const [re, loss] = [this.views[view].re[m], this.views[view].loss[m]];
    const d = re * re + loss * loss;
    mean.re += share * re;
    mean.loss += share * loss;
    mean.inverse += (share * re) / d;
    mean.inverseLoss += (share * loss) / d;
  }
  private readonly mean = { re: 0, loss: 0, inverse: 0, inverseLoss: 0 };

  /** Whether the box of eight half cells whose lowest has half-cell indices h holds more than one medium. */
  private differs(hx: number, hy: number, hz: number): boolean {
    const width = this.centres[0].length;
    const [low, high] = [this.slab(hz).medium, this.slab(hz + 1).medium];
    const n = hy * width + hx;
    const m = low[n];
    if (m === several) return true;
    return !(
      low[n + 1] === m && low[n + width] === m && low[n + width + 1] === m &&
      high[n] === m && high[n + 1] === m && high[n + width] === m && high[n + width + 1] === m
    ); // prettier-ignore
  }

  /** The box of eight half cells whose lowest has half-cell indices h; null where there is nothing to blend or metal is near. */
  private blend(hx: number, hy: number, hz: number, view: number): Blend | null {
    if (!this.differs(hx, hy, hz)) return null;
    const width = this.centres[0].length;
    const [wx, wy, wz] = this.widths;
    const out: Blend = { re: 0, loss: 0, inverse: 0, inverseLoss: 0, normal: [0, 0, 0] };
    const { mean, eighths } = this;
    let volume = 0;
    const middle = [0, 0, 0];
    for (let o = 0; o < 8; o++) {
      const [x, y, z] = [hx + (o & 1), hy + ((o >> 1) & 1), hz + (o >> 2)];
      if (!this.meanOf(this.slab(z), y * width + x, view)) return null;
      eighths[o] = mean.re;
      const v = wx[x] * wy[y] * wz[z];
      volume += v;
      out.re += v * mean.re;
      out.loss += v * mean.loss;
      out.inverse += v * mean.inverse;
      out.inverseLoss += v * mean.inverseLoss;
      middle[0] += v * this.centres[0][x];
      middle[1] += v * this.centres[1][y];
      middle[2] += v * this.centres[2][z];
    }
    out.re /= volume;
    out.loss /= volume;
    out.inverse /= volume;
    out.inverseLoss /= volume;
    for (let a = 0; a < 3; a++) middle[a] /= volume;
    const moment = [0, 0, 0];
    const square = [0, 0, 0];
    for (let o = 0; o < 8; o++) {
      const h = [hx + (o & 1), hy + ((o >> 1) & 1), hz + (o >> 2)];
      const v = wx[h[0]] * wy[h[1]] * wz[h[2]];
      for (let a = 0; a < 3; a++) {
        const d = this.centres[a][h[a]] - middle[a];
        moment[a] += v * eighths[o] * d;
        square[a] += v * d * d;
      }
    }
    const slope = moment.map((m, a) => m / square[a]);
    const size = Math.hypot(slope[0], slope[1], slope[2]);
    // Two media of one permittivity have no surface between them.
    if (!(size > sameNumber * (out.re / Math.sqrt(square[0] / volume)))) return null;
    out.normal = [slope[0] / size, slope[1] / size, slope[2] / size];
    return out;
  }
  private readonly eighths = new Float64Array(8);

  /** Collects the nodes of plane k. To be called once for each plane, in rising order, before its edges are asked for. */
  plane(k: number): void {
    if (k <= this.nodePlane || k <= this.lo[2] || k >= this.lo[2] + this.size[2] - 1) return;
    this.nodePlane = k;
    for (let j = 1; j + 1 < this.size[1]; j++)
      for (let i = 1; i + 1 < this.size[0]; i++) {
        const b = this.blend(2 * i - 1, 2 * j - 1, 2 * (k - this.lo[2]) - 1, 0);
        if (!b) continue;
        const [nx, ny, nz] = b.normal;
        const step = b.inverse - 1 / b.re;
        const across: NodeTensor['across'] = [nx * ny * step, ny * nz * step, nz * nx * step];
        if (Math.max(...across.map(Math.abs)) > 1e-5) this.nodes.push({ at: [i + this.lo[0], j + this.lo[1], k], across });
      }
  }

  /** Whether the box of an edge holds more than one medium. */
  blends(c: Axis, i: number, j: number, k: number): boolean {
    const { lo } = this;
    return this.differs(2 * (i - lo[0]) - (c === 0 ? 0 : 1), 2 * (j - lo[1]) - (c === 1 ? 0 : 1), 2 * (k - lo[2]) - (c === 2 ? 0 : 1));
  }

  /** Complex relative permittivity of an edge, as e' and e'', for one set of media, where it is blended. */
  edge(c: Axis, i: number, j: number, k: number, view = 0): [number, number] | null {
    const h = [i, j, k].map((x, a) => 2 * (x - this.lo[a]) - (a === c ? 0 : 1));
    const b = this.blend(h[0], h[1], h[2], view);
    if (!b) return null;
    const p = b.normal[c] ** 2;
    const d = b.re * b.re + b.loss * b.loss;
    const re = p * b.inverse + ((1 - p) * b.re) / d;
    const im = p * b.inverseLoss + ((1 - p) * b.loss) / d;
    const s = re * re + im * im;
    return [re / s, im / s];
  }
}

/** Electric edges whose changes mix, as the off-diagonal permittivity has it. */
export interface Mixing {
  count: number;
  component: Uint8Array;
  /** Grid indices, three an edge. */
  index: Int32Array;
  /** Links of edge n are start[n] .. start[n + 1]. */
  start: Int32Array;
  other: Int32Array;
  /** What the other edge's plain change adds to this one's. */
  factor: Float64Array;
}

/** Pairs of components that an off-diagonal entry couples, in the order of NodeTensor. */
const pairs = [
  [0, 1],
  [1, 2],
  [2, 0],
] as const;

/**
 * Links between the edges that meet at blended nodes. `permittivity` gives what an edge's own coefficient stands for, 0 where
 * the edge is none to be linked (metal, ports). Edges sorted by row.
 */
export function mixingOf(nodes: readonly NodeTensor[], grid: Grid, permittivity: (c: Axis, at: number[]) => number): Mixing {
  const step = grid.lines.map((x) => x.map((_, i) => (i + 1 < x.length ? x[i + 1] - x[i] : 0)));
  const dual = grid.lines.map((x) => x.map((_, i) => (x[Math.min(i + 1, x.length - 1)] - x[Math.max(i - 1, 0)]) / 2));
  const links = new Map<string, { c: Axis; at: number[]; e: number; to: [string, number][] }>();
  const edge = (c: Axis, at: number[]): { name: string; e: number } => {
    const name = `${c} ${at.join(' ')}`;
    const known = links.get(name);
    if (known) return { name, e: known.e };
    const e = permittivity(c, at);
    links.set(name, { c, at, e, to: [] });
    return { name, e };
  };
  for (const { at, across } of nodes)
    pairs.forEach(([p, q], n) => {
      if (Math.abs(across[n]) < sameMesh) return;
      const r = 3 - p - q;
      for (const back of [0, 1])
        for (const down of [0, 1]) {
          const ap = at.map((x, a) => x - (a === p ? back : 0));
          const aq = at.map((x, a) => x - (a === q ? down : 0));
          const [one, two] = [edge(p, ap), edge(q, aq)];
          if (!one.e || !two.e) continue;
          // A quarter of the mean over the four neighbours, weighted so that both ways are alike.
          const weight = (across[n] * step[p][ap[p]] * step[q][aq[q]] * dual[r][at[r]]) / 4;
          const volume = (c: Axis, x: number[]): number => [0, 1, 2].reduce((v, a) => v * (a === c ? step[a][x[a]] : dual[a][x[a]]), 1);
          links.get(one.name)!.to.push([two.name, (weight * two.e) / volume(p, ap)]);
          links.get(two.name)!.to.push([one.name, (weight * one.e) / volume(q, aq)]);
        }
    });
  const edges = [...links].filter(([, l]) => l.to.length).sort((a, b) => a[1].at[2] - b[1].at[2] || a[1].at[1] - b[1].at[1]);
  const number = new Map(edges.map(([name], n) => [name, n]));
  const start = new Int32Array(edges.length + 1);
  edges.forEach(([, l], n) => (start[n + 1] = start[n] + l.to.length));
  return {
    count: edges.length,
    component: Uint8Array.from(edges, ([, l]) => l.c),
    index: Int32Array.from(edges.flatMap(([, l]) => l.at)),
    start,
    other: Int32Array.from(edges.flatMap(([, l]) => l.to.map(([name]) => number.get(name)!))),
    factor: Float64Array.from(edges.flatMap(([, l]) => l.to.map(([, f]) => f))),
  };
}
