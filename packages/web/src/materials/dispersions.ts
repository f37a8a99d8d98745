import type { MaterialEntry } from '@jadebell/core/document';

export type Dispersion = NonNullable<MaterialEntry['dispersion']>;
export type Form = Dispersion['form'];

/** A figure or a list of rows of a formula: how it is called, what unit it is typed in. */
export interface Figure {
  key: string;
  label: string;
  unit?: string;
  scale?: number;
}
export interface Rows {
  key: string;
  label: string;
  /** Factor of each column. */
  scale: number[];
}
interface FormEntry {
  title: string;
  make: Dispersion;
  figures: Figure[];
  rows?: Rows;
}

const infinity: Figure = { key: 'infinity', label: 'permittivity at infinite frequency' };
/** Ways in which a permittivity may depend on frequency; the keys are those of the document. */
export const dispersions: Record<Form, FormEntry> = {
  debye: {
    title: 'relaxation (Debye)',
    make: { form: 'debye', infinity: 3, static: 6, relaxation: 1e-11 },
    figures: [infinity, { key: 'static', label: 'static permittivity' }, { key: 'relaxation', label: 'relaxation time', unit: 'ps', scale: 1e-12 }],
  },
  lorentz: {
    title: 'resonances (Lorentz)',
    make: { form: 'lorentz', infinity: 2, terms: [[0.5, 1e10, 1e9]] },
    figures: [infinity],
    rows: { key: 'terms', label: 'rise, resonance in GHz, damping in GHz', scale: [1, 1e9, 1e9] },
  },
  drude: {
    title: 'free carriers (Drude)',
    make: { form: 'drude', infinity: 1, plasma: 72800, collision: 215 },
    figures: [infinity, { key: 'plasma', label: 'plasma frequency', unit: '1/cm' }, { key: 'collision', label: 'collision frequency', unit: '1/cm' }],
  },
  sellmeier: {
    title: 'index formula (Sellmeier)',
    make: { form: 'sellmeier', constant: 1, terms: [[1.1, 0.1]] },
    figures: [{ key: 'constant', label: 'constant' }],
    rows: { key: 'terms', label: 'B, C in um', scale: [1, 1] },
  },
  poles: {
    title: 'poles and residues',
    make: { form: 'poles', infinity: 2, poles: [[-6e9, 6e10, 0, -2e10]] },
    figures: [infinity],
    rows: { key: 'poles', label: 'Re p, Im p, Re r, Im r in rad/s', scale: [1, 1, 1, 1] },
  },
  table: {
    title: 'table of values',
    make: { form: 'table', points: [[1e9, 4, 0.04], [1e10, 3.9, 0.05]] }, // prettier-ignore
    figures: [],
    rows: { key: 'points', label: 'frequency in GHz, real part, loss part', scale: [1e9, 1, 1] },
  },
};
