import { type Problem, problem } from '../../document/index.ts';
import { accuracyTable, buildGrid, cellCount, cellsOf, type Grid } from '../../grid/index.ts';
import type { Scene } from '../../scene/index.ts';
import type { Estimate, Machine } from '../solver.ts';
import { timeStep } from './discretise.ts';
import { pulseFor } from './pulse.ts';
import { memoryNeeded } from './simulation.ts';

/** Most bytes the kernel can address. */
const addressable = 2 ** 32 - 2 ** 22;
/** A run that is expected to take longer than this is asked about first. */
const longSeconds = 6 * 3600;

/** Periods of the band's centre that a structure of low Q rings before it has decayed to 1e-5; from the demo antennas. */
const ringing = 12;

/** Steps after which a run ends whatever its energy. */
export const stepLimit = (scene: Scene, dt: number): number => {
  const pulse = pulseFor(scene.band.from, scene.band.to);
  return scene.details.maxSteps ?? Math.ceil((pulse.length + 200 / pulse.centre) / dt);
};

/** Cost of a scene: cells, bytes, steps, seconds. */
export function estimateScene(scene: Scene, machine: Machine, grid: Grid = buildGrid(scene)): Estimate {
  const cells = [cellsOf(grid, 0), cellsOf(grid, 1), cellsOf(grid, 2)] as [number, number, number];
  const dt = timeStep(grid);
  const pulse = pulseFor(scene.band.from, scene.band.to);
  const maxSteps = stepLimit(scene, dt);
  const steps = Math.min(maxSteps, Math.ceil((pulse.length + ringing / pulse.centre) / dt));
  const faces = 2 * (cells[0] * cells[1] + cells[1] * cells[2] + cells[2] * cells[0]);
  const hasFar = scene.recorders.some((r) => r.kind === 'far-field');
  const sums =
    scene.recordAt.length *
    2 *
    ((hasFar ? 4 * faces : 0) + scene.recorders.length * 3 * Math.max(cells[0] * cells[1], cells[1] * cells[2], cells[2] * cells[0]));
  const bytes = memoryNeeded(cells, grid.pml, 0, sums) + maxSteps * 12;
  return {
    cells,
    bytes,
    timeStep: dt,
    steps,
    maxSteps,
    seconds: (cellCount(grid) * steps) / machine.cellsPerSecond + 0.5,
    cellsPerWavelength: grid.cellsPerWavelength,
  };
}

const gigabytes = (bytes: number): string => `${(bytes / 1e9).toPrecision(3)} GB`;

/** What a specialist would point out before the run. */
export function checkScene(scene: Scene, machine: Machine): Problem[] {
  const found: Problem[] = [];
  const rough = roughCells(scene);
  if (rough > 4e9) {
    found.push(
      problem(
        'error',
        'machine.memory',
        { part: 'machine' },
        `The model would need about ${rough.toExponential(1)} cells, far more than any memory holds.`,
        'Look for a dimension or a frequency with the wrong unit.',
      ),
    );
    return found;
  }
  const estimate = estimateScene(scene, machine);
  const limit = Math.min(machine.memory, addressable);
  if (estimate.bytes > limit)
    found.push(
      problem(
        'error',
        'machine.memory',
        { part: 'machine' },
        `The model needs ${gigabytes(estimate.bytes)} for ${estimate.cells.join(' × ')} cells; ${gigabytes(limit)} can be used here.`,
        'Look for a dimension with the wrong unit; otherwise take a coarser accuracy, a lower band or a smaller margin.',
      ),
    );
  else if (estimate.seconds > longSeconds)
    found.push(
      problem(
        'warning',
        'machine.time',
        { part: 'machine' },
        `The run is expected to take ${(estimate.seconds / 3600).toPrecision(2)} hours.`,
        'Look for a very small gap or strip, or take a coarser accuracy.',
      ),
    );
  if (scene.band.to > 20 * scene.band.from)
    found.push(
      problem(
        'warning',
        'band.wide',
        { part: 'band' },
        'The band spans more than 20 to 1: the margin follows the lowest frequency and the cells the highest.',
        'Narrow the band if you can.',
      ),
    );
  return found;
}

/** A quick lower bound of the cells, before any grid is made, so that an absurd model is refused at once. */
function roughCells(scene: Scene): number {
  const { cellsPerWavelength } = accuracyTable[scene.accuracy];
  const step = 299792458 / scene.band.to / (scene.details.cellsPerWavelength ?? cellsPerWavelength);
  return [0, 1, 2].reduce((n, a) => n * Math.max(1, (scene.max[a] - scene.min[a]) / step), 1);
}
