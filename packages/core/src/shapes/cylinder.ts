import { axisField, length, point, positive } from '../entries/fields.ts';
import { axisNumber, defineShape, v3 } from './shape.ts';

export const cylinder = defineShape({
  kind: 'cylinder',
  title: 'Cylinder',
  group: 'Solids',
  about: 'A solid round rod along an axis',
  fields: {
    axis: axisField(),
    radius: positive('radius', '1 mm'),
    height: positive('length', '10 mm', 'Length along the axis'),
    at: point('position', undefined, { about: 'Middle of the end face with the lowest coordinate' }),
  },
  sentence: 'Cylinder {name} {axis} · radius {radius} · length {height} · {material} · starting at {at}',
  recipe: (line, v) => ({ form: 'cylinder', axis: axisNumber(line.axis), base: v3(v, 'at'), height: v.height, radius: v.radius, bore: 0 }),
});

export const tube = defineShape({
  kind: 'tube',
  title: 'Tube',
  group: 'Solids',
  about: 'A round tube along an axis',
  fields: {
    axis: axisField(),
    radius: positive('outer radius', '5 mm'),
    bore: positive('inner radius', '4 mm'),
    height: positive('length', '10 mm'),
    at: point('position'),
  },
  sentence: 'Tube {name} {axis} · radius {radius}, inside {bore} · length {height} · {material} · starting at {at}',
  recipe: (line, v) =>
    v.bore >= v.radius
      ? { fault: 'The inner radius is not smaller than the outer one.', fix: 'Make the bore smaller.', chip: 'bore' }
      : { form: 'cylinder', axis: axisNumber(line.axis), base: v3(v, 'at'), height: v.height, radius: v.radius, bore: v.bore },
});

export const cone = defineShape({
  kind: 'cone',
  title: 'Cone',
  group: 'Solids',
  about: 'A round cone or a cut-off one along an axis',
  fields: {
    axis: axisField(),
    from: length('radius at the start', '5 mm'),
    to: length('radius at the end', '0 mm'),
    height: positive('length', '10 mm'),
    at: point('position'),
  },
  sentence: 'Cone {name} {axis} · radius {from} to {to} · length {height} · {material} · starting at {at}',
  recipe: (line, v) =>
    v.from < 0 || v.to < 0 || v.from + v.to === 0
      ? { fault: 'A cone needs a radius above zero at one end, and none below zero.', fix: 'Give the radius of its wide end.', chip: 'from' }
      : { form: 'cone', axis: axisNumber(line.axis), base: v3(v, 'at'), height: v.height, radii: [v.from, v.to] },
});
