import type { Read } from '@jadebell/core/exploring';
import { formatSI, unitFor, unitsFor } from '@jadebell/core/expressions/format';
import { unitOfAxis, valueText } from '@jadebell/core/reading';
import type { StudyCardOf } from '@jadebell/core/document';
import type { PlotAxis } from '../../charts/plot/parts.ts';
import type { PointsData, StudyRow } from './useStudyData.ts';

/** A figure in words; a dash where there is none. */
export const readText = (read: Read | undefined): string =>
  !read || read.value === null ? '–' : `${read.open ? 'at least ' : ''}${valueText(read.value, read.unit)}`;

/** What cards of a search call the place of a point in the order of trying. */
export const order = 'tried';

type AxisSettings = StudyCardOf<'over'>['x'];

const largest = (values: Iterable<number>): number => {
  let most = 0;
  for (const v of values) if (Number.isFinite(v)) most = Math.max(most, Math.abs(v));
  return most;
};
const axis = ({ title, min, max, log }: AxisSettings, size: number, name: string, unit: string): PlotAxis => ({
  label: title ?? (unit ? `${name} (${unit})` : name),
  min,
  max,
  log,
  size,
});

/** Units in which a parameter can be told. */
export const unitsOfParameter = (measure: string): string[] => unitsFor(measure).map(([, u]) => u);

/** The axis of a parameter. */
export function parameterAxis(settings: AxisSettings, name: string, measure: string, values: Iterable<number>): PlotAxis {
  const wanted = unitsFor(measure).find(([, u]) => u === settings.unit);
  const [size, unit] = wanted ?? unitFor(largest(values), measure);
  return axis(settings, size, name, unit);
}

/** The axis of figures in a unit. */
export function figureAxis(settings: AxisSettings, name: string, unit: string, values: Iterable<number>): PlotAxis {
  const own = unitOfAxis(unit, largest(values), settings.unit);
  return axis(settings, own.size, name, own.unit);
}

/** A parameter of a study by its name, or what stands for none. */
export const movedOf = ({ moved }: PointsData, name: string | undefined, otherwise: number): PointsData['moved'][number] | undefined =>
  moved.find((m) => m.parameter === name) ?? moved[otherwise < 0 ? moved.length + otherwise : otherwise];

/** The value of a measure of a point, NaN where it has none. */
export const figure = (row: StudyRow, measure: string): number => row.reads.get(measure)?.value ?? NaN;

/** The values of a point of other parameters than some, in words. */
export const restText = (row: StudyRow, { moved }: PointsData, but: readonly string[]): string =>
  moved
    .filter((m) => !but.includes(m.parameter))
    .map((m) => `${m.parameter} ${formatSI(row.values[m.parameter], m.measure, 4)}`)
    .join(', ');
