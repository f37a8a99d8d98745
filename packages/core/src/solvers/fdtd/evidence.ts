import { cellCount, cellsOf, type Grid } from '../../grid/index.ts';
import { type Pulse, pulseLevel } from '../../numerics/pulse.ts';
import type { ResultArray } from '../../results/index.ts';
import type { SteppedRun } from './march.ts';
import type { TimeEvidence } from '../../methods/index.ts';

interface Stepped {
  grid: Grid;
  /** Seconds of a step. */
  dt: number;
  /** Steps of all excitations; those that were made here, and the wall seconds that they took. */
  steps: number;
  made: number;
  stepping: number;
  pulse: Pulse;
  band: { from: number; to: number };
  ended: SteppedRun['ended'];
  residual: number;
}

/** What a run in time tells of itself whatever has excited it. */
export const steppingEvidence = ({ grid, dt, stepping, steps, made, pulse, band, ended, residual }: Stepped) =>
  ({
    steps,
    timeStep: dt,
    cells: [cellsOf(grid, 0), cellsOf(grid, 1), cellsOf(grid, 2)],
    cellsPerWavelength: grid.cellsPerWavelength,
    residualEnergy: residual,
    ended,
    pulseAtEdges: [pulseLevel(pulse, band.from) - pulseLevel(pulse, pulse.centre), pulseLevel(pulse, band.to) - pulseLevel(pulse, pulse.centre)],
    cellsPerSecond: stepping > 0 ? (cellCount(grid) * made) / stepping : 0,
  }) satisfies Partial<TimeEvidence>;

/** Energy over the steps of a run, as a result keeps it: steps, then energies. */
export const energyArray = ({ energies }: SteppedRun): ResultArray => ({
  shape: [2, energies.length],
  data: Float64Array.from([...energies.map((e) => e[0]), ...energies.map((e) => e[1])]),
});
