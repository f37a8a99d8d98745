import { sameNumber } from '../numerics/tolerance.ts';
import type { arithmeticNames } from './names.ts';

/** Powers of metre, kilogram, second, ampere and radian. */
export type Dimensions = readonly [length: number, mass: number, time: number, current: number, angle: number];

/** A value in SI units with what it measures. */
export class Amount {
  constructor(
    readonly si: number,
    readonly dimensions: Dimensions,
  ) {}
}
/** An amount, or a plain number. */
export type Value = number | Amount;

const base = {
  m: [1, 0, 0, 0, 0],
  rad: [0, 0, 0, 0, 1],
  Hz: [0, 0, -1, 0, 0],
  s: [0, 0, 1, 0, 0],
  A: [0, 0, 0, 1, 0],
  V: [2, 1, -3, -1, 0],
  W: [2, 1, -3, 0, 0],
  ohm: [2, 1, -3, -2, 0],
  S: [-2, -1, 3, 2, 0],
  F: [-2, -1, 4, 2, 0],
  H: [2, 1, -2, -2, 0],
} satisfies Record<string, Dimensions>;
/** Units of other names: of which, and how large. */
const named = { inch: ['m', 0.0254], mil: ['m', 25.4e-6], deg: ['rad', Math.PI / 180] } as const;
const prefixes = { f: 1e-15, p: 1e-12, n: 1e-9, u: 1e-6, m: 1e-3, c: 1e-2, k: 1e3, M: 1e6, G: 1e9, T: 1e12 } as const;

/**
 * One of a unit by its name: 'mm', 'GHz', 'deg', 'kohm'.
 * @throws Error where there is no such unit.
 */
export function unit(name: string): Amount {
  if (name in base) return new Amount(1, base[name as keyof typeof base]);
  if (name in named) {
    const [of, size] = named[name as keyof typeof named];
    return new Amount(size, base[of]);
  }
  const size = prefixes[name[0] as keyof typeof prefixes];
  const of = base[name.slice(1) as keyof typeof base];
  if (!size || !of) throw new Error(`There is no unit ${name}.`);
  return new Amount(size, of);
}

/** What is measured, by name. */
export const measures = {
  length: base.m,
  angle: base.rad,
  frequency: base.Hz,
  resistance: base.ohm,
  inductance: base.H,
  capacitance: base.F,
  conductivity: [-3, -1, 3, 2, 0],
  time: base.s,
  area: [2, 0, 0, 0, 0],
  volume: [3, 0, 0, 0, 0],
  voltage: base.V,
  current: base.A,
  power: base.W,
  conductance: base.S,
} satisfies Record<string, Dimensions>;
export type Measure = keyof typeof measures;

/** Whether two powers of the units are the same. */
export const alike = (a: Dimensions, b: Dimensions): boolean => a.every((d, i) => Math.abs(d - b[i]) < sameNumber);
const none: Dimensions = [0, 0, 0, 0, 0];

/** What a number without a unit measures. */
export const plainNumber = 'plain number';

/** What a value measures in words: 'a length', 'an angle', 'a plain number', or a quantity in its units. */
export function measure(value: Value): string {
  if (typeof value === 'number') return `a ${plainNumber}`;
  for (const [name, dimensions] of Object.entries(measures))
    if (alike(dimensions, value.dimensions)) return `${name.startsWith('a') ? 'an' : 'a'} ${name}`;
  const powers = value.dimensions.map((d, i) => [['m', 'kg', 's', 'A', 'rad'][i], Number(d.toPrecision(6))] as const).filter(([, d]) => d);
  return `a quantity in ${powers.map(([u, d]) => (d === 1 ? u : `${u}^${d}`)).join(' ')}`;
}

/** An amount of these powers, or a plain number where nothing is left of them. */
const made = (si: number, dimensions: Dimensions): Value => (alike(dimensions, none) ? si : new Amount(si, dimensions));
const siOf = (v: Value): number => (typeof v === 'number' ? v : v.si);
const dimensionsOf = (v: Value): Dimensions => (typeof v === 'number' ? none : v.dimensions);
const mapped = (of: (d: number, i: number) => number, v: Value): Dimensions => dimensionsOf(v).map(of) as unknown as Dimensions;

/** Terms that cannot be put together, in words. */
export class MeasureFault extends Error {}

/**
 * The one dimension of values that are put together.
 * @throws MeasureFault where they measure different things.
 */
function common(values: readonly Value[], what: string): Dimensions {
  const first = dimensionsOf(values[0]);
  const other = values.find((v) => !alike(dimensionsOf(v), first));
  if (other !== undefined) throw new MeasureFault(`${measure(values[0])} and ${measure(other)} cannot be ${what}`);
  return first;
}
/**
 * A plain number.
 * @throws MeasureFault where it measures something.
 */
function plain(v: Value, what: string): number {
  if (typeof v !== 'number') throw new MeasureFault(`${what} takes a plain number, not ${measure(v)}`);
  return v;
}

/** What operators do; a value for each that throws a MeasureFault where its terms do not fit. */
export const operations: Record<'+' | '-' | '*' | '/' | '^', (a: Value, b: Value) => Value> = {
  '+': (a, b) => (typeof a === 'number' && typeof b === 'number' ? a + b : new Amount(siOf(a) + siOf(b), common([a, b], 'added'))),
  '-': (a, b) => (typeof a === 'number' && typeof b === 'number' ? a - b : new Amount(siOf(a) - siOf(b), common([a, b], 'subtracted'))),
  '*': (a, b) =>
    typeof a === 'number' && typeof b === 'number'
      ? a * b
      : made(
          siOf(a) * siOf(b),
          mapped((d, i) => d + dimensionsOf(b)[i], a),
        ),
  '/': (a, b) =>
    typeof a === 'number' && typeof b === 'number'
      ? a / b
      : made(
          siOf(a) / siOf(b),
          mapped((d, i) => d - dimensionsOf(b)[i], a),
        ),
  '^': (a, b) => raised(a, plain(b, 'a power')),
};

const raised = (a: Value, power: number): Value =>
  typeof a === 'number'
    ? a ** power
    : made(
        a.si ** power,
        mapped((d) => d * power, a),
      );
/** The other sign. */
export const negated = (v: Value): Value => (typeof v === 'number' ? -v : new Amount(-v.si, v.dimensions));

type Compute = (...args: Value[]) => Value;
const onNumbers =
  (name: string, of: (...v: number[]) => number): Compute =>
  (...args) =>
    of(...args.map((v) => plain(v, name)));
/** Of values that measure the same, which the result does as well. */
const onAlike =
  (name: string, of: (...v: number[]) => number): Compute =>
  (...args) =>
    made(of(...args.map(siOf)), common(args, `put into ${name}`));
/** Of an angle, or of a plain number as radians. */
const onAngle =
  (name: string, of: (v: number) => number): Compute =>
  (v) => {
    if (typeof v !== 'number' && !alike(v.dimensions, base.rad)) throw new MeasureFault(`${name} takes an angle, not ${measure(v)}`);
    return of(siOf(v));
  };
/** To a number of decimals, none if it is not said. */
const toDecimals =
  (name: string, of: (v: number) => number): Compute =>
  (v, decimals = 0) => {
    const [value, digits] = [plain(v, name), plain(decimals, name)];
    // By text, as 1.005 * 100 is not 100.5.
    return Number(`${of(Number(`${value}e${digits}`))}e${-digits}`) || of(value * 10 ** digits) / 10 ** digits;
  };

/** What functions do: how many values they take, from and to, and what comes out, where they fit. */
export const functions: ReadonlyMap<string, { takes: readonly [number, number]; of: Compute }> = new Map(
  Object.entries({
    sqrt: { takes: [1, 1], of: (v) => raised(v, 0.5) },
    abs: { takes: [1, 1], of: onAlike('abs', Math.abs) },
    sin: { takes: [1, 1], of: onAngle('sin', Math.sin) },
    cos: { takes: [1, 1], of: onAngle('cos', Math.cos) },
    tan: { takes: [1, 1], of: onAngle('tan', Math.tan) },
    asin: { takes: [1, 1], of: onNumbers('asin', Math.asin) },
    acos: { takes: [1, 1], of: onNumbers('acos', Math.acos) },
    atan: { takes: [1, 1], of: onNumbers('atan', Math.atan) },
    atan2: { takes: [2, 2], of: (y, x) => (common([y, x], 'put into atan2'), Math.atan2(siOf(y), siOf(x))) },
    sinh: { takes: [1, 1], of: onNumbers('sinh', Math.sinh) },
    cosh: { takes: [1, 1], of: onNumbers('cosh', Math.cosh) },
    tanh: { takes: [1, 1], of: onNumbers('tanh', Math.tanh) },
    exp: { takes: [1, 1], of: onNumbers('exp', Math.exp) },
    log: { takes: [1, 2], of: onNumbers('log', (v, to) => (to === undefined ? Math.log(v) : Math.log(v) / Math.log(to))) },
    log10: { takes: [1, 1], of: onNumbers('log10', Math.log10) },
    log2: { takes: [1, 1], of: onNumbers('log2', Math.log2) },
    min: { takes: [1, Infinity], of: onAlike('min', Math.min) },
    max: { takes: [1, Infinity], of: onAlike('max', Math.max) },
    floor: { takes: [1, 2], of: toDecimals('floor', Math.floor) },
    ceil: { takes: [1, 2], of: toDecimals('ceil', Math.ceil) },
    round: { takes: [1, 2], of: toDecimals('round', (v) => Math.sign(v) * Math.round(Math.abs(v))) },
    sign: { takes: [1, 1], of: (v) => Math.sign(siOf(v)) },
    hypot: { takes: [1, Infinity], of: onAlike('hypot', Math.hypot) },
  } satisfies Record<(typeof arithmeticNames)[number], { takes: readonly [number, number]; of: Compute }>),
);
