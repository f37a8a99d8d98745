import { digester, parametersUsed, type Place, problem, type Problem, type Project, type SearchPlan, settingOf } from '../document/index.ts';
import { evaluateAny, evaluateParameters, formatSI } from '../expressions/index.ts';
import { methods, type Search, suiting, type Told } from '../searching/index.ts';
import { costOfOffs, goalsOf, judge, type Judged, type Sought } from './goals.ts';
import type { Read } from './measures.ts';
import { atValues, isWritten, parameterReader, type Point } from './points.ts';

/** A parameter that a search moves, in SI. */
export interface Bounded {
  parameter: string;
  measure: string;
  from: number;
  to: number;
  start: number;
}

/** What a search comes to. */
export interface SearchSetup {
  bounded: Bounded[];
  sought: Sought[];
  problems: Problem[];
}

/** What a search moves and seeks, in numbers, and what stands against it. */
export function planSearch(project: Project, search: SearchPlan): SearchSetup {
  const place: Place = { part: 'searches', name: search.name };
  const scope = evaluateParameters(project);
  const problems: Problem[] = [];
  const used = parametersUsed({ ...project, studies: [], measures: [], searches: [], variants: [] });
  const bounded = search.bounds.flatMap((bound, n): Bounded[] => {
    const at = (field: string): Place => ({ ...place, chip: `bounds.${n}.${field}` });
    const refuse = (p: Problem): [] => {
      problems.push(p);
      return [];
    };
    const own = parameterReader(project, scope, bound.parameter, at);
    if ('severity' in own) return refuse(own);
    if (!isWritten(own.measure))
      return refuse(
        problem('error', 'study.no-unit', at('parameter'), `Values of a ${own.measure} cannot be written with a unit.`, 'Move another parameter.'),
      );
    if (search.bounds.findIndex((b) => b.parameter === bound.parameter) < n)
      return refuse(problem('error', 'study.twice', at('parameter'), `${bound.parameter} moves twice.`, 'Leave one of the two out.'));
    const [a, b] = [own.number(bound.from, 'from'), own.number(bound.to, 'to')];
    const start = bound.start === undefined ? own.si : own.number(bound.start, 'start');
    if (own.refused) return refuse(own.refused);
    const [from, to] = [Math.min(a, b), Math.max(a, b)];
    if (!(to > from)) return refuse(problem('error', 'study.move', at('to'), 'It goes from a value to the same.', 'Give two values that differ.'));
    if (bound.start !== undefined && !(start >= from && start <= to))
      return refuse(problem('error', 'search.start', at('start'), `The start of ${bound.parameter} lies outside its bounds.`, 'Start between them.'));
    if (!used.has(bound.parameter) && !settingOf(bound.parameter))
      problems.push(
        problem(
          'warning',
          'study.moves-nothing',
          at('parameter'),
          `Nothing uses ${bound.parameter}.`,
          'Use it in a line or a setting, or move another.',
        ),
      );
    return [{ parameter: bound.parameter, measure: own.measure, from, to, start: start >= from && start <= to ? start : (from + to) / 2 }];
  });
  (search.keep ?? []).forEach((text, n) => {
    const found = evaluateAny(text, scope, { ...place, chip: `keep.${n}` });
    if ('problem' in found) problems.push(found.problem);
  });
  const goals = goalsOf(project, 'searches', search, scope);
  if (!search.goals.length)
    problems.push(problem('error', 'search.no-goal', { ...place, chip: 'goals' }, 'Nothing is sought yet.', 'Say what a measure should be.'));
  return { bounded, sought: goals.sought, problems: [...problems, ...goals.problems] };
}

/** A point that a search has tried. */
export interface Tried extends Judged {
  values: Record<string, number>;
  digest: string;
  reads: readonly Read[];
  /** It was not solved: it lies beyond what has to be kept. */
  beyond?: boolean;
}

/** Why a search is over. */
export const endings = {
  goals: 'all goals are met',
  points: 'it has taken all its points',
  method: 'its method sees nothing better',
} as const;

/** What a method is told of a point: costs far from what is sought count by their logarithm, or they would hide what lies near. */
const toldOf = ({ cost, misses, offs }: Tried): Told => ({ cost: Math.log1p(cost), misses, figures: offs });

/** Parts of what a parameter may be to which its values are rounded. */
const parts = 1e6;
/** Points beyond what has to be kept that are passed over for each that may be solved. */
const mostBeyond = 50;

/**
 * A search as it goes on: says which points it asks for, and is told what was read from them. It is told the same again to go on where it was, as its
 * methods ask for the same points when they are.
 */
export class SearchRun {
  readonly tried: Tried[] = [];
  /** Place of the best among those that were tried. */
  best: number | null = null;
  ended: keyof typeof endings | null = null;
  private readonly search: Search | null = null;
  private readonly digestOf = digester();
  private readonly known = new Map<string, Tried>();
  private batch: (Point | Tried)[] = [];

  constructor(
    private readonly project: Project,
    private readonly plan: SearchPlan,
    readonly setup: SearchSetup,
  ) {
    // Of one that makes no sense no point is asked for.
    if (setup.problems.some((p) => p.severity === 'error')) {
      this.ended = 'method';
      return;
    }
    const { bounded } = setup;
    const start = bounded.map((b) => (b.start - b.from) / (b.to - b.from));
    const { begin } = methods[plan.method ?? suiting(bounded.length)];
    const costOf = (offs: readonly number[]): number => Math.log1p(costOfOffs(setup.sought, offs));
    this.search = begin({ dimensions: bounded.length, start, seed: plan.seed, together: plan.together, costOf });
    this.ask([]);
    this.goOn();
  }

  /** How many points were solved. */
  get solved(): number {
    return this.known.size;
  }

  /** Points that it asks for now, each but once; none where it is over. */
  get open(): Point[] {
    if (this.ended) return [];
    const open = new Map<string, Point>();
    for (const p of this.batch) if ('project' in p && !this.known.has(p.digest)) open.set(p.digest, p);
    return [...open.values()].slice(0, this.plan.points - this.known.size);
  }

  /** Tells measures of a point that it asked for; null where it could not be solved. Goes on once all are told. */
  tell(digest: string, reads: readonly Read[] | null): void {
    const point = this.batch.find((p): p is Point => p.digest === digest && 'project' in p);
    if (!point || this.known.has(digest) || this.ended) return;
    const judged = judge(this.setup.sought, reads ?? []);
    this.add({ ...judged, values: point.values, digest, reads: reads ?? [] });
    this.known.set(digest, this.tried.at(-1)!);
    if (judged.met.every(Boolean)) this.ended = 'goals';
    else this.goOn();
  }

  private add(tried: Tried): void {
    this.tried.push(tried);
    if (tried.cost < (this.best === null ? Infinity : this.tried[this.best].cost)) this.best = this.tried.length - 1;
  }

  /** Has the method ask on as long as all that it asks for is known. */
  private goOn(): void {
    while (!this.ended && !this.open.length)
      if (this.known.size >= this.plan.points || this.tried.length > mostBeyond * this.plan.points) this.ended = 'points';
      else this.ask(this.batch.map((p) => toldOf('project' in p ? this.known.get(p.digest)! : p)));
  }

  private ask(told: readonly Told[]): void {
    const step = this.search!.next(told);
    if (step.done) {
      this.ended = 'method';
      return;
    }
    this.batch = step.value.map((x) => this.pointAt(x));
    for (const p of this.batch) if (!('project' in p)) this.add(p);
  }

  private pointAt(x: readonly number[]): Point | Tried {
    const { bounded } = this.setup;
    const values = bounded.map(({ from, to }, i) => {
      const part = (to - from) / parts;
      return Number((from + Math.round((x[i] * (to - from)) / part) * part).toPrecision(9));
    });
    const texts = new Map(bounded.map((b, i) => [b.parameter, formatSI(values[i], b.measure, 9)]));
    const project = atValues(this.project, texts, this.plan.accuracy);
    const named = Object.fromEntries(bounded.map((b, i) => [b.parameter, values[i]]));
    if (!this.isKept(project))
      return { values: named, digest: '', reads: [], beyond: true, misses: this.setup.sought.map(() => NaN), met: [], offs: [], cost: Infinity };
    return { values: named, project, digest: this.digestOf(project) };
  }

  /** Whether a point lies within what has to be kept. */
  private isKept(project: Project): boolean {
    if (!this.plan.keep?.length) return true;
    const scope = evaluateParameters(project);
    return this.plan.keep.every((text) => {
      const found = evaluateAny(text, scope, { part: 'searches', name: this.plan.name, chip: 'keep' });
      return 'si' in found && found.si >= 0;
    });
  }
}
