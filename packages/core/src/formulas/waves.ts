import { c0, type Formula, type FormulaArgument, FormulaFault, mu0, needPermittivity } from './formula.ts';

const frequency: FormulaArgument = { name: 'f', about: 'frequency', quantity: 'frequency', example: '10 GHz' };
const filling: FormulaArgument = { name: 'er', about: 'relative permittivity of the filling', quantity: 'number', otherwise: 1, example: '1' };
const broad: FormulaArgument = { name: 'a', about: 'width of the guide', quantity: 'length', example: '15.8 mm' };
const narrow: FormulaArgument = { name: 'b', about: 'height of the guide', quantity: 'length', example: '7.9 mm' };
const index = (name: string, otherwise: number): FormulaArgument => ({
  name,
  about: `mode index ${name}`,
  quantity: 'number',
  otherwise,
  anyReal: true,
  example: String(otherwise),
});

const plane = { family: 'Waves', source: 'closed form of the plane wave', range: 'exact' };
const guide = {
  family: 'Rectangular guide',
  source: 'closed form; D. M. Pozar, Microwave Engineering, 4th ed., section 3.3',
  range: 'exact for perfect walls and a homogeneous filling',
};

/**
 * Cutoff of a mode, hertz.
 * @throws FormulaFault for indices that are no mode.
 */
export function guideCutoff(a: number, b: number, m: number, n: number, er: number): number {
  needPermittivity(er);
  if (m < 0 || n < 0 || m % 1 || n % 1 || m + n === 0)
    throw new FormulaFault('The mode indices must be whole numbers, not both zero.', 'Give 1, 0 for the lowest mode.');
  return (c0 / (2 * Math.sqrt(er))) * Math.hypot(m / a, n / b);
}

export const waves: Formula[] = [
  {
    ...plane,
    name: 'wavelength',
    title: 'Wavelength',
    about: 'Length of a plane wave in a medium',
    args: [frequency, { ...filling, about: 'relative permittivity of the medium' }],
    result: 'length',
    compute: ([f, er]) => (needPermittivity(er), { si: c0 / f / Math.sqrt(er) }),
  },
  {
    family: 'Waves',
    name: 'skin_depth',
    title: 'Skin depth',
    about: 'Depth at which the current in a good conductor has fallen to 1/e',
    args: [
      { name: 'sigma', about: 'conductivity', quantity: 'conductivity', example: '58 MS/m' },
      frequency,
      { name: 'mur', about: 'relative permeability', quantity: 'number', otherwise: 1, example: '1' },
    ],
    result: 'length',
    source: 'closed form; D. M. Pozar, Microwave Engineering, 4th ed., eq. 1.60',
    range: 'good conductors: sigma much larger than 2 pi f eps0',
    compute: ([sigma, f, mur]) => ({ si: 1 / Math.sqrt(Math.PI * f * mu0 * mur * sigma) }),
  },
  {
    ...guide,
    name: 'guide_cutoff',
    title: 'Cutoff of a rectangular guide',
    about: 'Frequency below which a mode does not propagate',
    args: [broad, narrow, index('m', 1), index('n', 0), filling],
    result: 'frequency',
    compute: ([a, b, m, n, er]) => ({ si: guideCutoff(a, b, m, n, er) }),
  },
  {
    ...guide,
    name: 'guide_wavelength',
    title: 'Guided wavelength',
    about: 'Wavelength of a propagating mode along the guide',
    args: [frequency, broad, narrow, index('m', 1), index('n', 0), filling],
    result: 'length',
    compute: ([f, a, b, m, n, er]) => {
      const fc = guideCutoff(a, b, m, n, er);
      if (f <= fc)
        throw new FormulaFault(
          `The mode is cut off below ${(fc / 1e9).toPrecision(4)} GHz, so it has no wavelength.`,
          'Raise the frequency or widen the guide.',
        );
      return { si: c0 / Math.sqrt(er) / Math.sqrt((f - fc) * (f + fc)) };
    },
  },
];
