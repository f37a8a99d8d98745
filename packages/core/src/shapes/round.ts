import { axisField, point, positive, size3 } from '../entries/fields.ts';
import { axisNumber, defineShape, v3 } from './shape.ts';

export const sphere = defineShape({
  kind: 'sphere',
  title: 'Sphere',
  group: 'Solids',
  about: 'A ball',
  fields: { radius: positive('radius', '5 mm'), at: point('centre') },
  sentence: 'Sphere {name} · radius {radius} · {material} · centred at {at}',
  recipe: (_, v) => ({ form: 'ball', centre: v3(v, 'at'), radii: [v.radius, v.radius, v.radius] }),
});

export const ellipsoid = defineShape({
  kind: 'ellipsoid',
  title: 'Ellipsoid',
  group: 'Solids',
  about: 'A ball stretched along the axes',
  fields: { radii: size3('half axis along', ['8 mm', '5 mm', '3 mm']), at: point('centre') },
  sentence: 'Ellipsoid {name} · half axes {radii} · {material} · centred at {at}',
  recipe: (_, v) => ({ form: 'ball', centre: v3(v, 'at'), radii: v3(v, 'radii') }),
});

export const torus = defineShape({
  kind: 'torus',
  title: 'Torus',
  group: 'Solids',
  about: 'A round ring of round section',
  fields: {
    axis: axisField(),
    major: positive('radius of the ring', '10 mm'),
    minor: positive('radius of its section', '1 mm'),
    at: point('centre'),
  },
  sentence: 'Torus {name} {axis} · ring radius {major} · section radius {minor} · {material} · centred at {at}',
  recipe: (line, v) =>
    v.minor >= v.major
      ? { fault: 'The section is as wide as the ring, so the torus has no hole.', fix: 'Make the section smaller than the ring.', chip: 'minor' }
      : { form: 'torus', axis: axisNumber(line.axis), centre: v3(v, 'at'), major: v.major, minor: v.minor },
});
