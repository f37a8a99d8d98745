import type { Project, Study } from '../document/index.ts';
import { evaluateParameters } from '../expressions/index.ts';
import { between, fewestPoints, type FigureSpread, type Kept, movedSpread, type Tolerance, type ToleranceTask } from '../searching/index.ts';
import { unitOfMeasure } from './formulas.ts';
import { goalsOf, limitsOf } from './goals.ts';
import type { Read } from './measures.ts';
import { linksOf, type Moved, type Point, spreadsOf } from './points.ts';

/** A point with what was read from it. */
export interface SolvedPoint {
  point: { values: Point['values']; check?: boolean };
  reads: readonly Read[];
}

/** Where a parameter moves, as the edge of the unit cube. */
export interface Edge {
  parameter: string;
  from: number;
  to: number;
}
/** Where each parameter of a study moves. */
export const edgesOf = (moved: readonly Moved[]): Edge[] =>
  moved.map(({ parameter, values }) => {
    const sis = values.map((v) => v.si);
    return { parameter, from: Math.min(...sis), to: Math.max(...sis) };
  });
const lengthOf = ({ from, to }: Edge): number => to - from || 1;
/** The place of a point in the unit cube. */
export const placeOf = (edges: readonly Edge[], values: Readonly<Record<string, number>>): number[] =>
  edges.map((e) => (e.to > e.from ? (values[e.parameter] - e.from) / (e.to - e.from) : 0.5));
/** How parameters are spread in the unit cube. */
export const cubeSpreads = (moved: readonly Moved[], edges: readonly Edge[]): ToleranceTask['spreads'] =>
  spreadsOf(moved).map((s, i) => movedSpread(s, 1 / lengthOf(edges[i]), -edges[i].from / lengthOf(edges[i])));

/** What parameters that vary make of one measure; `spread` is null where fewer than `fewest` points have it. */
export interface MeasureSpread {
  measure: string;
  unit: string;
  fewest: number;
  spread: (Omit<FigureSpread, 'worst'> & { worst: { value: number; values: Record<string, number> }[] }) | null;
}

/** What parameters that vary make of the measures of a study, in the units of these and parameters in SI. */
export interface ToldTolerance extends Pick<Tolerance, 'kept' | 'standardError'> {
  figures: MeasureSpread[];
  goals: { measure: string; unit: string; low: number | null; high: number | null; kept: Kept | null }[];
  centre: { values: Record<string, number>; kept: Kept } | null;
}

/** What is asked of the solved points of a study whose parameters vary, and how the answer is told. */
export function askTolerance(
  project: Project,
  study: Study,
  moved: readonly Moved[],
  solved: readonly SolvedPoint[],
): { task: ToleranceTask; tell(found: Tolerance): ToldTolerance } {
  const measures = project.measures ?? [];
  const edges = edgesOf(moved);
  const read = (name: string, check: boolean): { x: number[][]; y: number[] } => {
    const own = solved.flatMap(({ point, reads }) => {
      const value = reads.find((r) => r.name === name)?.value;
      return (point.check ?? false) === check && typeof value === 'number' ? [{ x: placeOf(edges, point.values), y: value }] : [];
    });
    return { x: own.map((o) => o.x), y: own.map((o) => o.y) };
  };
  const goals = goalsOf(project, 'studies', study, evaluateParameters(project)).sought.map((g) => ({ ...g, limits: limitsOf(g) }));
  const task: ToleranceTask = {
    spreads: cubeSpreads(moved, edges),
    links: linksOf(moved, study.links ?? []),
    figures: measures.map((m) => ({ ...read(m.name, false), checks: read(m.name, true), decibels: unitOfMeasure(m, project) === 'dB' })),
    limits: goals.map(({ measure, limits: [low, high] }) => ({ figure: measures.findIndex((m) => m.name === measure), low, high })),
    shifts: moved.map((m, i) => (m.varies?.shift ?? 0) / lengthOf(edges[i])),
  };
  const finite = (v: number): number | null => (Number.isFinite(v) ? v : null);
  return {
    task,
    tell: ({ figures, each, kept, standardError, centre }) => ({
      figures: measures.map(({ name }, i) => ({
        measure: name,
        unit: solved.flatMap((s) => s.reads.filter((r) => r.name === name && r.value !== null)).at(0)?.unit ?? '',
        fewest: fewestPoints(edges.length),
        spread: figures[i] && { ...figures[i], worst: figures[i].worst.map(({ value, place }) => ({ value, values: valuesAt(edges, place) })) },
      })),
      goals: goals.map(({ measure, unit, limits: [low, high] }, i) => ({ measure, unit, low: finite(low), high: finite(high), kept: each[i] })),
      kept,
      standardError,
      centre: centre && { values: centreOf(moved, edges, centre.steps), kept: centre.kept },
    }),
  };
}

/** Values of parameters at a place of the unit cube, in SI. */
const valuesAt = (edges: readonly Edge[], place: readonly number[]): Record<string, number> =>
  Object.fromEntries(edges.map((e, i) => [e.parameter, e.from + lengthOf(e) * place[i]]));

/** Where the middles of those parameters should lie that may be moved, in SI. */
const centreOf = (moved: readonly Moved[], edges: readonly Edge[], steps: readonly number[]): Record<string, number> =>
  Object.fromEntries(
    moved.flatMap(({ parameter, varies }, i): [string, number][] =>
      varies?.shift ? [[parameter, between(varies.spread, 0.5) + steps[i] * lengthOf(edges[i])]] : [],
    ),
  );
