import { expect, test } from '@jest/globals';
import { changesSince, emptyProject, type Project, projectSchema, shapes } from './index.ts';

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

test('a material counts once something is made of it', () => {
  const a = project();
  const reed = { name: 'Reed', kind: 'dielectric', permittivity: 2 } as const;
  const with2 = { ...a, materials: [reed] };
  expect(changesSince(a, with2)).toEqual([]);
  const body = { ...shapes.find((s) => s.kind === 'box')!.fresh('block'), material: 'Reed' } as unknown as Project['lines'][number];
  const [solved, now] = [with2, { ...a, materials: [{ ...reed, permittivity: 3 }] }].map((p) => ({ ...p, lines: [body] }));
  expect(changesSince(solved, now)).toEqual(['materials changed']);
  expect(changesSince(solved, { ...solved, materials: [...solved.materials, { ...reed, name: 'Other' }] })).toEqual([]);
});
