import type { Complex } from '../results/index.ts';

/**
 * Touchstone file of n ports, version 1.1 (IBIS Open Forum, 2002): hertz, S, real and imaginary parts. `s[to][from]` over
 * frequency. That version has one reference resistance: that of the first port; where ports differ a comment line tells all.
 */
export function writeTouchstone(
  frequency: ArrayLike<number>,
  s: readonly (readonly (readonly Complex[])[])[],
  resistances: readonly number[],
  notes: readonly string[] = [],
): string {
  const n = s.length;
  const lines = notes.flatMap((t) => t.split(/\r?\n/)).map((t) => `! ${t}`);
  if (resistances.some((r) => r !== resistances[0])) lines.push(`! Reference resistances by port, ohm: ${resistances.join(' ')}`);
  lines.push(`# Hz S RI R ${resistances[0]}`);
  const pair = (c: Complex): string => `${c.re.toExponential(9)} ${c.im.toExponential(9)}`;
  for (let f = 0; f < frequency.length; f++) {
    // Two ports stand in the order 11 21 12 22 on one line; more in rows of at most four.
    if (n === 2) lines.push([frequency[f], ...[s[0][0], s[1][0], s[0][1], s[1][1]].map((c) => pair(c[f]))].join(' '));
    else
      s.forEach((row, to) => {
        for (let from = 0; from < n; from += 4)
          lines.push([...(to === 0 && from === 0 ? [String(frequency[f])] : [' ']), ...row.slice(from, from + 4).map((c) => pair(c[f]))].join(' '));
      });
  }
  return `${lines.join('\n')}\n`;
}

const units: Record<string, number> = { hz: 1, khz: 1e3, mhz: 1e6, ghz: 1e9 };

/** Reads a Touchstone 1.1 file of n ports in any of its number formats: s[to][from] over frequency. Throws an Error that names the line at fault. */
export function readTouchstone(text: string, n: number): { frequency: number[]; s: Complex[][][]; resistance: number } {
  const frequency: number[] = [];
  const s: Complex[][][] = Array.from({ length: n }, () => Array.from({ length: n }, () => []));
  let scale = 1e9;
  let form = 'ma';
  let resistance = 50;
  let numbers: number[] = [];
  const value = (a: number, b: number): Complex => {
    const size = form === 'db' ? 10 ** (a / 20) : a;
    const angle = (b * Math.PI) / 180;
    return form === 'ri' ? { re: a, im: b } : { re: size * Math.cos(angle), im: size * Math.sin(angle) };
  };
  text.split(/\r?\n/).forEach((raw, i) => {
    const line = raw.split('!')[0].trim();
    if (!line) return;
    if (line.startsWith('#')) {
      const words = line.slice(1).toLowerCase().trim().split(/\s+/);
      words.forEach((w, k) => {
        if (w in units) scale = units[w];
        else if (w === 'ri' || w === 'ma' || w === 'db') form = w;
        else if (w === 'r') resistance = Number(words[k + 1]);
      });
      return;
    }
    const found = line.split(/\s+/).map(Number);
    // A record begins with its frequency, so its first line has an odd count; lines that follow have pairs.
    const begins = numbers.length === 0;
    if (!found.every(Number.isFinite) || found.length % 2 !== (begins ? 1 : 0))
      throw new Error(`Line ${i + 1} is not a frequency and pairs of numbers.`);
    numbers.push(...found);
    if (numbers.length > 1 + 2 * n * n) throw new Error(`Line ${i + 1} has more numbers than ${n} ports need.`);
    if (numbers.length < 1 + 2 * n * n) {
      if (n === 1) throw new Error(`Line ${i + 1} is not a frequency and pairs of numbers.`);
      return;
    }
    frequency.push(numbers[0] * scale);
    for (let k = 0; k < n * n; k++) {
      const [to, from] = n === 2 ? [k % 2, k >> 1] : [Math.floor(k / n), k % n];
      s[to][from].push(value(numbers[1 + 2 * k], numbers[2 + 2 * k]));
    }
    numbers = [];
  });
  return { frequency, s, resistance };
}
