/**
 * Rows on the box of a plane wave: to the samples of each row the real part of sum(c_t U_t(i)) is added, with c_t the row's
 * factors times the tones' turns at this time, and U_t the tone along the row's axis.
 * A row is 32 bytes: u32 address of the first sample, stride, count, address of its factors (re, im a tone, then as much room),
 * address of its first table value, bytes from a table's re to its im.
 */
export function waveRows(rows: usize, first: i32, last: i32, turns: usize, tones: i32): void {
  for (let at = rows + <usize>first * 32, end = rows + <usize>last * 32; at < end; at += 32) {
    const target = <usize>load<u32>(at), stride = <usize>load<u32>(at, 4), count = load<i32>(at, 8);
    const factors = <usize>load<u32>(at, 12), room = factors + (<usize>tones << 3);
    const table = <usize>load<u32>(at, 16), toIm = <usize>load<u32>(at, 20);
    for (let t = 0; t < tones; t++) {
      const o = <usize>t << 3;
      const a = load<f32>(factors + o), b = load<f32>(factors + o, 4), c = load<f32>(turns + o), s = load<f32>(turns + o, 4);
      store<f32>(room + o, a * c - b * s);
      store<f32>(room + o, a * s + b * c, 4);
    }
    for (let i = 0; i < count; i += 4) {
      let sum = f32x4.splat(0);
      let u = table + (<usize>i << 2);
      for (let t = 0; t < tones; t++, u += toIm << 1) {
        const c = room + (<usize>t << 3);
        sum = f32x4.add(sum, f32x4.mul(f32x4.splat(load<f32>(c)), v128.load(u)));
        sum = f32x4.sub(sum, f32x4.mul(f32x4.splat(load<f32>(c, 4)), v128.load(u + toIm)));
      }
      let p = target + <usize>i * stride;
      store<f32>(p, load<f32>(p) + f32x4.extract_lane(sum, 0));
      if (i + 1 < count) { p += stride; store<f32>(p, load<f32>(p) + f32x4.extract_lane(sum, 1)); }
      if (i + 2 < count) { p += stride; store<f32>(p, load<f32>(p) + f32x4.extract_lane(sum, 2)); }
      if (i + 3 < count) { p += stride; store<f32>(p, load<f32>(p) + f32x4.extract_lane(sum, 3)); }
    }
  }
}
