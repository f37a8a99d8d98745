// The numerical methods: one module each, from its words and settings to how its runs are judged. A new one is a module and a line here, and then the
// compiler asks for its scene builder, its solver and its part of the interface.
import { z } from 'zod';
import { fdtd } from './fdtd.ts';
import type { CommonEstimate, CommonEvidence, Method, SuitedBody } from './method.ts';
import { shapeOf } from './method.ts';
import { moment } from './moment.ts';

export * from './details.ts';
export * from './passes.ts';
export { accuracies, type Accuracy, type CommonEvidence, defaultChange, type Detail, type Method, type Rows } from './method.ts';
export { cellsPerWavelengthOf, gridAccuracy, mostCellsPerWavelength, steppingDefaults, type TimeEstimate, type TimeEvidence } from './fdtd.ts';
export { wireAccuracy, type WireEstimate, type WireEvidence } from './moment.ts';

/** Every method, in the order in which the interface offers them. */
const all = { fdtd, moment };
type Methods = typeof all;

/** Solvers by the name that a project has for them. */
export type SolverName = keyof Methods;
const solverNames = Object.keys(all) as [SolverName, ...SolverName[]];

/** How a run of a solver can be held against itself. */
export type EvidenceOf<N extends SolverName> = Parameters<Methods[N]['rows']>[0];
type EstimateOf<N extends SolverName> = Parameters<Methods[N]['costText']>[0];
export type Evidence = EvidenceOf<SolverName>;
export type Estimate = EstimateOf<SolverName>;

/** A method as those see it that treat all alike. */
export type AnyMethod = Method<CommonEvidence, CommonEstimate> & { name: SolverName };
export const methods = Object.values(all) as unknown as readonly AnyMethod[];
/** The method of a name. */
export const methodOf = (name: SolverName): AnyMethod => all[name] as unknown as AnyMethod;

/** The solver's name in a document. */
export const solverSchema = z.enum(solverNames).describe(methods.map((m) => `${m.name}: ${m.meaning}`).join('; '));
/** Settings by hand of all methods; each takes its own. */
export const detailsSchema = z.strictObject({ ...shapeOf(fdtd.details), ...shapeOf(moment.details) });
export type Details = z.infer<typeof detailsSchema>;

/** The settings by hand that are a method's own. */
export const detailsFor = <N extends SolverName>(name: N, details: Details = {}): Pick<Details, keyof Methods[N]['details'] & keyof Details> =>
  Object.fromEntries(Object.entries(details).filter(([key]) => key in all[name].details)) as never;

/** A cost in words, but for the time that it takes. */
export const costText = (cost: Estimate): string => methodOf(cost.solver).costText(cost);

/** A run's evidence and the solver it is of, as a result has them. */
export interface Judged {
  solver: SolverName;
  evidence: CommonEvidence;
}
/** How large a model was to its solver, in its own words. */
export const sizeOf = ({ solver, evidence }: Judged): { count: number; of: string } => ({
  count: methodOf(solver).size(evidence),
  of: methodOf(solver).unit,
});
/** What a run did, in words. */
export const effortText = ({ solver, evidence }: Judged): string => methodOf(solver).effortText(evidence);

/** The method that suits a model, and why in one sentence; null for a model with nothing in it. */
export function suitedTo(bodies: readonly SuitedBody[]): { solver: SolverName; reason: string } | null {
  for (const { name, suits } of methods) {
    const reason = suits(bodies);
    if (reason) return { solver: name, reason };
  }
  return null;
}
