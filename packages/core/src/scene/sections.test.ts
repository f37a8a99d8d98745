import { describe, expect, test } from '@jest/globals';
import { emptyProject, type Project, readProjectData, renameParameter, sectionChips, type SectionEntry, sectionSentence } from '../document/index.ts';
import { evaluateParameters } from '../expressions/index.ts';
import { resolveSection } from './sections.ts';

const entry = (change: Partial<SectionEntry> = {}): SectionEntry => ({
  name: 'cut',
  normal: 'y',
  at: '3 mm',
  from: ['4 mm', '0 mm'],
  to: ['-w', '2 mm'],
  edges: ['magnetic', 'electric', 'open', 'open'],
  modes: '2',
  frequency: '10 GHz',
  near: '0',
  bend: '0 mm',
  about: 'first',
  grid: 'automatic',
  perWavelength: '20',
  cell: ['0.1 mm', '0.2 mm'],
  boxes: [['0 mm', '1 mm', '0 mm', 'w', '20 um']],
  ...change,
});
const project = (change: Partial<SectionEntry> = {}): Project => ({
  ...emptyProject('t'),
  parameters: [{ name: 'w', expression: '6 mm' }],
  sections: [entry(change)],
});
const resolve = (change: Partial<SectionEntry> = {}): ReturnType<typeof resolveSection> => {
  const p = project(change);
  return resolveSection(p.sections[0], evaluateParameters(p));
};
const fault = (change: Partial<SectionEntry>): [code: string, chip: string | undefined] => {
  const r = resolve(change);
  return 'problems' in r ? [r.problems[0].code, r.problems[0].place.chip] : ['none', undefined];
};

describe('a section of the document', () => {
  test('is placed in SI, corners sorted, axes in the order x, y, z', () => {
    const r = resolve();
    if (!('section' in r)) throw new Error('no section');
    expect(r.section).toMatchObject({
      normal: 1,
      axes: [0, 2],
      at: 0.003,
      min: [-0.006, 0],
      max: [0.004, 0.002],
      frequency: 1e10,
      bend: null,
      grid: { perWavelength: 10 },
      finer: 2,
    });
    expect(r.section.boxes).toEqual([{ min: [0, 0], max: [0.001, 0.006], cell: expect.closeTo(2e-5, 12) }]);
  });
  test('may be bent and have cells of one size', () => {
    const r = resolve({ grid: 'uniform', bend: '-20 mm', about: 'second' });
    if (!('section' in r)) throw new Error('no section');
    expect(r.section.bend).toEqual({ radius: -0.02, axis: 1 });
    expect(r.section.grid).toEqual({ cell: [1e-4, 2e-4] });
  });
  test('faults say where and what', () => {
    expect(fault({ to: ['4 mm', '2 mm'] })).toEqual(['section.zero', 'to.0']);
    expect(fault({ bend: '4 mm' })).toEqual(['section.bend', 'bend']);
    expect(fault({ near: '-1' })).toEqual(['section.near', 'near']);
    expect(fault({ modes: '2.5' })[1]).toBe('modes');
    expect(fault({ frequency: '3 mm' })[1]).toBe('frequency');
    expect(fault({ perWavelength: '0' })[1]).toBe('perWavelength');
    expect(fault({ boxes: [['0 mm', '1 mm', '0 mm', '1 mm', '0 mm']] })[1]).toBe('boxes.0.4');
    expect(fault({ cell: ['0 mm', '0 mm'] })[0]).toBe('none');
  });
  test('every chip stands in the sentence or in its list, and follows a renamed parameter', () => {
    for (const grid of ['automatic', 'uniform'] as const) {
      const e = entry({ grid });
      const text = JSON.stringify(sectionSentence(e));
      for (const { path } of sectionChips(e)) expect(text).toContain(path.startsWith('boxes') ? '"boxes"' : `"${path}"`);
    }
    const renamed = renameParameter(project(), 'w', 'wide');
    expect(renamed.sections[0].to[0]).toBe('-wide');
    expect(renamed.sections[0].boxes[0][3]).toBe('wide');
  });
  test('old projects without sections are read; two of one name are refused', () => {
    const { sections: _, ...old } = project();
    expect(readProjectData(old).project?.sections).toEqual([]);
    const twice = { ...project(), sections: [entry(), entry()] };
    expect(readProjectData(twice).problems[0]).toMatchObject({ code: 'name.twice', place: { part: 'sections', name: 'cut' } });
  });
});
