import type { ResultArray, ResultMeta } from '../../results/index.ts';
import type { Scene } from '../../scene/index.ts';
import type { Discrete } from './discretise.ts';
import { boxArrays } from './recordedBoxes.ts';
import { energiesOf } from './recordedEnergy.ts';
import { currentsOf, lineArrays } from './recordedLines.ts';
import { modesOf } from './recordedModes.ts';
import { fluxesOf, metalLosses, planeArrays, planesOf, type RecordingPlan } from './recorders.ts';
import type { RegionSums } from './recording.ts';

/** What a result tells of its recorders, but for the far field and signals over time. */
export type Recorded = Pick<ResultMeta, 'fieldPlanes' | 'fluxes' | 'currents' | 'modeWaves' | 'energies' | 'fieldBoxes' | 'fieldLines'>;

/** Reads all that was recorded at frequencies, each times its complex factor, and adds the fields to a result's arrays. */
export function recordedResults(
  scene: Scene,
  d: Discrete,
  plan: RecordingPlan,
  sums: (region: number) => RegionSums,
  scales: readonly [number, number][],
  arrays: Record<string, ResultArray>,
): Recorded {
  planeArrays(plan, d, sums, scales, arrays);
  const inMetal = (f: number): { line: string; power: number }[] => metalLosses(plan, d, sums, scene.recordAt, f, scales[f]);
  const mean2 = (f: number): number => Math.cos(Math.PI * scene.recordAt[f] * d.dt) ** 2;
  return {
    fieldPlanes: planesOf(plan, d, scene.recordAt),
    fluxes: fluxesOf(plan, d, sums, scene.recordAt, scales),
    currents: currentsOf(plan.currents, sums, scene.recordAt, scales),
    modeWaves: modesOf(plan.modes, d, sums, scene.recordAt, scales),
    energies: energiesOf(plan.energies, scene, d, sums, scales, (f) => inMetal(f).map((m) => ({ ...m, power: mean2(f) * m.power }))),
    fieldBoxes: boxArrays(plan.boxes, scene, sums, scales, arrays),
    fieldLines: lineArrays(plan.lines, scene, d.grid, sums, scales, arrays),
  };
}
