import type { MaterialEntry, Project } from '../document/index.ts';

/**
 * Generic materials. Figures are textbook values: metals from the conductivity tables in D. M. Pozar, Microwave
 * Engineering (4th ed., app. F); polymers, glasses and ceramics from A. R. von Hippel, Dielectric Materials and
 * Applications (1954), rounded. Laminates are typical of their class.
 */
export const library: readonly MaterialEntry[] = [
  { name: 'Air', kind: 'dielectric', permittivity: 1, lossTangent: 0 },
  { name: 'Perfect conductor', kind: 'conductor' },
  { name: 'Copper', kind: 'conductor', conductivity: 5.813e7 },
  { name: 'Silver', kind: 'conductor', conductivity: 6.173e7 },
  { name: 'Gold', kind: 'conductor', conductivity: 4.098e7 },
  { name: 'Aluminium', kind: 'conductor', conductivity: 3.816e7 },
  { name: 'Brass', kind: 'conductor', conductivity: 2.564e7 },
  { name: 'Polyimide film', kind: 'dielectric', permittivity: 3.4, lossTangent: 0.003, atFrequency: 1e9 },
  { name: 'Polyester film', kind: 'dielectric', permittivity: 3.2, lossTangent: 0.005, atFrequency: 1e9 },
  { name: 'Glass-epoxy laminate', kind: 'dielectric', permittivity: 4.3, lossTangent: 0.02, atFrequency: 1e9 },
  { name: 'Low-loss laminate', kind: 'dielectric', permittivity: 3.5, lossTangent: 0.002, atFrequency: 1e10 },
  { name: 'PTFE', kind: 'dielectric', permittivity: 2.1, lossTangent: 0.0002, atFrequency: 3e9 },
  { name: 'Polyethylene', kind: 'dielectric', permittivity: 2.25, lossTangent: 0.0004, atFrequency: 1e10 },
  { name: 'Polystyrene', kind: 'dielectric', permittivity: 2.54, lossTangent: 0.00033, atFrequency: 3e9 },
  { name: 'Alumina', kind: 'dielectric', permittivity: 9.8, lossTangent: 0.0003, atFrequency: 1e10 },
  { name: 'Fused silica', kind: 'dielectric', permittivity: 3.78, lossTangent: 0.0001, atFrequency: 3e9 },
  { name: 'Window glass', kind: 'dielectric', permittivity: 6.4, lossTangent: 0.012, atFrequency: 3e9 },
  { name: 'Dry wood', kind: 'dielectric', permittivity: 1.9, lossTangent: 0.03, atFrequency: 3e9 },
];

/** The project's own material of that name, or the library's; null if neither has it. */
export const findMaterial = (project: Project, name: string): MaterialEntry | null =>
  project.materials.find((m) => m.name === name) ?? library.find((m) => m.name === name) ?? null;

/** One line on what a material is, for lists: 'er 3.4, tan d 0.003 at 1 GHz'. */
export function materialSummary(m: MaterialEntry): string {
  if (m.kind === 'conductor') return m.conductivity ? `${m.conductivity.toExponential(2)} S/m` : 'perfect';
  const loss = m.lossTangent ? `, loss tangent ${m.lossTangent}${m.atFrequency ? ` at ${m.atFrequency / 1e9} GHz` : ''}` : '';
  return `permittivity ${m.permittivity ?? 1}${loss}`;
}
