import type { PatternFigures, ScatterFigures } from '../results/index.ts';

type Numeric<T> = { [K in keyof T]-?: T[K] extends number ? K : never }[keyof T];
type Figure = Numeric<PatternFigures> | Numeric<ScatterFigures>;
const degrees = (x: number): number => (180 * x) / Math.PI;
const decibels = (x: number): number => 10 * Math.log10(x);

/** What each figure of a far field is called, with its unit, and how it is told. */
const words: Record<Figure, { title: string; tell?: (x: number) => number }> = {
  frequency: { title: 'frequency (Hz)' },
  directivity: { title: 'directivity (dBi)', tell: decibels },
  gain: { title: 'gain (dBi)', tell: decibels },
  realisedGain: { title: 'realised gain (dBi)', tell: decibels },
  radiationEfficiency: { title: 'radiation efficiency' },
  totalEfficiency: { title: 'total efficiency' },
  accepted: { title: 'accepted (W)' },
  radiated: { title: 'radiated, through the box (W)' },
  fromPattern: { title: 'radiated, by the pattern' },
  lost: { title: 'lost (W)' },
  scattering: { title: 'scattering cross-section (m²)' },
  absorption: { title: 'absorption cross-section (m²)' },
  extinction: { title: 'extinction cross-section (m²)' },
  largest: { title: 'largest radar cross-section (m²)' },
  back: { title: 'radar cross-section back (m²)' },
  theta: { title: 'theta of the largest (°)', tell: degrees },
  phi: { title: 'phi of the largest (°)', tell: degrees },
};

/** Columns of a table of the figures of a far field, in words with units. */
export const figureColumns = (figures: readonly (PatternFigures | ScatterFigures)[]): { key: string; title: string; values: number[] }[] =>
  (Object.keys(words) as Figure[]).flatMap((key) => {
    const { title, tell = (x: number) => x } = words[key];
    const all = figures.map((f) => (f as unknown as Record<string, number>)[key]);
    return all.length && all.every((x) => typeof x === 'number') ? [{ key, title, values: all.map(tell) }] : [];
  });
