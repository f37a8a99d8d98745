import { axisField, choice, faceText, type Field, length, pair } from '../entries/index.ts';
import { faceName } from '../geometry/naming.ts';
import type { Point3 } from '../shapes/index.ts';
import { faceRectangle, guidedCommon, guidedFields, guidedSentence } from './guided.ts';
import { definePort } from './port.ts';
import type { Axis } from '../numerics/axis.ts';
import { sameMesh } from '../numerics/tolerance.ts';

const face: Field<string> = { schema: faceText, fresh: '', parts: (path) => [{ face: path, label: 'face' }] };

/** A guided port on a flat face of a body: the wave goes from the face into the body. */
export const facePort = definePort({
  kind: 'guide-face',
  title: 'guided, on a face of a body',
  stem: 'port1',
  family: 'guided',
  role: 'port',
  solvers: ['fdtd'],
  fields: { face, ...guidedFields },
  sentence: `Guided port {name} · on face {face} ${guidedSentence}`,
  lacking: ({ solids }) => !solids,
  fresh: (around) => ({ face: around.face }),
  resolve(entry, v, placing) {
    const { bodies, fail } = placing;
    const common = guidedCommon(entry, v, placing);
    if (!common) return null;
    if (!entry.face)
      return fail('port.no-face', 'face', 'The port has no face yet.', 'Choose the face at which the guide ends; picking in the stage view does it.');
    for (const body of bodies) {
      const index = body.faces.findIndex((_, i) => faceName(body, i) === entry.face);
      if (index < 0) continue;
      const n = body.faces[index].normal;
      const normal = n?.findIndex((x) => Math.abs(x) > 1 - sameMesh) ?? -1;
      if (!n || normal < 0) return fail('port.tilted', 'face', `${entry.face} is not flat across an axis.`, 'Choose a flat face across x, y or z.');
      const { min, max } = faceRectangle(body, index, normal as Axis);
      return { ...common, normal: normal as Axis, into: n[normal] > 0 ? -1 : 1, min, max };
    }
    return fail(
      'port.no-face',
      'face',
      `There is no face named ${entry.face}.`,
      'Choose a face of a body that still stands; picking in the stage view does it.',
    );
  },
});

/** A guided port on a rectangle of a plane. */
export const planePort = definePort({
  kind: 'guide-plane',
  title: 'guided, on a rectangle of a plane',
  stem: 'port1',
  family: 'guided',
  role: 'port',
  solvers: ['fdtd'],
  fields: {
    normal: axisField('x', 'axis of the guide', 'Axis along which the guide runs'),
    into: choice('direction', { up: 'upwards', down: 'downwards' }, 'up: the wave goes towards larger coordinates'),
    at: length('coordinate', '0 mm', 'Coordinate of the plane'),
    from: pair('from', ['-5 mm', '0 mm'], { about: 'One corner, in the two other axes in the order x, y, z' }),
    to: pair('to', ['5 mm', '5 mm'], { about: 'The opposite corner' }),
    ...guidedFields,
  },
  sentence: `Guided port {name} · {normal} {into} at {at} · from {from} to {to} ${guidedSentence}`,
  resolve(entry, v, placing) {
    const common = guidedCommon(entry, v, placing);
    if (!common) return null;
    const normal = 'xyz'.indexOf(entry.normal) as Axis;
    const min: Point3 = [v.at, v.at, v.at];
    const max: Point3 = [...min];
    for (const [i, a] of [0, 1, 2].filter((x) => x !== normal).entries()) {
      const [p, q] = [v[`from.${i}`], v[`to.${i}`]];
      [min[a], max[a]] = [Math.min(p, q), Math.max(p, q)];
      if (p === q) return placing.fail('port.zero', `to.${i}`, `The port has no extent along ${'xyz'[a]}.`, 'Move one of its corners.');
    }
    return { ...common, normal, into: entry.into === 'up' ? 1 : -1, min, max };
  },
});
