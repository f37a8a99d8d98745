import type { Point3 } from '@jadebell/core/document';
import { c0 } from '@jadebell/core/numerics';
import { decibel, type ResultSet, sCurve } from '@jadebell/core/results';
import type { SceneGuide } from '@jadebell/core/scene';
import { type SolverHost, solvers } from '@jadebell/core/solvers';
import { plainBody, plainScene } from './bench.ts';
import { type Case, percent, type Row } from './case.ts';
import { dielectric, sectionAcross, solved } from './modes/parts.ts';
import { slabOnFloor } from './sections.ts';

/** Two ports across the ends of a box that runs along z. */
const ends = ([w, h, length]: Point3, modes: number): SceneGuide[] =>
  ([1, -1] as const).map((into, i) => ({
    name: `port${i + 1}`,
    order: i,
    normal: 2,
    into,
    min: [-w / 2, 0, i * length] as Point3,
    max: [w / 2, h, i * length] as Point3,
    modes,
    shift: 0,
    inhomogeneous: true,
  }));

/** Worst reflection and transmission in dB, and phase of the transmission unwrapped by the one expected. */
function through(
  result: ResultSet,
  length: number,
  betas: readonly number[],
  row: (f: number) => boolean,
): { back: number; loss: number; phase: number } {
  const s11 = sCurve(result.arrays.s, 0, 0);
  const s21 = sCurve(result.arrays.s, 1, 0);
  let [back, loss, phase] = [-Infinity, 0, 0];
  betas.forEach((beta, f) => {
    if (!row(f)) return;
    back = Math.max(back, decibel(s11[f]));
    loss = Math.max(loss, Math.abs(decibel(s21[f])));
    const turn = Math.atan2(-s21[f][1], s21[f][0]) - beta * length;
    const found = beta * length + Math.atan2(Math.sin(turn), Math.cos(turn));
    phase = Math.max(phase, percent(found, beta * length));
  });
  return { back, loss, phase };
}

const rowsOf = (name: string, t: { back: number; loss: number; phase: number }, source: string, limits: [number, number, number], cells: number, seconds: number): Row[] => [
  { quantity: `${name}: largest |S11|`, reference: `below ${limits[0]} dB`, source: 'no reflection', computed: `${t.back.toFixed(1)} dB`, error: t.back, allowed: limits[0], unit: 'dB', cells, seconds },
  { quantity: `${name}: |S21|`, reference: '0 dB', source: 'no loss', computed: `${t.loss.toFixed(4)} dB off`, error: t.loss, allowed: limits[1], unit: 'dB', cells, seconds },
  { quantity: `${name}: phase of S21`, reference: 'beta times length', source, computed: `${t.phase.toFixed(3)} % off`, error: t.phase, allowed: limits[2], unit: '%', cells, seconds },
]; // prettier-ignore

/** A guide with a slab on its floor between two guided ports that see both media. */
export const mixedGuide: Case = {
  name: 'mixed-guide',
  title: 'Guide 20 x 10 mm with a slab of permittivity 4 on its floor, 30 mm between guided ports',
  slow: true,
  async run(host: SolverHost) {
    const [a, b, d, er, length] = [20e-3, 10e-3, 4e-3, 4, 30e-3];
    const rows: Row[] = [];
    const started = host.now();
    const scene = plainScene({
      bodies: [plainBody('slab', 0, dielectric(er), { form: 'box', min: [-a, 0, -1], max: [a, d, 1] })],
      ports: [],
      guides: ends([a, b, length], 1),
      min: [-a / 2, 0, 0],
      max: [a / 2, b, length],
      band: { from: 7e9, to: 9e9, points: 11 },
      boundaries: ['electric', 'electric', 'electric', 'electric', 'open', 'open'],
      details: { cellsPerWavelength: 40, stopAt: 1e-6 },
    });
    const result = await solvers.fdtd.solve(scene, { host });
    const f = result.arrays.frequency.data;
    const betas = Array.from(f, (x) => slabOnFloor(a, b, d, er, (2 * Math.PI * x) / c0));
    const cells = result.meta.evidence.cells.reduce((p, n) => p * n, 1);
    rows.push(
      ...rowsOf(
        '7 to 9 GHz',
        through(result, length, betas, () => true),
        'transverse resonance (Collin, ch. 6)',
        [-50, 0.01, 0.3],
        cells,
        host.now() - started,
      ),
    );
    return rows;
  },
};

/** A microstrip in a box between guided ports. */
export const microstripPorts: Case = {
  name: 'microstrip-ports',
  title: 'Microstrip, 1.8 mm on 0.8 mm of permittivity 3.5, boxed, 20 mm between guided ports',
  slow: false,
  async run(host: SolverHost) {
    const [w, h, er, length] = [1.8e-3, 0.8e-3, 3.5, 20e-3];
    const [width, height] = [10e-3, 6e-3];
    const strip = plainBody('strip', 1, { name: 'metal', kind: 'conductor' }, { form: 'sheet', normal: 1, offset: h, loops: [[[-0.05, -w / 2], [0.05, -w / 2], [0.05, w / 2], [-0.05, w / 2]]] }); // prettier-ignore
    const bodies = [plainBody('board', 0, dielectric(er), { form: 'box', min: [-0.05, 0, -0.05], max: [0.05, h, 0.05] }), strip];
    const started = host.now();
    const scene = plainScene({
      bodies,
      ports: [],
      guides: ends([width, height, length], 1),
      min: [-width / 2, 0, 0],
      max: [width / 2, height, length],
      band: { from: 1e9, to: 12e9, points: 23 },
      boundaries: ['electric', 'electric', 'electric', 'electric', 'open', 'open'],
      details: { cellsPerWavelength: 30, stopAt: 1e-6 },
    });
    const result = await solvers.fdtd.solve(scene, { host });
    const f = result.arrays.frequency.data;
    const cells = result.meta.evidence.cells.reduce((p, n) => p * n, 1);
    const seconds = host.now() - started;
    // The same line solved by itself on a finer grid.
    const lines = await Promise.all(
      [2e9, 6e9, 12e9].map(
        (frequency) =>
        solved(host, bodies, sectionAcross({ min: [-width / 2, 0], max: [width / 2, height], frequency, grid: { perWavelength: 40 }, boxes: [{ min: [-1.5e-3, 0], max: [1.5e-3, 1.6e-3], cell: 0.05e-3 }] })), // prettier-ignore
      ),
    );
    const ks = [2e9, 6e9, 12e9];
    const index = (x: number): number => ks.reduce((sum, p, i) => sum + lines[i].figures[0].index[0] * ks.reduce((m, q, j) => (i === j ? m : (m * (x - q)) / (p - q)), 1), 0); // prettier-ignore
    const betas = Array.from(f, (x) => (2 * Math.PI * x * index(x)) / c0);
    return [
      ...rowsOf(
        '1 to 12 GHz',
        through(result, length, betas, () => true),
        'the line’s section on a finer grid',
        [-40, 0.02, 1],
        cells,
        seconds,
      ),
      {
        quantity: 'impedance of the port’s mode, 2P/I^2',
        reference: `${lines[1].figures[0].line!.powerCurrent.toFixed(3)} ohm`,
        source: 'the line’s section on a finer grid',
        computed: `${result.meta.ports[0].impedance!.toFixed(3)} ohm`,
        error: percent(result.meta.ports[0].impedance!, lines[1].figures[0].line!.powerCurrent),
        allowed: 2,
        unit: '%',
        cells,
        seconds,
      },
    ];
  },
};
