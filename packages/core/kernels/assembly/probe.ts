/**
 * Field samples that are kept at every step. An entry is 20 bytes: addresses of two samples, f32 weights of either, address of the
 * series (f32 of all steps).
 */
export function probes(list: usize, count: i32, n: i32): void {
  for (let at = list, end = list + <usize>count * 20; at < end; at += 20) {
    const value = load<f32>(at, 8) * load<f32>(<usize>load<u32>(at)) + load<f32>(at, 12) * load<f32>(<usize>load<u32>(at, 4));
    store<f32>(<usize>load<u32>(at, 16) + (<usize>n << 2), value);
  }
}
