import { abs, arg, c0, type Complex } from '@jadebell/core/numerics';
import { decibel, sCurve } from '@jadebell/core/results';
import { solvers, type SolverHost } from '@jadebell/core/solvers';
import { halved, plainScene } from './bench.ts';
import { type Case, percent, type Row } from './case.ts';
import { airCoax } from './coax.ts';

const [a, b, length] = [15.8e-3, 7.9e-3, 12e-3];

/** Parts of structures between magnetic planes of symmetry against the closed form of the whole. */
export const symmetry: Case = {
  name: 'symmetry',
  title: 'Planes of symmetry: a quarter of a coax, half a guide',
  slow: false,
  async run(host: SolverHost) {
    const rows: Row[] = [];
    let started = host.now();
    const coax = await solvers.fdtd.solve(halved(halved(airCoax(2, 6), 0, 0), 1, 0), { host });
    const common = { cells: coax.meta.evidence.cells.reduce((p, n) => p * n, 1), seconds: host.now() - started };
    const impedance = coax.meta.ports[0].impedance!;
    rows.push({ ...common, quantity: 'quarter of a coax: impedance of the whole', reference: '50.00 ohm', source: 'eta0 / (2 pi) ln(b / a)', computed: `${impedance.toFixed(3)} ohm`, error: percent(impedance, 50), allowed: 0.5, unit: '%' }); // prettier-ignore
    const echo = Math.max(...sCurve(coax.arrays.s, 0, 0).map(decibel));
    rows.push({ ...common, quantity: 'quarter of a coax: largest |S11|', reference: 'none', source: 'uniform line', computed: `${echo.toFixed(1)} dB`, error: echo, allowed: -40, unit: 'dB' }); // prettier-ignore

    // Of the guide's modes the plane keeps TE10 and next TE11 and TM11, of one cutoff; TE20 and TE01 cannot be.
    started = host.now();
    const end = (i: number): { min: [number, number, number]; max: [number, number, number] } => ({
      min: [i * length, 0, 0],
      max: [i * length, a, b],
    });
    const whole = plainScene({
      bodies: [],
      ports: [],
      guides: ([1, -1] as const).map((into, i) => ({ name: `port${i + 1}`, order: i, normal: 0, into, ...end(i), modes: 2, shift: 0 })),
      min: [0, 0, 0],
      max: [length, a, b],
      band: { from: 12e9, to: 15e9, points: 7 },
      boundaries: Array<'electric'>(6).fill('electric'),
      details: { cellsPerWavelength: 40, stopAt: 1e-6 },
    });
    const guide = await solvers.fdtd.solve(halved(whole, 1, a / 2), { host });
    const same = { cells: guide.meta.evidence.cells.reduce((p, n) => p * n, 1), seconds: host.now() - started, source: 'closed form (Pozar, Microwave Engineering, ch. 3)' }; // prettier-ignore
    const at = 3;
    const f = guide.arrays.frequency.data[at];
    const beta2 = (p: number, q: number): number => ((2 * Math.PI * f) / c0) ** 2 - ((p * Math.PI) / a) ** 2 - ((q * Math.PI) / b) ** 2;
    const through = (mode: number): Complex => sCurve(guide.arrays.s, 2 + mode, mode)[at];
    const phase = (s: Complex, near: number): number => {
      const own = -arg(s);
      return (own + 2 * Math.PI * Math.round((near * length - own) / (2 * Math.PI))) / length;
    };
    const beta = Math.sqrt(beta2(1, 0));
    const got = phase(through(0), beta);
    rows.push({ ...same, quantity: `half a guide: phase constant of TE10 at ${f / 1e9} GHz`, reference: `${beta.toFixed(3)} 1/m`, computed: `${got.toFixed(3)} 1/m`, error: percent(got, beta), allowed: 0.05, unit: '%' }); // prettier-ignore
    const alpha = Math.sqrt(-beta2(1, 1));
    const fall = -Math.log(abs(through(1))) / length;
    rows.push({ ...same, quantity: 'half a guide: attenuation of TE11 or TM11 below cutoff', reference: `${alpha.toFixed(2)} 1/m`, computed: `${fall.toFixed(2)} 1/m`, error: percent(fall, alpha), allowed: 1, unit: '%' }); // prettier-ignore
    return rows;
  },
};
