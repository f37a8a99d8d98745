import { emptyProject, type Parameter, type Line, type Port, type Project, sides } from '../document/index.ts';

type V3 = [string, string, string];

/** What a starter asks for. */
export interface StarterInput {
  name: string;
  label: string;
  kind: 'frequency' | 'length' | 'number' | 'material';
  otherwise: string;
}
export const starterGroups = ['Antennas', 'Lines and circuits', 'Guides', 'Periodic', 'Optical'] as const;

/** A parametric starting design, sized for what is asked; its notes say the physics. */
export interface Starter {
  kind: string;
  title: string;
  group: (typeof starterGroups)[number];
  about: string;
  inputs: readonly StarterInput[];
  /** The project. Values are expressions of the inputs, so that all of it follows them later. */
  build(parameter: Record<string, string>): Project;
}

/** The question for the frequency. */
export const frequencyInput = (otherwise: string): StarterInput => ({ name: 'f0', label: 'frequency', kind: 'frequency', otherwise });
/** The questions for a board: its material and thickness. */
export const boardInputs = (h: string, material = 'Low-loss laminate'): StarterInput[] => [
  { name: 'board', label: 'board', kind: 'material', otherwise: material },
  { name: 'h', label: 'thickness of the board', kind: 'length', otherwise: h },
];

export const zero: V3 = ['0 mm', '0 mm', '0 mm'];
/** A parameter: name, expression, note. */
export const parameter = (name: string, expression: string, note: string, group?: string): Parameter => ({
  name,
  expression,
  note,
  ...(group ? { group } : {}),
});
/** A parameter with a dial between two bounds. */
export const dial = (g: Parameter, min: string, max: string): Parameter => ({ ...g, dial: { min, max } });

type LineOf<K extends Line['kind']> = Extract<Line, { kind: K }>;
type Plane = LineOf<'rectangle'>['plane'];
/** A line of a kind with all that its definition asks for. */
const line = <K extends Line['kind']>(kind: K, name: string, rest: Omit<LineOf<K>, 'kind' | 'name'>): Line => ({ kind, name, ...rest }) as LineOf<K>;

/** A box. */
export const box = (name: string, material: string, size: V3, at: V3 = zero, anchor: LineOf<'box'>['anchor'] = 'base'): Line =>
  line('box', name, { material, size, anchor, at });
/** A rectangle. */
export const rect = (
  name: string,
  size: [string, string],
  at: V3 = zero,
  plane: Plane = 'xy',
  anchor: LineOf<'rectangle'>['anchor'] = 'centre',
): Line => line('rectangle', name, { material: 'Copper', plane, size, anchor, at });
/** A disc. */
export const disc = (name: string, radius: string, at: V3, bore = '0 mm', plane: Plane = 'xy'): Line =>
  line('disc', name, { material: 'Copper', plane, radius, bore, at });
/** A flat sheet through points. */
export const polygon = (name: string, points: [string, string][], at: V3 = zero, plane: Plane = 'xy', material = 'Copper'): Line =>
  line('polygon', name, { material, plane, points, at });
/** A prism over points. */
export const prism = (name: string, material: string, points: [string, string][], height: string, at: V3 = zero, plane: Plane = 'xy'): Line =>
  line('prism', name, { material, plane, points, height, at });
/** A cylinder. */
export const cylinder = (name: string, axis: 'x' | 'y' | 'z', radius: string, height: string, at: V3 = zero, material = 'Copper'): Line =>
  line('cylinder', name, { material, axis, radius, height, at });
/** A tube. */
export const tube = (name: string, axis: 'x' | 'y' | 'z', radius: string, bore: string, height: string, at: V3 = zero, material = 'Copper'): Line =>
  line('tube', name, { material, axis, radius, bore, height, at });
/** A straight line. */
export const straight = (name: string, from: V3, to: V3): Line => line('line', name, { from, to });
/** A line through points. */
export const polyline = (name: string, points: V3[], closed = false): Line =>
  line('polyline', name, { points, ends: closed ? 'closed' : 'open', at: zero });
/** An arc. */
export const arc = (name: string, radius: string, from: string, to: string, at: V3 = zero, plane: Plane = 'xy'): Line =>
  line('arc', name, { plane, radius, from, to, at });
/** A strip along a path. */
export const trace = (name: string, path: string, width: string, thickness = '0 mm', corners: LineOf<'trace'>['corners'] = 'mitred', material = 'Copper'): Line => line('trace', name, { material, path, plane: 'xy', width, thickness, corners, mitre: '0.6', radius: '2 mm' }); // prettier-ignore
/** A line less others. */
export const cut = (name: string, from: string, tools: string[]): Line => line('cut', name, { from, tools, after: 'used' });
/** Lines in one. */
export const join = (name: string, parts: string[]): Line => line('join', name, { parts });
/** Copies in a row. */
export const row = (name: string, of: string, count: string, step: V3, as: LineOf<'pattern-line'>['as'] = 'one'): Line =>
  line('pattern-line', name, { of, count, step, as });
/** A line and its mirror image. */
export const mirror = (name: string, of: string, plane: Plane, original: LineOf<'mirror'>['original'] = 'kept', at = '0 mm'): Line =>
  line('mirror', name, { of, plane, at, original });
/** A line moved. */
export const move = (name: string, of: string, by: V3, original: LineOf<'move'>['original'] = 'kept'): Line =>
  line('move', name, { of, by, original });
export const make = line;

/** Port along a path. */
export const pathPort = (name: string, from: V3, to: V3, width: string, across: 'x' | 'y' | 'z', resistance = '50 ohm'): Port => ({
  kind: 'path',
  name,
  from,
  to,
  width,
  across,
  resistance,
});
/** A lumped port across the gap between two bodies. */
export const gapPort = (name: string, a: string, b: string, resistance = '50 ohm'): Port => ({ kind: 'gap', name, between: [a, b], resistance });

interface Parts {
  note: string;
  parameters: Parameter[];
  lines: Line[];
  ports?: Port[];
  band?: [string, string];
  /** Absent: the time domain. */
  solver?: Project['solve']['solver'];
  /** A far field is recorded at f0. */
  radiates?: boolean;
  /** Electric walls right around the bodies. */
  closed?: boolean;
}

/** A guided port on a face. */
export const facePort = (name: string, face: string, modes = '1'): Port => ({ kind: 'guide-face', name, face, modes, shift: '0 mm' });
/** A guided port on a rectangle around the axis of a guide; widths in the order x, y, z of the two other axes. */
export const planePort = (name: string, normal: 'x' | 'y' | 'z', into: 'up' | 'down', at: string, [u, v]: [string, string], modes = '1'): Port => ({
  kind: 'guide-plane',
  name,
  normal,
  into,
  at,
  from: [`-(${u}) / 2`, `-(${v}) / 2`],
  to: [`(${u}) / 2`, `(${v}) / 2`],
  modes,
  shift: '0 mm',
});
/** A project from its parts. */
export function project(
  title: string,
  { note, parameters, lines, ports = [], band = ['0.8 * f0', '1.2 * f0'], radiates = false, closed = false, solver }: Parts,
): Project {
  const base = emptyProject(title);
  return {
    ...base,
    note,
    parameters,
    lines,
    ports,
    recorders: radiates ? base.recorders : [],
    recordAt: radiates ? ['f0'] : [],
    ...(closed ? { boundaries: Object.fromEntries(sides.map((side) => [side, 'electric'])) as Project['boundaries'], margin: '0 mm' } : {}),
    solve: { ...base.solve, from: band[0], to: band[1], ...(solver ? { solver } : {}) },
  };
}
