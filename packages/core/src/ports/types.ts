import type { Complex } from '../numerics/complex.ts';
import type { Point3 } from '../shapes/index.ts';
import type { Axis } from '../numerics/axis.ts';

/** Direction in which the two conductors of a port go on as a line: `inward` 1 towards larger coordinates. */
export interface PortLine {
  axis: Axis;
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
  axis: Axis;
  direction: 1 | -1;
  /** Extent of the port: along `axis` the gap, along `across` the width, a single coordinate otherwise. */
  min: Point3;
  max: Point3;
  across: Axis;
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
export function loadAdmittance({ form, r, l, c }: SceneLoad, frequency: number, dt = 0): Complex {
  const w = dt ? (2 / dt) * Math.tan(Math.PI * frequency * dt) : 2 * Math.PI * frequency;
  if (form === 'parallel') return [r ? 1 / r : 0, w * c - (l ? 1 / (w * l) : 0)];
  const x = w * l - (c ? 1 / (w * c) : 0);
  const d = r * r + x * x;
  return [r / d, -x / d];
}

/** A guided port in space: a rectangle across an axis, and the side on which the structure lies. */
export interface SceneGuide {
  name: string;
  /** Place among all ports of the document. */
  order: number;
  normal: Axis;
  /** +1 if the wave goes into the structure towards larger coordinates. */
  into: 1 | -1;
  /** The rectangle; min and max are the same along `normal`. */
  min: Point3;
  max: Point3;
  modes: number;
  /** Distance of the reference plane inside the structure, metres. */
  shift: number;
  /** Ends of the path along which each mode's voltage is positive, in the two other axes in their order; absent: signs are as they come. */
  path?: [[number, number], [number, number]];
  /** It sees several media: the guide goes on behind it into absorbing layers. */
  inhomogeneous?: boolean;
  /** The model ends at its plane, where it sees several media: the guide goes on in cells of its own, and in the model metal stands behind it. */
  ends?: boolean;
  /** Sides of the region (xMin .. zMax) that are magnetic walls and on which its rim lies; absent: none. */
  magnetic?: boolean[];
  /** Parts of the whole port, of which this is one, where planes of symmetry cut it; absent: 1. */
  images?: number;
  /** Axes across which it is half of the whole port; absent: none. */
  halved?: boolean[];
  /** Impedance of the whole port over that of this part; absent: 1. */
  wholeImpedance?: number;
}

/** A plane wave of 1 V/m (peak of the rotating field's length over a period, root of the sum of squares). */
export interface SceneWave {
  kind: 'wave';
  name: string;
  order: number;
  /** Where it comes from, theta and phi, radians. */
  from: [theta: number, phi: number];
  /** Unit vector of its propagation. */
  towards: [number, number, number];
  /** Complex amplitudes of E along x, y, z, where it passes the origin. */
  re: [number, number, number];
  im: [number, number, number];
  /** V/m by which what it induces is told; absent: 1. */
  strength?: number;
  /** Directions of a sweep, this one the first; absent: it alone. */
  sweep?: SceneWave[];
}

/** A point of current: an electric moment I l, A m, or a magnetic one, V m, so far as one is spoken of. */
export interface SceneDipole {
  kind: 'dipole';
  name: string;
  order: number;
  of: 'electric' | 'magnetic';
  at: Point3;
  /** Unit vector of the moment. */
  direction: Point3;
}

/** What excites a structure from without, while its ports are loads. */
export type SceneSource = SceneWave | SceneDipole;

/** Where a source stands: the points that region and grid must take in. */
export const pointsOf = (source: SceneSource | null | undefined): readonly Point3[] => (source?.kind === 'dipole' ? [source.at] : []);
