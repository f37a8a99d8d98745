import { intensity } from '../radiation/index.ts';
import { decibel, impedance, phaseDegrees, reflection, type ResultSet } from '../results/index.ts';
import { writeCsv } from './csv.ts';
import { writeS1p } from './touchstone.ts';

/** Touchstone text of the excited port; other ports stand terminated with their own resistance. */
export function touchstoneOf(result: ResultSet, title: string): string {
  const { frequency, s } = reflection(result, excitedIndex(result));
  const port = result.meta.ports[excitedIndex(result)];
  return writeS1p(frequency, s, port.resistance, [
    `${title}, port ${port.name}`,
    `Jade Bell ${result.meta.coreVersion}, ${result.meta.solver}, residual energy ${result.meta.evidence.residualEnergy.toExponential(2)}`,
  ]);
}

/** Index of the excited port. */
export const excitedIndex = (result: ResultSet): number =>
  Math.max(
    0,
    result.meta.ports.findIndex((p) => p.name === result.meta.excited),
  );

/** Reflection and input impedance over frequency as CSV. */
export function curvesCsv(result: ResultSet): string {
  const port = excitedIndex(result);
  const { frequency, s } = reflection(result, port);
  const z = s.map((v) => impedance(v, result.meta.ports[port].resistance));
  return writeCsv([
    { title: 'frequency (Hz)', values: frequency },
    { title: 'S11 real', values: s.map((v) => v.re) },
    { title: 'S11 imaginary', values: s.map((v) => v.im) },
    { title: 'S11 (dB)', values: s.map(decibel) },
    { title: 'S11 phase (deg)', values: s.map(phaseDegrees) },
    { title: 'input resistance (ohm)', values: z.map((v) => v.re) },
    { title: 'input reactance (ohm)', values: z.map((v) => v.im) },
  ]);
}

/** The recorded patterns as CSV: complex far field for 1 W incident, and directivity; null without a far field. */
export function patternCsv(result: ResultSet): string | null {
  const { farField } = result.meta;
  const array = result.arrays.farField;
  if (!farField || !array) return null;
  const [nf, nTheta, nPhi] = array.shape;
  const columns: { title: string; values: number[] }[] = [
    'frequency (Hz)',
    'theta (deg)',
    'phi (deg)',
    'E_theta real (V)',
    'E_theta imaginary (V)',
    'E_phi real (V)',
    'E_phi imaginary (V)',
    'directivity (dBi)',
  ].map((title) => ({ title, values: [] }));
  for (let f = 0; f < nf; f++) {
    const pattern = { nTheta, nPhi, values: array.data.subarray(f * nTheta * nPhi * 4, (f + 1) * nTheta * nPhi * 4) as Float64Array };
    for (let t = 0; t < nTheta; t++)
      for (let p = 0; p < nPhi; p++) {
        const at = (t * nPhi + p) * 4;
        const directivity = (4 * Math.PI * intensity(pattern, t, p)) / farField.figures[f].fromPattern;
        const row = [
          farField.figures[f].frequency,
          (180 * t) / (nTheta - 1),
          (360 * p) / nPhi,
          pattern.values[at],
          pattern.values[at + 1],
          pattern.values[at + 2],
          pattern.values[at + 3],
          Math.max(-200, 10 * Math.log10(directivity)),
        ];
        row.forEach((v, c) => columns[c].values.push(v));
      }
  }
  return writeCsv(columns);
}

/** Everything but fields and patterns as JSON: figures, evidence, S over the band. */
export function summaryJson(result: ResultSet): string {
  const { frequency, s } = reflection(result, excitedIndex(result));
  return JSON.stringify({ ...result.meta, frequency: Array.from(frequency), s11: s.map((v) => [v.re, v.im]) }, null, 2);
}
