import {
  eta0,
  type Formula,
  type FormulaValue,
  frequencyArgument,
  heightArgument,
  impedanceArgument,
  needPermittivity,
  permittivityArgument,
  solveMonotonic,
  widthArgument,
} from './formula.ts';

/** Impedance of a strip of no thickness over a plane, in air; u = w/h (Hammerstad and Jensen 1980, eq. 1; 0.01 % for u < 1, 0.03 % for u < 1000). */
function airImpedance(u: number): number {
  const f = 6 + (2 * Math.PI - 6) * Math.exp(-((30.666 / u) ** 0.7528));
  return (eta0 / (2 * Math.PI)) * Math.log(f / u + Math.sqrt(1 + (2 / u) ** 2));
}

/** Static effective permittivity (Hammerstad and Jensen 1980, eq. 3). */
function staticPermittivity(u: number, er: number): number {
  const a = 1 + Math.log((u ** 4 + (u / 52) ** 2) / (u ** 4 + 0.432)) / 49 + Math.log(1 + (u / 18.1) ** 3) / 18.7;
  const b = 0.564 * ((er - 0.9) / (er + 3)) ** 0.053;
  return (er + 1) / 2 + ((er - 1) / 2) * (1 + 10 / u) ** (-a * b);
}

/** Effective permittivity at a frequency (Kirschning and Jansen 1982). */
export function microstripPermittivity(w: number, er: number, h: number, f: number): number {
  const u = w / h;
  const e0 = staticPermittivity(u, er);
  // Frequency times height in GHz cm, as the paper has it.
  const fh = f * 1e-9 * h * 100;
  const p1 = 0.27488 + (0.6315 + 0.525 / (1 + 0.157 * fh) ** 20) * u - 0.065683 * Math.exp(-8.7513 * u);
  const p2 = 0.33622 * (1 - Math.exp(-0.03442 * er));
  const p3 = 0.0363 * Math.exp(-4.6 * u) * (1 - Math.exp(-((fh / 3.87) ** 4.97)));
  const p4 = 1 + 2.751 * (1 - Math.exp(-((er / 15.916) ** 8)));
  const p = p1 * p2 * ((0.1844 + p3 * p4) * 10 * fh) ** 1.5763;
  return er - (er - e0) / (1 + p);
}

/** Impedance at a frequency: static value, scaled by the dispersion of Hammerstad and Jensen (1980, eq. 8). */
export function microstripImpedance(w: number, er: number, h: number, f: number): number {
  const u = w / h;
  const e0 = staticPermittivity(u, er);
  const ef = microstripPermittivity(w, er, h, f);
  const z0 = airImpedance(u) / Math.sqrt(e0);
  if (er === 1) return z0;
  return (z0 * Math.sqrt(e0 / ef) * (ef - 1)) / (e0 - 1);
}

const outside = (u: number, er: number, f: number, h: number): string | undefined =>
  u < 0.1 || u > 100
    ? `The strip is ${u.toPrecision(2)} times as wide as the board is thick; the formula is made for 0.1 to 100.`
    : er > 20
      ? 'The formula is made for relative permittivities up to 20.'
      : f * 1e-9 * h * 100 > 3.9
        ? 'Frequency times board thickness is above 39 GHz mm, where the formula ends.'
        : undefined;

function widthFor(z: number, er: number, h: number, f: number): FormulaValue {
  needPermittivity(er);
  const w = solveMonotonic(
    (u) => microstripImpedance(u * h, er, h, f) - z,
    1e-3,
    1e3,
    `No microstrip on this board has ${Number(z.toPrecision(4))} ohm.`,
    'Choose an impedance nearer to 50 ohm.',
  );
  return { si: w * h, outside: outside(w, er, f, h) };
}

const source =
  'E. Hammerstad, O. Jensen, Accurate models for microstrip computer-aided design, IEEE MTT-S Digest 1980, 407; M. Kirschning, R. H. Jansen, Accurate model for effective dielectric constant of microstrip, Electron. Lett. 18, 272, 1982';
const range = 'w/h from 0.1 to 100, er up to 20, f h up to 39 GHz mm; strip of no thickness; permittivity within 0.6 %, impedance within 1 %';
const common = { family: 'Microstrip', source, range };
const args = [widthArgument, permittivityArgument, heightArgument, frequencyArgument];

export const microstrip: Formula[] = [
  {
    ...common,
    name: 'microstrip_impedance',
    title: 'Impedance of a microstrip',
    about: 'Characteristic impedance of a strip on a board over a ground plane',
    args,
    result: 'resistance',
    compute: ([w, er, h, f]) => {
      needPermittivity(er);
      return { si: microstripImpedance(w, er, h, f), outside: outside(w / h, er, f, h) };
    },
  },
  {
    ...common,
    name: 'microstrip_permittivity',
    title: 'Effective permittivity of a microstrip',
    about: 'Square of the ratio of the speed of light to the phase speed on the line',
    args,
    result: 'number',
    compute: ([w, er, h, f]) => {
      needPermittivity(er);
      return { si: microstripPermittivity(w, er, h, f), outside: outside(w / h, er, f, h) };
    },
  },
  {
    ...common,
    name: 'microstrip_width',
    title: 'Width of a microstrip for an impedance',
    about: 'The width that gives the impedance on this board at this frequency',
    args: [impedanceArgument, permittivityArgument, heightArgument, frequencyArgument],
    result: 'length',
    compute: ([z, er, h, f]) => widthFor(z, er, h, f),
  },
];
