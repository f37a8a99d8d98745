import type { Column } from '../recorders/index.ts';
import { channelNames, type ResultMeta } from '../results/index.ts';
import { alongWire } from './wires.ts';

/** Propagation of each mode of guided ports over the band: beta, rad/m, and attenuation, Np/m. */
export function propagationColumns({ ports }: Pick<ResultMeta, 'ports'>, frequency: ArrayLike<number>, beta: ArrayLike<number>): Column[] {
  const names = channelNames(ports);
  const of = (n: number, part: 0 | 1, sign: 1 | -1): number[] => Array.from(frequency, (_, f) => sign * beta[2 * (f * ports.length + n) + part]);
  return [
    { title: 'frequency (Hz)', values: frequency },
    ...ports.flatMap((p, n) =>
      p.mode === undefined
        ? []
        : [
            { title: `${names[n]} beta (rad/m)`, values: of(n, 0, 1) },
            { title: `${names[n]} attenuation (Np/m)`, values: of(n, 1, -1) },
          ],
    ),
  ];
}

/** Currents [segment][start, end][re, im], A, along some wires over the way on each, metres; wires by their place in the list, from 1. */
export function wireColumns(
  wires: readonly { first: number; count: number }[],
  currents: ArrayLike<number>,
  along: ArrayLike<number>,
  segments: ArrayLike<number>,
  numbers: readonly number[] = wires.map((_, n) => n + 1),
): Column[] {
  const way = wires.map((w) => alongWire(currents, along, segments, w).x);
  const part = (p: 0 | 1): number[] =>
    wires.flatMap(({ first, count }) => Array.from({ length: 2 * count }, (_, i) => currents[4 * first + 2 * i + p]));
  return [
    { title: 'wire', values: wires.flatMap(({ count }, n) => Array.from({ length: 2 * count }, () => numbers[n])) },
    { title: 'way (m)', values: way.flatMap((x) => [...x]) },
    { title: 'current real (A)', values: part(0) },
    { title: 'current imaginary (A)', values: part(1) },
  ];
}
