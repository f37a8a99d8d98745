import { problem } from '../../../document/index.ts';
import type { Grid } from '../../../grid/index.ts';
import type { Complex } from '../../../numerics/complex.ts';
import { c0, eta0 } from '../../../numerics/constants.ts';
import { farFieldAt } from '../../../radiation/index.ts';
import type { ScatterFigures } from '../../../results/index.ts';
import type { GridScene, SceneWave } from '../../../scene/index.ts';
import { planWave, type TotalBox } from '../discreteWave.ts';
import type { FarReading } from '../farReading.ts';
import { PortSpectrum } from '../portSpectrum.ts';
import { pulseAt } from '../../../numerics/pulse.ts';
import { boxGap } from '../recorders.ts';
import type { GridSource, SourceGround } from './source.ts';

/** Cells between the recording box, which sees the scattered field alone, and the box in which the wave is. */
const waveGap = 2;

/** The box in which the total field is computed. */
const totalBox = ({ lines, outerCells }: Grid): TotalBox => ({
  lo: [0, 1, 2].map((a) => outerCells[2 * a] + boxGap + waveGap) as TotalBox['lo'],
  hi: [0, 1, 2].map((a) => lines[a].length - 1 - outerCells[2 * a + 1] - boxGap - waveGap) as TotalBox['hi'],
});

/** A plane wave of 1 V/m: total field within a box, scattered field outside. */
export function waveSource(wave: SceneWave, { scene, d, grid, pulse }: SourceGround): GridSource {
  const box = totalBox(grid);
  const { dt } = d;
  const entering = planWave(grid, dt, box, wave, pulse);
  return {
    problems: waveRoom(scene, wave, grid),
    box,
    injection: entering,
    probes: [],
    read({ every }) {
      // The spectrum of the wave where it passes the origin: fields come out for 1 V/m and phase zero there.
      const source = new PortSpectrum(scene.recordAt, dt, 0.5);
      source.update(Float64Array.from({ length: Math.ceil(pulse.length / dt) }, (_, n) => pulseAt(pulse, (n + 0.5) * dt)));
      const scales = scene.recordAt.map((f, n): Complex => {
        const [re, im] = [source.re[n], source.im[n]];
        const angle = 2 * Math.PI * f * entering.delay;
        const factor = (every * dt) / (re * re + im * im);
        return [factor * (re * Math.cos(angle) + im * Math.sin(angle)), factor * (re * Math.sin(angle) - im * Math.cos(angle))];
      });
      return {
        scales,
        arrays: {},
        tell(far) {
          const figures = far?.readings.map((r) => scatterFigures(r, wave));
          return {
            told: {
              wave: { name: wave.name, theta: wave.from[0], phi: wave.from[1] },
              farField: null,
              scattered: far && figures ? { name: far.name, step: far.step, figures } : null,
            },
            // What is taken out of the wave, by the field straight ahead, against what is scattered and absorbed.
            balance: figures?.map((f) => (f.extinction - f.scattering - f.absorption) / f.extinction) ?? null,
          };
        },
      };
    },
  };
}

function scatterFigures({ frequency, faces, power, radiated, peak, theta, phi, lost }: FarReading, wave: SceneWave): ScatterFigures {
  const density = 1 / (2 * eta0);
  return {
    frequency,
    scattering: radiated / density,
    fromPattern: power / density,
    absorption: lost / density,
    extinction: forward(faces, frequency, wave),
    largest: (4 * Math.PI * peak) / density,
    theta,
    phi,
    back: (4 * Math.PI * towards(faces, frequency, wave.from)) / density,
  };
}

type Faces = FarReading['faces'];

/** Power per solid angle in one direction. */
const towards = (faces: Faces, frequency: number, [theta, phi]: readonly [number, number]): number =>
  farFieldAt(faces, frequency, theta, phi).reduce((sum, v) => sum + v * v, 0) / (2 * eta0);

/** Extinction cross-section by the optical theorem, 4 pi / k times the part of the forward field that is a quarter period behind. */
function forward(faces: Faces, frequency: number, wave: SceneWave): number {
  const [theta, phi] = [Math.PI - wave.from[0], wave.from[1] + Math.PI];
  const p = farFieldAt(faces, frequency, theta, phi);
  const unit = [
    [Math.cos(theta) * Math.cos(phi), Math.cos(theta) * Math.sin(phi), -Math.sin(theta)],
    [-Math.sin(phi), Math.cos(phi), 0],
  ];
  // Im of F . conj(e).
  let sum = 0;
  for (const c of [0, 1]) for (let a = 0; a < 3; a++) sum += unit[c][a] * (p[2 * c + 1] * wave.re[a] - p[2 * c] * wave.im[a]);
  return (-2 * c0 * sum) / frequency;
}

/** Bodies must lie inside the box of the total field, whose rim is empty: what is half a cell beside a line has a part in the field there. */
export function waveRoom(scene: GridScene, wave: SceneWave, grid: Grid): ReturnType<typeof problem>[] {
  const { lines } = grid;
  const box = totalBox(grid);
  const between = (a: number, i: number): number => (lines[a][i] + lines[a][i + 1]) / 2;
  const out = scene.bodies.some((b) => [0, 1, 2].some((a) => b.min[a] < between(a, box.lo[a]) || b.max[a] > between(a, box.hi[a] - 1)));
  return out
    ? [
        problem(
          'error',
          'wave.room',
          { part: 'ports', name: wave.name },
          'A body reaches to the rim of the box in which the plane wave is, four cells before the boundary.',
          'Give the boundaries a larger margin.',
        ),
      ]
    : [];
}
