import { lessProduct } from './inline';

/**
 * Dense pieces of the direct solver for cross-sections, double precision. Matrices are row-major, n rows of `width` values, which
 * is even, so that rows begin at multiples of 16 bytes.
 */

/** Eliminates the first p of n unknowns in place: L with unit diagonal and U where they fall, the rest updated. */
export function eliminate(f: usize, width: i32, p: i32, n: i32): void {
  const row = (<usize>width) << 3;
  let k = 0;
  for (; k + 4 <= p; k += 4) {
    const r0 = f + <usize>k * row,
      r1 = r0 + row,
      r2 = r1 + row,
      r3 = r2 + row;
    const at = (<usize>k) << 3;
    for (let a = 0; a < 4; a++) {
      const top = r0 + <usize>a * row;
      const pivot = load<f64>(top + at + ((<usize>a) << 3));
      for (let r = a + 1; r < 4; r++) {
        const line = r0 + <usize>r * row;
        const l = load<f64>(line + at + ((<usize>a) << 3)) / pivot;
        store<f64>(line + at + ((<usize>a) << 3), l);
        for (let c = (<usize>(k + a + 1)) << 3; c < row; c += 8) store<f64>(line + c, load<f64>(line + c) - l * load<f64>(top + c));
      }
    }
    const d0 = 1 / load<f64>(r0 + at),
      d1 = 1 / load<f64>(r1 + at, 8),
      d2 = 1 / load<f64>(r2 + at, 16),
      d3 = 1 / load<f64>(r3 + at, 24);
    const begin = (<usize>(k + 4)) << 3;
    let r = k + 4;
    for (; r < n; r++) {
      const line = f + <usize>r * row;
      const l0 = load<f64>(line + at) * d0;
      const l1 = (load<f64>(line + at, 8) - l0 * load<f64>(r0 + at, 8)) * d1;
      const l2 = (load<f64>(line + at, 16) - l0 * load<f64>(r0 + at, 16) - l1 * load<f64>(r1 + at, 16)) * d2;
      const l3 = (load<f64>(line + at, 24) - l0 * load<f64>(r0 + at, 24) - l1 * load<f64>(r1 + at, 24) - l2 * load<f64>(r2 + at, 24)) * d3;
      store<f64>(line + at, l0);
      store<f64>(line + at, l1, 8);
      store<f64>(line + at, l2, 16);
      store<f64>(line + at, l3, 24);
      if (l0 == 0 && l1 == 0 && l2 == 0 && l3 == 0) continue;
      const v0 = f64x2.splat(l0),
        v1 = f64x2.splat(l1),
        v2 = f64x2.splat(l2),
        v3 = f64x2.splat(l3);
      for (let c = begin; c < row; c += 16) {
        const sum = f64x2.add(
          f64x2.add(f64x2.mul(v0, v128.load(r0 + c)), f64x2.mul(v1, v128.load(r1 + c))),
          f64x2.add(f64x2.mul(v2, v128.load(r2 + c)), f64x2.mul(v3, v128.load(r3 + c))),
        );
        v128.store(line + c, f64x2.sub(v128.load(line + c), sum));
      }
    }
  }
  for (; k < p; k++) {
    const top = f + <usize>k * row;
    const d = 1 / load<f64>(top + ((<usize>k) << 3));
    for (let r = k + 1; r < n; r++) {
      const line = f + <usize>r * row;
      const l = load<f64>(line + ((<usize>k) << 3)) * d;
      store<f64>(line + ((<usize>k) << 3), l);
      if (l != 0) for (let c = (<usize>(k + 1)) << 3; c < row; c += 8) store<f64>(line + c, load<f64>(line + c) - l * load<f64>(top + c));
    }
  }
}

/** The same for complex matrices, pairs of real and imaginary part: n rows of n pairs. */
export function eliminateComplex(f: usize, p: i32, n: i32): void {
  const row = (<usize>n) << 4;
  const flip = f64x2.replace_lane(f64x2.splat(1), 0, -1);
  for (let k = 0; k < p; k += 2) {
    const pair = k + 1 < p;
    const r0 = f + <usize>k * row;
    const at = (<usize>k) << 4;
    const x = load<f64>(r0 + at),
      y = load<f64>(r0 + at, 8),
      size = x * x + y * y;
    const dr = x / size,
      di = -y / size;
    const r1 = r0 + row;
    let er: f64 = 0,
      ei: f64 = 0;
    if (pair) {
      // The second row of the pair first, so that its pivot is known.
      const a = load<f64>(r1 + at),
        b = load<f64>(r1 + at, 8);
      const lr = a * dr - b * di,
        li = a * di + b * dr;
      store<f64>(r1 + at, lr);
      store<f64>(r1 + at, li, 8);
      const lv = f64x2.splat(lr),
        lw = f64x2.mul(f64x2.splat(li), flip);
      for (let c = at + 16; c < row; c += 16) v128.store(r1 + c, lessProduct(v128.load(r1 + c), lv, lw, v128.load(r0 + c)));
      const u = load<f64>(r1 + at, 16),
        w = load<f64>(r1 + at, 24),
        s = u * u + w * w;
      er = u / s;
      ei = -w / s;
    }
    for (let r = k + (pair ? 2 : 1); r < n; r++) {
      const line = f + <usize>r * row;
      const a = load<f64>(line + at),
        b = load<f64>(line + at, 8);
      const lr = a * dr - b * di,
        li = a * di + b * dr;
      store<f64>(line + at, lr);
      store<f64>(line + at, li, 8);
      const lv = f64x2.splat(lr),
        lw = f64x2.mul(f64x2.splat(li), flip);
      if (!pair) {
        if (lr != 0 || li != 0)
          for (let c = at + 16; c < row; c += 16) v128.store(line + c, lessProduct(v128.load(line + c), lv, lw, v128.load(r0 + c)));
        continue;
      }
      const next = lessProduct(v128.load(line + at, 16), lv, lw, v128.load(r0 + at, 16));
      const g = f64x2.extract_lane(next, 0),
        h = f64x2.extract_lane(next, 1);
      const mr = g * er - h * ei,
        mi = g * ei + h * er;
      store<f64>(line + at, mr, 16);
      store<f64>(line + at, mi, 24);
      if (lr == 0 && li == 0 && mr == 0 && mi == 0) continue;
      const mv = f64x2.splat(mr),
        mw = f64x2.mul(f64x2.splat(mi), flip);
      for (let c = at + 32; c < row; c += 16)
        v128.store(line + c, lessProduct(lessProduct(v128.load(line + c), lv, lw, v128.load(r0 + c)), mv, mw, v128.load(r1 + c)));
    }
  }
}

/** Sum of `count` products of doubles. */
function dot(a: usize, b: usize, count: i32): f64 {
  let s0 = f64x2.splat(0),
    s1 = s0,
    s2 = s0,
    s3 = s0;
  let i = 0;
  for (; i + 8 <= count; i += 8) {
    s0 = f64x2.add(s0, f64x2.mul(v128.load(a), v128.load(b)));
    s1 = f64x2.add(s1, f64x2.mul(v128.load(a, 16), v128.load(b, 16)));
    s2 = f64x2.add(s2, f64x2.mul(v128.load(a, 32), v128.load(b, 32)));
    s3 = f64x2.add(s3, f64x2.mul(v128.load(a, 48), v128.load(b, 48)));
    a += 64;
    b += 64;
  }
  const t = f64x2.add(f64x2.add(s0, s1), f64x2.add(s2, s3));
  let s = f64x2.extract_lane(t, 0) + f64x2.extract_lane(t, 1);
  for (; i < count; i++, a += 8, b += 8) s += load<f64>(a) * load<f64>(b);
  return s;
}

/** Sum of `count` products of complex pairs. */
function dotComplex(a: usize, b: usize, count: i32): v128 {
  let s0 = f64x2.splat(0),
    s1 = s0,
    s2 = s0,
    s3 = s0;
  let i = 0;
  for (; i + 2 <= count; i += 2) {
    const p = v128.load(a),
      q = v128.load(a, 16),
      x = v128.load(b),
      y = v128.load(b, 16);
    s0 = f64x2.add(s0, f64x2.mul(p, x));
    s1 = f64x2.add(s1, f64x2.mul(p, v128.shuffle<u64>(x, x, 1, 0)));
    s2 = f64x2.add(s2, f64x2.mul(q, y));
    s3 = f64x2.add(s3, f64x2.mul(q, v128.shuffle<u64>(y, y, 1, 0)));
    a += 32;
    b += 32;
  }
  if (i < count) {
    const p = v128.load(a),
      x = v128.load(b);
    s0 = f64x2.add(s0, f64x2.mul(p, x));
    s1 = f64x2.add(s1, f64x2.mul(p, v128.shuffle<u64>(x, x, 1, 0)));
  }
  const t = f64x2.add(s0, s2),
    u = f64x2.add(s1, s3);
  const re = f64x2.extract_lane(t, 0) - f64x2.extract_lane(t, 1);
  return f64x2.replace_lane(f64x2.splat(re), 1, f64x2.extract_lane(u, 0) + f64x2.extract_lane(u, 1));
}

/**
 * Forward substitution through one front: `own` rows of `all` in `upper` (L below the diagonal), the rest in `lower`; `unknowns`
 * are 32-bit places in x, y is room for `all` values.
 */
export function forward(upper: usize, lower: usize, unknowns: usize, own: i32, all: i32, x: usize, y: usize, complex: i32): void {
  const size: usize = complex ? 16 : 8;
  for (let r = 0; r < all; r++) {
    const at = x + <usize>load<u32>(unknowns + ((<usize>r) << 2)) * size;
    const inside = r < own;
    const line = inside ? upper + <usize>r * <usize>all * size : lower + <usize>(r - own) * <usize>own * size;
    const count = inside ? r : own;
    if (complex) v128.store(at, f64x2.sub(v128.load(at), dotComplex(line, y, count)));
    else store<f64>(at, load<f64>(at) - dot(line, y, count));
    if (!inside) continue;
    if (complex) v128.store(y + <usize>r * size, v128.load(at));
    else store<f64>(y + <usize>r * size, load<f64>(at));
  }
}

/** Back substitution through one front. */
export function backward(upper: usize, unknowns: usize, own: i32, all: i32, x: usize, y: usize, complex: i32): void {
  const size: usize = complex ? 16 : 8;
  for (let r = own; r < all; r++) {
    const at = x + <usize>load<u32>(unknowns + ((<usize>r) << 2)) * size;
    if (complex) v128.store(y + <usize>r * size, v128.load(at));
    else store<f64>(y + <usize>r * size, load<f64>(at));
  }
  for (let r = own - 1; r >= 0; r--) {
    const at = x + <usize>load<u32>(unknowns + ((<usize>r) << 2)) * size;
    const pivot = upper + (<usize>r * <usize>all + <usize>r) * size;
    const slot = y + <usize>r * size;
    if (complex) {
      const v = f64x2.sub(v128.load(at), dotComplex(pivot + size, slot + size, all - r - 1));
      const a = load<f64>(pivot),
        b = load<f64>(pivot, 8),
        d = a * a + b * b;
      const u = f64x2.extract_lane(v, 0),
        w = f64x2.extract_lane(v, 1);
      store<f64>(at, (u * a + w * b) / d);
      store<f64>(at, (w * a - u * b) / d, 8);
      v128.store(slot, v128.load(at));
    } else {
      const v = (load<f64>(at) - dot(pivot + size, slot + size, all - r - 1)) / load<f64>(pivot);
      store<f64>(at, v);
      store<f64>(slot, v);
    }
  }
}
