import * as L from './layout';

/**
 * Guided ports whose modes change their shape with frequency. The guide goes on behind the port's plane into absorbing layers;
 * currents on the plane send a mode both ways, and the fields on it are projected on the modes' profiles at some frequencies, from
 * which waves in and out follow afterwards.
 * A record: per profile f64 of E of all steps, then of H.
 */
export function portals(list: usize, count: i32, n: i32): void {
  for (let p = 0; p < count; p++) onePortal(<usize>load<u32>(list + ((<usize>p) << 2)), n);
}

function onePortal(portal: usize, n: i32): void {
  const edges = <usize>load<u32>(portal, L.PORTAL_EDGES),
    count = load<i32>(portal, L.PORTAL_COUNT),
    modes = load<i32>(portal, L.PORTAL_MODES),
    profiles = load<i32>(portal, L.PORTAL_PROFILES);
  const sources = <usize>load<u32>(portal, L.PORTAL_SOURCES),
    records = <usize>load<u32>(portal, L.PORTAL_RECORDS),
    steps = <usize>load<u32>(portal, L.PORTAL_STEPS);
  const stride: usize = L.PORTAL_EDGE_SIZE + ((<usize>modes) << 2) + ((<usize>profiles) << 3),
    end = edges + <usize>count * stride;
  const first: usize = L.PORTAL_EDGE_SIZE + ((<usize>modes) << 2);
  for (let k = 0; k < profiles; k++) {
    let v: f64 = 0,
      i: f64 = 0;
    const at = first + ((<usize>k) << 3);
    for (let e = edges; e < end; e += stride) {
      v += <f64>load<f32>(e + at) * <f64>load<f32>(<usize>load<u32>(e, L.PORTAL_EDGE_FIELD));
      i += <f64>load<f32>(e + at, 4) * <f64>load<f32>(<usize>load<u32>(e, L.PORTAL_EDGE_BEYOND));
    }
    store<f64>(records + ((<usize>(2 * k) * steps + <usize>n) << 3), v);
    store<f64>(records + ((<usize>(2 * k + 1) * steps + <usize>n) << 3), i);
  }
  // What was read belongs to the step before; the current acts in the one to come.
  for (let m = 0; m < modes; m++) {
    const source = load<f32>(sources + ((<usize>m * steps + <usize>n) << 2));
    if (source == 0) continue;
    for (let e = edges; e < end; e += stride) {
      const at = <usize>load<u32>(e, L.PORTAL_EDGE_FIELD);
      store<f32>(at, load<f32>(at) + source * load<f32>(e + ((<usize>m) << 2), L.PORTAL_EDGE_SIZE));
    }
  }
}
