import { describe, expect, test } from '@jest/globals';
import { emptyProject, type Line, type Project, shapes } from '@jadebell/core/document';
import { namesUsed } from '@jadebell/core/expressions/uses';
import { changeLines, clip, duplicateLines, moveLine, paste } from '../project/edits.ts';
import { filtersFor, filterText, passes } from './filter.ts';
import { inSections, matches, rowsOf, sectionLength } from './sections.ts';
import { extentText } from './DenseLine.tsx';
import { guessColumn, headedTable, tableLines } from './tableLines.ts';

const line = (kind: string, name: string, change: object = {}): Line =>
  ({ ...(shapes.find((s) => s.kind === kind)!.fresh(name) as object), ...change }) as unknown as Line;
const project = (): Project => ({
  ...emptyProject('t'),
  parameters: [{ name: 'w', expression: '2 * u' }, { name: 'u', expression: '1 mm' }, { name: 'other', expression: '3 mm' }], // prettier-ignore
  materials: [{ name: 'Reed', kind: 'dielectric', permittivity: 2 }],
  lines: [line('box', 'a', { size: ['w', 'w', '1 mm'], material: 'Reed' }), line('section', 's', { title: 'Holes' }), line('cylinder', 'c', { at: ['a.max.x', '0 mm', '0 mm'] }), line('cut', 'd', { from: 'a', tools: ['c'] })], // prettier-ignore
});

describe('lines', () => {
  test('duplicates get new names, and refer to each other but to nothing else of the copies', () => {
    const { project: p, made } = duplicateLines(project(), new Set(['a', 'c', 'd']));
    expect(made).toEqual(['a2', 'c2', 'd2']);
    expect(p.lines.map((l) => l.name)).toEqual(['a', 's', 'c', 'd', 'a2', 'c2', 'd2']);
    expect(p.lines[5]).toMatchObject({ at: ['a2.max.x', '0 mm', '0 mm'] });
    expect(p.lines[6]).toMatchObject({ from: 'a2', tools: ['c2'] });
    expect(duplicateLines(project(), new Set(['c'])).project.lines[3]).toMatchObject({ name: 'c2', at: ['a.max.x', '0 mm', '0 mm'] });
  });

  test('go to another project with the parameters and materials they need', () => {
    const clipping = clip(project(), new Set(['a', 'c']), namesUsed);
    expect(clipping.parameters.map((g) => g.name)).toEqual(['w', 'u']);
    const { project: p, made } = paste({ ...emptyProject('other'), parameters: [{ name: 'u', expression: '9 mm' }] }, clipping);
    expect(made).toEqual(['a', 'c']);
    expect(p.parameters).toEqual([{ name: 'u', expression: '9 mm' }, { name: 'w', expression: '2 * u' }]); // prettier-ignore
    expect(p.materials.map((m) => m.name)).toEqual(['Reed']);
  });

  test('change together; a folded section moves with its lines', () => {
    const p = changeLines(project(), new Set(['a', 'c']), (l) => ({ ...l, muted: true }));
    expect(p.lines.map((l) => l.muted === true)).toEqual([true, false, true, false]);
    expect(sectionLength(p.lines, 1)).toBe(3);
    expect(moveLine(project(), 1, 0, 3).lines.map((l) => l.name)).toEqual(['s', 'c', 'd', 'a']);
    expect(moveLine(project(), 0, 3).lines.map((l) => l.name)).toEqual(['s', 'c', 'd', 'a']);
  });

  test('stand in sections with numbers that count no titles, and are found by what they say', () => {
    const sections = inSections(project().lines);
    expect(sections.map((s) => [s.head?.title ?? '', s.lines.map((l) => l.number)])).toEqual([['', [1]], ['Holes', [2, 3]]]); // prettier-ignore
    expect(matches(project().lines[0], 'Box', 'box reed')).toBe(true);
    expect(matches(project().lines[0], 'Box', 'cylinder')).toBe(false);
  });
});

test('names in expressions: parameters, but no units, functions, lines or their parts', () => {
  expect(namesUsed('microstrip_width(z, er, h, 10 GHz) + board.max.x / 2 + 1e3 * sqrt(w^2) - 2mm')).toEqual(['z', 'er', 'h', 'w']);
});

test('the dense view tells how large a line is, along which it has any extent', () => {
  expect(extentText([{ min: [0, 0, 0], max: [0.096, 0.024, 0] }])).toBe('96 mm × 24 mm');
  // Of copies the box around all.
  expect(
    extentText([
      { min: [0, 0, 0], max: [0.001, 0.001, 0.002] },
      { min: [0.004, 0, 0], max: [0.005, 0.001, 0.002] },
    ]),
  ).toBe('5 mm × 1 mm × 2 mm');
  expect(extentText([])).toBe('');
});

test('the rows of the ledger: folded sections keep their title, a search shows what has its words, also of folded ones', () => {
  const sections = inSections(project().lines);
  const told = (search: string, folded: string[] = []): string[] =>
    rowsOf(sections, search, new Set(folded)).map((r) =>
      r.head ? `${r.head.title} ${r.count}${r.open ? '' : ' folded'}` : `${r.number} ${r.line.name}`,
    );
  expect(told('')).toEqual(['1 a', 'Holes 2', '2 c', '3 d']);
  expect(told('', ['s'])).toEqual(['1 a', 'Holes 2 folded']);
  expect(told('cylinder', ['s'])).toEqual(['Holes 2', '2 c']);
  expect(told('reed')).toEqual(['1 a']);
  expect(told('nothing of the kind')).toEqual([]);
});

test('the ledger is filtered by kind, by material, and by the parameter that lines follow, through others too', () => {
  const p = project();
  const left = (filter: Parameters<typeof passes>[1]): string[] => p.lines.filter(passes(p.parameters, filter)).map((l) => l.name);
  expect(left({ by: 'kind', value: 'cylinder' })).toEqual(['c']);
  expect(left({ by: 'material', value: 'Reed' })).toEqual(['a']);
  // w follows from u, and a from w.
  expect(left({ by: 'uses', value: 'u' })).toEqual(['a']);
  expect(left({ by: 'uses', value: 'other' })).toEqual([]);
  const offered = filtersFor(p).map(filterText);
  expect(offered).toEqual(expect.arrayContaining(['Cylinder', 'of Reed', 'follows w', 'follows u']));
  expect(offered).not.toContain('follows other');
  const rows = rowsOf(inSections(p.lines), '', new Set(['s']), passes(p.parameters, { by: 'kind', value: 'cylinder' }));
  expect(rows.map((r) => (r.head ?? r.line).name)).toEqual(['s', 'c']);
});

describe('a pasted table', () => {
  const template = line('box', 'row', { material: 'Reed' });
  test('finds its headings, and the values that they name', () => {
    const { headed, headings, body } = headedTable([['Name', 'extent along x'], ['stub', '3']]); // prettier-ignore
    expect([headed, body]).toEqual([true, [['stub', '3']]]);
    expect(guessColumn(headings, 'extent along x')).toBe(1);
    expect(guessColumn(headings, 'extent along y')).toBe(-1);
    expect(headedTable([['1', '2'], ['3', '4']])).toMatchObject({ headed: false, headings: ['column 1', 'column 2'], body: [['1', '2'], ['3', '4']] }); // prettier-ignore
  });

  test('gives lines with units, free names, and the template for what is not said', () => {
    const column = (key: string): number => ({ name: 0, 'size.0': 1, 'size.1': 2 })[key] ?? -1;
    const made = tableLines([['stub', '3', '2 * w'], ['a', '-1.5e-1', ''], ['9 no name', '4 cm', '1']], template, column, 'um', project()); // prettier-ignore
    expect(made.map((l) => l.name)).toEqual(['stub', 'a2', 'box']);
    const sizes = made.map((l) => (l as unknown as { size: string[] }).size.slice(0, 2));
    const own = (template as unknown as { size: string[] }).size;
    expect(sizes).toEqual([['3 um', '2 * w'], ['-1.5e-1 um', own[1]], ['4 cm', '1 um']]); // prettier-ignore
    expect(made.every((l) => l.material === 'Reed')).toBe(true);
  });
});
