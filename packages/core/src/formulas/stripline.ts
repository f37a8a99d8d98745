import {
  ellipticRatio,
  eta0,
  type Formula,
  FormulaFault,
  frequencyArgument,
  impedanceArgument,
  needPermittivity,
  permittivityArgument,
  solveMonotonic,
  widthArgument,
} from './formula.ts';

/** Impedance of a strip of no thickness midway between two planes at distance b; exact (Cohn 1954). */
export function striplineImpedance(w: number, er: number, b: number): number {
  const x = (Math.PI * w) / (2 * b);
  return (eta0 / (4 * Math.sqrt(er))) * ellipticRatio(Math.tanh(x), 1 / Math.cosh(x));
}

const spacing = { name: 'b', about: 'distance between the planes', quantity: 'length', example: '1 mm' } as const;
const common = {
  family: 'Stripline',
  source: 'S. B. Cohn, Characteristic impedance of the shielded-strip transmission line, IRE Trans. MTT-2, 52, 1954 (conformal mapping)',
  range: 'exact for a strip of no thickness midway between wide planes, all dielectric alike; no dispersion, so the frequency has no effect',
};

export const stripline: Formula[] = [
  {
    ...common,
    name: 'stripline_impedance',
    title: 'Impedance of a stripline',
    about: 'Characteristic impedance of a strip midway between two ground planes',
    args: [widthArgument, permittivityArgument, spacing, frequencyArgument],
    result: 'resistance',
    compute: ([w, er, b]) => {
      needPermittivity(er);
      const si = striplineImpedance(w, er, b);
      if (!Number.isFinite(si) || si <= 0) throw new FormulaFault('The strip is far too wide for its planes.', 'Make it narrower.');
      return { si };
    },
  },
  {
    ...common,
    name: 'stripline_width',
    title: 'Width of a stripline for an impedance',
    about: 'The width that gives the impedance between these planes',
    args: [impedanceArgument, permittivityArgument, spacing, frequencyArgument],
    result: 'length',
    compute: ([z, er, b]) => {
      needPermittivity(er);
      const fix = 'Choose an impedance nearer to 50 ohm.';
      return {
        si: b * solveMonotonic((u) => striplineImpedance(u, er, 1) - z, 1e-6, 20, `No stripline here has ${Number(z.toPrecision(4))} ohm.`, fix),
      };
    },
  },
];
