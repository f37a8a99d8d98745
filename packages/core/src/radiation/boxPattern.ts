import type { Axis } from '../numerics/axis.ts';
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
 * A face's samples drawn together at few places, folded about the middle of both its axes: [b][a] of eight numbers, re and im of what is even along both, odd
 * along a, odd along b, odd along both.
 */
interface Folded {
  face: FaceSamples;
  /** What its integrals add to. */
  current: ReturnType<typeof currentOf>;
  nodes: [Float64Array, Float64Array];
  data: Float64Array;
}

/** Matrices of places on each axis, which several faces share. */
type Known = Map<Float64Array, Map<Float64Array, ReturnType<typeof condensing>>>[];

function folded(face: FaceSamples, { centre, half }: Box, nodes: readonly Float64Array[], known: Known): Folded {
  const [ma, mb] = ([0, 1] as const).map((n) => {
    const [x, w] = [face.coordinates[n], face.widths[n]];
    const a = face.axes[n];
    let byWidth = known[a].get(x);
    if (!byWidth) known[a].set(x, (byWidth = new Map()));
    let found = byWidth.get(w);
    if (!found) byWidth.set(w, (found = condensing(nodes[a], half[a], x.map((v) => v - centre[a]), w))); // prettier-ignore
    return found;
  });
  const [na, nb] = [nodes[face.axes[0]], nodes[face.axes[1]]];
  const rows = face.coordinates[1].length;
  return { face, current: currentOf(face), nodes: [na, nb], data: ofColumns(mb, nb.length, ofRows(ma, na.length, face, rows), rows, na.length) };
}

/** Each row of samples drawn together: [row][n] of re and im of the even part, then of the odd one. */
function ofRows({ even, odd }: ReturnType<typeof condensing>, n: number, { re, im, coordinates }: FaceSamples, rows: number): Float64Array {
  const count = coordinates[0].length;
  const out = new Float64Array(rows * n * 4);
  for (let r = 0, at = 0; r < rows; r++)
    for (let p = 0; p < n; p++, at += 4) {
      let a = 0,
        b = 0,
        c = 0,
        d = 0;
      for (let i = 0, s = r * count, m = p * count; i < count; i++, s++, m++) {
        const x = re[s],
          y = im[s],
          e = even[m],
          o = odd[m];
        a += x * e;
        b += y * e;
        c += x * o;
        d += y * o;
      }
      out[at] = a;
      out[at + 1] = b;
      out[at + 2] = c;
      out[at + 3] = d;
    }
  return out;
}
/** Each column of such rows drawn together: [n][width] of eight. */
function ofColumns({ even, odd }: ReturnType<typeof condensing>, n: number, lines: Float64Array, rows: number, width: number): Float64Array {
  const out = new Float64Array(n * width * 8);
  for (let p = 0; p < n; p++)
    for (let r = 0; r < rows; r++) {
      const e = even[p * rows + r],
        o = odd[p * rows + r];
      for (let i = 0, a = r * width * 4, b = p * width * 8; i < width; i++, a += 4, b += 8) addBoth(out, b, e, o, lines, a);
    }
  return out;
}

/** Adds four numbers, times one factor and times another, to the eight from `to` on. */
function addBoth(out: Float64Array, to: number, e: number, o: number, lines: Float64Array, a: number): void {
  out[to] += e * lines[a];
  out[to + 1] += e * lines[a + 1];
  out[to + 2] += e * lines[a + 2];
  out[to + 3] += e * lines[a + 3];
  out[to + 4] += o * lines[a];
  out[to + 5] += o * lines[a + 1];
  out[to + 6] += o * lines[a + 2];
  out[to + 7] += o * lines[a + 3];
}

/** cos and sin of k s x at nodes x. */
function turns(k: number, s: number, x: Float64Array, c: Float64Array, d: Float64Array): void {
  for (let i = 0; i < x.length; i++) {
    c[i] = Math.cos(k * s * x[i]);
    d[i] = Math.sin(k * s * x[i]);
  }
}

/** The eight directions that lie alike about the three axes, by the signs of their cosines: bit 0 for x, 1 for y, 2 for z. */
const octants = 8;

/**
 * The pattern of a box's faces about its centre, in `steps` (even) steps of theta from pole to pole and twice as many of phi. Sums of the four or eight directions
 * that lie alike about the axes have their even and odd parts in common.
 */
export function patternOnBox(faces: readonly FaceSamples[], box: Box, k: number, steps: number): Float64Array {
  const nodes = box.half.map((h) => nodesOf(k, h));
  const known: Known = [new Map(), new Map(), new Map()];
  const all = faces.map((f) => folded(f, box, nodes, known));
  const around = 2 * steps;
  const values = new Float64Array((steps + 1) * around * 4);
  const cosines = nodes.map((x) => new Float64Array(x.length));
  const sines = nodes.map((x) => new Float64Array(x.length));
  const [n, l] = [new Float64Array(6 * octants), new Float64Array(6 * octants)];
  // Along z nothing depends on phi: faces that hold z are summed along it once for a ring.
  const rings = all.map((f) => (f.face.normal === 2 ? null : new Float64Array(8 * f.nodes[0].length)));
  const sums = new Float64Array(8);
  const s = [0, 0, 0];
  for (let t = 0; 2 * t <= steps; t++) {
    const theta = (t * Math.PI) / steps;
    s[2] = Math.cos(theta);
    turns(k, s[2], nodes[2], cosines[2], sines[2]);
    all.forEach((f, i) => rings[i] && alongZ(f, cosines[2], sines[2], rings[i]));
    for (let p = 0; 2 * p <= steps; p++) {
      const phi = (p * Math.PI) / steps;
      s[0] = Math.sin(theta) * Math.cos(phi);
      s[1] = Math.sin(theta) * Math.sin(phi);
      turns(k, s[0], nodes[0], cosines[0], sines[0]);
      turns(k, s[1], nodes[1], cosines[1], sines[1]);
      n.fill(0);
      l.fill(0);
      all.forEach((f, i) => {
        if (rings[i]) acrossRing(rings[i], cosines[f.face.axes[0]], sines[f.face.axes[0]], sums);
        else acrossFace(f, cosines, sines, sums);
        addTo(f.face.magnetic ? n : l, f, sums, k * s[f.face.normal] * (f.face.at - box.centre[f.face.normal]));
      });
      for (let o = 0; o < octants; o++) {
        const row = o & 4 ? steps - t : t;
        const column = (o & 1 ? (o & 2 ? steps + p : steps - p) : o & 2 ? around - p : p) % around;
        const field = fieldOf(n.subarray(6 * o, 6 * o + 6), l.subarray(6 * o, 6 * o + 6), k, (row * Math.PI) / steps, (column * Math.PI) / steps);
        values.set(field, (row * around + column) * 4);
      }
    }
  }
  return values;
}

/** Sums a face along z, its second axis, with the even or odd turns that belong to each part: eight numbers at each node of the first. */
function alongZ({ data, nodes: [na, nb] }: Folded, c: Float64Array, s: Float64Array, out: Float64Array): void {
  out.fill(0);
  for (let b = 0, at = 0; b < nb.length; b++)
    for (let a = 0; a < 8 * na.length; a += 8, at += 8)
      for (let q = 0; q < 4; q++) {
        out[a + q] += c[b] * data[at + q];
        out[a + 4 + q] += s[b] * data[at + 4 + q];
      }
}

/** Sums the rest, along the first axis: re and im of each part. */
function acrossRing(line: Float64Array, c: Float64Array, s: Float64Array, sums: Float64Array): void {
  sums.fill(0);
  for (let a = 0, at = 0; a < c.length; a++, at += 8) addRow(line, at, c[a], s[a], sums);
}
function addRow(data: Float64Array, at: number, x: number, y: number, sums: Float64Array): void {
  sums[0] += x * data[at];
  sums[1] += x * data[at + 1];
  sums[2] += y * data[at + 2];
  sums[3] += y * data[at + 3];
  sums[4] += x * data[at + 4];
  sums[5] += x * data[at + 5];
  sums[6] += y * data[at + 6];
  sums[7] += y * data[at + 7];
}

/** Sums a face across z along both its axes. */
function acrossFace({ data, nodes: [na, nb] }: Folded, cosines: Float64Array[], sines: Float64Array[], sums: Float64Array): void {
  sums.fill(0);
  const [cx, sx] = [cosines[0], sines[0]];
  for (let b = 0, at = 0; b < nb.length; b++) {
    let p = 0,
      q = 0,
      r = 0,
      s = 0,
      t = 0,
      u = 0,
      v = 0,
      w = 0;
    for (let a = 0; a < na.length; a++, at += 8) {
      const x = cx[a],
        y = sx[a];
      p += x * data[at];
      q += x * data[at + 1];
      r += y * data[at + 2];
      s += y * data[at + 3];
      t += x * data[at + 4];
      u += x * data[at + 5];
      v += y * data[at + 6];
      w += y * data[at + 7];
    }
    const [c, d] = [cosines[1][b], sines[1][b]];
    sums[0] += c * p;
    sums[1] += c * q;
    sums[2] += c * r;
    sums[3] += c * s;
    sums[4] += d * t;
    sums[5] += d * u;
    sums[6] += d * v;
    sums[7] += d * w;
  }
}

/** Adds a face's integral, put together from its parts, to a radiation vector of all eight directions; `phase` is that of the face's place for the first. */
function addTo(into: Float64Array, { face, current: { axis, sign } }: Folded, sums: Float64Array, phase: number): void {
  const [a, b] = face.axes;
  const [c, s] = [Math.cos(phase), Math.sin(phase)];
  const bit = (o: number, x: Axis): number => (o & (1 << x) ? -1 : 1);
  for (let o = 0; o < octants; o++) {
    const [sa, sb, sn] = [bit(o, a), bit(o, b), bit(o, face.normal)];
    // exp(j(u + v)) = cos cos + j (sin cos + cos sin) - sin sin.
    const re = sums[0] - sa * sums[3] - sb * sums[5] - sa * sb * sums[6];
    const im = sums[1] + sa * sums[2] + sb * sums[4] - sa * sb * sums[7];
    into[6 * o + 2 * axis] += sign * (re * c - im * sn * s);
    into[6 * o + 2 * axis + 1] += sign * (re * sn * s + im * c);
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
