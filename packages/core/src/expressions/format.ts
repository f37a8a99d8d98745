import type { Quantity } from '../entries/index.ts';

const scales: Record<Exclude<Quantity, 'number'> | 'area' | 'volume' | 'energy' | 'power' | 'current' | 'voltage', readonly (readonly [number, string])[]> = {
  length: [[1e-9, 'nm'], [1e-6, 'um'], [1e-3, 'mm'], [1, 'm']],
  frequency: [[1, 'Hz'], [1e3, 'kHz'], [1e6, 'MHz'], [1e9, 'GHz'], [1e12, 'THz']],
  resistance: [[1e-3, 'mohm'], [1, 'ohm'], [1e3, 'kohm'], [1e6, 'Mohm']],
  inductance: [[1e-12, 'pH'], [1e-9, 'nH'], [1e-6, 'uH'], [1, 'H']],
  capacitance: [[1e-15, 'fF'], [1e-12, 'pF'], [1e-9, 'nF'], [1e-6, 'uF'], [1, 'F']],
  conductivity: [[1, 'S/m'], [1e3, 'kS/m'], [1e6, 'MS/m']],
  area: [[1e-12, 'um^2'], [1e-6, 'mm^2'], [1, 'm^2']],
  volume: [[1e-18, 'um^3'], [1e-9, 'mm^3'], [1, 'm^3']],
  time: [[1e-15, 'fs'], [1e-12, 'ps'], [1e-9, 'ns'], [1e-6, 'us'], [1e-3, 'ms'], [1, 's']],
  energy: [[1e-18, 'aJ'], [1e-15, 'fJ'], [1e-12, 'pJ'], [1e-9, 'nJ'], [1e-6, 'uJ'], [1e-3, 'mJ'], [1, 'J']],
  power: [[1e-15, 'fW'], [1e-12, 'pW'], [1e-9, 'nW'], [1e-6, 'uW'], [1e-3, 'mW'], [1, 'W']],
  current: [[1e-9, 'nA'], [1e-6, 'uA'], [1e-3, 'mA'], [1, 'A'], [1e3, 'kA']],
  voltage: [[1e-9, 'nV'], [1e-6, 'uV'], [1e-3, 'mV'], [1, 'V'], [1e3, 'kV']],
  angle: [[Math.PI / 180, 'deg']],
}; // prettier-ignore

/** Units that a quantity can be told in, with their sizes; none where it is a plain number. */
export const unitsFor = (quantity: string): readonly (readonly [size: number, unit: string])[] =>
  (scales as Record<string, readonly (readonly [number, string])[]>)[quantity] ?? [];

/** The unit in which values up to `si` are best written, and its size: [1e9, 'GHz'] for 2.4e9 'frequency'; [1, ''] where there is none. */
export function unitFor(si: number, quantity: string): readonly [size: number, unit: string] {
  const table = (scales as Record<string, readonly (readonly [number, string])[]>)[quantity];
  if (!table) return [1, ''];
  let chosen = table[0];
  for (const entry of table) if (Math.abs(si) >= entry[0] * (1 - 1e-9)) chosen = entry; // Values just below a unit's size by rounding still take that unit.
  return chosen;
}

/** Seconds in words. */
export const durationText = (s: number): string =>
  s < 90 ? `${Math.max(1, Math.round(s))} s` : s < 5400 ? `${Math.round(s / 60)} min` : `${(s / 3600).toPrecision(2)} h`;

/** Writes an SI value with a fitting unit and at most `digits` significant digits: formatSI(0.0021, 'length') is '2.1 mm'. */
export function formatSI(si: number, quantity: Quantity | string, digits = 5): string {
  const table = (scales as Record<string, readonly (readonly [number, string])[]>)[quantity];
  const trim = (v: number): string => String(Number(v.toPrecision(digits)));
  if (!table) return trim(si);
  let chosen = unitFor(si, quantity);
  if (si === 0) chosen = table[Math.min(quantity === 'area' || quantity === 'volume' ? 1 : 2, table.length - 1)];
  return `${trim(si / chosen[0])} ${chosen[1]}`;
}

const prefixes = [[1e-15, 'f'], [1e-12, 'p'], [1e-9, 'n'], [1e-6, 'u'], [1e-3, 'm'], [1, ''], [1e3, 'k'], [1e6, 'M'], [1e9, 'G']] as const; // prettier-ignore

/** A value of any unit with a prefix before it: withPrefix(23800, 'V/m', 3) is '23.8 kV/m'. */
export function withPrefix(v: number, unit: string, digits = 4): string {
  if (v === 0 || !Number.isFinite(v)) return `${v === 0 ? 0 : '–'} ${unit}`;
  let chosen: (typeof prefixes)[number] = prefixes[0];
  for (const entry of prefixes) if (Math.abs(v) >= entry[0] * (1 - 1e-9)) chosen = entry;
  return `${Number((v / chosen[0]).toPrecision(digits))} ${chosen[1]}${unit}`;
}
