import { describe, expect, test } from '@jest/globals';
import { atPath, freshSized, handlesOf, lineSchema, placingSteps, shapes, standingOn } from '../document/index.ts';
import { compileValue, formatSI } from '../expressions/index.ts';
import type { Line } from './kinds.ts';

const fresh = (kind: string, size: number): Line => freshSized(shapeOf(kind), 'n', size, (si) => formatSI(si, 'length', 3));
const shapeOf = (kind: string) => shapes.find((s) => s.kind === kind)!;
/** Values of the chips of a line whose expressions are numbers. */
const valuesOf = (line: Line): Record<string, number> =>
  Object.fromEntries(
    shapeOf(line.kind)
      .chips(line)
      .flatMap((c) => {
        const v = compileValue(String(atPath(line, c.path) ?? c.otherwise ?? '0'), c.quantity);
        return typeof v === 'number' ? [[c.path, v]] : [];
      }),
  );

describe('a fresh line', () => {
  test('is of the size that is asked, in round steps, with the ratios of its kind', () => {
    expect(fresh('box', 0.11)).toMatchObject({ size: ['100 mm', '50 mm', '5 mm'] });
    expect(fresh('box', 3e-6)).toMatchObject({ size: ['2 um', '1 um', '100 nm'] });
    expect(fresh('straight-wire', 0.1)).toMatchObject({ length: '90 mm', radius: '300 um' });
    expect(fresh('box', 0)).toMatchObject({ size: ['20 mm', '10 mm', '1 mm'] });
  });
  test.each(shapes.map((s) => [s.kind]))('%s keeps to the format at every size', (kind) => {
    for (const size of [2e-7, 3e-3, 40]) expect(lineSchema.safeParse(fresh(kind, size)).error?.issues ?? []).toEqual(shapeOf(kind).schema.safeParse(shapeOf(kind).fresh('n')).error?.issues ?? []); // prettier-ignore
  });
});

describe('placing by hand', () => {
  const stepsOn = (kind: string, up: [number, number, number]): string[][] => {
    const line = standingOn(fresh(kind, 0.02), up);
    return placingSteps(line, valuesOf(line), up).map((s) => [s.kind, ...s.handles.map((h) => h.path)]);
  };
  test('a box on the floor has its place, its two sides at once, then its height', () => {
    expect(stepsOn('box', [0, 0, 1])).toEqual([
      ['place', 'at.0', 'at.1', 'at.2'],
      ['sizes', 'size.0', 'size.1'],
      ['sizes', 'size.2'],
    ]);
  });
  test('round bodies stand along the normal of the face', () => {
    expect(standingOn(fresh('cylinder', 0.02), [1, 0, 0])).toMatchObject({ axis: 'x' });
    expect(stepsOn('cylinder', [1, 0, 0])).toEqual([
      ['place', 'at.0', 'at.1', 'at.2'],
      ['sizes', 'radius'],
      ['sizes', 'height'],
    ]);
    expect(standingOn(fresh('rectangle', 0.02), [0, 1, 0])).toMatchObject({ plane: 'zx' });
  });
  test('every kind with a place has all of its handles in its steps, none twice', () => {
    for (const { kind } of shapes) {
      const line = standingOn(fresh(kind, 0.02), [0, 0, 1]);
      const values = valuesOf(line);
      const paths = placingSteps(line, values, [0, 0, 1]).flatMap((s) => s.handles.map((h) => h.path));
      expect(new Set(paths).size).toBe(paths.length);
      expect(paths.sort()).toEqual(handlesOf(line, values).map((h) => h.path).filter((p) => !/^(from|to)\./.test(p)).sort()); // prettier-ignore
    }
  });
});
