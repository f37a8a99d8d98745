import { cross, type Vec3 } from '../numerics/vector.ts';
import { angle, number, optional } from '../entries/index.ts';
import { definePort } from './port.ts';
import type { SceneWave } from './types.ts';

/**
 * Directions and amplitudes of a wave from (theta, phi). Its main axis is turned by `tilt` from the theta direction towards phi
 * of where it comes from; `minor` is the ratio of the ellipse's axes, positive for right-hand sense by the IEEE, looking along
 * the propagation; E = (a - j minor b) / sqrt(1 + minor^2) with a, b and the propagation a right-handed triple.
 */
export function waveOf(name: string, order: number, theta: number, phi: number, tilt: number, minor: number): SceneWave {
  const [ct, st, cp, sp] = [Math.cos(theta), Math.sin(theta), Math.cos(phi), Math.sin(phi)];
  const towards: SceneWave['towards'] = [-st * cp, -st * sp, -ct];
  const a: Vec3 = [ct * cp * Math.cos(tilt) - sp * Math.sin(tilt), ct * sp * Math.cos(tilt) + cp * Math.sin(tilt), -st * Math.cos(tilt)];
  const b = cross(towards, a);
  const size = Math.sqrt(1 + minor * minor);
  return {
    kind: 'wave',
    name,
    order,
    from: [theta, phi],
    towards,
    re: a.map((x) => x / size) as SceneWave['re'],
    im: b.map((x) => (-minor * x) / size) as SceneWave['im'],
  };
}

/** A plane wave that lights the whole structure. */
export const planeWave = definePort({
  kind: 'plane-wave',
  title: 'plane wave from a direction',
  stem: 'wave1',
  family: 'source',
  role: 'source',
  solvers: ['fdtd', 'moment'],
  single: true,
  fields: {
    theta: angle('theta', '0 deg', { about: 'Angle from +z of the direction that it comes from' }),
    phi: angle('phi', '0 deg', { about: 'Angle from +x of that direction' }),
    tilt: angle('turn of E', '0 deg', { about: 'Angle of the main axis of E from the direction of growing theta towards that of growing phi' }),
    minor: number('axis ratio of E', '0', 'Minor over main axis of the ellipse of E: 0 linear, 1 right-hand circular, -1 left-hand circular (IEEE)'),
    strength: optional('number', 'strength in V/m', '1', 'V/m, peak, by which voltages and currents that it induces are told; absent: 1'),
    count: optional('number', 'number of directions', '1', 'Directions of a sweep, the first being theta and phi; absent: 1', { whole: [1, 361] }),
    toTheta: optional('angle', 'last theta', '90 deg', 'With count above 1: theta of the last direction of a sweep; absent: 90 deg'),
    toPhi: optional('angle', 'last phi', '0 deg', 'Phi of the last direction of a sweep; absent: 0 deg'),
  },
  sentence: ({ count = '1' }) =>
    `Plane wave {name} · from theta {theta} phi {phi} · E turned {tilt} from theta, axis ratio {minor} · {strength} V/m · {count} ${
      count.trim() === '1' ? 'direction' : 'directions to theta {toTheta} phi {toPhi}'
    }`,
  // Its box and that of the far field stand between the bodies and the boundary.
  room: 7,
  onGrid: ({ sweep }: SceneWave, { boundaries }) => [
    ...(sweep
      ? [
          {
            code: 'wave.sweep',
            severity: 'warning' as const,
            message: 'The time-domain solver takes the first direction of a sweep alone.',
            fix: 'Solve the others in runs of their own, or wires by the solver of wires.',
          },
        ]
      : []),
    ...(boundaries.some((b) => b !== 'open')
      ? [
          {
            code: 'wave.closed',
            message: 'A plane wave needs open boundaries on all six sides and no plane of symmetry.',
            fix: 'Open the boundaries and remove the symmetry, or remove the wave.',
          },
        ]
      : []),
  ],
  resolve({ name }, v, { order, fail }): SceneWave | null {
    if (Math.abs(v.minor) > 1)
      return fail(
        'wave.ellipse',
        'minor',
        'The ratio of the ellipse’s axes is beyond 1.',
        'Give 0 for linear polarisation, 1 or -1 for circular, or turn the main axis by 90 deg.',
      );
    if (!(v.strength > 0)) return fail('wave.strength', 'strength', 'The wave has no strength.', 'Give the peak of E in V/m, above zero.');
    const at = (t: number): SceneWave => waveOf(name, order, v.theta + t * (v.toTheta - v.theta), v.phi + t * (v.toPhi - v.phi), v.tilt, v.minor);
    const sweep = Array.from({ length: v.count > 1 ? v.count : 0 }, (_, i) => at(i / (v.count - 1)));
    return { ...at(0), ...(v.strength === 1 ? {} : { strength: v.strength }), ...(sweep.length ? { sweep } : {}) };
  },
});
