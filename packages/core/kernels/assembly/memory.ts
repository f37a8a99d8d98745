/**
 * Media with memory: runs of electric edges along x that belong to one class. The sweep has made ca E + cb curl; each pole's state y
 * pulls at it, E+ = E' - sum pull y, and then goes on, y+ = turn y + drive E+ (see src/solvers/fdtd/dispersion.ts).
 * A run is 16 bytes: address of the first edge, class, edges, states (rows of whole fours, one after another). A class: u32 real
 * states, u32 pairs, then f32 turn, pull, drive of each real one, and the same as re, im of each pair.
 */
export function memories(list: usize, first: i32, last: i32): void {
  const lanes = i32x4(0, 1, 2, 3);
  for (let at = list + <usize>first * 16, end = list + <usize>last * 16; at < end; at += 16) {
    const field = <usize>load<u32>(at), kind = <usize>load<u32>(at, 4), count = load<i32>(at, 8);
    let states = <usize>load<u32>(at, 12);
    const reals = load<i32>(kind), pairs = load<i32>(kind, 4);
    const row = (<usize>(count + 3) & ~3) << 2;
    const endReal = kind + 8 + <usize>reals * 12, endPair = endReal + <usize>pairs * 24;
    for (let i: i32 = 0; i < count; i += 4) {
      const here = field + (<usize>i << 2);
      let y = states + (<usize>i << 2);
      const old = v128.load(here);
      let e = old;
      for (let c = kind + 8; c < endReal; c += 12, y += row) e = f32x4.sub(e, f32x4.mul(f32x4.splat(load<f32>(c, 4)), v128.load(y)));
      for (let c = endReal; c < endPair; c += 24, y += row << 1)
        e = f32x4.sub(e, f32x4.sub(f32x4.mul(f32x4.splat(load<f32>(c, 8)), v128.load(y)), f32x4.mul(f32x4.splat(load<f32>(c, 12)), v128.load(y + row))));
      // The last four of a run may reach into what follows it.
      if (i + 4 > count) e = v128.bitselect(e, old, i32x4.lt_s(lanes, i32x4.splat(count - i)));
      v128.store(here, e);
      y = states + (<usize>i << 2);
      for (let c = kind + 8; c < endReal; c += 12, y += row)
        v128.store(y, f32x4.add(f32x4.mul(f32x4.splat(load<f32>(c)), v128.load(y)), f32x4.mul(f32x4.splat(load<f32>(c, 8)), e)));
      for (let c = endReal; c < endPair; c += 24, y += row << 1) {
        const re = v128.load(y), im = v128.load(y + row);
        const tr = f32x4.splat(load<f32>(c)), ti = f32x4.splat(load<f32>(c, 4));
        v128.store(y, f32x4.add(f32x4.sub(f32x4.mul(tr, re), f32x4.mul(ti, im)), f32x4.mul(f32x4.splat(load<f32>(c, 16)), e)));
        v128.store(y + row, f32x4.add(f32x4.add(f32x4.mul(ti, re), f32x4.mul(tr, im)), f32x4.mul(f32x4.splat(load<f32>(c, 20)), e)));
      }
    }
  }
}

/** What the states of one edge pull at it. */
export function pullOf(kind: usize, y: usize, row: usize): f32 {
  const endReal = kind + 8 + <usize>load<i32>(kind) * 12, endPair = endReal + <usize>load<i32>(kind, 4) * 24;
  let sum: f32 = 0;
  for (let c = kind + 8; c < endReal; c += 12, y += row) sum += load<f32>(c, 4) * load<f32>(y);
  for (let c = endReal; c < endPair; c += 24, y += row << 1) sum += load<f32>(c, 8) * load<f32>(y) - load<f32>(c, 12) * load<f32>(y + row);
  return sum;
}
