import { atPath, type Chip, type ChipValues, type Place, type Problem, problem, type Project, type Quantity } from '../document/index.ts';
import { anySI, compile, type Compiled, ExpressionFault, measure, toSI, type Value } from './language.ts';
import { reservedNames } from './names.ts';

/** Givens evaluated, with what went wrong on the way. */
export interface Scope {
  values: Map<string, Value>;
  /** Value of each good given in SI, and what it measures. */
  summary: Record<string, { si: number; measure: string }>;
  /** Givens that nothing uses (other givens count as use). */
  problems: Problem[];
}

const nearest = (name: string, names: Iterable<string>): string | null => {
  let best: string | null = null;
  let least = 3;
  for (const candidate of names) {
    const d = distance(name.toLowerCase(), candidate.toLowerCase());
    if (d < least) {
      least = d;
      best = candidate;
    }
  }
  return best;
};

/** Levenshtein distance. */
function distance(a: string, b: string): number {
  let row = Array.from({ length: b.length + 1 }, (_, i) => i);
  for (let i = 1; i <= a.length; i++) {
    const next = [i];
    for (let j = 1; j <= b.length; j++) next[j] = Math.min(row[j] + 1, next[j - 1] + 1, row[j - 1] + (a[i - 1] === b[j - 1] ? 0 : 1));
    row = next;
  }
  return row[b.length];
}

const fault = (place: Place, error: unknown): Problem => {
  if (error instanceof ExpressionFault) return problem('error', error.code, place, error.message, error.fix);
  const reason = (error as Error).message.replace(/\.$/, '');
  return problem(
    'error',
    'expression.wrong-unit',
    place,
    `The expression cannot be computed: ${reason}.`,
    'Check that the units of its terms agree.',
  );
};

const unknown = (place: Place, name: string, known: Iterable<string>): Problem => {
  const near = nearest(name, known);
  return problem(
    'error',
    'expression.unknown-name',
    place,
    `There is no given named ${name}.`,
    near ? `Did you mean ${near}? Otherwise add a given of that name.` : `Add a given named ${name}, or correct the name.`,
  );
};

/** Evaluates the givens in the order of their dependencies. Cycles and unknown names are reported where they stand. */
export function evaluateGivens(project: Project): Scope {
  const values = new Map<string, Value>();
  const problems: Problem[] = [];
  const entries = new Map(project.givens.map((g) => [g.name, g]));
  const compiled = new Map<string, Compiled>();
  const state = new Map<string, 'open' | 'done' | 'bad'>();
  const summary: Scope['summary'] = {};

  const visit = (name: string, trail: string[]): boolean => {
    const known = state.get(name);
    if (known === 'done') return true;
    if (known === 'bad') return false;
    const place: Place = { part: 'givens', name, chip: 'expression' };
    if (known === 'open') {
      const cycle = [...trail.slice(trail.indexOf(name)), name];
      problems.push(
        problem(
          'error',
          'expression.cycle',
          place,
          `${name} depends on itself: ${cycle.join(' → ')}.`,
          'Break the circle by giving one of them a value of its own.',
        ),
      );
      return false;
    }
    state.set(name, 'open');
    let good = true;
    try {
      if (reservedNames.has(name))
        throw new ExpressionFault('name.reserved', `${name} is the name of a unit, a constant or a function.`, 'Choose another name for the given.');
      const code = compile(entries.get(name)!.expression);
      compiled.set(name, code);
      for (const used of code.uses) {
        if (!entries.has(used)) {
          problems.push(unknown(place, used, entries.keys()));
          good = false;
        } else if (!visit(used, [...trail, name])) {
          if (state.get(used) !== 'open' && !problems.some((p) => p.place.name === name))
            problems.push(problem('error', 'expression.depends', place, `${name} needs ${used}, which has no value.`, `Mend ${used} first.`));
          good = false;
        }
      }
      if (good) {
        const value = code.evaluate(values);
        const si = anySI(value);
        if (!Number.isFinite(si))
          throw new ExpressionFault(
            'expression.not-finite',
            `${name} has no finite real value.`,
            'Look for a division by zero or the root of a negative number.',
          );
        values.set(name, value);
        summary[name] = { si, measure: measure(value).replace(/^an? /, '') };
      }
    } catch (error) {
      problems.push(fault(place, error));
      good = false;
    }
    state.set(name, good ? 'done' : 'bad');
    return good;
  };
  for (const { name } of project.givens) visit(name, []);
  return { values, summary, problems };
}

/** Evaluates one expression to SI. Returns the problem instead where there is one. */
export function evaluateExpression(text: string, quantity: Quantity, scope: Scope, place: Place): { si: number } | { problem: Problem } {
  try {
    const code = compile(text);
    for (const name of code.uses)
      if (!scope.values.has(name)) {
        if (!scope.problems.some((p) => p.place.name === name)) return { problem: unknown(place, name, scope.values.keys()) };
        return { problem: problem('error', 'expression.depends', place, `This needs ${name}, which has no value.`, `Mend ${name} first.`) };
      }
    return { si: toSI(code.evaluate(scope.values), quantity, text) };
  } catch (error) {
    return { problem: fault(place, error) };
  }
}

/** Evaluates all chips of an entry; `values` is null if any of them failed. */
export function evaluateChips(entry: unknown, chips: Chip[], scope: Scope, place: Place): { values: ChipValues | null; problems: Problem[] } {
  const values: ChipValues = {};
  const problems: Problem[] = [];
  for (const chip of chips) {
    const at = { ...place, chip: chip.path };
    const result = evaluateExpression(String(atPath(entry, chip.path)), chip.quantity, scope, at);
    if ('problem' in result) problems.push(result.problem);
    else if (chip.positive && !(result.si > 0))
      problems.push(
        problem('error', 'value.not-positive', at, `The ${chip.label} is ${result.si === 0 ? 'zero' : 'negative'}.`, 'Give it a value above zero.'),
      );
    else values[chip.path] = result.si;
  }
  return { values: problems.length ? null : values, problems };
}

/** Names of givens used by an expression; empty if it cannot be read. */
export function namesUsed(text: string): string[] {
  try {
    return compile(text).uses;
  } catch {
    return [];
  }
}
