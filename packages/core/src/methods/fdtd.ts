import { z } from 'zod';
import { expression } from '../entries/index.ts';
import { durationText, formatSI } from '../expressions/format.ts';
import {
  type CommonEstimate,
  type CommonEvidence,
  defaultChange,
  finerDetail,
  megabytes,
  type Method,
  passDetails,
  type Rows,
  threadsText,
} from './method.ts';

/** What a run in time will cost. */
export interface TimeEstimate extends CommonEstimate {
  solver: 'fdtd';
  cells: [number, number, number];
  /** Seconds of simulated time per step. */
  timeStep: number;
  /** Expected steps; the run stops earlier or later as the energy decays. */
  steps: number;
  maxSteps: number;
  cellsPerWavelength: number;
  /** Seconds of the parts that make up all of them. */
  parts: { steps: number; fields: number; gaps: number };
}

/** Where a run in time can be held against itself. */
export interface TimeEvidence extends CommonEvidence {
  steps: number;
  /** Seconds. */
  timeStep: number;
  cells: [number, number, number];
  cellsPerWavelength: number;
  /** Field energy at the end over its peak. */
  residualEnergy: number;
  /** Why the run ended: 'decayed', 'settled' (the ports' waves change no more), 'steps' (limit reached) or 'stopped' by the user. */
  ended: 'decayed' | 'settled' | 'steps' | 'stopped';
  /** Runs that were cut short while ringing and whose waves were carried on by decaying exponentials: how far off these were on what they had not seen, and their resonances (hertz, quality factor). */
  carriedOn?: { runs: number; error: number; resonances: { frequency: number; q: number }[] };
  /** Largest difference of the waves of series that are faded as recorded fields are, at the frequencies of these, from those carried on. */
  fieldsOff?: number;
  /** Level of the exciting pulse at the band's edges against its strongest, dB. */
  pulseAtEdges: [number, number];
  /** By how much the step is shorter than what metal that cuts cells was thought to leave, as fields grew with that. */
  shortened?: number;
  /** In the steps alone; 0 where none were made, as all was there. */
  cellsPerSecond: number;
  /** Wall seconds of the parts of the run: modes of ports, steps, fields and patterns, references of gaps that were taken out. Older results lack it. */
  spent?: Partial<Record<keyof typeof partNames, number>>;
  /** Lumped ports whose gap was to be taken out, and why it could not. */
  gapsKept?: { name: string; why: string }[];
}

/** What the parts of a run are called. */
const partNames = { modes: 'modes', steps: 'steps', fields: 'fields and patterns', gaps: 'gaps' } as const;
/** Seconds of parts of a run in words, those that matter. */
const partsText = (parts: Partial<Record<keyof typeof partNames, number>>, least: number): string[] =>
  (Object.keys(partNames) as (keyof typeof partNames)[]).flatMap((k) =>
    (parts[k] ?? 0) > least ? [`${partNames[k]} ${durationText(parts[k]!)}`] : [],
  );
/** Part of all seconds below which a part of a run is not told. */
const leastTold = 0.02;

/**
 * What the accuracies mean: cells per shortest wavelength; cells across a strip or gap; across a layer; and cells of the whole grid up to which it follows
 * what runs across no axis.
 */
export const gridAccuracy = {
  draft: { cellsPerWavelength: 12, across: 2, layers: 1, followed: 1.5e6 },
  normal: { cellsPerWavelength: 18, across: 4, layers: 2, followed: 5e6 },
  fine: { cellsPerWavelength: 28, across: 6, layers: 3, followed: 20e6 },
  /** The first of several passes. */
  adaptive: { cellsPerWavelength: 18, across: 4, layers: 2, followed: 5e6 },
} as const;
const cellsText = (of: keyof typeof gridAccuracy): string => {
  const { cellsPerWavelength, across } = gridAccuracy[of];
  return `${cellsPerWavelength} cells a wavelength, ${across} across strips`;
};

/**
 * What is taken where nothing is set by hand: absorbing layers; field energy over its peak at which a run ends, with guided ports and without; periods of the
 * band's centre after which it ends anyway.
 */
export const steppingDefaults = { pmlLayers: 10, stopAt: 1e-5, stopAtGuided: 1e-7, periods: 200 } as const;

/** Cells of the shortest wavelength that a scene asks for. */
export const cellsPerWavelengthOf = (accuracy: keyof typeof gridAccuracy, details: { cellsPerWavelength?: number; finer?: number } = {}): number =>
  (details.cellsPerWavelength ?? gridAccuracy[accuracy].cellsPerWavelength) * (details.finer ?? 1);

/** Cells of the shortest wavelength that can be set by hand. */
export const mostCellsPerWavelength = 200;

const details = {
  cellsPerWavelength: { schema: z.number().min(6).max(mostCellsPerWavelength), label: 'cells a wavelength' },
  smallestCell: { schema: expression, label: 'smallest cell', hint: 'e.g. 0.2 mm; from the metal if empty' },
  pmlLayers: {
    schema: z.number().int().min(4).max(40),
    label: 'absorbing layers',
    unit: 'cells',
    hint: `${steppingDefaults.pmlLayers} if empty`,
  },
  stopAt: {
    schema: z.number().min(1e-12).max(0.1).describe('Field energy, relative to its peak, at which the run ends'),
    label: 'stop at energy',
    unit: 'of the peak',
    hint: `${steppingDefaults.stopAt.toExponential()} if empty, ${steppingDefaults.stopAtGuided.toExponential()} with guided ports`,
  },
  ...finerDetail,
  ...passDetails,
  maxSteps: { schema: z.number().int().min(100).max(10_000_000), label: 'most steps', hint: `${steppingDefaults.periods} periods if empty` },
};

const endings: Record<TimeEvidence['ended'], string> = {
  decayed: 'the energy had decayed',
  settled: 'the waves at the ports had settled',
  steps: 'the step limit was reached',
  stopped: 'stopped by hand',
};

/** What a run will spend its time on beside its steps, where it matters. */
function beside({ parts: { steps, ...others } }: TimeEstimate): string {
  const all = partsText(others, leastTold * (steps + others.fields + others.gaps));
  return all.length ? `; beside them ${all.join(', ')}` : '';
}

const ringing = ({ carriedOn, fieldsOff }: TimeEvidence): Rows => {
  const resonances = carriedOn?.resonances.slice(0, 6).map((r) => `${formatSI(r.frequency, 'frequency', 5)} ${r.q.toPrecision(3)}`) ?? [];
  return [
    ...(carriedOn
      ? [['rest of the ringing carried on by decaying exponentials', `foretold within ${(100 * carriedOn.error).toPrecision(2)} %`] as const]
      : []),
    ...(resonances.length ? [['resonances and Q', resonances.join('; ')] as const] : []),
    ...(fieldsOff === undefined
      ? []
      : [['recorded fields, faded out at the end', `within ${(100 * fieldsOff).toPrecision(2)} %, by the waves at the ports`] as const]),
  ].map(([a, b]): [string, string] => [a, b]);
};

/** Error of recorded fields from which on it is warned of. */
const fieldsWarned = 5e-3;

/** Finite differences in the time domain. */
export const fdtd = {
  name: 'fdtd',
  title: 'Time domain',
  meaning: 'finite-difference time domain',
  about: 'fields on a grid in time; one run covers the band; takes any body',
  accuracy: {
    draft: `quick look: ${cellsText('draft')}`,
    normal: `for daily work: ${cellsText('normal')}`,
    fine: `for the final word: ${cellsText('fine')}`,
    adaptive: `passes on finer grids, refined where the field changes fast, until S changes twice by less than ${defaultChange}, or what is set by hand`,
  },
  details,
  unit: 'cells',
  suits: (bodies) => {
    const other = bodies.find((b) => !b.wire || b.material.kind !== 'conductor');
    return other ? `${other.name} is no wire, so the fields around it are solved.` : null;
  },
  costText: (e) => {
    const times = e.excitations > 1 ? `${e.excitations} × ` : '';
    return `${e.cells.join(' × ')} cells, ${megabytes(e.bytes)}, about ${times}${e.steps.toLocaleString('en')} steps of ${(e.timeStep * 1e12).toPrecision(3)} ps, at least ${e.cellsPerWavelength.toFixed(0)} cells a wavelength at the highest frequency${beside(e)}${e.passes ? `; this in the first pass, ${e.passes} at least, each about twice the one before` : ''}`;
  },
  size: (e) => e.cells.reduce((p, n) => p * n, 1),
  effortText: (e) => `${e.steps} steps, residual energy ${e.residualEnergy.toExponential(2)}`,
  rows: (e, channels) => [
    ['field energy at the end', `${(10 * Math.log10(e.residualEnergy)).toFixed(1)} dB, ${endings[e.ended]}`],
    ...ringing(e),
    ...channels.flatMap(({ name, gap }): Rows =>
      gap
        ? [
            [
              `gap of ${name}, by ${gap.impedance ? 'a reference line' : 'its current spread over the metal across it'}`,
              `${formatSI(gap.capacitance[0], 'capacitance', 3)} across, ${formatSI(gap.inductance[0], 'inductance', 3)} in series;${gap.impedance ? ` it sees ${gap.impedance[0].toPrecision(4)} ohm;` : ''} S off by ${gap.before.toPrecision(2)} with, ${gap.after.toPrecision(2)} without`,
            ],
          ]
        : [],
    ),
    ...(e.gapsKept ?? []).map(({ name, why }): [string, string] => [`gap of ${name} kept`, why]),
    ['least cells a wavelength', e.cellsPerWavelength.toFixed(1)],
    ['cells', e.cells.join(' × ')],
    [
      'steps',
      `${e.steps.toLocaleString('en')} of ${(e.timeStep * 1e12).toPrecision(3)} ps${e.shortened ? `, ${e.shortened.toPrecision(2)} of the first, with which fields grew` : ''}`,
    ],
    ['pulse at the band’s edges', e.pulseAtEdges.map((d) => `${d.toFixed(1)} dB`).join(', ')],
    [
      'time',
      `${durationText(e.seconds)}, ${threadsText(e.threads)}, ${(e.cellsPerSecond / 1e6).toFixed(0)} Mcell/s in the steps, ${megabytes(e.bytes)}`,
    ],
    ...(e.spent ? [['of which', partsText(e.spent, leastTold * e.seconds).join(', ')] as [string, string]] : []),
  ],
  cautions: (e) => [
    ...(e.ended === 'steps'
      ? [
          `It reached its step limit with ${formatSI(10 * Math.log10(e.residualEnergy), 'number', 3)} dB of energy left: read sharp resonances with care.`,
        ]
      : []),
    ...((e.fieldsOff ?? 0) > fieldsWarned
      ? [
          `S is settled, but the recorded fields still hold some of what creeps at a cutoff beside the band: they are off by ${(100 * e.fieldsOff!).toPrecision(2)} % or so. Record at frequencies further from the cutoff, or raise the most steps.`,
        ]
      : []),
    ...(e.gapsKept ?? []).map(({ name, why }) => `The gap of ${name} is still in its results: ${why}`),
  ],
  speed: (e) => e.cellsPerSecond || undefined,
} as const satisfies Method<TimeEvidence, TimeEstimate>;
