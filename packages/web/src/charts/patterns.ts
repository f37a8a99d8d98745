import { intensity, type Pattern } from '@jadebell/core/radiation';
import type { PatternFigures, ScatterFigures } from '@jadebell/core/results';

/** What a pattern is read as: a factor from intensity, the largest value, and its unit in dB. */
export interface PatternScale {
  label: string;
  unit: 'dBi' | 'dBsm';
  /** Per W/sr. */
  factor: number;
  peak: number;
}

const gains = { directivity: 'directivity', gain: 'gain', realisedGain: 'realised gain' } as const;

/** Directivity, gain and realised gain of an antenna. */
export const antennaScales = (f: PatternFigures): PatternScale[] =>
  (['directivity', 'gain', 'realisedGain'] as const).map((q) => ({
    label: gains[q],
    unit: 'dBi',
    factor: (f[q] / f.directivity) * ((4 * Math.PI) / f.fromPattern),
    peak: f[q],
  }));

const eta0 = 376.730313668;

/** Radar cross-section of a scatterer lit with 1 V/m. */
export const radarScales = (f: ScatterFigures): PatternScale[] => [
  { label: 'radar cross-section', unit: 'dBsm', factor: 8 * Math.PI * eta0, peak: f.largest },
];

/** dB of what the scale stands for in direction (t, p) of the grid. */
export const patternDb = (pattern: Pattern, scale: PatternScale, t: number, p: number): number =>
  10 * Math.log10(Math.max(1e-12 * scale.peak, intensity(pattern, t, p) * scale.factor));

export type Cut = 'phi0' | 'phi90' | 'horizon';

/** A full turn through the pattern: constant phi (theta from 0 down one side and up the other; also by its number), or theta = 90 deg. */
export function cutOf(pattern: Pattern, scale: PatternScale, cut: Cut | number): number[] {
  const { nTheta, nPhi } = pattern;
  const db = (t: number, p: number): number => patternDb(pattern, scale, t, p);
  if (cut === 'horizon') return Array.from({ length: nPhi }, (_, p) => db((nTheta - 1) / 2, p));
  const first = typeof cut === 'number' ? cut : cut === 'phi0' ? 0 : nPhi / 4;
  const opposite = (first + nPhi / 2) % nPhi;
  const turn = 2 * (nTheta - 1);
  return Array.from({ length: turn }, (_, i) => (i < nTheta ? db(i, first) : db(turn - i, opposite)));
}
