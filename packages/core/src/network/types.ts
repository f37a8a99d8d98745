import type { Complex } from '../numerics/complex.ts';

/** A numeric array of a result, with its shape; the last axis varies fastest. */
export interface ResultArray {
  shape: number[];
  data: Float32Array | Float64Array;
}

/** A wave into a channel, by its column in S: in amplitudes whose squares are powers, W. */
export interface IncidentWave {
  column: number;
  amplitude: Complex;
}

/** What the gap of a lumped port adds to what it feeds. */
export interface PortGap {
  /** Across the port: F, and F/Hz^2 of what goes with the square of frequency. */
  capacitance: [number, number];
  /** In series, between it and the line, likewise in H. */
  inductance: [number, number];
  /** Henries that the part of the current which goes into the capacitance sees besides, where the inductance comes first. Absent: 0. */
  mutual?: number;
  /** Largest difference of S of the reference from that of one without a gap, before and after both are taken out. */
  before: number;
  after: number;
  /** Impedance of the line as the port sees it, likewise in ohms. Absent where the port stands at no line's end: then the inductance comes first. */
  impedance?: [number, number];
}

/** A channel of a network: a lumped port with the impedance that it refers to, or a mode, numbered from 1, with the impedance of a TEM one, ohms. */
export interface NetworkChannel {
  resistance: number;
  /** Absent: 0. */
  reactance?: number;
  mode?: number;
  impedance?: number;
  gap?: PortGap;
}

/** The channels of a network, and which of them were excited, in the order of the columns of S. */
export interface Network {
  ports: readonly NetworkChannel[];
  excitations: readonly number[];
}
