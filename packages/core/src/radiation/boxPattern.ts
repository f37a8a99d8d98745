import { fours, type ProductKernel } from '../numerics/product.ts';
import { condensing, nodesOf, termsOf } from './condense.ts';
import { currentOf, type FaceSamples, fieldOf } from './surface.ts';

/** A box about a centre, with half its sides. Metres. */
export interface Box {
  centre: [number, number, number];
  half: [number, number, number];
}

/** The box that holds all samples. */
export function boxAround(faces: readonly FaceSamples[]): Box {
  const [min, max] = [
    [Infinity, Infinity, Infinity],
    [-Infinity, -Infinity, -Infinity],
  ];
  const hold = (a: number, x: number): void => {
    min[a] = Math.min(min[a], x);
    max[a] = Math.max(max[a], x);
  };
  for (const f of faces) {
    hold(f.normal, f.at);
    f.axes.forEach((a, n) => f.coordinates[n].forEach((x) => hold(a, x)));
  }
  const each = (of: (a: number) => number): [number, number, number] => [of(0), of(1), of(2)];
  return { centre: each((a) => (min[a] + max[a]) / 2), half: each((a) => (max[a] - min[a]) / 2) };
}

/** Harmonics, an even number, of the field of sources within a radius (in units of 1/k): those of theta from pole to pole. */
export const harmonicsOf = (radius: number): number => 2 * Math.ceil(termsOf(radius) / 2);

/**
 * A face's samples drawn together at few places, folded about the middle of both its axes: rows of what is even along its second axis at each node, then of what
 * is odd, in each of them columns of the first axis in the same way.
 */
interface Drawn {
  face: FaceSamples;
  /** What its integrals add to. */
  current: ReturnType<typeof currentOf>;
  /** Pairs of nodes along its axes. */
  pairs: [number, number];
  /** Real and imaginary part. */
  parts: [Float64Array, Float64Array];
}

/** Matrices of places on each axis, which several faces share. */
type Known = Map<Float64Array, Map<Float64Array, ReturnType<typeof condensing>>>[];

function drawn(face: FaceSamples, { centre, half }: Box, nodes: readonly Float64Array[], known: Known, products: ProductKernel): Drawn {
  const [ma, mb] = ([0, 1] as const).map((n) => {
    const [x, w] = [face.coordinates[n], face.widths[n]];
    const a = face.axes[n];
    let byWidth = known[a].get(x);
    if (!byWidth) known[a].set(x, (byWidth = new Map()));
    let found = byWidth.get(w);
    if (!found) byWidth.set(w, (found = condensing(nodes[a], half[a], x.map((v) => v - centre[a]), w))); // prettier-ignore
    return found;
  });
  const [na, nb] = face.axes.map((a) => nodes[a].length);
  const [count, rows] = face.coordinates.map((x) => x.length);
  const line = new Float64Array(rows * 2 * na);
  const part = (samples: Float64Array): Float64Array => {
    products.multiply(samples, ma.columns, rows, count, 2 * na, line);
    const out = new Float64Array(4 * na * nb);
    products.multiply(mb.rows, line, 2 * nb, rows, 2 * na, out);
    return out;
  };
  return { face, current: currentOf(face), pairs: [na, nb], parts: [part(face.re), part(face.im)] };
}

/** cos and sin of k s x for nodes x and direction cosines s: rows of `width` for each node. */
function turns(k: number, x: Float64Array, s: Float64Array, width: number): { cos: Float64Array; sin: Float64Array } {
  const [cos, sin] = [new Float64Array(x.length * width), new Float64Array(x.length * width)];
  for (let i = 0; i < x.length; i++)
    for (let p = 0, at = i * width; p < s.length; p++, at++) {
      cos[at] = Math.cos(k * s[p] * x[i]);
      sin[at] = Math.sin(k * s[p] * x[i]);
    }
  return { cos, sin };
}
type Turns = ReturnType<typeof turns>;

/**
 * Sums of faces across one axis for the directions of a ring: for each face eight rows of `width`, re and im of what is even along both its axes, odd along the
 * first, odd along the second, odd along both.
 */
abstract class FaceSums {
  readonly sums: Float64Array;
  /** Rows that are summed along the first axis, even and odd parts: those of re, then those of im of each face. */
  protected readonly even: Float64Array;
  protected readonly odd: Float64Array;
  private readonly evenSums: Float64Array;
  private readonly oddSums: Float64Array;
  protected readonly na: number;
  protected readonly nb: number;

  constructor(
    readonly faces: readonly Drawn[],
    protected readonly rows: number,
    protected readonly width: number,
    protected readonly products: ProductKernel,
  ) {
    [this.na, this.nb] = faces[0].pairs;
    const all = faces.length * 2 * rows;
    this.even = new Float64Array(all * this.na);
    this.odd = new Float64Array(all * this.na);
    this.evenSums = new Float64Array(all * width);
    this.oddSums = new Float64Array(all * width);
    this.sums = new Float64Array(faces.length * 8 * width);
  }

  /** Sums all rows along the first axis, and what comes of them along the second by `along`, which is told where re or im of a face begins. */
  protected across(first: Turns, along: (of: Float64Array, row: number, even: number, odd: number) => void): void {
    const { na, width, rows } = this;
    const parts = this.faces.length * 2;
    this.products.multiply(this.even, first.cos, parts * rows, na, width, this.evenSums);
    this.products.multiply(this.odd, first.sin, parts * rows, na, width, this.oddSums);
    for (let n = 0; n < parts; n++) {
      const at = (8 * (n >> 1) + (n & 1)) * width;
      along(this.evenSums, n * rows * width, at, at + 4 * width);
      along(this.oddSums, n * rows * width, at + 2 * width, at + 6 * width);
    }
  }

  /** Rows of `count` columns twice, even and odd ones, put where they are summed from. */
  protected put(from: Float64Array, first: number, count: number, row: number): void {
    const { na } = this;
    for (let r = 0; r < count; r++) {
      const at = (first + r) * 2 * na;
      this.even.set(from.subarray(at, at + na), (row + r) * na);
      this.odd.set(from.subarray(at + na, at + 2 * na), (row + r) * na);
    }
  }

  /** All directions of the ring of number t: `first` are the turns along the first axis, `second` those along the second. */
  abstract ring(t: number, first: Turns, second: Turns): void;
}

/** Faces across z: all rows at all nodes. */
class AcrossZ extends FaceSums {
  constructor(faces: readonly Drawn[], width: number, products: ProductKernel) {
    super(faces, 2 * faces[0].pairs[1], width, products);
    faces.forEach(({ parts }, f) => parts.forEach((part, q) => this.put(part, 0, this.rows, (2 * f + q) * this.rows)));
  }

  ring(_t: number, first: Turns, { cos, sin }: Turns): void {
    const { sums, nb, width } = this;
    sums.fill(0);
    this.across(first, (of, row, even, odd) => {
      addProducts(sums, even, of, row, cos, nb * width, width);
      addProducts(sums, odd, of, row + nb * width, sin, nb * width, width);
    });
  }
}

/** Faces that hold z: along it nothing depends on phi, so that it is summed once for each ring. */
class AlongZ extends FaceSums {
  /** Rows of all rings of each part, what is even along z and what is odd. */
  private readonly lines: Float64Array[];

  /** `z` are turns along z: rows of rings, with columns of nodes. */
  constructor(faces: readonly Drawn[], z: Turns, rings: number, width: number, products: ProductKernel) {
    super(faces, 2, width, products);
    const { na, nb } = this;
    this.lines = faces.flatMap(({ parts }) =>
      parts.flatMap((part) =>
        [z.cos, z.sin].map((of, odd) => {
          const line = new Float64Array(rings * 2 * na);
          products.multiply(of, part.subarray(odd * nb * 2 * na), rings, nb, 2 * na, line);
          return line;
        }),
      ),
    );
  }

  ring(t: number, first: Turns): void {
    const { sums, width } = this;
    this.lines.forEach((line, n) => this.put(line, t, 1, n));
    this.across(first, (of, row, even, odd) => {
      sums.set(of.subarray(row, row + width), even);
      sums.set(of.subarray(row + width, row + 2 * width), odd);
    });
  }
}

/** Adds to a row of `width` the rows of `x` times those of `y`, place by place; `count` values in all. */
function addProducts(out: Float64Array, to: number, x: Float64Array, from: number, y: Float64Array, count: number, width: number): void {
  for (let at = 0; at < count; at += width) for (let p = 0; p < width; p++) out[to + p] += x[from + at + p] * y[at + p];
}

/** The eight directions that lie alike about the three axes, by the signs of their cosines: bit 0 for x, 1 for y, 2 for z. */
const octants = 8;

/**
 * The pattern of a box's faces about its centre, in `steps` (even) steps of theta from pole to pole and twice as many of phi. Sums of the four or eight directions
 * that lie alike about the axes have their even and odd parts in common; those of a ring are products of matrices.
 */
export function patternOnBox(faces: readonly FaceSamples[], box: Box, k: number, steps: number, products: ProductKernel): Float64Array {
  const nodes = box.half.map((h) => nodesOf(k, h));
  const known: Known = [new Map(), new Map(), new Map()];
  const all = faces.map((f) => drawn(f, box, nodes, known, products));
  const around = 2 * steps;
  const quarter = steps / 2 + 1;
  const width = fours(quarter);
  const rings = steps / 2 + 1;
  const thetas = Float64Array.from({ length: rings }, (_, t) => (t * Math.PI) / steps);
  // Rings as if they were nodes: rows of rings, columns of nodes.
  const z = turns(k, thetas.map(Math.cos), nodes[2], nodes[2].length);
  const groups = [0, 1, 2].flatMap((normal) => {
    const own = all.filter((f) => f.face.normal === normal);
    return !own.length ? [] : [normal === 2 ? new AcrossZ(own, width, products) : new AlongZ(own, z, rings, width, products)];
  });
  const cosines = [new Float64Array(quarter), new Float64Array(quarter)];
  const values = new Float64Array((steps + 1) * around * 4);
  const [n, l] = [new Float64Array(6 * octants), new Float64Array(6 * octants)];
  const parts = Array.from({ length: octants }, (_, o) => [n.subarray(6 * o, 6 * o + 6), l.subarray(6 * o, 6 * o + 6)] as const);
  for (let t = 0; t < rings; t++) {
    for (let p = 0; p < quarter; p++) {
      cosines[0][p] = Math.sin(thetas[t]) * Math.cos((p * Math.PI) / steps);
      cosines[1][p] = Math.sin(thetas[t]) * Math.sin((p * Math.PI) / steps);
    }
    const [x, y] = [0, 1].map((a) => turns(k, nodes[a], cosines[a], width));
    for (const g of groups) g.ring(t, g.faces[0].face.axes[0] ? y : x, y);
    for (let p = 0; p < quarter; p++) {
      n.fill(0);
      l.fill(0);
      for (const g of groups)
        for (let i = 0; i < g.faces.length; i++) {
          const { normal, at, magnetic } = g.faces[i].face;
          const s = normal === 2 ? Math.cos(thetas[t]) : cosines[normal][p];
          addTo(magnetic ? n : l, g.faces[i], g.sums, 8 * i * width + p, width, k * s * (at - box.centre[normal]));
        }
      for (let o = 0; o < octants; o++) {
        const row = o & 4 ? steps - t : t;
        const column = (o & 1 ? (o & 2 ? steps + p : steps - p) : o & 2 ? around - p : p) % around;
        fieldOf(parts[o][0], parts[o][1], k, (row * Math.PI) / steps, (column * Math.PI) / steps, values, (row * around + column) * 4);
      }
    }
  }
  return values;
}

/**
 * Adds a face's integral, put together from its parts (`width` apart from `at` on), to a radiation vector of all eight directions; `phase` is that of the face's
 * place for the first.
 */
function addTo(into: Float64Array, { face, current: { axis, sign } }: Drawn, sums: Float64Array, at: number, width: number, phase: number): void {
  const [a, b] = face.axes;
  const [c, s] = [sign * Math.cos(phase), sign * Math.sin(phase)];
  const [eer, eei, oer, oei] = [sums[at], sums[at + width], sums[at + 2 * width], sums[at + 3 * width]];
  const [eor, eoi, oor, ooi] = [sums[at + 4 * width], sums[at + 5 * width], sums[at + 6 * width], sums[at + 7 * width]];
  for (let o = 0, to = 2 * axis; o < octants; o++, to += 6) {
    const sa = o & (1 << a) ? -1 : 1,
      sb = o & (1 << b) ? -1 : 1,
      d = o & (1 << face.normal) ? -s : s;
    // exp(j(u + v)) = cos cos + j (sin cos + cos sin) - sin sin.
    const re = eer - sa * oei - sb * eoi - sa * sb * oor;
    const im = eei + sa * oer + sb * eor - sa * sb * ooi;
    into[to] += re * c - im * d;
    into[to + 1] += re * d + im * c;
  }
}

/** Products that the pattern of a box takes: its cells and half its sides (in units of 1/k) along each axis, directions asked for. */
export function patternCost(cells: readonly number[], half: readonly number[], nTheta: number, nPhi: number): number {
  const steps = Math.min(harmonicsOf(Math.hypot(...half)), 2 * nTheta);
  const nodes = half.map(termsOf);
  const drawn = [0, 1, 2].reduce((sum, normal) => {
    const [a, b] = [0, 1, 2].filter((x) => x !== normal);
    // Eight faces each of re and im, first along one axis, then along the other.
    return sum + 8 * 2 * nodes[a] * cells[b] * (cells[a] + nodes[b]);
  }, 0);
  const summed = 8 * (steps / 2 + 1) ** 2 * 2 * nodes[0] * nodes[1];
  return drawn + summed + 4 * steps * nTheta * (steps + nPhi);
}
