import { type Complex, div, mul } from '@jadebell/core/numerics';
import type { Point3 } from '@jadebell/core/document';
import type { ResultSet } from '@jadebell/core/results';
import type { WiresScene, PlacedRecorder, SceneWave, SceneWire, WireScene } from '@jadebell/core/scene';
import { solvers, type SolverHost } from '@jadebell/core/solvers';
import type { WireEvidence } from '@jadebell/core/methods';

/** A perfect wire through points. */
export const plainWire = (name: string, points: Point3[], radius: number, closed = false): SceneWire => ({
  name,
  line: name,
  points,
  closed,
  radius,
  metal: null,
  coat: null,
});

/** A straight wire along z about a point. */
export const upright = (name: string, length: number, radius: number, [x, y, z]: Point3 = [0, 0, 0]): SceneWire =>
  plainWire(name, [[x, y, z - length / 2], [x, y, z + length / 2]], radius); // prettier-ignore

interface Asked {
  wires: SceneWire[];
  /** Wire and metres along it of each port; 50 ohm. */
  ports?: [wire: number, at: number][];
  frequency: number;
  /** Segments for a wavelength; absent: those of the accuracy. */
  density?: number;
  accuracy?: WiresScene['accuracy'];
  recorders?: PlacedRecorder[];
  wave?: SceneWave;
  more?: Partial<WireScene>;
  band?: WiresScene['band'];
}

/** A scene of wires without expressions. */
export function wireScene({ wires, ports = [], frequency, density, accuracy = 'normal', recorders = [], wave, more, band }: Asked): WiresScene {
  const wl = 299792458 / frequency;
  return {
    solver: 'moment',
    wires: {
      wires,
      ports: ports.map(([wire, at], n) => ({ name: `p${n + 1}`, order: n, place: { wire, at }, resistance: 50, reactance: 0 })),
      loads: [],
      lines: [],
      probes: [],
      ground: null,
      ...more,
    },
    source: wave ?? null,
    excite: null,
    min: [-wl, -wl, -wl],
    max: [wl, wl, wl],
    band: band ?? { from: frequency, to: frequency * (1 + 1e-9), points: 2 },
    recorders,
    recordAt: recorders.length ? [frequency] : [],
    accuracy,
    details: density ? { segmentsPerWavelength: density } : {},
  };
}

export const solveWires = (scene: WiresScene, host: SolverHost): Promise<ResultSet<WireEvidence>> => solvers.moment.solve(scene, { host });

/** Impedance matrix at a frequency of the band, ohms, from S on 50 ohm: 50 (1 + S) (1 - S)^-1, of one or two ports. */
export function impedances({ arrays, meta }: ResultSet, f = 0): Complex[][] {
  const n = meta.ports.length;
  const s = (i: number, j: number): [number, number] => {
    const at = 2 * ((f * n + i) * n + j);
    return [arrays.s.data[at], arrays.s.data[at + 1]];
  };
  const z = (v: Complex): Complex => [50 * v[0], 50 * v[1]];
  const [a, b] = [s(0, 0), n > 1 ? s(0, 1) : ([0, 0] as Complex)];
  if (n === 1) return [[z(div([1 + a[0], a[1]], [1 - a[0], -a[1]]))]];
  const [c, d] = [s(1, 0), s(1, 1)];
  const bc = mul(b, c);
  const left: Complex = [1 - a[0], -a[1]];
  const right: Complex = [1 - d[0], -d[1]];
  const det = mul(left, right).map((x, i) => x - bc[i]) as Complex;
  const two = (x: Complex): Complex => z(div([2 * x[0], 2 * x[1]], det));
  const self = (p: Complex, q: Complex): Complex => z(div(mul([1 + p[0], p[1]], [1 - q[0], -q[1]]).map((x, i) => x + bc[i]) as Complex, det));
  return [[self(a, d), two(b)], [two(c), self(d, a)]]; // prettier-ignore
}

/** Frequency and wavelength of the cases. */
export const f = 300e6;
export const wl = 299792458 / f;

export const ohms = ([re, im]: readonly number[]): string => `${re.toFixed(2)} ${im < 0 ? '-' : '+'} j${Math.abs(im).toFixed(2)} ohm`;
/** Difference of complex numbers over the second, percent. */
export const away = (a: readonly number[], b: readonly number[]): number => (100 * Math.hypot(a[0] - b[0], a[1] - b[1])) / Math.hypot(b[0], b[1]);

/** A clock that begins now. */
export const started = (host: SolverHost): (() => number) => {
  const from = host.now();
  return () => host.now() - from;
};
