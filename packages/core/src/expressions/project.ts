import { atPath, type Chip, type ChipValues, type Parameter, type Place, type Problem, problem, type Quantity } from '../entries/index.ts';

import { measure } from './amount.ts';
import { anySI, compile, ExpressionFault, knownCode, toSI, type Value } from './language.ts';
import { nearestName } from './nearest.ts';
import { reservedNames } from './names.ts';
import type { Reference } from './reference.ts';

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
  const near = nearestName(name, known);
  return problem(
    'error',
    'expression.unknown-name',
    place,
    `There is no parameter named ${name}.`,
    near ? `Did you mean ${near}? Otherwise add a parameter of that name.` : `Add a parameter named ${name}, or correct the name.`,
  );
};

const note = (place: Place, text: string): Problem =>
  problem('warning', 'function.outside-range', place, text, 'Take the value as an estimate, and check it with a solver.');

/** Parameters, evaluated on demand in the order of their dependencies, and the way to geometry for expressions that point at it. */
export class Scope {
  readonly values = new Map<string, Value>();
  /** Value of each good parameter in SI, and what it measures. */
  readonly summary: Record<string, { si: number; measure: string }> = {};
  readonly problems: Problem[] = [];
  /**
   * Answers references to geometry; throws an ExpressionFault. Set by whoever builds the geometry.
   * @throws ExpressionFault where it cannot be answered.
   */
  geometry: (reference: Reference) => Value = (reference) => {
    throw new ExpressionFault('reference.none', `${reference.text} points at geometry, which is not known here.`, 'Use a parameter or a number.');
  };
  private readonly entries: Map<string, string>;
  private readonly state = new Map<string, 'open' | 'done' | 'bad'>();
  private readonly trail: string[] = [];

  constructor(project: { parameters: readonly Parameter[] }) {
    this.entries = new Map(project.parameters.map((g) => [g.name, g.expression]));
  }

  /** Evaluates all parameters; what fails is found in `problems`. */
  evaluateAll(): this {
    for (const name of this.entries.keys()) this.good(name);
    return this;
  }

  /** Value of a parameter, or undefined where it has none. */
  parameter = (name: string): Value | undefined => (this.good(name) ? this.values.get(name) : undefined);

  /** Whether a parameter of this name exists. */
  has = (name: string): boolean => this.entries.has(name);

  names = (): Iterable<string> => this.entries.keys();

  private good(name: string): boolean {
    const known = this.state.get(name);
    if (known === 'done') return true;
    if (known === 'bad' || !this.entries.has(name)) return false;
    const place: Place = { part: 'parameters', name, chip: 'expression' };
    if (known === 'open') {
      const cycle = [...this.trail.slice(this.trail.indexOf(name)), name];
      this.problems.push(
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
    this.state.set(name, 'open');
    this.trail.push(name);
    const good = this.evaluate(name, place);
    this.trail.pop();
    this.state.set(name, good ? 'done' : 'bad');
    return good;
  }

  private evaluate(name: string, place: Place): boolean {
    let good = true;
    try {
      if (reservedNames.has(name))
        throw new ExpressionFault(
          'name.reserved',
          `${name} is the name of a unit, a constant or a function.`,
          'Choose another name for the parameter.',
        );
      const code = compile(this.entries.get(name)!);
      for (const used of code.uses) {
        if (!this.entries.has(used)) {
          this.problems.push(unknown(place, used, this.entries.keys()));
          good = false;
        } else if (!this.good(used)) {
          if (this.state.get(used) !== 'open' && !this.problems.some((p) => p.place.name === name))
            this.problems.push(problem('error', 'expression.depends', place, `${name} needs ${used}, which has no value.`, `Mend ${used} first.`));
          good = false;
        }
      }
      if (!good) return false;
      const notes: string[] = [];
      const value = code.evaluate(this.parameter, this.geometry, notes);
      this.problems.push(...notes.map((text) => note(place, text)));
      const si = anySI(value);
      if (!Number.isFinite(si))
        throw new ExpressionFault(
          'expression.not-finite',
          `${name} has no finite real value.`,
          'Look for a division by zero or the root of a negative number.',
        );
      this.values.set(name, value);
      this.summary[name] = { si, measure: measure(value).replace(/^an? /, '') };
      return true;
    } catch (error) {
      this.problems.push(fault(place, error));
      return false;
    }
  }
}

/** Evaluates the parameters of a project without geometry. Cycles and unknown names are reported where they stand. */
export const evaluateParameters = (project: { parameters: readonly Parameter[] }): Scope => new Scope(project).evaluateAll();

const none: Problem[] = [];
type Evaluated = { si: number; notes: Problem[] } | { problem: Problem };

/** Value of an expression of numbers and units alone that has been evaluated before; undefined for all others. */
const fixedValue = (text: string, quantity: Quantity): number | undefined => knownCode(text)?.fixed?.get(quantity);

/** Evaluates one expression to SI. Returns the problem instead where there is one. */
export function evaluateExpression(text: string, quantity: Quantity, scope: Scope, place: Place): Evaluated {
  try {
    const code = compile(text);
    const known = code.fixed?.get(quantity);
    if (known !== undefined) return { si: known, notes: none };
    for (const name of code.uses)
      if (scope.parameter(name) === undefined) {
        if (!scope.has(name)) return { problem: unknown(place, name, scope.names()) };
        return { problem: problem('error', 'expression.depends', place, `This needs ${name}, which has no value.`, `Mend ${name} first.`) };
      }
    const notes: string[] = [];
    const si = toSI(code.evaluate(scope.parameter, scope.geometry, notes), quantity, text);
    if (!notes.length) {
      code.fixed?.set(quantity, si);
      return { si, notes: none };
    }
    return { si, notes: notes.map((n) => note(place, n)) };
  } catch (error) {
    return { problem: fault(place, error) };
  }
}

/** Value of an expression in SI units whatever it measures, and the name of that measure. */
export function evaluateAny(text: string, scope: Scope, place: Place): { si: number; measure: string } | { problem: Problem } {
  try {
    const code = compile(text);
    for (const name of code.uses) if (scope.parameter(name) === undefined) return { problem: unknown(place, name, scope.names()) };
    const value = code.evaluate(scope.parameter, scope.geometry);
    const si = anySI(value);
    if (!Number.isFinite(si))
      throw new ExpressionFault(
        'expression.not-finite',
        `‘${text}’ has no finite real value.`,
        'Look for a division by zero or the root of a negative number.',
      );
    return { si, measure: measure(value).replace(/^an? /, '') };
  } catch (error) {
    return { problem: fault(place, error) };
  }
}

/** Values of an expression in SI at `count` equal steps of a variable; `variable` hides a parameter of that name. */
export function sampleExpression(
  text: string,
  quantity: Quantity,
  scope: Scope,
  place: Place,
  variable: string,
  from: number,
  to: number,
  count: number,
): { values: number[] } | { problem: Problem } {
  try {
    const code = compile(text);
    for (const name of code.uses)
      if (name !== variable && scope.parameter(name) === undefined) return { problem: unknown(place, name, scope.names()) };
    const values = Array.from({ length: count }, (_, i) => {
      const at = from + ((to - from) * i) / (count - 1);
      return toSI(
        code.evaluate((name) => (name === variable ? at : scope.parameter(name)), scope.geometry),
        quantity,
        text,
      );
    });
    return { values };
  } catch (error) {
    return { problem: fault(place, error) };
  }
}

/** The expression of a chip of an entry. */
export const chipText = (entry: unknown, chip: Chip): string => String(atPath(entry, chip.path) ?? chip.otherwise);

/** Evaluates all chips of an entry; `values` is null if any of them failed. `texts` are their expressions, where they are known. */
export function evaluateChips(
  entry: unknown,
  chips: readonly Chip[],
  scope: Scope,
  place: Place,
  texts?: readonly string[],
): { values: ChipValues | null; problems: Problem[] } {
  const values: ChipValues = {};
  const problems: Problem[] = [];
  let good = true;
  for (let n = 0; n < chips.length; n++) {
    const chip = chips[n];
    const text = texts ? texts[n] : chipText(entry, chip);
    // Most have one value for ever.
    const fixed = fixedValue(text, chip.quantity);
    if (fixed !== undefined && !chip.positive && !chip.whole) {
      values[chip.path] = fixed;
      continue;
    }
    const at = { ...place, chip: chip.path };
    const result = evaluateExpression(text, chip.quantity, scope, at);
    const wrong = 'problem' in result ? result.problem : valueFault(chip, result.si, at);
    if (wrong) {
      problems.push(wrong);
      good = false;
    } else if ('si' in result) {
      problems.push(...result.notes);
      values[chip.path] = result.si;
    }
  }
  return { values: good ? values : null, problems };
}

function valueFault(chip: Chip, si: number, at: Place): Problem | null {
  if (chip.positive && !(si > 0))
    return problem('error', 'value.not-positive', at, `The ${chip.label} is ${si === 0 ? 'zero' : 'negative'}.`, 'Give it a value above zero.');
  if (chip.whole && (!Number.isInteger(si) || si < chip.whole[0] || si > chip.whole[1]))
    return problem(
      'error',
      'value.not-whole',
      at,
      `The ${chip.label} is ${Number(si.toPrecision(6))}.`,
      `Give a whole number from ${chip.whole[0]} to ${chip.whole[1]}.`,
    );
  return null;
}
