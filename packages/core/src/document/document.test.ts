import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  atPath,
  crossingEdges,
  emptyProject,
  projectJsonSchema,
  type Project,
  readProject,
  readProjectData,
  shapes,
  signedArea,
  withPath,
  referenceFits,
} from './index.ts';

const demo = new URL('../../../../demo/', import.meta.url);

describe('project files', () => {
  test.each(readdirSync(demo).filter((f) => f.endsWith('.json')))('%s is read unchanged', (name) => {
    const text = readFileSync(new URL(name, demo), 'utf8');
    const { project, problems } = readProject(text);
    expect(problems).toEqual([]);
    // Of older files the list of sections is empty.
    const kept = JSON.parse(JSON.stringify(project));
    expect(kept).toEqual({ sections: [], ...JSON.parse(text) });
    expect(readProjectData(kept)).toEqual({ project, problems: [] });
  });

  test('files of versions 1 and 2, whose adaptive accuracy was called certain, are read as they would be written today', () => {
    const now = { ...emptyProject('passes'), solve: { ...emptyProject('passes').solve, accuracy: 'adaptive' } };
    const old = { ...now, version: 2, solve: { ...now.solve, accuracy: 'certain' } };
    expect(readProject(JSON.stringify(old))).toEqual({ project: now, problems: [] });
    // Forms of curves had other names.
    const card = (form: string): object => ({
      kind: 'curves',
      id: 'c',
      place: { x: 0, y: 0, w: 6, h: 6 },
      traces: [{ quantity: 's', of: 'S11', form }],
    });
    const boards = (forms: string[]): object[] => [
      { name: 'b', cards: [...forms.map(card), { kind: 'note', id: 'n', place: { x: 0, y: 6, w: 6, h: 6 } }] },
    ];
    const kept = readProject(JSON.stringify({ ...old, boards: boards(['size', 'turn', 'ratio', 'db10', 'phase']) }));
    expect(kept.problems).toEqual([]);
    expect(kept.project!.boards).toEqual(
      readProject(JSON.stringify({ ...now, boards: boards(['magnitude', 'unwrapped', 'vswr', 'dBpower', 'phase']) })).project!.boards,
    );
    const { parameters: givens, ...rest } = old;
    expect(readProject(JSON.stringify({ ...rest, version: 1, givens }))).toEqual({ project: now, problems: [] });
    // A file of today cannot have the old word.
    expect(readProject(JSON.stringify({ ...old, version: 3 })).problems[0]).toMatchObject({ severity: 'error' });
  });

  test('files of version 1, which had givens, are read as they would be written today', () => {
    const now: Project = { ...emptyProject('t'), parameters: [{ name: 'arm', expression: '80 mm' }] };
    const { parameters: givens, ...rest } = now;
    const old = JSON.stringify({ ...rest, version: 1, givens });
    expect(readProject(old)).toEqual({ project: now, problems: [] });
    // By its own name it is unknown to either version: what is told names the key of today.
    expect(readProject(JSON.stringify({ ...rest, version: 1, parameters: givens })).problems[0]).toMatchObject({ place: { chip: 'parameters' } });
  });

  test.each([
    ['{', 'file.not-json'],
    ['[]', 'file.not-a-project'],
    ['null', 'file.not-a-project'],
    ['{"format":"other"}', 'file.not-a-project'],
    ['{"format":"jadebell-project","version":7}', 'file.version'],
    ['{"format":"jadebell-project","version":1}', 'file.shape'],
    ['{"format":"jadebell-project","version":2}', 'file.shape'],
  ])('%s is refused with %s', (text, code) => {
    const { project, problems } = readProject(text);
    expect(project).toBeNull();
    expect(problems[0]).toMatchObject({ code, severity: 'error' });
    expect(problems[0].fix).toMatch(/\.$/);
  });

  test.each([
    [{ materials: [{ name: 'board', kind: 'dielectric', permittivity: '2.2' }] }, { part: 'materials', name: 'board', chip: 'permittivity' }, 'It is "2.2", where a number belongs.'], // prettier-ignore
    [{ lines: [{ kind: 'box' }] }, { part: 'lines', name: 'number 1', chip: 'name' }, 'It is missing: text belongs here.'],
    [{ solve: { ...emptyProject('t').solve, accuracy: 'best' } }, { part: 'file', chip: 'solve.accuracy' }, 'It is "best", but must be one of "draft", "normal", "fine", "adaptive".'], // prettier-ignore
    [{ parameters: [{ name: 'a', expression: '1', foo: 2 }] }, { part: 'parameters', name: 'a' }, 'It has a key that is not known: foo.'],
    [{ title: '' }, { part: 'file', chip: 'title' }, 'It is text, but must have at least 1 character.'],
    [{ solve: { ...emptyProject('t').solve, points: 1e9 } }, { part: 'file', chip: 'solve.points' }, 'It is 1000000000, but must be at most 10001.'],
    [
      { ports: [{ kind: 'gapp', name: 'chip' }] },
      { part: 'ports', name: 'chip', chip: 'kind' },
      'It is "gapp", which is none of what may stand here.',
    ],
  ])('a fault of %j is told by names and in words', (change, place, message) => {
    expect(readProjectData({ ...emptyProject('t'), ...change }).problems).toEqual(expect.arrayContaining([expect.objectContaining({ place, message })])); // prettier-ignore
  });

  test('names that are used twice are told', () => {
    const p = { ...emptyProject('t'), parameters: [{ name: 'a', expression: '1' }, { name: 'a', expression: '2' }] }; // prettier-ignore
    expect(readProjectData(p).problems[0]).toMatchObject({ code: 'name.twice', place: { part: 'parameters', name: 'a' } });
  });

  test('no JSON value makes the reader throw', () => {
    fc.assert(fc.property(fc.jsonValue(), (v) => expect(readProjectData(v).project).toBeNull()));
    fc.assert(
      fc.property(fc.jsonValue(), fc.constantFrom('parameters', 'lines', 'ports', 'solve', 'boundaries'), (v, key) => {
        expect(() => readProjectData({ ...emptyProject('t'), [key]: v })).not.toThrow();
      }),
    );
  });

  test('the JSON Schema describes lines by kind', () => {
    expect(JSON.stringify(projectJsonSchema())).toContain('"const":"cylinder"');
  });
});

test('a fresh line of every kind fits its schema, and all its chips exist', () => {
  for (const shape of shapes) {
    const line = shape.fresh('part');
    expect(shape.schema.safeParse(line).success).toBe(true);
    for (const chip of shape.chips(line)) expect(typeof (atPath(line, chip.path) ?? chip.otherwise)).toBe('string');
    for (const part of shape.sentence(line))
      if (typeof part === 'object' && 'chip' in part) expect(shape.chips(line).map((c) => c.path)).toContain(part.chip);
  }
});

test('paths are read and replaced without touching the original', () => {
  const line = { size: ['a', 'b'], at: { x: 1 } };
  expect(withPath(line, 'size.1', 'c')).toEqual({ size: ['a', 'c'], at: { x: 1 } });
  expect(line.size[1]).toBe('b');
});

test('outlines: area with sign, and crossing edges', () => {
  const square: [number, number][] = [[0, 0], [2, 0], [2, 3], [0, 3]]; // prettier-ignore
  expect(signedArea(square)).toBe(6);
  expect(signedArea([...square].reverse())).toBe(-6);
  expect(crossingEdges(square)).toBeNull();
  expect(crossingEdges([[0, 0], [2, 2], [2, 0], [0, 2]])).toEqual([0, 2]); // prettier-ignore
});

test('a reference takes the same for the model and for what is offered', () => {
  expect(referenceFits('any', 'frame')).toBe(true);
  expect(referenceFits('body', 'group')).toBe(true);
  expect(referenceFits('metal', 'group')).toBe(false);
  expect(['solid', 'sheet', 'curve', 'frame'].filter((m) => referenceFits('curve', m as 'solid'))).toEqual(['curve']);
});
