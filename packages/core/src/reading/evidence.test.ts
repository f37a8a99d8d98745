import { expect, test } from '@jest/globals';
import type { TimeEvidence } from '../methods/index.ts';
import { cautionsOf, passText } from './evidence.ts';

const passes = (...changes: number[]) => [null, ...changes].map((change, n) => ({ cells: 1000 * 2 ** n, change }));

test('what passes came to is one sentence: how many, what changed, what is to come, and whether that was asked for', () => {
  expect(passText({ asked: 0.02 }, passes(0.1, 0.01, 0.005), 'cells')).toBe(
    '4 passes to 8,000 cells: the last changed the result by 0.0050; 0.0050 is to come if passes go on so. Below 0.02 was asked for, and is reached.',
  );
  expect(passText({ asked: 0.02 }, passes(0.1, 0.2), 'unknowns')).toBe(
    '3 passes to 4,000 unknowns: the last changed the result by 0.20; what is to come cannot be told, as changes do not shrink. Below 0.02 was asked for, and is not reached.',
  );
  expect(passText({}, passes(), 'cells')).toBe('One pass to 1,000 cells: nothing to compare it with.');
});

test('what is to be borne in mind of a run: passes that ended short, a step limit, gaps that are still in it; of a good one nothing', () => {
  const good = { ended: 'decayed', residualEnergy: 1e-6 };
  const told = (evidence: object) => cautionsOf({ solver: 'fdtd', evidence: { ...good, ...evidence } as unknown as TimeEvidence });
  expect(told({})).toEqual([]);
  expect(told({ asked: 0.02, passes: passes(0.1, 0.01, 0.005) })).toEqual([]);
  expect(told({ asked: 0.02, passes: passes(0.1, 0.2) })[0]).toMatch(/is not reached\.$/);
  expect(told({ ended: 'steps', residualEnergy: 1e-3, gapsKept: [{ name: 'left', why: 'No line.' }] })).toEqual([
    'It reached its step limit with -30 dB of energy left: read sharp resonances with care.',
    'The gap of left is still in its results: No line.',
  ]);
});
