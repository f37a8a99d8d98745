import { axes, type Boundary, type Point3, type Problem, problem, type Project, sides } from '../../document/index.ts';
import type { Body } from '../../geometry/index.ts';
import { gridAccuracy } from '../../methods/index.ts';
import { c0 } from '../../numerics/constants.ts';
import { pointsOf, type SceneGuide, type ScenePort } from '../../ports/index.ts';
import type { Mirrors } from '../../yee/index.ts';
import type { Evaluate } from '../resolving.ts';
import type { PlacedSource } from '../sources.ts';
import { sameNumber } from '../../numerics/tolerance.ts';

/** The computed region: its inner corners, metres, and what closes its sides. */
export interface SceneRegion {
  min: Point3;
  max: Point3;
  boundaries: Boundary[];
}

/** What a region has to hold. */
export interface Contents {
  bodies: readonly Body[];
  ports: readonly ScenePort[];
  guides: readonly SceneGuide[];
  sources: readonly PlacedSource[];
}

/** What closes the sides of the computed region: those of the project, planes of symmetry in place of the low ones. */
export const boundariesOf = ({ boundaries }: Project, mirrors: Mirrors): Boundary[] =>
  sides.map((s, i) => (i % 2 ? boundaries[s] : (mirrors[i >> 1]?.wall ?? boundaries[s])));

/** A periodic side without its like. */
export function unpaired(boundaries: readonly Boundary[], mirrors: Mirrors): Problem[] {
  const fault = axes.findIndex((_, a) => (boundaries[2 * a] === 'periodic') !== (boundaries[2 * a + 1] === 'periodic'));
  if (fault < 0) return [];
  return [
    problem(
      'error',
      'boundary.periodic',
      { part: 'boundaries' },
      mirrors[fault]
        ? `Across ${axes[fault]} there is a plane of symmetry, so that axis cannot be periodic.`
        : `Across ${axes[fault]} only one side is periodic.`,
      mirrors[fault] ? 'Take walls in place of the periodic sides, or remove the symmetry.' : 'Make both sides of that axis periodic.',
    ),
  ];
}

/** Distance from what is modelled to open sides, metres: as asked for, but never less than the cells that a source needs there. */
export function marginOf(project: Project, { from, to }: { from: number; to: number }, sources: readonly PlacedSource[], value: Evaluate): number {
  const asked = project.margin ? value(project.margin, 'length', { part: 'boundaries', chip: 'margin' }) : c0 / from / 4;
  const coarsest = gridAccuracy.draft.cellsPerWavelength;
  const cell = c0 / to / Math.min(coarsest, project.solve.details?.cellsPerWavelength ?? coarsest);
  return asked >= 0 ? Math.max(asked, (sources[0]?.kind.room ?? 0) * cell) : asked;
}

/** The region, metres, around all that it has to hold, the margin beyond at open sides; it begins at planes of symmetry. */
export function regionAround({ bodies, ports, guides, sources }: Contents, boundaries: Boundary[], margin: number, mirrors: Mirrors): SceneRegion {
  const points = sources.flatMap(({ placed }) => pointsOf(placed));
  const held = [...bodies, ...ports, ...guides];
  const room = (side: number): number => (boundaries[side] === 'open' ? margin : 0);
  const min = [0, 1, 2].map((a) => Math.min(...held.map((b) => b.min[a]), ...points.map((p) => p[a])) - room(2 * a)) as Point3;
  const max = [0, 1, 2].map((a) => Math.max(...held.map((b) => b.max[a]), ...points.map((p) => p[a])) + room(2 * a + 1)) as Point3;
  return { min: min.map((x, a) => mirrors[a]?.at ?? x) as Point3, max, boundaries };
}

/** The region with what lies behind planes of symmetry. */
export const wholeOf = ({ min, max }: Pick<SceneRegion, 'min' | 'max'>, mirrors: Mirrors): { min: Point3; max: Point3 } => ({
  min: min.map((x, a) => (mirrors[a] ? 2 * mirrors[a].at - max[a] : x)) as Point3,
  max,
});

/** Sides of a guided port that lie on magnetic sides of the region; absent: none. */
export function magneticSides(g: SceneGuide, { min, max, boundaries }: SceneRegion): { magnetic?: boolean[] } {
  const slack = sameNumber * Math.max(...max.map((m, a) => m - min[a]));
  const onSide = (s: number): boolean => Math.abs((s & 1 ? g.max : g.min)[s >> 1] - (s & 1 ? max : min)[s >> 1]) <= slack;
  const magnetic = boundaries.map((b, s) => b === 'magnetic' && s >> 1 !== g.normal && onSide(s));
  return magnetic.includes(true) ? { magnetic } : {};
}
