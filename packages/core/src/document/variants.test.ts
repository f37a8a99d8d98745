import { expect, test } from '@jest/globals';
import {
  emptyProject,
  type Project,
  readProjectData,
  renameLine,
  renameParameter,
  solvedDigest,
  variantChanges,
  variantOf,
  withModelOf,
  withVariant,
} from './index.ts';

const box = (name: string, more: object = {}): object => ({ kind: 'box', name, material: 'Copper', size: ['a', 'b', '1 mm'], anchor: 'centre', at: ['0', '0', '0'], ...more }); // prettier-ignore
const project = (): Project => ({
  ...emptyProject('Variants'),
  parameters: [
    { name: 'a', expression: '10 mm', note: 'kept' },
    { name: 'b', expression: '2 * a' },
    { name: 'n', expression: '3' },
  ],
  lines: [box('plate'), box('lid', { muted: true })] as never,
});

test('a variant takes values and what is muted, not formulas, and is switched to and back', () => {
  const first = variantOf(project(), 'plain');
  expect(first).toEqual({ name: 'plain', values: [{ parameter: 'a', expression: '10 mm' }, { parameter: 'n', expression: '3' }], muted: ['lid'] }); // prettier-ignore
  expect(variantChanges(project(), first)).toEqual([]);
  const other = {
    ...first,
    values: [
      { parameter: 'a', expression: '12 mm' },
      { parameter: 'gone', expression: '1' },
    ],
    muted: ['plate', 'gone'],
  };
  expect(variantChanges(project(), other)).toEqual(['a: 10 mm → 12 mm', 'plate muted', 'lid unmuted']);
  const switched = withVariant(project(), other);
  expect(switched.parameters).toEqual([{ name: 'a', expression: '12 mm', note: 'kept' }, { name: 'b', expression: '2 * a' }, { name: 'n', expression: '3' }]); // prettier-ignore
  expect(switched.lines.map((l) => [l.name, l.muted])).toEqual([['plate', true], ['lid', undefined]]); // prettier-ignore
  expect('muted' in switched.lines[1]).toBe(false);
  expect(variantChanges(switched, other)).toEqual([]);
  expect(solvedDigest(withVariant(switched, first))).toBe(solvedDigest(project()));
  expect(solvedDigest(switched)).not.toBe(solvedDigest(project()));
});

test('variants are part of a project: their names are their own, and follow what they refer to', () => {
  const own = { ...project(), variants: [variantOf(project(), 'plain')] };
  expect(readProjectData(own).problems).toEqual([]);
  expect(solvedDigest(own)).toBe(solvedDigest(project()));
  expect(renameParameter(own, 'a', 'wide').variants![0].values[0].parameter).toBe('wide');
  expect(renameLine(own, 'lid', 'cover').variants![0].muted).toEqual(['cover']);
  expect(readProjectData({ ...own, variants: [own.variants[0], own.variants[0]] }).problems.map((p) => p.code)).toEqual(['name.twice']);
});

test('the model that a run has solved comes back without what is the project’s own', () => {
  const now: Project = { ...project(), title: 'Now', margin: '9 mm', measures: [], boards: [] };
  const solved: Project = { ...project(), title: 'Then', parameters: [{ name: 'a', expression: '7 mm' }], ground: { kind: 'perfect', at: '0 mm' } };
  const back = withModelOf(now, solved);
  expect(back).toMatchObject({ title: 'Now', parameters: solved.parameters, ground: solved.ground, measures: [], boards: [] });
  expect('margin' in back).toBe(false);
  expect(solvedDigest(back)).toBe(solvedDigest(solved));
});
