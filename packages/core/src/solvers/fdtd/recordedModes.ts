import { type Problem, ProblemError } from '../../document/index.ts';
import { type Grid, nearestLine } from '../../grid/index.ts';
import { eta0 } from '../../numerics/constants.ts';
import type { ResultMeta } from '../../results/index.ts';
import { frequenciesOf, numbersOf, type Scene, type SceneGuide, type SceneModes } from '../../scene/index.ts';
import { denseKernel, type Mode, stepsOf, uniformPermittivity } from '../modes/index.ts';
import type { SolveOptions } from '../solver.ts';
import type { Discrete } from './discretise.ts';
import { guideModes, type GuideModes, guidePlane, guideSection, type PortMode } from './guides.ts';
import { planeRegion, type Region, type RegionSums, sumAt } from './recording.ts';

type C = [re: number, im: number];

/** A rectangle in which modes are told apart: the port that it would be, and four regions from `first` on: E and H along its first axis and its second. */
export interface ModesPlan {
  recorder: SceneModes;
  guide: SceneGuide;
  first: number;
  modes?: GuideModes;
}

/** Adds the regions of a rectangle. What reaches into the absorbing layers is cut off. */
export function planModes(grid: Grid, recorder: SceneModes, regions: Region[]): ModesPlan {
  const { normal } = recorder;
  const node = (a: 0 | 1 | 2, x: number): number => {
    const [least, most] = [grid.pml[2 * a], grid.lines[a].length - 1 - grid.pml[2 * a + 1]];
    const i = Math.min(Math.max(nearestLine(grid.lines[a], x), least), most);
    return a === normal ? Math.min(Math.max(i, 1), grid.lines[a].length - 2) : i;
  };
  const on = (p: readonly number[]): [number, number, number] => p.map((x, a) => node(a as 0, x)) as [number, number, number];
  const [lo, hi] = [on(recorder.min), on(recorder.max)];
  const coordinates = (at: readonly number[]): [number, number, number] => at.map((i, a) => grid.lines[a][i]) as [number, number, number];
  const guide: SceneGuide = { name: recorder.name, order: 0, normal, into: 1, min: coordinates(lo), max: coordinates(hi), modes: recorder.modes, shift: 0 }; // prettier-ignore
  const first = regions.length;
  for (const a of [(normal + 1) % 3, (normal + 2) % 3])
    for (const field of [a, a + 3]) regions.push(planeRegion(grid, field, normal, lo[normal], lo, hi));
  return { recorder, guide, first };
}

/** Solves the modes of the rectangles. Throws ProblemError where there are none. */
export async function solveModes(plans: readonly ModesPlan[], scene: Scene, d: Discrete, host: SolveOptions['host']): Promise<void> {
  if (!plans.length) return;
  const kernel = await denseKernel(host.module);
  const problems: Problem[] = [];
  for (const plan of plans) {
    const plane = guidePlane(plan.guide, d.grid, scene.boundaries);
    plan.guide.mixed = uniformPermittivity(guideSection(d, plane)) === null;
    const result = guideModes(d, plan.guide, plane, scene.band, kernel, { part: 'recorders', noun: 'rectangle' });
    if ('found' in result) plan.modes = result.found;
    else problems.push(...result.problems);
  }
  if (problems.length) throw new ProblemError(problems);
}

/** Profiles of a mode at a frequency, e x h of which has the integral `flux`; h of one medium is e turned by a right angle. */
function profileAt(mode: PortMode, frequency: number): { eu: Float64Array; ev: Float64Array; hu: Float64Array; hv: Float64Array; flux: number } {
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

/**
 * Waves of each mode through the rectangles, both ways, at each recorded frequency: E and H are projected on the modes, which are orthogonal
 * in the cross product (Collin, Field Theory of Guided Waves, 2nd ed., sec. 5.6). Their squares are powers in watts; of a mode below cutoff, which alone
 * carries none, they are those of its admittance's size.
 */
export function modesOf(
  plans: readonly ModesPlan[],
  d: Discrete,
  sums: (region: number) => RegionSums,
  frequencies: readonly number[],
  scales: readonly C[],
): NonNullable<ResultMeta['modeWaves']> {
  return plans.map(({ recorder, first, modes }) => {
    const { kept } = recorder;
    const { plane, section, modes: list } = modes!;
    const st = stepsOf(section);
    const nu = st.nu + 1;
    const out = list.map((m) => ({ family: m.mode.kind, propagates: [] as boolean[], forward: [] as C[], backward: [] as C[] }));
    for (const f of numbersOf(kept, scales.length)) {
      const scale = scales[f];
      // Regions run along the lower axis first, sections along u.
      const read = (n: number): ((i: number, j: number) => C) => {
        const s = sums(first + n);
        return (i, j) => (s.region.innerAxis === plane.u ? sumAt(s, j, i, f) : sumAt(s, i, j, f));
      };
      const [eu, hu, ev, hv] = [0, 1, 2, 3].map(read);
      list.forEach((mode, m) => {
        const p = profileAt(mode, frequencies[f]);
        const [v, c]: C[] = [[0, 0], [0, 0]]; // prettier-ignore
        const add = (into: C, x: C, w: number): void => {
          into[0] += w * x[0];
          into[1] += w * x[1];
        };
        for (let n = 0; n < section.eu.length; n++) {
          const [i, j] = [n % nu, Math.floor(n / nu)];
          // The grid keeps E times the free part of its edge.
          if (section.eu[n] > 0) {
            const area = st.du[i] * st.dualV[j];
            add(v, eu(i, j), area * p.hv[n]);
            add(c, hv(i, j), area * p.eu[n] * (section.lu?.[n] ?? 1));
          }
          if (section.ev[n] > 0) {
            const area = st.dualU[i] * st.dv[j];
            add(v, ev(i, j), -area * p.hu[n]);
            add(c, hu(i, j), -area * p.ev[n] * (section.lv?.[n] ?? 1));
          }
        }
        const { admittance: y, propagates } = mode.at(frequencies[f]);
        // E = v, H = y c of the profile; a forward wave has both alike.
        const y2 = y[0] ** 2 + y[1] ** 2;
        const e: C = [v[0] / p.flux, v[1] / p.flux];
        const h: C = [(c[0] * y[0] + c[1] * y[1]) / y2, (c[1] * y[0] - c[0] * y[1]) / y2];
        const power = Math.sqrt(((recorder.images ?? 1) * Math.sqrt(y2) * Math.cos(Math.PI * frequencies[f] * d.dt)) / (2 * eta0)) / 2;
        const wave = (sign: number): C => {
          const [re, im] = [e[0] + sign * h[0], e[1] + sign * h[1]];
          return [power * (re * scale[0] - im * scale[1]), power * (re * scale[1] + im * scale[0])];
        };
        out[m].propagates.push(propagates);
        out[m].forward.push(wave(recorder.sign));
        out[m].backward.push(wave(-recorder.sign));
      });
    }
    const at = d.grid.lines[plane.normal][plane.plane];
    return { name: recorder.name, normal: plane.normal, at, ...frequenciesOf(kept, frequencies), modes: out };
  });
}
