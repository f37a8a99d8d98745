import { expect, test } from '@jest/globals';
import { changesSince, emptyProject, type Project, projectSchema } from './index.ts';

const project = (): Project => ({
  ...emptyProject('t'),
  ports: [{ shift: '0 mm', face: 'air.xmin', modes: '1', name: 'left', kind: 'guide-face' }],
});

test('the order of keys is no change, what they say is', () => {
  const stored = projectSchema.parse(project());
  expect(Object.keys(stored.ports[0])).not.toEqual(Object.keys(project().ports[0]));
  expect(changesSince(stored, project())).toEqual([]);
  const moved = project();
  moved.ports[0] = { ...moved.ports[0], shift: '1 mm' } as Project['ports'][number];
  expect(changesSince(stored, moved)).toEqual(['ports changed']);
});

test('the order of entries and values of parameters count', () => {
  const a = { ...project(), parameters: [{ name: 'w', expression: '1 mm' }] };
  expect(changesSince(a, { ...a, parameters: [{ name: 'w', expression: '2 mm' }] })).toEqual(['w: 1 mm → 2 mm']);
  expect(changesSince(a, { ...a, recordAt: [...a.recordAt, '2 GHz'] })).toEqual(['recorded frequencies changed']);
});
