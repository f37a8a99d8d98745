import { type Chip, type Line, nameText, type Project, shapeOf, withPath } from '@jadebell/core/document';
import { freeName } from '../project/edits.ts';

const plainNumber = /^[-+]?(\d+\.?\d*|\.\d+)(e[-+]?\d+)?$/i;

/** Most lines that one table may make. */
export const mostRows = 2000;

/** A pasted table as headings and rows below them; a first row that holds no number is one of headings. */
export function headedTable(rows: string[][]): { headed: boolean; headings: string[]; body: string[][] } {
  const headed = rows.length > 1 && rows[0].every((c) => !/^[-+.]?\d/.test(c));
  return { headed, headings: headed ? rows[0] : (rows[0] ?? []).map((_, i) => `column ${i + 1}`), body: headed ? rows.slice(1) : rows };
}

/** Column of the table that a chip takes by its heading, or -1. */
export function guessColumn(headings: readonly string[], label: string): number {
  const plain = (t: string): string => t.toLowerCase().replaceAll(/[^a-z0-9]/g, '');
  const wanted = plain(label);
  const exact = headings.findIndex((h) => plain(h) === wanted);
  return exact >= 0 ? exact : headings.findIndex((h) => h && (wanted.endsWith(plain(h)) || plain(h).endsWith(wanted)) && plain(h).length > 0);
}

/** Values of a line that a column can give: points are lists of their own. */
export const columnChips = (line: Line): Chip[] =>
  shapeOf(line)
    .chips(line)
    .filter((c) => !c.path.startsWith('points.'));

/**
 * Lines like a template, one for each row. `columnOf` names the column of a value or of 'name', -1 where there is none; numbers without a unit take `unit`
 * if they are lengths, degrees if they are angles. Names that are missing, taken or none become free ones.
 */
export function tableLines(body: string[][], template: Line, columnOf: (key: string) => number, unit: string, project: Project): Line[] {
  const taken = new Set<string>();
  const units: Record<string, string> = { length: unit, angle: 'deg' };
  const chips = columnChips(template);
  return body.map((row) => {
    const given = row[columnOf('name')];
    const name = freeName(project, 'lines', nameText.safeParse(given).success ? given : template.kind.replaceAll('-', '_'), taken);
    taken.add(name);
    let line: Line = { ...template, name };
    for (const chip of chips) {
      const cell = row[columnOf(chip.path)];
      if (cell) line = withPath(line, chip.path, plainNumber.test(cell) && units[chip.quantity] ? `${cell} ${units[chip.quantity]}` : cell);
    }
    return line;
  });
}
