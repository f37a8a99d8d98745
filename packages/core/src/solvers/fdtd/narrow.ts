import { type Problem, problem } from '../../document/index.ts';
import { formatSI } from '../../expressions/format.ts';
import { alignedWidths, isSheet, slantedWidths, type Width } from '../../geometry/index.ts';
import type { Grid } from '../../grid/index.ts';
import { gridAccuracy, mostCellsPerWavelength } from '../../methods/index.ts';
import { c0 } from '../../numerics/constants.ts';
import type { GridScene } from '../../scene/index.ts';

/** Cells across a strip or a gap below which another structure would be solved than was drawn: on the grid it would come and go with the place of the lines. */
const least = 2;
/** The same of bars of solid metal, whose faces lie where they are drawn: below it they would fall between the edges of the grid. */
const leastOfBar = 0.5;
/** What reaches this many times further across its width than it is wide is a wall, which is followed however thin. */
const wallFrom = 10;
/** The same along an axis, where lines lie on both ends. */
const leastAligned = 1;
/** Of such a number, what is close enough to it: drawings in straight pieces are a little narrower than what they stand for. */
const enough = 0.97;

/** Cells across a width, seen along it; null where it is measured from outside the region. */
export function cellsAcross(scene: GridScene, grid: Grid, { at, along, width }: Width): number | null {
  if (at.some((x, a) => x < scene.min[a] || x > scene.max[a])) return null;
  const cell = grid.lines.map((lines, a) => {
    const middle = at[a] + 0.5 * width * along[a];
    const next = lines.findIndex((l) => l > middle);
    return (next > 0 ? lines[next] - lines[next - 1] : 0) * along[a];
  });
  return width / Math.hypot(...cell);
}

/** Strips, walls and gaps along the axes that fall between the lines of the grid, so that they are lost or closed on it: where, and what would help. */
function lost(scene: GridScene, grid: Grid): Problem[] {
  const worst = new Map<string, Width & { cells: number }>();
  for (const place of alignedWidths(scene.bodies)) {
    const cells = cellsAcross(scene, grid, place);
    const key = `${place.kind} ${place.body.line}`;
    const known = worst.get(key);
    if (cells !== null && cells < enough * leastAligned && !(known && known.cells <= cells)) worst.set(key, { ...place, cells });
  }
  const text = (x: number): string => formatSI(x, 'length', 3);
  return [...worst.values()].map(({ kind, body, at, width, cells }) =>
    problem(
      'warning',
      'grid.narrow',
      { part: 'lines', name: body.line },
      `${kind === 'metal' ? `${body.name} is ${text(width)} wide` : `Between ${body.name} and the next metal are ${text(width)}`} at ${at.map(text).join(', ')}, which is ${cells.toPrecision(2)} of the cell there: on the grid it is ${kind === 'metal' ? 'lost' : 'closed'}.`,
      scene.details.smallestCell
        ? 'Set a smaller smallest cell under Solve, or leave it to the program.'
        : 'Bring both faces together if they are meant to touch, or set a smallest cell under Solve.',
    ),
  );
}

/** Where strips, gaps and walls have too few cells across: how many, and what would help. */
export function narrow(scene: GridScene, grid: Grid): Problem[] {
  const worst = new Map<string, Width & { cells: number; wanted: number }>();
  for (const place of slantedWidths(scene.bodies)) {
    const cells = cellsAcross(scene, grid, place);
    const solid = place.kind === 'metal' && !isSheet(place.body);
    if (solid && (place.spread ?? 0) > wallFrom * place.width) continue;
    const wanted = solid ? leastOfBar : least;
    const key = `${place.kind} ${place.body.line}`;
    const known = worst.get(key);
    if (cells !== null && cells < enough * wanted && !(known && known.cells <= cells)) worst.set(key, { ...place, cells, wanted });
  }
  const few = [...worst.values()].map(({ kind, body, at, width, cells, wanted }) => {
    const perWavelength = Math.ceil((wanted * c0) / scene.band.to / width);
    const text = (x: number): string => formatSI(x, 'length', 3);
    const what = kind === 'metal' ? `${body.name} is ${text(width)} wide` : `The gap beside ${body.name} is ${text(width)} wide`;
    return problem(
      'warning',
      'grid.narrow',
      { part: 'lines', name: body.line },
      `${what} at ${at.map(text).join(', ')}, across no axis, and gets ${cells.toPrecision(2)} cells there; with fewer than ${wanted} the grid loses its shape.`,
      finer(scene, grid) ??
        (perWavelength <= mostCellsPerWavelength
          ? `Set ${perWavelength} cells a wavelength by hand under Solve, or, if it is straight, turn the model so that it runs along an axis.`
          : 'If it is straight, turn the model so that it runs along an axis; no number of cells that can be set would do.'),
    );
  });
  return [...lost(scene, grid), ...few, ...fewer(scene, grid)];
}

/** Part of what an accuracy affords that a grid of a coarser one may have, to be affordable with the finer cells of all else. */
const spare = 0.7;
/** The accuracy that affords what this one does not, as a remedy. */
function finer({ accuracy }: GridScene, { followed }: Grid): string | undefined {
  const afforded = gridAccuracy[accuracy].followed;
  const other = followed?.across === 0 && (['normal', 'fine'] as const).find((a) => gridAccuracy[a].followed > afforded && followed.least < spare * gridAccuracy[a].followed); // prettier-ignore
  return other
    ? `Take ${other} accuracy, which can afford to follow it; or, if it is straight, turn the model so that it runs along an axis.`
    : undefined;
}

/** Where the grid follows what runs across no axis with fewer cells than the accuracy asks for. */
function fewer({ accuracy }: GridScene, { followed }: Grid): Problem[] {
  if (!followed?.across) return [];
  const millions = (n: number): string => `${Number((n / 1e6).toPrecision(2))} million`;
  const { fine } = gridAccuracy;
  return [
    problem(
      'warning',
      'grid.followed',
      { part: 'solve' },
      `Strips and gaps that run across no axis get ${followed.across} of ${followed.asked} cells across: ${followed.asked} would take ${millions(followed.cells)} cells.`,
      gridAccuracy[accuracy].followed < fine.followed
        ? `Fine follows them up to ${millions(fine.followed)} cells; straight ones cost less along an axis.`
        : 'Straight ones cost less along an axis: turn the model.',
    ),
  ];
}
