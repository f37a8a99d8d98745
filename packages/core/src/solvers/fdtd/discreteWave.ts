import { cross } from '../../numerics/vector.ts';
import { abs, type Complex, mul, polar, scale } from '../../numerics/complex.ts';
import type { Grid } from '../../grid/index.ts';
import { c0 } from '../../numerics/constants.ts';
import type { InjectedRow, Injection } from './injection.ts';
import { type Pulse, pulseAt } from '../../numerics/pulse.ts';
import type { Axis } from '../../numerics/axis.ts';

/** A plane wave: unit vector of its propagation, complex amplitudes of E along x, y, z, V/m. */
export interface Wave {
  towards: [number, number, number];
  re: [number, number, number];
  im: [number, number, number];
}

/** Nodes of the total-field box, lowest and highest on each axis. */
export interface TotalBox {
  lo: [number, number, number];
  hi: [number, number, number];
}

/** A tone's factor along one axis, at nodes and between them; index 0 is the node before the box. */
interface AxisTone {
  node: Float64Array;
  nodeIm: Float64Array;
  half: Float64Array;
  halfIm: Float64Array;
}

export interface WavePlan extends Injection {
  /** Seconds by which the wave meets the box's first corner before it passes the origin. */
  delay: number;
}

/** Level of tones that are left out, against the strongest. */
const faint = 1e-7;
/** Samples of the pulse in a period of its highest frequency, by which its tones are integrated. */
const fineness = 40;
/** Tones go up to so many times the pulse's highest frequency, beyond which it has faded. */
const reach = 1.6;

/** A tone of the pulse: angular frequency, rad/s, and its amplitude. */
interface Tone {
  omega: number;
  amplitude: Complex;
}

/** Tones of a pulse that is repeated after a window, s; what is faint is left out. */
function tonesOf(pulse: Pulse, window: number): Tone[] {
  const found: Tone[] = [];
  const samples = fineness * Math.ceil(window * pulse.highest);
  for (let m = 1; m / window < reach * pulse.highest; m++) {
    const omega = (2 * Math.PI * m) / window;
    let [re, im] = [0, 0];
    for (let s = 0; s < samples; s++) {
      const t = ((s + 0.5) * pulse.length) / samples;
      const p = pulseAt(pulse, t);
      re += p * Math.cos(omega * t);
      im -= p * Math.sin(omega * t);
    }
    found.push({ omega, amplitude: scale((2 * pulse.length) / samples / window, [re, im]) });
  }
  const strongest = Math.max(...found.map((t) => abs(t.amplitude)));
  return found.filter((t) => abs(t.amplitude) > faint * strongest);
}

/** Each tone's wave along one axis, as the kernel reads them: padded to groups of four, real parts and imaginary parts of a tone after each other. */
function tableOf(waves: readonly AxisTone[], nodes: number): WavePlan['tables'][number] {
  const length = (nodes + 3) & ~3;
  const pack = (re: keyof AxisTone, im: keyof AxisTone): Float32Array => {
    const out = new Float32Array(2 * length * waves.length);
    waves.forEach((w, n) => {
      out.set(w[re], 2 * n * length);
      out.set(w[im], (2 * n + 1) * length);
    });
    return out;
  };
  return { node: pack('node', 'nodeIm'), half: pack('half', 'halfIm'), length };
}

/** cos and sin of each tone at each step, `late` of a step after it. */
function turning(tones: readonly Tone[], steps: number, dt: number, late: number): Float32Array {
  const out = new Float32Array(steps * tones.length * 2);
  for (let n = 0; n < steps; n++)
    tones.forEach(({ omega }, m) => {
      const angle = omega * (n + late) * dt;
      out[2 * (n * tones.length + m)] = Math.cos(angle);
      out[2 * (n * tones.length + m) + 1] = Math.sin(angle);
    });
  return out;
}

/** What is added to `field` (0..5) at `index` of the normal axis on a face of the box: `factor` times `source` there, which lies at `depth`. */
interface Face {
  normal: Axis;
  field: number;
  index: number;
  source: number;
  depth: { half: boolean; index: number };
  factor: number;
}

/** All faces of a box, for E tangential to them and H half a cell outside. */
function facesOf({ lines }: Grid, box: TotalBox, dt: number): Face[] {
  const faces: Face[] = [];
  for (const normal of [0, 1, 2] as const) {
    const x = lines[normal];
    for (const side of [-1, 1] as const) {
      const p = side < 0 ? box.lo[normal] : box.hi[normal];
      const beyond = side < 0 ? p - 1 : p;
      const dual = (x[p + 1] - x[p - 1]) / 2;
      const step = x[beyond + 1] - x[beyond];
      for (const e of [(normal + 1) % 3, (normal + 2) % 3] as Axis[]) {
        const o = (3 - normal - e) as Axis;
        const sign = (e + 1) % 3 === normal ? side : -side;
        // E_e on the box is driven by H_o half a cell outside: that is a scattered field and lacks the incident one.
        faces.push({ normal, field: e, index: p, source: 3 + o, depth: { half: true, index: beyond }, factor: (sign * c0 * dt) / dual });
        // H_o outside is driven by E_e on the box, which holds the incident field too much.
        faces.push({ normal, field: 3 + o, index: beyond, source: e, depth: { half: false, index: p }, factor: (sign * c0 * dt) / step });
      }
    }
  }
  return faces;
}

/** Rows of samples of a face, along the first of its axes: `amplitudes` of the source field for each tone at the box's first node, and its waves along the axes. */
function rowsOf(
  { normal, field, index, source, depth, factor }: Face,
  box: TotalBox,
  amplitudes: readonly Complex[],
  waves: readonly AxisTone[][],
): InjectedRow[] {
  const [axis, other] = [0, 1, 2].filter((a) => a !== normal) as Axis[];
  const isHalf = (a: number): boolean => (source < 3 ? a === source : a !== source - 3);
  const count = (a: number): number => box.hi[a] - box.lo[a] + (isHalf(a) ? 0 : 1);
  const pick = (w: AxisTone, half: boolean, i: number): Complex => (half ? [w.half[i], w.halfIm[i]] : [w.node[i], w.nodeIm[i]]);
  return Array.from({ length: count(other) }, (_, o): InjectedRow => {
    const at: [number, number, number] = [0, 0, 0];
    at[normal] = index;
    at[axis] = box.lo[axis];
    at[other] = box.lo[other] + o;
    const factors = new Float32Array(2 * waves.length);
    waves.forEach((w, n) => {
      const inwards = mul(amplitudes[n], pick(w[normal], depth.half, depth.index - box.lo[normal] + 1));
      factors.set(scale(factor, mul(inwards, pick(w[other], isHalf(other), o + 1))), 2 * n);
    });
    return { field, at, axis, count: count(axis), half: isHalf(axis), from: 1, factors };
  });
}

/**
 * The plane wave of the grid itself. On a graded Cartesian grid the discrete equations are separable: with discrete waves X, Y, Z
 * of wave numbers kx, ky, kz, and their differences X~ = (j / kx) dX between the nodes, E_x = a X~ Y Z and so on solve them exactly
 * if kx^2 + ky^2 + kz^2 = (2 sin(w dt / 2) / c dt)^2 and E is across k; so no field leaks out of the total-field box (the idea of
 * J. Schneider and K. Abdijalilov, IEEE Trans. Antennas Propag. 54, 2531, 2006, carried to graded grids). The pulse is a sum of
 * tones that repeats only after it has left. `dt` in seconds.
 */
export function planWave(grid: Grid, dt: number, box: TotalBox, wave: Wave, pulse: Pulse): WavePlan {
  const { lines } = grid;
  const corner = (ahead: boolean): number[] =>
    [0, 1, 2].map((a) => (wave.towards[a] >= 0 === ahead ? lines[a][box.hi[a] + 1] : lines[a][box.lo[a] - 1]));
  // The corner that the wave meets first, and how long it takes from there to a point.
  const first = corner(false);
  const delayOf = (p: readonly number[]): number => [0, 1, 2].reduce((s, a) => s + (wave.towards[a] * (p[a] - first[a])) / c0, 0);
  const window = pulse.length + 1.1 * delayOf(corner(true)) + 2 / pulse.centre;
  const steps = Math.ceil(window / dt);
  const tones = tonesOf(pulse, window);
  const waves = tones.map(({ omega }) => {
    const k = ((2 / dt) * Math.sin((omega * dt) / 2)) / c0;
    return [0, 1, 2].map((a) => axisTone(lines[a], box.lo[a] - 1, box.hi[a] + 1, k * wave.towards[a]));
  });
  // H (times the impedance of free space) = k x E / |k|; each tone is late at the node where the tables begin.
  const [re, im] = [wave.re, wave.im].map((e) => [...e, ...cross(wave.towards, e)]);
  const offset = delayOf([0, 1, 2].map((a) => lines[a][box.lo[a] - 1]));
  const late = tones.map(({ omega, amplitude }) => mul(amplitude, polar(1, -omega * offset)));
  const rows = facesOf(grid, box, dt).flatMap((face) => {
    const own: Complex = [re[face.source], im[face.source]];
    return rowsOf(face, box, late.map((z) => mul(own, z)), waves); // prettier-ignore
  });
  const tables = ([0, 1, 2] as const).map((a) => tableOf(waves.map((w) => w[a]), box.hi[a] - box.lo[a] + 3)); // prettier-ignore
  const turn = (part: number): Float32Array => turning(tones, steps, dt, part);
  return { tones: tones.length, steps, tables, rows, turnE: turn(0.5), turnH: turn(1), delay: delayOf([0, 0, 0]) };
}

/** The discrete wave exp(-j k x) along a graded axis, from node `lo` (where it is 1) to `hi`, and its differences between nodes. */
function axisTone(x: Float64Array, lo: number, hi: number, k: number): AxisTone {
  const n = hi - lo + 1;
  const out: AxisTone = { node: new Float64Array(n), nodeIm: new Float64Array(n), half: new Float64Array(n), halfIm: new Float64Array(n) };
  // Begin as in a uniform grid of the first cell.
  const angle = Math.asin(Math.max(-1, Math.min(1, (k * (x[lo + 1] - x[lo])) / 2)));
  out.node[0] = 1;
  out.half[0] = Math.cos(angle);
  out.halfIm[0] = -Math.sin(angle);
  for (let i = 1; i < n; i++) {
    const step = x[lo + i] - x[lo + i - 1];
    // X+ = X - j k h X~, then X~+ = X~ - j k d X.
    out.node[i] = out.node[i - 1] + k * step * out.halfIm[i - 1];
    out.nodeIm[i] = out.nodeIm[i - 1] - k * step * out.half[i - 1];
    if (i + 1 === n) break;
    const dual = (x[lo + i + 1] - x[lo + i - 1]) / 2;
    out.half[i] = out.half[i - 1] + k * dual * out.nodeIm[i];
    out.halfIm[i] = out.halfIm[i - 1] - k * dual * out.node[i];
  }
  return out;
}
