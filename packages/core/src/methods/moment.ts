import { z } from 'zod';
import { durationText } from '../expressions/format.ts';
import { type CommonEstimate, type CommonEvidence, defaultChange, finerDetail, megabytes, type Method, passDetails, threadsText } from './method.ts';

/** What a run on wires will cost. */
export interface WireEstimate extends CommonEstimate {
  solver: 'moment';
  segments: number;
  unknowns: number;
  /** Frequencies that are expected to be solved. */
  frequencies: number;
  segmentsPerWavelength: number;
}

/** Where a run on wires can be held against itself. */
export interface WireEvidence extends CommonEvidence {
  segments: number;
  unknowns: number;
  /** Least segments for a wavelength at the highest frequency. */
  segmentsPerWavelength: number;
  /** Frequencies that were solved; those between are told by a rational fit. */
  solved: number;
  /** How far off the fit was at the last frequencies that were solved to test it, over the largest value; null where every frequency was solved. */
  fitError: number | null;
  /** Over real earth, which takes what is neither radiated nor lost in the wires. */
  earth?: true;
  ended: 'solved' | 'stopped';
}

/**
 * How fine wires are cut: segments for each of the shortest wavelength, and how many times shorter they become, two-fold from one to the next, towards
 * free ends and gaps, where the charge gathers; never below two radii.
 */
export const wireAccuracy = {
  draft: { perWavelength: 20, grading: 1 },
  normal: { perWavelength: 40, grading: 8 },
  fine: { perWavelength: 80, grading: 16 },
  adaptive: { perWavelength: 60, grading: 16 },
} as const;
const segmentsText = (of: keyof typeof wireAccuracy): string => {
  const { perWavelength, grading } = wireAccuracy[of];
  return `${perWavelength} segments a wavelength${grading > 1 ? `, ${grading} times shorter at gaps and free ends` : ''}`;
};

const details = {
  segmentsPerWavelength: { schema: z.number().min(8).max(400).describe('Of wires'), label: 'segments a wavelength' },
  ...finerDetail,
  ...passDetails,
  eachFrequency: {
    schema: z.boolean().describe('Wires: every frequency of the band is solved; absent: few, with a rational function between them'),
    label: 'frequencies',
    choice: 'solve each of them',
    hint: 'otherwise few, with a rational function between them whose error is told',
  },
};

/** The integral equation of currents on thin wires, by the method of moments. */
export const moment = {
  name: 'moment',
  title: 'Wires',
  meaning: 'integral equation on thin wires',
  about: 'currents on thin round wires by an integral equation; no grid, no boundary; a whole band in seconds',
  accuracy: {
    draft: `quick look: ${segmentsText('draft')}`,
    normal: `for daily work: ${segmentsText('normal')}`,
    fine: `for the final word: ${segmentsText('fine')}`,
    adaptive: `passes with more segments each until S changes twice by less than ${defaultChange}, or what is set by hand`,
  },
  details,
  unit: 'unknowns',
  suits: (bodies) =>
    bodies.length && bodies.every((b) => b.wire && b.material.kind === 'conductor')
      ? 'All bodies are round wires, which are solved by their currents alone.'
      : null,
  costText: (e) =>
    `${e.segments.toLocaleString('en')} segments, ${e.unknowns.toLocaleString('en')} unknowns, ${megabytes(e.bytes)}, about ${e.frequencies} frequencies solved, at least ${e.segmentsPerWavelength.toFixed(0)} segments a wavelength at the highest`,
  size: (e) => e.unknowns,
  effortText: (e) => `${e.solved} frequencies of ${e.unknowns} unknowns`,
  rows: (e) => [
    ['segments, unknowns', `${e.segments.toLocaleString('en')}, ${e.unknowns.toLocaleString('en')}`],
    ['least segments a wavelength', e.segmentsPerWavelength.toFixed(1)],
    ['frequencies solved', `${e.solved}, ${e.ended === 'solved' ? 'all was solved' : 'stopped by hand'}`],
    [
      'rational fit between them',
      e.fitError === null ? 'none: each frequency was solved' : `foretold the last two within ${e.fitError.toExponential(1)}`,
    ],
    ['time', `${durationText(e.seconds)}, ${threadsText(e.threads)}, ${megabytes(e.bytes)}`],
  ],
  unbalanced: (e) => (e.earth ? 'not told: the rest goes into the earth' : null),
} as const satisfies Method<WireEvidence, WireEstimate>;
