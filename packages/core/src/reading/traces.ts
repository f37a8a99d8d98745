import { type CurveFormula, CurveFormulaFault, readCurveFormula, valueAt } from '../curves/index.ts';
import { type CardTrace, type CurvesCard, type DataSet, unpackNumbers } from '../document/index.ts';
import { c0 } from '../numerics/constants.ts';
import { curveForms } from './forms.ts';
import { curveName, quantities, type QuantityCurve, type RunReading } from './quantities.ts';

/** A reading with what tells it from others. */
export interface NamedReading extends RunReading {
  label: string;
  bare: boolean;
  /** Value of a parameter of its model in SI; null where it has none. */
  parameter(name: string): number | null;
}

/** A curve as it is drawn and read. */
export interface DrawnTrace {
  /** Its place among the card's traces, and the reading it is of; -1 for data. */
  trace: number;
  run: number;
  name: string;
  axis: 'left' | 'right';
  unit: string;
  x: Float64Array;
  y: Float64Array;
}

export interface Drawing {
  drawn: DrawnTrace[];
  /** What the traces are over. */
  over: 'frequency' | 'wavelength' | 'time' | 'angle' | 'parameter' | 'number';
  /** What could not be drawn and why, by trace. */
  faults: { trace: number; text: string }[];
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

type Own = Omit<DrawnTrace, 'trace' | 'run' | 'axis' | 'name'> & { over: Drawing['over'] };

/** A trace's numbers in its form. */
function formed(t: CardTrace, curve: QuantityCurve, unit: string, form: NonNullable<CardTrace['form']>, over: Drawing['over']): Own {
  const kind = curveForms[form];
  const dBi = form === 'dBpower' && ['directivity', 'gain', 'realised-gain'].includes(t.quantity);
  return { x: Float64Array.from(curve.x), y: kind.of(curve), unit: dBi ? 'dBi' : (kind.unit ?? unit), over };
}

/** The traces of a card over what it asks for, of each run that has them. `frequency`, hertz, is where curves over a parameter are taken. */
export function drawTraces(
  card: Pick<CurvesCard, 'traces' | 'over' | 'differences'>,
  runs: readonly NamedReading[],
  data: readonly DataSet[],
  frequency: number | null,
): Drawing {
  const faults: Drawing['faults'] = [];
  const letters = card.traces.map((_, i) => traceLetter(i));
  const known = new Map<string, Own | null>();
  /** A trace of a run by its place; formulas ask for others. */
  const own = (i: number, r: number, asked: readonly number[] = []): Own | null => {
    const key = `${i}/${r}`;
    if (!known.has(key)) known.set(key, made(i, r, asked));
    return known.get(key)!;
  };
  const made = (i: number, r: number, asked: readonly number[]): Own | null => {
    const t = card.traces[i];
    if (t.quantity === 'formula') return combined(i, r, asked);
    if (t.quantity === 'data') {
      const curve = dataCurve(data, t.of);
      if (!curve) faults.push({ trace: i, text: `There are no data ${t.of}.` });
      return curve && formed(t, curve, '', t.form ?? (curve.complex ? 'db' : 'plain'), curve.over);
    }
    const kind = quantities[t.quantity];
    if (!kind) {
      faults.push({ trace: i, text: `There is no quantity ${t.quantity}.` });
      return null;
    }
    const curve = kind.curve(runs[r], t.of);
    return curve && formed(t, curve, kind.unit, t.form ?? kind.forms[0], kind.over);
  };
  const combined = (i: number, r: number, asked: readonly number[]): Own | null => {
    if (asked.includes(i)) {
      faults.push({ trace: i, text: `The formula of ${letters[i]} uses itself.` });
      return null;
    }
    let formula: CurveFormula;
    try {
      formula = readCurveFormula(card.traces[i].of, letters.filter((_, k) => k !== i)); // prettier-ignore
    } catch (error) {
      if (error instanceof CurveFormulaFault) faults.push({ trace: i, text: error.message });
      return null;
    }
    const used = formula.uses.map((letter) => [letter, own(letters.indexOf(letter), r, [...asked, i])] as const);
    if (used.some(([, c]) => !c)) return null;
    const base = used[0]?.[1];
    if (!base) {
      faults.push({ trace: i, text: 'The formula uses no curve: write it like a - b.' });
      return null;
    }
    const y = base.x.map((x, k) =>
      formula.at({ x, ...Object.fromEntries(used.map(([letter, c]) => [letter, c === base ? c.y[k] : valueAt(c!, x)])) }),
    );
    const units = new Set(used.map(([, c]) => c!.unit));
    return { x: base.x, y, unit: units.size === 1 && !/[*/^(]/.test(card.traces[i].of) ? [...units][0] : '', over: base.over };
  };
  const drawn: DrawnTrace[] = [];
  let over: Drawing['over'] | null = null;
  // Where all curves are of one quantity its name says nothing: the term does.
  const alike = new Set(card.traces.map((t) => t.quantity)).size === 1;
  const parameter = card.over !== 'own' && card.over !== 'wavelength' ? card.over : null;
  card.traces.forEach((t, i) => {
    const ofData = t.quantity === 'data';
    const found = (ofData ? [-1] : runs.map((_, r) => r)).flatMap((run): (Own & { run: number })[] => {
      const curve = own(i, run);
      return curve && curve.x.length ? [{ ...curve, run }] : [];
    });
    if (!found.length && !ofData && runs.length && !faults.some((f) => f.trace === i))
      faults.push({
        trace: i,
        text: `No run that is shown has ${t.quantity === 'formula' ? 'the curves of this formula' : curveName(t.quantity, t.of, t.form)}.`,
      });
    const base = { trace: i, axis: t.axis };
    const name =
      t.name ??
      (t.quantity === 'formula'
        ? t.of
        : ofData
          ? t.of.replace('/', ' ')
          : alike && card.traces.length > 1
            ? termName(t)
            : curveName(t.quantity, t.of, t.form));
    if (parameter && !ofData) {
      // A point of each run: the parameter's value, and the curve at the frequency of the lens.
      const points = found.flatMap((c) => {
        const x = runs[c.run].parameter(parameter);
        const y = frequency === null ? NaN : valueAt(c, frequency);
        return x === null || !Number.isFinite(y) ? [] : [{ x, y }];
      });
      points.sort((a, b) => a.x - b.x);
      if (points.length) {
        over ??= 'parameter';
        drawn.push({
          ...base,
          run: -1,
          name,
          unit: found[0].unit,
          x: Float64Array.from(points, (p) => p.x),
          y: Float64Array.from(points, (p) => p.y),
        });
      }
      return;
    }
    if (parameter) return;
    const first = card.differences && !ofData ? found[0] : null;
    for (const c of found) {
      if (first && c === first) continue;
      if (over && over !== 'wavelength' && c.over !== over) {
        faults.push({ trace: i, text: `${name} is over ${c.over}, the others are over ${over}: put it on a card of its own.` });
        continue;
      }
      const turned = card.over === 'wavelength' && c.over === 'frequency';
      over ??= turned ? 'wavelength' : c.over;
      const y = first ? c.y.map((v, k) => v - valueAt(first, c.x[k])) : c.y;
      drawn.push({
        ...base,
        run: c.run,
        name: first ? `${name}, difference` : name,
        unit: c.unit,
        // Over wavelength the order turns round.
        x: turned ? c.x.map((f) => c0 / f).reverse() : c.x,
        y: turned ? y.slice().reverse() : y,
      });
    }
  });
  return { drawn, over: over ?? (card.over === 'wavelength' ? 'wavelength' : 'frequency'), faults };
}

/** A trace by its term, with its form where that is not the quantity's first. */
function termName({ quantity, of, form }: CardTrace): string {
  const full = curveName(quantity, of, form);
  const kind = quantities[quantity];
  return kind && of && !kind.named && quantity !== 's' ? full.replace(`${kind.title.toLowerCase()}, `, '') : full;
}

/** Arrays that the traces of a card need of a run, besides S. */
export const arraysOf = (card: Pick<CurvesCard, 'traces'>, meta: RunReading['meta']): string[] => [
  ...new Set(card.traces.flatMap((t) => quantities[t.quantity]?.needs?.(meta, t.of) ?? [])),
];
