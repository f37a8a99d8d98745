import { type CurveFormula, CurveFormulaFault, readCurveFormula, valueAt } from '../curves/index.ts';
import { type CardTrace, type CurveForm, type DataSet, unpackNumbers } from '../document/index.ts';
import type { ResultMeta } from '../results/index.ts';
import { curveForms } from './forms.ts';
import { curveName, quantities } from './quantities.ts';
import type { QuantityCurve, RunReading } from './quantity.ts';

/** What curves are over. */
export type Over = 'frequency' | 'wavelength' | 'time' | 'angle' | 'parameter' | 'number';

/** The numbers of a trace in its form. */
export interface FormedCurve {
  x: Float64Array;
  y: Float64Array;
  unit: string;
  over: Over;
}

/** Letter that a trace has in formulas: a, b, ... z, a1, b1, ... */
export const traceLetter = (n: number): string => String.fromCharCode(97 + (n % 26)) + (n >= 26 ? String(Math.floor(n / 26)) : '');

const unpacked = new WeakMap<DataSet, Float64Array>();
const opened = (set: DataSet): Float64Array => {
  let values = unpacked.get(set);
  if (!values) unpacked.set(set, (values = unpackNumbers(set.data)));
  return values;
};

/** One column of data that was brought in; `of` is the set's name and the column's, parted by '/'. Null where there is none. */
export function dataCurve(sets: readonly DataSet[], of: string): (QuantityCurve & { over: DataSet['over']; complex: boolean }) | null {
  const cut = of.lastIndexOf('/');
  const set = sets.find((s) => s.name === of.slice(0, cut));
  const at = set ? set.columns.findIndex((c) => c.name === of.slice(cut + 1)) : -1;
  if (!set || at < 0) return null;
  const values = opened(set);
  const wide = 1 + set.columns.reduce((n, c) => n + (c.complex ? 2 : 1), 0);
  const n = Math.floor(values.length / wide);
  const first = 1 + set.columns.slice(0, at).reduce((sum, c) => sum + (c.complex ? 2 : 1), 0);
  const column = (k: number): Float64Array => values.subarray(k * n, (k + 1) * n);
  const { complex } = set.columns[at];
  return { x: column(0), re: column(first), ...(complex ? { im: column(first + 1) } : {}), over: set.over, complex };
}

/** Quantities whose decibels are those over an antenna that radiates alike everywhere. */
const overIsotropic: readonly string[] = ['directivity', 'gain', 'realised-gain', 'gain-cut'];
/** The unit of a quantity, which has one of its own, in a form. */
export const unitInForm = (quantity: string, form: CurveForm, unit: string): string =>
  form === 'dBpower' && overIsotropic.includes(quantity) ? 'dBi' : (curveForms[form].unit ?? unit);

/** A trace's numbers in its form. */
function formed(t: CardTrace, curve: QuantityCurve, unit: string, form: NonNullable<CardTrace['form']>, over: Over): FormedCurve {
  const kind = curveForms[form];
  return { x: Float64Array.from(curve.x), y: kind.of(curve), unit: unitInForm(t.quantity, form, unit), over };
}

/** Where a trace's numbers come from. */
export type TraceSource = 'quantity' | 'formula' | 'data';
/** The source of a trace: a formula of other traces, data that were brought in, or what a run tells. */
export const sourceOf = ({ quantity }: Pick<CardTrace, 'quantity'>): TraceSource =>
  quantity === 'formula' || quantity === 'data' ? quantity : 'quantity';

/** The curves of a card's traces, each worked out once; what could not be, and why. */
export class TraceCurves {
  readonly faults: { trace: number; text: string }[] = [];
  private readonly letters: string[];
  private readonly known = new Map<string, FormedCurve | null>();

  constructor(
    private readonly traces: readonly CardTrace[],
    private readonly runs: readonly RunReading[],
    private readonly data: readonly DataSet[],
  ) {
    this.letters = traces.map((_, i) => traceLetter(i));
  }

  /** A trace of a run by its place; null where it has none. `asked` are the traces whose formulas ask for it. */
  of(trace: number, run: number, asked: readonly number[] = []): FormedCurve | null {
    const key = `${trace}/${run}`;
    if (!this.known.has(key)) this.known.set(key, this.makers[sourceOf(this.traces[trace])](trace, run, asked));
    return this.known.get(key)!;
  }

  /** Says why a trace cannot be drawn. */
  fault(trace: number, text: string): null {
    this.faults.push({ trace, text });
    return null;
  }

  private readonly makers: Record<TraceSource, (trace: number, run: number, asked: readonly number[]) => FormedCurve | null> = {
    quantity: (i, run) => {
      const t = this.traces[i];
      const kind = quantities[t.quantity];
      if (!kind) return this.fault(i, `There is no quantity ${t.quantity}.`);
      const curve = kind.curve(this.runs[run], t.of);
      return curve && formed(t, curve, kind.unit, t.form ?? kind.forms[0], kind.over);
    },
    data: (i) => {
      const t = this.traces[i];
      const curve = dataCurve(this.data, t.of);
      if (!curve) return this.fault(i, `There are no data ${t.of}.`);
      return formed(t, curve, '', t.form ?? (curve.complex ? 'db' : 'plain'), curve.over);
    },
    formula: (i, run, asked) => {
      if (asked.includes(i)) return this.fault(i, `The formula of ${this.letters[i]} uses itself.`);
      const formula = this.formulaOf(i);
      if (!formula) return null;
      const used = formula.uses.map((letter) => [letter, this.of(this.letters.indexOf(letter), run, [...asked, i])] as const);
      if (used.some(([, c]) => !c)) return null;
      const base = used[0]?.[1];
      if (!base) return this.fault(i, 'The formula uses no curve: write it like a - b.');
      const y = base.x.map((x, k) =>
        formula.at({ x, ...Object.fromEntries(used.map(([letter, c]) => [letter, c === base ? c.y[k] : valueAt(c!, x)])) }),
      );
      const units = new Set(used.map(([, c]) => c!.unit));
      // Sums of one unit keep it.
      return { x: base.x, y, unit: units.size === 1 && !/[*/^(]/.test(this.traces[i].of) ? [...units][0] : '', over: base.over };
    },
  };

  private formulaOf(i: number): CurveFormula | null {
    try {
      return readCurveFormula(this.traces[i].of, this.letters.filter((_, k) => k !== i)); // prettier-ignore
    } catch (error) {
      return error instanceof CurveFormulaFault ? this.fault(i, error.message) : null;
    }
  }
}

/** A trace by its term, with its form where that is not the quantity's first. */
function termName({ quantity, of, form }: CardTrace, meta: ResultMeta | undefined): string {
  const full = curveName(quantity, of, form, meta);
  const kind = quantities[quantity];
  return kind && of && !kind.named && quantity !== 's' ? full.replace(`${kind.title.toLowerCase()}, `, '') : full;
}

/** What a trace is called where it has no name of its own. `alike`: the others are of the same quantity, whose name then says nothing. */
export const nameOfTrace = (t: CardTrace, alike: boolean, meta?: ResultMeta): string =>
  t.name ??
  {
    formula: () => t.of,
    data: () => t.of.replace('/', ' '),
    quantity: () => (alike ? termName(t, meta) : curveName(t.quantity, t.of, t.form, meta)),
  }[sourceOf(t)]();
