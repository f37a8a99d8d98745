import { formatSI, unitFor, unitsFor } from '../expressions/format.ts';
import type { Over } from './traceSources.ts';

/** What the units of curves measure, where they take prefixes. */
const measures: Record<string, string> = {
  s: 'time',
  ohm: 'resistance',
  W: 'power',
  Hz: 'frequency',
  m: 'length',
  J: 'energy',
  A: 'current',
  V: 'voltage',
};

/** What a unit of curves measures; undefined for decibels, degrees and plain figures. */
export const measureOfUnit = (unit: string): string | undefined => measures[unit];

/** Size of the unit that suits values of a unit up to `most`, and how it is written. */
export function unitOfAxis(unit: string, most: number, wanted?: string): { size: number; unit: string } {
  const measure = measures[unit];
  const own = measure && wanted ? unitsFor(measure).find(([, u]) => u === wanted) : undefined;
  if (own) return { size: own[0], unit: own[1] };
  if (!measure || !Number.isFinite(most) || most === 0) return { size: 1, unit };
  const [size, text] = unitFor(most, measure);
  return { size, unit: text };
}

/** Units that an axis can be told in. */
export const axisUnits = (unit: string): string[] => unitsFor(measures[unit] ?? '').map(([, u]) => u);

/** A value with its unit. */
export function valueText(v: number, unit: string, digits = 5): string {
  if (!Number.isFinite(v)) return v > 0 ? 'infinite' : '–';
  const measure = measures[unit];
  if (measure) return formatSI(v, measure, digits);
  if (unit === 'dB' || unit === 'dBi' || unit === 'deg') return `${v.toFixed(Math.abs(v) < 10 ? 3 : 2)} ${unit === 'deg' ? '°' : unit}`;
  return `${Number(v.toPrecision(digits))}${unit ? ` ${unit}` : ''}`;
}

/** What the axis over which curves run measures, by its kind. */
export const overUnit: Record<Over, string> = { frequency: 'Hz', wavelength: 'm', time: 's', angle: 'deg', number: '', parameter: '' };
