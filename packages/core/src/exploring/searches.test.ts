import { describe, expect, test } from '@jest/globals';
import { emptyProject, type Measure, measureSchema, type Project, searchSchema } from '../document/index.ts';
import { methods } from '../searching/index.ts';
import { goalsOf, judge } from './goals.ts';
import type { Read } from './measures.ts';
import { planSearch, SearchRun } from './searches.ts';
import { evaluateParameters } from '../expressions/index.ts';

const rod = { kind: 'straight-wire', name: 'rod', material: 'Copper', axis: 'z', length: 'long', radius: 'r', at: ['0 mm', '0 mm', '0 mm'] };
const measures = [
  { name: 'tuned', quantity: 's', take: 'where-least' },
  { name: 'match', quantity: 's', take: 'least' },
  { name: 'band', quantity: 's', take: 'width', level: -10, side: 'below' },
  { name: 'turn', quantity: 's', take: 'at', at: '1 GHz', form: 'phase' },
].map((m) => measureSchema.parse(m)) as Measure[];
const project: Project = {
  ...emptyProject('Rod'),
  parameters: [
    { name: 'long', expression: '80 mm' },
    { name: 'r', expression: '1 mm' },
    { name: 'f0', expression: '1.4 GHz' },
  ],
  lines: [rod as never],
  measures,
};
type Written = Record<string, unknown>;
const search = (more: Written = {}) =>
  searchSchema.parse({ name: 'tune', bounds: [{ parameter: 'long', from: '60 mm', to: '140 mm' }], goals: [{ measure: 'tuned', aim: 'equal', value: 'f0', within: '2 MHz' }], ...more }); // prettier-ignore
const run = (more: Written = {}): SearchRun => {
  const plan = search(more);
  const setup = planSearch(project, plan);
  expect(setup.problems.filter((p) => p.severity === 'error')).toEqual([]);
  return new SearchRun(project, plan, setup);
};
const faults = (more: Written): string[] => planSearch(project, search(more)).problems.map((p) => `${p.code} ${p.place.chip}`);

/** What a rod would have: tuned by its length, matched by its radius. */
const readOf = (v: Record<string, number>): Read[] => [
  { name: 'tuned', value: 0.14e9 / (v.long ?? 0.08) / (1 + 5 * (v.r ?? 1e-3)), unit: 'Hz' },
  { name: 'match', value: -30 + Math.abs((v.r ?? 1e-3) - 2e-3) * 2e4, unit: 'dB' },
];
function finish(s: SearchRun, of = readOf): SearchRun {
  for (let i = 0; i < 2000 && !s.ended; i++) for (const p of s.open) s.tell(p.digest, of(p.values));
  expect(s.ended).not.toBeNull();
  return s;
}

describe('a search', () => {
  test.each(Object.keys(methods))('by %s meets its goals, and its points are projects with those values', (method) => {
    const s = finish(run({ method, points: 400 }));
    expect(s.ended).toBe('goals');
    const best = s.tried[s.best!];
    expect(Math.abs(best.reads[0].value! - 1.4e9)).toBeLessThan(2e6);
    expect(Math.abs(best.values.long - 0.1 / 1.005)).toBeLessThan(2e-4);
  });

  test('for several goals with bounds moves several parameters, ends at its count, and says what is best', () => {
    const bounds = [{ parameter: 'long', from: '60 mm', to: '140 mm' }, { parameter: 'r', from: '3 mm', to: '0.5 mm', start: '2.9 mm' }]; // prettier-ignore
    const goals = [{ measure: 'tuned', aim: 'equal', value: '1.4 GHz' }, { measure: 'match', aim: 'at-most', value: '-28' }]; // prettier-ignore
    const met = finish(run({ bounds, goals, points: 200 }));
    expect([met.ended, met.tried[met.best!].met]).toEqual(['goals', [true, true]]);
    const short = finish(run({ bounds, goals: [...goals, { measure: 'match', aim: 'at-most', value: '-200' }], points: 12, together: 3 }));
    expect([short.ended, short.solved]).toEqual(['points', 12]);
    expect(short.tried[short.best!].cost).toBe(Math.min(...short.tried.map((t) => t.cost)));
  });

  test('goes on where it was when it is told again, without a point asked for twice', () => {
    const all = finish(run({ method: 'surrogate', points: 30, goals: [{ measure: 'match', aim: 'at-most', value: '-90' }], bounds: [{ parameter: 'long', from: '60 mm', to: '90 mm' }, { parameter: 'r', from: '1 mm', to: '3 mm' }] })); // prettier-ignore
    const half = Math.floor(all.solved / 2);
    expect(half).toBeGreaterThan(4);
    const known = new Map(all.tried.slice(0, half).map((t) => [t.digest, t.reads]));
    const again = run({ method: 'surrogate', points: 30, goals: [{ measure: 'match', aim: 'at-most', value: '-90' }], bounds: [{ parameter: 'long', from: '60 mm', to: '90 mm' }, { parameter: 'r', from: '1 mm', to: '3 mm' }] }); // prettier-ignore
    for (let open = again.open; open.some((p) => known.has(p.digest)); open = again.open)
      for (const p of open) if (known.has(p.digest)) again.tell(p.digest, known.get(p.digest)!);
    expect(again.solved).toBe(half);
    expect(finish(again).tried.map((t) => t.digest)).toEqual(all.tried.map((t) => t.digest));
  });

  test('passes over points beyond what has to be kept, and those that have no measure', () => {
    const s = finish(run({ keep: ['110 mm - long'], points: 60 }), (v) => (v.long < 0.09 ? [] : readOf(v))); // prettier-ignore
    expect(s.ended).toBe('goals');
    expect(s.tried.filter((t) => !t.beyond).every((t) => t.values.long <= 0.11)).toBe(true);
    // Where nothing may be kept at all it ends without a point.
    const none = finish(run({ keep: ['-1 mm'], points: 20 }));
    expect([none.solved, none.best]).toEqual([0, null]);
    expect(['points', 'method']).toContain(none.ended);
  });

  test('that makes no sense is told where it stands', () => {
    expect(faults({ goals: [] })).toEqual(['search.no-goal goals']);
    expect(faults({ goals: [{ measure: 'gain', aim: 'at-least', value: '3' }] })).toEqual(['search.no-measure goals.0.measure']);
    expect(faults({ goals: [{ measure: 'tuned', aim: 'equal', value: '3 mm' }] })).toEqual(['expression.wrong-unit goals.0.value']);
    expect(faults({ goals: [{ measure: 'match', aim: 'equal', value: '-20', within: '0' }] })).toEqual(['search.within goals.0.within']);
    expect(faults({ goals: [{ measure: 'match', aim: 'at-most', value: '-20' }, { measure: 'match', aim: 'at-least', value: '-10' }] })).toEqual(['search.contradiction goals']); // prettier-ignore
    expect(faults({ bounds: [{ parameter: 'wide', from: '1 mm', to: '2 mm' }] })).toEqual(['expression.unknown-name bounds.0.parameter']);
    expect(faults({ bounds: [{ parameter: 'long', from: '1 GHz', to: '2 mm' }] })).toEqual(['expression.wrong-unit bounds.0.from']);
    expect(faults({ bounds: [{ parameter: 'long', from: '60 mm', to: '0.06 m' }] })).toEqual(['study.move bounds.0.to']);
    expect(faults({ bounds: [{ parameter: 'long', from: '60 mm', to: '90 mm', start: '1 m' }] })).toEqual(['search.start bounds.0.start']);
    expect(faults({ bounds: [{ parameter: 'f0', from: '1 GHz', to: '2 GHz' }] })).toEqual(['study.moves-nothing bounds.0.parameter']);
    // A setting of Solve is used by the solver, if by no line.
    expect(faults({ bounds: [{ parameter: 'solve.finer', from: '1', to: '2' }] })).toEqual([]);
    expect(faults({ keep: ['wide - 1 mm'] })).toEqual(['expression.unknown-name keep.0']);
  });
});

test('goals are missed by so many times what they may be missed by', () => {
  const scope = evaluateParameters(project);
  const judged = (goal: Written, value: number | null) => {
    const { sought } = goalsOf(project, 'searches', search({ goals: [goal] }), scope);
    return judge(sought, [{ name: goal.measure as string, value, unit: '' }]);
  };
  expect(judged({ measure: 'tuned', aim: 'equal', value: 'f0' }, 1.428e9)).toMatchObject({
    misses: [expect.closeTo(2, 9)],
    met: [false],
    cost: expect.closeTo(4, 9),
  });
  expect(judged({ measure: 'match', aim: 'at-most', value: '-10', weight: 3 }, -8)).toMatchObject({ misses: [6], met: [false], cost: 36 });
  expect(judged({ measure: 'match', aim: 'at-most', value: '-10' }, -18)).toMatchObject({ misses: [0], met: [true], cost: 0 });
  expect(judged({ measure: 'turn', aim: 'equal', value: '90 deg', within: '3 deg' }, 84)).toMatchObject({ misses: [expect.closeTo(-2, 9)], met: [false], cost: expect.closeTo(4, 9) }); // prettier-ignore
  expect(judged({ measure: 'band', aim: 'at-least', value: '50 MHz' }, null).cost).toBe(Infinity);
});
