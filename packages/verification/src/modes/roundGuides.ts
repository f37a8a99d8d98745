import { c0 } from '@jadebell/core/numerics';
import type { SceneSection } from '@jadebell/core/scene';
import type { SolverHost } from '@jadebell/core/solvers';
import { plainBody } from '../bench.ts';
import type { Case, Row } from '../case.ts';
import { bar, copper, dielectric, rod, sectionAcross, solved } from './parts.ts';

const radius = 5e-3;
/** First zeros of J1', J0, J2': TE11 twice, TM01, TE21 twice. */
const zeros = [1.841184, 1.841184, 2.404826, 3.054237, 3.054237];

/** Errors of the first five cutoffs in percent, and by how much each pair of equal modes is split. */
async function roundGuide(host: SolverHost, min: [number, number], max: [number, number], grid: SceneSection['grid']) {
  const bodies = [plainBody('block', 0, copper, bar(-1, 1, -1, 1)), { ...plainBody('hole', 1, dielectric(1), rod(radius)), curved: true }];
  const { figures, cells, seconds } = await solved(host, bodies, sectionAcross({ min, max, frequency: 40e9, modes: 5, grid }));
  const k = figures.map((f) => (f.cutoff! * 2 * Math.PI * radius) / c0);
  const off = Math.max(...k.map((x, n) => 100 * Math.abs(x / zeros[n] - 1)));
  return { off, split: [1, 4].map((n) => 100 * Math.abs(k[n] / k[n - 1] - 1)), cells, seconds };
}

/**
 * The same on a uniform grid of so many cells across, its lines shifted by parts of a cell: with 20, 40 and 50 cells those through the middle pass through points
 * (3, 4, 5) of the circle.
 */
export function onUniform(host: SolverHost, across: number, [du, dv]: readonly [number, number]): ReturnType<typeof roundGuide> {
  const cell = (2 * radius) / across;
  const from = [du, dv].map((d) => -(Math.floor(across / 2) + 2 + d) * cell) as [number, number];
  return roundGuide(host, from, from.map((x) => x + (across + 5) * cell) as [number, number], { cell: [cell, cell] });
}

/** Shifts of the lines, in cells. */
export const shifts = [[0, 0], [0.5, 0], [0.5, 0.5], [0.17, 0.05]] as const; // prettier-ignore

/** Round hollow guides wherever the lines of the grid lie. */
export const roundGuides: Case = {
  name: 'round-guides',
  title: 'Section: round guides on uniform and automatic grids',
  slow: true,
  async run(host) {
    const uniform: Awaited<ReturnType<typeof roundGuide>>[] = [];
    for (const across of [40, 45, 50, 57, 64]) for (const shift of shifts) uniform.push(await onUniform(host, across, shift));
    const automatic: typeof uniform = [];
    for (const perWavelength of [30, 40, 50]) automatic.push(await roundGuide(host, [-6e-3, -6e-3], [6e-3, 6e-3], { perWavelength }));
    return [
      [`${uniform.length} uniform grids of 40 to 64 cells across`, uniform],
      [`${automatic.length} automatic grids of 30 to 50 cells a wavelength at 1.4 times the fifth cutoff (20 split the pair by 0.1 %)`, automatic],
    ].flatMap(([name, all]) => {
      const of = all as typeof uniform;
      const row = (what: string, error: number, allowed: number, source: string): Row => ({ quantity: `${name as string}: ${what}`, reference: '0', source, computed: `${error.toFixed(3)} %`, error, allowed, unit: '%', cells: Math.max(...of.map((g) => g.cells)), seconds: of.reduce((s, g) => s + g.seconds, 0) }); // prettier-ignore
      return [
        row(
          'largest error of the first five cutoffs',
          Math.max(...of.map((g) => g.off)),
          0.3,
          'zeros of Bessel functions (Pozar, Microwave Engineering, 3.4)',
        ),
        row('largest split of equal modes', Math.max(...of.flatMap((g) => g.split)), 0.05, 'they are equal'),
      ];
    });
  },
};
