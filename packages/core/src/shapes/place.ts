import { unit } from '../numerics/vector.ts';
import { type Affine, compose, frameOf, identity, reflection, rotation, scaling, translation } from '../numerics/affine.ts';
import { angle, axisField, choice, count, faceRef, length, pair, partRef, planeField, point, ref, rows, value, words } from '../entries/fields.ts';
import { planeAxes, type Point3 } from './recipe.ts';
import { axisNumber, defineShape, listed3, v3 } from './shape.ts';
import { nothing } from '../numerics/tolerance.ts';

const keeping = choice('original', { moved: 'in place of the original', kept: 'beside the original', joined: 'joined with the original' });
const as = choice('result', { one: 'as one body', many: 'as separate bodies' });
/** Places for an operation that may leave the original where it is. */
const kept = (m: Affine, original: 'moved' | 'kept' | 'joined') =>
  ({ form: 'place', places: original === 'joined' ? [identity, m] : [m], as: 'one' }) as const;
const usedUp = (line: { of: string; original: string }): string[] => (line.original === 'kept' ? [] : [line.of]);

export const move = defineShape({
  kind: 'move',
  title: 'Move',
  group: 'Place',
  about: 'Shifts a body or a copy of it',
  material: 'first',
  fields: { of: ref('line', 'any'), by: point('shift along', ['10 mm', '0 mm', '0 mm']), original: keeping },
  sentence: 'Move {name} · {of} by {by} · {original} · {material}',
  consumes: usedUp,
  recipe: (line, v) => kept(translation(v3(v, 'by')), line.original),
});

export const turn = defineShape({
  kind: 'turn',
  title: 'Turn',
  group: 'Place',
  about: 'Turns a body or a copy of it about an axis',
  material: 'first',
  fields: { of: ref('line', 'any'), angle: angle('angle', '90 deg'), axis: axisField(), at: point('centre'), original: keeping },
  sentence: 'Turn {name} · {of} by {angle} about {axis} through {at} · {original} · {material}',
  consumes: usedUp,
  recipe: (line, v) => kept(rotation(unit(axisNumber(line.axis)), v.angle, v3(v, 'at')), line.original),
});

export const scale = defineShape({
  kind: 'scale',
  title: 'Scale',
  group: 'Place',
  about: 'Stretches a body or a copy of it along the axes',
  material: 'first',
  fields: {
    of: ref('line', 'any'),
    by: point('factor along', ['2', '2', '2'], { quantity: 'number', positive: true }),
    at: point('centre'),
    original: keeping,
  },
  sentence: 'Scale {name} · {of} by {by} about {at} · {original} · {material}',
  consumes: usedUp,
  recipe: (line, v) => kept(scaling(v3(v, 'by'), v3(v, 'at')), line.original),
});

export const mirror = defineShape({
  kind: 'mirror',
  title: 'Mirror',
  group: 'Place',
  about: 'Reflects a body in a plane; joined with the original it completes a half model',
  material: 'first',
  fields: { of: ref('line', 'any'), plane: planeField, at: length('offset of the plane', '0 mm'), original: keeping },
  sentence: 'Mirror {name} · {of} {plane} at {at} · {original} · {material}',
  consumes: usedUp,
  recipe(line, v) {
    const n = unit(planeAxes[line.plane][2]);
    return kept(reflection(n, n.map((x) => x * v.at) as Point3), line.original);
  },
});

export const patternLine = defineShape({
  kind: 'pattern-line',
  title: 'Row',
  group: 'Patterns',
  about: 'Copies in equal steps along a direction',
  material: 'first',
  fields: { of: ref('line', 'any'), count: count('number', '4', 1, 2000), step: point('step along', ['10 mm', '0 mm', '0 mm']), as },
  sentence: 'Row {name} · {count} of {of} · step {step} · {as} · {material}',
  consumes: (line) => [line.of],
  recipe: (line, v) => ({
    form: 'place',
    as: line.as,
    places: Array.from({ length: v.count }, (_, i) => translation(v3(v, 'step').map((s) => s * i) as Point3)),
  }),
});

export const patternGrid = defineShape({
  kind: 'pattern-grid',
  title: 'Grid',
  group: 'Patterns',
  about: 'Copies in rows and columns of a plane',
  material: 'first',
  fields: {
    of: ref('line', 'any'),
    plane: planeField,
    columns: count('number along the first axis', '3', 1, 500),
    rows: count('number along the second axis', '2', 1, 500),
    step: pair('step along', ['10 mm', '10 mm']),
    skew: length('shift of every second row', '0 mm'),
    as,
  },
  sentence: 'Grid {name} · {columns} by {rows} of {of} {plane} · steps {step} · second rows shifted by {skew} · {as} · {material}',
  consumes: (line) => [line.of],
  recipe(line, v) {
    if (v.columns * v.rows > 4000)
      return { fault: 'The grid has more than 4000 copies.', fix: 'Give fewer, or use periodic boundaries.', chip: 'columns' };
    const [u, w] = planeAxes[line.plane];
    const places: Affine[] = [];
    for (let r = 0; r < v.rows; r++)
      for (let c = 0; c < v.columns; c++) {
        const p: Point3 = [0, 0, 0];
        p[u] = c * v['step.0'] + (r % 2 ? v.skew : 0);
        p[w] = r * v['step.1'];
        places.push(translation(p));
      }
    return { form: 'place', places, as: line.as };
  },
});

export const patternPolar = defineShape({
  kind: 'pattern-polar',
  title: 'Ring of copies',
  group: 'Patterns',
  about: 'Copies turned about an axis',
  material: 'first',
  fields: {
    of: ref('line', 'any'),
    count: count('number', '6', 1, 2000),
    angle: angle('angle between two', '60 deg'),
    axis: axisField(),
    at: point('centre'),
    as,
  },
  sentence: 'Ring of copies {name} · {count} of {of} every {angle} about {axis} through {at} · {as} · {material}',
  consumes: (line) => [line.of],
  recipe: (line, v) => ({
    form: 'place',
    as: line.as,
    places: Array.from({ length: v.count }, (_, i) => (i ? rotation(unit(axisNumber(line.axis)), v.angle * i, v3(v, 'at')) : identity)),
  }),
});

export const patternCurve = defineShape({
  kind: 'pattern-curve',
  title: 'Copies along a curve',
  group: 'Patterns',
  about: 'Copies at equal distances along a curve; the first stands at its start',
  material: 'first',
  fields: {
    of: ref('line', 'any'),
    path: ref('path', 'curve'),
    count: count('number', '5', 1, 2000),
    turn: choice('turn', { turned: 'turned with it', upright: 'all upright' }),
    as,
  },
  sentence: 'Copies {name} · {count} of {of} along {path} {turn} · {as} · {material}',
  consumes: (line) => [line.of],
  recipe: (line, v) => ({ form: 'along', count: v.count, turn: line.turn === 'turned', as: line.as }),
});

export const patternTable = defineShape({
  kind: 'pattern-table',
  title: 'Copies at positions',
  group: 'Patterns',
  about: 'A copy at each position of a table, shifted from where the original is',
  material: 'first',
  fields: {
    of: ref('line', 'any'),
    points: rows('position', [['0 mm', '0 mm', '0 mm', '0 deg'], ['10 mm', '0 mm', '0 mm', '0 deg']], 1, () => [
      { label: 'x', quantity: 'length' },
      { label: 'y', quantity: 'length' },
      { label: 'z', quantity: 'length' },
      { label: 'turn about z', quantity: 'angle' },
    ]), // prettier-ignore
    as,
  },
  sentence: 'Copies {name} · of {of} at {points} · {as} · {material}',
  consumes: (line) => [line.of],
  recipe: (line, v) => ({
    form: 'place',
    as: line.as,
    places: listed3(v, 'points', line.points, undefined).map((p, i) => compose(translation(p), rotation([0, 0, 1], v[`points.${i}.3`]))),
  }),
});

export const frame = defineShape({
  kind: 'frame',
  title: 'Frame by angles',
  group: 'Place',
  about: 'Axes of one’s own for other lines, by origin and turns',
  material: 'none',
  fields: {
    at: point('origin'),
    turn: point('turn about', ['0 deg', '0 deg', '0 deg'], { quantity: 'angle' }),
  },
  sentence: 'Frame {name} · origin at {at} · turned about x, y, z by {turn}',
  recipe(_, v) {
    const [x, y, z] = v3(v, 'turn');
    const turned = compose(rotation([0, 0, 1], z), compose(rotation([0, 1, 0], y), rotation([1, 0, 0], x)));
    return { form: 'frame', matrix: compose(translation(v3(v, 'at')), turned) };
  },
});

export const framePoints = defineShape({
  kind: 'frame-points',
  title: 'Frame by three points',
  group: 'Place',
  about: 'Axes of one’s own: origin, a point along x, a point in the xy plane',
  material: 'none',
  fields: { origin: point('origin'), along: point('point on x', ['1 mm', '0 mm', '0 mm']), plane: point('point in xy', ['0 mm', '1 mm', '0 mm']) },
  sentence: 'Frame {name} · origin {origin} · x through {along} · xy plane through {plane}',
  recipe(_, v) {
    const [o, a, b] = [v3(v, 'origin'), v3(v, 'along'), v3(v, 'plane')];
    const minus = (p: Point3): Point3 => p.map((x, i) => x - o[i]) as Point3;
    const [x, q] = [minus(a), minus(b)];
    const lx = Math.hypot(...x);
    const z: Point3 = [x[1] * q[2] - x[2] * q[1], x[2] * q[0] - x[0] * q[2], x[0] * q[1] - x[1] * q[0]];
    const lz = Math.hypot(...z);
    if (!(lz > nothing * lx * Math.hypot(...q)))
      return { fault: 'The three points lie on one line.', fix: 'Move the third point off it.', chip: 'plane.0' };
    const ex = x.map((c) => c / lx) as Point3;
    const ez = z.map((c) => c / lz) as Point3;
    const ey: Point3 = [ez[1] * ex[2] - ez[2] * ex[1], ez[2] * ex[0] - ez[0] * ex[2], ez[0] * ex[1] - ez[1] * ex[0]];
    return { form: 'frame', matrix: frameOf(ex, ey, ez, o) };
  },
});

export const frameFace = defineShape({
  kind: 'frame-face',
  title: 'Frame on a face',
  group: 'Place',
  about: 'Axes of one’s own with their origin in the middle of a flat face and z out of it',
  material: 'none',
  fields: { face: faceRef('face') },
  sentence: 'Frame {name} · on face {face}',
  recipe: () => ({ form: 'frame on face' }),
});

export const imported = defineShape({
  kind: 'import',
  title: 'Imported body',
  group: 'Solids',
  about: 'A body from a file, placed and scaled',
  freshMaterial: 'Polyethylene',
  fields: {
    part: partRef('part'),
    scale: value('number', 'scale', '1', { positive: true }),
    at: point('position'),
    turn: point('turn about', ['0 deg', '0 deg', '0 deg'], { quantity: 'angle' }),
    simplify: length('simplified by', '0 mm', 'Detail smaller than this is removed'),
  },
  sentence: 'Imported body {name} · from {part} · scaled by {scale} · turned by {turn} · at {at} · simplified by {simplify} · {material}',
  recipe: (line, v) =>
    v.simplify < 0
      ? { fault: 'The distance to simplify by is negative.', fix: 'Give zero to keep all detail.', chip: 'simplify' }
      : { form: 'import', part: line.part, scale: v.scale, at: v3(v, 'at'), turn: v3(v, 'turn'), simplify: v.simplify },
});

export const drawing = defineShape({
  kind: 'drawing',
  title: 'Imported outlines',
  group: 'Flat',
  about: 'A layer of a drawing as a sheet, or as a solid if it has thickness',
  fields: {
    part: partRef('part'),
    plane: planeField,
    scale: value('number', 'scale', '1', { positive: true }),
    thickness: length('thickness', '0 mm', 'Zero for a sheet'),
    at: point('position'),
  },
  sentence: 'Imported outlines {name} {plane} · from {part} · scaled by {scale} · thickness {thickness} · {material} · origin at {at}',
  recipe(line, v) {
    const [u, w, n] = planeAxes[line.plane];
    return v.thickness < 0
      ? { fault: 'The thickness is negative.', fix: 'Give zero for a sheet.', chip: 'thickness' }
      : {
          form: 'drawing',
          part: line.part,
          normal: n,
          offset: v[`at.${n}`],
          scale: v.scale,
          shift: [v[`at.${u}`], v[`at.${w}`]],
          thickness: v.thickness,
        };
  },
});

/** A title between lines; what follows, up to the next one, folds and mutes with it. */
export const section = defineShape({
  kind: 'section',
  title: 'Section',
  group: 'Order',
  about: 'A title between lines; what follows can be folded and muted together',
  material: 'none',
  fields: { title: words('title', 'New section', 80) },
  sentence: '{title}',
  recipe: () => ({ form: 'nothing' }),
});
