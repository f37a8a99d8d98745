import { goalsOf } from './goals.ts';
import {
  MoveFault,
  parametersUsed,
  problem,
  type Place,
  type Problem,
  type Project,
  type Study,
  type Move,
  mostPoints,
  digester,
  isSpread,
  moveKinds,
  pointsSpread,
  settingFault,
  settingOf,
  settingsToMove,
  type Varies,
  valuesOf,
  variesOf,
} from '../document/index.ts';
import { evaluateAny, evaluateParameters, formatSI, plainNumber, type Scope } from '../expressions/index.ts';
import { unitsFor } from '../expressions/format.ts';
import { canLink, drawing, latinHypercube, type Link, mostDimensions, randomOf, sobol, type Spread } from '../searching/index.ts';

/** A parameter of a study with the values that it takes. */
export interface Moved {
  parameter: string;
  /** What it measures, in words, as 'length'. */
  measure: string;
  /** In SI, and as expressions. */
  values: Value[];
  /** Points may have any value between the first and the last. */
  between?: boolean;
  /** How it is spread about its middle, in SI, where that is no even choice of its values. */
  varies?: Varies;
}

interface Value {
  si: number;
  text: string;
}

/** A point of a study: an ordinary project. */
export interface Point {
  /** By parameter, in SI. */
  values: Record<string, number>;
  project: Project;
  /** Of what a run of it solves. */
  digest: string;
  /** It is kept to check a model through the others. */
  check?: true;
}

/** Digits to which values are written. */
const digits = 12;
/** Digits of values that are spread: more would only make them longer to read. */
const spreadDigits = 5;

/** What a study comes to; no points where it makes no sense. */
export interface Plan {
  moved: Moved[];
  points: Point[];
  problems: Problem[];
}

/** Reads expressions as values of a parameter. */
export interface ParameterReader {
  /** What it measures, in words. */
  measure: string;
  /** Its value in the project, SI. */
  si: number;
  /** In SI; NaN where the expression is no such value. */
  number(text: string, field: string): number;
  /** What was wrong first. */
  refused: Problem | null;
}

/** A setting of Solve as it stands, as parameters are. */
function settingNow(project: Project, name: string): { si: number; measure: string } | undefined {
  const found = settingsToMove(project.solve.solver, project.solve.details).find((s) => s.name === name);
  return found && { si: found.value, measure: plainNumber };
}

/** What reads values of a parameter, or why there are none; `at` gives the place of a field. */
export function parameterReader(project: Project, scope: Scope, name: string, at: (field: string) => Place): ParameterReader | Problem {
  const setting = settingOf(name);
  const own = setting ? settingNow(project, name) : scope.summary[name];
  if (setting && !own)
    return problem('error', 'study.no-setting', at('parameter'), `There is no setting ${name} to move.`, 'Set it by hand in Solve first, or move another.'); // prettier-ignore
  if (!setting && !project.parameters.some((p) => p.name === name))
    return problem('error', 'expression.unknown-name', at('parameter'), `There is no parameter named ${name}.`, 'Choose one of the project.');
  if (!own) return problem('error', 'expression.depends', at('parameter'), `${name} has no value.`, `Mend ${name} first.`);
  const reader: ParameterReader = {
    ...own,
    refused: null,
    number(text, field) {
      const found = evaluateAny(text, scope, at(field));
      if ('problem' in found) reader.refused ??= found.problem;
      else if (found.measure === own.measure) {
        const fault = setting && settingFault(project.solve.solver, setting, found.si);
        if (!fault) return found.si;
        reader.refused ??= problem('error', 'study.setting', at(field), `${name} takes no ${text}.`, fault);
      } else
        reader.refused ??= problem(
          'error',
          'expression.wrong-unit',
          at(field),
          `${name} is a ${own.measure}, and ‘${text}’ is a ${found.measure}.`,
          own.measure === plainNumber ? 'Leave the unit out.' : `Give a ${own.measure}, such as ${formatSI(own.si, own.measure)}.`,
        );
      return NaN;
    },
  };
  return reader;
}

/** Whether values of a measure can be written as expressions. */
export const isWritten = (measure: string): boolean => unitsFor(measure).length > 0 || measure === plainNumber;

function movedBy(move: Move, n: number, project: Project, scope: Scope, place: Place): Moved | Problem {
  const at = (field: string): Place => ({ ...place, chip: `moves.${n}.${field}` });
  const own = parameterReader(project, scope, move.parameter, at);
  if ('severity' in own) return own;
  const written = isWritten(own.measure);
  if (!written && move.how !== 'list')
    return problem('error', 'study.no-unit', at('how'), `Steps of a ${own.measure} cannot be written with a unit.`, 'List the values one by one.');
  try {
    const values = valuesOf(move, own.number, own.si);
    const varies = moveKinds[move.how].between ? variesOf(move, own.number, own.si) : undefined;
    if (own.refused) return own.refused;
    return {
      parameter: move.parameter,
      measure: own.measure,
      values: values.map((si, i) => ({ si, text: written || move.how !== 'list' ? formatSI(si, own.measure, digits) : move.values[i] })),
      ...(varies ? { between: true, varies } : {}),
    };
  } catch (error) {
    if (own.refused) return own.refused;
    if (error instanceof MoveFault) return problem('error', 'study.move', at(error.field), error.message, error.fix);
    throw error;
  }
}

/** Values that the points take, one a parameter. */
function combinations(moved: readonly Moved[], { together, points = pointsSpread, name }: Study): Value[][] {
  if (together === 'beside') return moved[0].values.map((_, n) => moved.map((m) => m.values[n]));
  if (!isSpread(together)) return moved.reduce<Value[][]>((rows, m) => rows.flatMap((row) => m.values.map((v) => [...row, v])), [[]]);
  const places = together === 'sobol' ? sobol(points, moved.length) : latinHypercube(points, moved.length, seedOf(name));
  return places.map((place) => moved.map((m, i) => valueAtShare(m, place[i])));
}

/** How each parameter is spread, in SI. */
export const spreadsOf = (moved: readonly Moved[]): Spread[] =>
  moved.map((m) => m.varies?.spread ?? { kind: 'list', values: m.values.map((v) => v.si) });

/** Points by which a model through the others is checked, as what varies may come. */
function checksOf(moved: readonly Moved[], { checks = 0, together, links = [], name }: Study): Value[][] {
  if (!checks || !isSpread(together)) return [];
  const [random, draw] = [randomOf(seedOf(name) + 1), drawing(spreadsOf(moved), linksOf(moved, links))];
  return Array.from({ length: checks }, () => draw(moved.map(random)).map((si, i) => written(moved[i], si)));
}

/** Links of a study between parameters by their places. */
export const linksOf = (moved: readonly Moved[], links: NonNullable<Study['links']>): Link[] => {
  const at = (name: string): number => moved.findIndex((m) => m.parameter === name);
  return links.map(({ a, b, by }) => ({ a: at(a), b: at(b), by }));
};

/** A value of a parameter that is spread, with no more digits than it needs. */
function written({ measure, values, between }: Moved, exact: number): Value {
  const si = Number(exact.toPrecision(spreadDigits));
  return { si, text: between ? formatSI(si, measure, digits) : (values.find((v) => v.si === exact)?.text ?? formatSI(si, measure, digits)) };
}

/** The same points each time a study is planned. */
const seedOf = (name: string): number => [...name].reduce((seed, c) => (Math.imul(seed, 31) + c.charCodeAt(0)) >>> 0, 7);

/** The value at a share, from 0 to 1, of what a parameter may be. */
function valueAtShare(moved: Moved, share: number): Value {
  const { values, between } = moved;
  if (!between) return values[Math.min(values.length - 1, Math.floor(share * values.length))];
  return written(moved, values[0].si + (values[1].si - values[0].si) * share);
}

/** How many points a study has. */
function countOf(moved: readonly Moved[], { together, points = pointsSpread, checks = 0 }: Study): number {
  if (isSpread(together)) return points + checks;
  return together === 'beside' ? moved[0].values.length : moved.reduce((p, m) => p * m.values.length, 1);
}

/** The project with parameters, and settings of Solve, at values of their own. */
export function atValues(project: Project, texts: ReadonlyMap<string, string>, accuracy?: Study['accuracy']): Project {
  const settings = [...texts].flatMap(([name, text]) => {
    const key = settingOf(name);
    return key ? [[key, Number(text)] as const] : [];
  });
  return {
    ...project,
    parameters: project.parameters.map((p) => (texts.has(p.name) ? { ...p, expression: texts.get(p.name)! } : p)),
    solve: {
      ...project.solve,
      ...(accuracy ? { accuracy } : {}),
      ...(settings.length ? { details: { ...project.solve.details, ...Object.fromEntries(settings) } } : {}),
    },
  };
}

function linkFault({ a, b }: NonNullable<Study['links']>[number], n: number, moved: readonly Moved[], place: Place): Problem[] {
  const missing = [a, b].find((name) => !moved.some((m) => m.parameter === name));
  if (missing === undefined && a !== b) return [];
  const said = missing === undefined ? `${a} is linked to itself.` : `${missing} is linked, and does not move.`;
  return [problem('error', 'study.links', { ...place, chip: `links.${n}` }, said, 'Link two parameters that move.')];
}

/** What moves in a study, how many points that makes, and what stands against it: no points where it makes no sense. */
export function planMoves(project: Project, study: Study): { moved: Moved[]; count: number; problems: Problem[] } {
  const place: Place = { part: 'studies', name: study.name };
  const problems: Problem[] = [];
  const scope = evaluateParameters(project);
  const moved: Moved[] = [];
  study.moves.forEach((move, n) => {
    const found = movedBy(move, n, project, scope, place);
    if ('severity' in found) problems.push(found);
    else if (moved.some((m) => m.parameter === found.parameter))
      problems.push(
        problem('error', 'study.twice', { ...place, chip: `moves.${n}.parameter` }, `${found.parameter} moves twice.`, 'Leave one of the two out.'),
      );
    else moved.push(found);
  });
  const none = (p?: Problem): ReturnType<typeof planMoves> => ({ moved, count: 0, problems: p ? [...problems, p] : problems });
  if (problems.length) return none();
  const lengths = moved.map((m) => m.values.length);
  if (study.together === 'beside' && new Set(lengths).size > 1)
    return none(
      problem(
        'error',
        'study.lengths',
        { ...place, chip: 'together' },
        `Side by side they have ${lengths.join(', ')} values.`,
        'Give as many of each, or take all combinations.',
      ),
    );
  if (study.together === 'sobol' && moved.length > mostDimensions)
    return none(
      problem(
        'error',
        'study.dimensions',
        { ...place, chip: 'together' },
        `${moved.length} parameters move; an even spread takes ${mostDimensions}.`,
        'Move fewer, or spread at random.',
      ),
    );
  const linked = (study.links ?? []).flatMap((link, n) => linkFault(link, n, moved, place));
  if (linked.length) return { moved, count: 0, problems: [...problems, ...linked] };
  if (study.links && !canLink(linksOf(moved, study.links), moved.length))
    return none(
      problem(
        'error',
        'study.links',
        { ...place, chip: 'links' },
        'No parameters can vary together in all these ways at once.',
        'Take one of the links away, or make it weaker.',
      ),
    );
  problems.push(...goalsOf(project, 'studies', study, scope).problems);
  const count = problems.some((p) => p.severity === 'error') ? 0 : countOf(moved, study);
  if (count > mostPoints)
    return none(
      problem(
        'error',
        'study.size',
        place,
        `The study has ${count.toLocaleString('en')} points; ${mostPoints.toLocaleString('en')} are the most.`,
        'Give fewer values, or move fewer parameters.',
      ),
    );
  const used = parametersUsed({ ...project, studies: [], measures: [], searches: [], variants: [] });
  moved.forEach(({ parameter }, n) => {
    if (!used.has(parameter) && !settingOf(parameter))
      problems.push(
        problem(
          'warning',
          'study.moves-nothing',
          { ...place, chip: `moves.${n}.parameter` },
          `Nothing uses ${parameter}: all its points are the same.`,
          'Use it in a line or a setting, or move another.',
        ),
      );
  });
  return { moved, count, problems };
}

/** The points of a study, or why there are none. */
export function planStudy(project: Project, study: Study): Plan {
  const { moved, count, problems } = planMoves(project, study);
  if (!count) return { moved, points: [], problems };
  const digestOf = digester();
  const spread = combinations(moved, study);
  const points = [...spread, ...checksOf(moved, study)].map((own, n): Point => {
    const point = atValues(project, new Map(moved.map((m, i) => [m.parameter, own[i].text])), study.accuracy);
    return {
      values: Object.fromEntries(moved.map((m, i) => [m.parameter, own[i].si])),
      project: point,
      digest: digestOf(point),
      ...(n < spread.length ? {} : { check: true }),
    };
  });
  return { moved, points, problems };
}

/** A study in words: 'bend from 20 mm to 40 mm, 9 values'. */
export function studyText(moved: readonly Moved[]): string {
  return moved
    .map(({ parameter, measure, values, between }) => {
      const sis = values.map((v) => v.si);
      const [low, high] = [Math.min(...sis), Math.max(...sis)].map((v) => formatSI(v, measure));
      if (values.length === 1) return `${parameter} at ${low}`;
      return between ? `${parameter} between ${low} and ${high}` : `${parameter} from ${low} to ${high}, ${values.length} values`;
    })
    .join('; ');
}
