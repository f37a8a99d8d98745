import { describe, expect, test } from '@jest/globals';
import { casesFor, isLayout } from './cases.ts';
import { keyOf, settable, thresholdsIn } from './find.ts';
import { cases } from '../index.ts';

const module = `import { x } from './x.ts';

/**
 * Cells between two things,
 * and more of it.
 */
export const gap = 2;
/** Two in a row. */
const near = 1e-3;
const far: number = 2 / 3;

const bare = 6 * 3600;
const name = 'no number';
const list = [1, 2];
function f() {
  /** Step of it. */
  const h = 1e-6;
  return h * gap;
}
`;

describe('thresholds of a module', () => {
  test('are found with value and words, those in a row by the same, and nothing else is', () => {
    expect(thresholdsIn('a/b.ts', module)).toEqual([
      { file: 'a/b.ts', name: 'gap', value: 2, about: 'Cells between two things, and more of it.' },
      { file: 'a/b.ts', name: 'near', value: 1e-3, about: 'Two in a row.' },
      { file: 'a/b.ts', name: 'far', value: 2 / 3, about: 'Two in a row.' },
      { file: 'a/b.ts', name: 'bare', value: 21600, about: '' },
      { file: 'a/b.ts', name: 'h', value: 1e-6, about: 'Step of it.' },
    ]);
  });
  test('can be set from without, and are what they were where nothing is set', () => {
    const read = (set: Record<string, number>): number[] => {
      const text = settable('a/b.ts', module).replace(/^import.*$/m, '').replaceAll('export ', '').replace(': number', ''); // prettier-ignore
      const run = new Function('globalThis', `${text}; return [gap, near, far, bare, f()];`) as (g: object) => number[];
      return run({ thresholds: set });
    };
    expect(read({})).toEqual([2, 1e-3, 2 / 3, 21600, 2e-6]);
    const [key] = [keyOf({ file: 'a/b.ts', name: 'gap' })];
    expect(read({ [key]: 5, 'a/c.ts near': 7 })).toEqual([5, 1e-3, 2 / 3, 21600, 5 * 1e-6]);
  });
  test('are tried on cases that there are', () => {
    const names = cases.map((c) => c.name);
    for (const file of ['solvers/moment/near.ts', 'solvers/modes/seek.ts', 'solvers/fdtd/pml.ts', 'solvers/fdtd/calibrateOnSpread.ts', 'grid/lines.ts', 'discretisation/subpixel.ts', 'solvers/fdtd/sources/wave.ts', 'materials/poles.ts']) {
      expect(casesFor(file).length).toBeGreaterThan(0);
      expect(names).toEqual(expect.arrayContaining([...casesFor(file)]));
    } // prettier-ignore
    expect(casesFor('shapes/outlines.ts')).toEqual([]);
    expect([isLayout('kernelParts'), isLayout('paramBytes'), isLayout('gap')]).toEqual([true, true, false]);
  });
});
