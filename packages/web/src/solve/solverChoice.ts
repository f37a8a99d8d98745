import type { Project } from '@jadebell/core/document';
import type { View } from '../workers/protocol.ts';

type SolverName = Project['solve']['solver'];

/** What a solver is to the person who chooses it. */
export const solverTexts: Record<SolverName, { title: string; about: string; accuracy: Record<Project['solve']['accuracy'], string> }> = {
  fdtd: {
    title: 'Time domain',
    about: 'fields on a grid in time; one run covers the band; takes any body',
    accuracy: {
      draft: 'quick look: 12 cells a wavelength, 2 across strips',
      normal: 'for daily work: 18 cells a wavelength, 4 across strips',
      fine: 'for the final word: 28 cells a wavelength, 6 across strips',
      certain: 'passes on finer grids, refined where the field changes fast, until S changes twice by less than 0.01',
    },
  },
  moment: {
    title: 'Wires',
    about: 'currents on thin round wires by an integral equation; no grid, no boundary; a whole band in seconds',
    accuracy: {
      draft: 'quick look: 20 segments a wavelength',
      normal: 'for daily work: 40 segments a wavelength, 8 times shorter at gaps and free ends',
      fine: 'for the final word: 80 segments a wavelength, 16 times shorter at gaps and free ends',
      certain: 'passes with more segments each until S changes twice by less than 0.01',
    },
  },
};

/** The solver that suits a model, and why in one sentence; null for a model with nothing in it. */
export function recommended(view: Pick<View, 'bodies'>): { solver: SolverName; reason: string } | null {
  if (!view.bodies.length) return null;
  const other = view.bodies.find((b) => !b.wire || b.material.kind !== 'conductor');
  return other
    ? { solver: 'fdtd', reason: `${other.name} is no wire, so the fields around it are solved.` }
    : { solver: 'moment', reason: 'All bodies are round wires, which are solved by their currents alone.' };
}
