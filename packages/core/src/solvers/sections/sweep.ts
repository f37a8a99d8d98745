import type { Body } from '../../geometry/index.ts';
import { type Problem, ProblemError } from '../../document/index.ts';
import type { FrontKernel } from '../../numerics/factors.ts';
import type { SceneSection } from '../../scene/index.ts';
import type { GuidedMode } from '../modes/index.ts';
import type { ModeFigures } from './figures.ts';
import { followers } from './follow.ts';
import { sectionCells, sectionGrid } from './sectionGrid.ts';
import { prepareSection, type SolvedSection, solveModes } from './solveModes.ts';
import { abs, sub } from '../../numerics/complex.ts';

/**
 * What must be so for the next step.
 * @throws ProblemError of a section that cannot be solved.
 */
function ready(bodies: readonly Body[], s: SceneSection, options: Parameters<typeof prepareSection>[2]): Parameters<typeof solveModes>[2] {
  const p = prepareSection(bodies, s, options);
  if (!('filled' in p)) throw new ProblemError(p.problems as Problem[]);
  return p;
}

export interface SweepStep {
  frequency: number;
  /** Figures of each followed mode, in the order of the first frequency; null where a mode was lost. */
  figures: (ModeFigures | null)[];
}

/**
 * Modes over frequencies, hertz in any order, on one grid made for the highest: the media are taken anew at each, and the modes
 * keep their numbers by overlap. A few more are sought than are followed, since they may change places.
 */
export function* sweepSection(bodies: readonly Body[], s: SceneSection, frequencies: readonly number[], kernel?: FrontKernel): Generator<SweepStep> {
  const top = { ...s, frequency: Math.max(...frequencies) };
  const grid = sectionGrid(bodies, top);
  const wide = { ...s, modes: s.modes + 2 };
  let last: GuidedMode[] | null = null;
  for (const frequency of frequencies) {
    const solved: SolvedSection = solveModes(bodies, wide, ready(bodies, top, { grid, frequency }), frequency, kernel);
    let order: number[];
    if (last) {
      const before: GuidedMode[] = last;
      order = followers(solved.filled.section, before, solved.modes);
      last = before.map((m, i) => (order[i] >= 0 ? solved.modes[order[i]] : m));
    } else {
      order = solved.modes.slice(0, s.modes).map((_, i) => i);
      last = solved.modes.slice(0, s.modes);
    }
    yield { frequency, figures: order.map((k) => (k >= 0 ? solved.figures[k] : null)) };
  }
}

export interface ConvergencePass {
  /** Cells are so many times finer than asked. */
  finer: number;
  cells: number;
  figures: ModeFigures[];
  /** Largest change of an index against the pass before; null in the first. */
  change: number | null;
  /** Whether the change is below the bound. */
  settled: boolean;
}

/** Passes of a convergence run at most. */
const mostPasses = 6;

/**
 * Halves the cells until no index of the asked modes changes by more than `bound`, or the section becomes too large.
 * @throws ProblemError of a section that cannot be solved.
 */
export function* convergeSection(bodies: readonly Body[], s: SceneSection, bound: number, kernel?: FrontKernel): Generator<ConvergencePass> {
  let before: ModeFigures[] | null = null;
  for (let pass = 0; pass < mostPasses; pass++) {
    const finer = 2 ** pass;
    const p = prepareSection(bodies, s, { finer });
    if (!('filled' in p)) {
      if (pass === 0) throw new ProblemError(p.problems);
      return;
    }
    const solved = solveModes(bodies, s, p, s.frequency, kernel);
    const old: ModeFigures[] | null = before;
    const change = old ? Math.max(...solved.figures.map((f, i) => (old[i] ? abs(sub(f.index, old[i].index)) : Infinity))) : null; // prettier-ignore
    before = solved.figures;
    const settled = change !== null && change <= bound;
    yield { finer, cells: sectionCells(solved.grid), figures: solved.figures, change, settled };
    if (settled) return;
  }
}
