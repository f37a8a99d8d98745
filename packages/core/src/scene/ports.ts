import { type Place, type Point3, type Port, portChips, type Problem, problem } from '../document/index.ts';
import { evaluateChips, type Scope } from '../expressions/index.ts';
import { type Body, inPlane, touches } from '../geometry/index.ts';
import type { GuidePort } from './guides.ts';
import { facesEnd, type PortLine, portLine } from './portLine.ts';
import type { WavePort } from './waves.ts';
import type { OnWire } from './wireParts.ts';

/** A lumped port in space: a rectangle (or filament) with a voltage path along one axis. */
export interface ScenePort {
  name: string;
  /** Place among all ports of the document. */
  order: number;
  /** Ohms: source resistance and real part of the reference. */
  resistance: number;
  /** Imaginary part of the reference, ohms; absent: 0. */
  reactance?: number;
  /** Voltage path: axis, and +1 if it runs towards larger coordinates. */
  axis: 0 | 1 | 2;
  direction: 1 | -1;
  /** Extent of the port: along `axis` the gap, along `across` the width, a single coordinate otherwise. */
  min: Point3;
  max: Point3;
  across: 0 | 1 | 2;
  /** Axes on which a plane of symmetry cuts it in two: this is one half of it. */
  halved?: [boolean, boolean, boolean];
  /** How many such ports the whole structure has, images counted in; absent: 1. */
  images?: number;
  /** The line at whose end it stands, where its gap is to be taken out. */
  line?: PortLine;
  /** Its gap is to be taken out where it stands at no line's end. */
  spread?: boolean;
  /** A passive element in the port's place: it is no channel and has no source. */
  load?: SceneLoad;
}

/** Resistance, inductance and capacitance (ohms, henries, farads) in series or in parallel; 0 is a part left out. */
export interface SceneLoad {
  form: 'series' | 'parallel';
  r: number;
  l: number;
  c: number;
}

/** Kinds of ports that are placed as lumped ones. */
type LumpedPort = Exclude<Port, GuidePort | WavePort | OnWire>;
export const isElement = (p: Port): boolean => p.kind === 'element-gap' || p.kind === 'element-path';

/** Complex admittance of a load, siemens, as the trapezoid rule of step dt has it (dt 0: exactly). */
export function loadAdmittance({ form, r, l, c }: SceneLoad, frequency: number, dt = 0): [re: number, im: number] {
  const w = dt ? (2 / dt) * Math.tan(Math.PI * frequency * dt) : 2 * Math.PI * frequency;
  if (form === 'parallel') return [r ? 1 / r : 0, w * c - (l ? 1 / (w * l) : 0)];
  const x = w * l - (c ? 1 / (w * c) : 0);
  const d = r * r + x * x;
  return [r / d, -x / d];
}

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
    .filter((p) => Math.abs(pick(p, axis) - limit) <= 1e-9 * size)
    .map((p) => pick(p, t));
  return [Math.min(...on), Math.max(...on)];
}

type Resolved = { port: ScenePort } | { problems: Problem[] };

function gapPort(port: Extract<Port, { kind: 'gap' | 'element-gap' }>, order: number, resistance: number, bodies: Body[], place: Place): Resolved {
  const pair: Body[] = [];
  for (const [i, name] of port.between.entries()) {
    const body = bodies.find((b) => b.name === name);
    if (!body)
      return {
        problems: [
          problem(
            'error',
            'port.no-body',
            { ...place, chip: `between.${i}` },
            `There is no body named ${name}.`,
            'Choose one of the bodies of the model.',
          ),
        ],
      };
    if (body.material.kind !== 'conductor')
      return {
        problems: [
          problem(
            'error',
            'port.not-metal',
            { ...place, chip: `between.${i}` },
            `${name} is not a conductor, so the port would touch nothing.`,
            'Choose a body of metal.',
          ),
        ],
      };
    pair.push(body);
  }
  const [a, b] = pair;
  const gaps = [0, 1, 2].map((axis) => Math.max(b.min[axis] - a.max[axis], a.min[axis] - b.max[axis]));
  const axis = gaps.indexOf(Math.max(...gaps)) as 0 | 1 | 2;
  const size = Math.max(...a.max.map((m, i) => m - a.min[i]), ...b.max.map((m, i) => m - b.min[i]));
  if (!(gaps[axis] > 1e-9 * size))
    return {
      problems: [
        problem(
          'error',
          'port.no-gap',
          place,
          `${a.name} and ${b.name} touch or overlap: there is no gap between them.`,
          'Move them apart, or choose two other bodies.',
        ),
      ],
    };
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
    if (max[t] < min[t] - 1e-9 * size)
      return {
        problems: [
          problem(
            'error',
            'port.not-facing',
            place,
            `The sides of ${a.name} and ${b.name} do not face each other along ${'xyz'[axis]}.`,
            'Move one so that they do, or use a port along a path.',
          ),
        ],
      };
  }
  const transverse = [(axis + 1) % 3, (axis + 2) % 3] as (0 | 1 | 2)[];
  transverse.sort((p, q) => max[q] - min[q] - (max[p] - min[p]));
  const [across, thin] = transverse;
  min[thin] = max[thin] = (min[thin] + max[thin]) / 2;
  return { port: { name: port.name, order, resistance, axis, direction, min, max, across } };
}

function pathPort(
  port: Extract<Port, { kind: 'path' | 'element-path' }>,
  order: number,
  v: Record<string, number>,
  bodies: Body[],
  place: Place,
): Resolved {
  const from = [v['from.0'], v['from.1'], v['from.2']] as Point3;
  const to = [v['to.0'], v['to.1'], v['to.2']] as Point3;
  const step = to.map((t, i) => Math.abs(t - from[i]));
  const axis = step.indexOf(Math.max(...step)) as 0 | 1 | 2;
  const across = 'xyz'.indexOf(port.across) as 0 | 1 | 2;
  if (step[axis] === 0)
    return {
      problems: [problem('error', 'port.zero', { ...place, chip: 'to.0' }, 'The port begins and ends at the same point.', 'Move one of its ends.')],
    };
  if (step.some((s, i) => i !== axis && s > 1e-6 * step[axis]))
    return {
      problems: [
        problem(
          'error',
          'port.oblique',
          { ...place, chip: 'to.0' },
          'The port’s path does not run along an axis.',
          'Let its two ends differ in one coordinate only.',
        ),
      ],
    };
  if (v.width < 0)
    return {
      problems: [
        problem(
          'error',
          'value.not-positive',
          { ...place, chip: 'width' },
          'The width is negative.',
          'Give zero for a filament, or a positive width.',
        ),
      ],
    };
  if (v.width > 0 && across === axis)
    return {
      problems: [
        problem('error', 'port.across', { ...place, chip: 'across' }, 'The width lies along the path.', 'Choose another axis for the width.'),
      ],
    };
  const problems: Problem[] = [];
  const tolerance = 1e-6 * step[axis];
  for (const [chip, end] of [
    ['from.0', from],
    ['to.0', to],
  ] as const)
    if (!bodies.some((b) => b.material.kind === 'conductor' && touches(b.shape, end, tolerance)))
      problems.push(
        problem(
          'error',
          'port.touches-nothing',
          { ...place, chip },
          `The port’s ${chip === 'from.0' ? 'start' : 'end'} touches no conductor.`,
          'Move it onto a metal body, or use a port across the gap between two bodies.',
        ),
      );
  if (problems.length) return { problems };
  const min = from.map((f, i) => Math.min(f, to[i])) as Point3;
  const max = from.map((f, i) => Math.max(f, to[i])) as Point3;
  if (v.width > 0) {
    min[across] -= v.width / 2;
    max[across] += v.width / 2;
  }
  return {
    port: {
      name: port.name,
      order,
      resistance: v.resistance,
      axis,
      direction: to[axis] > from[axis] ? 1 : -1,
      min,
      max,
      across: across === axis ? (((axis + 1) % 3) as 0 | 1 | 2) : across,
    },
  };
}

/** Places a port of the document on the bodies. */
export function resolvePort(port: LumpedPort, order: number, scope: Scope, bodies: Body[]): Resolved {
  const place: Place = { part: 'ports', name: port.name };
  const { values, problems } = evaluateChips(port, portChips(port), scope, place);
  if (!values) return { problems };
  const placed =
    port.kind === 'gap' || port.kind === 'element-gap'
      ? gapPort(port, order, values.resistance ?? 0, bodies, place)
      : pathPort(port, order, { resistance: 0, ...values }, bodies, place);
  if (!('port' in placed)) return placed;
  if (port.kind === 'gap' || port.kind === 'path') {
    if (values.reactance) placed.port.reactance = values.reactance;
    if (port.gap !== 'out') return placed;
    const line = portLine(placed.port, bodies);
    if (line) return { port: { ...placed.port, line } };
    if (!facesEnd(placed.port, bodies))
      return {
        problems: [
          problem(
            'error',
            'port.no-line',
            { ...place, chip: 'gap' },
            `The gap of ${port.name} has no end: across its voltage metal faces metal far beyond it, and it does not stand at the end of one line.`,
            'Move the port to the end of its line, or keep the gap.',
          ),
        ],
      };
    return { port: { ...placed.port, spread: true } };
  }
  const { r, l, c } = values;
  for (const [chip, value] of [['r', r], ['l', l], ['c', c]] as const) // prettier-ignore
    if (value < 0)
      return { problems: [problem('error', 'element.negative', { ...place, chip }, 'A part of the element is negative.', 'Give zero to leave it out, or more.')] }; // prettier-ignore
  if (!r && !l && !c)
    return {
      problems: [
        problem('error', 'element.empty', place, 'The element has neither resistance nor inductance nor capacitance.', 'Give at least one of them, or remove it.'), // prettier-ignore
      ],
    };
  return { port: { ...placed.port, load: { form: port.form, r, l, c } } };
}
