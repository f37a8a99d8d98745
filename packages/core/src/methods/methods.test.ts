import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  accuracies,
  costText,
  detailBounds,
  detailForm,
  detailHint,
  detailsFor,
  detailsSchema,
  effortText,
  gridAccuracy,
  methodOf,
  methods,
  readDetail,
  sizeOf,
  solverSchema,
  suitedTo,
  type TimeEvidence,
  wireAccuracy,
} from './index.ts';

const settings = methods.flatMap(({ name, details }) => Object.entries(details).map(([key, detail]) => ({ name, key, detail })));

describe('settings by hand', () => {
  test.each(settings)('$name: $key is read within the bounds of the document, and what is beyond is told with them', ({ key, detail }) => {
    expect(readDetail(detail, ' ')).toEqual({ value: undefined });
    if (detailForm(detail) !== 'number') return;
    const { min, max, whole } = detailBounds(detail);
    expect(detailHint(detail)).toContain(`${min} to ${max.toLocaleString('en')}`);
    const within = whole ? fc.integer({ min, max }) : fc.double({ min, max, noNaN: true });
    // What is read is always saved, and no other number.
    fc.assert(
      fc.property(within, (x) =>
        expect(detailsSchema.parse({ [key]: x })).toEqual({ [key]: (readDetail(detail, String(x)) as { value: number }).value }),
      ),
    );
    for (const text of [String(min - 1), String(max + 1), 'soon', 'NaN', ...(whole ? [String(min + 0.5)] : [])])
      expect(readDetail(detail, text)).toEqual({ fault: `Give a ${whole ? 'whole ' : ''}number from ${min} to ${max}, or nothing.` });
  });

  test('an expression is kept as it is written, and asked for bounds it has none', () => {
    const { smallestCell } = methodOf('fdtd').details;
    expect(readDetail(smallestCell, ' w / 4 ')).toEqual({ value: 'w / 4' });
    expect(() => detailBounds(smallestCell)).toThrow(/no number/);
  });

  test('each method is given its own', () => {
    const all = { cellsPerWavelength: 20, change: 0.02, eachFrequency: true, smallestCell: '1 mm' };
    expect(detailsFor('fdtd', all)).toEqual({ cellsPerWavelength: 20, change: 0.02, smallestCell: '1 mm' });
    expect(detailsFor('moment', all)).toEqual({ change: 0.02, eachFrequency: true });
    expect(detailsFor('moment')).toEqual({});
  });
});

describe('what a method says of itself', () => {
  test('a document may name each, and its accuracies tell the numbers by which it cuts', () => {
    for (const { name, accuracy } of methods) {
      expect(solverSchema.parse(name)).toBe(name);
      expect(Object.keys(accuracy)).toEqual([...accuracies]);
    }
    for (const a of ['draft', 'normal', 'fine'] as const) {
      expect(methodOf('fdtd').accuracy[a]).toContain(`${gridAccuracy[a].cellsPerWavelength} cells a wavelength, ${gridAccuracy[a].across} across`);
      expect(methodOf('moment').accuracy[a]).toContain(`${wireAccuracy[a].perWavelength} segments`);
    }
  });

  test('wires of metal suit one of them, anything else the other, nothing none', () => {
    const wire = { name: 'rod', wire: {}, material: { kind: 'conductor' } };
    expect(suitedTo([])).toBeNull();
    expect(suitedTo([wire])?.solver).toBe('moment');
    expect(suitedTo([wire, { name: 'plate', wire: null, material: { kind: 'conductor' } }])).toEqual({
      solver: 'fdtd',
      reason: 'plate is no wire, so the fields around it are solved.',
    });
    expect(suitedTo([wire, { name: 'rod of glass', wire: {}, material: { kind: 'dielectric' } }])?.reason).toContain('rod of glass');
  });

  test('cost, size and effort are told in its own words', () => {
    const cost = { solver: 'fdtd', cells: [10, 20, 30], bytes: 2e6, timeStep: 1e-12, steps: 1000, maxSteps: 9000, excitations: 2, seconds: 1, parts: { steps: 0.5, fields: 3, gaps: 0 }, cellsPerWavelength: 18.4 } as const; // prettier-ignore
    expect(costText({ ...cost, cells: [10, 20, 30] })).toBe(
      '10 × 20 × 30 cells, 2 MB, about 2 × 1,000 steps of 1.00 ps, at least 18 cells a wavelength at the highest frequency; beside them fields and patterns 3 s',
    );
    const evidence = { cells: [10, 20, 30], steps: 77, residualEnergy: 1e-6 } as unknown as TimeEvidence;
    expect(sizeOf({ solver: 'fdtd', evidence })).toEqual({ count: 6000, of: 'cells' });
    expect(effortText({ solver: 'fdtd', evidence })).toBe('77 steps, residual energy 1.00e-6');
  });
});
