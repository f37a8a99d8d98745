import {
  type Place,
  type Problem,
  problem,
  type Project,
  sectionAxes,
  sectionChips,
  type SectionEdge,
  type SectionEntry,
} from '../document/index.ts';
import { evaluateChips, type Scope } from '../expressions/index.ts';
import type { Axis } from '../numerics/axis.ts';

/** A cross-section in space, in SI. Pairs belong to the two axes of its plane in the order x, y, z. */
export interface SceneSection {
  name: string;
  normal: Axis;
  axes: [Axis, Axis];
  at: number;
  min: [number, number];
  max: [number, number];
  edges: [SectionEdge, SectionEdge, SectionEdge, SectionEdge];
  modes: number;
  /** Hertz. */
  frequency: number;
  /** Effective index near which modes are sought; 0: the highest. */
  near: number;
  /** Radius in metres of either sign, and which of the axes it lies along. */
  bend: { radius: number; axis: 0 | 1 } | null;
  grid: { perWavelength: number } | { cell: [number, number] };
  boxes: { min: [number, number]; max: [number, number]; cell: number }[];
  /** Of a guided port cut by planes of symmetry: impedance of the whole over that of this part; absent: 1. */
  wholeImpedance?: number;
  /** Axes across which it is half of the whole; absent: none. */
  halved?: boolean[];
  /** Makes all cells finer, those that follow metal's features too; absent: 1. */
  finer?: number;
}

/** The sections of a project that can be solved, and what is wrong with the others. */
export function resolveSections({ sections }: Project, scope: Scope): { sections: SceneSection[]; problems: Problem[] } {
  const found = sections.map((entry) => resolveSection(entry, scope));
  return {
    sections: found.flatMap((f) => ('section' in f ? [f.section] : [])),
    problems: found.flatMap((f) => ('problems' in f ? f.problems : [])),
  };
}

/** Reads a section of the document. */
export function resolveSection(entry: SectionEntry, scope: Scope): { section: SceneSection } | { problems: Problem[] } {
  const place: Place = { part: 'sections', name: entry.name };
  const { values: v, problems } = evaluateChips(entry, sectionChips(entry), scope, place);
  if (!v) return { problems };
  const names = sectionAxes(entry);
  const fail = (chip: string, code: string, message: string, fix: string): { problems: Problem[] } => ({
    problems: [problem('error', code, { ...place, chip }, message, fix)],
  });
  const order = (i: 0 | 1, f: (a: number, b: number) => number): number => f(v[`from.${i}`], v[`to.${i}`]);
  const [min, max] = [Math.min, Math.max].map((f) => [order(0, f), order(1, f)] as [number, number]);
  for (const i of [0, 1])
    if (!(max[i] > min[i])) return fail(`to.${i}`, 'section.zero', `The section has no extent along ${names[i]}.`, 'Move one of its corners.');
  if (v.near < 0) return fail('near', 'section.near', 'The index sought is negative.', 'Give 0 for the highest, or a positive index.');
  const axis = entry.about === 'first' ? 0 : 1;
  const extent = (max[axis] - min[axis]) / 2;
  if (v.bend !== 0 && Math.abs(v.bend) <= extent)
    return fail('bend', 'section.bend', 'The bend is so tight that its centre lies within the section.', 'Enlarge the radius, narrow the section, or give 0 for a straight guide.'); // prettier-ignore
  const boxes = entry.boxes.map((_, i) => {
    const at = (k: number): number => v[`boxes.${i}.${k}`];
    return {
      min: [Math.min(at(0), at(1)), Math.min(at(2), at(3))] as [number, number],
      max: [Math.max(at(0), at(1)), Math.max(at(2), at(3))] as [number, number],
      cell: at(4),
    };
  });
  return {
    section: {
      name: entry.name,
      normal: 'xyz'.indexOf(entry.normal) as Axis,
      axes: [...names].map((n) => 'xyz'.indexOf(n)) as SceneSection['axes'],
      at: v.at,
      min,
      max,
      edges: entry.edges,
      modes: v.modes,
      frequency: v.frequency,
      near: v.near,
      bend: v.bend === 0 ? null : { radius: v.bend, axis },
      // Strips, gaps and layers get twice the cells that they have in a whole model.
      ...(entry.grid === 'automatic' ? { grid: { perWavelength: v.perWavelength / 2 }, finer: 2 } : { grid: { cell: [v['cell.0'], v['cell.1']] } }),
      boxes,
    },
  };
}
