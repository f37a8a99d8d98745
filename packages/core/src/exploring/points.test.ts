import { describe, expect, test } from '@jest/globals';
import {
  emptyProject,
  type Measure,
  type Project,
  readProjectData,
  renameParameter,
  solvedDigest,
  type Study,
  studySchema,
} from '../document/index.ts';
import { costOf, costText, pointsLookedAt } from './cost.ts';
import { planStudy, studyText } from './points.ts';

const rod = { kind: 'straight-wire', name: 'rod', material: 'Copper', axis: 'z', length: '2 * arm', radius: 'r', at: ['0 mm', '0 mm', '0 mm'] };
const project = (more: Partial<Project> = {}): Project => ({
  ...emptyProject('Rod'),
  parameters: [
    { name: 'arm', expression: '70 mm' },
    { name: 'r', expression: '1 mm' },
    { name: 'turn', expression: '30 deg' },
    { name: 'n', expression: '3' },
  ],
  lines: [rod as never],
  ...more,
});
type Written = Record<string, unknown>;
const study = (moves: Written[], more: Written = {}): Study => studySchema.parse({ name: 'lengths', moves, ...more });
const plan = (moves: Written[], more: Written = {}) => planStudy(project(), study(moves, more));
const values = (moves: Written[], name: string): number[] => plan(moves).points.map((p) => p.values[name]);
const faults = (moves: Written[], more: Written = {}): string[] => plan(moves, more).problems.map((p) => `${p.severity} ${p.code} ${p.place.chip}`);

describe('points of a study', () => {
  test('values are listed, counted or stepped, in the unit of the parameter, to twelve digits', () => {
    expect(values([{ parameter: 'arm', how: 'list', values: ['60 mm', 'arm', '0.08 m'] }], 'arm')).toEqual([0.06, 0.07, 0.08]);
    expect(values([{ parameter: 'arm', how: 'count', from: '10 mm', to: '40 mm', points: 4 }], 'arm')).toEqual([0.01, 0.02, 0.03, 0.04]);
    expect(values([{ parameter: 'n', how: 'count', from: '1', to: '1000', points: 4, spacing: 'logarithmic' }], 'n')).toEqual([1, 10, 100, 1000]);
    // A step that does not divide the way ends before its end; downwards too.
    expect(values([{ parameter: 'r', how: 'step', from: '0.1 mm', to: '0.45 mm', by: '0.1 mm' }], 'r')).toEqual([1e-4, 2e-4, 3e-4, 4e-4]);
    expect(values([{ parameter: 'n', how: 'step', from: '0.3', to: '0.1', by: '-0.1' }], 'n')).toEqual([0.3, 0.2, 0.1]);
  });

  test('each point is the project at its values, with what they were written as', () => {
    const { points } = plan([{ parameter: 'turn', how: 'count', from: '0 deg', to: '90 deg', points: 7 }], { accuracy: 'fine' });
    expect(points.map((p) => p.project.parameters[2].expression)).toEqual(['0 deg', '15 deg', '30 deg', '45 deg', '60 deg', '75 deg', '90 deg']);
    expect(points[3].project.solve.accuracy).toBe('fine');
    expect(points[3].project.lines).toEqual([rod]);
  });

  test('several parameters move in all combinations, the last fastest, or side by side', () => {
    const moves = [
      { parameter: 'n', how: 'list', values: ['1', '2'] },
      { parameter: 'arm', how: 'list', values: ['60 mm', '70 mm', '80 mm'] },
    ];
    const all = plan(moves);
    expect(all.points.map((p) => [p.values.n, p.values.arm])).toEqual([[1, 0.06], [1, 0.07], [1, 0.08], [2, 0.06], [2, 0.07], [2, 0.08]]); // prettier-ignore
    expect(studyText(all.moved)).toBe('n from 1 to 2, 2 values; arm from 60 mm to 80 mm, 3 values');
    moves[0].values.push('3');
    expect(plan(moves, { together: 'beside' }).points.map((p) => [p.values.n, p.values.arm])).toEqual([[1, 0.06], [2, 0.07], [3, 0.08]]); // prettier-ignore
  });

  test.each<[string, Written[], Written, string[]]>([
    ['a unit is missing', [{ parameter: 'arm', how: 'list', values: ['60', '70 mm'] }], {}, ['error expression.wrong-unit moves.0.values.0']],
    ['one too many', [{ parameter: 'n', how: 'count', from: '1 mm', to: '3', points: 3 }], {}, ['error expression.wrong-unit moves.0.from']],
    ['no such parameter', [{ parameter: 'leg', how: 'list', values: ['1'] }], {}, ['error expression.unknown-name moves.0.parameter']],
    ['from a value to itself', [{ parameter: 'arm', how: 'count', from: 'arm', to: '70 mm', points: 3 }], {}, ['error study.move moves.0.to']],
    ['steps away from the end', [{ parameter: 'n', how: 'step', from: '1', to: '3', by: '-1' }], {}, ['error study.move moves.0.by']],
    ['no step at all', [{ parameter: 'n', how: 'step', from: '1', to: '3', by: '0' }], {}, ['error study.move moves.0.by']],
    ['a million steps', [{ parameter: 'n', how: 'step', from: '0', to: '1', by: '1e-6' }], {}, ['error study.move moves.0.by']],
    ['logarithmic through zero', [{ parameter: 'n', how: 'count', from: '-1', to: '3', points: 3, spacing: 'logarithmic' }], {}, ['error study.move moves.0.spacing']],
    ['twice the same', [{ parameter: 'r', how: 'list', values: ['r'] }, { parameter: 'r', how: 'list', values: ['2 mm'] }], {}, ['error study.twice moves.1.parameter']],
    ['unlike numbers side by side', [{ parameter: 'r', how: 'list', values: ['r'] }, { parameter: 'arm', how: 'list', values: ['1 mm', '2 mm'] }], { together: 'beside' }, ['error study.lengths together']],
    ['a million points', ['r', 'arm'].map((parameter) => ({ parameter, how: 'count', from: '1 mm', to: '9 mm', points: 1000 })), {}, ['error study.size undefined']],
    ['what moves nothing', [{ parameter: 'turn', how: 'list', values: ['1 deg', '2 deg'] }], {}, ['warning study.moves-nothing moves.0.parameter']],
  ])('%s is told at its place', (_, moves, more, wanted) => {
    expect(faults(moves, more)).toEqual(wanted);
    if (wanted[0].startsWith('error')) expect(plan(moves, more).points).toEqual([]);
  }); // prettier-ignore
});

describe('settings of Solve', () => {
  test('move like parameters: how much finer the mesh is, and what was set by hand; others, and values that they cannot have, are refused', () => {
    const move = { parameter: 'solve.finer', how: 'count', from: '1', to: '2', points: 3, spacing: 'logarithmic' };
    const { points, problems } = plan([move]);
    expect(problems).toEqual([]);
    expect(points.map((p) => p.project.solve.details)).toEqual([{ finer: 1 }, { finer: expect.closeTo(Math.SQRT2, 9) }, { finer: 2 }]);
    expect(new Set(points.map((p) => p.digest)).size).toBe(3);
    expect(points[0].project.parameters).toEqual(project().parameters);
    expect(faults([{ ...move, to: '9' }])).toEqual(['error study.setting moves.0.to']);
    expect(faults([{ ...move, to: '2 mm' }])).toEqual(['error expression.wrong-unit moves.0.to']);
    expect(faults([{ ...move, parameter: 'solve.change' }])).toEqual(['error study.no-setting moves.0.parameter']);
    expect(faults([{ ...move, parameter: 'solve.charm' }])).toEqual(['error study.no-setting moves.0.parameter']);
  });
});

describe('what varies', () => {
  const normal = { parameter: 'arm', how: 'normal', by: '1 mm' };
  const within = { parameter: 'r', how: 'within', by: '0.1 mm', about: '0.5 mm', shift: '0.05 mm' };

  test('is spread about its value as far as is looked at, and its middle as far as it may shift; points for the check come as it may come', () => {
    const { moved, points } = plan([normal, { ...within }], { together: 'sobol', points: 20, checks: 400 });
    expect(moved.map((m) => m.values.map((v) => v.si))).toEqual([[0.067, 0.073], [0.00035, 0.00065]]); // prettier-ignore
    expect(moved[1].varies).toEqual({ spread: { kind: 'even', from: 0.0004, to: expect.closeTo(0.0006, 12) }, shift: 0.00005 });
    expect([points.filter((p) => p.check).length, points.length]).toEqual([400, 420]);
    const checks = points.filter((p) => p.check).map((p) => p.values);
    const mean = checks.reduce((s, v) => s + v.arm, 0) / 400;
    expect(mean).toBeCloseTo(0.07, 3);
    expect(Math.sqrt(checks.reduce((s, v) => s + (v.arm - mean) ** 2, 0) / 400)).toBeCloseTo(0.001, 3);
    expect(Math.max(...checks.map((v) => v.r))).toBeLessThan(0.0006 + 1e-9);
    // More points leave those for the check as they are, and the first ones too.
    const longer = plan([normal, { ...within }], { together: 'sobol', points: 30, checks: 400 }).points.map((p) => p.digest);
    expect(points.every((p) => longer.includes(p.digest))).toBe(true);
    // All combinations of what varies are its corners.
    expect(plan([normal, within]).points).toHaveLength(4);
  });

  test('what makes no sense is told: nothing to vary by, links of what stays, to itself, or that cannot be, goals of nothing', () => {
    expect(faults([{ ...normal, by: '0 mm' }])).toEqual(['error study.move moves.0.by']);
    expect(faults([{ ...normal, by: '-1 mm' }])).toEqual(['error study.move moves.0.by']);
    expect(faults([{ ...within, shift: '-1 mm' }])).toEqual(['error study.move moves.0.shift']);
    expect(faults([{ ...normal, by: '1 GHz' }])).toEqual(['error expression.wrong-unit moves.0.by']);
    const both = [normal, within];
    expect(faults(both, { links: [{ a: 'arm', b: 'turn', by: 0.5 }] })).toEqual(['error study.links links.0']);
    expect(faults(both, { links: [{ a: 'arm', b: 'arm', by: 0.5 }] })).toEqual(['error study.links links.0']);
    const three = [...both, { parameter: 'turn', how: 'normal', by: '1 deg' }];
    const links = [{ a: 'arm', b: 'r', by: 0.9 }, { a: 'r', b: 'turn', by: 0.9 }, { a: 'arm', b: 'turn', by: -0.9 }]; // prettier-ignore
    expect(faults(three, { links })).toEqual(['error study.links links']);
    expect(faults(both, { goals: [{ measure: 'nothing', aim: 'at-most', value: '1' }] })).toEqual(['error search.no-measure goals.0.measure']);
  });
});

describe('a digest of what is solved', () => {
  const own = solvedDigest(project());
  test('stays where nothing differs that a result depends on', () => {
    expect(own).toMatch(/^[0-9a-f]{64}$/);
    const same: Partial<Project>[] = [
      { title: 'Another' },
      { note: 'a note', boards: [], sections: [] },
      { parameters: [{ name: 'r', expression: '0.001 m', dial: { min: '0 mm', max: '2 mm' } }, { name: 'arm', expression: '35 mm * 2' }] },
      { studies: [study([{ parameter: 'arm', how: 'list', values: ['1 mm'] }])], measures: [{ name: 'a', quantity: 's', of: '', take: 'least' } as Measure] },
    ]; // prettier-ignore
    for (const more of same) expect(solvedDigest(project(more))).toBe(own);
  });
  test('differs with a value that something uses, a line, the band and the accuracy', () => {
    const { parameters, solve } = project();
    const others = [
      project({ parameters: parameters.map((p) => (p.name === 'r' ? { ...p, expression: '1.001 mm' } : p)) }),
      project({ lines: [{ ...rod, axis: 'x' } as never] }),
      project({ solve: { ...solve, to: '1.3 GHz' } }),
      project({ solve: { ...solve, accuracy: 'fine' } }),
      project({ recordAt: ['1.1 GHz'] }),
    ];
    expect(new Set([own, ...others.map(solvedDigest)]).size).toBe(others.length + 1);
  });
});

test('a parameter is renamed in the studies that move it, and names of studies and measures are their own', () => {
  const moved = project({ studies: [study([{ parameter: 'arm', how: 'count', from: 'arm / 2', to: '2 * arm', points: 3 }])] });
  const renamed = renameParameter(moved, 'arm', 'leg');
  expect(renamed.studies![0].moves[0]).toMatchObject({ parameter: 'leg', from: 'leg / 2', to: '2 * leg' });
  expect(planStudy(renamed, renamed.studies![0]).points.map((p) => p.values.leg)).toEqual([0.035, 0.0875, 0.14]);
  const twice = readProjectData({ ...moved, studies: [moved.studies![0], moved.studies![0]] });
  expect(twice.problems.map((p) => p.code)).toEqual(['name.twice']);
});

describe('many points', () => {
  test('points are spread over ranges and lists, the same each time, more of them after the first', () => {
    const moves = [
      { parameter: 'arm', how: 'range', from: '60 mm', to: '80 mm' },
      { parameter: 'n', how: 'list', values: ['1', '2', '5'] },
    ];
    for (const together of ['sobol', 'latin']) {
      const { points, moved } = plan(moves, { together, points: 30 });
      expect(points).toHaveLength(30);
      expect(points.every((p) => p.values.arm >= 0.06 && p.values.arm <= 0.08)).toBe(true);
      expect([...new Set(points.map((p) => p.values.n))].sort()).toEqual([1, 2, 5]);
      expect(points.map((p) => p.digest)).toEqual(plan(moves, { together, points: 30 }).points.map((p) => p.digest));
      expect(studyText(moved)).toBe('arm between 60 mm and 80 mm; n from 1 to 5, 3 values');
    }
    const few = plan(moves, { together: 'sobol', points: 10 }).points;
    expect(
      plan(moves, { together: 'sobol', points: 30 })
        .points.slice(0, 10)
        .map((p) => p.digest),
    ).toEqual(few.map((p) => p.digest));
    // Of a range alone its two ends.
    expect(plan([moves[0]]).points.map((p) => p.values.arm)).toEqual([0.06, 0.08]);
  });

  test('a point is the same run whatever else the project plans or reads', () => {
    const moves = [{ parameter: 'arm', how: 'list', values: ['2 * f', '80 mm'] }];
    const base = { parameters: [...project().parameters, { name: 'f', expression: '30 mm' }] };
    const measures = [{ name: 'at', quantity: 's', of: '', take: 'at' as const, at: 'c0 / (4 * f)' }];
    const digests = (more: Partial<Project>): string[] => planStudy(project({ ...base, ...more }), study(moves)).points.map((p) => p.digest);
    expect(digests({ measures, studies: [study(moves)] })).toEqual(digests({}));
    expect(digests({})[0]).toBe(solvedDigest(planStudy(project(base), study(moves)).points[0].project));
  });

  test('what a study costs is told by the points that were looked at', () => {
    const { points, moved } = plan([{ parameter: 'arm', how: 'count', from: '10 mm', to: '109 mm', points: 100 }]);
    const at = pointsLookedAt(points);
    expect([at.length, at[0], at.at(-1)]).toEqual([24, 0, 99]);
    const cost = costOf(at.map((n) => (n === 0 ? { at: n, fault: 'It is too short.' } : { at: n, seconds: n })), 100); // prettier-ignore
    expect(cost.dearest).toEqual({ at: 99, seconds: 99 });
    expect(cost.seconds! / 100).toBeCloseTo(at.reduce((s, n) => s + n, 0) / 24, 9);
    expect(costText('arms', { moved, points }, cost)).toMatch(
      /^arms: arm from 10 mm to 109 mm, 100 values; 100 points, about 8\d min in all; the longest, arm 109 mm, 2 min\n  arm 10 mm: It is too short\.$/,
    );
    expect(costText('arms', { moved, points }, costOf([{ at: 0, fault: 'No.' }], 100))).toBe(
      'arms: arm from 10 mm to 109 mm, 100 values; 100 points\n  arm 10 mm: No.',
    );
  });
});
