import { c0, eta0 } from '../../numerics/constants.ts';
import { type PointCurrent, imageOf, pointField } from '../../radiation/index.ts';
import type { SceneDipole, SceneSource, SceneWave, WireScene } from '../../scene/index.ts';
import { addWave, type Incident, reflected, reflectedByEarth } from './excite.ts';

/** The field of a source from without at one frequency where no wire is, the ground counted in. */
export interface IncidentField {
  /** Adds E and H at a point: re and im of Ex, Ey, Ez, Hx, Hy, Hz. */
  add(p: ArrayLike<number>, out: Float64Array): void;
  /** Points close to which it changes over their distance. */
  points: readonly PointCurrent[];
}

/** The wave and what the ground sends back. */
function wavesOf({ ground }: WireScene, wave: SceneWave, frequency: number): Incident[] {
  if (!ground) return [wave];
  return [wave, ground.kind === 'perfect' ? reflected(wave, ground.at, (2 * Math.PI * frequency) / c0) : reflectedByEarth(wave, ground, frequency)];
}

function waveField(scene: WireScene, wave: SceneWave, frequency: number): IncidentField {
  const k = (2 * Math.PI * frequency) / c0;
  const waves = wavesOf(scene, wave, frequency);
  const e = new Float64Array(6);
  return {
    points: [],
    add(p, out) {
      for (const w of waves) {
        e.fill(0);
        addWave(w, k, p, e);
        const t = w.towards;
        for (const c of [0, 1]) {
          const [x, y, z] = [e[c], e[2 + c], e[4 + c]];
          out[c] += x;
          out[2 + c] += y;
          out[4 + c] += z;
          out[6 + c] += (t[1] * z - t[2] * y) / eta0;
          out[8 + c] += (t[2] * x - t[0] * z) / eta0;
          out[10 + c] += (t[0] * y - t[1] * x) / eta0;
        }
      }
    },
  };
}

/** Points of current of a dipole of moment 1 and its image in a perfect ground. */
export function pointCurrents({ ground }: WireScene, { of, at, direction }: SceneDipole): PointCurrent[] {
  const own: PointCurrent = { of, at, moment: direction };
  return ground ? [own, imageOf(own, ground.at)] : [own];
}

function dipoleField(scene: WireScene, dipole: SceneDipole, frequency: number): IncidentField {
  const points = pointCurrents(scene, dipole);
  return { points, add: (p, out) => points.forEach((d) => pointField(d, frequency, p, out)) };
}

/** Sources from without, by their kind. */
const fields: { [K in SceneSource['kind']]: (scene: WireScene, source: Extract<SceneSource, { kind: K }>, frequency: number) => IncidentField } = {
  wave: waveField,
  dipole: dipoleField,
};

/** The field that a source sends to the wires: of a wave of 1 V/m, or of a dipole of moment 1. */
export const incidentField = (scene: WireScene, source: SceneSource, frequency: number): IncidentField =>
  (fields[source.kind] as (s: WireScene, from: SceneSource, f: number) => IncidentField)(scene, source, frequency);
