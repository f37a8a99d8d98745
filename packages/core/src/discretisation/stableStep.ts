import type { Grid } from '../grid/index.ts';
import type { Axis } from '../numerics/axis.ts';
import { c0 } from '../numerics/constants.ts';
import type { Cuts } from './cuts.ts';
import { faceName, shifted } from './enlarge.ts';
import { apart, type SplitPart } from './split/types.ts';

/** Rounds of the power method, and what is left of the step by what they find. */
const rounds = 40;
const margin = 0.985;
/** Share of the rounds after which growth from one to the next is that of the largest. */
const settling = 0.7;
/** Faces around which the highest frequency is sought, the worst first. */
const mostFaces = 1000;

/** A sample of H: the samples of E around it with their weights, 1/m. */
interface Magnetic {
  edges: Int32Array;
  weights: Float64Array;
}

/** E and H around cut faces, as far as they are asked for: what one drives of the other. */
class Web {
  private readonly faceOf = new Map<string, number>();
  private readonly edgeOf = new Map<string, number>();
  readonly faces: (Magnetic | null)[] = [];
  /** By sample of E: how much of its edge counts, and the samples of H beside it with their weights, 1/m. */
  readonly electric: { part: number; c: Axis; at: readonly number[]; beside: Map<number, number> }[] = [];
  private readonly parts = new Map<number, SplitPart>();
  private readonly normals = new Map<number, { normal: Axis; at: readonly number[] }>();

  constructor(
    private readonly grid: Grid,
    private readonly cuts: Cuts,
  ) {
    for (const { normal, at, parts } of cuts.splits?.faces ?? [])
      for (const p of parts) {
        this.parts.set(p.sample, p);
        this.normals.set(p.sample, { normal, at });
      }
  }

  private step = (a: Axis, i: number): number => this.grid.lines[a][i + 1] - this.grid.lines[a][i];
  private dual = (a: Axis, i: number): number => {
    const x = this.grid.lines[a];
    return (x[Math.min(i + 1, x.length - 1)] - x[Math.max(i - 1, 0)]) / 2;
  };

  /** Number of a sample of H: a face of the grid, or a part of one. */
  face(field: number, index: readonly number[]): number {
    const name = faceName(field - 3, index);
    let n = this.faceOf.get(name);
    if (n === undefined) {
      this.faceOf.set(name, (n = this.faces.push(null) - 1));
      this.faces[n] = field === apart ? this.ofPart(this.parts.get(index[0])!, n) : this.ofFace((field - 3) as Axis, index, n);
    }
    return n;
  }

  private ofPart(part: SplitPart, n: number): Magnetic {
    const { normal, at } = this.normals.get(part.sample)!;
    const sides = part.sides.map(({ edge, part: i, along, sign }) => {
      const p = edge.parts[i];
      const a = ((normal + 1 + along) % 3) as Axis;
      const e = this.edge(edge.component, edge.at, i, p.to - p.from);
      this.electric[e].beside.set(n, sign / this.dual(a, edge.at[a]));
      return { e, weight: sign / this.step(a, at[a]) };
    });
    return { edges: Int32Array.from(sides, (s) => s.e), weights: Float64Array.from(sides, (s) => s.weight) };
  }

  private ofFace(normal: Axis, at: readonly number[], n: number): Magnetic {
    const [u, v] = [(normal + 1) % 3, (normal + 2) % 3] as [Axis, Axis];
    const edges: number[] = [];
    const weights: number[] = [];
    for (const [c, a, far, sign] of [
      [v, u, 0, 1],
      [v, u, 1, -1],
      [u, v, 0, -1],
      [u, v, 1, 1],
    ] as [Axis, Axis, number, number][]) {
      const place = shifted(at, a, far);
      const split = this.cuts.splits?.edgeAt(c, place);
      const all = split
        ? split.parts.map((p, i): [number, number] => [i, p.to - p.from])
        : [[0, this.cuts.free(c, place[0], place[1], place[2])] as [number, number]];
      for (const [i, part] of all) {
        if (!(part > 0)) continue;
        const e = this.edge(c, place, i, part);
        edges.push(e);
        weights.push(sign / this.step(a, at[a]));
        this.electric[e].beside.set(n, sign / this.dual(a, place[a]));
      }
    }
    return { edges: Int32Array.from(edges), weights: Float64Array.from(weights) };
  }

  private edge(c: Axis, at: readonly number[], i: number, part: number): number {
    const name = `${c} ${at[0]} ${at[1]} ${at[2]} ${i}`;
    let n = this.edgeOf.get(name);
    if (n === undefined) this.edgeOf.set(name, (n = this.electric.push({ part, c, at, beside: new Map() }) - 1));
    return n;
  }

  /** Whether a sample of H is there. */
  has = (field: number, index: ArrayLike<number>): boolean => this.faceOf.has(faceName(field - 3, Array.from(index)));

  /** Takes in all samples of H beside the samples of E that are there, so that these see what they would. */
  close(): void {
    const last = this.grid.lines.map((x) => x.length - 2);
    const until = this.electric.length;
    for (let e = 0; e < until; e++) {
      const { c, at } = this.electric[e];
      for (const normal of [0, 1, 2] as const) {
        if (normal === c) continue;
        for (const by of [0, -1]) {
          const face = shifted(at, 3 - c - normal, by);
          if (face.some((x, a) => x < 0 || x > last[a] + (a === normal ? 1 : 0))) continue;
          const split = this.cuts.splits?.faceAt(normal, face);
          if (split) for (const p of split.parts) this.face(apart, [p.sample, 0, 0]);
          else this.face(3 + normal, face);
        }
      }
    }
  }
}

/**
 * The longest stable step of a grid whose edges and faces metal cuts, seconds, where it is below `dt`: 2 / (c sqrt(l)) of the largest eigenvalue l of the curl of the
 * curl. Rows whose sums (Gershgorin) prove all stable are left out; around the others l is sought by the power method, in vacuum, which no medium exceeds.
 */
export function stableStep(cuts: Cuts, grid: Grid, dt: number): number {
  const { count, own, start, other, factor } = cuts.faces;
  const limit = 4 / (c0 * dt) ** 2;
  const sums = rowSums(cuts, grid);
  const bound = Float64Array.from({ length: count }, (_, f) => {
    let sum = Math.abs(own[f]) * sums[f];
    for (let l = start[f]; l < start[f + 1]; l++) sum += Math.abs(factor[l]) * sums[other[l]];
    return sum;
  });
  const suspects = Array.from({ length: count }, (_, f) => f).filter((f) => bound[f] > limit);
  if (!suspects.length) return dt;
  const worst = suspects.sort((f, g) => bound[g] - bound[f]).slice(0, mostFaces);
  return Math.min(dt, (margin * 2) / (c0 * Math.sqrt(largest(new Web(grid, cuts), cuts.faces, worst))));
}

/** What all samples of H beside the sides of each cut face add up to at most in its circulation, 1/m^2. */
function rowSums(cuts: Cuts, grid: Grid): Float64Array {
  const inverse = grid.lines.map((x) => Float64Array.from(x, (_, i) => (i + 1 < x.length ? 1 / (x[i + 1] - x[i]) : 0)));
  const dual = grid.lines.map((x) => Float64Array.from(x, (_, i) => 2 / (x[Math.min(i + 1, x.length - 1)] - x[Math.max(i - 1, 0)])));
  const around = (c: Axis, at: readonly number[]): number => 2 * dual[(c + 1) % 3][at[(c + 1) % 3]] + 2 * dual[(c + 2) % 3][at[(c + 2) % 3]];
  const sums = new Float64Array(cuts.faces.count);
  const parts = new Map<number, [SplitPart, Axis, readonly number[]]>();
  for (const { normal, at, parts: own } of cuts.splits?.faces ?? []) for (const p of own) parts.set(p.sample, [p, normal, at]);
  const { field, index } = cuts.faces;
  const [at, place]: [number[], number[]] = [
    [0, 0, 0],
    [0, 0, 0],
  ];
  for (let f = 0; f < sums.length; f++) {
    for (let a = 0; a < 3; a++) at[a] = place[a] = index[3 * f + a];
    if (field[f] === apart) {
      const [part, normal, face] = parts.get(at[0])!;
      for (const { edge, part: i, along } of part.sides) {
        const a = (normal + 1 + along) % 3;
        sums[f] += (edge.parts[i].to - edge.parts[i].from) * inverse[a][face[a]] * around(edge.component, edge.at);
      }
      continue;
    }
    const normal = field[f] - 3;
    for (const across of [(normal + 1) % 3, (normal + 2) % 3] as Axis[])
      for (const far of [0, 1]) {
        const c = (3 - normal - across) as Axis;
        place[across] = at[across] + far;
        sums[f] += cuts.free(c, place[0], place[1], place[2]) * inverse[across][at[across]] * around(c, place);
        place[across] = at[across];
      }
  }
  return sums;
}

/** Largest eigenvalue among the samples of H around some faces, 1/m^2, by the power method. */
function largest(web: Web, { field, index, own, start, other, factor }: Cuts['faces'], faces: readonly number[]): number {
  // The faces, those that they lend to or borrow from, and all that share an edge with them.
  const ids = new Map<number, number>();
  const take = (f: number): void => void ids.set(f, web.face(field[f], Array.from(index.subarray(3 * f, 3 * f + 3))));
  for (const f of faces) {
    take(f);
    for (let l = start[f]; l < start[f + 1]; l++) take(other[l]);
  }
  web.close();
  for (let f = 0; f < field.length; f++) if (!ids.has(f) && web.has(field[f], index.subarray(3 * f, 3 * f + 3))) take(f);
  const cutOf = new Map(Array.from(ids, ([f, n]) => [n, f]));
  const size = web.faces.length;
  let h = Float64Array.from({ length: size }, (_, n) => Math.sin(12.9898 * (n + 1)));
  let next = new Float64Array(size);
  const [e, turn] = [new Float64Array(web.electric.length), new Float64Array(size)];
  let top = 0;
  for (let r = 0; r < rounds; r++) {
    web.electric.forEach(({ part, beside }, n) => {
      let sum = 0;
      for (const [m, w] of beside) sum += w * h[m];
      e[n] = part * sum;
    });
    web.faces.forEach((face, n) => {
      const { edges, weights } = face!;
      let sum = 0;
      for (let k = 0; k < edges.length; k++) sum += weights[k] * e[edges[k]];
      turn[n] = sum;
    });
    let squares = 0;
    for (let n = 0; n < size; n++) {
      const f = cutOf.get(n);
      let value = turn[n];
      if (f !== undefined) {
        value *= own[f];
        for (let l = start[f]; l < start[f + 1]; l++) value += factor[l] * turn[ids.get(other[l]) ?? n] * (ids.has(other[l]) ? 1 : 0);
      }
      next[n] = value;
      squares += value * value;
    }
    const length = Math.sqrt(squares);
    // The first rounds hold too much of what fades, and the first begins with no unit.
    if (r > settling * rounds) top = Math.max(top, length);
    for (let n = 0; n < size; n++) next[n] /= length;
    [h, next] = [next, h];
  }
  return top;
}
