import type { Grid } from '../grid/index.ts';
import type { Axis } from '../numerics/axis.ts';
import type { Cuts } from './cuts.ts';
import type { FilledOverBand } from '../geometry/index.ts';
import { anisotropic, collectMedia, dielectricsOf } from './media.ts';
import { EdgeRows } from './rows.ts';
import { blendsCells, Subpixel } from './subpixel.ts';

const axes = [0, 1, 2] as const;

/** Frequencies, Hz, at which averages of media with memory are taken. */
export function lookAt(scene: FilledOverBand): number[] {
  const { from, to } = scene.band;
  const formulas = scene.bodies.some((b) => b.material.dispersion);
  const count = formulas ? 7 : to > 3 * from ? 5 : 3;
  return Array.from({ length: count }, (_, i) => from + ((to - from) * i) / (count - 1));
}

/** Whether some medium of the scene has loss or dispersion. */
export const remembers = (scene: FilledOverBand): boolean => axes.some((a) => dielectricsOf(scene, a).some((d) => d?.model));

/**
 * Edge rows of each component: three where some medium differs along the axes, otherwise the same one. Their first view is at the band's centre;
 * where media have memory the others are at the frequencies of `lookAt`.
 */
export function componentRows(scene: FilledOverBand, grid: Grid, cuts: Cuts | null): { rows: EdgeRows[]; subpixel: Subpixel | null } {
  const frequencies = [undefined, ...(remembers(scene) ? lookAt(scene) : [])];
  const rowsAlong = (axis: Axis): { rows: EdgeRows; subpixel: Subpixel | null } => {
    const views = frequencies.map((f) => collectMedia(scene, f, dielectricsOf(scene, axis)));
    const subpixel = blendsCells(scene) ? new Subpixel(scene, grid, views) : null;
    return { rows: new EdgeRows(scene, grid, views, cuts, subpixel), subpixel };
  };
  const first = rowsAlong(0);
  const others = anisotropic(scene) ? ([1, 2] as const).map((a) => rowsAlong(a).rows) : [first.rows, first.rows];
  return { rows: [first.rows, ...others], subpixel: first.subpixel };
}
