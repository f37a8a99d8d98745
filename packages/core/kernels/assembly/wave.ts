import * as L from './layout';

/**
 * Rows to which a source from without adds, such as those on the box of a plane wave: to the samples of each row the real part of sum(c_t U_t(i)) is added, with c_t the row's
 * factors times the tones' turns at this time, and U_t the tone along the row's axis.
 */
export function waveRows(rows: usize, first: i32, last: i32, turns: usize, tones: i32): void {
  for (let at = rows + <usize>first * L.INJECTED_ROW_SIZE, end = rows + <usize>last * L.INJECTED_ROW_SIZE; at < end; at += L.INJECTED_ROW_SIZE) {
    const target = <usize>load<u32>(at, L.INJECTED_ROW_FIRST),
      stride = <usize>load<u32>(at, L.INJECTED_ROW_STRIDE),
      count = load<i32>(at, L.INJECTED_ROW_COUNT);
    const factors = <usize>load<u32>(at, L.INJECTED_ROW_FACTORS),
      room = factors + ((<usize>tones) << 3);
    const table = <usize>load<u32>(at, L.INJECTED_ROW_TABLE),
      toIm = <usize>load<u32>(at, L.INJECTED_ROW_TO_IM);
    for (let t = 0; t < tones; t++) {
      const o = (<usize>t) << 3;
      const a = load<f32>(factors + o),
        b = load<f32>(factors + o, 4),
        c = load<f32>(turns + o),
        s = load<f32>(turns + o, 4);
      store<f32>(room + o, a * c - b * s);
      store<f32>(room + o, a * s + b * c, 4);
    }
    for (let i = 0; i < count; i += 4) {
      let sum = f32x4.splat(0);
      let u = table + ((<usize>i) << 2);
      for (let t = 0; t < tones; t++, u += toIm << 1) {
        const c = room + ((<usize>t) << 3);
        sum = f32x4.add(sum, f32x4.mul(f32x4.splat(load<f32>(c)), v128.load(u)));
        sum = f32x4.sub(sum, f32x4.mul(f32x4.splat(load<f32>(c, 4)), v128.load(u + toIm)));
      }
      let p = target + <usize>i * stride;
      store<f32>(p, load<f32>(p) + f32x4.extract_lane(sum, 0));
      if (i + 1 < count) {
        p += stride;
        store<f32>(p, load<f32>(p) + f32x4.extract_lane(sum, 1));
      }
      if (i + 2 < count) {
        p += stride;
        store<f32>(p, load<f32>(p) + f32x4.extract_lane(sum, 2));
      }
      if (i + 3 < count) {
        p += stride;
        store<f32>(p, load<f32>(p) + f32x4.extract_lane(sum, 3));
      }
    }
  }
}
