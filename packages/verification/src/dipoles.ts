import { patternPower } from '@jadebell/core/radiation';
import type { Point2 } from '@jadebell/core/document';
import { c0, type Complex, eta0 } from '@jadebell/core/numerics';
import { impedance, reflection, resonances, type ResultSet } from '@jadebell/core/results';
import type { GridScene } from '@jadebell/core/scene';
import { solvers, type SolverHost } from '@jadebell/core/solvers';
import { type Case, percent, type Row } from './case.ts';
import { bisect } from './cavity.ts';
import { thinWireImpedance } from './thinWire.ts';
import { plainBody, plainScene } from './bench.ts';
import { sizeOf } from '@jadebell/core/methods';

const metal = { name: 'metal', kind: 'conductor' } as const;
const rectangle = (x0: number, x1: number, y0: number, y1: number): Point2[] => [
  [x0, y0],
  [x1, y0],
  [x1, y1],
  [x0, y1],
];

/** A centre-fed strip dipole along x, of given length, width and gap. */
function strip(
  length: number,
  width: number,
  gap: number,
  band: GridScene['band'],
  recordAt: number[],
  accuracy: GridScene['accuracy'],
  extra: Partial<GridScene> = {},
): GridScene {
  const sheet = (name: string, order: number, x0: number, x1: number): ReturnType<typeof plainBody> =>
    plainBody(name, order, metal, { form: 'sheet', normal: 2, offset: 0, loops: [rectangle(x0, x1, -width / 2, width / 2)] });
  const margin = c0 / band.from / 4;
  return plainScene({
    bodies: [sheet('left', 0, -length / 2, -gap / 2), sheet('right', 1, gap / 2, length / 2)],
    ports: [
      { name: 'feed', order: 0, resistance: 73, axis: 0, direction: 1, min: [-gap / 2, -width / 2, 0], max: [gap / 2, width / 2, 0], across: 1 },
    ],
    min: [-length / 2 - margin, -width / 2 - margin, -margin],
    max: [length / 2 + margin, width / 2 + margin, margin],
    band,
    accuracy,
    recorders: [{ kind: 'far-field', name: 'pattern', step: Math.PI / 36 }],
    recordAt,
    ...extra,
  });
}

/** Sine and cosine integrals by their defining integrals (composite Simpson rule, 1e-10 or better for x < 30). */
function sinCosIntegrals(x: number): { si: number; ci: number } {
  const n = 4000;
  const h = x / n;
  const sinc = (t: number): number => (t === 0 ? 1 : Math.sin(t) / t);
  const cosm = (t: number): number => (t === 0 ? 0 : (Math.cos(t) - 1) / t);
  let si = sinc(0) + sinc(x);
  let cin = cosm(0) + cosm(x);
  for (let i = 1; i < n; i++) {
    const w = i % 2 ? 4 : 2;
    si += w * sinc(i * h);
    cin += w * cosm(i * h);
  }
  return { si: (si * h) / 3, ci: 0.5772156649015329 + Math.log(x) + (cin * h) / 3 };
}

/**
 * Input impedance of a centre-fed dipole of length l and wire radius a by the induced-EMF method with a sinusoidal current
 * (Balanis, Antenna Theory, 4th ed., eqs. 8-57 to 8-61).
 */
export function inducedEmf(l: number, a: number, f: number): Complex {
  const k = (2 * Math.PI * f) / c0;
  const kl = k * l;
  const one = sinCosIntegrals(kl);
  const two = sinCosIntegrals(2 * kl);
  const thin = sinCosIntegrals((2 * k * a * a) / l);
  const euler = 0.5772156649015329;
  const rm =
    (eta0 / (2 * Math.PI)) *
    (euler +
      Math.log(kl) -
      one.ci +
      0.5 * Math.sin(kl) * (two.si - 2 * one.si) +
      0.5 * Math.cos(kl) * (euler + Math.log(kl / 2) + two.ci - 2 * one.ci));
  const xm = (eta0 / (4 * Math.PI)) * (2 * one.si + Math.cos(kl) * (2 * one.si - two.si) - Math.sin(kl) * (2 * one.ci - two.ci - thin.ci));
  const s = Math.sin(kl / 2) ** 2;
  return [rm / s, xm / s];
}

const cellsOf = (r: ResultSet): number => sizeOf(r.meta).count;

async function solved(
  host: SolverHost,
  scene: GridScene,
): Promise<{ result: ResultSet; seconds: number; first: { frequency: number; resistance: number } }> {
  const started = host.now();
  const result = await solvers.fdtd.solve(scene, { host });
  const { frequency, s } = reflection(result);
  const first = resonances(
    frequency,
    s.map((v) => impedance(v, [scene.ports[0].resistance, 0])),
  )[0] ?? { frequency: NaN, resistance: NaN };
  return { result, seconds: host.now() - started, first };
}

/** A half-wave strip dipole in free space. A strip of width w stands for a wire of radius w/4 (Balanis, table 9.3). */
export const halfWave: Case = {
  name: 'half-wave-dipole',
  title: 'Half-wave strip dipole',
  slow: true,
  async run(host) {
    const [length, width, gap] = [150e-3, 1.2e-3, 1.2e-3];
    const reactance = (f: number): number => inducedEmf(length, width / 4, f)[1];
    const f0 = bisect(reactance, 0.85e9, 1e9);
    // The sinusoidal current of the induced-EMF method is too crude for the resistance of a wire of this thickness, so that
    // is held against an integral-equation solution.
    const fw = bisect((f) => thinWireImpedance(length, width / 4, f)[1], 0.85e9, 1e9);
    const rw = thinWireImpedance(length, width / 4, fw)[0];
    const band = { from: 0.8e9, to: 1.1e9, points: 151 };
    const rows: Row[] = [];
    const { result, seconds, first } = await solved(host, strip(length, width, gap, band, [f0], 'normal'));
    const figures = result.meta.farField!.figures[0];
    const cells = cellsOf(result);
    const add = (quantity: string, reference: number, text: (v: number) => string, source: string, computed: number, allowed: number): void => {
      rows.push({
        quantity,
        reference: text(reference),
        source,
        computed: text(computed),
        error: percent(computed, reference),
        allowed,
        unit: '%',
        cells,
        seconds,
      });
    };
    const ghz = (v: number): string => `${(v / 1e9).toFixed(4)} GHz`;
    add('directivity at resonance', 1.64, (v) => v.toFixed(3), 'half-wave dipole, closed form (Balanis 4-91)', figures.directivity, 3);
    add('resonance', f0, ghz, 'induced-EMF method, equivalent radius w/4 (Balanis ch. 8)', first.frequency, 2);
    const richmond = 'thin-wire integral equation, piecewise-sinusoidal Galerkin (Richmond 1974)';
    add('resonance', fw, ghz, richmond, first.frequency, 2);
    add('resistance at resonance', rw, (v) => `${v.toFixed(1)} ohm`, richmond, first.resistance, 5);
    const balance = Math.abs(figures.accepted - figures.radiated) / figures.accepted;
    rows.push({
      quantity: 'power balance, accepted against radiated',
      reference: '0',
      source: 'conservation of energy',
      computed: `${(100 * balance).toFixed(2)} %`,
      error: 100 * balance,
      allowed: 3,
      unit: '%',
      cells,
      seconds,
    });
    return rows;
  },
};

/** A dipole of a tenth of a wavelength. */
export const short: Case = {
  name: 'short-dipole',
  title: 'Short dipole',
  slow: true,
  async run(host) {
    const band = { from: 0.25e9, to: 0.35e9, points: 11 };
    const { result, seconds } = await solved(host, strip(100e-3, 4e-3, 4e-3, band, [0.3e9], 'draft', { details: { maxSteps: 12000 } }));
    const { directivity } = result.meta.farField!.figures[0];
    // Closed form for this length: current sin(k(l/2 - |x|)); for l = 0.1 wavelength it differs from 1.5 by 0.3 %.
    return [
      {
        quantity: 'directivity, length 0.1 wavelengths',
        reference: '1.5',
        source: 'short dipole, closed form (Balanis 4-31)',
        computed: directivity.toFixed(4),
        error: percent(directivity, 1.5),
        allowed: 2,
        unit: '%',
        cells: cellsOf(result),
        seconds,
      },
    ];
  },
};

/** The same dipole with losses, in dielectric, in its own thin metal and in a solid plate: energy must balance. */
export const lossy: Case = {
  name: 'lossy-balance',
  title: 'Dipole with losses',
  slow: true,
  async run(host) {
    const make = (): GridScene => strip(100e-3, 6e-3, 4e-3, { from: 0.7e9, to: 1.3e9, points: 61 }, [0.8e9, 1e9, 1.2e9], 'draft');
    const block = make();
    block.bodies.push(
      plainBody(
        'block',
        2,
        { name: 'block', kind: 'dielectric', permittivity: 5, lossTangent: 0.1 },
        { form: 'box', min: [-0.04, -0.03, -0.021], max: [0.05, 0.03, -0.001] },
      ),
    );
    const plate = make();
    for (const b of plate.bodies) {
      b.material = { name: 'thin', kind: 'conductor', conductivity: 1e6 };
      b.conductor = { perfect: false, thickness: 1e-6, sides: 2 };
    }
    plate.bodies.push(
      plainBody(
        'plate',
        2,
        { name: 'graphite', kind: 'conductor', conductivity: 2e3 },
        { form: 'box', min: [-0.06, -0.03, -0.04], max: [0.06, 0.03, -0.02] },
      ),
    );
    const rows: Row[] = [];
    for (const [what, scene] of [
      ['a dielectric block', block],
      ['thin arms and a poor plate', plate],
    ] as const) {
      const { result, seconds } = await solved(host, scene);
      for (const f of result.meta.farField!.figures) {
        const error = (100 * Math.abs(f.accepted - f.radiated - f.lost)) / f.accepted;
        rows.push({
          quantity: `power balance at ${f.frequency / 1e9} GHz, ${((100 * f.lost) / f.accepted).toFixed(0)} % lost in ${what}`,
          reference: '0',
          source: 'conservation of energy',
          computed: `${error.toFixed(2)} %`,
          error,
          allowed: 3,
          unit: '%' as const,
          cells: cellsOf(result),
          seconds,
        });
      }
    }
    return rows;
  },
};

/** Power through the box against the power of the pattern, for the half-wave dipole at three accuracies. */
export const patternIntegral: Case = {
  name: 'pattern-integral',
  title: 'Pattern integral',
  slow: true,
  async run(host) {
    const rows: Row[] = [];
    for (const accuracy of ['draft', 'normal', 'fine'] as const) {
      const { result, seconds } = await solved(host, strip(150e-3, 3e-3, 3e-3, { from: 0.8e9, to: 1.1e9, points: 61 }, [0.95e9], accuracy));
      const f = result.meta.farField!.figures[0];
      const { data, shape } = result.arrays.farField;
      const again = patternPower({ nTheta: shape[1], nPhi: shape[2], values: data as Float64Array }).power;
      rows.push({
        quantity: `pattern power against box power, ${accuracy}`,
        reference: `${f.radiated.toFixed(4)} W`,
        source: 'Poynting flux through the box',
        computed: `${again.toFixed(4)} W`,
        error: percent(again, f.radiated),
        allowed: 2,
        unit: '%',
        cells: cellsOf(result),
        seconds,
      });
    }
    return rows;
  },
};
