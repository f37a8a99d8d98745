import type { Complex } from '../numerics/complex.ts';
import type { Column } from './recorder.ts';

/** Columns of complex numbers, pairs among `width` numbers a place, told by what each is and where its real part stands. */
export const phasorColumns = (values: ArrayLike<number>, width: number, parts: readonly { of: string; at: number }[], unit: string): Column[] =>
  parts.flatMap(({ of, at }) =>
    ['real', 'imaginary'].map((part, p) => ({ title: `${of} ${part} (${unit})`, values: everyNth(values, width, at + p) })),
  );

/** Every n-th number from one on. */
export const everyNth = (values: ArrayLike<number>, n: number, first: number): Float64Array =>
  Float64Array.from({ length: Math.floor(values.length / n) }, (_, i) => values[n * i + first]);

/** Parts of E, or another field, along x, y and z. */
export const components = (field: string, first = 0): { of: string; at: number }[] =>
  [...'xyz'].map((c, n) => ({ of: `${field}${c}`, at: first + 2 * n }));

/** Coordinates of all samples on three axes, x running first, metres. */
export function placeColumns(axes: readonly ArrayLike<number>[]): Column[] {
  const count = axes.reduce((n, a) => n * a.length, 1);
  let step = 1;
  return axes.map((x, a) => {
    const each = step;
    step *= x.length;
    return { title: `${'xyz'[a]} (m)`, values: Float64Array.from({ length: count }, (_, n) => x[Math.floor(n / each) % x.length]) };
  });
}

/** Columns of a file for complex figures. */
export const complexColumns = (title: string, unit: string, values: readonly Complex[]): Column[] =>
  ['real', 'imaginary'].map((part, i) => ({ title: `${title} ${part} (${unit})`, values: values.map((x) => x[i]) }));
