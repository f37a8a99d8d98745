import { type Body, crossedIn } from '../../geometry/index.ts';
import { type Point3, type Problem, problem } from '../../document/index.ts';
import type { Axis } from '../../numerics/axis.ts';
import { c0, eta0 } from '../../numerics/constants.ts';
import type { FrontKernel } from '../../numerics/factors.ts';
import type { SceneSection } from '../../scene/index.ts';
import type { Complexes, Complex } from '../../numerics/complex.ts';
import { areasOf, type GuidedMode, guidedModes, modeNames, modeToName, type Section, uniformPermittivity } from '../modes/index.ts';
import { cutoffFrequency, fieldSums, groupIndexOf, type LineFigures, lineFigures, type ModeFigures, shareOfPower } from './figures.ts';
import { type FilledSection, fillSection } from './fillSection.ts';
import { coverages } from './raster.ts';
import { mostSectionCells, sectionCells, sectionGrid, type SectionGrid } from './sectionGrid.ts';
import { disperses } from './sectionMedia.ts';
import { wallLoss } from './wallLoss.ts';

/** Modes of a section at one frequency, with their figures, on a grid. */
export interface SolvedSection {
  grid: SectionGrid;
  filled: FilledSection;
  frequency: number;
  modes: GuidedMode[];
  figures: ModeFigures[];
}

/** Faults of a section that its grid or its filling shows. */
export function checkSection(bodies: readonly Body[], s: SceneSection, g: SectionGrid, { section, bodies: met }: FilledSection): Problem[] {
  const place = { part: 'sections', name: s.name } as const;
  if (![...section.eu, ...section.ev].some((e) => e !== 0))
    return [
      problem('error', 'section.metal', place, 'The section lies wholly in metal.', 'Move its plane or its corners to where the guide is open.'),
    ];
  if (sectionCells(g) > mostSectionCells) return [tooMany(s, g)];
  const corner = (p: readonly number[]): Point3 => [0, 1, 2].map((a) => (a === s.normal ? s.at : p[s.axes.indexOf(a as Axis)])) as Point3;
  const tilted = bodies.find(
    (b) => b.material.kind === 'conductor' && b.shape.form === 'tilted sheet' && crossedIn(b.shape, s.normal, corner(s.min), corner(s.max)).length,
  );
  if (tilted)
    return [
      problem(
        'error',
        'section.tilted-sheet',
        place,
        `${tilted.name} is a sheet that stands across none of the axes; sections cannot follow it.`,
        'Thicken it to a solid, or turn the model so that it stands across an axis.',
      ),
    ];
  const magnetic = met.find((b) => b.material.kind === 'dielectric' && ((b.material.permeability ?? 1) !== 1 || b.material.permeabilityAlong));
  if (magnetic)
    return [
      problem(
        'error',
        'section.magnetic',
        place,
        `${magnetic.name} is of ${magnetic.material.name}, which is magnetic; sections do not take that yet.`,
        'Choose a material without permeability.',
      ),
    ];
  if (!bodies.some((b) => b.min[s.normal] <= s.at && b.max[s.normal] >= s.at))
    return [problem('warning', 'section.empty', { ...place, chip: 'at' }, 'The plane meets no body.', 'Move it to where the guide runs.')];
  return [];
}

const tooMany = (s: SceneSection, g: SectionGrid): Problem =>
  problem(
    'error',
    'section.cells',
    { part: 'sections', name: s.name, chip: 'grid' },
    `The grid of the section has ${sectionCells(g)} cells; at most ${mostSectionCells} can be solved.`,
    'Take fewer cells per wavelength, larger cells, or a smaller section; look for a wrong unit.',
  );

/** The grid of a section and what stands on it, or why it cannot be solved. */
export function prepareSection(
  bodies: readonly Body[],
  s: SceneSection,
  { finer = 1, frequency = s.frequency, grid }: { finer?: number; frequency?: number; grid?: SectionGrid } = {},
): { grid: SectionGrid; filled: FilledSection; problems: Problem[] } | { problems: Problem[] } {
  const g = grid ?? sectionGrid(bodies, s, finer);
  if (sectionCells(g) > mostSectionCells) return { problems: [tooMany(s, g)] };
  const filled = fillSection(bodies, s, g, frequency);
  const problems = checkSection(bodies, s, g, filled);
  return problems.some((p) => p.severity === 'error') ? { problems } : { grid: g, filled, problems };
}

/** Solves the modes of a section on a grid at a frequency, hertz. */
export function solveModes(
  bodies: readonly Body[],
  s: SceneSection,
  { grid, filled }: { grid: SectionGrid; filled: FilledSection },
  frequency: number,
  kernel?: FrontKernel,
): SolvedSection {
  const k0 = (2 * Math.PI * frequency) / c0;
  const near: [number, number] | undefined = s.near > 0 ? [(s.near * k0) ** 2, 0] : undefined;
  const found = guidedModes(filled.section, k0, { count: s.modes, near, kernel });
  const modes = near ? found.sort((a, b) => distance(a, s.near * k0) - distance(b, s.near * k0)) : found;
  const slope = disperses(filled.bodies) ? permittivitySlope(bodies, s, grid, frequency) : undefined;
  const cover = coverages(filled, s, grid);
  const uniform = filled.section.loss || filled.section.absorb ? null : uniformPermittivity(filled.section);
  const [a, b] = grid.axes;
  const names = modeNames(filled.section, modes.map(modeToName), [!!s.halved?.[a], !!s.halved?.[b]]);
  const figures = modes.map((m, n) => ({ ...figuresOf(filled, s, grid, m, k0, frequency, uniform, slope, cover), name: names[n] }));
  return { grid, filled, frequency, modes, figures };
}

const distance = (m: GuidedMode, beta: number): number => Math.hypot(m.beta[0] - beta, m.beta[1]);

function figuresOf(
  filled: FilledSection,
  s: SceneSection,
  g: SectionGrid,
  mode: GuidedMode,
  k0: number,
  frequency: number,
  uniform: number | null,
  slope: { u: Complexes; v: Complexes; w: Complexes } | undefined,
  cover: { body: string; quarters: Float32Array }[],
): Omit<ModeFigures, 'name'> {
  const { section } = filled;
  const propagates = mode.beta[0] > 0 && mode.beta[0] > -mode.beta[1];
  const wall = propagates ? wallLoss(filled, mode, frequency) / (2 * mode.power[0]) : 0;
  const alpha = -mode.beta[1] + wall;
  const sums = fieldSums(section, mode);
  return {
    kind: mode.kind,
    index: [mode.beta[0] / k0, alpha / k0],
    beta: mode.beta[0],
    alpha,
    wall,
    propagates,
    groupIndex: propagates && !section.bend ? groupIndexOf(section, mode, eta0, slope) : null,
    cutoff: mode.cutoff !== null && uniform !== null ? cutoffFrequency(mode.cutoff, uniform) : null,
    waveImpedance: sums.waveImpedance,
    line: ofWhole(lineFigures(section, mode), s.wholeImpedance),
    area: sums.area,
    alongFirst: g.axes[0] === s.axes[0] ? sums.alongU : 1 - sums.alongU,
    confinement: propagates ? cover.map(({ body, quarters }) => ({ body, share: shareOfPower(section, mode, quarters) })) : [],
    quarterTurn: s.bend ? 20 * Math.LOG10E * alpha * Math.abs(s.bend.radius) * (Math.PI / 2) : null,
    residual: mode.residual,
  };
}

/** Step of that difference, as a part of the frequency. */
const step = 1e-4;

/** k0 d eps/dk0 on the edges, by a central difference of the media. */
function permittivitySlope(bodies: readonly Body[], s: SceneSection, g: SectionGrid, f: number): { u: Complexes; v: Complexes; w: Complexes } {
  const [low, high] = [1 - step, 1 + step].map((k) => fillSection(bodies, s, g, f * k).section);
  const part = (e: (x: Section) => Float64Array, loss: (x: Section) => Float64Array | undefined): Complexes => ({
    re: e(high).map((x, n) => (x - e(low)[n]) / (2 * step)),
    im: e(high).map((_, n) => -((loss(high)?.[n] ?? 0) - (loss(low)?.[n] ?? 0)) / (2 * step)),
  });
  return { u: part((x) => x.eu, (x) => x.loss?.u), v: part((x) => x.ev, (x) => x.loss?.v), w: part((x) => x.ew, (x) => x.loss?.w) }; // prettier-ignore
}

/** A mode's share in another's: 1 for the same, 0 for modes that carry power apart. Both on one grid. */
export function overlap(section: Section, a: GuidedMode, b: GuidedMode): number {
  const product = (p: GuidedMode, q: GuidedMode): Complex => crossProduct(section, p, q);
  const [ab, ba, aa, bb] = [product(a, b), product(b, a), product(a, a), product(b, b)];
  const size = (c: Complex): number => Math.hypot(...c);
  return Math.sqrt((size(ab) * size(ba)) / (size(aa) * size(bb)));
}

/** Integral of E of one mode x H of another, not conjugated. */
function crossProduct(s: Section, { e }: GuidedMode, { h }: GuidedMode): Complex {
  const area = areasOf(s);
  let [re, im] = [0, 0];
  const add = (a: Complexes, b: Complexes, n: number, weight: number): void => {
    re += weight * (a.re[n] * b.re[n] - a.im[n] * b.im[n]);
    im += weight * (a.re[n] * b.im[n] + a.im[n] * b.re[n]);
  };
  for (let n = 0; n < area.u.length; n++) {
    add(e.u, h.v, n, area.u[n]);
    add(e.v, h.u, n, -area.v[n]);
  }
  return [re, im];
}

/** Impedances of the whole line of which a section is a part. */
const ofWhole = (line: LineFigures | null, factor = 1): LineFigures | null =>
  line && {
    powerVoltage: line.powerVoltage * factor,
    powerCurrent: line.powerCurrent * factor,
    voltageCurrent: line.voltageCurrent * factor,
  };
