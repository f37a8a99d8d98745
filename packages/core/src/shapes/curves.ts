import { angle, choice, count, entry3, faceRef, length, pair, planeField, point, points3, positive, value, axisField } from '../entries/fields.ts';
import { arcPoints, circleSides } from './outlines.ts';
import { inPlane, planeAxes, type Point3 } from './recipe.ts';
import { axisNumber, defineShape, listed3, firstDuplicate, v3 } from './shape.ts';
import { sameNumber } from '../numerics/tolerance.ts';

const ends = choice('ends', { open: 'open', closed: 'closed' });
export const straight = defineShape({
  kind: 'line',
  title: 'Line',
  group: 'Curves',
  about: 'A straight line between two points',
  material: 'none',
  fields: { from: point('start'), to: point('end', ['10 mm', '0 mm', '0 mm']) },
  sentence: 'Line {name} · from {from} to {to}',
  recipe(_, v) {
    const points = [v3(v, 'from'), v3(v, 'to')];
    const same = firstDuplicate(points, 'to', false);
    return same
      ? { fault: 'The line begins and ends at the same point.', fix: 'Move one of its ends.', chip: 'to.0' }
      : { form: 'curve', points, closed: false, marks: [0, 1] };
  },
});

export const polyline = defineShape({
  kind: 'polyline',
  title: 'Polyline',
  group: 'Curves',
  about: 'Straight pieces through points',
  material: 'none',
  fields: { entry: entry3, points: points3([['0 mm', '0 mm', '0 mm'], ['10 mm', '0 mm', '0 mm'], ['10 mm', '10 mm', '0 mm']], 2), ends, at: point('position') }, // prettier-ignore
  sentence: 'Polyline {name} · through {points} {entry} · {ends} · origin at {at}',
  recipe(line, v) {
    const points = listed3(v, 'points', line.points, line.entry).map((p) => p.map((x, i) => x + v[`at.${i}`]) as Point3);
    const closed = line.ends === 'closed';
    return firstDuplicate(points, 'points', closed) ?? { form: 'curve', points, closed, marks: points.map((_, i) => i) };
  },
});

export const arc = defineShape({
  kind: 'arc',
  title: 'Arc',
  group: 'Curves',
  about: 'A part of a circle, or a whole one',
  material: 'none',
  fields: { plane: planeField, radius: positive('radius', '5 mm'), from: angle('start angle', '0 deg'), to: angle('end angle', '90 deg'), at: point('centre') }, // prettier-ignore
  sentence: 'Arc {name} {plane} · radius {radius} · from {from} to {to} · about {at}',
  recipe(line, v) {
    const turn = Math.abs(v.to - v.from);
    if (!(turn > 0 && turn <= 2 * Math.PI + sameNumber))
      return { fault: 'An arc spans more than 0 and at most 360 deg.', fix: 'Change one of its angles.', chip: 'to' };
    const [u, w, n] = planeAxes[line.plane];
    const points = arcPoints([v[`at.${u}`], v[`at.${w}`]], v.radius, v.from, v.to).map((p) => {
      const q: Point3 = [0, 0, 0];
      q[u] = p[0];
      q[w] = p[1];
      q[n] = v[`at.${n}`];
      return q;
    });
    const closed = turn > 2 * Math.PI - sameNumber;
    return { form: 'curve', points, closed, marks: closed ? [0] : [0, points.length - 1] };
  },
});

/** Points of a centripetal spline per span. */
const spanPoints = 16;

/** A point of the centripetal spline through four points (E. Catmull, R. Rom 1974; parametrisation of C. Yuksel et al. 2011). */
function splinePoint([p0, p1, p2, p3]: readonly Point3[], s: number): Point3 {
  const gap = (a: Point3, b: Point3): number => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]) ** 0.5;
  const t1 = gap(p0, p1);
  const t2 = t1 + gap(p1, p2);
  const t3 = t2 + gap(p2, p3);
  const t = t1 + s * (t2 - t1);
  const mix = (a: Point3, b: Point3, from: number, to: number): Point3 => a.map((x, i) => ((to - t) * x + (t - from) * b[i]) / (to - from)) as Point3;
  const [a, b, c] = [mix(p0, p1, 0, t1), mix(p1, p2, t1, t2), mix(p2, p3, t2, t3)];
  return mix(mix(a, b, 0, t2), mix(b, c, t1, t3), t1, t2);
}

export const spline = defineShape({
  kind: 'spline',
  title: 'Spline',
  group: 'Curves',
  about: 'A smooth curve through points',
  material: 'none',
  fields: { entry: entry3, points: points3([['0 mm', '0 mm', '0 mm'], ['5 mm', '5 mm', '0 mm'], ['10 mm', '0 mm', '0 mm']], 3), ends }, // prettier-ignore
  sentence: 'Spline {name} · through {points} {entry} · {ends}',
  recipe(line, v) {
    const given = listed3(v, 'points', line.points, line.entry);
    const closed = line.ends === 'closed';
    const same = firstDuplicate(given, 'points', closed);
    if (same) return same;
    const n = given.length;
    // Beyond the ends of an open curve the neighbours are mirrored.
    const at = (i: number): Point3 => {
      if (closed) return given[(i + n) % n];
      if (i < 0) return given[0].map((x, a) => 2 * x - given[1][a]) as Point3;
      return i < n ? given[i] : (given[n - 1].map((x, a) => 2 * x - given[n - 2][a]) as Point3);
    };
    const points: Point3[] = [];
    for (let i = 0; i < (closed ? n : n - 1); i++)
      for (let k = 0; k < spanPoints; k++) points.push(k ? splinePoint([at(i - 1), at(i), at(i + 1), at(i + 2)], k / spanPoints) : given[i]);
    if (!closed) points.push(given[n - 1]);
    return { form: 'curve', points, closed, marks: given.map((_, i) => i * spanPoints) };
  },
});

export const helix = defineShape({
  kind: 'helix',
  title: 'Helix',
  group: 'Curves',
  about: 'A screw line about an axis',
  material: 'none',
  fields: {
    axis: axisField(),
    radius: positive('radius at the start', '10 mm'),
    end: positive('radius at the end', '10 mm'),
    pitch: length('pitch', '8 mm', 'Advance in one turn; zero for a flat spiral'),
    turns: value('number', 'number of turns', '4', { positive: true }),
    sense: choice('sense', { right: 'right-handed', left: 'left-handed' }),
    phase: angle('start angle', '0 deg'),
    at: point('position'),
  },
  sentence: 'Helix {name} {axis} · radius {radius} to {end} · pitch {pitch} · {turns} turns {sense} · from angle {phase} · starting at {at}',
  recipe(line, v) {
    if (v.turns > 500) return { fault: 'The helix has more than 500 turns.', fix: 'Give fewer turns.', chip: 'turns' };
    const axis = axisNumber(line.axis);
    const [u, w] = inPlane[axis];
    const n = Math.max(8, Math.ceil(((circleSides * 2) / 3) * v.turns));
    const sign = line.sense === 'right' ? 1 : -1;
    const points = Array.from({ length: n + 1 }, (_, i) => {
      const part = i / n;
      const t = v.phase + sign * 2 * Math.PI * v.turns * part;
      const r = v.radius + (v.end - v.radius) * part;
      const p = v3(v, 'at');
      p[u] += r * Math.cos(t);
      p[w] += r * Math.sin(t);
      p[axis] += v.pitch * v.turns * part;
      return p;
    });
    return firstDuplicate(points, 'pitch', false)
      ? { fault: 'The turns lie on each other.', fix: 'Give a pitch, or different radii at start and end.', chip: 'pitch' }
      : { form: 'curve', points, closed: false, marks: [0, n] };
  },
});

export const edgeCurve = defineShape({
  kind: 'edge-curve',
  title: 'Edge of a body',
  group: 'Curves',
  about: 'The edge where two faces of a body meet',
  material: 'none',
  fields: { first: faceRef('first face'), second: faceRef('second face'), nth: count('number of the edge, where they meet in several', '1', 1, 200) },
  sentence: 'Edge {name} · between the faces {first} and {second} · number {nth}',
  recipe: (_, v) => ({ form: 'edge', nth: v.nth }),
});

export const equationCurve = defineShape({
  kind: 'equation-curve',
  title: 'Equation curve',
  group: 'Curves',
  about: 'A curve given by three functions of t',
  material: 'none',
  fields: {
    curve: {
      ...point('function', ['t * 10 mm', '2 mm * sin(2 * pi * t)', '0 mm']),
      chips: (path: string) =>
        [0, 1, 2].map((i) => ({ path: `${path}.${i}`, label: `function ${'xyz'[i]}`, quantity: 'length' as const, over: { from: 'range.0', to: 'range.1', count: 'count' } })), // prettier-ignore
    },
    range: pair('t', ['0', '1'], { names: '12', quantity: 'number', between: 'to' }),
    count: count('number of points', '64', 2, 2000),
  },
  sentence: 'Equation curve {name} · ( {curve} ) for t from {range} in {count} points',
  recipe(_, _v, s) {
    const points = s['curve.0'].map((x, i): Point3 => [x, s['curve.1'][i], s['curve.2'][i]]);
    const [first, last] = [points[0], points[points.length - 1]];
    const size = Math.max(...points.map((p) => Math.hypot(p[0] - first[0], p[1] - first[1], p[2] - first[2])));
    const closed = points.length > 3 && Math.hypot(first[0] - last[0], first[1] - last[1], first[2] - last[2]) < sameNumber * size;
    if (closed) points.pop();
    const same = firstDuplicate(points, 'curve', closed);
    return same ? { ...same, chip: 'curve.0' } : { form: 'curve', points, closed, marks: [0, points.length - 1] };
  },
});
