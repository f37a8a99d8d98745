import { type Line, shapeOf } from '@jadebell/core/document';

/** A run of lines under one title; the first may have none. */
export interface SectionOfLines {
  head: (Line & { kind: 'section' }) | null;
  lines: { line: Line; number: number }[];
}

/** Lines by the titles between them. Numbers count all lines that are no titles. */
export function inSections(lines: readonly Line[]): SectionOfLines[] {
  const out: SectionOfLines[] = [{ head: null, lines: [] }];
  let number = 0;
  for (const line of lines) {
    if (line.kind === 'section') out.push({ head: line, lines: [] });
    else out[out.length - 1].lines.push({ line, number: ++number });
  }
  return out[0].lines.length || out.length === 1 ? out : out.slice(1);
}

/** Whether a line has some words in its name, kind, material or expressions. */
export function matches(line: Line, title: string, search: string): boolean {
  const text = `${title} ${JSON.stringify(Object.values(line))}`.toLowerCase();
  return search
    .toLowerCase()
    .split(/\s+/)
    .every((w) => text.includes(w));
}

/** How many lines move with a section's title: itself and all up to the next. */
export function sectionLength(lines: readonly Line[], at: number): number {
  let end = at + 1;
  while (end < lines.length && lines[end].kind !== 'section') end++;
  return end - at;
}

/** What stands in the ledger: the title of a section, or a line. */
export type Row =
  | { head: Line & { kind: 'section' }; open: boolean; count: number; line?: never }
  | { line: Line; number: number; muted: boolean; head?: never };

/** The rows of the ledger: titles and the lines of those that are not folded, or, where something is sought, what has its words, or is `left` by a filter, under its titles. */
export const rowsOf = (
  sections: readonly SectionOfLines[],
  search: string,
  folded: ReadonlySet<string>,
  left: ((line: Line) => boolean) | null = null,
): Row[] =>
  sections.flatMap(({ head, lines }): Row[] => {
    const found = lines.filter(({ line }) => (!search || matches(line, shapeOf(line).title, search)) && (!left || left(line)));
    const sought = search !== '' || left !== null;
    if (sought && !found.length) return [];
    const open = !head || sought || !folded.has(head.name);
    const own = found.map(({ line, number }): Row => ({ line, number, muted: line.muted === true || head?.muted === true }));
    return [...(head ? [{ head, open, count: lines.length }] : []), ...(open ? own : [])];
  });
