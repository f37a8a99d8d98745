import * as L from './layout';

/** Field samples that are kept at every step, f32. */
export function probes(list: usize, count: i32, n: i32): void {
  for (let at = list, end = list + <usize>count * L.PROBE_SIZE; at < end; at += L.PROBE_SIZE) {
    const value =
      load<f32>(at, L.PROBE_WA) * load<f32>(<usize>load<u32>(at, L.PROBE_A)) + load<f32>(at, L.PROBE_WB) * load<f32>(<usize>load<u32>(at, L.PROBE_B));
    store<f32>(<usize>load<u32>(at, L.PROBE_SERIES) + ((<usize>n) << 2), value);
  }
}
