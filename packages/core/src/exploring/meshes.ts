import { settingOf } from '../document/index.ts';
import { type Limit, richardson } from '../numerics/richardson.ts';
import type { Moved } from './points.ts';
import type { SolvedPoint } from './tolerances.ts';

/** The parameter of a study that makes the mesh finer: the one setting of Solve that moves; null where none does, or others move too. */
export const meshMoved = (moved: readonly Moved[]): string | null =>
  moved.length === 1 && settingOf(moved[0].parameter) ? moved[0].parameter : null;

/** What a measure comes to on ever finer meshes, the finest first; sizes are those of a mesh of one of what moves. */
export interface MeshLimit {
  sizes: number[];
  figures: number[];
  /** Null where meshes are too few. */
  limit: Limit | null;
}

/** What a measure comes to as the values of a parameter make the mesh finer. */
export function meshLimit(parameter: string, measure: string, solved: readonly SolvedPoint[]): MeshLimit {
  const known = solved
    .flatMap(({ point, reads }) => {
      const [by, figure] = [point.values[parameter], reads.find((r) => r.name === measure)?.value];
      return by > 0 && typeof figure === 'number' ? [{ size: 1 / by, figure }] : [];
    })
    .sort((a, b) => a.size - b.size);
  const [sizes, figures] = [known.map((k) => k.size), known.map((k) => k.figure)];
  return { sizes, figures, limit: richardson(sizes, figures) };
}
