import { lookAt, remembers } from '../../discretisation/componentRows.ts';
import type { Grid } from '../../grid/index.ts';
import type { FilledOverBand } from '../../geometry/index.ts';
import { modelAt, type PoleModel } from '../../materials/index.ts';
import { MediumClasses } from './dispersion.ts';
import { anisotropic, dielectricsOf } from '../../discretisation/media.ts';
import type { EdgeRow } from '../../discretisation/rows.ts';
import { sameMesh } from '../../numerics/tolerance.ts';

const axes = [0, 1, 2] as const;

/**
 * Tells the media with memory that edges lie in. The averages of the media, which hold at any one frequency, are taken at several,
 * and a passive model is fitted to what they give.
 */
export class SpectralRows {
  readonly classes: MediumClasses;
  private readonly boxes: { min: readonly number[]; max: readonly number[] }[];
  private readonly kinds: Uint16Array;
  private readonly values: Float64Array;
  private readonly last: Float64Array;

  /** Null where no medium of the scene has loss or dispersion. */
  static of(scene: FilledOverBand, grid: Grid, dt: number): SpectralRows | null {
    return remembers(scene)
      ? new SpectralRows(
          scene,
          grid,
          dt,
          axes.map((a) => dielectricsOf(scene, a)),
        )
      : null;
  }

  private constructor(
    scene: FilledOverBand,
    private readonly grid: Grid,
    dt: number,
    media: ReturnType<typeof dielectricsOf>[],
  ) {
    const frequencies = lookAt(scene);
    const differ = anisotropic(scene);
    const models = new Set((differ ? media : [media[0]]).flatMap((list) => list.flatMap((d) => (d?.model ? [d.model] : []))));
    const probe = (model: PoleModel): Float64Array =>
      Float64Array.from(
        frequencies.flatMap((f) => {
          const { re, loss } = modelAt(model, 2 * Math.PI * f);
          return [re, loss];
        }),
      );
    this.classes = new MediumClasses(dt, frequencies, [scene.band.from, scene.band.to], [...models].map((model) => ({ model, values: probe(model) }))); // prettier-ignore
    this.boxes = scene.bodies.filter((_, n) => media[0][n]?.model);
    this.kinds = new Uint16Array(grid.lines[0].length);
    this.values = new Float64Array(2 * frequencies.length);
    this.last = new Float64Array(2 * frequencies.length);
  }

  /** Class of each edge of a row that `componentRows` gave, from 1, 0 for none; valid until the next call. Null where no medium with memory is near. */
  at(row: EdgeRow, j: number, k: number): Uint16Array | null {
    const [, ly, lz] = this.grid.lines;
    const at = (l: Float64Array, i: number): number => l[Math.min(Math.max(i, 0), l.length - 1)];
    const [y0, y1, z0, z1] = [at(ly, j - 1), at(ly, j + 1), at(lz, k - 1), at(lz, k + 1)];
    // What reaches the region's walls goes on beyond them.
    if (!row.mixed || !this.boxes.some((b) => this.reaches(b, 1, y0, y1) && this.reaches(b, 2, z0, z1))) return null;
    const rows = row.views.slice(1);
    const { kinds, values, last } = this;
    last.fill(NaN);
    let any = false;
    let kind = 0;
    for (let i = 0; i < kinds.length; i++) {
      let same = true;
      for (let f = 0; f < rows.length; f++) {
        values[2 * f] = rows[f].re[i];
        values[2 * f + 1] = rows[f].loss[i];
        if (values[2 * f] !== last[2 * f] || values[2 * f + 1] !== last[2 * f + 1]) same = false;
      }
      if (!same && !row.metal[i]) {
        kind = this.classes.of(values);
        last.set(values);
      }
      kinds[i] = row.metal[i] ? 0 : kind;
      if (kinds[i]) any = true;
    }
    return any ? kinds : null;
  }

  private reaches({ min, max }: { min: readonly number[]; max: readonly number[] }, axis: 1 | 2, from: number, to: number): boolean {
    const lines = this.grid.lines[axis];
    const [low, high] = [lines[this.grid.outerCells[2 * axis]], lines[lines.length - 1 - this.grid.outerCells[2 * axis + 1]]];
    const margin = sameMesh * (high - low);
    return (max[axis] >= from || (from >= high - margin && max[axis] >= high - margin)) && (min[axis] <= to || (to <= low + margin && min[axis] <= low + margin)); // prettier-ignore
  }
}
