import { angle, choice, count, entry2, length, pair, planeField, point, points2, positive, value, words } from '../entries/fields.ts';
import { arcPoints, outlineFault } from './outlines.ts';
import { planeAxes, type Point2, type Recipe } from './recipe.ts';
import type { ChipValues } from '../entries/chips.ts';
import { strokesOf } from './letters.ts';
import { defineShape, listed2, type Samples } from './shape.ts';
import { sameNumber } from '../numerics/tolerance.ts';

type Plane = keyof typeof planeAxes;
/** A sheet in the plane of the line, its loops measured from the position. */
const sheetAt = (plane: Plane, v: ChipValues, loops: Point2[][]): Recipe => {
  const [u, w, n] = planeAxes[plane];
  return {
    form: 'sheet',
    normal: n,
    offset: v[`at.${n}`],
    loops: loops.map((loop) => loop.map((p): Point2 => [p[0] + v[`at.${u}`], p[1] + v[`at.${w}`]])),
  };
};

export const rectangle = defineShape({
  kind: 'rectangle',
  title: 'Rectangle',
  group: 'Flat',
  about: 'A flat rectangular sheet of no thickness',
  fields: {
    plane: planeField,
    size: pair('extent along', ['20 mm', '2 mm'], {
      positive: true,
      between: '×',
      about: 'Extent along the two axes of the plane, in the order of its name',
    }),
    anchor: choice('anchor', { centre: 'centred at', corner: 'with its lowest corner at' }),
    at: point('position'),
  },
  sentence: 'Rectangle {name} {plane} · {size} · {material} · {anchor} {at}',
  recipe(line, v) {
    const [a, b] = [v['size.0'], v['size.1']];
    const back = line.anchor === 'centre' ? 0.5 : 0;
    const [x, y] = [-back * a, -back * b];
    const [u, w, n] = planeAxes[line.plane];
    const [x0, y0] = [v[`at.${u}`] + x, v[`at.${w}`] + y];
    return { form: 'sheet', normal: n, offset: v[`at.${n}`], loops: [[[x0, y0], [x0 + a, y0], [x0 + a, y0 + b], [x0, y0 + b]]] }; // prettier-ignore
  },
});

export const disc = defineShape({
  kind: 'disc',
  title: 'Disc',
  group: 'Flat',
  about: 'A flat disc or ring',
  fields: {
    plane: planeField,
    radius: positive('radius', '5 mm'),
    bore: length('inner radius', '0 mm', 'Zero for a full disc'),
    at: point('centre'),
  },
  sentence: 'Disc {name} {plane} · radius {radius}, inside {bore} · {material} · centred at {at}',
  recipe(line, v) {
    if (v.bore < 0 || v.bore >= v.radius)
      return { fault: 'The inner radius must lie between zero and the outer radius.', fix: 'Give zero for a full disc.', chip: 'bore' };
    const circle = (r: number): Point2[] => arcPoints([0, 0], r, 0, 2 * Math.PI);
    return sheetAt(line.plane, v, v.bore > 0 ? [circle(v.radius), circle(v.bore).reverse()] : [circle(v.radius)]);
  },
});

export const sector = defineShape({
  kind: 'sector',
  title: 'Sector',
  group: 'Flat',
  about: 'A piece of a disc or ring between two angles, as in a radial stub',
  fields: {
    plane: planeField,
    radius: positive('radius', '5 mm'),
    bore: length('inner radius', '0 mm'),
    from: angle('start angle', '-30 deg'),
    to: angle('end angle', '30 deg'),
    at: point('centre'),
  },
  sentence: 'Sector {name} {plane} · radius {radius}, inside {bore} · from {from} to {to} · {material} · about {at}',
  recipe(line, v) {
    if (v.bore < 0 || v.bore >= v.radius)
      return { fault: 'The inner radius must lie between zero and the outer radius.', fix: 'Give zero for a full sector.', chip: 'bore' };
    const turn = v.to - v.from;
    if (!(turn > 0 && turn < 2 * Math.PI - sameNumber))
      return { fault: 'The sector must span more than 0 and less than 360 deg.', fix: 'Use a disc for a whole turn.', chip: 'to' };
    const outer = arcPoints([0, 0], v.radius, v.from, v.to);
    return sheetAt(line.plane, v, [v.bore > 0 ? [...outer, ...arcPoints([0, 0], v.bore, v.from, v.to).reverse()] : [...outer, [0, 0]]]);
  },
});

export const polygon = defineShape({
  kind: 'polygon',
  title: 'Polygon',
  group: 'Flat',
  about: 'A flat sheet with straight edges between the points you give',
  fields: {
    plane: planeField,
    entry: entry2,
    points: points2([['0 mm', '0 mm'], ['10 mm', '0 mm'], ['0 mm', '10 mm']], 3), // prettier-ignore
    at: point('position', undefined, { about: 'Where the plane’s origin is placed' }),
  },
  sentence: 'Polygon {name} {plane} · {material} · origin at {at} · through {points} {entry}',
  recipe(line, v) {
    const loop = listed2(v, 'points', line.points, line.entry);
    return outlineFault(loop, 'points') ?? sheetAt(line.plane, v, [loop]);
  },
});

const overT = { over: { from: 'from', to: 'to', count: 'count' } };
/** Pairs of sampled coordinates. */
const sampled = (s: Samples): Point2[] => s['curve.0'].map((x, i) => [x, s['curve.1'][i]]);

export const equation = defineShape({
  kind: 'equation',
  title: 'Equation outline',
  group: 'Flat',
  about: 'A flat sheet whose outline is given by two functions of t',
  fields: {
    plane: planeField,
    curve: {
      ...pair('function', ['8 mm * cos(t)', '5 mm * sin(t)'], { names: '12' }),
      chips: (path: string) => [0, 1].map((i) => ({ path: `${path}.${i}`, label: `function ${i + 1}`, quantity: 'length' as const, ...overT })),
    },
    from: value('number', 'first t', '0'),
    to: value('number', 'last t', '2 * pi'),
    count: count('number of points', '96', 3, 2000),
    at: point('position'),
  },
  sentence: 'Equation outline {name} {plane} · ( {curve} ) for t from {from} to {to} in {count} points · {material} · origin at {at}',
  recipe(line, v, samples) {
    const loop = sampled(samples);
    const [first, last] = [loop[0], loop[loop.length - 1]];
    const extent = Math.max(...loop.map((p) => Math.hypot(p[0] - first[0], p[1] - first[1])));
    if (Math.hypot(first[0] - last[0], first[1] - last[1]) < sameNumber * extent) loop.pop();
    const wrong = outlineFault(loop, 'curve');
    return wrong ? { ...wrong, chip: 'curve.0' } : sheetAt(line.plane, v, [loop]);
  },
});

export const text = defineShape({
  kind: 'text',
  title: 'Text',
  group: 'Flat',
  about: 'Letters, digits and signs as strips of metal',
  fields: {
    plane: planeField,
    text: words('text', 'HM 1', 60),
    height: positive('height', '3 mm'),
    stroke: positive('stroke', '0.4 mm'),
    at: point('position'),
  },
  sentence: 'Text {name} {plane} · {text} · height {height} · stroke {stroke} · {material} · starting at {at}',
  recipe(line, v) {
    const strokes = strokesOf(line.text, v.height);
    if (!strokes.length) return { fault: 'The text has no letter that can be drawn.', fix: 'Use letters, digits and . - + /', chip: 'text' };
    const [u, w, n] = planeAxes[line.plane];
    return {
      form: 'strokes',
      normal: n,
      offset: v[`at.${n}`],
      width: v.stroke,
      lines: strokes.map((s) => s.map((p): Point2 => [p[0] + v[`at.${u}`], p[1] + v[`at.${w}`]])),
    };
  },
});
