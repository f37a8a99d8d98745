import { both, column, splat } from './inline';
import { barrier } from './barrier';
import {
  WIRE_END_BASIS,
  WIRE_END_SIGN,
  WIRE_END_SIZE,
  WIRE_FILL_BASES,
  WIRE_FILL_COUNT,
  WIRE_FILL_ENDS,
  WIRE_FILL_END_FIRST,
  WIRE_FILL_FIRST_SOURCE,
  WIRE_FILL_HALF,
  WIRE_FILL_HALF_FIRST,
  WIRE_FILL_HALVES,
  WIRE_FILL_IMAGES,
  WIRE_FILL_IMAGE_FIRST,
  WIRE_FILL_IMAGE_LIST,
  WIRE_FILL_K,
  WIRE_FILL_MATRIX,
  WIRE_FILL_NEAR_FIRST,
  WIRE_FILL_NEAR_LIST,
  WIRE_FILL_SCALAR,
  WIRE_FILL_SCRATCH,
  WIRE_FILL_SEGMENTS,
  WIRE_FILL_VECTOR,
  WIRE_FILL_WIDTH,
  WIRE_HALF_END,
  WIRE_HALF_SEGMENT,
  WIRE_HALF_SIGN,
  WIRE_HALF_SIZE,
  WIRE_NEAR_RHO2,
  WIRE_NEAR_SIZE,
  WIRE_NEAR_SOURCE,
  WIRE_NEAR_T00,
  WIRE_NEAR_T01,
  WIRE_NEAR_T10,
  WIRE_NEAR_T11,
  WIRE_SEGMENT_LENGTH,
  WIRE_SEGMENT_SIZE,
  WIRE_SEGMENT_UX,
  WIRE_SEGMENT_UY,
  WIRE_SEGMENT_UZ,
  WIRE_SEGMENT_X,
  WIRE_SEGMENT_Y,
  WIRE_SEGMENT_Z,
  WIRE_SUMS_S,
  WIRE_SUMS_SIZE,
  WIRE_SUMS_S_IM,
  WIRE_SUMS_V00,
  WIRE_SUMS_V00_IM,
  WIRE_SUMS_V01,
  WIRE_SUMS_V01_IM,
  WIRE_SUMS_V10,
  WIRE_SUMS_V10_IM,
  WIRE_SUMS_V11,
  WIRE_SUMS_V11_IM,
} from './layout';

/**
 * Thin wires by the mixed-potential integral equation: interactions of straight segments and the dense complex system they make.
 * See src/solvers/moment/system.ts for what is computed.
 *
 * The matrix is row-major; a row holds pairs of columns as re, re, im, im, so that two columns share two registers without a shuffle.
 */

/** Quadrature points of Gauss and Legendre on (0, 1), then their weights; 2 and 4 of them. */
const gauss2 = memory.data<f64>([0.21132486540518713, 0.7886751345948129, 0.5, 0.5], 16);
const gauss4 = memory.data<f64>(
  [
    0.06943184420297371, 0.33000947820757187, 0.6699905217924281, 0.9305681557970262, 0.17392742256872693, 0.32607257743127307, 0.32607257743127307,
    0.17392742256872693,
  ],
  16,
);

/**
 * Integrals over two segments of their linear shape functions times exp(-jkR)/R, or (exp(-jkR) - 1)/R where `near`. R is that between
 * their axes, with `rho2` added to its square. Cosine and sine by their series after reduction to an eighth of a turn.
 */
function pair(from: usize, to: usize, k: f64, rho2: f64, near: bool, rule: usize, count: i32): void {
  const ox = load<f64>(from, WIRE_SEGMENT_X),
    oy = load<f64>(from, WIRE_SEGMENT_Y),
    oz = load<f64>(from, WIRE_SEGMENT_Z);
  const ux = load<f64>(from, WIRE_SEGMENT_UX),
    uy = load<f64>(from, WIRE_SEGMENT_UY),
    uz = load<f64>(from, WIRE_SEGMENT_UZ),
    lo = load<f64>(from, WIRE_SEGMENT_LENGTH);
  const sx = load<f64>(to, WIRE_SEGMENT_X),
    sy = load<f64>(to, WIRE_SEGMENT_Y),
    sz = load<f64>(to, WIRE_SEGMENT_Z);
  const dx = load<f64>(to, WIRE_SEGMENT_UX),
    dy = load<f64>(to, WIRE_SEGMENT_UY),
    dz = load<f64>(to, WIRE_SEGMENT_UZ),
    ls = load<f64>(to, WIRE_SEGMENT_LENGTH);
  const weights = rule + ((<usize>count) << 3);
  const one = splat(1),
    least = splat(max(rho2, 1e-30));
  let r00 = splat(0),
    r01 = r00,
    r10 = r00,
    r11 = r00,
    i00 = r00,
    i01 = r00,
    i10 = r00,
    i11 = r00;
  for (let p = 0; p < count; p++) {
    const t = load<f64>(rule + ((<usize>p) << 3)),
      w = load<f64>(weights + ((<usize>p) << 3));
    const at = lo * t;
    const wx = ox + ux * at - sx,
      wy = oy + uy * at - sy,
      wz = oz + uz * at - sz;
    const square = splat(wx * wx + wy * wy + wz * wz + rho2),
      along = splat(2 * (wx * dx + wy * dy + wz * dz));
    let a0 = splat(0),
      a1 = a0,
      b0 = a0,
      b1 = a0;
    for (let q = 0; q < count; q += 2) {
      const s = v128.load(rule + ((<usize>q) << 3)),
        v = v128.load(weights + ((<usize>q) << 3));
      const l = f64x2.mul(s, splat(ls));
      // Where two points fall together rounding must not make the square negative.
      const r = f64x2.sqrt(f64x2.max(least, f64x2.add(square, f64x2.mul(l, f64x2.sub(l, along)))));
      // kR less whole quarter turns, in two parts so that nothing is lost.
      const x = f64x2.mul(r, splat(k));
      const n = f64x2.nearest(f64x2.mul(x, splat(0.6366197723675814)));
      const y = f64x2.sub(f64x2.sub(x, f64x2.mul(n, splat(1.5707963267948966))), f64x2.mul(n, splat(6.123233995736766e-17)));
      const z = f64x2.mul(y, y);
      let sine = f64x2.add(splat(-1 / 1307674368000.0), f64x2.mul(z, splat(1 / 355687428096000.0)));
      sine = f64x2.add(splat(1 / 6227020800.0), f64x2.mul(z, sine));
      sine = f64x2.add(splat(-1 / 39916800.0), f64x2.mul(z, sine));
      sine = f64x2.add(splat(1 / 362880.0), f64x2.mul(z, sine));
      sine = f64x2.add(splat(-1 / 5040.0), f64x2.mul(z, sine));
      sine = f64x2.add(splat(1 / 120.0), f64x2.mul(z, sine));
      sine = f64x2.add(splat(-1 / 6.0), f64x2.mul(z, sine));
      sine = f64x2.add(y, f64x2.mul(f64x2.mul(y, z), sine));
      let cosine = f64x2.add(splat(-1 / 87178291200.0), f64x2.mul(z, splat(1 / 20922789888000.0)));
      cosine = f64x2.add(splat(1 / 479001600.0), f64x2.mul(z, cosine));
      cosine = f64x2.add(splat(-1 / 3628800.0), f64x2.mul(z, cosine));
      cosine = f64x2.add(splat(1 / 40320.0), f64x2.mul(z, cosine));
      cosine = f64x2.add(splat(-1 / 720.0), f64x2.mul(z, cosine));
      cosine = f64x2.add(splat(1 / 24.0), f64x2.mul(z, cosine));
      cosine = f64x2.add(splat(-0.5), f64x2.mul(z, cosine));
      cosine = f64x2.add(one, f64x2.mul(z, cosine));
      // Quarter turns: odd ones exchange sine and cosine; sine changes its sign in the upper half, cosine in quarters 1 and 2.
      const turns = f64x2.sub(n, f64x2.mul(splat(4), f64x2.floor(f64x2.mul(n, splat(0.25)))));
      const odd = v128.or(f64x2.eq(turns, one), f64x2.eq(turns, splat(3)));
      const s1 = v128.bitselect(cosine, sine, odd),
        c1 = v128.bitselect(sine, cosine, odd);
      const sinx = v128.bitselect(f64x2.neg(s1), s1, f64x2.ge(turns, splat(2)));
      let cosx = v128.bitselect(f64x2.neg(c1), c1, v128.or(f64x2.eq(turns, one), f64x2.eq(turns, splat(2))));
      if (near) cosx = f64x2.sub(cosx, one);
      const g = f64x2.div(v, r);
      const re = f64x2.mul(g, cosx),
        im = f64x2.mul(g, sinx),
        rest = f64x2.sub(one, s);
      a0 = f64x2.add(a0, f64x2.mul(re, rest));
      a1 = f64x2.add(a1, f64x2.mul(re, s));
      b0 = f64x2.sub(b0, f64x2.mul(im, rest));
      b1 = f64x2.sub(b1, f64x2.mul(im, s));
    }
    const w0 = splat(w * (1 - t)),
      w1 = splat(w * t);
    r00 = f64x2.add(r00, f64x2.mul(w0, a0));
    r01 = f64x2.add(r01, f64x2.mul(w0, a1));
    r10 = f64x2.add(r10, f64x2.mul(w1, a0));
    r11 = f64x2.add(r11, f64x2.mul(w1, a1));
    i00 = f64x2.add(i00, f64x2.mul(w0, b0));
    i01 = f64x2.add(i01, f64x2.mul(w0, b1));
    i10 = f64x2.add(i10, f64x2.mul(w1, b0));
    i11 = f64x2.add(i11, f64x2.mul(w1, b1));
  }
  const scale = lo * ls;
  out0 = scale * both(r00);
  out1 = scale * both(i00);
  out2 = scale * both(r01);
  out3 = scale * both(i01);
  out4 = scale * both(r10);
  out5 = scale * both(i10);
  out6 = scale * both(r11);
  out7 = scale * both(i11);
}
/** What `pair` leaves: re and im of the products start-start, start-end, end-start, end-end. Globals belong to each thread's own instance. */
let out0: f64 = 0,
  out1: f64 = 0,
  out2: f64 = 0,
  out3: f64 = 0,
  out4: f64 = 0,
  out5: f64 = 0,
  out6: f64 = 0,
  out7: f64 = 0;

/** Distance of the middles over the longer of two segments from which on two points each are enough. */
const FAR: f64 = 4;

/**
 * Adds the interactions of segment i with one set of sources to `row`: 10 doubles a source, the four products times the cosine between the currents, and
 * their plain sum. In an image currents along the ground and charges change their sign. `near` lists by segment: first entry of each, then
 * entries of 48 bytes: i32 source, i32 pad, f64 rho2, four static integrals.
 */
function addSources(
  row: usize,
  segments: usize,
  i: i32,
  sources: usize,
  begin: i32,
  count: i32,
  k: f64,
  nearFirst: usize,
  nearList: usize,
  image: bool,
): void {
  const from = segments + <usize>i * WIRE_SEGMENT_SIZE;
  const lo = load<f64>(from, WIRE_SEGMENT_LENGTH),
    ux = load<f64>(from, WIRE_SEGMENT_UX),
    uy = load<f64>(from, WIRE_SEGMENT_UY),
    uz = load<f64>(from, WIRE_SEGMENT_UZ);
  const mx = load<f64>(from, WIRE_SEGMENT_X) + 0.5 * lo * ux,
    my = load<f64>(from, WIRE_SEGMENT_Y) + 0.5 * lo * uy,
    mz = load<f64>(from, WIRE_SEGMENT_Z) + 0.5 * lo * uz;
  let entry = nearList + <usize>load<i32>(nearFirst + ((<usize>i) << 2)) * WIRE_NEAR_SIZE;
  const last = nearList + <usize>load<i32>(nearFirst + ((<usize>i) << 2), 4) * WIRE_NEAR_SIZE;
  const sign: f64 = image ? -1 : 1;
  while (entry < last && load<i32>(entry, WIRE_NEAR_SOURCE) < begin) entry += WIRE_NEAR_SIZE;
  row += <usize>begin * WIRE_SUMS_SIZE;
  for (let j = begin; j < count; j++, row += WIRE_SUMS_SIZE) {
    const to = sources + <usize>j * WIRE_SEGMENT_SIZE;
    const ls = load<f64>(to, WIRE_SEGMENT_LENGTH),
      dx = load<f64>(to, WIRE_SEGMENT_UX),
      dy = load<f64>(to, WIRE_SEGMENT_UY),
      dz = load<f64>(to, WIRE_SEGMENT_UZ);
    const cosine = sign * (ux * dx + uy * dy + uz * dz);
    if (entry < last && load<i32>(entry, WIRE_NEAR_SOURCE) == j) {
      pair(from, to, k, load<f64>(entry, WIRE_NEAR_RHO2), true, gauss4, 4);
      out0 += load<f64>(entry, WIRE_NEAR_T00);
      out2 += load<f64>(entry, WIRE_NEAR_T01);
      out4 += load<f64>(entry, WIRE_NEAR_T10);
      out6 += load<f64>(entry, WIRE_NEAR_T11);
      entry += WIRE_NEAR_SIZE;
    } else {
      const x = load<f64>(to, WIRE_SEGMENT_X) + 0.5 * ls * dx - mx,
        y = load<f64>(to, WIRE_SEGMENT_Y) + 0.5 * ls * dy - my,
        z = load<f64>(to, WIRE_SEGMENT_Z) + 0.5 * ls * dz - mz;
      const size = FAR * max(lo, ls);
      if (x * x + y * y + z * z > size * size) pair(from, to, k, 0, false, gauss2, 2);
      else pair(from, to, k, 0, false, gauss4, 4);
    }
    store<f64>(row, load<f64>(row, WIRE_SUMS_V00) + cosine * out0, WIRE_SUMS_V00);
    store<f64>(row, load<f64>(row, WIRE_SUMS_V00_IM) + cosine * out1, WIRE_SUMS_V00_IM);
    store<f64>(row, load<f64>(row, WIRE_SUMS_V01) + cosine * out2, WIRE_SUMS_V01);
    store<f64>(row, load<f64>(row, WIRE_SUMS_V01_IM) + cosine * out3, WIRE_SUMS_V01_IM);
    store<f64>(row, load<f64>(row, WIRE_SUMS_V10) + cosine * out4, WIRE_SUMS_V10);
    store<f64>(row, load<f64>(row, WIRE_SUMS_V10_IM) + cosine * out5, WIRE_SUMS_V10_IM);
    store<f64>(row, load<f64>(row, WIRE_SUMS_V11) + cosine * out6, WIRE_SUMS_V11);
    store<f64>(row, load<f64>(row, WIRE_SUMS_V11_IM) + cosine * out7, WIRE_SUMS_V11_IM);
    store<f64>(row, load<f64>(row, WIRE_SUMS_S) + sign * (out0 + out2 + out4 + out6), WIRE_SUMS_S);
    store<f64>(row, load<f64>(row, WIRE_SUMS_S_IM) + sign * (out1 + out3 + out5 + out7), WIRE_SUMS_S_IM);
  }
}

/** Fills this thread's rows of the matrix, as the table wireFill at `p` tells. */
export function momentFill(p: usize, thread: i32, threads: i32): void {
  const k = load<f64>(p, WIRE_FILL_K),
    vector = load<f64>(p, WIRE_FILL_VECTOR),
    scalar = load<f64>(p, WIRE_FILL_SCALAR);
  const bases = load<i32>(p, WIRE_FILL_BASES),
    width = <usize>load<u32>(p, WIRE_FILL_WIDTH),
    matrix = <usize>load<u32>(p, WIRE_FILL_MATRIX);
  const segments = <usize>load<u32>(p, WIRE_FILL_SEGMENTS),
    count = load<i32>(p, WIRE_FILL_COUNT),
    images = <usize>load<u32>(p, WIRE_FILL_IMAGES);
  const nearFirst = <usize>load<u32>(p, WIRE_FILL_NEAR_FIRST),
    nearList = <usize>load<u32>(p, WIRE_FILL_NEAR_LIST);
  const imageFirst = <usize>load<u32>(p, WIRE_FILL_IMAGE_FIRST),
    imageList = <usize>load<u32>(p, WIRE_FILL_IMAGE_LIST);
  const halfFirst = <usize>load<u32>(p, WIRE_FILL_HALF_FIRST),
    halves = <usize>load<u32>(p, WIRE_FILL_HALVES);
  const endFirst = <usize>load<u32>(p, WIRE_FILL_END_FIRST),
    ends = <usize>load<u32>(p, WIRE_FILL_ENDS);
  const scratch = <usize>load<u32>(p, WIRE_FILL_SCRATCH) + <usize>thread * <usize>count * WIRE_SUMS_SIZE;
  const firstSource = <usize>load<u32>(p, WIRE_FILL_FIRST_SOURCE),
    half = load<i32>(p, WIRE_FILL_HALF) != 0;
  const from = share(bases, thread, threads, half),
    until = share(bases, thread + 1, threads, half);
  let known = -1;
  for (let m = from; m < until; m++) {
    const row = matrix + <usize>m * width;
    memory.fill(row, 0, width);
    const begin = half ? load<i32>(firstSource + ((<usize>m) << 2)) : 0;
    for (let h = load<i32>(halfFirst + ((<usize>m) << 2)), past = load<i32>(halfFirst + ((<usize>m) << 2), 4); h < past; h++) {
      const arm = halves + <usize>h * WIRE_HALF_SIZE;
      const i = load<i32>(arm, WIRE_HALF_SEGMENT),
        a = load<i32>(arm, WIRE_HALF_END),
        sign = load<f64>(arm, WIRE_HALF_SIGN);
      if (i != known) {
        memory.fill(scratch + <usize>begin * WIRE_SUMS_SIZE, 0, <usize>(count - begin) * WIRE_SUMS_SIZE);
        addSources(scratch, segments, i, segments, begin, count, k, nearFirst, nearList, false);
        if (images) addSources(scratch, segments, i, images, begin, count, k, imageFirst, imageList, true);
        known = i;
      }
      const slope = (a ? scalar : -scalar) / load<f64>(segments + <usize>i * WIRE_SEGMENT_SIZE, WIRE_SEGMENT_LENGTH);
      let values = scratch + <usize>begin * WIRE_SUMS_SIZE;
      for (let j = begin; j < count; j++, values += WIRE_SUMS_SIZE) {
        const steep = slope / load<f64>(segments + <usize>j * WIRE_SEGMENT_SIZE, WIRE_SEGMENT_LENGTH);
        for (let b = 0; b < 2; b++) {
          let e = load<i32>(endFirst + ((<usize>(2 * j + b)) << 2));
          const stop = load<i32>(endFirst + ((<usize>(2 * j + b)) << 2), 4);
          if (e == stop) continue;
          const g = values + ((<usize>(2 * a + b)) << 4);
          const q = b ? steep : -steep;
          // j vector G - j scalar S.
          const re = sign * (q * load<f64>(values, WIRE_SUMS_S_IM) - vector * load<f64>(g, 8));
          const im = sign * (vector * load<f64>(g) - q * load<f64>(values, WIRE_SUMS_S));
          for (; e < stop; e++) {
            const end = ends + <usize>e * WIRE_END_SIZE;
            const c = load<i32>(end, WIRE_END_BASIS);
            if (half && c < m) continue;
            const at = column(row, c);
            const s = load<f64>(end, WIRE_END_SIGN);
            store<f64>(at, load<f64>(at) + s * re);
            store<f64>(at, load<f64>(at, 16) + s * im, 16);
          }
        }
      }
    }
  }
}

/** Rows before those of a thread: alike in number, or, where only the upper half is filled, alike in area. */
function share(rows: i32, thread: i32, threads: i32, half: bool): i32 {
  const part = <f64>thread / <f64>threads;
  return thread == threads ? rows : <i32>(<f64>rows * (half ? 1 - Math.sqrt(1 - part) : part));
}

/** Columns that are eliminated at once, and columns of a strip that is updated at once; both even. */
const PANEL: i32 = 32;
const STRIP: i32 = 32;

/** Eliminates within columns k to k + width of all rows from k on, with row exchange within those columns only. */
function panel(matrix: usize, stride: usize, n: i32, k: i32, width: i32, pivots: usize): void {
  const stop = k + width;
  for (let c = k; c < stop; c++) {
    let best = c;
    let most: f64 = -1;
    for (let r = c; r < n; r++) {
      const at = column(matrix + <usize>r * stride, c);
      const x = load<f64>(at),
        y = load<f64>(at, 16),
        s = x * x + y * y;
      if (s > most) {
        most = s;
        best = r;
      }
    }
    store<i32>(pivots + ((<usize>c) << 2), best);
    const top = matrix + <usize>c * stride;
    if (best != c) exchange(top, matrix + <usize>best * stride, k, stop);
    const d = column(top, c);
    const x = load<f64>(d),
      y = load<f64>(d, 16),
      s = 1 / (x * x + y * y);
    const dr = x * s,
      di = -y * s;
    for (let r = c + 1; r < n; r++) {
      const line = matrix + <usize>r * stride;
      const at = column(line, c);
      const a = load<f64>(at),
        b = load<f64>(at, 16);
      const lr = a * dr - b * di,
        li = a * di + b * dr;
      store<f64>(at, lr);
      store<f64>(at, li, 16);
      // The other column of this pair, where it lies to the right.
      if (!(c & 1) && c + 1 < stop) {
        const u = load<f64>(column(top, c + 1)),
          v = load<f64>(column(top, c + 1), 16),
          to = column(line, c + 1);
        store<f64>(to, load<f64>(to) - lr * u + li * v);
        store<f64>(to, load<f64>(to, 16) - lr * v - li * u, 16);
      }
      const vr = splat(lr),
        vi = splat(li);
      for (let j = (c + 2) & ~1; j < stop; j += 2) {
        const u = column(top, j),
          to = column(line, j);
        const ur = v128.load(u),
          ui = v128.load(u, 16);
        v128.store(to, f64x2.add(f64x2.sub(v128.load(to), f64x2.mul(vr, ur)), f64x2.mul(vi, ui)));
        v128.store(to, f64x2.sub(f64x2.sub(v128.load(to, 16), f64x2.mul(vr, ui)), f64x2.mul(vi, ur)), 16);
      }
    }
  }
}

/** Exchanges two rows between columns `from` (even) and `until`. */
function exchange(a: usize, b: usize, from: i32, until: i32): void {
  for (let at = (<usize>(from >> 1)) << 5, end = (<usize>((until + 1) >> 1)) << 5; at < end; at += 16) {
    const x = v128.load(a + at);
    v128.store(a + at, v128.load(b + at));
    v128.store(b + at, x);
  }
}

/**
 * Rows `from` to `to` of a strip less the product of a left factor, whose row r begins at `left` + r times `leftStride`, with rows packed in `packed`:
 * [s][pair of columns][re, re, im, im].
 */
function update(
  matrix: usize,
  stride: usize,
  from: i32,
  to: i32,
  left: usize,
  leftStride: usize,
  depth: i32,
  column0: i32,
  pairs: i32,
  packed: usize,
): void {
  const line = (<usize>pairs) << 5;
  let r = from;
  for (; r + 2 <= to; r += 2) {
    const row0 = matrix + <usize>r * stride;
    const left0 = left + <usize>r * leftStride,
      left1 = left0 + leftStride;
    const to0 = row0 + ((<usize>(column0 >> 1)) << 5),
      to1 = to0 + stride;
    let c = 0;
    for (; c + 2 <= pairs; c += 2) {
      const o = (<usize>c) << 5;
      let a0 = v128.load(to0 + o),
        b0 = v128.load(to0 + o, 16),
        c0 = v128.load(to0 + o, 32),
        d0 = v128.load(to0 + o, 48);
      let a1 = v128.load(to1 + o),
        b1 = v128.load(to1 + o, 16),
        c1 = v128.load(to1 + o, 32),
        d1 = v128.load(to1 + o, 48);
      let q = packed + o;
      for (let s = 0; s < depth; s++, q += line) {
        const at = ((<usize>(s >> 1)) << 5) + ((<usize>(s & 1)) << 3);
        const ur = v128.load(q),
          ui = v128.load(q, 16),
          wr = v128.load(q, 32),
          wi = v128.load(q, 48);
        let lr = v128.load64_splat(left0 + at),
          li = v128.load64_splat(left0 + at, 16);
        a0 = f64x2.add(f64x2.sub(a0, f64x2.mul(lr, ur)), f64x2.mul(li, ui));
        b0 = f64x2.sub(f64x2.sub(b0, f64x2.mul(lr, ui)), f64x2.mul(li, ur));
        c0 = f64x2.add(f64x2.sub(c0, f64x2.mul(lr, wr)), f64x2.mul(li, wi));
        d0 = f64x2.sub(f64x2.sub(d0, f64x2.mul(lr, wi)), f64x2.mul(li, wr));
        lr = v128.load64_splat(left1 + at);
        li = v128.load64_splat(left1 + at, 16);
        a1 = f64x2.add(f64x2.sub(a1, f64x2.mul(lr, ur)), f64x2.mul(li, ui));
        b1 = f64x2.sub(f64x2.sub(b1, f64x2.mul(lr, ui)), f64x2.mul(li, ur));
        c1 = f64x2.add(f64x2.sub(c1, f64x2.mul(lr, wr)), f64x2.mul(li, wi));
        d1 = f64x2.sub(f64x2.sub(d1, f64x2.mul(lr, wi)), f64x2.mul(li, wr));
      }
      v128.store(to0 + o, a0);
      v128.store(to0 + o, b0, 16);
      v128.store(to0 + o, c0, 32);
      v128.store(to0 + o, d0, 48);
      v128.store(to1 + o, a1);
      v128.store(to1 + o, b1, 16);
      v128.store(to1 + o, c1, 32);
      v128.store(to1 + o, d1, 48);
    }
    for (; c < pairs; c++) {
      onePair(to0 + ((<usize>c) << 5), left0, packed + ((<usize>c) << 5), line, depth);
      onePair(to1 + ((<usize>c) << 5), left1, packed + ((<usize>c) << 5), line, depth);
    }
  }
  for (; r < to; r++) {
    const target = matrix + <usize>r * stride + ((<usize>(column0 >> 1)) << 5);
    for (let c = 0; c < pairs; c++) onePair(target + ((<usize>c) << 5), left + <usize>r * leftStride, packed + ((<usize>c) << 5), line, depth);
  }
}

/** One pair of columns of one row less a product. */
function onePair(to: usize, left: usize, packed: usize, line: usize, depth: i32): void {
  let a = v128.load(to),
    b = v128.load(to, 16);
  for (let s = 0; s < depth; s++, packed += line) {
    const at = left + ((<usize>(s >> 1)) << 5) + ((<usize>(s & 1)) << 3);
    const lr = v128.load64_splat(at),
      li = v128.load64_splat(at, 16),
      ur = v128.load(packed),
      ui = v128.load(packed, 16);
    a = f64x2.add(f64x2.sub(a, f64x2.mul(lr, ur)), f64x2.mul(li, ui));
    b = f64x2.sub(f64x2.sub(b, f64x2.mul(lr, ui)), f64x2.mul(li, ur));
  }
  v128.store(to, a);
  v128.store(to, b, 16);
}

/**
 * Factors the matrix in place into L (unit diagonal) and U with exchange of rows, all threads together: one eliminates a panel, then each
 * brings its own strips of columns up to date. `pivots` gets the row that was exchanged with each. `packed` has room for PANEL x STRIP values for each thread.
 */
export function momentFactor(matrix: usize, stride: usize, n: i32, pivots: usize, packed: usize, meet: usize, thread: i32, threads: i32): void {
  const own = packed + <usize>thread * <usize>(PANEL * STRIP) * 16;
  const columns = (n + 1) & ~1;
  for (let k = 0; k < n; k += PANEL) {
    const depth = min(PANEL, n - k);
    if (thread == 0) panel(matrix, stride, n, k, depth, pivots);
    barrier(meet, threads);
    // Strips left of the panel only have rows exchanged; those to the right are solved and updated.
    let strip = 0;
    for (let c0 = 0; c0 < columns; c0 += STRIP, strip++) {
      if (strip % threads != thread) continue;
      if (c0 == k) continue;
      const until = min(c0 + STRIP, columns);
      for (let r = k; r < k + depth; r++) {
        const other = load<i32>(pivots + ((<usize>r) << 2));
        if (other != r) exchange(matrix + <usize>r * stride, matrix + <usize>other * stride, c0, until);
      }
      if (c0 < k) continue;
      const pairs = (until - c0 + 1) >> 1,
        line = (<usize>pairs) << 5;
      for (let r = 0; r < depth; r++) {
        const row = matrix + <usize>(k + r) * stride;
        const to = row + ((<usize>(c0 >> 1)) << 5);
        for (let c = 0; c < pairs; c++) onePair(to + ((<usize>c) << 5), row + ((<usize>(k >> 1)) << 5), own + ((<usize>c) << 5), line, r);
        memory.copy(own + <usize>r * line, to, line);
      }
      update(matrix, stride, k + depth, n, matrix + ((<usize>(k >> 1)) << 5), stride, depth, c0, pairs, own);
    }
    barrier(meet, threads);
  }
}

/** Bytes of a row of left factors of a panel. */
const LEFT: usize = <usize>PANEL * 16;

/** Eliminates the upper half of a block on the diagonal, and writes the factors of its rows to `block`. */
function diagonal(matrix: usize, stride: usize, k: i32, depth: i32, block: usize): void {
  const stop = k + depth;
  for (let c = k; c < stop; c++) {
    const top = matrix + <usize>c * stride;
    const d = column(top, c);
    const x = load<f64>(d),
      y = load<f64>(d, 16),
      s = 1 / (x * x + y * y);
    const dr = x * s,
      di = -y * s;
    for (let r = c + 1; r < stop; r++) {
      const u = column(top, r);
      const a = load<f64>(u),
        b = load<f64>(u, 16);
      const lr = a * dr - b * di,
        li = a * di + b * dr;
      const to = column(block + <usize>(r - k) * LEFT, c - k);
      store<f64>(to, lr);
      store<f64>(to, li, 16);
      const line = matrix + <usize>r * stride;
      for (let j = r; j < stop; j++) {
        const v = column(top, j),
          w = column(line, j);
        const p = load<f64>(v),
          q = load<f64>(v, 16);
        store<f64>(w, load<f64>(w) - lr * p + li * q);
        store<f64>(w, load<f64>(w, 16) - lr * q - li * p, 16);
      }
    }
  }
}

/**
 * Factors a symmetric matrix, of which the upper half is given, in place into U with A = U^T D^-1 U, D the diagonal of U: half the work of L and U, and no
 * exchange of rows. `left` has room for n rows of factors and PANEL more, `packed` for PANEL x STRIP values for each thread.
 */
export function momentFactorSymmetric(
  matrix: usize,
  stride: usize,
  n: i32,
  left: usize,
  packed: usize,
  meet: usize,
  thread: i32,
  threads: i32,
): void {
  const own = packed + <usize>thread * <usize>(PANEL * STRIP) * 16;
  const block = left + <usize>n * LEFT;
  const columns = (n + 1) & ~1;
  for (let k = 0; k < n; k += PANEL) {
    const depth = min(PANEL, n - k);
    if (thread == 0) diagonal(matrix, stride, k, depth, block);
    barrier(meet, threads);
    let strip = 0;
    for (let c0 = 0; c0 < columns; c0 += STRIP, strip++) {
      if (c0 <= k || strip % threads != thread) continue;
      const until = min(c0 + STRIP, columns);
      const pairs = (until - c0 + 1) >> 1,
        line = (<usize>pairs) << 5;
      for (let r = 0; r < depth; r++) {
        const to = matrix + <usize>(k + r) * stride + ((<usize>(c0 >> 1)) << 5);
        for (let c = 0; c < pairs; c++) onePair(to + ((<usize>c) << 5), block + <usize>r * LEFT, own + ((<usize>c) << 5), line, r);
        memory.copy(own + <usize>r * line, to, line);
      }
      // What these columns are to the rows of their numbers.
      for (let r = 0; r < depth; r++) {
        const top = matrix + <usize>(k + r) * stride;
        const d = column(top, k + r);
        const x = load<f64>(d),
          y = load<f64>(d, 16),
          s = 1 / (x * x + y * y);
        const dr = x * s,
          di = -y * s;
        for (let c = c0; c < min(until, n); c++) {
          const u = column(top, c),
            to = column(left + <usize>c * LEFT, r);
          const a = load<f64>(u),
            b = load<f64>(u, 16);
          store<f64>(to, a * dr - b * di);
          store<f64>(to, a * di + b * dr, 16);
        }
      }
    }
    barrier(meet, threads);
    strip = 0;
    for (let c0 = 0; c0 < columns; c0 += STRIP, strip++) {
      if (c0 <= k || strip % threads != thread) continue;
      const until = min(c0 + STRIP, columns);
      const pairs = (until - c0 + 1) >> 1,
        line = (<usize>pairs) << 5;
      for (let r = 0; r < depth; r++) memory.copy(own + <usize>r * line, matrix + <usize>(k + r) * stride + ((<usize>(c0 >> 1)) << 5), line);
      update(matrix, stride, k + depth, min(until, n), left, LEFT, depth, c0, pairs, own);
    }
    barrier(meet, threads);
  }
}
