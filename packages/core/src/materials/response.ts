import type { Dispersion, MaterialEntry } from '../entries/index.ts';
import { c0, eps0, mu0 } from '../numerics/constants.ts';
import { modelAt, type Permittivity } from './poleModel.ts';
import { polesOf } from './poles.ts';

/** A table's value, straight between its points over the logarithm of frequency, level outside. */
function between(points: readonly (readonly [number, number, number])[], f: number): Permittivity {
  const above = points.findIndex((p) => p[0] >= f);
  if (above <= 0) {
    const [, re, loss] = points[above === 0 ? 0 : points.length - 1];
    return { re, loss };
  }
  const [a, b] = [points[above - 1], points[above]];
  const t = Math.log(f / a[0]) / Math.log(b[0] / a[0]);
  return { re: a[1] + t * (b[1] - a[1]), loss: a[2] + t * (b[2] - a[2]) };
}

/** Permittivity of a dispersion formula at a frequency in hertz. */
export function dispersed(d: Dispersion, f: number): Permittivity {
  switch (d.form) {
    case 'sellmeier': {
      const w2 = ((c0 / f) * 1e6) ** 2;
      return { re: d.terms.reduce((s, [b, c]) => s + (b * w2) / (w2 - c * c), d.constant), loss: 0 };
    }
    case 'debye': {
      const wt = 2 * Math.PI * f * d.relaxation;
      const step = d.static - d.infinity;
      return { re: d.infinity + step / (1 + wt * wt), loss: (step * wt) / (1 + wt * wt) };
    }
    case 'drude': {
      // e = e_inf - wp^2 / (w^2 - j w g), all as wave numbers.
      const w = f / c0 / 100;
      const q = d.plasma ** 2 / (w * w + d.collision ** 2);
      return { re: d.infinity - q, loss: (q * d.collision) / w };
    }
    case 'lorentz':
    case 'poles':
      return modelAt(polesOf(d), 2 * Math.PI * f);
    case 'table':
      return between(d.points, f);
  }
}

/** Relative permittivity of a material at a frequency in hertz; the mean of the axes where they differ. A conductor's comes from its conductivity. */
export function permittivityAt(m: MaterialEntry, f: number): Permittivity {
  if (m.dispersion) return dispersed(m.dispersion, f);
  if (m.kind === 'conductor') return { re: 1, loss: (m.conductivity ?? Infinity) / (2 * Math.PI * f * eps0) };
  const re = m.permittivityAlong ? m.permittivityAlong.reduce((s, v) => s + v, 0) / 3 : (m.permittivity ?? 1);
  return { re, loss: re * (m.lossTangent ?? 0) };
}

/** Refractive index n - j k at a frequency in hertz. */
export function indexAt(m: MaterialEntry, f: number): { n: number; k: number } {
  const { re, loss } = permittivityAt(m, f);
  const mu = m.permeability ?? 1;
  const size = Math.hypot(re, loss) * mu;
  return { n: Math.sqrt((size + re * mu) / 2), k: Math.sqrt(Math.max(0, (size - re * mu) / 2)) };
}

/** Surface resistance of a good conductor, ohm, and its skin depth, metres (Pozar, Microwave Engineering, 4th ed., eq. 1.60 and 1.125). */
export function conductorAt(m: MaterialEntry, f: number): { resistance: number; depth: number } {
  if (!m.conductivity) return { resistance: 0, depth: 0 };
  const depth = 1 / Math.sqrt(Math.PI * f * mu0 * (m.permeability ?? 1) * m.conductivity);
  return { resistance: 1 / (m.conductivity * depth), depth };
}

/** What the library page draws of a material: name, unit and value over frequency. */
export interface MaterialCurve {
  label: string;
  at(m: MaterialEntry, f: number): number;
}
export const materialCurves: Record<'permittivity' | 'lossTangent' | 'index' | 'extinction' | 'skinDepth' | 'surfaceResistance', MaterialCurve> = {
  permittivity: { label: 'relative permittivity', at: (m, f) => permittivityAt(m, f).re },
  lossTangent: { label: 'loss tangent', at: (m, f) => permittivityAt(m, f).loss / permittivityAt(m, f).re },
  index: { label: 'refractive index n', at: (m, f) => indexAt(m, f).n },
  extinction: { label: 'extinction k', at: (m, f) => indexAt(m, f).k },
  skinDepth: { label: 'skin depth in um', at: (m, f) => conductorAt(m, f).depth * 1e6 },
  surfaceResistance: { label: 'surface resistance in ohm', at: (m, f) => conductorAt(m, f).resistance },
};

/** Curves that say something of a material. */
export const curvesOf = (m: MaterialEntry): (keyof typeof materialCurves)[] =>
  m.kind === 'conductor'
    ? m.conductivity
      ? ['skinDepth', 'surfaceResistance']
      : []
    : m.dispersion && (m.range?.[1] ?? 0) > 1e13
      ? ['index', 'extinction']
      : ['permittivity', 'lossTangent'];
