import { type FormulaMeasure, isFormula, type Measure, type Project } from '../document/index.ts';
import { evaluateAny, evaluateParameters, namesUsed, plainNumber, Scope, unitsFor } from '../expressions/index.ts';
import { measureOfUnit, type RunReading } from '../reading/index.ts';
import { type Read, readTaken, unitOfTaken } from './measures.ts';

/** A figure as an expression; decibels and what has no unit here are plain numbers. */
const textOf = ({ value, unit }: Read): string => (unit === 'deg' || measureOfUnit(unit) ? `(${value}) * 1 ${unit}` : String(value));

/** The unit, as measures are told, of what an expression measures, and how many of them one of SI is. */
function unitOf(measure: string): [unit: string, times: number] {
  if (measure === 'angle') return ['deg', 180 / Math.PI];
  return [measure === plainNumber ? '' : (unitsFor(measure).find(([size]) => size === 1)?.[1] ?? ''), 1];
}

type Parts = Pick<Project, 'parameters' | 'measures'>;

/** Reads measures that are made of others, each once, from what is known of those that are taken of curves. */
class Formulas {
  private readonly open = new Set<string>();

  constructor(
    private readonly project: Parts,
    private readonly known: Map<string, Read>,
  ) {}

  read(measure: FormulaMeasure): Read {
    const found = this.known.get(measure.name) ?? this.evaluate(measure);
    this.known.set(measure.name, found);
    return found;
  }

  private evaluate({ name, formula }: FormulaMeasure): Read {
    const none = (why: string): Read => ({ name, value: null, unit: '', why });
    if (this.open.has(name)) return none(`${name} is made of itself.`);
    this.open.add(name);
    const used = namesUsed(formula).flatMap((other) => {
      const own = (this.project.measures ?? []).find((m) => m.name === other);
      return own ? [isFormula(own) ? this.read(own) : this.known.get(other)!] : [];
    });
    this.open.delete(name);
    const lacking = used.find((r) => r.value === null);
    if (lacking) return none(`${lacking.name} has no value: ${lacking.why}`);
    const parameters = [...this.project.parameters, ...used.map((r) => ({ name: r.name, expression: textOf(r) }))];
    const found = evaluateAny(formula, new Scope({ parameters }), { part: 'measures', name, chip: 'formula' });
    if ('problem' in found) return none(`${found.problem.message} ${found.problem.fix}`);
    const [unit, times] = unitOf(found.measure);
    return Number.isFinite(found.si) ? { name, value: found.si * times, unit } : none('The formula has no finite value.');
  }
}

/** Measures of which those that are taken of curves were read, with those that are made of them, in the order of the project. */
export function withFormulas(measures: readonly Measure[], project: Parts, taken: readonly Read[]): Read[] {
  const known = new Map(taken.map((r) => [r.name, r]));
  const formulas = new Formulas(project, known);
  return measures.map((m) => (isFormula(m) ? formulas.read(m) : known.get(m.name)!));
}

/** The measures that others are made of, and themselves, which are taken of curves. */
export const takenBehind = (measures: readonly Measure[], { measures: all = [] }: Pick<Project, 'measures'>) =>
  (measures.some(isFormula) ? all : measures).filter((m) => !isFormula(m));

/** All measures of a project, read from a result of it at its parameters. */
export function readMeasures(project: Parts, run: RunReading): Read[] {
  const measures = project.measures ?? [];
  const scope = evaluateParameters(project);
  return withFormulas(measures, project, takenBehind(measures, project).map((m) => readTaken(m, run, scope))); // prettier-ignore
}

/** What comes of a formula of figures of the units that they have: any figures will do to see that. */
function tried(measure: FormulaMeasure, project: Parts): Read {
  const taken = takenBehind([measure], project).map((m, n): Read => ({ name: m.name, value: 1 + n / 10, unit: unitOfTaken(m) ?? '' }));
  const measures = (project.measures ?? []).map((m) => (m.name === measure.name ? measure : m));
  return withFormulas([measure], { ...project, measures }, taken)[0];
}

/** Why a formula can have no value; null where it can. */
export const formulaFault = (measure: FormulaMeasure, project: Parts): string | null => tried(measure, project).why ?? null;

/** The unit that a measure is told in; null where its quantity is not known, or its formula can have no value. */
export function unitOfMeasure(measure: Measure, project: Parts): string | null {
  if (!isFormula(measure)) return unitOfTaken(measure);
  const read = tried(measure, project);
  return read.value === null ? null : read.unit;
}
