/** The name nearest to a mistyped one, within two changes of a letter; null if none is. */
export function nearestName(name: string, names: Iterable<string>): string | null {
  let best: string | null = null;
  let least = 3;
  for (const candidate of names) {
    const d = distance(name.toLowerCase(), candidate.toLowerCase());
    if (d < least) {
      least = d;
      best = candidate;
    }
  }
  return best;
}

/** Levenshtein distance. */
function distance(a: string, b: string): number {
  let row = Array.from({ length: b.length + 1 }, (_, i) => i);
  for (let i = 1; i <= a.length; i++) {
    const next = [i];
    for (let j = 1; j <= b.length; j++) next[j] = Math.min(row[j] + 1, next[j - 1] + 1, row[j - 1] + (a[i - 1] === b[j - 1] ? 0 : 1));
    row = next;
  }
  return row[b.length];
}
