import type { SolverHost } from '@jadebell/core/solvers';
import type { Point3 } from '@jadebell/core/document';
import { cellCount } from '@jadebell/core/grid';
import { discretise, Simulation } from '@jadebell/core/solvers/fdtd/parts';
import { pulseAt, pulseFor, type Axis } from '@jadebell/core/numerics';
import type { Case } from './case.ts';
import { filament, plainScene, uniformGrid } from './bench.ts';
const step = 5e-3;
const layers = 10;
const half = 12;
const steps = 420;
/** Cells by which the walls of the reference stand further out: what they send back comes from some five times as far, and so much weaker. */
const beyond = 26;
/** Receivers in cells from the centre: before a face, near an edge, in a corner, and before another face off its middle. */
const receivers: Point3[] = [
  [10, 0, 0],
  [10, 10, 0],
  [10, 10, 10],
  [0, -10, 6],
];

/** Voltages of the receivers with the walls `extra` cells further out. */
async function record(host: SolverHost, extra: number): Promise<{ signals: Float64Array[]; cells: number }> {
  const n = half + extra;
  const min: Point3 = [-n * step, -n * step, -n * step];
  const max: Point3 = [n * step, n * step, n * step];
  const ports = [
    filament('source', [0, 0, 0], 2, step, 1e4),
    ...receivers.map((r, i) => filament(`receiver${i}`, r.map((v) => v * step) as Point3, (i % 3) as Axis, step, 1e9)),
  ];
  const scene = plainScene({ bodies: [], ports, min, max, band: { from: 0.5e9, to: 3e9, points: 2 } });
  const grid = uniformGrid(min, max, [2 * n, 2 * n, 2 * n], layers);
  const discrete = discretise(scene, grid);
  const pulse = pulseFor(0.5e9, 3e9);
  const simulation = await Simulation.create(
    {
      discrete,
      waveform: (p, t) => (p === 0 ? pulseAt(pulse, t) : 0),
      resistance: (p) => ports[p].resistance,
      maxSteps: steps,
      regions: [],
      frequencies: [],
      every: 1,
      lowest: 0.5e9,
      boundaries: scene.boundaries,
    },
    host,
  );
  await simulation.advance(steps);
  const signals = receivers.map((_, i) => simulation.voltage(i + 1).slice());
  simulation.close();
  return { signals, cells: cellCount(grid) };
}

/** Absorbing layers against the same layers so far away that little is heard of them. */
export const absorber: Case = {
  name: 'pml',
  title: 'Absorbing layers',
  slow: false,
  async run(host) {
    const started = host.now();
    const small = await record(host, 0);
    const large = await record(host, beyond);
    const seconds = host.now() - started;
    return receivers.map((at, r) => {
      const peak = large.signals[r].reduce((m, v) => Math.max(m, Math.abs(v)), 0);
      const worst = small.signals[r].reduce((m, v, n) => Math.max(m, Math.abs(v - large.signals[r][n])), 0);
      const error = 20 * Math.log10(worst / peak);
      return {
        quantity: `largest echo at cell (${at.join(', ')}), 2 cells from the layers, 0.5-3 GHz`,
        reference: 'no echo',
        source: `the same source in a grid ${beyond} cells larger on each side, ${steps} steps`,
        computed: `${error.toFixed(1)} dB of the signal's peak`,
        error,
        allowed: -60,
        unit: 'dB',
        cells: small.cells,
        seconds,
      };
    });
  },
};
