// What the interface has of its own for each method; a new one is a line here, which the compiler asks for.
import type { Port } from '@jadebell/core/document';
import type { SolverName } from '@jadebell/core/methods';
import type { ComponentType } from 'react';
import { BoundarySection } from './BoundarySection.tsx';
import { Excitation } from './Excitation.tsx';
import { GroundSection } from './GroundSection.tsx';
import { WireExcitation } from './WireExcitation.tsx';

interface MethodParts {
  /** What of the ports and sources is excited, under Feed. */
  Excitation: ComponentType<{ feeding: Port[] }>;
  /** What lies around the structure, under Feed. */
  Surroundings: ComponentType;
}

/** The parts of the interface for each method. */
export const methodParts: Record<SolverName, MethodParts> = {
  fdtd: { Excitation, Surroundings: BoundarySection },
  moment: { Excitation: WireExcitation, Surroundings: GroundSection },
};
