import { eta0, type Formula, type FormulaArgument, FormulaFault, impedanceArgument, needPermittivity, permittivityArgument } from './formula.ts';

const inner: FormulaArgument = { name: 'd', about: 'diameter of the inner conductor', quantity: 'length', example: '1.3 mm' };
const outer: FormulaArgument = { name: 'D', about: 'inside diameter of the outer conductor', quantity: 'length', example: '4.2 mm' };
const common = {
  family: 'Coaxial line',
  source: 'closed form of the TEM mode; D. M. Pozar, Microwave Engineering, 4th ed., table 2.1',
  range: 'exact for perfect round conductors, below the cutoff of the first higher mode',
};

export const coax: Formula[] = [
  {
    ...common,
    name: 'coax_impedance',
    title: 'Impedance of a coaxial line',
    about: 'Characteristic impedance of the TEM mode',
    args: [inner, outer, permittivityArgument],
    result: 'resistance',
    compute: ([d, D, er]) => {
      needPermittivity(er);
      if (D <= d) throw new FormulaFault('The outer conductor is not larger than the inner one.', 'Give the diameters as inner, outer.');
      return { si: (eta0 / (2 * Math.PI * Math.sqrt(er))) * Math.log(D / d) };
    },
  },
  {
    ...common,
    name: 'coax_inner',
    title: 'Inner diameter for an impedance',
    about: 'Diameter of the inner conductor that gives the impedance in this outer one',
    args: [impedanceArgument, outer, permittivityArgument],
    result: 'length',
    compute: ([z, D, er]) => (needPermittivity(er), { si: D * Math.exp((-2 * Math.PI * z * Math.sqrt(er)) / eta0) }),
  },
  {
    ...common,
    name: 'coax_outer',
    title: 'Outer diameter for an impedance',
    about: 'Inside diameter of the outer conductor that gives the impedance around this inner one',
    args: [impedanceArgument, inner, permittivityArgument],
    result: 'length',
    compute: ([z, d, er]) => (needPermittivity(er), { si: d * Math.exp((2 * Math.PI * z * Math.sqrt(er)) / eta0) }),
  },
];
