import { axisField, choice, entry3, length, optional, point, points2, points3, positive, ref } from '../entries/fields.ts';
import type { Recipe } from './recipe.ts';
import type { Impossible, Point3 } from './recipe.ts';
import { axisNumber, defineShape, listed2, listed3, firstDuplicate, v3 } from './shape.ts';

/** A dielectric around the wire; both are left out of old lines. */
const coat = {
  coat: optional('length', 'thickness of the coat', '0 mm', 'Thickness of a dielectric around the metal; 0 mm: bare'),
  coatPermittivity: optional('number', 'permittivity of the coat', '1'),
};
/** The permittivity stands in the sentence only where there is a coat. */
const coated = ({ coat: thickness }: { coat?: string }): string =>
  thickness === undefined || /^0 ?mm$/.test(thickness) ? 'coat {coat}' : 'coat {coat} of permittivity {coatPermittivity}';

const wireOf = (v: Record<string, number>, path?: { points: Point3[]; closed: boolean }): Recipe | Impossible => {
  if (v.coat < 0) return { fault: 'The coat has a negative thickness.', fix: 'Give 0 mm for a bare wire.', chip: 'coat' };
  if (v.coatPermittivity < 1) return { fault: 'The permittivity of the coat is below 1.', fix: 'Give 1 or more.', chip: 'coatPermittivity' };
  return {
    form: 'wire',
    radius: v.radius,
    ...(path ? { path } : {}),
    ...(v.coat > 0 ? { coat: { radius: v.radius + v.coat, permittivity: v.coatPermittivity } } : {}),
  };
};

export const straightWire = defineShape({
  kind: 'straight-wire',
  title: 'Straight wire',
  group: 'Wires',
  about: 'A round wire along an axis, by its middle: an element of an array',
  fields: { axis: axisField('y'), length: positive('length', '900 mm'), radius: positive('radius', '3 mm'), ...coat, at: point('position') },
  sentence: (line) => `Straight wire {name} {axis} · length {length} · radius {radius} · ${coated(line)} · {material} · centred at {at}`,
  recipe(line, v) {
    const ends = [-0.5, 0.5].map((side) => {
      const p = v3(v, 'at');
      p[axisNumber(line.axis)] += side * v.length;
      return p;
    });
    return wireOf(v, { points: ends, closed: false });
  },
});

export const bentWire = defineShape({
  kind: 'bent-wire',
  title: 'Wire through points',
  group: 'Wires',
  about: 'A round wire from point to point',
  fields: {
    entry: entry3,
    points: points3([['0 mm', '0 mm', '0 mm'], ['0 mm', '0 mm', '500 mm']], 2), // prettier-ignore
    ends: choice('ends', { open: 'open', closed: 'closed' }),
    radius: positive('radius', '1 mm'),
    ...coat,
    at: point('position'),
  },
  sentence: (line) => `Wire {name} · through {points} {entry} · {ends} · radius {radius} · ${coated(line)} · {material} · origin at {at}`,
  recipe(line, v) {
    const points = listed3(v, 'points', line.points, line.entry).map((p) => p.map((x, i) => x + v[`at.${i}`]) as Point3);
    const closed = line.ends === 'closed';
    return firstDuplicate(points, 'points', closed) ?? wireOf(v, { points, closed });
  },
});

export const wire = defineShape({
  kind: 'wire',
  title: 'Wire along a curve',
  group: 'Wires',
  about: 'A round wire along a curve: an arc, a helix, a spline, any other',
  fields: { radius: positive('radius', '0.5 mm'), path: ref('path', 'curve'), ...coat },
  sentence: (line) => `Wire {name} · radius {radius} along {path} · ${coated(line)} · {material}`,
  recipe: (_, v) => wireOf(v),
});

export const cable = defineShape({
  kind: 'cable',
  title: 'Cable over ground',
  group: 'Wires',
  about: 'A wire at a height along a path, with both ends led down to the ground, where loads or ports can end it',
  fields: {
    points: points2([['0 mm', '0 mm'], ['1000 mm', '0 mm']], 2), // prettier-ignore
    height: positive('height', '50 mm', 'Of its middle over the ground'),
    radius: positive('radius', '1 mm'),
    ...coat,
    at: length('height of the ground', '0 mm', 'z of the ground plane on which its ends stand'),
  },
  sentence: (line) => `Cable {name} · over {points} · height {height} over the ground at z = {at} · radius {radius} · ${coated(line)} · {material}`,
  recipe(line, v) {
    if (v.height <= v.radius) return { fault: 'The cable lies in the ground: its height is not above its radius.', fix: 'Raise it.', chip: 'height' };
    const flat = listed2(v, 'points', line.points, undefined);
    const same = firstDuplicate(flat.map(([x, y]): Point3 => [x, y, 0]), 'points', false); // prettier-ignore
    if (same) return same;
    const up = flat.map(([x, y]): Point3 => [x, y, v.at + v.height]);
    const foot = ([x, y]: readonly number[]): Point3 => [x, y, v.at];
    return wireOf(v, { points: [foot(flat[0]), ...up, foot(flat[flat.length - 1])], closed: false });
  },
});
