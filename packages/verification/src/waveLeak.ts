import { type Grid, cellCount } from '@jadebell/core/grid';
import { c0, pulseAt, pulseFor } from '@jadebell/core/numerics';
import { waveOf } from '@jadebell/core/scene';
import { discretise, planWave, PortSpectrum, Simulation } from '@jadebell/core/solvers/fdtd/parts';
import { planeRegion, sumAt } from '@jadebell/core/yee';
import { plainScene } from './bench.ts';
import type { Case, Row } from './case.ts';
import { gradedLines } from './cavity.ts';

const cells = 64;
const side = 0.1;
const band = { from: 4e9, to: 8e9, points: 2 };
const frequencies = [4e9, 6e9, 8e9];

type Place = readonly [theta: number, phi: number, tilt: number, minor: number, title: string];

/** Along an axis, at a slant, and circular, so that both polarisations are looked at. */
const waves: readonly Place[] = [
  [0, 0, 0, 0, 'along z'],
  [0.7, 0.4, 0.3, 0, 'oblique'],
  [2.1, 3.9, 1.1, 1, 'oblique, circular'],
];

/** A plane wave alone on a graded grid: what leaks out of its box, and how it differs from the exact wave inside. */
export const waveLeak: Case = {
  name: 'plane-wave',
  title: 'Plane wave alone, graded grid',
  slow: true,
  async run(host) {
    const rows: Row[] = [];
    for (const [theta, phi, tilt, minor, title] of waves) {
      const started = host.now();
      const lines = [0, 1, 2].map(() => gradedLines(side, cells).map((v) => v - side / 2)) as unknown as Grid['lines'];
      const grid: Grid = { lines, outerCells: [10, 10, 10, 10, 10, 10], cellsPerWavelength: 0, unsnapped: [[], [], []] };
      const discrete = discretise(plainScene({ bodies: [], ports: [], min: [-0.03, -0.03, -0.03], max: [0.03, 0.03, 0.03], band }), grid);
      const { dt } = discrete;
      const pulse = pulseFor(band.from, band.to);
      const wave = waveOf('wave', 0, theta, phi, tilt, minor);
      const entering = planWave(grid, dt, { lo: [15, 15, 15], hi: [cells - 15, cells - 15, cells - 15] }, wave, pulse);
      const [lo, hi] = [[10, 10, 10], [cells - 10, cells - 10, cells - 10]]; // prettier-ignore
      // For each component a plane outside the box and one through its middle.
      const regions = [0, 1, 2].flatMap((c) => [planeRegion(grid, c, 0, 12, lo, hi), planeRegion(grid, c, 2, cells / 2, lo, hi)]);
      const every = Math.floor(1 / (2.4 * pulse.highest * dt));
      const maxSteps = entering.steps + 400;
      const simulation = await Simulation.create(
        {
          discrete,
          injection: entering,
          waveform: () => 0,
          resistance: () => 1,
          maxSteps,
          regions,
          frequencies,
          every,
          lowest: band.from,
          boundaries: Array<string>(6).fill('open'),
        },
        host,
      );
      await simulation.advance(maxSteps);
      const source = new PortSpectrum(frequencies, dt, 0.5);
      source.update(Float64Array.from({ length: entering.steps }, (_, n) => pulseAt(pulse, (n + 0.5) * dt)));
      let [leak, error] = [0, 0];
      frequencies.forEach((f, at) => {
        const size = Math.hypot(source.re[at], source.im[at]) / (every * dt);
        for (const c of [0, 1, 2] as const)
          for (const inside of [false, true]) {
            const sums = simulation.sums(2 * c + (inside ? 1 : 0));
            const { region } = sums;
            for (let o = 0; o < region.outer; o++)
              for (let i = 0; i < region.inner; i++) {
                const [re, im] = sumAt(sums, o, i, at);
                if (!inside) leak = Math.max(leak, Math.hypot(re, im) / size);
                const [gi, go] = [lo[0] + i, lo[1] + o];
                if (!inside || c === 2 || Math.min(gi, go) < 16 || Math.max(gi, go) > cells - 17) continue;
                const place = [gi, go, cells / 2].map((n, a) => (a === c ? (lines[a][n] + lines[a][n + 1]) / 2 : lines[a][n]));
                const delay = wave.towards.reduce((s, t, a) => s + (t * place[a]) / c0, entering.delay);
                const angle = Math.atan2(source.im[at], source.re[at]) - 2 * Math.PI * f * delay;
                const [p, q] = [Math.cos(angle), Math.sin(angle)];
                const [er, ei] = [wave.re[c] * p - wave.im[c] * q, wave.re[c] * q + wave.im[c] * p];
                error = Math.max(error, Math.hypot(re / size - er, im / size - ei));
              }
          }
      });
      simulation.close();
      const common = { cells: cellCount(grid), seconds: host.now() - started };
      const level = 20 * Math.log10(leak);
      rows.push(
        { ...common, quantity: `leakage into the scattered region, ${title}`, reference: 'none', source: 'no scatterer', computed: `${level.toFixed(1)} dB`, error: level, allowed: -60, unit: 'dB' },
        { ...common, quantity: `largest difference from the exact wave, ${title}`, reference: '0', source: 'plane wave in free space', computed: `${(100 * error).toFixed(2)} %`, error: 100 * error, allowed: 1, unit: '%' },
      ); // prettier-ignore
    }
    return rows;
  },
};
