import type { Point3 } from '@jadebell/core/document';
import type { Exact } from '@jadebell/core/geometry';
import { cellCount } from '@jadebell/core/grid';
import { c0, eta0, mu0, type Axis } from '@jadebell/core/numerics';
import type { GridScene } from '@jadebell/core/scene';
import type { SolverHost } from '@jadebell/core/solvers';
import { filament, plainBody, plainScene, uniformGrid } from './bench.ts';
import { type Case, percent, type Row } from './case.ts';
import { bisect, decay, hannPower, peakNear, ringing } from './cavity.ts';
const metal = { name: 'metal', kind: 'conductor' } as const;
const poor = { ...metal, conductivity: 1e4 } as const;
const resistance = (f: number): number => Math.sqrt((Math.PI * f * mu0) / poor.conductivity);

interface Cavity {
  /** Inside of the metal. */
  hollow: Exact;
  /** A dielectric in it and its permittivity. */
  filling?: { shape: Exact; permittivity: number };
  /** Half the side of the block of metal, metres, by axis. */
  half: Point3;
  /** Where the probe stands, metres, and its axis. */
  probe: { at: Point3; axis: Axis };
  expected: number;
  /** Quality factor; absent: perfect metal. */
  q?: number;
}

/** Resonance of a cavity in a block of metal on a uniform grid of about `step`, which is off centre by no simple part of a cell. */
async function resonance(host: SolverHost, c: Cavity, step: number): Promise<{ f: number; q: number; cells: number; seconds: number }> {
  const started = host.now();
  const cells = c.half.map((h) => Math.ceil((2 * h) / step) + 2) as Point3;
  const min = cells.map((n, a) => -step * (n / 2 - [0.31, 0.17, 0.43][a])) as Point3;
  const max = min.map((x, a) => x + step * cells[a]) as Point3;
  const grid = uniformGrid(min, max, cells, 0);
  grid.outerCells = [0, 0, 0, 0, 0, 0];
  const near = (a: number, x: number): number =>
    grid.lines[a].reduce((best, v) => (Math.abs(v - x) < Math.abs(best - x) ? v : best), grid.lines[a][0]);
  const from = c.probe.at.map((x, a) => near(a, x)) as Point3;
  const block = { form: 'box' as const, min: min.map((x) => x - step) as Point3, max: max.map((x) => x + step) as Point3 };
  const walls = plainBody('walls', 0, c.q ? poor : metal, { form: 'cut', from: block, tools: [c.hollow] });
  const filling = c.filling && plainBody('filling', 1, { name: 'filling', kind: 'dielectric', permittivity: c.filling.permittivity, lossTangent: 0 }, c.filling.shape); // prettier-ignore
  const scene: GridScene = plainScene({
    bodies: filling ? [walls, filling] : [walls],
    ports: [filament('probe', from, c.probe.axis, step, 1e6)],
    min,
    max,
    band: { from: 0.8 * c.expected, to: 1.2 * c.expected, points: 2 },
    boundaries: Array<'electric'>(6).fill('electric'),
  });
  const { signal, dt } = await ringing(host, scene, grid, c.expected, c.q ? 3 * Math.min(c.q, 150) : 150);
  const ring = c.q ? decay(signal, dt, c.expected) : { f: peakNear(hannPower(signal, dt), c.expected), q: Infinity };
  return { ...ring, cells: cellCount(grid), seconds: host.now() - started };
}

/** Spherical Bessel functions of order one, times x, and their derivatives: x j1(x) and x y1(x). */
const j1 = (x: number): [number, number] => [Math.sin(x) / x - Math.cos(x), Math.cos(x) / x - Math.sin(x) / (x * x) + Math.sin(x)];
const y1 = (x: number): [number, number] => [-Math.cos(x) / x - Math.sin(x), Math.sin(x) / x + Math.cos(x) / (x * x) - Math.cos(x)];

/** TM011 of a hollow sphere of radius a filled up to b with permittivity er: Harrington, Time-Harmonic Electromagnetic Fields, sec. 6-2. */
function layeredSphere(a: number, b: number, er: number, low: number, high: number): number {
  return bisect(
    (f) => {
      const k = (2 * Math.PI * f) / c0;
      const n = Math.sqrt(er);
      // Outside x j1 + t x y1, with no tangential E at a: the derivative vanishes there.
      const t = -j1(k * a)[1] / y1(k * a)[1];
      const [p, dp] = [j1(k * b)[0] + t * y1(k * b)[0], j1(k * b)[1] + t * y1(k * b)[1]];
      const [q, dq] = j1(n * k * b);
      return (dp * q * n) - dq * p; // prettier-ignore
    },
    low,
    high,
  );
}

const radius = 20e-3;
const ball = (r: number): Exact => ({ form: 'ball', centre: [0, 0, 0], radii: [r, r, r] });

/** A round and a spherical cavity in metal that no grid line follows, with and without a dielectric ball: error and order. */
export const curved: Case = {
  name: 'curved',
  title: 'Curved metal and dielectric',
  slow: true,
  async run(host) {
    const rows: Row[] = [];
    const tube = (axis: Axis): Cavity => {
      const base: Point3 = [0, 0, 0];
      base[axis] = -7e-3;
      const half: Point3 = [radius, radius, radius];
      half[axis] = 7e-3;
      const at: Point3 = [1e-3, 1e-3, 1e-3];
      at[axis] = 0;
      return {
        hollow: { form: 'cylinder', axis, base, height: 14e-3, radius },
        half,
        probe: { at, axis },
        expected: (2.404825557695773 * c0) / (2 * Math.PI * radius),
      };
    };
    const sphere: Cavity = {
      hollow: ball(radius),
      half: [radius, radius, radius],
      probe: { at: [0, 0, 0], axis: 1 },
      expected: (2.743707269992265 * c0) / (2 * Math.PI * radius),
    };
    const loaded: Cavity = {
      ...sphere,
      filling: { shape: ball(11e-3), permittivity: 4 },
      expected: layeredSphere(radius, 11e-3, 4, 3.5e9, 6.4e9),
    };
    const cases: [string, string, Cavity][] = [
      ['round cavity along z, TM010', 'zero of J0, 2.4048 (Pozar, Microwave Engineering, sec. 6.4)', tube(2)],
      ['round cavity along x, TM010', 'zero of J0, 2.4048 (Pozar, Microwave Engineering, sec. 6.4)', tube(0)],
      ['spherical cavity, TM011', 'ka = 2.7437 (Harrington, Time-Harmonic Electromagnetic Fields, sec. 6-2)', sphere],
      ['the same with a ball of permittivity 4', 'transcendental equation of the layered sphere (Harrington, sec. 6-2)', loaded],
    ];
    for (const [name, source, c] of cases) {
      const errors: number[] = [];
      const steps = [4e-3, 2e-3, 1e-3];
      for (const step of steps) {
        const got = await resonance(host, c, step);
        errors.push(percent(got.f, c.expected));
        rows.push({
          quantity: `${name}, ${radius / step} cells to the radius`,
          reference: `${(c.expected / 1e9).toFixed(4)} GHz`,
          source,
          computed: `${(got.f / 1e9).toFixed(4)} GHz`,
          error: errors[errors.length - 1],
          allowed: step > 3e-3 ? 1 : step > 1.5e-3 ? 0.3 : 0.1,
          unit: '%',
          cells: got.cells,
          seconds: got.seconds,
        });
      }
      const order = Math.log2(errors[1] / errors[2]);
      rows.push({
        ...rows[rows.length - 1],
        quantity: `${name}, order of convergence of the last two`,
        reference: '2',
        source: 'conformal scheme',
        computed: order.toFixed(2),
        error: Math.max(0, percent(order, 2) * Math.sign(2 - order)),
        allowed: 20,
      });
    }
    // Losses of curved walls: the cut of each face carries the metal's voltage.
    const qTube = (2.404825557695773 * eta0) / (2 * resistance(tube(2).expected) * (1 + radius / 14e-3));
    const qSphere = ((eta0 / resistance(sphere.expected)) * (2.743707269992265 - 2 / 2.743707269992265)) / 2;
    for (const [name, source, c, q] of [
      ['round cavity along z of 1e4 S/m', 'Pozar, Microwave Engineering, eq. 6.57', tube(2), qTube],
      ['spherical cavity of 1e4 S/m', 'Harrington, Time-Harmonic Electromagnetic Fields, eq. 6-33', sphere, qSphere],
    ] as [string, string, Cavity, number][]) {
      const got = await resonance(host, { ...c, expected: c.expected * (1 - 1 / (2 * q)), q }, 2e-3);
      rows.push({
        quantity: `Q, ${name}, 10 cells to the radius`,
        reference: q.toFixed(1),
        source,
        computed: got.q.toFixed(1),
        error: percent(got.q, q),
        allowed: 5,
        unit: '%',
        cells: got.cells,
        seconds: got.seconds,
      });
    }
    return rows;
  },
};
