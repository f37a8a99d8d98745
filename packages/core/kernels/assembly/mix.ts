import { pullOf } from './memory';

/**
 * Electric edges at curved dielectric surfaces: beside its own plain change each takes shares of those of the edges around it,
 * as the off-diagonal part of the inverse permittivity has it. An edge is 64 bytes: u32 address of E, then as for a port's edge
 * u32 address of H, step back, of the other H, step back; f32 ca - 1, its factors; f32 plain change, f32 what is added;
 * i32 first link, i32 end of links; of a medium with memory u32 class, first state, bytes from state to state (see memory.ts), else 0.
 * A link is 8 bytes: i32 edge, f32 factor.
 */
export function mixChanges(edges: usize, first: i32, end: i32): void {
  for (let at = edges + <usize>first * 64, last = edges + <usize>end * 64; at < last; at += 64) {
    const p = <usize>load<u32>(at, 4), q = <usize>load<u32>(at, 12);
    const kind = <usize>load<u32>(at, 48);
    store<f32>(
      at,
      load<f32>(at, 20) * load<f32>(<usize>load<u32>(at)) +
        load<f32>(at, 24) * (load<f32>(p) - load<f32>(p - <usize>load<u32>(at, 8))) -
        load<f32>(at, 28) * (load<f32>(q) - load<f32>(q - <usize>load<u32>(at, 16))) -
        (kind ? pullOf(kind, <usize>load<u32>(at, 52), <usize>load<u32>(at, 56)) : 0),
      32,
    );
  }
}

/** Sums up what each edge takes from others. */
export function mixShares(edges: usize, links: usize, first: i32, end: i32): void {
  for (let at = edges + <usize>first * 64, last = edges + <usize>end * 64; at < last; at += 64) {
    let sum: f32 = 0;
    const to = links + <usize>load<i32>(at, 44) * 8;
    for (let l = links + <usize>load<i32>(at, 40) * 8; l < to; l += 8) sum += load<f32>(l, 4) * load<f32>(edges + <usize>load<i32>(l) * 64, 32);
    store<f32>(at, sum, 36);
  }
}

/** Adds the shares, once the sweep has made the plain changes. */
export function mixAdd(edges: usize, first: i32, end: i32): void {
  for (let at = edges + <usize>first * 64, last = edges + <usize>end * 64; at < last; at += 64) {
    const e = <usize>load<u32>(at);
    store<f32>(e, load<f32>(e) + load<f32>(at, 36));
  }
}
