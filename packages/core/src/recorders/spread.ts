/** So many numbers evenly from one to another; of one the first. */
export const spread = (from: number, to: number, n: number): Float64Array<ArrayBuffer> =>
  Float64Array.from({ length: n }, (_, i) => (n === 1 ? from : from + ((to - from) * i) / (n - 1)));
