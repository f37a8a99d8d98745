import type { MaterialEntry, Point3 } from '@jadebell/core/document';
import type { Body, Exact } from '@jadebell/core/geometry';
import type { SceneSection } from '@jadebell/core/scene';
import type { SolverHost } from '@jadebell/core/solvers';
import { denseKernel } from '@jadebell/core/solvers/modes';
import { type Complex, div, mul, sub } from '@jadebell/core/numerics';
import { prepareSection, sectionCells, type SolvedSection, solveModes } from '@jadebell/core/solvers/sections';
import type { Row } from '../case.ts';

/** Far enough that a body goes on along the guide. */
export const long = 1;
export const dielectric = (permittivity: number, more: Partial<MaterialEntry> = {}): MaterialEntry => ({
  name: `e${permittivity}`,
  kind: 'dielectric',
  permittivity,
  lossTangent: 0,
  ...more,
});
export const copper: MaterialEntry = { name: 'copper', kind: 'conductor', conductivity: 5.8e7 };
/** A box along z from corner to corner across. */
export const bar = (x0: number, x1: number, y0: number, y1: number): Exact => ({ form: 'box', min: [x0, y0, -long] as Point3, max: [x1, y1, long] as Point3 }); // prettier-ignore
export const rod = (radius: number): Exact => ({ form: 'cylinder', axis: 2, base: [0, 0, -long], height: 2 * long, radius });

/** A section across z with quiet defaults. */
export const sectionAcross = (parts: Pick<SceneSection, 'min' | 'max' | 'frequency' | 'grid'> & Partial<SceneSection>): SceneSection => ({
  name: 'section',
  normal: 2,
  axes: [0, 1],
  at: 0,
  edges: ['electric', 'electric', 'electric', 'electric'],
  modes: 1,
  near: 0,
  bend: null,
  boxes: [],
  ...parts,
});

/** Solves a section; throws where it cannot be solved. */
export async function solved(
  host: SolverHost,
  bodies: Body[],
  s: SceneSection,
  finer = 1,
): Promise<SolvedSection & { cells: number; seconds: number }> {
  const kernel = await denseKernel(host.module);
  const started = host.now();
  const ready = prepareSection(bodies, s, { finer });
  if (!('filled' in ready)) throw new Error(ready.problems[0].message);
  const out = solveModes(bodies, s, ready, s.frequency, kernel);
  return { ...out, cells: sectionCells(out.grid), seconds: host.now() - started };
}

/** One row of the table, in percent of the reference. */
export const row = (
  quantity: string,
  source: string,
  [computed, reference]: [number, number],
  allowed: number,
  of: { cells: number; seconds: number },
  digits = 6,
): Row => ({
  quantity,
  reference: reference.toPrecision(digits),
  source,
  computed: computed.toPrecision(digits),
  error: (Math.abs(computed - reference) / Math.abs(reference)) * 100,
  allowed,
  unit: '%',
  cells: of.cells,
  seconds: of.seconds,
});

export const root = ([re, im]: Complex): Complex => {
  const size = Math.sqrt(Math.hypot(re, im));
  const half = Math.atan2(im, re) / 2;
  return [size * Math.cos(half), size * Math.sin(half)];
};
/** Zero of an analytic function by the secant method. */
export function complexZero(f: (x: Complex) => Complex, start: Complex, step: number): Complex {
  let [a, b]: Complex[] = [start, [start[0] + step, start[1] - step / 3]];
  let [fa, fb] = [f(a), f(b)];
  for (let i = 0; i < 60 && Math.hypot(...fb) > 0; i++) {
    const next = sub(b, div(mul(fb, sub(b, a)), sub(fb, fa)));
    if (!Number.isFinite(next[0])) break;
    [a, fa, b] = [b, fb, next];
    fb = f(b);
  }
  return b;
}
