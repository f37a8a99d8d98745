import { axisField, choice, type Field, length, lineName, optional, optionalChoice, point, type SentencePart, value } from '../entries/index.ts';
import { z } from 'zod';
import { type Body, touches } from '../geometry/index.ts';
import { inPlane, type Point3 } from '../shapes/index.ts';
import type { ScenePort } from './types.ts';
import type { Placing } from './port.ts';
import { facesEnd, portLine } from './portLine.ts';
import type { Axis } from '../numerics/axis.ts';
import { sameMesh, sameNumber } from '../numerics/tolerance.ts';

/** Fields of a port: its reference, and what is done about its gap. */
export const referenceFields = {
  resistance: value('resistance', 'resistance', '50 ohm', { positive: true, about: 'Source resistance and reference impedance' }),
  reactance: optional('resistance', 'reference reactance', '0 ohm', 'Imaginary part of the reference impedance; absent: 0'),
};
export const gapField = optionalChoice(
  'its gap',
  { kept: 'gap kept', out: 'gap also taken out' },
  'out: what its gap adds to what it feeds is computed by reference runs, so that Read can take it out',
);
export const referenceSentence = '{resistance} + j {reactance}';

/** Fields of a passive element. */
export const elementFields = {
  form: choice('how its parts are joined', { series: 'in series', parallel: 'in parallel' }, 'How its parts are joined'),
  r: value('resistance', 'resistance', '50 ohm', { about: 'Resistance; 0 leaves it out' }),
  l: value('inductance', 'inductance', '0 nH', { about: 'Inductance; 0 leaves it out' }),
  c: value('capacitance', 'capacitance', '0 pF', { about: 'Capacitance; 0 leaves it out' }),
};
export const elementSentence = '{form} R {r} L {l} C {c}';

/** Two bodies that face each other across a gap. */
const between: Field<[string, string]> = {
  schema: z.tuple([lineName, lineName]).describe('Names of the two lines whose bodies face each other; voltage counts from the first to the second'),
  fresh: ['', ''],
  parts: (path): SentencePart[] => [
    { ref: `${path}.0`, label: 'first body', accepts: 'metal' },
    'to',
    { ref: `${path}.1`, label: 'second body', accepts: 'metal' },
  ],
};
export const gapFields = { between };
export const gapSentence = '· across the gap from {between} ·';

export const pathFields = {
  from: point('from', ['-1 mm', '0 mm', '0 mm']),
  to: point('to', ['1 mm', '0 mm', '0 mm']),
  width: length('width', '0 mm', 'Extent across the path; 0 mm for a single filament'),
  across: axisField('y', 'width axis', 'Axis along which the width lies'),
};
export const pathSentence = '· from {from} to {to} · width {width} {across} ·';

/** Where a lumped port or element stands. */
type Standing = Omit<ScenePort, 'name' | 'order' | 'resistance'>;

const extreme = (body: Body, axis: number, sign: 1 | -1): number => (sign > 0 ? body.max[axis] : body.min[axis]);

/** Extent of a body's side that faces along `axis`, on the transverse axis `t`. */
function facing(body: Body, axis: number, sign: 1 | -1, t: number): [number, number] {
  const { shape } = body;
  // Seen along its normal a sheet shows its whole face; along its plane only the edge that is furthest out.
  if (shape.form !== 'sheet' || shape.normal === t || shape.normal === axis) return [body.min[t], body.max[t]];
  const limit = extreme(body, axis, sign);
  const [u] = inPlane[shape.normal];
  const pick = (p: readonly [number, number], a: number): number => (a === u ? p[0] : p[1]);
  const size = Math.max(...body.max.map((m, i) => m - body.min[i]));
  const on = shape.loops
    .flat()
    .filter((p) => Math.abs(pick(p, axis) - limit) <= sameNumber * size)
    .map((p) => pick(p, t));
  return [Math.min(...on), Math.max(...on)];
}

/** The gap between two bodies of metal: where they are furthest apart, over the width in which both face it. */
export function acrossGap(names: readonly string[], { bodies, fail }: Placing): Standing | null {
  const pair: Body[] = [];
  for (const [i, name] of names.entries()) {
    const body = bodies.find((b) => b.name === name);
    if (!body) return fail('port.no-body', `between.${i}`, `There is no body named ${name}.`, 'Choose one of the bodies of the model.');
    if (body.material.kind !== 'conductor')
      return fail('port.not-metal', `between.${i}`, `${name} is not a conductor, so the port would touch nothing.`, 'Choose a body of metal.');
    pair.push(body);
  }
  const [a, b] = pair;
  const gaps = [0, 1, 2].map((axis) => Math.max(b.min[axis] - a.max[axis], a.min[axis] - b.max[axis]));
  const axis = gaps.indexOf(Math.max(...gaps)) as Axis;
  const size = Math.max(...a.max.map((m, i) => m - a.min[i]), ...b.max.map((m, i) => m - b.min[i]));
  if (!(gaps[axis] > sameNumber * size))
    return fail(
      'port.no-gap',
      null,
      `${a.name} and ${b.name} touch or overlap: there is no gap between them.`,
      'Move them apart, or choose two other bodies.',
    );
  const direction = b.min[axis] >= a.max[axis] ? 1 : -1;
  const min: Point3 = [0, 0, 0];
  const max: Point3 = [0, 0, 0];
  min[axis] = direction > 0 ? a.max[axis] : b.max[axis];
  max[axis] = direction > 0 ? b.min[axis] : a.min[axis];
  for (const t of [(axis + 1) % 3, (axis + 2) % 3]) {
    const sa = facing(a, axis, direction, t);
    const sb = facing(b, axis, direction === 1 ? -1 : 1, t);
    min[t] = Math.max(sa[0], sb[0]);
    max[t] = Math.min(sa[1], sb[1]);
    if (max[t] < min[t] - sameNumber * size)
      return fail(
        'port.not-facing',
        null,
        `The sides of ${a.name} and ${b.name} do not face each other along ${'xyz'[axis]}.`,
        'Move one so that they do, or use a port along a path.',
      );
  }
  const transverse = [(axis + 1) % 3, (axis + 2) % 3] as Axis[];
  transverse.sort((p, q) => max[q] - min[q] - (max[p] - min[p]));
  const [across, thin] = transverse;
  min[thin] = max[thin] = (min[thin] + max[thin]) / 2;
  return { axis, direction, min, max, across };
}

/** A straight path along an axis between two points on metal, of a width. */
export function alongPath(acrossLetter: 'x' | 'y' | 'z', v: Record<string, number>, { bodies, fail }: Placing): Standing | null {
  const from = [v['from.0'], v['from.1'], v['from.2']] as Point3;
  const to = [v['to.0'], v['to.1'], v['to.2']] as Point3;
  const step = to.map((t, i) => Math.abs(t - from[i]));
  const axis = step.indexOf(Math.max(...step)) as Axis;
  const across = 'xyz'.indexOf(acrossLetter) as Axis;
  if (step[axis] === 0) return fail('port.zero', 'to.0', 'The port begins and ends at the same point.', 'Move one of its ends.');
  if (step.some((s, i) => i !== axis && s > sameMesh * step[axis]))
    return fail('port.oblique', 'to.0', 'The port’s path does not run along an axis.', 'Let its two ends differ in one coordinate only.');
  if (v.width < 0) return fail('value.not-positive', 'width', 'The width is negative.', 'Give zero for a filament, or a positive width.');
  if (v.width > 0 && across === axis) return fail('port.across', 'across', 'The width lies along the path.', 'Choose another axis for the width.');
  const tolerance = sameMesh * step[axis];
  const loose = [
    { chip: 'from.0', end: from, word: 'start' },
    { chip: 'to.0', end: to, word: 'end' },
  ].filter(({ end }) => !bodies.some((b) => b.material.kind === 'conductor' && touches(b.shape, end, tolerance)));
  for (const { chip, word } of loose)
    fail(
      'port.touches-nothing',
      chip,
      `The port’s ${word} touches no conductor.`,
      'Move it onto a metal body, or use a port across the gap between two bodies.',
    );
  if (loose.length) return null;
  const min = from.map((f, i) => Math.min(f, to[i])) as Point3;
  const max = from.map((f, i) => Math.max(f, to[i])) as Point3;
  if (v.width > 0) {
    min[across] -= v.width / 2;
    max[across] += v.width / 2;
  }
  const direction = to[axis] > from[axis] ? 1 : -1;
  return { axis, direction, min, max, across: across === axis ? (((axis + 1) % 3) as Axis) : across };
}

/** A port that stands somewhere: with its reference, and the line or the surroundings by which its gap is taken out. */
export function asPort(
  entry: { name: string; gap?: 'kept' | 'out' },
  v: Record<string, number>,
  standing: Standing | null,
  { order, bodies, fail }: Placing,
): ScenePort | null {
  if (!standing) return null;
  const port: ScenePort = { name: entry.name, order, resistance: v.resistance, ...standing, ...(v.reactance ? { reactance: v.reactance } : {}) };
  if (entry.gap !== 'out') return port;
  const line = portLine(port, bodies);
  if (line) return { ...port, line };
  if (!facesEnd(port, bodies))
    return fail(
      'port.no-line',
      'gap',
      `The gap of ${entry.name} has no end: across its voltage metal faces metal far beyond it, and it does not stand at the end of one line.`,
      'Move the port to the end of its line, or keep the gap.',
    );
  return { ...port, spread: true };
}

/** An element that stands somewhere. */
export function asElement(
  entry: { name: string; form: 'series' | 'parallel' },
  v: Record<string, number>,
  standing: Standing | null,
  { order, fail }: Placing,
): ScenePort | null {
  if (!standing) return null;
  const { r, l, c } = v;
  const low = (['r', 'l', 'c'] as const).find((part) => v[part] < 0);
  if (low) return fail('element.negative', low, 'A part of the element is negative.', 'Give zero to leave it out, or more.');
  if (!r && !l && !c)
    return fail(
      'element.empty',
      null,
      'The element has neither resistance nor inductance nor capacitance.',
      'Give at least one of them, or remove it.',
    );
  return { name: entry.name, order, resistance: 0, ...standing, load: { form: entry.form, r, l, c } };
}
