import type { Point3 } from '@jadebell/core/document';
import { c0, eta0, gauss } from '@jadebell/core/numerics';
import { waveOf } from '@jadebell/core/scene';
import type { SolverHost } from '@jadebell/core/solvers';
import { type Case, percent, type Row } from './case.ts';
import { thinWireImpedance } from './thinWire.ts';
import { away, f, impedances, ohms, plainWire, solveWires, started, upright, wireScene, wl } from './wireBench.ts';

/** Value at 1 / x = 0 of the parabola in 1 / x through three points. */
function limit(x: readonly number[], y: readonly number[]): number {
  const t = x.map((v) => 1 / v);
  return y.reduce((sum, v, i) => sum + v * t.reduce((p, u, j) => (j === i ? p : (p * u) / (u - t[i])), 1), 0);
}

const dipole = async (length: number, radius: number, host: SolverHost, density?: number): Promise<{ z: number[]; cells: number }> => {
  const result = await solveWires(
    wireScene({ wires: [upright('w', length, radius)], ports: [[0, length / 2]], frequency: f, density, accuracy: 'fine' }),
    host,
  );
  return { z: impedances(result)[0][0], cells: result.meta.evidence.unknowns };
};

/** Dipoles of several radii. */
export const wireDipoles: Case = {
  name: 'wire-dipoles',
  title: 'Wires: half-wave and full-wave dipoles',
  slow: false,
  async run(host) {
    const rows: Row[] = [];
    const source = 'piecewise-sinusoidal reaction (Richmond, NASA CR-2399, 1974), computed with 101 modes';
    for (const [length, ratio] of [
      [0.47, 1e-4],
      [0.5, 1e-5],
      [0.5, 1e-4],
      [0.5, 1e-3],
    ]) {
      const seconds = started(host);
      const { z, cells } = await dipole(length * wl, ratio * wl, host);
      const told = thinWireImpedance(length * wl, ratio * wl, f, 101);
      rows.push({
        quantity: `impedance, length ${length} wavelengths, radius ${ratio}`,
        reference: ohms(told),
        source,
        computed: ohms(z),
        error: away(z, told),
        allowed: 2,
        unit: '%',
        cells,
        seconds: seconds(),
      });
    }
    // In the limit of no thickness the current is a sinusoid, for which the induced EMF is exact.
    const seconds = started(host);
    const radii = [1e-6, 1e-9, 1e-13];
    const found: { z: number[]; cells: number }[] = [];
    for (const a of radii) found.push(await dipole(0.5 * wl, a * wl, host, 300));
    const omega = radii.map((a) => 2 * Math.log(0.5 / a));
    const z = [0, 1].map((c) => limit(omega, found.map((v) => v.z[c]))); // prettier-ignore
    rows.push({
      quantity: 'half wave, radius to zero by three radii',
      reference: ohms([73.13, 42.55]),
      source: 'induced EMF (Balanis, Antenna Theory, 8-60 and 8-61)',
      computed: ohms(z),
      error: away(z, [73.13, 42.55]),
      allowed: 1,
      unit: '%',
      cells: found[2].cells,
      seconds: seconds(),
    });
    const full = started(host);
    const thick = await dipole(wl, 1e-4 * wl, host);
    const told = thinWireImpedance(wl, 1e-4 * wl, f, 201);
    const y = (v: readonly number[]): number[] => [(1e3 * v[0]) / (v[0] ** 2 + v[1] ** 2), (-1e3 * v[1]) / (v[0] ** 2 + v[1] ** 2)];
    const [own, other] = [y(thick.z), y(told)];
    rows.push({
      quantity: 'conductance, length one wavelength, radius 0.0001',
      reference: `${other[0].toFixed(4)} mS`,
      source,
      computed: `${own[0].toFixed(4)} mS`,
      error: percent(own[0], other[0]),
      allowed: 3,
      unit: '%',
      cells: thick.cells,
      seconds: full(),
    });
    // The monopole over a perfect plane is half of the dipole, by images.
    const mono = started(host);
    const height = 0.25 * wl;
    const over = await solveWires(
      wireScene({
        wires: [plainWire('m', [[0, 0, 0], [0, 0, height]], 1e-3 * wl)], // prettier-ignore
        ports: [[0, 0]],
        frequency: f,
        accuracy: 'fine',
        more: { ground: { kind: 'perfect', at: 0 } },
      }),
      host,
    );
    const whole = (await dipole(2 * height, 1e-3 * wl, host)).z;
    const half = impedances(over)[0][0];
    rows.push({
      quantity: 'quarter-wave monopole over a perfect plane',
      reference: ohms([whole[0] / 2, whole[1] / 2]),
      source: 'half of the dipole (image theory)',
      computed: ohms(half),
      error: away(half, [whole[0] / 2, whole[1] / 2]),
      allowed: 0.01,
      unit: '%',
      cells: over.meta.evidence.unknowns,
      seconds: mono(),
    });
    return rows;
  },
};

/** Mutual impedance of two parallel half-wave dipoles side by side by the induced EMF of sinusoidal currents, ohms (Carter 1932; Balanis 8-68 by quadrature). */
function mutualEmf(length: number, distance: number, frequency: number): [number, number] {
  const k = (2 * Math.PI * frequency) / c0;
  const h = length / 2;
  const { points, weights } = gauss(64);
  const sum: [number, number] = [0, 0];
  const top = Math.sin(k * h) ** 2;
  for (let i = 0; i < 64; i++) {
    const z = -h + 2 * h * points[i];
    const current = Math.sin(k * (h - Math.abs(z)));
    for (const [at, w] of [
      [z - h, 1],
      [z + h, 1],
      [z, -2 * Math.cos(k * h)],
    ]) {
      const r = Math.hypot(at, distance);
      // Z21 = j eta / 4 pi int sin(k (h - |z|)) (g1 + g2 - 2 cos kh g0) dz, g = exp(-jkr) / r.
      const scale = (eta0 * w * current * weights[i] * 2 * h) / (4 * Math.PI * r * top);
      sum[0] += scale * Math.sin(k * r);
      sum[1] += scale * Math.cos(k * r);
    }
  }
  return sum;
}

export const wireMutual: Case = {
  name: 'wire-mutual',
  title: 'Wires: mutual impedance, folded dipole, small loop',
  slow: false,
  async run(host) {
    const rows: Row[] = [];
    const l = 0.5 * wl;
    for (const d of [0.1, 0.25, 0.5, 1, 2]) {
      const seconds = started(host);
      const radii = [1e-6, 1e-9, 1e-13];
      const found: number[][] = [];
      let cells = 0;
      for (const a of radii) {
        const result = await solveWires(
          wireScene({ wires: [upright('a', l, a * wl), upright('b', l, a * wl, [d * wl, 0, 0])], ports: [[0, l / 2], [1, l / 2]], frequency: f }), // prettier-ignore
          host,
        );
        found.push(impedances(result)[0][1]);
        cells = result.meta.evidence.unknowns;
      }
      const z = [0, 1].map((c) => limit(radii.map((a) => 2 * Math.log(0.5 / a)), found.map((v) => v[c]))); // prettier-ignore
      const told = mutualEmf(l, d * wl, f);
      rows.push({
        quantity: `mutual impedance, half-wave dipoles ${d} wavelengths apart, radius to zero`,
        reference: ohms(told),
        source: 'induced EMF (P. S. Carter, Proc. IRE 20, 1932)',
        computed: ohms(z),
        error: away(z, told),
        allowed: 2,
        unit: '%',
        cells,
        seconds: seconds(),
      });
    }
    // Two equal wires close together share the current of a dipole of their geometric mean radius: four times its impedance.
    const [a, s] = [1e-4 * wl, 2e-3 * wl];
    const bent: Point3[] = [[0, 0, 0], [0, 0, -l / 2], [s, 0, -l / 2], [s, 0, l / 2], [0, 0, l / 2]]; // prettier-ignore
    const folding = started(host);
    const folded = await solveWires(
      wireScene({ wires: [plainWire('folded', bent, a, true)], ports: [[0, 0]], frequency: f, accuracy: 'fine' }),
      host,
    );
    const single = (await dipole(l + s, Math.sqrt(a * s), host)).z;
    const z = impedances(folded)[0][0];
    rows.push({
      quantity: 'resistance of a folded half-wave dipole',
      reference: `${(4 * single[0]).toFixed(1)} ohm`,
      source: 'four times a dipole of the geometric mean radius (Balanis 9-26)',
      computed: `${z[0].toFixed(1)} ohm`,
      error: percent(z[0], 4 * single[0]),
      allowed: 3,
      unit: '%',
      cells: folded.meta.evidence.unknowns,
      seconds: folding(),
    });
    for (const around of [0.03, 0.06]) {
      const seconds = started(host);
      const n = 48;
      // A polygon of the same area as the circle.
      const radius = ((around * wl) / (2 * Math.PI)) * Math.sqrt((2 * Math.PI) / n / Math.sin((2 * Math.PI) / n));
      const points = Array.from({ length: n }, (_, i): Point3 => [
        radius * Math.cos((2 * Math.PI * i) / n),
        radius * Math.sin((2 * Math.PI * i) / n),
        0,
      ]);
      const loop = await solveWires(wireScene({ wires: [plainWire('loop', points, 1e-5 * wl, true)], ports: [[0, 0]], frequency: f }), host);
      const resistance = impedances(loop)[0][0][0];
      const told = 20 * Math.PI ** 2 * around ** 4;
      rows.push({
        quantity: `radiation resistance of a loop ${around} wavelengths around`,
        reference: `${(1e3 * told).toFixed(4)} mohm`,
        source: '20 pi^2 (C / wavelength)^4 (Balanis 5-24)',
        computed: `${(1e3 * resistance).toFixed(4)} mohm`,
        error: percent(resistance, told),
        allowed: 3,
        unit: '%',
        cells: loop.meta.evidence.unknowns,
        seconds: seconds(),
      });
    }
    return rows;
  },
};

/** Optimum arrays as measured and published: lengths in wavelengths of reflector and directors, the spacing of directors, gain over a half-wave dipole, front to back, dB. */
const published: { name: string; reflector: number; directors: number[]; spacing: number; gain: number; back?: number }[] = [
  { name: '0.8 wavelengths, 5 wires', reflector: 0.482, directors: [0.428, 0.424, 0.428], spacing: 0.2, gain: 9.2, back: 15 },
  { name: '1.2 wavelengths, 6 wires', reflector: 0.482, directors: [0.428, 0.42, 0.42, 0.428], spacing: 0.25, gain: 10.2 },
];

export const wireArray: Case = {
  name: 'wire-array',
  title: 'Wires: published optimum arrays',
  slow: false,
  async run(host) {
    const rows: Row[] = [];
    for (const { name, reflector, directors, spacing, gain, back } of published) {
      const seconds = started(host);
      const a = (0.0085 / 2) * wl;
      const wires = [
        upright('r', reflector * wl, a, [-0.2 * wl, 0, 0]),
        upright('f', 0.46 * wl, a),
        ...directors.map((l, i) => upright(`d${i}`, l * wl, a, [(i + 1) * spacing * wl, 0, 0])),
      ];
      const result = await solveWires(
        wireScene({
          wires,
          ports: [[1, 0.23 * wl]],
          frequency: f,
          accuracy: 'fine',
          recorders: [{ kind: 'far-field', name: 'far', step: Math.PI / 36 }],
        }),
        host,
      );
      const { directivity } = result.meta.farField!.figures[0];
      const told = 10 * Math.log10(directivity) - 2.15;
      rows.push({
        quantity: `gain over a half-wave dipole, ${name}`,
        reference: `${gain} dB`,
        source: 'measured (P. P. Viezbicke, NBS Technical Note 688, 1976, table 1)',
        computed: `${told.toFixed(2)} dB`,
        error: Math.abs(told - gain),
        allowed: 0.3,
        unit: 'dB',
        cells: result.meta.evidence.unknowns,
        seconds: seconds(),
      });
      const front = result.arrays.farField;
      const [nTheta, nPhi] = [front.shape[1], front.shape[2]];
      const power = (p: number): number => {
        const at = 4 * (((nTheta - 1) / 2) * nPhi + p);
        return front.data[at] ** 2 + front.data[at + 1] ** 2 + front.data[at + 2] ** 2 + front.data[at + 3] ** 2;
      };
      if (back === undefined) continue;
      const ratio = 10 * Math.log10(power(0) / power(nPhi / 2));
      rows.push({
        quantity: `front to back, ${name}`,
        reference: `${back} dB`,
        source: 'measured (the same)',
        computed: `${ratio.toFixed(2)} dB`,
        error: Math.abs(ratio - back),
        allowed: 1,
        unit: 'dB',
        cells: result.meta.evidence.unknowns,
        seconds: 0,
      });
    }
    return rows;
  },
};

/** Reciprocity: what a lit dipole pair hands to its load is what its gain towards the wave says. */
export const wireReciprocity: Case = {
  name: 'wire-reciprocity',
  title: 'Wires: transmitting and receiving, power balance, convergence',
  slow: false,
  async run(host) {
    const rows: Row[] = [];
    const wires = [
      plainWire('bent', [[0, 0, -0.2 * wl], [0, 0, 0.1 * wl], [0.15 * wl, 0.05 * wl, 0.2 * wl]], 5e-4 * wl), // prettier-ignore
      upright('near', 0.45 * wl, 1e-3 * wl, [0, 0.3 * wl, 0.05 * wl]),
    ];
    const ports: [number, number][] = [[0, 0.2 * wl]];
    const far = [{ kind: 'far-field' as const, name: 'far', step: Math.PI / 36 }];
    for (const ground of [null, { kind: 'perfect' as const, at: -0.3 * wl }]) {
      const more = { ground };
      const seconds = started(host);
      const sent = await solveWires(wireScene({ wires, ports, frequency: f, recorders: far, more }), host);
      const [theta, phi] = [Math.PI / 3, Math.PI / 4];
      const pattern = sent.arrays.farField;
      const at = 4 * (12 * pattern.shape[2] + 9);
      const size = Math.hypot(pattern.data[at], pattern.data[at + 1]);
      const wave = waveOf('wave', 0, theta, phi, 0, 0);
      const got = await solveWires(wireScene({ wires, ports, frequency: f, recorders: far, wave, more }), host);
      const [vr, vi, ir, ii] = got.arrays['probe:p1'].data.subarray(0, 4);
      const power = -(vr * ir + vi * ii) / 2;
      // Gain of theta polarisation times wavelength^2 / 4 pi times the wave's power density.
      const told = ((4 * Math.PI * size * size) / (2 * eta0)) * (wl ** 2 / (4 * Math.PI)) * (1 / (2 * eta0));
      const where = ground ? 'over a perfect plane' : 'in empty space';
      rows.push({
        quantity: `power that a bent wire receives ${where}`,
        reference: `${(1e6 * told).toFixed(4)} uW`,
        source: 'its realised gain when it sends (reciprocity)',
        computed: `${(1e6 * power).toFixed(4)} uW`,
        error: percent(power, told),
        allowed: 0.1,
        unit: '%',
        cells: sent.meta.evidence.unknowns,
        seconds: seconds(),
      });
      for (const [what, result] of [
        ['sends', sent],
        ['is lit', got],
      ] as const)
        rows.push({
          quantity: `power balance where it ${what} ${where}`,
          reference: '0',
          source: 'conservation of energy, radiated power from the pattern',
          computed: `${(100 * result.meta.evidence.powerBalance![0]).toExponential(1)} %`,
          error: 100 * Math.abs(result.meta.evidence.powerBalance![0]),
          allowed: 0.1,
          unit: '%',
          cells: result.meta.evidence.unknowns,
          seconds: 0,
        });
    }
    const seconds = started(host);
    const found: { z: number[]; cells: number }[] = [];
    for (const density of [15, 30, 60, 240]) found.push(await dipole(0.48 * wl, 1e-4 * wl, host, density));
    const errors = found.slice(0, 3).map((v) => away(v.z, found[3].z));
    rows.push({
      quantity: 'error over that with twice the segments, dipole with 15, 30 and 60 a wavelength against 240',
      reference: '2.8 or more',
      source: 'linear functions: order 1.5, as the charge grows without bound at gap and ends',
      computed: `${(errors[0] / errors[1]).toFixed(2)}, ${(errors[1] / errors[2]).toFixed(2)}; off by ${errors.map((e) => `${e.toFixed(2)} %`).join(', ')}`,
      error: Math.max(0, 2.8 - Math.sqrt(errors[0] / errors[2])),
      allowed: 0.1,
      unit: '',
      cells: found[3].cells,
      seconds: seconds(),
    });
    return rows;
  },
};
