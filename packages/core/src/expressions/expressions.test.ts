import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { emptyProject, type Project } from '../document/index.ts';
import { evaluateExpression, evaluateParameters, formatSI } from './index.ts';

const project = (parameters: Record<string, string>): Project => ({
  ...emptyProject('t'),
  parameters: Object.entries(parameters).map(([name, expression]) => ({ name, expression })),
});
const scopeOf = (parameters: Record<string, string>) => evaluateParameters(project(parameters));
const place = { part: 'lines', name: 'film', chip: 'size.0' } as const;
const si = (
  text: string,
  quantity: 'length' | 'angle' | 'frequency' | 'resistance' | 'number',
  parameters: Record<string, string> = {},
): number | string => {
  const r = evaluateExpression(text, quantity, scopeOf(parameters), place);
  return 'si' in r ? r.si : r.problem.code;
};

describe('values', () => {
  test.each([
    ['2 mm', 'length', 2e-3],
    ['1 inch + 10 mil', 'length', 0.025654],
    ['c0 / 868 MHz / 4', 'length', 299792458 / 868e6 / 4],
    ['90 deg', 'angle', Math.PI / 2],
    ['sqrt(4) * 3', 'number', 6],
    ['5 mm / 2 mm', 'number', 2.5],
    ['sin(30 deg)', 'number', 0.5],
    ['eta0 / 2', 'resistance', 376.730313668 / 2],
    ['0', 'length', 0],
    ['2 (3 mm)', 'length', 6e-3],
    ['max(2 mm, 0.5 cm)', 'length', 5e-3],
    ['sqrt(9 mm^2)', 'length', 3e-3],
  ] as const)('%s is %s %d', (text, quantity, value) => {
    expect(si(text, quantity)).toBeCloseTo(value, 9);
  });

  test('follow the parameters in any order', () => {
    expect(si('arm + gap', 'length', { arm: '(span - gap)/2', span: '98 mm', gap: '2 mm' })).toBeCloseTo(0.05, 12);
  });
});

describe('faults', () => {
  test.each([
    ['5', 'length', 'expression.wrong-unit'],
    ['5 MHz', 'length', 'expression.wrong-unit'],
    ['5 mm + 2 ohm', 'length', 'expression.wrong-unit'],
    ['5 mm +', 'length', 'expression.syntax'],
    ['armm', 'length', 'expression.unknown-name'],
    ['1 mm / 0', 'length', 'expression.not-finite'],
    ['sqrt(-1) * 1 mm', 'length', 'expression.not-finite'],
    ['f(x) = x', 'length', 'expression.syntax'],
    ['a = 3', 'number', 'expression.syntax'],
    ['[1, 2]', 'number', 'expression.syntax'],
    ['"text"', 'number', 'expression.syntax'],
    ['import("fs")', 'number', 'expression.syntax'],
    ['import(3)', 'number', 'expression.unknown-function'],
    ['constructor(3)', 'number', 'expression.unknown-function'],
    ['sqrt(1, 2)', 'number', 'function.arguments'],
    ['edge(a.top, a.bottom)', 'length', 'expression.not-allowed'],
    ['max(2 mm, 3)', 'length', 'expression.wrong-unit'],
    ['sin(2 mm)', 'number', 'expression.wrong-unit'],
    ['2 ^ (1 mm)', 'number', 'expression.wrong-unit'],
    ['evaluate(1)', 'number', 'expression.unknown-function'],
    ['pi.constructor', 'number', 'expression.not-allowed'],
    ['1; 2', 'number', 'expression.syntax'],
    [`${'1+'.repeat(149)}1`, 'number', 'expression.too-long'],
  ] as const)('%s as %s is %s', (text, quantity, code) => {
    expect(si(text, quantity)).toBe(code);
  });

  test('name the parameter that was probably meant', () => {
    const r = evaluateExpression('spam', 'length', scopeOf({ span: '1 mm' }), place);
    expect('problem' in r && r.problem).toMatchObject({ place, fix: expect.stringContaining('span') });
  });

  test('a cycle is told with its members, and the rest still has values', () => {
    const { problems, summary } = scopeOf({ a: 'b + 1 mm', b: 'c', c: 'a', d: '3 mm', late: 'a * 2' });
    const cycle = problems.find((p) => p.code === 'expression.cycle')!;
    expect(cycle.message).toContain('a → b → c → a');
    expect(problems.some((p) => p.code === 'expression.depends' && p.place.name === 'late')).toBe(true);
    expect(summary).toEqual({ d: { si: 0.003, measure: 'length' } });
  });

  test('a parameter cannot take the name of a unit or a constant', () => {
    expect(scopeOf({ mm: '3' }).problems[0].code).toBe('name.reserved');
    expect(scopeOf({ pi: '3' }).problems[0].code).toBe('name.reserved');
  });

  test('any text ends in a value or a problem, never in an exception', () => {
    const word = fc.constantFrom(
      'mm',
      'GHz',
      '2',
      '1e9',
      '+',
      '-',
      '*',
      '/',
      '^',
      '(',
      ')',
      'sqrt',
      'min',
      ',',
      'span',
      ' ',
      '.',
      '"',
      '[',
      ']',
      '=',
      ';',
      '!',
      '%',
      ':',
      '{',
      '}',
    );
    const text = fc.oneof(
      fc.string({ minLength: 1, maxLength: 60 }),
      fc.array(word, { minLength: 1, maxLength: 25 }).map((w) => w.join('')),
    );
    fc.assert(
      fc.property(text, (t) => {
        const r = evaluateExpression(t, 'length', scopeOf({ span: '98 mm' }), place);
        if ('si' in r) expect(Number.isFinite(r.si)).toBe(true);
        else expect(r.problem.message.length).toBeGreaterThan(5);
      }),
      { numRuns: 1500 },
    );
  });
});

test('values are written with a fitting unit', () => {
  expect(formatSI(0.0021, 'length')).toBe('2.1 mm');
  expect(formatSI(868e6, 'frequency')).toBe('868 MHz');
  expect(formatSI(0, 'length')).toBe('0 mm');
  expect(formatSI(Math.PI / 36, 'angle')).toBe('5 deg');
  expect(formatSI(1e-3 * (1 - 1e-12), 'length')).toBe('1 mm');
});
