import * as L from './layout';

/**
 * Samples on either side of sheets across no axis. Each is kept in part and follows two derivatives, sums over links to other samples, as the sweep does for the rest of
 * the grid; in absorbing layers each derivative has a memory.
 */
export function splitSamples(list: usize, first: i32, end: i32): void {
  for (let at = list + <usize>first * L.SPLIT_SAMPLE_SIZE, last = list + <usize>end * L.SPLIT_SAMPLE_SIZE; at < last; at += L.SPLIT_SAMPLE_SIZE) {
    const field = <usize>load<u32>(at, L.SPLIT_SAMPLE_FIELD);
    const middle = <usize>load<u32>(at, L.SPLIT_SAMPLE_MIDDLE);
    const a = linked(<usize>load<u32>(at, L.SPLIT_SAMPLE_FIRST), middle),
      b = linked(middle, <usize>load<u32>(at, L.SPLIT_SAMPLE_END));
    const memoryA = load<f32>(at, L.SPLIT_SAMPLE_FADE_A) * load<f32>(at, L.SPLIT_SAMPLE_MEMORY_A) + load<f32>(at, L.SPLIT_SAMPLE_FEED_A) * a,
      memoryB = load<f32>(at, L.SPLIT_SAMPLE_FADE_B) * load<f32>(at, L.SPLIT_SAMPLE_MEMORY_B) + load<f32>(at, L.SPLIT_SAMPLE_FEED_B) * b;
    store<f32>(at, memoryA, L.SPLIT_SAMPLE_MEMORY_A);
    store<f32>(at, memoryB, L.SPLIT_SAMPLE_MEMORY_B);
    let value =
      load<f32>(at, L.SPLIT_SAMPLE_KEEP) * load<f32>(field) +
      load<f32>(at, L.SPLIT_SAMPLE_FACTOR_A) * a +
      load<f32>(at, L.SPLIT_SAMPLE_FACTOR_B) * b +
      memoryA +
      memoryB;
    // Denormal numbers are slow.
    if (abs(value) < 1e-30) value = 0;
    store<f32>(field, value);
  }
}

/** Sum of the samples of some links. */
function linked(first: usize, end: usize): f32 {
  let sum: f32 = 0;
  for (let at = first; at < end; at += L.SPLIT_LINK_SIZE)
    sum += load<f32>(at, L.SPLIT_LINK_WEIGHT) * load<f32>(<usize>load<u32>(at, L.SPLIT_LINK_FROM));
  return sum;
}

/** Samples that others make up. */
export function splitSums(list: usize, first: i32, end: i32): void {
  for (let at = list + <usize>first * L.SPLIT_SUM_SIZE, last = list + <usize>end * L.SPLIT_SUM_SIZE; at < last; at += L.SPLIT_SUM_SIZE)
    store<f32>(<usize>load<u32>(at, L.SPLIT_SUM_FIELD), linked(<usize>load<u32>(at, L.SPLIT_SUM_FIRST), <usize>load<u32>(at, L.SPLIT_SUM_END)));
}

/** Takes down jumps of H. */
export function splitJumps(list: usize, count: i32): void {
  for (let at = list, last = list + <usize>count * L.SPLIT_JUMP_SIZE; at < last; at += L.SPLIT_JUMP_SIZE)
    store<f32>(<usize>load<u32>(at, L.SPLIT_JUMP_FIELD), jump(at));
}

/** Shares what a sheet's branch has changed of a jump among its two samples. */
export function splitShares(list: usize, count: i32): void {
  for (let at = list, last = list + <usize>count * L.SPLIT_JUMP_SIZE; at < last; at += L.SPLIT_JUMP_SIZE) {
    const one = <usize>load<u32>(at, L.SPLIT_JUMP_ONE),
      other = <usize>load<u32>(at, L.SPLIT_JUMP_OTHER);
    const change = load<f32>(<usize>load<u32>(at, L.SPLIT_JUMP_FIELD)) - jump(at),
      share = load<f32>(at, L.SPLIT_JUMP_SHARE) * change;
    store<f32>(one, load<f32>(one) + share);
    store<f32>(other, load<f32>(other) - (change - share));
  }
}

function jump(at: usize): f32 {
  return load<f32>(<usize>load<u32>(at, L.SPLIT_JUMP_ONE)) - load<f32>(<usize>load<u32>(at, L.SPLIT_JUMP_OTHER));
}
