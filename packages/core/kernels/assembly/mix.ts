import * as L from './layout';
import { pullOf } from './memory';

/**
 * Electric edges at curved dielectric surfaces: beside its own plain change each takes shares of those of the edges around it,
 * as the off-diagonal part of the inverse permittivity has it.
 */
export function mixChanges(edges: usize, first: i32, end: i32): void {
  for (let at = edges + <usize>first * L.MIXED_EDGE_SIZE, last = edges + <usize>end * L.MIXED_EDGE_SIZE; at < last; at += L.MIXED_EDGE_SIZE) {
    const p = <usize>load<u32>(at, L.MIXED_EDGE_P),
      q = <usize>load<u32>(at, L.MIXED_EDGE_Q);
    const kind = <usize>load<u32>(at, L.MIXED_EDGE_KIND);
    store<f32>(
      at,
      load<f32>(at, L.MIXED_EDGE_LESS) * load<f32>(<usize>load<u32>(at, L.MIXED_EDGE_FIELD)) +
        load<f32>(at, L.MIXED_EDGE_DRIVE_P) * (load<f32>(p) - load<f32>(p - <usize>load<u32>(at, L.MIXED_EDGE_BACK_P))) -
        load<f32>(at, L.MIXED_EDGE_DRIVE_Q) * (load<f32>(q) - load<f32>(q - <usize>load<u32>(at, L.MIXED_EDGE_BACK_Q))) -
        (kind ? pullOf(kind, <usize>load<u32>(at, L.MIXED_EDGE_STATES), <usize>load<u32>(at, L.MIXED_EDGE_NEXT)) : 0),
      L.MIXED_EDGE_CHANGE,
    );
  }
}

/** Sums up what each edge takes from others. */
export function mixShares(edges: usize, links: usize, first: i32, end: i32): void {
  for (let at = edges + <usize>first * L.MIXED_EDGE_SIZE, last = edges + <usize>end * L.MIXED_EDGE_SIZE; at < last; at += L.MIXED_EDGE_SIZE) {
    let sum: f32 = 0;
    const to = links + <usize>load<i32>(at, L.MIXED_EDGE_END) * L.MIX_LINK_SIZE;
    for (let l = links + <usize>load<i32>(at, L.MIXED_EDGE_FIRST) * L.MIX_LINK_SIZE; l < to; l += L.MIX_LINK_SIZE)
      sum += load<f32>(l, L.MIX_LINK_FACTOR) * load<f32>(edges + <usize>load<i32>(l, L.MIX_LINK_EDGE) * L.MIXED_EDGE_SIZE, L.MIXED_EDGE_CHANGE);
    store<f32>(at, sum, L.MIXED_EDGE_SHARE);
  }
}

/** Adds the shares, once the sweep has made the plain changes. */
export function mixAdd(edges: usize, first: i32, end: i32): void {
  for (let at = edges + <usize>first * L.MIXED_EDGE_SIZE, last = edges + <usize>end * L.MIXED_EDGE_SIZE; at < last; at += L.MIXED_EDGE_SIZE) {
    const e = <usize>load<u32>(at, L.MIXED_EDGE_FIELD);
    store<f32>(e, load<f32>(e) + load<f32>(at, L.MIXED_EDGE_SHARE));
  }
}
