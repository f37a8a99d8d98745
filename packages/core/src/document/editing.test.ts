import { describe, expect, test } from '@jest/globals';
import {
  draggedExpression,
  emptyProject,
  handlesOf,
  type Line,
  mapExpressions,
  parametersUsed,
  type Project,
  redirectLines,
  renameParameter,
  renameLine,
  shapes,
} from './index.ts';

const line = (kind: string, name: string, change: Record<string, unknown> = {}): Line =>
  ({ ...(shapes.find((s) => s.kind === kind)!.fresh(name) as object), ...change }) as unknown as Line;
const project = (): Project => ({
  ...emptyProject('t'),
  parameters: [{ name: 'w', expression: '2 mm', dial: { min: 'w0', max: '2 * w0' } }, { name: 'far', expression: 'plate.max.x + w' }], // prettier-ignore
  lines: [
    line('box', 'plate', { size: ['w', 'w', '1 mm'] }),
    line('cylinder', 'pin', { at: ['plate.max.x', 'w', '0 mm'] }),
    line('cut', 'part', { from: 'plate', tools: ['pin'] }),
    line('copy-face', 'lid', { face: 'part.plate.zmax' }),
    line('polygon', 'leaf', { points: [['w', '0 mm'], ['edge(part.pin.side, part.plate.zmax).length', '0 mm'], ['0 mm', 'plate_1.max.x']] }), // prettier-ignore
  ],
  ports: [{ kind: 'gap', name: 'p', between: ['plate', 'pin'], resistance: '50 ohm' }],
});

describe('renaming', () => {
  test('a line takes along references, faces, members, ports and what parameters point at', () => {
    const p = renameLine(project(), 'plate', 'board');
    expect(p.lines[0].name).toBe('board');
    expect(p.lines[1]).toMatchObject({ at: ['board.max.x', 'w', '0 mm'] });
    expect(p.lines[2]).toMatchObject({ from: 'board', tools: ['pin'] });
    expect(p.lines[3]).toMatchObject({ face: 'part.board.zmax' });
    expect(p.lines[4]).toMatchObject({ points: [['w', '0 mm'], ['edge(part.pin.side, part.board.zmax).length', '0 mm'], ['0 mm', 'board_1.max.x']] }); // prettier-ignore
    expect(p.ports[0]).toMatchObject({ between: ['board', 'pin'] });
    expect(p.parameters[1].expression).toBe('board.max.x + w');
  });

  test('a parameter leaves names after a dot and names of lines alone', () => {
    const p = renameParameter({ ...project(), lines: [...project().lines, line('box', 'w', { size: ['w.size.x', 'w', '1 mm'] })] }, 'w', 'wide'); // prettier-ignore
    expect(p.lines[5]).toMatchObject({ name: 'w', size: ['w.size.x', 'wide', '1 mm'] });
    expect(p.parameters[1].expression).toBe('plate.max.x + wide');
  });

  test('what does not change stays the same object', () => {
    const p = project();
    const q = mapExpressions(p, (t) => t);
    expect(q.lines).toBe(p.lines);
    expect(q.parameters).toBe(p.parameters);
    expect(redirectLines(p, new Map())).toBe(p);
  });
});

test('the parameters that are used: by lines, ports, settings, dials, and by each other', () => {
  const p = project();
  expect([...parametersUsed(p)].toSorted()).toEqual(['w', 'w0']);
  const [plate, ...others] = p.lines;
  const wider = { ...p, lines: [{ ...plate, size: ['wide', 'w', '1 mm'] } as Line, ...others] };
  expect(parametersUsed(wider).has('wide')).toBe(true);
  // What a line used before it was changed is not remembered of it.
  expect(parametersUsed({ ...wider, lines: p.lines }).has('wide')).toBe(false);
  expect(parametersUsed({ ...p, ports: [{ ...p.ports[0], resistance: 'r0' } as Project['ports'][0]] }).has('r0')).toBe(true);
  expect(parametersUsed({ ...p, solve: { ...p.solve, to: '2 * f0' } }).has('f0')).toBe(true);
});

describe('dragging', () => {
  const write = (si: number): string => `${Number((si * 1e3).toPrecision(6))} mm`;
  test.each([
    ['2 mm', 2e-3, 1e-3, '3 mm'],
    ['-0.5 mm', -0.5e-3, 1e-3, '0.5 mm'],
    ['w', 2e-3, 1e-3, 'w + 1 mm'],
    ['w + 1 mm', 3e-3, 0.5e-3, 'w + 1.5 mm'],
    ['w + 1 mm', 3e-3, -3e-3, 'w - 2 mm'],
    ['w + 1 mm', 3e-3, -1e-3, 'w'],
    ['a / 2 - b', 3e-3, 1e-3, 'a / 2 - b + 1 mm'],
    ['plate.max.x', 3e-3, -1e-3, 'plate.max.x - 1 mm'],
  ])('%s at %d by %d is %s', (text, before, by, after) => {
    expect(draggedExpression(text, before, by, write)).toBe(after);
  });

  test('every handle names a chip of its line, lies on the body, and points along one direction', () => {
    for (const s of shapes) {
      const fresh = s.fresh('x');
      const chips = s.chips(fresh).map((c) => c.path);
      const values = Object.fromEntries(chips.map((c, i) => [c, 1 + i / 10]));
      for (const h of handlesOf(fresh, values)) {
        expect(chips).toContain(h.path);
        expect(Math.hypot(...h.along)).toBeCloseTo(1, 12);
      }
    }
    const box = handlesOf(line('box', 'b'), { 'size.0': 4, 'size.1': 2, 'size.2': 1, 'at.0': 10, 'at.1': 0, 'at.2': 0 });
    expect(box.find((h) => h.path === 'size.0')).toEqual({ path: 'size.0', at: [12, 0, 0], along: [1, 0, 0], rate: 2 });
  });
});
