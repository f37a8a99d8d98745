import { type Problem, ProblemError } from '../../document/index.ts';
import type { RectangleModes } from '../../recorders/index.ts';
import type { GridScene, SceneGuide } from '../../scene/index.ts';
import { denseKernel, type Mode, stepsOf, uniformPermittivity } from '../modes/index.ts';
import type { SolveOptions } from '../solver.ts';
import { guideModes } from './guides.ts';
import { guidePlane } from './portPlane.ts';
import type { GuideModes, PortMode } from './modeTypes.ts';
import type { Discrete } from './discrete.ts';
import { guideSection } from './guideSection.ts';

/** A rectangle in which modes are told apart: the port that it would be, and its modes once they are solved. */
export interface SoughtModes {
  guide: SceneGuide;
  found?: RectangleModes;
}

/** Profiles of a mode at a frequency, e x h of which has the integral `flux`; h of one medium is e turned by a right angle. */
function profileAt(mode: PortMode, frequency: number): ReturnType<RectangleModes['modes'][number]['profile']> {
  if (!mode.shape) {
    const { u, v } = mode.mode.e;
    return { eu: u, ev: v, hu: v.map((x) => -x), hv: u, flux: 1 };
  }
  const { shape } = mode;
  const shares = shape.shares(frequency);
  const mix = (pick: (p: Mode) => Float64Array, w: readonly number[]): Float64Array =>
    pick(shape.profiles[0]).map((_, n) => shape.profiles.reduce((s, p, i) => s + w[i] * pick(p)[n], 0));
  return {
    eu: mix((p) => p.e.u, shares.e),
    ev: mix((p) => p.e.v, shares.e),
    hu: mix((p) => p.h.u, shares.h),
    hv: mix((p) => p.h.v, shares.h),
    flux: shape.flux(frequency),
  };
}

function asTold({ plane, section, modes, names }: GuideModes, d: Discrete): RectangleModes {
  const st = stepsOf(section);
  const nu = st.nu + 1;
  const [i, j] = [(n: number): number => n % nu, (n: number): number => Math.floor(n / nu)];
  return {
    u: plane.u,
    at: d.grid.lines[plane.normal][plane.plane],
    nu,
    areas: {
      u: section.eu.map((e, n) => (e > 0 ? st.du[i(n)] * st.dualV[j(n)] : 0)),
      v: section.ev.map((e, n) => (e > 0 ? st.dualU[i(n)] * st.dv[j(n)] : 0)),
    },
    free: { u: section.lu, v: section.lv },
    modes: modes.map((mode, n) => ({ family: mode.mode.kind, name: names[n], profile: (f) => profileAt(mode, f), at: (f) => mode.at(f) })),
  };
}

/** Solves the modes of the rectangles. Throws ProblemError where there are none. */
export async function solveModes(sought: readonly SoughtModes[], scene: GridScene, d: Discrete, host: SolveOptions['host']): Promise<void> {
  if (!sought.length) return;
  const kernel = await denseKernel(host.module);
  const problems: Problem[] = [];
  for (const one of sought) {
    const plane = guidePlane(one.guide, d.grid, scene.boundaries);
    one.guide.inhomogeneous = uniformPermittivity(guideSection(d, plane)) === null;
    const result = guideModes(d, one.guide, plane, scene.band, kernel, { part: 'recorders', noun: 'rectangle' });
    if ('found' in result) one.found = asTold(result.found, d);
    else problems.push(...result.problems);
  }
  if (problems.length) throw new ProblemError(problems);
}
