import type { Complex } from '../numerics/complex.ts';
import type { Evidence, EvidenceOf, SolverName } from '../methods/index.ts';
import type { NetworkChannel, ResultArray } from '../network/types.ts';
import type { RecorderTold } from '../recorders/index.ts';

export type { IncidentWave, PortGap, ResultArray } from '../network/types.ts';

/** Figures of a radiation pattern at one frequency. Gains are ratios, powers in watts for 1 W incident. */
export interface PatternFigures {
  frequency: number;
  /** Power through the recording box, W. */
  radiated: number;
  /** Power integrated from the pattern, W. */
  fromPattern: number;
  accepted: number;
  /** Power lost in dielectrics and metals, W. */
  lost: number;
  /** Of that, in each line of lossy metal, W. */
  lostInMetal?: { line: string; power: number }[];
  directivity: number;
  gain: number;
  realisedGain: number;
  /** Direction of the peak, radians. */
  theta: number;
  phi: number;
  radiationEfficiency: number;
  totalEfficiency: number;
}

/** Figures of a scatterer lit by a plane wave at one frequency. Areas in m^2, directions in radians. */
export interface ScatterFigures {
  frequency: number;
  /** Power scattered, through the recording box, over the wave's power density. */
  scattering: number;
  /** The same integrated from the pattern. */
  fromPattern: number;
  absorption: number;
  /** What the wave loses, by the optical theorem from the field straight ahead. */
  extinction: number;
  /** Largest radar cross-section and where. */
  largest: number;
  theta: number;
  phi: number;
  /** Radar cross-section back to where the wave comes from. */
  back: number;
}

/** Everything about a result but its large arrays; plain JSON. */
export interface ResultMeta<E extends Evidence = Evidence> {
  format: 'jadebell-result';
  version: 3;
  solver: SolverName;
  coreVersion: string;
  /** Channels: lumped ports, and modes of guided ports with their family, their name such as TE10, and the voltage of 1 W along the port's path, V, peak. */
  ports: (NetworkChannel & { name: string; family?: 'TEM' | 'TE' | 'TM' | 'hybrid'; modeName?: string; voltage?: number })[];
  /** Channels that were excited, one after the other; fields and patterns are of the first if nothing is combined. */
  excitations: number[];
  /** Waves whose fields were added up for fields and patterns: amplitude (squares add up to 1), phase, and what each meets at the recorded frequencies. */
  combined?: { channel: number; amplitude: number; phase: number; reflection: Complex[] }[];
  /** Hertz, all at which something was recorded; a far field's figures say their own. */
  recordAt: number[];
  farField: { name: string; step: number; figures: PatternFigures[] } | null;
  /** The plane wave that lit the structure, theta and phi of where it comes from, radians, and its strength, V/m (absent: 1; everything that is kept is for 1 V/m), and the directions of a sweep; absent: ports were excited. */
  wave?: { name: string; theta: number; phi: number; strength?: number; directions?: [theta: number, phi: number][] };
  /** The current dipole that excited the structure; everything is told for 1 W that it gives. Place in metres, unit vector of its moment. */
  dipole?: { name: string; of: 'electric' | 'magnetic'; at: [number, number, number]; direction: [number, number, number] };
  /** The scattered far field of a plane wave. */
  scattered?: { name: string; step: number; figures: ScatterFigures[] } | null;
  /** What each recorder but the far field told, in the form of its kind; figures are for 1 W incident, or a wave of 1 V/m. */
  recorded: RecorderTold[];
  /** Wires that were solved, and which of the segments are theirs. */
  wires?: { name: string; line: string; first: number; count: number; radius: number }[];
  /** Places whose voltage and current were kept over the band: of ports, of loads, or mere points, which have no voltage. */
  probes?: { name: string; kind: 'port' | 'load' | 'point' }[];
  /** Where the fields of each excitation were kept: what the recorders tell for those after the first, by their place among the excitations. */
  others?: { turn: number; figures: PatternFigures[] | null; recorded: RecorderTold[] }[];
  evidence: E;
}

/** Whether a result is of a solver, and with it how it can be held against itself. */
export const isOf = <N extends SolverName>(solver: N, meta: ResultMeta): meta is ResultMeta<EvidenceOf<N>> => meta.solver === solver;

/** What fields, currents and powers of a result are told for. */
export const toldFor = ({ wave, dipole }: Pick<ResultMeta, 'wave' | 'dipole'>): string =>
  wave ? '1 V/m' : dipole ? '1 W from the dipole' : '1 W in';

/** Name of the array with S of a pass, from 1. */
export const passKey = (pass: number): string => `pass:${pass}`;
/** Name of a field array of an excitation by its place among them: that of the first is the plain one. */
export const excitationKey = (name: string, turn: number): string => (turn ? `${name}@${turn}` : name);

/**
 * A solution. Arrays by name:
 * - `frequency` [n] Hz; `s` [n, channels, excitations, 2] re/im of S, power waves;
 * - `beta` [n, channels, 2] 1/m of guided modes, im negative below cutoff; `mode:N` [2, v, u] transverse E on the edges of channel N's section, with
 *   `mode:N:u`, `mode:N:v` metres;
 * - `time` [m] s; `signal` [m, channels] V, thinned;  `energy` [2, k] step and relative energy;
 * - `farField` [frequencies, theta, phi, 4] re/im of E_theta, E_phi (V, coefficient of exp(-jkr)/r, for 1 W incident, a wave of 1 V/m, or 1 W that a dipole gives);
 * - what recorders keep: `plane:NAME`, `line:NAME`, `box:NAME`, `point:NAME` and the like, as their kinds describe them;
 * - `wire:segments` [segments, 8] start, direction, length, radius in metres; `wire:along` [segments] metres along their wires; `wire:current` [frequencies, segments, 2, 2]
 *   re/im of the current along each at its start and its end, A, peak;
 * - `source:power` [n] W that a dipole of moment 1 (electric A m, magnetic V m, peak) gives over the band;
 * - `sweep:probe:NAME` [frequencies, directions, 4] the same from each direction of a sweep, `sweep:back` [frequencies, directions] the radar cross-section back, m^2;
 * - `probe:NAME` [n, 4] re/im of voltage (along the wire, V) and current (A) over the band;
 * - `pass:N` S of pass N, from 1, of adaptive accuracy, as `s`; that of the last is `s` itself;
 * - fields, currents and patterns with `@N` behind: the same of excitation N, from 0, where each was kept.
 */
export interface ResultSet<E extends Evidence = Evidence> {
  meta: ResultMeta<E>;
  arrays: Record<string, ResultArray>;
}
