/**
 * Guided ports whose modes change their shape with frequency. The guide goes on behind the port's plane into absorbing layers;
 * currents on the plane send a mode both ways, and the fields on it are projected on the modes' profiles at some frequencies, from
 * which waves in and out follow afterwards.
 *
 * A portal: u32 edges, edge count, modes, profiles, sources, records, steps of a record. An edge: u32 address of E, address of H
 * half a cell inside; per mode f32 what its current does to E; per profile f32 weight of E, f32 weight of H. Sources: per mode f32
 * of all steps. A record: per profile f64 of E of all steps, then of H.
 */
export function portals(list: usize, count: i32, n: i32): void {
  for (let p = 0; p < count; p++) onePortal(<usize>load<u32>(list + (<usize>p << 2)), n);
}

function onePortal(portal: usize, n: i32): void {
  const edges = <usize>load<u32>(portal), count = load<i32>(portal, 4), modes = load<i32>(portal, 8), profiles = load<i32>(portal, 12);
  const sources = <usize>load<u32>(portal, 16), records = <usize>load<u32>(portal, 20), steps = <usize>load<u32>(portal, 24);
  const stride: usize = 8 + (<usize>modes << 2) + (<usize>profiles << 3), end = edges + <usize>count * stride;
  const first: usize = 8 + (<usize>modes << 2);
  for (let k = 0; k < profiles; k++) {
    let v: f64 = 0, i: f64 = 0;
    const at = first + (<usize>k << 3);
    for (let e = edges; e < end; e += stride) {
      v += <f64>load<f32>(e + at) * <f64>load<f32>(<usize>load<u32>(e));
      i += <f64>load<f32>(e + at, 4) * <f64>load<f32>(<usize>load<u32>(e, 4));
    }
    store<f64>(records + (<usize>(2 * k) * steps + <usize>n << 3), v);
    store<f64>(records + (<usize>(2 * k + 1) * steps + <usize>n << 3), i);
  }
  // What was read belongs to the step before; the current acts in the one to come.
  for (let m = 0; m < modes; m++) {
    const source = load<f32>(sources + (<usize>m * steps + <usize>n << 2));
    if (source == 0) continue;
    for (let e = edges; e < end; e += stride) {
      const at = <usize>load<u32>(e);
      store<f32>(at, load<f32>(at) + source * load<f32>(e + (<usize>m << 2), 8));
    }
  }
}
