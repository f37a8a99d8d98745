import { axisField, choice, entry2, pair, planeField, point, points2, positive, ref, value, angle } from '../entries/fields.ts';
import { outlineFault } from './outlines.ts';
import { inPlane, type Point2, type Point3, planeAxes } from './recipe.ts';
import { axisNumber, defineShape, listed2, v3 } from './shape.ts';
import type { Axis } from '../numerics/axis.ts';
import { sameNumber } from '../numerics/tolerance.ts';

const triangle = [
  ['0 mm', '0 mm'],
  ['10 mm', '0 mm'],
  ['0 mm', '10 mm'],
];

export const prism = defineShape({
  kind: 'prism',
  title: 'Prism',
  group: 'Solids',
  about: 'A solid with a polygon for its ground',
  freshMaterial: 'Polyimide film',
  fields: { plane: planeField, entry: entry2, points: points2(triangle, 3), height: value('length', 'height', '5 mm'), at: point('position') },
  sentence: 'Prism {name} {plane} · through {points} {entry} · height {height} · {material} · origin at {at}',
  recipe(line, v) {
    const [u, w, n] = planeAxes[line.plane];
    const loop = listed2(v, 'points', line.points, line.entry).map((p): Point2 => [p[0] + v[`at.${u}`], p[1] + v[`at.${w}`]]);
    if (v.height === 0) return { fault: 'The prism has no height.', fix: 'Give a height, or use a polygon for a sheet.', chip: 'height' };
    const wrong = outlineFault(loop, 'points');
    if (wrong) return wrong;
    return { form: 'prism', normal: n, offset: Math.min(v[`at.${n}`], v[`at.${n}`] + v.height), height: Math.abs(v.height), loops: [loop] };
  },
});

/** Four corners of a rectangle centred on an axis. */
function rectangleRing(axis: Axis, at: Point3, along: number, [a, b]: Point2): Point3[] {
  const [u, w] = inPlane[axis];
  return [
    [-1, -1],
    [1, -1],
    [1, 1],
    [-1, 1],
  ].map(([s, t]) => {
    const p: Point3 = [...at];
    p[axis] += along;
    p[u] += (s * a) / 2;
    p[w] += (t * b) / 2;
    return p;
  });
}

export const frustum = defineShape({
  kind: 'frustum',
  title: 'Frustum',
  group: 'Solids',
  about: 'A cut-off pyramid between two rectangles, as in a horn',
  fields: {
    axis: axisField(),
    from: pair('extent at the start', ['16 mm', '8 mm'], { names: '12', positive: true, between: '×' }),
    to: pair('extent at the end', ['40 mm', '30 mm'], { names: '12', positive: true, between: '×' }),
    height: positive('length', '50 mm'),
    at: point('position'),
  },
  sentence: 'Frustum {name} {axis} · {from} to {to} · length {height} · {material} · starting at {at}',
  recipe(line, v) {
    const axis = axisNumber(line.axis);
    const at = v3(v, 'at');
    return {
      form: 'rings',
      rings: [rectangleRing(axis, at, 0, [v['from.0'], v['from.1']]), rectangleRing(axis, at, v.height, [v['to.0'], v['to.1']])],
    };
  },
});

export const revolve = defineShape({
  kind: 'revolve',
  title: 'Revolved profile',
  group: 'Solids',
  about: 'A profile of radius and height, turned about an axis',
  fields: {
    axis: axisField(),
    points: points2(
      [
        ['2 mm', '0 mm'],
        ['5 mm', '0 mm'],
        ['2 mm', '10 mm'],
      ],
      3,
    ),
    angle: angle('angle', '360 deg'),
    at: point('position'),
  },
  sentence: 'Revolved profile {name} {axis} · (radius, height) through {points} · by {angle} · {material} · about {at}',
  recipe(line, v) {
    const profile = listed2(v, 'points', line.points, undefined);
    const below = profile.findIndex((p) => p[0] < 0);
    if (below >= 0)
      return { fault: `Point ${below + 1} has a radius below zero.`, fix: 'Keep the profile on one side of the axis.', chip: `points.${below}.0` };
    if (!(v.angle > 0 && v.angle <= 2 * Math.PI + sameNumber))
      return { fault: 'The angle must be above 0 and at most 360 deg.', fix: 'Give 360 deg for a whole turn.', chip: 'angle' };
    return (
      outlineFault(profile, 'points') ?? {
        form: 'revolve',
        axis: axisNumber(line.axis),
        at: v3(v, 'at'),
        profile,
        angle: Math.min(v.angle, 2 * Math.PI),
      }
    );
  },
});

export const loft = defineShape({
  kind: 'loft',
  title: 'Loft',
  group: 'Solids',
  about: 'A solid between two outlines of as many points each, one above the other',
  fields: {
    plane: planeField,
    entry: entry2,
    from: points2([['0 mm', '0 mm'], ['10 mm', '0 mm'], ['10 mm', '6 mm'], ['0 mm', '6 mm']], 3), // prettier-ignore
    to: points2([['2 mm', '2 mm'], ['6 mm', '2 mm'], ['6 mm', '4 mm'], ['2 mm', '4 mm']], 3), // prettier-ignore
    height: positive('height', '8 mm'),
    at: point('position'),
  },
  sentence: 'Loft {name} {plane} · from {from} to {to} {entry} · height {height} · {material} · origin at {at}',
  recipe(line, v) {
    if (line.from.length !== line.to.length)
      return { fault: `The outlines have ${line.from.length} and ${line.to.length} points.`, fix: 'Give both as many points.', chip: 'to.0.0' };
    const [u, w, n] = planeAxes[line.plane];
    const at = v3(v, 'at');
    const ring = (path: 'from' | 'to', height: number): Point3[] =>
      listed2(v, path, line[path], line.entry).map((p) => {
        const q: Point3 = [...at];
        q[u] += p[0];
        q[w] += p[1];
        q[n] += height;
        return q;
      });
    const wrong = outlineFault(listed2(v, 'from', line.from, line.entry), 'from') ?? outlineFault(listed2(v, 'to', line.to, line.entry), 'to');
    return wrong ?? { form: 'rings', rings: [ring('from', 0), ring('to', v.height)] };
  },
});

export const sweep = defineShape({
  kind: 'sweep',
  title: 'Sweep',
  group: 'Solids',
  about: 'A profile carried along a curve',
  fields: {
    profile: points2([['-1 mm', '-0.5 mm'], ['1 mm', '-0.5 mm'], ['1 mm', '0.5 mm'], ['-1 mm', '0.5 mm']], 3), // prettier-ignore
    path: ref('path', 'curve'),
  },
  sentence: 'Sweep {name} · (across, up) through {profile} along {path} · {material}',
  recipe(line, v) {
    const profile = listed2(v, 'profile', line.profile, undefined);
    return outlineFault(profile, 'profile') ?? { form: 'sweep', profile };
  },
});

export const trace = defineShape({
  kind: 'trace',
  title: 'Trace',
  group: 'From other lines',
  about: 'A strip of a given width along a flat curve: a sheet, or a solid if it has thickness',
  fields: {
    path: ref('path', 'curve'),
    plane: planeField,
    width: positive('width', '1 mm'),
    thickness: value('length', 'thickness', '0 mm'),
    corners: choice('corners', { mitred: 'mitred corners', sharp: 'sharp corners', round: 'round corners', swept: 'swept corners' }),
    mitre: value('number', 'share of the corner’s diagonal cut off', '0.6'),
    radius: value('length', 'bend radius', '2 mm'),
  },
  sentence: (line) =>
    `Trace {name} along {path} {plane} · width {width} · thickness {thickness} · {corners}${line.corners === 'swept' ? ' of radius {radius}' : line.corners === 'mitred' ? ' by {mitre} of the diagonal' : ''} · {material}`,
  recipe(line, v) {
    if (v.thickness < 0) return { fault: 'The thickness is negative.', fix: 'Give zero for a sheet.', chip: 'thickness' };
    if (line.corners === 'swept' && v.radius < v.width / 2)
      return {
        fault: 'The bend radius is below half the width, so the inside of a bend would fold.',
        fix: 'Give a radius of the width or more.',
        chip: 'radius',
      };
    if (line.corners === 'mitred' && !(v.mitre >= 0 && v.mitre < 1))
      return { fault: 'The share of the diagonal must lie between 0 and 1.', fix: 'Take 0.6 if in doubt.', chip: 'mitre' };
    return {
      form: 'trace',
      normal: planeAxes[line.plane][2],
      mitre: v.mitre,
      width: v.width,
      thickness: v.thickness,
      corners: line.corners,
      radius: v.radius,
    };
  },
});
