import type { SolverHost } from '@jadebell/core/solvers';
import type { Point3 } from '@jadebell/core/document';
import { cellCount, type Grid } from '@jadebell/core/grid';
import { c0, pulseAt, pulseFor, type Axis } from '@jadebell/core/numerics';
import { discretise, PortSpectrum, Simulation } from '@jadebell/core/solvers/fdtd/parts';
import { type Case, percent, type Row } from './case.ts';
import type { GridScene } from '@jadebell/core/scene';
import { filament, plainBody, plainScene } from './bench.ts';
const size: Point3 = [40e-3, 22e-3, 33e-3];
const er = 4;

/** Lines that grow gently across an axis, so that the graded update is tested too. */
export const gradedLines = (length: number, cells: number): Float64Array => {
  const raw = Float64Array.from({ length: cells + 1 }, (_, i) => i + 0.12 * Math.sin((2 * Math.PI * i) / cells));
  return raw.map((v) => (v / cells) * length);
};

/** Solves f(x) = 0 between a and b by bisection. */
export function bisect(f: (x: number) => number, a: number, b: number): number {
  let [lo, hi] = [a, b];
  const rising = f(hi) > f(lo);
  for (let i = 0; i < 200; i++) {
    const mid = (lo + hi) / 2;
    if (f(mid) > 0 === rising) hi = mid;
    else lo = mid;
  }
  return (lo + hi) / 2;
}

/** Rings the cavity with a weakly coupled filament and reads the spectral peak near `near`. */
async function resonance(
  host: SolverHost,
  cells: Point3,
  fill: { axis: Axis; depth: number } | null,
  port: { at: Point3; axis: Axis },
  near: number,
): Promise<{ f: number; cells: number }> {
  const lines = [0, 1, 2].map((a) => gradedLines(size[a], cells[a])) as unknown as Grid['lines'];
  const grid: Grid = { lines, outerCells: [0, 0, 0, 0, 0, 0], cellsPerWavelength: 0, unsnapped: [[], [], []] };
  const index = port.at.map((f, a) => Math.round(f * cells[a])) as Point3;
  const from = index.map((i, a) => lines[a][i]) as Point3;
  const length = lines[port.axis][index[port.axis] + 1] - lines[port.axis][index[port.axis]];
  const max: Point3 = [...size];
  if (fill) {
    max[fill.axis] = fill.depth;
    if (!lines[fill.axis].some((x) => Math.abs(x - fill.depth) < 1e-9)) grid.unsnapped[fill.axis].push(fill.depth);
  }
  const body = plainBody(
    'fill',
    0,
    { name: 'fill', kind: 'dielectric', permittivity: fill ? er : 1, lossTangent: 0 },
    { form: 'box', min: [0, 0, 0], max },
  );
  const scene = plainScene({
    bodies: [body],
    ports: [filament('probe', from, port.axis, length, 1e6)],
    min: [0, 0, 0],
    max: [...size],
    band: { from: 0.8 * near, to: 1.2 * near, points: 2 },
    boundaries: Array<'electric'>(6).fill('electric'),
  });
  const ring = await ringing(host, scene, grid, near, 120);
  const power = hannPower(ring.signal, ring.dt);
  return { f: peakNear(power, near), cells: cellCount(grid) };
}

/** The voltage of a scene's first port after a pulse around `near` has passed, over `periods` of it; the port takes next to nothing. */
export async function ringing(
  host: SolverHost,
  scene: GridScene,
  grid: Grid,
  near: number,
  periods: number,
): Promise<{ signal: Float64Array; dt: number }> {
  const discrete = discretise(scene, grid);
  const pulse = pulseFor(0.85 * near, 1.15 * near);
  const steps = Math.ceil((pulse.length + periods / near) / discrete.dt);
  const simulation = await Simulation.create(
    {
      discrete,
      waveform: (_, t) => pulseAt(pulse, t),
      resistance: () => scene.ports[0].resistance,
      maxSteps: steps,
      regions: [],
      frequencies: [],
      every: 1,
      lowest: near,
      boundaries: scene.boundaries,
    },
    host,
  );
  await simulation.advance(steps);
  const signal = simulation.voltage(0).slice(Math.ceil(pulse.length / discrete.dt));
  simulation.close();
  return { signal, dt: discrete.dt };
}

/** Power spectrum of a signal under a Hann window; its main lobe is symmetric, so a maximum stands at the resonance. */
export function hannPower(signal: Float64Array, dt: number): (f: number) => number {
  const windowed = signal.map((v, n) => v * (0.5 - 0.5 * Math.cos((2 * Math.PI * n) / signal.length)));
  return (f) => {
    const s = new PortSpectrum([f], dt, 0);
    s.update(windowed);
    return s.re[0] ** 2 + s.im[0] ** 2;
  };
}

/** Frequency of the highest value of a spectrum within 6 % of `near`. */
export function peakNear(power: (f: number) => number, near: number): number {
  let best = near;
  for (let width = 0.06 * near; width > 1e-7 * near; width /= 4) {
    const tries = Array.from({ length: 17 }, (_, i) => best + ((i - 8) / 8) * width);
    best = tries.reduce((m, f) => (power(f) > power(m) ? f : m), best);
  }
  return best;
}

/** Frequency near `near` and quality factor of a decaying signal, from two stretches of it under Hann windows. */
export function decay(signal: Float64Array, dt: number, near: number): { f: number; q: number } {
  const half = signal.length >> 1;
  const early = hannPower(signal.subarray(0, half), dt);
  const late = hannPower(signal.subarray(half, 2 * half), dt);
  const f = peakNear(early, near);
  return { f, q: (2 * Math.PI * f * half * dt) / Math.log(early(f) / late(f)) };
}

const row = (quantity: string, source: string, reference: number, got: { f: number; cells: number }, seconds: number, allowed: number): Row => ({
  quantity,
  reference: `${(reference / 1e9).toFixed(4)} GHz`,
  source,
  computed: `${(got.f / 1e9).toFixed(4)} GHz`,
  error: percent(got.f, reference),
  allowed,
  unit: '%',
  cells: got.cells,
  seconds,
});

/** Rectangular metal box, empty and part filled, on a graded grid that does not fit the filling. */
export const cavity: Case = {
  name: 'cavity',
  title: 'Rectangular cavity',
  slow: false,
  async run(host) {
    const rows: Row[] = [];
    const [a, , d] = size;
    const timed = async (work: () => ReturnType<typeof resonance>): Promise<[Awaited<ReturnType<typeof resonance>>, number]> => {
      const started = host.now();
      return [await work(), host.now() - started];
    };
    // Empty: f = c/2 sqrt((m/a)^2 + (n/b)^2 + (p/d)^2), E along y for the first.
    const empty = (c0 / 2) * Math.hypot(1 / a, 1 / d);
    const [coarse, t1] = await timed(() => resonance(host, [16, 10, 14], null, { at: [0.5, 0.5, 0.5], axis: 1 }, empty));
    rows.push(row('TE101, 16 cells along the longest side', 'closed form (Pozar, Microwave Engineering, 6.40)', empty, coarse, t1, 0.3));
    const [fine, t2] = await timed(() => resonance(host, [32, 20, 28], null, { at: [0.5, 0.5, 0.5], axis: 1 }, empty));
    rows.push(row('TE101, 32 cells', 'closed form (Pozar 6.40)', empty, fine, t2, 0.3));
    const order = Math.log2(percent(coarse.f, empty) / percent(fine.f, empty));
    rows.push({
      quantity: 'order of convergence between the two',
      reference: '2',
      source: 'Yee scheme',
      computed: order.toFixed(2),
      error: percent(order, 2),
      allowed: 15,
      unit: '%',
      cells: fine.cells,
      seconds: t1 + t2,
    });

    // Filled along z up to t, E along y (tangential to the face): k1 cot(k1 t) = -k2 cot(k2 (d - t)).
    const t = 0.37 * d;
    const kx = Math.PI / a;
    const tangential = (f: number): number => {
      const k = (2 * Math.PI * f) / c0;
      const k1 = Math.sqrt(er * k * k - kx * kx);
      const q = k * k - kx * kx;
      const k2 = Math.sqrt(Math.abs(q));
      const second = q > 0 ? k2 / Math.tan(k2 * (d - t)) : k2 / Math.tanh(k2 * (d - t));
      return k1 / Math.tan(k1 * t) + second;
    };
    const ft = bisect(tangential, 3.6e9, 5.2e9);
    const [along, t3] = await timed(() => resonance(host, [32, 20, 28], { axis: 2, depth: t }, { at: [0.5, 0.5, 0.3], axis: 1 }, ft));
    rows.push(
      row(
        'filled to 0.37 with er 4, E along the face, face between grid lines',
        'transcendental equation of the layered guide (Collin, Field Theory of Guided Waves, ch. 6)',
        ft,
        along,
        t3,
        0.3,
      ),
    );

    // Filled along y up to t, mode without z-variation and E mainly across the face (TM to y): (k1/e1) tan(k1 t) = -k2 tan(k2 (b - t)).
    const b = size[1];
    const s = 0.37 * b;
    const kt2 = (Math.PI / a) ** 2 + (Math.PI / d) ** 2;
    const across = (f: number): number => {
      const k = (2 * Math.PI * f) / c0;
      const q1 = er * k * k - kt2;
      const q2 = k * k - kt2;
      const part = (q: number, length: number): number =>
        q > 0 ? Math.sqrt(q) * Math.tan(Math.sqrt(q) * length) : -Math.sqrt(-q) * Math.tanh(Math.sqrt(-q) * length);
      return part(q1, s) / er + part(q2, b - s);
    };
    // The bracket ends below the pole of tan(k1 t) at 5.465 GHz.
    const fn = bisect(across, 4.2e9, 5.4e9);
    const [normal, t4] = await timed(() => resonance(host, [32, 20, 28], { axis: 1, depth: s }, { at: [0.5, 0.7, 0.5], axis: 1 }, fn));
    rows.push(
      row(
        'filled to 0.37 with er 4, E across the face, face between grid lines',
        'transcendental equation of the layered guide (Collin, ch. 6)',
        fn,
        normal,
        t4,
        0.3,
      ),
    );
    return rows;
  },
};
