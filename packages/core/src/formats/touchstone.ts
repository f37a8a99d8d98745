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
  const pair = (c: Complex): string => `${c[0].toExponential(9)} ${c[1].toExponential(9)}`;
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

/** What a Touchstone file holds. */
export interface TouchstoneData {
  frequency: number[];
  /** s[to][from] over frequency. */
  s: Complex[][][];
  /** Reference impedance of each port, ohms. */
  references: Complex[];
}

/**
 * Touchstone file of n ports, version 2.0 (IBIS Open Forum, 2009): as before, with a reference of its own for each port. The format knows real
 * references only; where one is complex, S stands on power waves for it and a comment line, which our reader heeds, tells it.
 */
export function writeTouchstone2(
  frequency: ArrayLike<number>,
  s: readonly (readonly (readonly Complex[])[])[],
  references: readonly Complex[],
  notes: readonly string[] = [],
): string {
  const n = s.length;
  const pair = (c: Complex): string => `${c[0].toExponential(9)} ${c[1].toExponential(9)}`;
  const lines = [
    ...notes.flatMap((t) => t.split(/\r?\n/)).map((t) => `! ${t}`),
    ...(references.some((z) => z[1])
      ? [`${complexLine} ${references.map((z) => `${z[0]}${z[1] < 0 ? '-' : '+'}${Math.abs(z[1])}j`).join(' ')}`]
      : []),
    '[Version] 2.0',
    `# Hz S RI R ${references[0][0]}`,
    `[Number of Ports] ${n}`,
    ...(n === 2 ? ['[Two-Port Data Order] 12_21'] : []),
    `[Number of Frequencies] ${frequency.length}`,
    `[Reference] ${references.map((z) => z[0]).join(' ')}`,
    '[Matrix Format] Full',
    '[Network Data]',
  ];
  for (let f = 0; f < frequency.length; f++)
    s.forEach((row, to) => {
      for (let from = 0; from < n; from += 4)
        lines.push([...(to === 0 && from === 0 ? [String(frequency[f])] : [' ']), ...row.slice(from, from + 4).map((c) => pair(c[f]))].join(' '));
    });
  return `${lines.join('\n')}\n[End]\n`;
}
const complexLine = '! Complex references, ohm:';

const units: Record<string, number> = { hz: 1, khz: 1e3, mhz: 1e6, ghz: 1e9 };

/**
 * Reads a Touchstone file of version 1.1 (n ports, as its name's ending says) or 2.0 (full matrices of S) in any of its number formats. Throws an
 * Error that names the line at fault.
 * @throws Error that names the line at fault.
 */
export function readTouchstone(text: string, ports: number | null): TouchstoneData {
  const frequency: number[] = [];
  let n = ports ?? 0;
  let s: Complex[][][] = [];
  let scale = 1e9;
  let form = 'ma';
  let resistance = 50;
  let references: number[] | null = null;
  let complex: Complex[] | null = null;
  let version = 1;
  let reading = true;
  let order = '21_12';
  let wantsReference = 0;
  let numbers: number[] = [];
  const value = (a: number, b: number): Complex => {
    const size = form === 'db' ? 10 ** (a / 20) : a;
    const angle = (b * Math.PI) / 180;
    return form === 'ri' ? [a, b] : [size * Math.cos(angle), size * Math.sin(angle)];
  };
  const keywords: Record<string, (rest: string, at: number) => void> = {
    version: () => {
      version = 2;
      reading = false;
      order = '12_21';
    },
    'number of ports': (rest, at) => {
      n = Number(rest);
      if (!Number.isInteger(n) || n < 1 || n > 100) throw new Error(`Line ${at} names ${rest} ports; between 1 and 100 can be read.`);
    },
    'two-port data order': (rest) => void (order = rest),
    reference: (rest) => {
      references = rest.split(/\s+/).filter(Boolean).map(Number);
      wantsReference = n - references.length;
    },
    'matrix format': (rest, at) => {
      if (rest.toLowerCase() !== 'full') throw new Error(`Line ${at} asks for a ${rest} matrix; only full ones can be read.`);
    },
    'network data': () => void (reading = true),
    'noise data': () => void (reading = false),
    end: () => void (reading = false),
  };
  text.split(/\r?\n/).forEach((raw, i) => {
    if (raw.startsWith(complexLine)) {
      complex = raw.slice(complexLine.length).trim().split(/\s+/).map((z) => {
        const m = /^([\d.e+-]*?\d)([+-][\d.e+-]*\d)j$/i.exec(z);
        return [Number(m?.[1]), Number(m?.[2])];
      }); // prettier-ignore
      return;
    }
    const line = raw.split('!')[0].trim();
    if (!line) return;
    const keyword = /^\[([^\]]+)\]\s*(.*)$/.exec(line);
    if (keyword) return keywords[keyword[1].toLowerCase()]?.(keyword[2], i + 1);
    if (line.startsWith('#')) {
      const words = line.slice(1).toLowerCase().trim().split(/\s+/);
      words.forEach((w, k) => {
        if (w in units) scale = units[w];
        else if (w === 'ri' || w === 'ma' || w === 'db') form = w;
        else if (w === 'r' && words[k + 1] !== undefined) resistance = Number(words[k + 1]);
        else if (['y', 'z', 'g', 'h'].includes(w))
          throw new Error(`Line ${i + 1} says that the file holds ${w.toUpperCase()}-parameters; only S can be read.`);
      });
      return;
    }
    const found = line.split(/\s+/).map(Number);
    if (references && wantsReference > 0) {
      references.push(...found);
      wantsReference -= found.length;
      return;
    }
    if (!reading) return;
    if (!n) throw new Error(`Line ${i + 1} comes before the number of ports is known: name the file .s1p, .s2p and so on.`);
    // A record begins with its frequency, so its first line has an odd count; lines that follow have pairs.
    const begins = numbers.length === 0;
    // Noise parameters may follow the S of two ports; their frequencies begin anew.
    if (begins && n === 2 && found.length === 5 && version === 1 && frequency.length && found[0] * scale <= frequency[frequency.length - 1])
      reading = false;
    if (!reading) return;
    if (!found.every(Number.isFinite) || found.length % 2 !== (begins ? 1 : 0))
      throw new Error(`Line ${i + 1} is not a frequency and pairs of numbers.`);
    if (!s.length) s = Array.from({ length: n }, () => Array.from({ length: n }, () => []));
    numbers.push(...found);
    if (numbers.length > 1 + 2 * n * n) throw new Error(`Line ${i + 1} has more numbers than ${n} ports need.`);
    if (numbers.length < 1 + 2 * n * n) {
      if (n === 1) throw new Error(`Line ${i + 1} is not a frequency and pairs of numbers.`);
      return;
    }
    frequency.push(numbers[0] * scale);
    for (let k = 0; k < n * n; k++) {
      const [to, from] = n === 2 && order.startsWith('21') ? [k % 2, k >> 1] : [Math.floor(k / n), k % n];
      s[to][from].push(value(numbers[1 + 2 * k], numbers[2 + 2 * k]));
    }
    numbers = [];
  });
  if (numbers.length) throw new Error(`The last record is not whole: it has ${numbers.length} of ${1 + 2 * n * n} numbers.`);
  const plain = (references ?? Array.from({ length: n }, () => resistance)).map((re): Complex => [re, 0]);
  return { frequency, s, references: complex ?? plain };
}
