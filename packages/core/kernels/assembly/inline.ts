import * as L from './layout';

// Small functions that must not be called but stand where they are used. Decorators of functions are AssemblyScript's own, which neither lint nor formatter reads.

/** Word `at` of a parameter block. */
// @ts-ignore: decorator
@inline
export function word(cfg: usize, at: i32): usize {
  return <usize>load<u32>(cfg + (<usize>at << 2));
}

/** Float `index` of a table. */
// @ts-ignore: decorator
@inline
export function f32At(base: usize, index: i32): f32 {
  return load<f32>(base + ((<usize>index) << 2));
}

/** Integer `index` of a table. */
// @ts-ignore: decorator
@inline
export function i32At(base: usize, index: i32): i32 {
  return load<i32>(base + ((<usize>index) << 2));
}

/** E of four edges, of which only `left` belong to the run where that is less than four: the last four may reach into what follows it. */
// @ts-ignore: decorator
@inline
export function kept(e: v128, old: v128, left: i32): v128 {
  return left < 4 ? v128.bitselect(e, old, i32x4.lt_s(i32x4(0, 1, 2, 3), i32x4.splat(left))) : e;
}

/** Coefficient `n` of a class with memory. */
// @ts-ignore: decorator
@inline
export function constant(kind: usize, n: usize): v128 {
  return f32x4.splat(load<f32>(kind + L.MEMORY_CLASS_SIZE + (n << 2)));
}

/** c - (a + jb) (x + jy) for a pair (x, y) in one register; `a` holds (a, a), `b` holds (-b, b). */
// @ts-ignore: decorator
@inline
export function lessProduct(c: v128, a: v128, b: v128, x: v128): v128 {
  return f64x2.sub(c, f64x2.add(f64x2.mul(a, x), f64x2.mul(b, v128.shuffle<u64>(x, x, 1, 0))));
}

/** Both lanes the same. */
// @ts-ignore: decorator
@inline
export function splat(x: f64): v128 {
  return f64x2.splat(x);
}

/** Sum of the lanes. */
// @ts-ignore: decorator
@inline
export function both(v: v128): f64 {
  return f64x2.extract_lane(v, 0) + f64x2.extract_lane(v, 1);
}

/** Address of column c in a row. */
// @ts-ignore: decorator
@inline
export function column(row: usize, c: i32): usize {
  return row + ((<usize>(c >> 1)) << 5) + ((<usize>(c & 1)) << 3);
}
