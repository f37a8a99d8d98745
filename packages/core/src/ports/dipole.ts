import { choice, point } from '../entries/index.ts';
import { touches } from '../geometry/index.ts';
import type { Point3 } from '../shapes/index.ts';
import { definePort } from './port.ts';
import type { SceneDipole } from './types.ts';

/** A point of current that excites the whole structure: what an emitter, a noisy chip or a small loop is to the rest. */
export const currentDipole = definePort({
  kind: 'current-dipole',
  title: 'current dipole at a point',
  stem: 'dipole1',
  family: 'source',
  role: 'source',
  solvers: ['fdtd', 'moment'],
  fields: {
    of: choice(
      'kind of moment',
      { electric: 'electric', magnetic: 'magnetic' },
      'electric: a short current; magnetic: a small loop of current, along its axis',
    ),
    at: point('at'),
    direction: point('direction', ['0', '0', '1'], { quantity: 'number', about: 'Direction of the moment; its length does not matter' }),
  },
  sentence: 'Current dipole {name} · {of} · at {at} · along {direction}',
  resolve({ name, of }, v, { order, bodies, fail }): SceneDipole | null {
    const along = [v['direction.0'], v['direction.1'], v['direction.2']];
    const length = Math.hypot(...along);
    if (!(length > 0))
      return fail('dipole.direction', 'direction.0', 'The dipole has no direction.', 'Give at least one of its three parts, such as 0, 0, 1.');
    const at: Point3 = [v['at.0'], v['at.1'], v['at.2']];
    const metal = bodies.find((b) => b.material.kind === 'conductor' && touches(b.shape, at, 0));
    if (metal) return fail('dipole.metal', 'at.0', `The dipole stands in ${metal.name}, which is metal.`, 'Move it out of the metal.');
    return { kind: 'dipole', name, order, of, at, direction: along.map((x) => x / length) as Point3 };
  },
  onGrid(_, { symmetric }) {
    return symmetric
      ? [
          {
            code: 'dipole.symmetry',
            message: 'A current dipole has no plane of symmetry with the structure.',
            fix: 'Remove the symmetry, and draw the whole.',
          },
        ]
      : [];
  },
  onWires({ at }, { wires, ground }) {
    if (ground?.kind === 'earth')
      return [
        {
          code: 'dipole.earth',
          message: 'A current dipole over real earth is not solved on wires.',
          fix: 'Take a perfect ground, or none; or feed a short wire instead.',
        },
      ];
    if (ground && !(at[2] > ground.at))
      return [{ code: 'dipole.buried', message: 'The dipole stands on or in the ground.', fix: 'Raise it above the ground.' }];
    const inside = wires.find((w) => distanceTo(w.points, w.closed, at) <= 2 * w.radius);
    return inside
      ? [
          {
            code: 'dipole.in-wire',
            message: `The dipole stands within two radii of ${inside.name}, where a thin wire says nothing of the field.`,
            fix: 'Move it away, or feed the wire by a port in it.',
          },
        ]
      : [];
  },
});

/** Distance of a point from a line through points, metres. */
function distanceTo(points: readonly Point3[], closed: boolean, p: Point3): number {
  let least = Infinity;
  for (let i = closed ? 0 : 1; i < points.length; i++) {
    const [a, b] = [points[(i || points.length) - 1], points[i]];
    const d = b.map((x, c) => x - a[c]);
    const t = Math.min(1, Math.max(0, d.reduce((s, x, c) => s + x * (p[c] - a[c]), 0) / d.reduce((s, x) => s + x * x, 0)));
    least = Math.min(least, Math.hypot(...p.map((x, c) => x - a[c] - t * d[c])));
  }
  return least;
}
