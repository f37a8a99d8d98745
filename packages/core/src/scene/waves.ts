import { type Place, type Port, portChips, type Problem, problem } from '../document/index.ts';
import { evaluateChips, type Scope } from '../expressions/index.ts';

/** A plane wave of 1 V/m (peak of the rotating field's length over a period, root of the sum of squares). */
export interface SceneWave {
  name: string;
  order: number;
  /** Where it comes from, theta and phi, radians. */
  from: [theta: number, phi: number];
  /** Unit vector of its propagation. */
  towards: [number, number, number];
  /** Complex amplitudes of E along x, y, z, where it passes the origin. */
  re: [number, number, number];
  im: [number, number, number];
  /** V/m by which what it induces is told; absent: 1. */
  strength?: number;
  /** Directions of a sweep, this one the first; absent: it alone. */
  sweep?: SceneWave[];
}

export type WavePort = Extract<Port, { kind: 'plane-wave' }>;
export const isWave = (p: Port): p is WavePort => p.kind === 'plane-wave';

/**
 * Directions and amplitudes of a wave from (theta, phi). Its main axis is turned by `tilt` from the theta direction towards phi
 * of where it comes from; `minor` is the ratio of the ellipse's axes, positive for right-hand sense by the IEEE, looking along
 * the propagation; E = (a - j minor b) / sqrt(1 + minor^2) with a, b and the propagation a right-handed triple.
 */
export function waveOf(name: string, order: number, theta: number, phi: number, tilt: number, minor: number): SceneWave {
  const [ct, st, cp, sp] = [Math.cos(theta), Math.sin(theta), Math.cos(phi), Math.sin(phi)];
  const towards: SceneWave['towards'] = [-st * cp, -st * sp, -ct];
  const a = [ct * cp * Math.cos(tilt) - sp * Math.sin(tilt), ct * sp * Math.cos(tilt) + cp * Math.sin(tilt), -st * Math.cos(tilt)];
  const b = [towards[1] * a[2] - towards[2] * a[1], towards[2] * a[0] - towards[0] * a[2], towards[0] * a[1] - towards[1] * a[0]];
  const size = Math.sqrt(1 + minor * minor);
  return {
    name,
    order,
    from: [theta, phi],
    towards,
    re: a.map((x) => x / size) as SceneWave['re'],
    im: b.map((x) => (-minor * x) / size) as SceneWave['im'],
  };
}

/** Reads a plane wave of the document. */
export function resolveWave(port: WavePort, order: number, scope: Scope): { wave: SceneWave } | { problems: Problem[] } {
  const place: Place = { part: 'ports', name: port.name };
  const { values, problems } = evaluateChips(port, portChips(port), scope, place);
  if (!values) return { problems };
  if (Math.abs(values.minor) > 1)
    return {
      problems: [
        problem(
          'error',
          'wave.ellipse',
          { ...place, chip: 'minor' },
          'The ratio of the ellipse’s axes is beyond 1.',
          'Give 0 for linear polarisation, 1 or -1 for circular, or turn the main axis by 90 deg.',
        ),
      ],
    };
  if (!(values.strength > 0))
    return { problems: [problem('error', 'wave.strength', { ...place, chip: 'strength' }, 'The wave has no strength.', 'Give the peak of E in V/m, above zero.')] }; // prettier-ignore
  const wave = waveOf(port.name, order, values.theta, values.phi, values.tilt, values.minor);
  const { count } = values;
  const sweep = Array.from({ length: count > 1 ? count : 0 }, (_, i) => {
    const t = i / (count - 1);
    return waveOf(
      port.name,
      order,
      values.theta + t * (values.toTheta - values.theta),
      values.phi + t * (values.toPhi - values.phi),
      values.tilt,
      values.minor,
    );
  });
  return { wave: { ...wave, ...(values.strength === 1 ? {} : { strength: values.strength }), ...(sweep.length ? { sweep } : {}) } };
}
