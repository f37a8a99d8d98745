import { type Goal, type Place, type Problem, problem, type Project } from '../document/index.ts';
import { evaluateAny, plainNumber, type Scope } from '../expressions/index.ts';
import { measureOfUnit } from '../reading/index.ts';
import { unitOfMeasure } from './formulas.ts';
import type { Read } from './measures.ts';

/** A goal in numbers of the unit that its measure is told in. */
export interface Sought extends Pick<Goal, 'measure' | 'aim' | 'weight'> {
  value: number;
  within: number;
  unit: string;
}

/** What may be missed where a goal does not say: a decibel, or this share of its value. */
const share = 0.01;
const decibels = ['dB', 'dBi'];

/** Goals of a search or study in numbers, and what stands against them. */
export function goalsOf(
  project: Project,
  part: 'searches' | 'studies',
  { name, goals = [] }: { name: string; goals?: readonly Goal[] },
  scope: Scope,
): { sought: Sought[]; problems: Problem[] } {
  const problems: Problem[] = [];
  const sought = goals.flatMap((goal, n): Sought[] => {
    const at = (field: string): Place => ({ part, name, chip: `goals.${n}.${field}` });
    const refuse = (p: Problem): [] => {
      problems.push(p);
      return [];
    };
    const measure = project.measures?.find((m) => m.name === goal.measure);
    const unit = measure && unitOfMeasure(measure, project);
    if (unit === undefined || unit === null)
      return refuse(
        problem('error', 'search.no-measure', at('measure'), `There is no measure named ${goal.measure}.`, 'Choose one of those that are read.'),
      );
    const value = goalNumber(goal.value, unit, scope, at('value'));
    if (typeof value !== 'number') return refuse(value);
    if (goal.within === undefined) return [{ ...goal, value, unit, within: decibels.includes(unit) ? 1 : Math.abs(value) * share || 1 }];
    const within = goalNumber(goal.within, unit, scope, at('within'));
    if (typeof within !== 'number') return refuse(within);
    if (!(within > 0))
      return refuse(
        problem(
          'error',
          'search.within',
          at('within'),
          'What may be missed is above zero.',
          'Give a small amount, such as a hundredth of the value.',
        ),
      );
    return [{ ...goal, value, unit, within }];
  });
  return { sought, problems: [...problems, ...contradictions(sought, { part, name, chip: 'goals' })] };
}

/** An expression as a number in a unit of curves, or why it is none. */
function goalNumber(text: string, unit: string, scope: Scope, place: Place): number | Problem {
  const found = evaluateAny(text, scope, place);
  if ('problem' in found) return found.problem;
  const wanted = measureOfUnit(unit);
  if (unit === 'deg' && found.measure === 'angle') return (found.si * 180) / Math.PI;
  if (found.measure === (wanted ?? plainNumber)) return found.si;
  return problem(
    'error',
    'expression.wrong-unit',
    place,
    `The measure is ${wanted ? `a ${wanted}` : `told in ${unit || 'plain numbers'}`}, and ‘${text}’ is a ${found.measure}.`,
    wanted ? `Give a ${wanted}.` : 'Give a plain number.',
  );
}

/** Between which values a measure keeps a goal. */
export const limitsOf = ({ aim, value, within }: Pick<Sought, 'aim' | 'value' | 'within'>): [low: number, high: number] => [
  aim === 'at-least' ? value : aim === 'equal' ? value - within : -Infinity,
  aim === 'at-most' ? value : aim === 'equal' ? value + within : Infinity,
];

/** Goals that no value of a measure can meet together. */
function contradictions(sought: readonly Sought[], place: Place): Problem[] {
  const against = new Set(
    sought.filter((g) => sought.some((o) => o.measure === g.measure && limitsOf(g)[0] > limitsOf(o)[1])).map((g) => g.measure), // prettier-ignore
  );
  return [...against].map((measure) =>
    problem('error', 'search.contradiction', place, `The goals of ${measure} contradict each other.`, 'Change one of them.'),
  );
}

/** How a point stands to the goals. */
export interface Judged {
  /** By how much each is missed, in what it may be missed by, with its weight; 0 for a bound that is kept. */
  misses: number[];
  met: boolean[];
  /** Sum of the squares of what is missed; Infinity where a measure has no value. */
  cost: number;
  /** How far each measure lies above its goal's value, in what may be missed. */
  offs: number[];
}

const missOf = ({ aim, weight }: Sought, off: number): number =>
  weight * (aim === 'equal' ? off : aim === 'at-most' ? Math.max(0, off) : Math.min(0, off));

/** Sum of the squares of what is missed where measures lie so far above their goals. */
export function costOfOffs(sought: readonly Sought[], offs: readonly number[]): number {
  let sum = 0;
  for (let i = 0; i < sought.length; i++) sum += missOf(sought[i], offs[i]) ** 2;
  return Number.isNaN(sum) ? Infinity : sum;
}

/** How measures of a point stand to the goals. */
export function judge(sought: readonly Sought[], reads: readonly Read[]): Judged {
  const offs = sought.map((g) => ((reads.find((r) => r.name === g.measure)?.value ?? NaN) - g.value) / g.within);
  return {
    misses: sought.map((g, i) => missOf(g, offs[i])),
    met: sought.map((g, i) => (g.aim === 'equal' ? Math.abs(offs[i]) <= 1 : missOf(g, offs[i]) === 0)),
    cost: costOfOffs(sought, offs),
    offs,
  };
}
