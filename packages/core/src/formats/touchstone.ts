import { type Complex, polar } from '../numerics/complex.ts';

const pair = ([re, im]: Complex): string => `${re.toExponential(9)} ${im.toExponential(9)}`;

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
  const reader = new Reader(ports ?? 0);
  text.split(/\r?\n/).forEach((line, i) => reader.take(line, i + 1));
  return reader.done();
}

/** Takes a file line by line; each may change how the next ones are read. */
class Reader {
  private readonly frequency: number[] = [];
  private s: Complex[][][] = [];
  private scale = 1e9;
  private form = 'ma';
  private resistance = 50;
  private references: number[] | null = null;
  /** Reference resistances that the next lines still give. */
  private wanted = 0;
  private complex: Complex[] | null = null;
  private version = 1;
  /** Whether lines are those of the network now. */
  private reading = true;
  private order = '21_12';
  /** Numbers of the record that is being read. */
  private numbers: number[] = [];

  constructor(private n: number) {}

  private readonly keywords: Record<string, (rest: string, at: number) => void> = {
    version: () => {
      this.version = 2;
      this.reading = false;
      this.order = '12_21';
    },
    'number of ports': (rest, at) => {
      this.n = Number(rest);
      if (!Number.isInteger(this.n) || this.n < 1 || this.n > 100) throw new Error(`Line ${at} names ${rest} ports; between 1 and 100 can be read.`);
    },
    'two-port data order': (rest) => void (this.order = rest),
    reference: (rest) => {
      this.references = rest.split(/\s+/).filter(Boolean).map(Number);
      this.wanted = this.n - this.references.length;
    },
    'matrix format': (rest, at) => {
      if (rest.toLowerCase() !== 'full') throw new Error(`Line ${at} asks for a ${rest} matrix; only full ones can be read.`);
    },
    'network data': () => void (this.reading = true),
    'noise data': () => void (this.reading = false),
    end: () => void (this.reading = false),
  };

  /**
   * A line and its number from 1.
   * @throws Error where it cannot be read, with its number.
   */
  take(raw: string, at: number): void {
    if (raw.startsWith(complexLine)) {
      this.complex = complexReferences(raw.slice(complexLine.length));
      return;
    }
    const line = raw.split('!')[0].trim();
    if (!line) return;
    const keyword = /^\[([^\]]+)\]\s*(.*)$/.exec(line);
    if (keyword) this.keywords[keyword[1].toLowerCase()]?.(keyword[2], at);
    else if (line.startsWith('#')) this.takeOptions(line.slice(1), at);
    else this.takeNumbers(line.split(/\s+/).map(Number), at);
  }

  private takeOptions(line: string, at: number): void {
    const words = line.toLowerCase().trim().split(/\s+/);
    words.forEach((w, k) => {
      if (w in units) this.scale = units[w];
      else if (w === 'ri' || w === 'ma' || w === 'db') this.form = w;
      else if (w === 'r' && words[k + 1] !== undefined) this.resistance = Number(words[k + 1]);
      else if (['y', 'z', 'g', 'h'].includes(w))
        throw new Error(`Line ${at} says that the file holds ${w.toUpperCase()}-parameters; only S can be read.`);
    });
  }

  private takeNumbers(found: number[], at: number): void {
    if (this.references && this.wanted > 0) {
      this.references.push(...found);
      this.wanted -= found.length;
      return;
    }
    if (!this.reading) return;
    const { n, numbers, frequency } = this;
    if (!n) throw new Error(`Line ${at} comes before the number of ports is known: name the file .s1p, .s2p and so on.`);
    // A record begins with its frequency, so its first line has an odd count; lines that follow have pairs.
    const begins = numbers.length === 0;
    // Noise parameters may follow the S of two ports; their frequencies begin anew.
    if (begins && n === 2 && found.length === 5 && this.version === 1 && found[0] * this.scale <= (frequency.at(-1) ?? -Infinity)) {
      this.reading = false;
      return;
    }
    if (!found.every(Number.isFinite) || found.length % 2 !== (begins ? 1 : 0))
      throw new Error(`Line ${at} is not a frequency and pairs of numbers.`);
    numbers.push(...found);
    if (numbers.length > 1 + 2 * n * n) throw new Error(`Line ${at} has more numbers than ${n} ports need.`);
    if (numbers.length === 1 + 2 * n * n) this.keepRecord();
    else if (n === 1) throw new Error(`Line ${at} is not a frequency and pairs of numbers.`);
  }

  private keepRecord(): void {
    const { n, numbers } = this;
    if (!this.s.length) this.s = Array.from({ length: n }, () => Array.from({ length: n }, () => []));
    this.frequency.push(numbers[0] * this.scale);
    for (let k = 0; k < n * n; k++) {
      const [to, from] = n === 2 && this.order.startsWith('21') ? [k % 2, k >> 1] : [Math.floor(k / n), k % n];
      this.s[to][from].push(this.value(numbers[1 + 2 * k], numbers[2 + 2 * k]));
    }
    this.numbers = [];
  }

  private value(a: number, b: number): Complex {
    return this.form === 'ri' ? [a, b] : polar(this.form === 'db' ? 10 ** (a / 20) : a, (b * Math.PI) / 180);
  }

  /**
   * What was read.
   * @throws Error where the last record is not whole.
   */
  done(): TouchstoneData {
    const { n, numbers, frequency, s } = this;
    if (numbers.length) throw new Error(`The last record is not whole: it has ${numbers.length} of ${1 + 2 * n * n} numbers.`);
    const plain = (this.references ?? Array.from({ length: n }, () => this.resistance)).map((re): Complex => [re, 0]);
    return { frequency, s, references: this.complex ?? plain };
  }
}

/** Complex references as our own comment has them: 50-20j and so on. */
const complexReferences = (text: string): Complex[] =>
  text
    .trim()
    .split(/\s+/)
    .map((z) => {
      const m = /^([\d.e+-]*?\d)([+-][\d.e+-]*\d)j$/i.exec(z);
      return [Number(m?.[1]), Number(m?.[2])];
    });
