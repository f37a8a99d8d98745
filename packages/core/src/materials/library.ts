import type { MaterialEntry } from '../entries/index.ts';

import { c0 } from '../numerics/constants.ts';

/** Groups of the library, in the order of the page. */
export const materialGroups = [
  'Gases',
  'Metals',
  'Polymers',
  'Laminates',
  'Ceramics and glasses',
  'Natural',
  'Magnetic',
  'Optical',
  'Metals in the infrared',
] as const;
export type LibraryMaterial = MaterialEntry & { group: (typeof materialGroups)[number] };

const pozar = 'D. M. Pozar, Microwave Engineering, 4th ed., appendix F';
const hippel = 'A. R. von Hippel, Dielectric Materials and Applications, 1954, rounded';
const typical = 'typical of its class';
const metal = (name: string, conductivity: number, permeability?: number): LibraryMaterial => ({
  name,
  kind: 'conductor',
  conductivity,
  ...(permeability ? { permeability } : {}),
  source: pozar,
  group: 'Metals',
});
const plain = (
  group: LibraryMaterial['group'],
  source: string,
  name: string,
  permittivity: number,
  lossTangent: number,
  atFrequency: number,
): LibraryMaterial => ({
  name,
  kind: 'dielectric',
  permittivity,
  lossTangent,
  atFrequency,
  source,
  group,
});
/** Frequencies between which a formula holds, from vacuum wavelengths in micrometres. */
const between = (short: number, long: number): [number, number] => [c0 / (long * 1e-6), c0 / (short * 1e-6)];
const optical = (name: string, source: string, waves: [number, number], terms: [number, number][], constant = 1): LibraryMaterial => ({
  name,
  kind: 'dielectric',
  dispersion: { form: 'sellmeier', constant, terms },
  range: between(...waves),
  source,
  group: 'Optical',
});
const ordal = 'M. A. Ordal et al., Appl. Opt. 24, 4493, 1985 (Drude fit)';

/** Generic materials; no maker's products. Each names where its figures come from and the frequency or range they hold for. */
export const library: readonly LibraryMaterial[] = [
  { name: 'Vacuum', kind: 'dielectric', permittivity: 1, lossTangent: 0, group: 'Gases' },
  { name: 'Air', kind: 'dielectric', permittivity: 1, lossTangent: 0, note: 'Taken as vacuum; 1.0006 at sea level', group: 'Gases' },
  { name: 'Perfect conductor', kind: 'conductor', group: 'Metals' },
  metal('Copper', 5.813e7),
  metal('Silver', 6.173e7),
  metal('Gold', 4.098e7),
  metal('Aluminium', 3.816e7),
  metal('Brass', 2.564e7),
  metal('Bronze', 1e7),
  metal('Tungsten', 1.825e7),
  metal('Zinc', 1.67e7),
  metal('Nickel', 1.449e7, 100),
  metal('Solder', 7e6),
  metal('Stainless steel', 1.1e6),
  plain('Polymers', typical, 'Polyimide film', 3.4, 0.003, 1e9),
  plain('Polymers', typical, 'Polyester film', 3.2, 0.005, 1e9),
  plain('Polymers', hippel, 'PTFE', 2.1, 0.0002, 3e9),
  plain('Polymers', hippel, 'Polyethylene', 2.25, 0.0004, 1e10),
  plain('Polymers', hippel, 'Polystyrene', 2.54, 0.00033, 3e9),
  plain('Polymers', hippel, 'Acrylic glass', 2.6, 0.0057, 3e9),
  plain('Polymers', hippel, 'Nylon', 2.84, 0.012, 3e9),
  plain('Polymers', typical, 'ABS', 2.7, 0.008, 3e9),
  plain('Polymers', typical, 'Polycarbonate', 2.8, 0.006, 3e9),
  plain('Polymers', typical, 'Polystyrene foam', 1.03, 0.0001, 3e9),
  plain('Laminates', typical, 'Glass-epoxy laminate', 4.3, 0.02, 1e9),
  plain('Laminates', typical, 'Low-loss laminate', 3.5, 0.002, 1e10),
  plain('Laminates', typical, 'Glass-PTFE laminate', 2.2, 0.0009, 1e10),
  plain('Laminates', typical, 'Ceramic-PTFE laminate', 10.2, 0.0023, 1e10),
  plain('Laminates', typical, 'Liquid-crystal polymer laminate', 2.9, 0.0025, 1e10),
  plain('Ceramics and glasses', hippel, 'Alumina', 9.8, 0.0003, 1e10),
  plain('Ceramics and glasses', hippel, 'Fused silica', 3.78, 0.0001, 3e9),
  plain('Ceramics and glasses', hippel, 'Window glass', 6.4, 0.012, 3e9),
  plain('Ceramics and glasses', typical, 'Aluminium nitride', 8.8, 0.0005, 1e10),
  plain('Ceramics and glasses', typical, 'Zirconia', 25, 0.002, 1e10),
  plain('Ceramics and glasses', pozar, 'Gallium arsenide (microwave)', 13, 0.006, 1e10),
  plain('Ceramics and glasses', pozar, 'Silicon (microwave)', 11.9, 0.004, 1e10),
  { name: 'Sapphire (microwave)', kind: 'dielectric', permittivityAlong: [9.4, 9.4, 11.6], lossTangent: 0.00006, atFrequency: 1e10, source: typical, note: 'Crystal axis along z', group: 'Ceramics and glasses' }, // prettier-ignore
  plain('Natural', hippel, 'Dry wood', 1.9, 0.03, 3e9),
  plain('Natural', hippel, 'Dry sandy soil', 2.55, 0.0062, 3e9),
  plain('Natural', hippel, 'Ice', 3.2, 0.0009, 3e9),
  { name: 'Fresh water, 25 C', kind: 'dielectric', dispersion: { form: 'debye', infinity: 5.2, static: 78.36, relaxation: 8.27e-12 }, range: [1e6, 5e10], source: 'U. Kaatze, J. Chem. Eng. Data 34, 371, 1989', group: 'Natural' }, // prettier-ignore
  { name: 'Absorber, magnetic', kind: 'dielectric', permittivity: 9, lossTangent: 0.02, permeability: 2.5, magneticLossTangent: 0.4, atFrequency: 5e9, source: typical, group: 'Magnetic' }, // prettier-ignore
  { name: 'Ferrite, low loss', kind: 'dielectric', permittivity: 13, lossTangent: 0.005, permeability: 10, magneticLossTangent: 0.02, atFrequency: 1e8, source: typical, group: 'Magnetic' }, // prettier-ignore
  optical('Fused silica (optical)', 'I. H. Malitson, J. Opt. Soc. Am. 55, 1205, 1965', [0.21, 3.71], [[0.6961663, 0.0684043], [0.4079426, 0.1162414], [0.8974794, 9.896161]]), // prettier-ignore
  optical('Silicon (optical)', 'C. D. Salzberg, J. J. Villa, J. Opt. Soc. Am. 47, 244, 1957', [1.36, 11], [[10.6684293, 0.301516485], [0.0030434748, 1.13475115], [1.54133408, 1104]]), // prettier-ignore
  optical('Silicon nitride (optical)', 'K. Luke et al., Opt. Lett. 40, 4823, 2015', [0.31, 5.5], [[3.0249, 0.1353406], [40314, 1239.842]]), // prettier-ignore
  optical('Gallium arsenide (optical)', 'T. Skauli et al., J. Appl. Phys. 94, 6447, 2003', [0.97, 17], [[5.466742, 0.4431307], [0.0242996, 0.8746453], [1.957522, 36.9166]], 5.372514), // prettier-ignore
  optical('Indium phosphide (optical)', 'G. D. Pettit, W. J. Turner, J. Appl. Phys. 36, 2081, 1965', [0.95, 10], [[2.316, 0.6263], [2.765, 32.935]], 7.255), // prettier-ignore
  optical('Sapphire, ordinary ray', 'I. H. Malitson, M. J. Dodge, J. Opt. Soc. Am. 62, 1405, 1972', [0.2, 5], [[1.4313493, 0.0726631], [0.65054713, 0.1193242], [5.3414021, 18.028251]]), // prettier-ignore
  optical('Lithium niobate, ordinary ray', 'D. E. Zelmon et al., J. Opt. Soc. Am. B 14, 3319, 1997', [0.4, 5], [[2.6734, Math.sqrt(0.01764)], [1.229, Math.sqrt(0.05914)], [12.614, Math.sqrt(474.6)]]), // prettier-ignore
  ...([['Gold', 72800, 215], ['Silver', 72700, 145], ['Aluminium', 119000, 660]] as const).map(([name, plasma, collision]): LibraryMaterial => ({ name: `${name} (infrared)`, kind: 'dielectric', dispersion: { form: 'drude', infinity: 1, plasma, collision }, range: between(1, 50), source: ordal, group: 'Metals in the infrared' })), // prettier-ignore
];

/** The project's own material of that name, or the library's; null if neither has it. */
export const findMaterial = (project: { materials: readonly MaterialEntry[] }, name: string): MaterialEntry | null =>
  project.materials.find((m) => m.name === name) ?? byName.get(name) ?? null;
const byName = new Map(library.map((m) => [m.name, m]));

/** A frequency in words: '2.4 GHz'. */
export const frequencyText = (f: number): string => (f >= 1e12 ? `${Number((f / 1e12).toPrecision(3))} THz` : f >= 1e9 ? `${Number((f / 1e9).toPrecision(3))} GHz` : `${Number((f / 1e6).toPrecision(3))} MHz`); // prettier-ignore

const formNames: Record<NonNullable<MaterialEntry['dispersion']>['form'], string> = {
  sellmeier: 'Sellmeier formula',
  debye: 'Debye formula',
  drude: 'Drude formula',
  lorentz: 'Lorentz formula',
  poles: 'poles and residues',
  table: 'table of values',
};

/** One line on what a material is, for lists: 'permittivity 3.4, loss tangent 0.003 at 1 GHz'. */
export function materialSummary(m: MaterialEntry): string {
  if (m.kind === 'conductor')
    return m.conductivity ? `${m.conductivity.toExponential(2)} S/m${m.permeability ? `, permeability ${m.permeability}` : ''}` : 'perfect';
  const at = m.atFrequency ? ` at ${frequencyText(m.atFrequency)}` : '';
  if (m.dispersion) return `${formNames[m.dispersion.form]}${m.range ? `, ${frequencyText(m.range[0])} to ${frequencyText(m.range[1])}` : ''}`;
  const parts = [`permittivity ${m.permittivityAlong?.join(', ') ?? m.permittivity ?? 1}`];
  if (m.lossTangent) parts.push(`loss tangent ${m.lossTangent}`);
  if (m.permeability || m.permeabilityAlong) parts.push(`permeability ${m.permeabilityAlong?.join(', ') ?? m.permeability}`);
  if (m.magneticLossTangent) parts.push(`magnetic loss tangent ${m.magneticLossTangent}`);
  return `${parts.join(', ')}${at}`;
}
