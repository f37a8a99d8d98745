import { abs2, type Complex, div } from '../numerics/complex.ts';
import { rightDivide } from '../numerics/complexSolve.ts';
import type { IncidentWave, ResultArray } from './types.ts';

/**
 * Impedance matrix, ohms, [n, channels, channels, 2] from S of power waves on references with positive real part (K. Kurokawa, IEEE Trans.
 * MTT-13, 194, 1965): Z = F^-1 (1 - S)^-1 (S G + G*) F with F = 1 / (2 sqrt(Re z)). `kind` Y gives its inverse, siemens. Where the matrix does
 * not exist, as Z of a series element, its values are NaN. Null where S is not square or a reference is unknown.
 */
export function immittanceMatrix(s: ResultArray, references: readonly (Complex | null)[], kind: 'Z' | 'Y'): ResultArray | null {
  const [points, n, m] = s.shape;
  if (n !== m || references.length !== n || references.some((z) => !z || !(z[0] > 0))) return null;
  const size = 2 * n * n;
  const data = new Float64Array(s.data.length);
  const volts = new Float64Array(size);
  const amps = new Float64Array(size);
  for (let f = 0; f < points; f++) {
    // Columns: voltages (z* a + z b) / sqrt(Re z) and currents (a - b) / sqrt(Re z) for each wave a in turn.
    for (let i = 0; i < n; i++) {
      const [re, im] = references[i]!;
      const root = Math.sqrt(re);
      for (let j = 0; j < n; j++) {
        const at = 2 * (i * n + j);
        const [x, y] = [s.data[f * size + at], s.data[f * size + at + 1]];
        const own = i === j ? 1 : 0;
        volts[at] = (re * own + re * x - im * y) / root;
        volts[at + 1] = (-im * own + re * y + im * x) / root;
        amps[at] = (own - x) / root;
        amps[at + 1] = -y / root;
      }
    }
    const out = kind === 'Z' ? rightDivide(volts, amps, n, n) : rightDivide(amps, volts, n, n);
    if (out) data.set(out, f * size);
    else data.fill(NaN, f * size, (f + 1) * size);
  }
  return { shape: s.shape.slice(), data };
}

/**
 * S at other reference planes: a positive shift (metres) moves the channel's plane into the structure, where the line's propagation constant is
 * alpha + j beta: S_ij times exp(gamma_i l_i + gamma_j l_j). `gamma(f, channel)` gives [alpha, beta] in 1/m; shifts of 0 need none. Columns are
 * the channels `excitations`.
 */
export function shifted(
  s: ResultArray,
  shifts: readonly number[],
  gamma: (f: number, channel: number) => readonly [alpha: number, beta: number],
  excitations: readonly number[],
): ResultArray {
  if (shifts.every((l) => l === 0)) return s;
  const [points, n, m] = s.shape;
  const data = Float64Array.from(s.data);
  for (let f = 0; f < points; f++) {
    const exponents = shifts.map((l, c): [number, number] => {
      if (l === 0) return [0, 0];
      const [alpha, beta] = gamma(f, c);
      return [alpha * l, beta * l];
    });
    for (let i = 0; i < n; i++)
      for (let j = 0; j < m; j++) {
        const [p, q] = [exponents[i], exponents[excitations[j]]];
        const grow = Math.exp(p[0] + q[0]);
        const turn = p[1] + q[1];
        const at = 2 * ((f * n + i) * m + j);
        const [c, d] = [grow * Math.cos(turn), grow * Math.sin(turn)];
        const [x, y] = [s.data[at], s.data[at + 1]];
        data[at] = c * x - d * y;
        data[at + 1] = c * y + d * x;
      }
  }
  return { shape: s.shape.slice(), data };
}

/** Wave out of channel `to` over the wave into it while all of `waves` run in together, over the band. */
export function activeReflection(s: ResultArray, channel: number, waves: readonly IncidentWave[], own: number): Complex[] {
  const [points, n, m] = s.shape;
  const into = waves.find((w) => w.column === own);
  return Array.from({ length: points }, (_, f) => {
    if (!into || abs2(into.amplitude) === 0) return [NaN, NaN];
    let [re, im] = [0, 0];
    for (const { column, amplitude } of waves) {
      const at = 2 * ((f * n + channel) * m + column);
      re += s.data[at] * amplitude[0] - s.data[at + 1] * amplitude[1];
      im += s.data[at] * amplitude[1] + s.data[at + 1] * amplitude[0];
    }
    return div([re, im], into.amplitude);
  });
}
