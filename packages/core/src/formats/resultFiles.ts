import { eta0 } from '../numerics/constants.ts';
import { intensity } from '../radiation/index.ts';
import {
  channelNames,
  type Complex,
  decibel,
  impedance,
  phaseDegrees,
  referenceOf,
  referredTo,
  reflection,
  type ResultSet,
  sCurve,
  withoutGaps,
} from '../results/index.ts';
import { writeCsv } from './csv.ts';
import { writeTouchstone } from './touchstone.ts';

/**
 * Touchstone text, referred to an impedance (ohms) if one is given and it can be done, and without the gaps of lumped ports where that is asked and they are known: all
 * channels where each was excited, else the reflection of the first excited one; null where none was.
 */
export function touchstoneOf(
  result: ResultSet,
  title: string,
  { reference, gaps = 'kept' }: { reference?: Complex; gaps?: 'kept' | 'out' } = {},
): { text: string; ports: number } | null {
  if (!result.meta.excitations.length) return null;
  const bare = gaps === 'out' ? withoutGaps(result.arrays.s, result.arrays.frequency.data, result.meta) : null;
  const solved = bare ?? result.arrays.s;
  const referred = reference ? referredTo(solved, result.meta, reference) : null;
  const { ports, excitations, evidence, coreVersion, solver } = result.meta;
  const names = channelNames(ports);
  const frequency = result.arrays.frequency.data;
  const full = excitations.length === ports.length;
  const chosen = full ? ports.map((_, n) => n) : [excitations[0]];
  // Modes of guides stand on their own impedance; the format wants a number, so 1 ohm says that S is normalised to the ports themselves.
  const own = (n: number): boolean => !referred || referenceOf(ports[n]) === null;
  const references = chosen.map((n) => (own(n) ? ports[n].resistance || 1 : reference!.re));
  const notes = [
    `${title}, ${chosen.map((n, i) => `${i + 1}: ${names[n]}${ports[n].mode === undefined ? '' : ` (${ports[n].family} mode${own(n) ? ', referred to its own impedance' : ''})`}`).join(', ')}`,
    ...(referred && reference!.im
      ? [
          `Power waves on ${reference!.re} ${reference!.im < 0 ? '-' : '+'} ${Math.abs(reference!.im)}j ohm; the line below has room for its real part only`,
        ]
      : []),
    ...chosen.flatMap(
      (n, i) =>
      own(n) && ports[n].reactance ? [`Port ${i + 1} in power waves on ${ports[n].resistance} ${ports[n].reactance < 0 ? '-' : '+'} ${Math.abs(ports[n].reactance)}j ohm; the line below has room for its real part only`] : [], // prettier-ignore
    ),
    ...(bare ? ['Gaps of lumped ports taken out'] : []),
    `Jade Bell ${coreVersion}, ${solver}, residual energy ${evidence.residualEnergy.toExponential(2)}`,
  ];
  const s = chosen.map((to) => chosen.map((_, from) => sCurve(referred ?? solved, to, full ? excitations.indexOf(chosen[from]) : 0)));
  return { text: writeTouchstone(frequency, s, references, notes), ports: chosen.length };
}

/** S over frequency as CSV, and the input impedance of a lumped port; null where no port was excited. */
export function curvesCsv(result: ResultSet): string | null {
  if (!result.meta.excitations.length) return null;
  const { ports, excitations } = result.meta;
  const names = channelNames(ports);
  const columns: { title: string; values: ArrayLike<number> }[] = [{ title: 'frequency (Hz)', values: result.arrays.frequency.data }];
  excitations.forEach((from, e) =>
    ports.forEach((_, to) => {
      const s = sCurve(result.arrays.s, to, e);
      const name = ports.length === 1 ? 'S11' : `S ${names[to]} ${names[from]}`;
      columns.push(
        { title: `${name} real`, values: s.map((v) => v.re) },
        { title: `${name} imaginary`, values: s.map((v) => v.im) },
        { title: `${name} (dB)`, values: s.map(decibel) },
        { title: `${name} phase (deg)`, values: s.map(phaseDegrees) },
      );
    }),
  );
  const first = ports[excitations[0]];
  if (first.mode === undefined) {
    const z = reflection(result).s.map((v) => impedance(v, referenceOf(first)!));
    columns.push({ title: 'input resistance (ohm)', values: z.map((v) => v.re) }, { title: 'input reactance (ohm)', values: z.map((v) => v.im) });
  }
  return writeCsv(columns);
}

/** The recorded patterns as CSV: complex far field for 1 W incident, and directivity, or for a plane wave of 1 V/m, and radar cross-section; null without one. */
export function patternCsv(result: ResultSet): string | null {
  const { farField, scattered } = result.meta;
  const array = result.arrays.farField;
  const figures = farField?.figures ?? scattered?.figures;
  if (!figures || !array) return null;
  // What intensity is held against: the mean over all directions, or the power density of the wave.
  const mean = (f: number): number => (farField ? farField.figures[f].fromPattern : 1 / (2 * eta0));
  const [nf, nTheta, nPhi] = array.shape;
  const columns: { title: string; values: number[] }[] = [
    'frequency (Hz)',
    'theta (deg)',
    'phi (deg)',
    'E_theta real (V)',
    'E_theta imaginary (V)',
    'E_phi real (V)',
    'E_phi imaginary (V)',
    farField ? 'directivity (dBi)' : 'radar cross-section (dBsm)',
  ].map((title) => ({ title, values: [] }));
  for (let f = 0; f < nf; f++) {
    const pattern = { nTheta, nPhi, values: array.data.subarray(f * nTheta * nPhi * 4, (f + 1) * nTheta * nPhi * 4) as Float64Array };
    for (let t = 0; t < nTheta; t++)
      for (let p = 0; p < nPhi; p++) {
        const at = (t * nPhi + p) * 4;
        const level = (4 * Math.PI * intensity(pattern, t, p)) / mean(f);
        const row = [
          figures[f].frequency,
          (180 * t) / (nTheta - 1),
          (360 * p) / nPhi,
          pattern.values[at],
          pattern.values[at + 1],
          pattern.values[at + 2],
          pattern.values[at + 3],
          Math.max(-200, 10 * Math.log10(level)),
        ];
        row.forEach((v, c) => columns[c].values.push(v));
      }
  }
  return writeCsv(columns);
}

/** Everything but fields and patterns as JSON: figures, evidence, S over the band. */
export function summaryJson(result: ResultSet): string {
  if (!result.meta.excitations.length) return JSON.stringify(result.meta, null, 2);
  const { frequency, s } = reflection(result);
  return JSON.stringify({ ...result.meta, frequency: Array.from(frequency), s11: s.map((v) => [v.re, v.im]) }, null, 2);
}
