import {
  c0,
  ellipticRatio,
  eta0,
  type Formula,
  type FormulaArgument,
  frequencyArgument,
  heightArgument,
  impedanceArgument,
  needPermittivity,
  permittivityArgument,
  solveMonotonic,
  widthArgument,
} from './formula.ts';

/** sqrt(1 - k^2) of a ratio of hyperbolic functions, kept accurate near 1 by the difference of squares. */
const complement = (k: number): number => Math.sqrt(Math.max((1 - k) * (1 + k), 1e-300));

/** Ratio sinh(a)/sinh(b) for large arguments too. */
const sinhRatio = (a: number, b: number): number => Math.exp(a - b) * ((1 - Math.exp(-2 * a)) / (1 - Math.exp(-2 * b)));

interface Line {
  impedance: number;
  permittivity: number;
}

/** Strip of width w, gaps g to wide grounds, on a board of thickness h, nothing below (Veyres and Fouad Hanna 1980; Ghione and Naldi 1984). */
export function coplanarLine(w: number, g: number, er: number, h: number, f: number): Line {
  const k = w / (w + 2 * g);
  const k1 = sinhRatio((Math.PI * w) / (4 * h), (Math.PI * (w + 2 * g)) / (4 * h));
  const air = ellipticRatio(k, complement(k));
  const e0 = 1 + ((er - 1) / 2) * (air / ellipticRatio(k1, complement(k1)));
  const permittivity = dispersed(e0, w, g, er, h, f);
  return { permittivity, impedance: ((eta0 / 4) * air) / Math.sqrt(permittivity) };
}

/** Dispersion (Hasnain et al. 1986, as given by Frankel et al. 1991). */
function dispersed(e0: number, w: number, g: number, er: number, h: number, f: number): number {
  if (f <= 0 || er <= 1) return e0;
  const q = Math.log(w / h);
  const te = c0 / (4 * h * Math.sqrt(er - 1));
  const a = Math.exp((0.54 - 0.64 * q + 0.015 * q * q) * Math.log(w / g) + 0.43 - 0.86 * q + 0.54 * q * q);
  return (Math.sqrt(e0) + (Math.sqrt(er) - Math.sqrt(e0)) / (1 + a * (f / te) ** -1.8)) ** 2;
}

/** The same line with a ground plane under the board (Ghione and Naldi 1987). */
export function groundedCoplanarLine(w: number, g: number, er: number, h: number): Line {
  const k = w / (w + 2 * g);
  const [a, b] = [(Math.PI * w) / (4 * h), (Math.PI * (w + 2 * g)) / (4 * h)];
  const k3 = Math.tanh(a) / Math.tanh(b);
  const top = 1 / ellipticRatio(k, complement(k));
  const bottom = 1 / ellipticRatio(k3, complement(k3));
  const permittivity = (top + er * bottom) / (top + bottom);
  return { permittivity, impedance: eta0 / 2 / Math.sqrt(permittivity) / (top + bottom) };
}

const gap: FormulaArgument = { name: 'g', about: 'gap on each side', quantity: 'length', example: '0.2 mm' };
const common = {
  family: 'Coplanar line',
  source:
    'C. Veyres, V. Fouad Hanna, Int. J. Electron. 48, 47, 1980; G. Ghione, C. Naldi, Electron. Lett. 20, 179, 1984; dispersion: M. Y. Frankel et al., IEEE Trans. MTT-39, 910, 1991',
  range:
    'strips of no thickness, wide grounds; static part 1 to 2 %; dispersion for 0.1 < w/g < 5, 0.1 < w/h < 5, 1.5 < er < 50, f < 10 c/(4 h sqrt(er-1))',
};
const grounded = {
  family: 'Grounded coplanar line',
  source: 'G. Ghione, C. Naldi, Coplanar waveguides for MMIC applications, IEEE Trans. MTT-35, 260, 1987',
  range:
    'strips of no thickness, wide grounds, gaps up to about the thickness of the board, quasi-static (the frequency has no effect); about 1 to 2 %',
};
const line = [widthArgument, gap, permittivityArgument, heightArgument, frequencyArgument];
const synthesis = [impedanceArgument, gap, permittivityArgument, heightArgument, frequencyArgument];
const none = (z: number): [string, string] => [
  `No such line with this gap has ${Number(z.toPrecision(4))} ohm.`,
  'Widen the gap for a higher impedance, narrow it for a lower one.',
];

export const coplanar: Formula[] = [
  {
    ...common,
    name: 'coplanar_impedance',
    title: 'Impedance of a coplanar line',
    about: 'Characteristic impedance of a strip between two wide grounds on a board',
    args: line,
    result: 'resistance',
    compute: ([w, g, er, h, f]) => (needPermittivity(er), { si: coplanarLine(w, g, er, h, f).impedance }),
  },
  {
    ...common,
    name: 'coplanar_permittivity',
    title: 'Effective permittivity of a coplanar line',
    about: 'Square of the ratio of the speed of light to the phase speed on the line',
    args: line,
    result: 'number',
    compute: ([w, g, er, h, f]) => (needPermittivity(er), { si: coplanarLine(w, g, er, h, f).permittivity }),
  },
  {
    ...common,
    name: 'coplanar_width',
    title: 'Width of a coplanar line for an impedance',
    about: 'The strip width that gives the impedance with this gap',
    args: synthesis,
    result: 'length',
    compute: ([z, g, er, h, f]) => {
      needPermittivity(er);
      return { si: solveMonotonic((w) => coplanarLine(w, g, er, h, f).impedance - z, 1e-4 * g, 1e4 * g, ...none(z)) };
    },
  },
  {
    ...grounded,
    name: 'grounded_coplanar_impedance',
    title: 'Impedance of a grounded coplanar line',
    about: 'Characteristic impedance of a strip between two wide grounds, with a ground plane under the board',
    args: line,
    result: 'resistance',
    compute: ([w, g, er, h]) => (needPermittivity(er), { si: groundedCoplanarLine(w, g, er, h).impedance }),
  },
  {
    ...grounded,
    name: 'grounded_coplanar_permittivity',
    title: 'Effective permittivity of a grounded coplanar line',
    about: 'Square of the ratio of the speed of light to the phase speed on the line',
    args: line,
    result: 'number',
    compute: ([w, g, er, h]) => (needPermittivity(er), { si: groundedCoplanarLine(w, g, er, h).permittivity }),
  },
  {
    ...grounded,
    name: 'grounded_coplanar_width',
    title: 'Width of a grounded coplanar line for an impedance',
    about: 'The strip width that gives the impedance with this gap',
    args: synthesis,
    result: 'length',
    compute: ([z, g, er, h]) => {
      needPermittivity(er);
      return { si: solveMonotonic((w) => groundedCoplanarLine(w, g, er, h).impedance - z, 1e-4 * g, 20 * h, ...none(z)) };
    },
  },
];
