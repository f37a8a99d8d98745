import {
  isFormula,
  isSpread,
  type Measure,
  measureSchema,
  type Move,
  moveKinds,
  moveSchema,
  nameText,
  parametersUsed,
  type Project,
  renameMeasure,
  settingOf,
  settingsToMove,
  type Study,
  studySchema,
  takeKinds,
  variesAbout,
} from '@jadebell/core/document';
import { atValues } from '@jadebell/core/exploring';
import { evaluateParameters, formatSI } from '@jadebell/core/expressions';
import { useProject } from '../../project/store.ts';
import { keepVariant } from '../../project/variants.ts';
import { goAt } from '../../ui/address.ts';

const edit = (label: string, change: (d: Project) => Project): void => useProject.getState().edit(label, change);

/** A name that none of some things has. */
export function freeOf(taken: readonly { name: string }[], stem: string): string {
  const names = new Set(taken.map((t) => t.name));
  if (!names.has(stem)) return stem;
  const base = stem.replace(/\d+$/, '').slice(0, 36);
  for (let n = 2; ; n++) if (!names.has(`${base}${n}`)) return `${base}${n}`;
}

/** All that has a page in Explore: their names are told apart, as runs are known by them. */
export const useWays = (): readonly { name: string }[] => {
  const studies = useProject((s) => s.document?.studies);
  const searches = useProject((s) => s.document?.searches);
  return [...(studies ?? []), ...(searches ?? [])];
};

/** Why a study or measure cannot have a name; null if it can. */
export const nameFaultOf = (taken: readonly { name: string }[], own: string, name: string): string | null =>
  !nameText.safeParse(name).success
    ? 'A name starts with a letter and has letters, digits and _ only.'
    : name !== own && taken.some((t) => t.name === name)
      ? `${name} is taken already.`
      : null;

/** Parameters of a project with their values, those first that something uses, and settings of its solver that a study can move. */
export function allToMove(project: Project): { name: string; about: string }[] {
  const settings = settingsToMove(project.solve.solver, project.solve.details);
  return [...parametersToMove(project), ...settings.map(({ name, label, value }) => ({ name, about: `${label} ${value}` }))];
}

/** Parameters of a project with their values, those first that something uses. */
export function parametersToMove(project: Project): { name: string; about: string }[] {
  const { summary } = evaluateParameters(project);
  const used = parametersUsed({ ...project, studies: [], measures: [], searches: [], variants: [] });
  return project.parameters
    .filter((p) => p.name in summary)
    .map(({ name }) => ({ name, about: `${formatSI(summary[name].si, summary[name].measure)}${used.has(name) ? '' : ', not used'}` }))
    .sort((a, b) => Number(a.about.endsWith('not used')) - Number(b.about.endsWith('not used')));
}

/** How far around its value a parameter moves in a study that is new. */
const around = 0.2;
const freshPoints = 5;

/** Up to how many times finer than it is a mesh is made in a study that is new, and in how many points. */
const [finest, freshMeshes] = [2, 4];

/** A move of a parameter that is new: around what it is; of a setting from what it is upwards, by equal ratios. */
export function freshMove(project: Project, parameter: string): Move {
  const setting = settingsToMove(project.solve.solver, project.solve.details).find((s) => s.name === parameter);
  if (setting)
    return moveSchema.parse({ parameter, how: 'count', from: String(setting.value), to: String(finest * setting.value), points: freshMeshes, spacing: 'logarithmic' }); // prettier-ignore
  const own = evaluateParameters(project).summary[parameter];
  const text = (v: number): string => formatSI(Number(v.toPrecision(3)), own?.measure ?? 'plain number', 3);
  const si = own?.si ?? 0;
  return moveSchema.parse({
    parameter,
    how: 'count',
    from: si ? text(si * (1 - around)) : text(0),
    to: si ? text(si * (1 + around)) : text(1),
    points: freshPoints,
  });
}

/** Adds a study that moves a parameter, with measures to read where the project has none; gives its name. */
export function addStudy(parameter: string): string {
  const project = useProject.getState().document!;
  const stem = settingOf(parameter) ?? parameter;
  const name = freeOf([...(project.studies ?? []), ...(project.searches ?? [])], `${stem}_study`.slice(0, 40));
  edit('new study', (d) => ({ ...withMeasures(d), studies: [...(d.studies ?? []), studySchema.parse({ name, moves: [freshMove(d, parameter)] })] }));
  return name;
}

/** A project with something to read where it has nothing. */
export const withMeasures = (d: Project): Project => (d.measures?.length ? d : { ...d, measures: firstMeasures(d) });

/** What is read of a project that says nothing: where it is matched, and how well. */
const firstMeasures = (project: Project): Measure[] =>
  project.ports.length
    ? [
        measureSchema.parse({ name: 'tuned_to', quantity: 's', take: 'where-least' }),
        measureSchema.parse({ name: 'match', quantity: 's', take: 'least' }),
      ]
    : [];

export const changeStudy = (name: string, change: (s: Study) => Study, what = 'study'): void =>
  edit(`${name} ${what}`, (d) => ({ ...d, studies: (d.studies ?? []).map((s) => (s.name === name ? change(s) : s)) }));

export const removeStudy = (name: string): void => edit('remove study', (d) => ({ ...d, studies: (d.studies ?? []).filter((s) => s.name !== name) }));

/** Puts a copy of a study behind it; gives its name. */
export function copyStudy(study: Study): string {
  const { studies = [], searches = [] } = useProject.getState().document!;
  const name = freeOf([...studies, ...searches], study.name);
  edit('copy study', (d) => ({ ...d, studies: (d.studies ?? []).flatMap((s) => (s.name === study.name ? [s, { ...s, name }] : [s])) }));
  return name;
}

/** What a parameter that varies is off by where nothing is said, of its value. */
const usualTolerance = 0.02;

/** A move that goes another way, between the same values where it has them. */
export function movedAs(move: Move, how: Move['how'], project: Project): Move {
  const fresh = freshMove(project, move.parameter) as Extract<Move, { how: 'count' }>;
  const ends = 'from' in move ? { from: move.from, to: move.to } : 'values' in move ? { from: move.values[0], to: move.values.at(-1)! } : fresh;
  const { from, to } = ends.from === ends.to ? fresh : ends;
  const own = evaluateParameters(project).summary[move.parameter];
  const off = Number(((own?.si || 1) * usualTolerance).toPrecision(2));
  const about = 'about' in moveKinds[move.how].fields ? move : { by: formatSI(Math.abs(off), own?.measure ?? 'plain number', 3) };
  const made: Record<string, unknown> = {
    values: [from, to],
    from,
    to,
    points: freshPoints,
    ...about,
    ...(how === 'step' ? { by: `((${to}) - (${from})) / ${freshPoints - 1}` } : {}),
    parameter: move.parameter,
    how,
  };
  const fields = ['parameter', 'how', ...Object.keys(moveKinds[how].fields)];
  return moveSchema.parse(Object.fromEntries(fields.filter((f) => f in made).map((f) => [f, made[f]])));
}

/** Points by which a study of what varies begins, for each parameter and at least, and those that are kept for the check. */
const [pointsEach, leastPoints, fewChecks] = [8, 16, 6];

/** A study in which a parameter stays: what it was linked to is no longer. */
export function withoutMove(study: Study, parameter: string): Study {
  const links = study.links?.filter((l) => l.a !== parameter && l.b !== parameter);
  return { ...study, moves: study.moves.filter((m) => m.parameter !== parameter), links: links?.length ? links : undefined };
}

/** A study with one of its moves changed: points of what varies are spread. */
export function withMove(study: Study, n: number, move: Move): Study {
  const moves = study.moves.map((m, i) => (i === n ? move : m));
  if (!variesAbout(move) || study.moves.some(variesAbout) || isSpread(study.together)) return { ...study, moves };
  return { ...study, moves, together: 'sobol', points: Math.max(leastPoints, pointsEach * moves.length), checks: fewChecks };
}

/** Adds a measure that is new; of what is given. */
export function addMeasure(quantity: string, of: string): void {
  edit('new measure', (d) => ({
    ...d,
    measures: [...(d.measures ?? []), measureSchema.parse({ name: freeOf(d.measures ?? [], 'measure'), quantity, of, take: 'least' })],
  }));
}

export const changeMeasure = (name: string, next: Measure): void =>
  edit(`${name} measure`, (d) => ({ ...d, measures: (d.measures ?? []).map((m) => (m.name === name ? next : m)) }));

export const removeMeasure = (name: string): void =>
  edit('remove measure', (d) => ({ ...d, measures: (d.measures ?? []).filter((m) => m.name !== name) }));

export const renameMeasureTo = (from: string, to: string): void => edit('rename measure', (d) => renameMeasure(d, from, to));

/** A measure that takes another figure of the same curve; what both take of it stays. */
export function takenAs(measure: Measure, take: Measure['take'], band: { from: string; to: string }, others: readonly Measure[]): Measure {
  // A formula begins with another measure, and one that was a formula with the reflection.
  if (take === 'formula')
    return measureSchema.parse({ name: measure.name, note: measure.note, take, formula: others.find((m) => m.name !== measure.name)?.name ?? '1' });
  if (isFormula(measure))
    return takenAs(measureSchema.parse({ name: measure.name, note: measure.note, quantity: 's', take: 'least' }), take, band, others);
  const { name, quantity, of, form, note } = measure;
  const stretch = 'from' in measure && 'from' in takeKinds[take].fields ? { from: measure.from, to: measure.to } : {};
  const own: Partial<Record<Measure['take'], object>> = { at: { at: `(${band.from} + ${band.to}) / 2` }, width: { level: -10, side: 'below' } };
  return measureSchema.parse({ name, quantity, of, form, note, take, ...stretch, ...own[take] });
}

/** Gives parameters of the project values, in SI. */
export const takeValues = (values: Record<string, string>): void => edit('take over values', (d) => atValues(d, new Map(Object.entries(values))));

/** Keeps the project with values of some parameters as a variant, and goes where variants are. */
export function keepAndShow(values: Readonly<Record<string, string>>): void {
  // A variant is of parameters alone.
  keepVariant(Object.fromEntries(Object.entries(values).filter(([name]) => !settingOf(name))));
  goAt({ study: null, search: null, way: 'variants' });
}
