import { type Problem, problem } from '../../document/index.ts';
import { formatSI } from '../../expressions/format.ts';
import { slantedWidths, type Width } from '../../geometry/index.ts';
import type { Grid } from '../../grid/index.ts';
import { mostCellsPerWavelength } from '../../methods/index.ts';
import { c0 } from '../../numerics/constants.ts';
import type { GridScene } from '../../scene/index.ts';

/** Cells across metal or a gap below which another structure would be solved than was drawn: on the grid it would come and go with the place of the lines. */
const least = 2;

/** Cells across a width, seen along it; null where it is measured from outside the region. */
function cellsAcross(scene: GridScene, grid: Grid, { at, along, width }: Width): number | null {
  if (at.some((x, a) => x < scene.min[a] || x > scene.max[a])) return null;
  const cell = grid.lines.map((lines, a) => {
    const next = Math.max(
      1,
      lines.findIndex((l) => l > at[a]),
    );
    return (lines[next] - lines[next - 1]) * along[a];
  });
  return width / Math.hypot(...cell);
}

/** Metal and gaps that run across no axis and have fewer than two cells across: where, how many, and what would help. */
export function narrow(scene: GridScene, grid: Grid): Problem[] {
  const worst = new Map<string, Width & { cells: number }>();
  for (const place of slantedWidths(scene.bodies)) {
    const cells = cellsAcross(scene, grid, place);
    const key = `${place.kind} ${place.body.line}`;
    if (cells !== null && cells < least && !(worst.get(key)!?.cells <= cells)) worst.set(key, { ...place, cells });
  }
  return [...worst.values()].map(({ kind, body, at, width, cells }) => {
    const wanted = Math.ceil((least * c0) / scene.band.to / width);
    const text = (x: number): string => formatSI(x, 'length', 3);
    const what = kind === 'metal' ? `${body.name} is ${text(width)} wide` : `The gap beside ${body.name} is ${text(width)} wide`;
    return problem(
      'warning',
      'grid.narrow',
      { part: 'lines', name: body.line },
      `${what} at ${at.map(text).join(', ')}, across no axis, and gets ${cells.toPrecision(2)} cells there; with fewer than ${least} the grid loses its shape.`,
      wanted <= mostCellsPerWavelength
        ? `Set ${wanted} cells a wavelength by hand under Solve, or, if it is straight, turn the model so that it runs along an axis.`
        : 'If it is straight, turn the model so that it runs along an axis; no number of cells that can be set would do.',
    );
  });
}
