import { constant, kept } from './inline';
import * as L from './layout';

/** A run of a class with two real states. */
function twoStates(field: usize, kind: usize, count: i32, y: usize): void {
  const t0 = constant(kind, 0),
    p0 = constant(kind, 1),
    d0 = constant(kind, 2),
    t1 = constant(kind, 3),
    p1 = constant(kind, 4),
    d1 = constant(kind, 5);
  for (let left = count; left > 0; left -= 4, field += 16, y += 32) {
    const a = v128.load(y),
      b = v128.load(y, 16),
      old = v128.load(field);
    const e = kept(f32x4.sub(f32x4.sub(old, f32x4.mul(p0, a)), f32x4.mul(p1, b)), old, left);
    v128.store(field, e);
    v128.store(y, f32x4.add(f32x4.mul(t0, a), f32x4.mul(d0, e)));
    v128.store(y, f32x4.add(f32x4.mul(t1, b), f32x4.mul(d1, e)), 16);
  }
}

/** A run of a class with three real states, as a level loss tangent has them. */
function threeStates(field: usize, kind: usize, count: i32, y: usize): void {
  const t0 = constant(kind, 0),
    p0 = constant(kind, 1),
    d0 = constant(kind, 2),
    t1 = constant(kind, 3),
    p1 = constant(kind, 4),
    d1 = constant(kind, 5);
  const t2 = constant(kind, 6),
    p2 = constant(kind, 7),
    d2 = constant(kind, 8);
  for (let left = count; left > 0; left -= 4, field += 16, y += 48) {
    const a = v128.load(y),
      b = v128.load(y, 16),
      c = v128.load(y, 32),
      old = v128.load(field);
    const e = kept(f32x4.sub(f32x4.sub(f32x4.sub(old, f32x4.mul(p0, a)), f32x4.mul(p1, b)), f32x4.mul(p2, c)), old, left);
    v128.store(field, e);
    v128.store(y, f32x4.add(f32x4.mul(t0, a), f32x4.mul(d0, e)));
    v128.store(y, f32x4.add(f32x4.mul(t1, b), f32x4.mul(d1, e)), 16);
    v128.store(y, f32x4.add(f32x4.mul(t2, c), f32x4.mul(d2, e)), 32);
  }
}

/** A run of a class with one real state, as a loss tangent over a narrow band has it. */
function oneState(field: usize, kind: usize, count: i32, y: usize): void {
  const t0 = constant(kind, 0),
    p0 = constant(kind, 1),
    d0 = constant(kind, 2);
  for (let left = count; left > 0; left -= 4, field += 16, y += 16) {
    const a = v128.load(y),
      old = v128.load(field);
    const e = kept(f32x4.sub(old, f32x4.mul(p0, a)), old, left);
    v128.store(field, e);
    v128.store(y, f32x4.add(f32x4.mul(t0, a), f32x4.mul(d0, e)));
  }
}

/** A run of one edge, as at a curved surface, whose states stand one after another. */
function oneEdge(field: usize, kind: usize, states: usize): void {
  const reals = load<i32>(kind, L.MEMORY_CLASS_REALS),
    pairs = load<i32>(kind, L.MEMORY_CLASS_PAIRS);
  if (pairs == 0 && reals == 2) {
    const a = load<f32>(states),
      b = load<f32>(states, 4);
    const e = load<f32>(field) - load<f32>(kind, L.MEMORY_CLASS_SIZE + 4) * a - load<f32>(kind, L.MEMORY_CLASS_SIZE + 16) * b;
    store<f32>(field, e);
    store<f32>(states, load<f32>(kind, L.MEMORY_CLASS_SIZE) * a + load<f32>(kind, L.MEMORY_CLASS_SIZE + 8) * e);
    store<f32>(states, load<f32>(kind, L.MEMORY_CLASS_SIZE + 12) * b + load<f32>(kind, L.MEMORY_CLASS_SIZE + 20) * e, 4);
    return;
  }
  const endReal = kind + L.MEMORY_CLASS_SIZE + <usize>reals * 12,
    endPair = endReal + <usize>pairs * 24;
  const e = load<f32>(field) - pullOf(kind, states, 4);
  store<f32>(field, e);
  let y = states;
  for (let c = kind + L.MEMORY_CLASS_SIZE; c < endReal; c += 12, y += 4) store<f32>(y, load<f32>(c) * load<f32>(y) + load<f32>(c, 8) * e);
  for (let c = endReal; c < endPair; c += 24, y += 8) {
    const re = load<f32>(y),
      im = load<f32>(y, 4),
      tr = load<f32>(c),
      ti = load<f32>(c, 4);
    store<f32>(y, tr * re - ti * im + load<f32>(c, 16) * e);
    store<f32>(y, ti * re + tr * im + load<f32>(c, 20) * e, 4);
  }
}

/** A run of any class. */
function anyStates(field: usize, kind: usize, count: i32, states: usize): void {
  const reals = load<i32>(kind, L.MEMORY_CLASS_REALS),
    pairs = load<i32>(kind, L.MEMORY_CLASS_PAIRS);
  const endReal = kind + L.MEMORY_CLASS_SIZE + <usize>reals * 12,
    endPair = endReal + <usize>pairs * 24;
  const block = (<usize>(reals + 2 * pairs)) << 4;
  for (let left = count; left > 0; left -= 4, field += 16, states += block) {
    let y = states;
    const old = v128.load(field);
    let e = old;
    for (let c = kind + L.MEMORY_CLASS_SIZE; c < endReal; c += 12, y += 16) e = f32x4.sub(e, f32x4.mul(f32x4.splat(load<f32>(c, 4)), v128.load(y)));
    for (let c = endReal; c < endPair; c += 24, y += 32)
      e = f32x4.sub(e, f32x4.sub(f32x4.mul(f32x4.splat(load<f32>(c, 8)), v128.load(y)), f32x4.mul(f32x4.splat(load<f32>(c, 12)), v128.load(y, 16))));
    e = kept(e, old, left);
    v128.store(field, e);
    y = states;
    for (let c = kind + L.MEMORY_CLASS_SIZE; c < endReal; c += 12, y += 16)
      v128.store(y, f32x4.add(f32x4.mul(f32x4.splat(load<f32>(c)), v128.load(y)), f32x4.mul(f32x4.splat(load<f32>(c, 8)), e)));
    for (let c = endReal; c < endPair; c += 24, y += 32) {
      const re = v128.load(y),
        im = v128.load(y, 16);
      const tr = f32x4.splat(load<f32>(c)),
        ti = f32x4.splat(load<f32>(c, 4));
      v128.store(y, f32x4.add(f32x4.sub(f32x4.mul(tr, re), f32x4.mul(ti, im)), f32x4.mul(f32x4.splat(load<f32>(c, 16)), e)));
      v128.store(y, f32x4.add(f32x4.add(f32x4.mul(ti, re), f32x4.mul(tr, im)), f32x4.mul(f32x4.splat(load<f32>(c, 20)), e)), 16);
    }
  }
}

/**
 * Media with memory: runs of electric edges along x that belong to one class. The sweep has made ca E + cb curl; each pole's state y
 * pulls at it, E+ = E' - sum pull y, and then goes on, y+ = turn y + drive E+ (see src/solvers/fdtd/dispersion.ts).
 * States of a run: for every four edges a block, in it the four of each state after one another, so that they are read in one stream; of a run of one edge they
 * stand one after another.
 */
export function memories(list: usize, first: i32, last: i32): void {
  for (let at = list + <usize>first * L.MEMORY_RUN_SIZE, end = list + <usize>last * L.MEMORY_RUN_SIZE; at < end; at += L.MEMORY_RUN_SIZE) {
    const field = <usize>load<u32>(at, L.MEMORY_RUN_FIELD),
      kind = <usize>load<u32>(at, L.MEMORY_RUN_KIND),
      count = load<i32>(at, L.MEMORY_RUN_COUNT),
      states = <usize>load<u32>(at, L.MEMORY_RUN_STATES);
    const reals = load<i32>(kind, L.MEMORY_CLASS_REALS),
      pairs = load<i32>(kind, L.MEMORY_CLASS_PAIRS);
    if (count == 1) oneEdge(field, kind, states);
    else if (pairs == 0 && reals == 3) threeStates(field, kind, count, states);
    else if (pairs == 0 && reals == 2) twoStates(field, kind, count, states);
    else if (pairs == 0 && reals == 1) oneState(field, kind, count, states);
    else anyStates(field, kind, count, states);
  }
}

/** What the states of one edge pull at it; y is that of its first state, `next` the bytes from state to state. */
export function pullOf(kind: usize, y: usize, next: usize): f32 {
  const endReal = kind + L.MEMORY_CLASS_SIZE + <usize>load<i32>(kind, L.MEMORY_CLASS_REALS) * 12,
    endPair = endReal + <usize>load<i32>(kind, L.MEMORY_CLASS_PAIRS) * 24;
  let sum: f32 = 0;
  for (let c = kind + L.MEMORY_CLASS_SIZE; c < endReal; c += 12, y += next) sum += load<f32>(c, 4) * load<f32>(y);
  for (let c = endReal; c < endPair; c += 24, y += next << 1) sum += load<f32>(c, 8) * load<f32>(y) - load<f32>(c, 12) * load<f32>(y + next);
  return sum;
}
