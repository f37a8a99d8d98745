import type { Complex } from '../results/index.ts';

/**
 * One-port Touchstone file, version 1.1 (IBIS Open Forum, 2002): hertz, S, real and imaginary parts, real reference
 * resistance in ohms. `notes` become comment lines.
 */
export function writeS1p(frequency: ArrayLike<number>, s: readonly Complex[], resistance: number, notes: readonly string[] = []): string {
  const lines = notes.flatMap((n) => n.split(/\r?\n/)).map((n) => `! ${n}`);
  lines.push(`# Hz S RI R ${resistance}`);
  s.forEach((v, i) => lines.push(`${frequency[i]} ${v.re.toExponential(9)} ${v.im.toExponential(9)}`));
  return `${lines.join('\n')}\n`;
}

const units: Record<string, number> = { hz: 1, khz: 1e3, mhz: 1e6, ghz: 1e9 };

/** Reads a one-port Touchstone 1.1 file in any of its number formats. Throws an Error that names the line at fault. */
export function readS1p(text: string): { frequency: number[]; s: Complex[]; resistance: number } {
  const frequency: number[] = [];
  const s: Complex[] = [];
  let scale = 1e9;
  let form = 'ma';
  let resistance = 50;
  text.split(/\r?\n/).forEach((raw, i) => {
    const line = raw.split('!')[0].trim();
    if (!line) return;
    if (line.startsWith('#')) {
      const words = line.slice(1).toLowerCase().trim().split(/\s+/);
      words.forEach((w, n) => {
        if (w in units) scale = units[w];
        else if (w === 'ri' || w === 'ma' || w === 'db') form = w;
        else if (w === 'r') resistance = Number(words[n + 1]);
      });
      return;
    }
    const [f, a, b] = line.split(/\s+/).map(Number);
    if (![f, a, b].every(Number.isFinite)) throw new Error(`Line ${i + 1} is not three numbers.`);
    frequency.push(f * scale);
    const size = form === 'db' ? 10 ** (a / 20) : a;
    const angle = (b * Math.PI) / 180;
    s.push(form === 'ri' ? { re: a, im: b } : { re: size * Math.cos(angle), im: size * Math.sin(angle) });
  });
  return { frequency, s, resistance };
}
