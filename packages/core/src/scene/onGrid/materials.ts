import { type MaterialEntry, type Place, type Problem, problem } from '../../document/index.ts';
import type { Body } from '../../geometry/index.ts';
import { frequencyText, gainOf, modelAt, permittivityAt, polesOf } from '../../materials/index.ts';

/** How far the poles that stand for a table may be off before it is told. */
const roughFit = 0.01;

/**
 * A material as the solver takes it; what it cannot take is told. Formulas stay, beside the largest permittivity (its size) in the
 * band, by which the grid is made.
 */
function solvable(body: Body, centre: number, [from, to]: [number, number], problems: Problem[]): MaterialEntry {
  const m = body.material;
  const place: Place = { part: 'lines', name: body.line, chip: 'material' };
  const tell = (severity: 'error' | 'warning', code: string, message: string, fix: string): void => {
    if (!problems.some((p) => p.code === code && p.message === message)) problems.push(problem(severity, code, place, message, fix));
  };
  if (m.kind === 'dielectric' && (m.permeability !== undefined || m.permeabilityAlong))
    tell('error', 'material.magnetic', `${m.name} is magnetic, which no solver here takes yet.`, 'Choose a material without permeability.');
  if (m.range && (from < m.range[0] * 0.999 || to > m.range[1] * 1.001))
    tell(
      'warning',
      'material.range',
      `The band reaches beyond what the figures of ${m.name} are given for.`,
      'Take the result with care, or choose another material.',
    );
  if (!m.dispersion || !(centre > 0) || !(to > from)) return m;
  const model = polesOf(m.dispersion);
  const gain = gainOf(model, [from, to]);
  if (gain !== null)
    tell(
      'error',
      'material.gain',
      `${m.name} gives power at ${frequencyText(gain)}: with such a medium the fields would grow without end.`,
      'Correct its poles: none may have a positive real part, and the loss may be negative nowhere.',
    );
  const looks = [from, centre, to].map((f) => ({ given: permittivityAt(m, f), taken: modelAt(model, 2 * Math.PI * f) }));
  const off = Math.max(
    ...looks.map(({ given, taken }) => Math.hypot(taken.re - given.re, taken.loss - given.loss) / Math.hypot(given.re, given.loss)),
  );
  if (off > roughFit)
    tell(
      'warning',
      'material.fit',
      `The passive poles that stand for ${m.name} are off by up to ${(100 * off).toPrecision(2)} % in the band.`,
      'Look for a jump or gain in its table; narrow the table to the band.',
    );
  const level = Math.max(1, ...looks.map(({ taken }) => Math.hypot(taken.re, taken.loss)));
  return { ...m, permittivity: level };
}

/** Bodies with the materials that are solved for, one for each that the document has, and what the solver cannot take. */
export function solvableBodies(bodies: readonly Body[], band: [number, number]): { bodies: Body[]; problems: Problem[] } {
  const problems: Problem[] = [];
  // Bodies of one material share what the solver makes of it.
  const known = new Map<MaterialEntry, MaterialEntry>();
  const made = bodies.map((b) => {
    let material = known.get(b.material);
    if (!material) known.set(b.material, (material = solvable(b, (band[0] + band[1]) / 2, band, problems)));
    return { ...b, material };
  });
  return { bodies: made, problems };
}
