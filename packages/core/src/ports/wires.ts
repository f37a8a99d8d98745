import type { Complex } from '../numerics/complex.ts';
import type { Point3 } from '../shapes/index.ts';
import type { SceneLoad } from './types.ts';

/** A round wire along a curve, as solvers of wires take it. Lengths in metres. */
export interface SceneWire {
  name: string;
  /** Line that made it. */
  line: string;
  points: Point3[];
  closed: boolean;
  radius: number;
  /** Its metal; null for a perfect one. S/m, relative permeability. */
  metal: { conductivity: number; permeability: number } | null;
  /** A dielectric around it up to this radius; the permittivity is e' - j e''. */
  coat: { radius: number; permittivity: [re: number, loss: number] } | null;
}

/** A point of a wire: metres along it from its start. */
export interface WirePlace {
  wire: number;
  at: number;
}

/** Impedance over frequency, straight between the rows. */
type ImpedanceTable = readonly (readonly [frequency: number, re: number, im: number])[];

export interface WirePort {
  name: string;
  /** Place among all ports of the document. */
  order: number;
  place: WirePlace;
  resistance: number;
  reactance: number;
}
export interface WireLoad {
  name: string;
  place: WirePlace;
  load: SceneLoad | { form: 'table'; table: ImpedanceTable };
}
/** A line without loss between two points, of a delay in seconds. */
export interface WireLine {
  name: string;
  places: [WirePlace, WirePlace];
  impedance: number;
  delay: number;
}
export interface WireProbe {
  name: string;
  place: WirePlace;
}

/** What lies under the wires; `at` is its height. */
export type Ground = { kind: 'perfect'; at: number } | { kind: 'earth'; at: number; permittivity: number; conductivity: number };

/** All that a solver of wires needs beside the band and the recorders. */
export interface WireScene {
  wires: SceneWire[];
  ports: WirePort[];
  loads: WireLoad[];
  lines: WireLine[];
  probes: WireProbe[];
  ground: Ground | null;
}

/** Length of a curve, metres. */
export function wireLength({ points, closed }: Pick<SceneWire, 'points' | 'closed'>): number {
  let sum = 0;
  for (let i = closed ? 0 : 1; i < points.length; i++) {
    const [a, b] = [points[(i + points.length - 1) % points.length], points[i]];
    sum += Math.hypot(b[0] - a[0], b[1] - a[1], b[2] - a[2]);
  }
  return sum;
}

/** Impedance of a load, ohms; open parts of infinite impedance give a very large one. */
export function loadImpedance(load: WireLoad['load'], frequency: number): Complex {
  const w = 2 * Math.PI * frequency;
  if (load.form === 'table') {
    const { table } = load;
    const i = table.findIndex(([f]) => f >= frequency);
    if (i <= 0) {
      const [, re, im] = table[i < 0 ? table.length - 1 : 0];
      return [re, im];
    }
    const [a, b] = [table[i - 1], table[i]];
    const t = (frequency - a[0]) / (b[0] - a[0]);
    return [a[1] + t * (b[1] - a[1]), a[2] + t * (b[2] - a[2])];
  }
  const { r, l, c } = load;
  if (load.form === 'series') return [r, w * l - (c ? 1 / (w * c) : 0)];
  const [g, b] = [r ? 1 / r : 0, w * c - (l ? 1 / (w * l) : 0)];
  const y = Math.max(g * g + b * b, 1e-24);
  return [g / y, -b / y];
}
