import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { type Role, roles } from '../entries/index.ts';
import { lineSchema, shapes } from '../shapes/index.ts';
import { arbitraryOf } from './arbitrary.testing.ts';
import { changesSince, emptyProject, mapExpressions, type Project, projectSchema, projectTexts, renameParameter, renameLine, renameMeasure, renamePort, stakes } from './index.ts'; // prettier-ignore

const texts: Record<Role, string> = {
  expression: '2 * qparameter + qline.max.x - edge(hull.qline.side, qline_2.zmax).length',
  line: 'qline',
  face: 'hull.qline.side',
  port: 'qport',
  parameter: 'qparameter',
  material: 'Copper',
  part: 'hull',
  measure: 'qmeasure',
};
const projects = arbitraryOf(projectSchema, texts) as fc.Arbitrary<Project>;
const named = { numRuns: 40 };
/** All that a project says, without the names of its entries themselves. */
const said = (p: Project): string => JSON.stringify(p, (key, v: unknown) => (key === 'name' ? undefined : v));

describe('renaming reaches every kind of entry', () => {
  test('a line: in references, faces and expressions, members of a pattern too', () => {
    fc.assert(
      fc.property(projects, (p) => {
        const renamed = renameLine(p, 'qline', 'plate');
        expect(said(renamed)).not.toMatch(/qline/);
        expect(said(renameLine(renamed, 'plate', 'qline'))).toBe(said(p));
      }),
      named,
    );
  });

  test('a parameter, a port and a measure', () => {
    fc.assert(
      fc.property(projects, (p) => {
        expect(said(renameParameter(p, 'qparameter', 'w'))).not.toMatch(/qparameter/);
        expect(said(renamePort(p, 'qport', 'right'))).not.toMatch(/qport/);
        expect(said(renameMeasure(p, 'qmeasure', 'gain'))).not.toMatch(/qmeasure/);
      }),
      named,
    );
  });

  test('where a line is named outside bodies and ports', () => {
    const p: Project = {
      ...emptyProject('t'),
      parameters: [{ name: 'a', expression: '1 mm', dial: { min: 'board.min.x', max: 'board.max.x' } }],
      margin: 'board.size.z',
      symmetry: { x: { wall: 'electric', at: 'board.centre.x' } },
      ground: { kind: 'earth', at: 'board.min.z' },
      recordAt: ['c0 / board.size.x'],
      solve: { ...emptyProject('t').solve, from: 'c0 / board.size.y', details: { smallestCell: 'board.size.z / 4' } },
    };
    const texts = projectTexts(renameLine(p, 'board', 'plate'), 'expression').map((e) => e.text);
    expect(texts.filter((t) => t.includes('plate'))).toHaveLength(8);
    expect(texts.join()).not.toContain('board');
  });

  test('every kind of shape has its references among those that are walked', () => {
    for (const shape of shapes) {
      const refs = shape.inputs(shape.fresh('x')).map((i) => i.path);
      const filled = refs.reduce<object>((line, path) => ({ ...line, [path]: 'board' }), shape.fresh('x'));
      const walked = projectTexts({ lines: [filled] as unknown as Project['lines'] }, 'line', 'face').map((e) => e.path);
      for (const path of refs) expect(walked.some((w) => w.endsWith(`.${path}`))).toBe(true);
    }
    expect(roles.get(lineSchema)).toBeUndefined();
  });
});

describe('a result is told to be old', () => {
  test('by a change of any part that bears on it, and by no other', () => {
    fc.assert(
      fc.property(projects, (p) => {
        expect(changesSince(p, structuredClone(p))).toEqual([]);
        for (const [key, schema] of Object.entries(projectSchema.shape) as [keyof Project, never][]) {
          // Of materials only those count that something is made of.
          if (key === 'format' || key === 'version' || key === 'materials') continue;
          const now = { ...p, [key]: key === 'parameters' ? [...p.parameters, { name: 'another', expression: '1' }] : [p[key], 'changed'] };
          expect([key, changesSince(p, now).length]).toEqual([key, stakes.get(schema)?.word === null ? 0 : 1]);
        }
      }),
      { numRuns: 10 },
    );
    const grounded = (kind: 'perfect' | 'earth'): Project => ({ ...emptyProject('t'), ground: { kind, at: '0 mm' } });
    expect(changesSince(grounded('perfect'), grounded('earth'))).toEqual(['ground changed']);
  });

  test('expressions alone are mapped, and what does not change stays the same', () => {
    fc.assert(
      fc.property(projects, (p) => {
        expect(mapExpressions(p, (t) => t)).toBe(p);
        const mapped = mapExpressions(p, () => 'new');
        expect(new Set(projectTexts(mapped, 'expression').map((e) => e.text))).toEqual(new Set(['new']));
        expect(projectTexts(mapped, 'line', 'port', 'face')).toEqual(projectTexts(p, 'line', 'port', 'face'));
      }),
      named,
    );
  });
});
