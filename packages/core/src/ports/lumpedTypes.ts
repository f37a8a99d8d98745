import type { Point3 } from '../shapes/index.ts';

/** Direction in which the two conductors of a port go on as a line: `inward` 1 towards larger coordinates. */
export interface PortLine {
  axis: 0 | 1 | 2;
  inward: 1 | -1;
}

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

/** Complex admittance of a load, siemens, as the trapezoid rule of step dt has it (dt 0: exactly). */
export function loadAdmittance({ form, r, l, c }: SceneLoad, frequency: number, dt = 0): [re: number, im: number] {
  const w = dt ? (2 / dt) * Math.tan(Math.PI * frequency * dt) : 2 * Math.PI * frequency;
  if (form === 'parallel') return [r ? 1 / r : 0, w * c - (l ? 1 / (w * l) : 0)];
  const x = w * l - (c ? 1 / (w * c) : 0);
  const d = r * r + x * x;
  return [r / d, -x / d];
}
