/**
 * Dense pieces of the direct solver for cross-sections, double precision. Matrices are row-major, n rows of `width` values, which
 * is even, so that rows begin at multiples of 16 bytes.
 */

/** Eliminates the first p of n unknowns in place: L with unit diagonal and U where they fall, the rest updated. */
export function eliminate(f: usize, width: i32, p: i32, n: i32): void {
  const row = <usize>width << 3;
  let k = 0;
  for (; k + 4 <= p; k += 4) {
    const r0 = f + <usize>k * row, r1 = r0 + row, r2 = r1 + row, r3 = r2 + row;
    const at = <usize>k << 3;
    for (let a = 0; a < 4; a++) {
      const top = r0 + <usize>a * row;
      const pivot = load<f64>(top + at + (<usize>a << 3));
      for (let r = a + 1; r < 4; r++) {
        const line = r0 + <usize>r * row;
        const l = load<f64>(line + at + (<usize>a << 3)) / pivot;
        store<f64>(line + at + (<usize>a << 3), l);
        for (let c = <usize>(k + a + 1) << 3; c < row; c += 8) store<f64>(line + c, load<f64>(line + c) - l * load<f64>(top + c));
      }
    }
    const d0 = 1 / load<f64>(r0 + at), d1 = 1 / load<f64>(r1 + at, 8), d2 = 1 / load<f64>(r2 + at, 16), d3 = 1 / load<f64>(r3 + at, 24);
    const begin = <usize>(k + 4) << 3;
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
      const v0 = f64x2.splat(l0), v1 = f64x2.splat(l1), v2 = f64x2.splat(l2), v3 = f64x2.splat(l3);
      for (let c = begin; c < row; c += 16) {
        const sum = f64x2.add(
          f64x2.add(f64x2.mul(v0, v128.load(r0 + c)), f64x2.mul(v1, v128.load(r1 + c))),
          f64x2.add(f64x2.mul(v2, v128.load(r2 + c)), f64x2.mul(v3, v128.load(r3 + c))));
        v128.store(line + c, f64x2.sub(v128.load(line + c), sum));
      }
    }
  }
  for (; k < p; k++) {
    const top = f + <usize>k * row;
    const d = 1 / load<f64>(top + (<usize>k << 3));
    for (let r = k + 1; r < n; r++) {
      const line = f + <usize>r * row;
      const l = load<f64>(line + (<usize>k << 3)) * d;
      store<f64>(line + (<usize>k << 3), l);
      if (l != 0) for (let c = <usize>(k + 1) << 3; c < row; c += 8) store<f64>(line + c, load<f64>(line + c) - l * load<f64>(top + c));
    }
  }
}
