import type { Complex } from '../../numerics/complex.ts';
import type { Mode, Section } from '../modes/index.ts';
import type { GuidePlane } from './portPlane.ts';
import { c0 } from '../../numerics/constants.ts';

/** How a mode of a port depends on frequency: of the grid's own wave. */
export interface Dispersion {
  /** Wave number, 1/m: real above cutoff, -j alpha below (as im = -alpha). */
  beta: Complex;
  /** H over E of the profile, times the impedance of free space, at the node plane: real above cutoff, imaginary below. */
  admittance: Complex;
  propagates: boolean;
}

/** One mode of a port, ready for the time stepping. */
export interface PortMode {
  mode: Mode;
  /** Permittivity-like capacitance, inductance and cutoff of its line (relative, relative, 1/m); null where it has a shape that changes. */
  line: { c: number; l: number; kc: number; form: 'shunt' | 'series' } | null;
  /** Characteristic impedance of a TEM mode, V^2 / 2P, ohms. */
  impedance: number | null;
  at(frequency: number): Dispersion;
  /** Along the port's voltage path, V, peak, for 1 W at the middle of the band; absent where it has none or the mode is cut off there. */
  voltage?: number;
  /** Of ports that see several media: how the mode's shape changes over the band. */
  shape?: ModeShape;
}

/** A mode's profiles at some frequencies. */
export interface ModeShape {
  profiles: readonly Mode[];
  /** Shares of the profiles in E and in H of the mode at a frequency. */
  shares(frequency: number): { e: number[]; h: number[] };
  /** Integral of e x h of the mode so made. */
  flux(frequency: number): number;
}

export interface GuideModes {
  plane: GuidePlane;
  section: Section;
  /** Length of the cell beside the plane, metres. */
  step: number;
  modes: PortMode[];
  /** What the modes are called, such as TE10. */
  names: string[];
}

/** The time step and the grid make a wave slower; these take the frequency to what the scheme sees. */
export const discreteK = (frequency: number, dt: number): number => ((2 / dt) * Math.sin(Math.PI * frequency * dt)) / c0;
