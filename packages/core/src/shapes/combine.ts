import { choice, faceRef, length, point, ref, refs, planeField } from '../entries/fields.ts';
import { planeAxes, type Point3 } from './recipe.ts';
import { defineShape, v3 } from './shape.ts';

/** Unit vector along the normal of a named plane. */
const normalOf = (plane: keyof typeof planeAxes): Point3 => [0, 1, 2].map((a) => (a === planeAxes[plane][2] ? 1 : 0)) as Point3;
const plenty = (names: readonly string[], least: number, path: string) =>
  names.length < least
    ? { fault: `It needs ${least === 1 ? 'a line' : 'two lines or more'}.`, fix: 'Choose the lines to combine.', chip: path }
    : null;

export const join = defineShape({
  kind: 'join',
  title: 'Join',
  group: 'Combine',
  about: 'Makes one body of several',
  material: 'first',
  fields: { parts: refs('bodies', 'body') },
  sentence: 'Join {name} · of {parts} · {material}',
  consumes: (line) => line.parts,
  recipe: (line) => plenty(line.parts, 2, 'parts') ?? { form: 'join' },
});

export const cut = defineShape({
  kind: 'cut',
  title: 'Cut',
  group: 'Combine',
  about: 'Takes bodies away from another',
  material: 'first',
  fields: { from: ref('body', 'body'), tools: refs('tools', 'body'), after: choice('tools', { used: 'using them up', kept: 'keeping them' }) },
  sentence: 'Cut {name} · from {from} takes {tools} {after} · {material}',
  consumes: (line) => (line.after === 'kept' ? [line.from] : [line.from, ...line.tools]),
  recipe: (line) => plenty(line.tools, 1, 'tools') ?? { form: 'cut' },
});

export const common = defineShape({
  kind: 'common',
  title: 'Common part',
  group: 'Combine',
  about: 'What several bodies have in common',
  material: 'first',
  fields: { parts: refs('bodies', 'body') },
  sentence: 'Common part {name} · of {parts} · {material}',
  consumes: (line) => line.parts,
  recipe: (line) => plenty(line.parts, 2, 'parts') ?? { form: 'common' },
});

export const split = defineShape({
  kind: 'split',
  title: 'Split',
  group: 'Combine',
  about: 'Parts a body by a plane and keeps one side or both',
  material: 'first',
  fields: {
    of: ref('body', 'body'),
    plane: planeField,
    offset: length('offset', '0 mm'),
    keep: choice('keep', { above: 'keeping what lies above', below: 'keeping what lies below', both: 'keeping both as bodies 1 and 2' }),
  },
  sentence: 'Split {name} · {of} {plane} at {offset} · {keep} · {material}',
  consumes: (line) => [line.of],
  recipe: (line, v) => ({ form: 'split', normal: normalOf(line.plane), offset: v.offset, keep: line.keep }),
});

export const imprint = defineShape({
  kind: 'imprint',
  title: 'Imprint',
  group: 'Combine',
  about: 'Marks the line of a plane on the faces of a body, which divides them and leaves the body whole',
  material: 'first',
  fields: { of: ref('body', 'solid'), plane: planeField, offset: length('offset', '0 mm') },
  sentence: 'Imprint {name} · on {of} {plane} at {offset} · {material}',
  consumes: (line) => [line.of],
  recipe: (line, v) => ({ form: 'imprint', normal: normalOf(line.plane), offset: v.offset }),
});

export const thicken = defineShape({
  kind: 'thicken',
  title: 'Thicken',
  group: 'From other lines',
  about: 'Gives a sheet thickness on one side or both',
  material: 'first',
  fields: { of: ref('sheet', 'sheet'), up: length('thickness above', '0.1 mm'), down: length('thickness below', '0 mm') },
  sentence: 'Thicken {name} · {of} by {up} above and {down} below · {material}',
  consumes: (line) => [line.of],
  recipe: (_, v) =>
    v.up < 0 || v.down < 0 || v.up + v.down === 0
      ? { fault: 'The sheet gets no thickness.', fix: 'Give a positive thickness above or below.', chip: 'up' }
      : { form: 'thicken', up: v.up, down: v.down },
});

export const offset = defineShape({
  kind: 'offset',
  title: 'Offset',
  group: 'From other lines',
  about: 'Widens or narrows the outline of a sheet',
  material: 'first',
  fields: {
    of: ref('sheet', 'sheet'),
    by: length('distance', '0.5 mm', 'Outwards if positive'),
    corners: choice('corners', { sharp: 'with sharp corners', round: 'with round corners' }),
    after: choice('original', { used: 'in its place', kept: 'beside it' }),
  },
  sentence: 'Offset {name} · {of} by {by} {corners} · {after} · {material}',
  consumes: (line) => (line.after === 'used' ? [line.of] : []),
  recipe: (line, v) => ({ form: 'offset', by: v.by, corners: line.corners }),
});

export const extrudeFace = defineShape({
  kind: 'extrude-face',
  title: 'Extrude a face',
  group: 'From other lines',
  about: 'A solid raised from a flat face or sheet',
  material: 'first',
  fields: { face: faceRef('face'), by: length('height', '5 mm') },
  sentence: 'Extruded face {name} · {face} by {by} · {material}',
  recipe: (_, v) =>
    v.by === 0 ? { fault: 'The height is zero.', fix: 'Give a height; negative goes inwards.', chip: 'by' } : { form: 'extrude face', by: v.by },
});

export const copyFace = defineShape({
  kind: 'copy-face',
  title: 'Copy a face',
  group: 'From other lines',
  about: 'A sheet that covers a flat face of a body',
  freshMaterial: 'Copper',
  fields: { face: faceRef('face') },
  sentence: 'Sheet {name} · copied from face {face} · {material}',
  recipe: () => ({ form: 'copy face' }),
});

export const crossSection = defineShape({
  kind: 'cross-section',
  title: 'Cross-section',
  group: 'From other lines',
  about: 'A sheet where a plane meets a body',
  fields: { of: ref('body', 'solid'), plane: planeField, offset: length('offset', '0 mm') },
  sentence: 'Cross-section {name} · of {of} {plane} at {offset} · {material}',
  recipe: (line, v) => ({ form: 'section', normal: planeAxes[line.plane][2], offset: v.offset }),
});

export const outline = defineShape({
  kind: 'outline',
  title: 'Outline',
  group: 'From other lines',
  about: 'The shadow of a body on a plane, as a sheet',
  fields: { of: ref('body', 'body'), plane: planeField, offset: length('offset', '0 mm') },
  sentence: 'Outline {name} · of {of} {plane} at {offset} · {material}',
  recipe: (line, v) => ({ form: 'outline', normal: planeAxes[line.plane][2], offset: v.offset }),
});

export const container = defineShape({
  kind: 'container',
  title: 'Container',
  group: 'From other lines',
  about: 'A box around other lines with margins',
  freshMaterial: 'Air',
  fields: {
    parts: refs('bodies', 'any'),
    below: point('margin below along', ['1 mm', '1 mm', '1 mm']),
    above: point('margin above along', ['1 mm', '1 mm', '1 mm']),
    gaps: choice('inside', { filled: 'filling all between', around: 'leaving the bodies out' }),
  },
  sentence: 'Container {name} · around {parts} · margins {below} and {above} · {gaps} · {material}',
  recipe: (line, v) =>
    plenty(line.parts, 1, 'parts') ?? { form: 'container', below: v3(v, 'below'), above: v3(v, 'above'), hollow: line.gaps === 'around' },
});
