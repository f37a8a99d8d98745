import { type Complex, add, div, mul, c0, abs, sub } from '@jadebell/core/numerics';
import type { Dispersion, MaterialEntry, Point3 } from '@jadebell/core/document';
import { gainOf, materialPoles, modelAt } from '@jadebell/core/materials';
import { sCurve } from '@jadebell/core/results';
import type { SceneGuide } from '@jadebell/core/scene';
import { solvers } from '@jadebell/core/solvers';
import { plainBody, plainScene } from './bench.ts';
import type { Case, Row } from './case.ts';

const root = ([re, im]: Complex): Complex => {
  const size = Math.hypot(re, im);
  // The root whose wave dies away: negative imaginary part.
  return [Math.sqrt((size + re) / 2), -Math.sqrt((size - re) / 2)];
};

const [a, b, length] = [20e-3, 4e-3, 40e-3];

/**
 * S11 and S21 of a slab of thickness d in the middle of the guide, TE10: the reflection of a plane wave in the plane across E, at an
 * angle whose sine is (pi / a) / k (C. A. Balanis, Advanced Engineering Electromagnetics, 2nd ed., 5.5 and 8.2).
 */
function slab(permittivity: Complex, d: number, f: number): { s11: Complex; s21: Complex } {
  const k = (2 * Math.PI * f) / c0;
  const kc2 = (Math.PI / a) ** 2;
  const outside = Math.sqrt(k * k - kc2);
  const inside = root([permittivity[0] * k * k - kc2, permittivity[1] * k * k]);
  // Interface: r = (kz0 - kz1) / (kz0 + kz1).
  const r = div(add([outside, 0], [-inside[0], -inside[1]]), add([outside, 0], inside));
  const through: Complex = [Math.exp(inside[1] * d) * Math.cos(inside[0] * d), -Math.exp(inside[1] * d) * Math.sin(inside[0] * d)];
  const twice = mul(through, through);
  const rr = mul(r, r);
  const below = add([1, 0], mul(rr, [-twice[0], -twice[1]]));
  const s11 = div(mul(r, add([1, 0], [-twice[0], -twice[1]])), below);
  const s21 = div(mul(add([1, 0], [-rr[0], -rr[1]]), through), below);
  const air = outside * (length - d);
  const turn: Complex = [Math.cos(air), -Math.sin(air)];
  return { s11: mul(s11, turn), s21: mul(s21, turn) };
}

const waveNumber = (f: number): number => f / c0 / 100;
const media: readonly { title: string; d: number; m: Partial<MaterialEntry> & { dispersion?: Dispersion } }[] = [
  { title: 'permittivity 4', d: 6e-3, m: { permittivity: 4, lossTangent: 0 } },
  { title: 'permittivity 2, 4, 9 along x, y, z', d: 6e-3, m: { permittivityAlong: [2, 4, 9] } },
  { title: 'permittivity 4, loss tangent 0.05 at all frequencies', d: 6e-3, m: { permittivity: 4, lossTangent: 0.05 } },
  { title: 'relaxing from 9 to 3 at 13 GHz', d: 3e-3, m: { dispersion: { form: 'debye', infinity: 3, static: 9, relaxation: 12e-12 } } },
  { title: 'resonant at 11.5 GHz, 1 GHz wide', d: 6e-3, m: { dispersion: { form: 'lorentz', infinity: 2, terms: [[0.5, 11.5e9, 1e9]] } } },
  { title: 'free carriers, plasma frequency 13 GHz', d: 4e-3, m: { dispersion: { form: 'drude', infinity: 1.5, plasma: waveNumber(13e9), collision: waveNumber(1e9) } } }, // prettier-ignore
];

/** Slabs of lossy and dispersive media across a guide, against the transfer matrix with the same medium; every one oblique. */
export const mediaSlabs: Case = {
  name: 'media-slabs',
  title: 'Slabs across a guide 20 mm wide, TE10 from 9 to 14 GHz: plane waves at 56 to 32 degrees',
  slow: true,
  async run(host) {
    const rows: Row[] = [];
    const band = { from: 9e9, to: 14e9, points: 41 };
    for (const { title, d, m } of media) {
      const material: MaterialEntry = { name: title, kind: 'dielectric', ...m };
      const model = materialPoles(material, [band.from, band.to]);
      if (model && gainOf(model, [band.from, band.to]) !== null) throw new Error(`${title} has gain.`);
      const at = (f: number): Complex => {
        // E is along y.
        if (!model) return [m.permittivityAlong?.[1] ?? m.permittivity!, 0];
        const e = modelAt(model, 2 * Math.PI * f);
        return [e.re, -e.loss];
      };
      // By which the grid is made.
      const largest = Math.max(...[0, 0.25, 0.5, 0.75, 1].map((t) => Math.hypot(...at(band.from + t * (band.to - band.from)))));
      const middle = length / 2;
      const shape = { form: 'box', min: [-a, -b, middle - d / 2] as Point3, max: [a, 2 * b, middle + d / 2] as Point3 } as const;
      const guides = ([1, -1] as const).map((into, i): SceneGuide => ({ name: `port${i + 1}`, order: i, normal: 2, into, min: [-a / 2, 0, i * length], max: [a / 2, b, i * length], modes: 1, shift: 0 })); // prettier-ignore
      const started = host.now();
      const result = await solvers.fdtd.solve(
        plainScene({
          bodies: [plainBody('slab', 0, m.dispersion ? { ...material, permittivity: Math.max(1, largest) } : material, shape)],
          ports: [],
          guides,
          min: [-a / 2, 0, 0],
          max: [a / 2, b, length],
          band,
          boundaries: Array<'electric'>(6).fill('electric'),
          details: { cellsPerWavelength: 40, stopAt: 1e-6 },
        }),
        { host },
      );
      const seconds = host.now() - started;
      const cells = result.meta.evidence.cells.reduce((p, n) => p * n, 1);
      const [s11, s21] = [sCurve(result.arrays.s, 0, 0), sCurve(result.arrays.s, 1, 0)];
      let [back, through, taken] = [0, 0, 0];
      result.arrays.frequency.data.forEach((f, i) => {
        const exact = slab(at(f), d, f);
        back = Math.max(back, abs(sub(s11[i], exact.s11)));
        through = Math.max(through, abs(sub(s21[i], exact.s21)));
        const left = (p: Complex, q: Complex): number => 1 - p[0] ** 2 - p[1] ** 2 - q[0] ** 2 - q[1] ** 2;
        taken = Math.max(taken, Math.abs(left([s11[i][0], s11[i][1]], [s21[i][0], s21[i][1]]) - left(exact.s11, exact.s21)));
      });
      const source = 'transfer matrix with the same medium (Balanis, 5.5)';
      for (const [quantity, error] of [
        ['S11', back],
        ['S21', through],
        ['power absorbed', taken],
      ] as const)
        rows.push({
          quantity: `${title}: ${quantity}`,
          reference: 'its complex value',
          source,
          computed: `${error.toExponential(1)} off at most`,
          error,
          allowed: quantity === 'power absorbed' ? 5e-3 : 1e-2,
          unit: '',
          cells,
          seconds,
        });
    }
    return rows;
  },
};
