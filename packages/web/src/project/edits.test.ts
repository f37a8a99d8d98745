import { describe, expect, test } from '@jest/globals';
import { changesSince, emptyProject, type Project, renameParameter, renameLine } from '@jadebell/core/document';
import { freeName, moveLine, nameFault, removeEntry, replaceEntry } from './edits.ts';

const project = (): Project => ({
  ...emptyProject('t'),
  parameters: [
    { name: 'w', expression: '2 mm' },
    { name: 'w2', expression: '2*w + min(w, 3 mm)', note: 'w stays in a note' },
  ],
  lines: [
    { kind: 'rectangle', name: 'left', material: 'Copper', plane: 'xy', size: ['w', 'w2'], anchor: 'corner', at: ['-w/2', '0 mm', '0 mm'] },
    { kind: 'rectangle', name: 'right', material: 'Copper', plane: 'xy', size: ['w', 'w2'], anchor: 'corner', at: ['4*w', '0 mm', '0 mm'] },
  ],
  ports: [{ kind: 'gap', name: 'w', between: ['left', 'right'], resistance: '50 ohm' }],
  recordAt: ['c0 / (100*w)'],
});

describe('edits', () => {
  test('renaming a parameter renames its uses and nothing else', () => {
    const p = renameParameter(project(), 'w', 'width');
    expect(p.parameters).toEqual([
      { name: 'width', expression: '2 mm' },
      { name: 'w2', expression: '2*width + min(width, 3 mm)', note: 'w stays in a note' },
    ]);
    expect(p.lines[0]).toMatchObject({ name: 'left', size: ['width', 'w2'], at: ['-width/2', '0 mm', '0 mm'] });
    expect(p.recordAt).toEqual(['c0 / (100*width)']);
    // A port of the same name is another thing.
    expect(p.ports[0].name).toBe('w');
  });

  test('renaming a line takes its ports along', () => {
    expect(renameLine(project(), 'right', 'arm').ports[0]).toMatchObject({ between: ['left', 'arm'] });
  });

  test('names are free, allowed, and not those of units', () => {
    const p = project();
    expect(freeName(p, 'lines', 'box')).toBe('box');
    expect(freeName(p, 'lines', 'left')).toBe('left2');
    expect(nameFault(p, 'parameters', 'mm')).toMatch(/unit/);
    expect(nameFault(p, 'parameters', 'w2')).toMatch(/taken/);
    expect(nameFault(p, 'lines', '2nd')).toMatch(/letter/);
    expect(nameFault(p, 'lines', 'mm')).toBeNull();
  });

  test('lines are moved, replaced and removed without touching the old document', () => {
    const p = project();
    expect(moveLine(p, 0, 1).lines.map((l) => l.name)).toEqual(['right', 'left']);
    expect(removeEntry(p, 'lines', 'left').lines).toHaveLength(1);
    expect(replaceEntry(p, 'lines', 'left', { ...p.lines[0], muted: true }).lines[0].muted).toBe(true);
    expect(p).toEqual(project());
  });
});

test('what changed since a run is told in words; titles and notes do not count', () => {
  const old = project();
  expect(changesSince(old, { ...old, title: 'other', note: 'x' })).toEqual([]);
  const now = { ...old, parameters: [{ name: 'w', expression: '3 mm' }, { name: 'h', expression: '1 mm' }], margin: '9 mm', solve: { ...old.solve, accuracy: 'fine' as const } }; // prettier-ignore
  expect(changesSince(old, now)).toEqual([
    'w: 2 mm → 3 mm',
    'h was added',
    'w2 was removed',
    'distance to the boundary changed',
    'solve settings changed',
  ]);
});
