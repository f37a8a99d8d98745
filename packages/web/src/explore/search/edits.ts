import { type Bound, type Goal, goalSchema, type Measure, type Project, type SearchPlan, searchSchema } from '@jadebell/core/document';
import { unitOfMeasure } from '@jadebell/core/exploring';
import { evaluateParameters, formatSI } from '@jadebell/core/expressions';
import { useProject } from '../../project/store.ts';
import { freeOf, withMeasures } from '../study/edits.ts';

const edit = (label: string, change: (d: Project) => Project): void => useProject.getState().edit(label, change);

/** How far around its value a parameter may move in a search that is new. */
const around = 0.3;

/** Bounds of a parameter that are new: around what it is. */
export function freshBound(project: Project, parameter: string): Bound {
  const own = evaluateParameters(project).summary[parameter];
  const text = (v: number): string => formatSI(Number(v.toPrecision(3)), own?.measure ?? 'plain number', 3);
  const si = own?.si ?? 0;
  return { parameter, from: si ? text(si * (1 - around)) : text(0), to: si ? text(si * (1 + around)) : text(1) };
}

/** A goal of a measure that is new: a value that such a figure often should have. */
export function freshGoal(project: Project, measure: Measure): Goal {
  const unit = unitOfMeasure(measure, project) ?? '';
  const { from, to } = project.solve;
  const values: Record<string, Pick<Goal, 'aim' | 'value'>> = {
    Hz: { aim: 'equal', value: `(${from} + ${to}) / 2` },
    dB: { aim: 'at-most', value: '-20' },
    dBi: { aim: 'at-least', value: '6' },
    ohm: { aim: 'equal', value: '50 ohm' },
    deg: { aim: 'equal', value: '0 deg' },
  };
  return goalSchema.parse({ measure: measure.name, ...(values[unit] ?? { aim: 'equal', value: '1' }) });
}

/** Adds a search that moves a parameter, for a measure or the first of the project; gives its name. */
export function addSearch(parameter: string, measure?: Measure): string {
  const project = useProject.getState().document!;
  const name = freeOf([...(project.searches ?? []), ...(project.studies ?? [])], `${parameter}_search`.slice(0, 40));
  edit('new search', (d) => {
    const next = withMeasures(d);
    const sought = measure ?? next.measures?.[0];
    const made = searchSchema.parse({ name, bounds: [freshBound(d, parameter)], goals: sought ? [freshGoal(d, sought)] : [] });
    return { ...next, searches: [...(d.searches ?? []), made] };
  });
  return name;
}

export const changeSearch = (name: string, change: (s: SearchPlan) => SearchPlan, what = 'search'): void =>
  edit(`${name} ${what}`, (d) => ({ ...d, searches: (d.searches ?? []).map((s) => (s.name === name ? change(s) : s)) }));

export const removeSearch = (name: string): void =>
  edit('remove search', (d) => ({ ...d, searches: (d.searches ?? []).filter((s) => s.name !== name) }));
