import { abs, add, arg, type Complex, conj, div, mul, sub } from '../numerics/complex.ts';
import type { AtFrequencies, RecorderTold, Told } from '../recorders/index.ts';
import type { ResultArray, ResultMeta, ResultSet } from './resultSet.ts';

export { readReference, referenceOf, referredTo } from '../network/renormalise.ts';
export { atFrequency, knowsGaps, deembedded } from '../network/deembed.ts';

/** What recorders of a kind told. */
export const recordedOf = <K extends RecorderTold['kind']>({ recorded }: { recorded: readonly RecorderTold[] }, kind: K): Told<K>[] =>
  recorded.filter((r): r is Told<K> => r.kind === kind);

/** Frequencies of the arrays and lists of a recorder, hertz. */
export const frequenciesKept = (meta: ResultMeta, told: AtFrequencies | undefined): readonly number[] => told?.frequencies ?? meta.recordAt;

/** Frequencies of the far field, hertz. */
export const farFrequencies = (meta: ResultMeta): readonly number[] => (meta.farField ?? meta.scattered)?.figures.map((f) => f.frequency) ?? [];

/** S over the band from an array `s` of a result: wave out of channel `to` for a wave into the channel of excitation `from`. */
export function sCurve({ data, shape }: ResultArray, to: number, from: number): Complex[] {
  // Results of version 1 have one excitation, and no axis for it.
  const [n, channels, excitations] = shape.length === 4 ? shape : [shape[0], shape[1], 1];
  return Array.from({ length: n }, (_, f) => {
    const at = 2 * ((f * channels + to) * excitations + from);
    return [data[at], data[at + 1]];
  });
}

/** Reflection at the first excited channel over the band, with its frequencies, Hz. */
export function reflection(result: ResultSet): { frequency: Float64Array; s: Complex[] } {
  return { frequency: result.arrays.frequency.data as Float64Array, s: sCurve(result.arrays.s, result.meta.excitations[0], 0) };
}

/** What channels are known by in cards and lenses: the port, and the number of the mode where it has several. */
export const channelKeys = (ports: ResultMeta['ports']): string[] =>
  ports.map((p) => (p.mode !== undefined && ports.filter((o) => o.name === p.name).length > 1 ? `${p.name}:${p.mode}` : p.name));

/** Names of channels as they are read: the port, and the mode where it has several. */
export const channelNames = (ports: ResultMeta['ports']): string[] =>
  ports.map((p) => (p.mode !== undefined && ports.filter((o) => o.name === p.name).length > 1 ? `${p.name} ${modeText(p, ports)}` : p.name));

/** What a mode of a port is called: by its kind, and by its number where results of old have no kind or two of one port have the same. */
function modeText(p: ResultMeta['ports'][number], ports: ResultMeta['ports']): string {
  if (!p.modeName) return `mode ${p.mode}`;
  const alike = ports.filter((o) => o.name === p.name && o.modeName === p.modeName);
  return alike.length > 1 ? `${p.modeName} no. ${alike.indexOf(p) + 1}` : p.modeName;
}

/** Number of the port, from 1, that each channel belongs to. */
const portNumbers = (ports: ResultMeta['ports']): number[] => {
  const names = [...new Set(ports.map((p) => p.name))];
  return ports.map((p) => names.indexOf(p.name) + 1);
};

/** How a term of S is read: S11 of a structure with one channel, else S right, left: from the second to the first. */
export function sName(ports: ResultMeta['ports'], to: number, from: number): string {
  const names = channelNames(ports);
  return ports.length === 1 ? 'S11' : `S ${names[to]}, ${names[from]}`;
}

/** What a term of S is known by in cards: S21, or S2(1),1(3) where a port has several modes, by port and mode. */
export function sKey(ports: ResultMeta['ports'], to: number, from: number): string {
  const numbers = portNumbers(ports);
  const many = numbers.length !== new Set(numbers).size;
  const part = (n: number): string => (many ? `${numbers[n]}${ports[n].mode === undefined ? '' : `(${ports[n].mode})`}` : String(numbers[n]));
  const [a, b] = [part(to), part(from)];
  return `S${a}${many || a.length + b.length > 2 ? ',' : ''}${b}`;
}

/** 20 log10 |s|, with a floor of -200 dB. */
export const decibel = (s: Complex): number => Math.max(-200, 20 * Math.log10(abs(s)));
/** Phase in degrees, -180 to 180. */
export const phaseDegrees = (s: Complex): number => (arg(s) * 180) / Math.PI;

/** Input impedance (z* + z s) / (1 - s) of a power wave's reflection on a reference impedance z, ohms. */
export function impedance(s: Complex, z: Complex): Complex {
  return div(add(conj(z), mul(z, s)), sub([1, 0], s));
}

/**
 * Frequencies at which the reactance passes through zero upwards (series resonance), by linear interpolation, Hz, with the
 * resistance there.
 */
export function resonances(frequency: ArrayLike<number>, z: readonly Complex[]): { frequency: number; resistance: number }[] {
  const found: { frequency: number; resistance: number }[] = [];
  for (let i = 1; i < z.length; i++) {
    const [a, b] = [z[i - 1][1], z[i][1]];
    if (!(a < 0 && b >= 0)) continue;
    const t = a / (a - b);
    found.push({ frequency: frequency[i - 1] + t * (frequency[i] - frequency[i - 1]), resistance: z[i - 1][0] + t * (z[i][0] - z[i - 1][0]) });
  }
  return found;
}
