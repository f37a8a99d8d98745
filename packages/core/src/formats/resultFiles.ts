import { eta0 } from '../numerics/constants.ts';
import { intensity } from '../radiation/index.ts';
import {
  channelNames,
  sKey,
  type Complex,
  decibel,
  impedance,
  phaseDegrees,
  referenceOf,
  reflection,
  type ResultSet,
  sCurve,
} from '../results/index.ts';
import { asSolved, type NetworkView, viewNetwork } from '../reading/index.ts';
import { writeCsv } from './csv.ts';
import { writeTouchstone, writeTouchstone2 } from './touchstone.ts';
import { effortText } from '../methods/index.ts';

/** How S is seen in a file: as on a board. */
export interface TouchstoneView extends Partial<NetworkView> {
  /** 1.1 has one real reference for all ports, 2.0 one for each. */
  version?: '1' | '2';
}

/**
 * Touchstone text of S as it is seen: with gaps of lumped ports taken out, planes moved, references changed where that is asked and can be done. All
 * channels where each was excited, else the reflection of the first excited one; null where none was.
 */
export function touchstoneOf(
  result: ResultSet,
  title: string,
  view: TouchstoneView = {},
): { text: string; ports: number; version: '1' | '2' } | null {
  const { meta, arrays } = result;
  if (!meta.excitations.length) return null;
  const { ports, excitations, coreVersion, solver } = meta;
  const frequency = arrays.frequency.data;
  const { version = '1', ...how } = view;
  const network = viewNetwork(meta, frequency, arrays.s, arrays.beta, { ...asSolved, ...how });
  const names = channelNames(ports);
  const full = excitations.length === ports.length;
  const chosen = full ? ports.map((_, n) => n) : [excitations[0]];
  const own = chosen.map((n) => sameImpedance(network.references[n], referenceOf(ports[n])));
  // Modes of guides stand on their own impedance; the format wants a number, so 1 ohm says that S is normalised to the ports themselves.
  const references = chosen.map((n, i): Complex => (own[i] && ports[n].mode !== undefined ? [1, 0] : (network.references[n] ?? [1, 0])));
  const shifts = Object.entries(how.shifts ?? {}).filter(([, l]) => l !== 0);
  const notes = [
    `${title}, ${chosen.map((n, i) => `${i + 1}: ${names[n]}${ports[n].mode === undefined ? '' : ` (${ports[n].modeName ?? ports[n].family} mode${own[i] ? ', referred to its own impedance' : ''})`}`).join(', ')}`,
    ...references.flatMap((z, i) =>
      z[1] && version === '1'
        ? [`Port ${i + 1} in power waves on ${z[0]} ${z[1] < 0 ? '-' : '+'} ${Math.abs(z[1])}j ohm; the line below has room for its real part only`]
        : [],
    ),
    ...shifts.map(([port, l]) => `Plane of ${port} moved into the structure by ${l} m`),
    ...(network.bare ? ['Gaps of lumped ports taken out'] : []),
    ...network.refused,
    `Jade Bell ${coreVersion}, ${solver}, ${effortText(meta)}`,
  ];
  const s = chosen.map((to) => chosen.map((_, from) => sCurve(network.s, to, full ? excitations.indexOf(chosen[from]) : 0)));
  const text =
    version === '2'
      ? writeTouchstone2(frequency, s, references, notes)
      : writeTouchstone(
          frequency,
          s,
          references.map((z) => z[0]),
          notes,
        );
  return { text, ports: chosen.length, version };
}

const sameImpedance = (a: Complex | null, b: Complex | null): boolean => (a === null || b === null ? a === b : a[0] === b[0] && a[1] === b[1]);

/** S over frequency as CSV, and the input impedance of a lumped port; null where no port was excited. */
export function curvesCsv(result: ResultSet): string | null {
  if (!result.meta.excitations.length) return null;
  const { ports, excitations } = result.meta;
  const names = channelNames(ports);
  const columns: { title: string; values: ArrayLike<number> }[] = [{ title: 'frequency (Hz)', values: result.arrays.frequency.data }];
  excitations.forEach((from, e) =>
    ports.forEach((_, to) => {
      const s = sCurve(result.arrays.s, to, e);
      const name = ports.length === 1 ? 'S11' : `${sKey(ports, to, from)} ${names[to]}, ${names[from]}`;
      columns.push(
        { title: `${name} real`, values: s.map((v) => v[0]) },
        { title: `${name} imaginary`, values: s.map((v) => v[1]) },
        { title: `${name} (dB)`, values: s.map(decibel) },
        { title: `${name} phase (deg)`, values: s.map(phaseDegrees) },
      );
    }),
  );
  const first = ports[excitations[0]];
  if (first.mode === undefined) {
    const z = reflection(result).s.map((v) => impedance(v, referenceOf(first)!));
    columns.push({ title: 'input resistance (ohm)', values: z.map((v) => v[0]) }, { title: 'input reactance (ohm)', values: z.map((v) => v[1]) });
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

/** Everything but fields and patterns as JSON: figures, evidence, S over the band of all channels by their names, and the reflection of the first that was excited. */
export function summaryJson(result: ResultSet): string {
  const { ports, excitations } = result.meta;
  if (!excitations.length) return JSON.stringify(result.meta, null, 2);
  const { frequency, s: s11 } = reflection(result);
  const names = channelNames(ports);
  const s = excitations.flatMap((from, e) => names.map((to, n) => ({ to, from: names[from], values: sCurve(result.arrays.s, n, e) })));
  return JSON.stringify({ ...result.meta, frequency: Array.from(frequency), s, s11 }, null, 2);
}
