/**
 * Indices of samples to draw a curve with at most about 2 `columns` points in [from, to]: of each column of x the first, lowest, highest and last,
 * so that no peak is lost and the drawn line covers what the whole would. One sample beyond each end keeps the line running out of the picture.
 */
export function drawnIndices(x: ArrayLike<number>, y: ArrayLike<number>, columns: number, from = -Infinity, to = Infinity): Int32Array {
  let [a, b] = [0, x.length];
  while (a < b && x[a] < from) a++;
  while (b > a && x[b - 1] > to) b--;
  if (a > 0) a--;
  if (b < x.length) b++;
  if (b - a <= 2 * columns) return Int32Array.from({ length: b - a }, (_, i) => a + i);
  const [x0, span] = [x[a], x[b - 1] - x[a]];
  const out: number[] = [];
  let k = a;
  for (let c = 0; c < columns && k < b; c++) {
    const end = c === columns - 1 ? Infinity : x0 + ((c + 1) / columns) * span;
    const first = k;
    let [low, high] = [k, k];
    while (k < b && x[k] < end) {
      if (!(y[k] >= y[low])) low = k;
      if (!(y[k] <= y[high])) high = k;
      k++;
    }
    if (k === first) continue;
    let last = -1;
    for (const i of [first, Math.min(low, high), Math.max(low, high), k - 1]) if (i > last) out.push((last = i));
  }
  return Int32Array.from(out);
}
