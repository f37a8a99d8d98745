import type { ModeFigures } from '@jadebell/core/solvers/sections';

/** What of a mode's fields is drawn: a value at a node from its twelve numbers (E then H along x, y, the guide; real, imaginary). */
export interface Quantity {
  label: string;
  unit: string;
  /** Both signs occur: drawn about zero. */
  signed: boolean;
  of(f: Float32Array, at: number): number;
}

const size = (f: Float32Array, at: number, from: number): number => {
  let s = 0;
  for (let k = 0; k < 6; k++) s += f[at + from + k] ** 2;
  return Math.sqrt(s);
};

/** Quantities of a section whose axes have these letters. Fields along the guide are in quadrature with those across. */
export const quantitiesOf = (axes: string): Record<string, Quantity> => ({
  e: { label: '|E|', unit: 'V/m', signed: false, of: (f, n) => size(f, n, 0) },
  h: { label: '|H|', unit: 'A/m', signed: false, of: (f, n) => size(f, n, 6) },
  power: {
    label: 'power flow',
    unit: 'W/m²',
    signed: false,
    of: (f, n) => Math.abs(f[n] * f[n + 8] + f[n + 1] * f[n + 9] - f[n + 2] * f[n + 6] - f[n + 3] * f[n + 7]) / 2,
  },
  ex: { label: `E along ${axes[0]}`, unit: 'V/m', signed: true, of: (f, n) => f[n] },
  ey: { label: `E along ${axes[1]}`, unit: 'V/m', signed: true, of: (f, n) => f[n + 2] },
  ew: { label: `E along ${axes[2]}`, unit: 'V/m', signed: true, of: (f, n) => f[n + 5] },
  hx: { label: `H along ${axes[0]}`, unit: 'A/m', signed: true, of: (f, n) => f[n + 6] },
  hy: { label: `H along ${axes[1]}`, unit: 'A/m', signed: true, of: (f, n) => f[n + 8] },
  hw: { label: `H along ${axes[2]}`, unit: 'A/m', signed: true, of: (f, n) => f[n + 11] },
});

/** Curves over frequency: what is drawn of a mode, in which unit. */
export const curveKinds: Record<string, { label: string; of(f: ModeFigures): number | null }> = {
  index: { label: 'effective index', of: (f) => f.index[0] },
  group: { label: 'group index', of: (f) => f.groupIndex },
  beta: { label: 'phase constant, rad/m', of: (f) => f.beta },
  loss: { label: 'attenuation, dB/m', of: (f) => 20 * Math.LOG10E * f.alpha },
  impedance: { label: 'impedance, ohm', of: (f) => f.line?.powerCurrent ?? f.waveImpedance[0] },
};

/** Length over which power goes over from one of two coupled guides to the other: half the beat of the two modes. */
export const crossover = (a: ModeFigures, b: ModeFigures): number => Math.PI / Math.abs(a.beta - b.beta);

/** An attenuation in words that suit its size. */
export function lossText(alpha: number): string {
  const perMetre = 20 * Math.LOG10E * alpha;
  if (perMetre < 1e-6) return '0 dB/m';
  if (perMetre < 1000) return `${perMetre.toPrecision(3)} dB/m`;
  return perMetre < 1e5 ? `${(perMetre / 100).toPrecision(3)} dB/cm` : `${(perMetre / 1e6).toPrecision(3)} dB/µm`;
}

/**
 * Top of a section's colours and the largest value: a few nodes at an edge of metal would swallow the range, so the colours may end below the largest, which is
 * told beside them then.
 */
export function sectionScale(values: Float32Array, most: number): { top: number; most: number } {
  const sorted = values.map(Math.abs).sort();
  const high = sorted[Math.floor(0.997 * (sorted.length - 1))];
  return { top: high > 0 ? Math.min(most, 1.6 * high) : most || 1, most };
}
