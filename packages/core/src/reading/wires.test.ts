import { describe, expect, test } from '@jest/globals';
import { type ResultArray, type ResultMeta, toldFor } from '../results/index.ts';
import { defaultBoards, evidenceRows, quantities, readWireCurrents, type RunReading, wireTubes, alongWire, largestCurrent } from './index.ts';
import type { WireEvidence } from '../methods/index.ts';

const evidence: WireEvidence = { segments: 2, unknowns: 3, segmentsPerWavelength: 40, solved: 9, fitError: 2e-5, ended: "solved", powerBalance: [1e-6], largestReflection: 0.5, asymmetry: null, seconds: 1, threads: 1, bytes: 1e6 }; // prettier-ignore
const meta: ResultMeta = {
  format: 'jadebell-result',
  version: 3,
  solver: 'moment',
  coreVersion: '0',
  ports: [
    { name: 'feed', resistance: 50 },
    { name: 'other', resistance: 50 },
  ],
  excitations: [0, 1],
  recordAt: [3e8],
  farField: null,
  recorded: [], // prettier-ignore
  wires: [{ name: 'rod', line: 'rod', first: 0, count: 2, radius: 1e-3 }],
  probes: [{ name: 'feed', kind: 'port' }, { name: 'other', kind: 'port' }, { name: 'load', kind: 'load' }, { name: 'there', kind: 'point' }], // prettier-ignore
  evidence,
};
const table: Record<string, number[]> = {
  // V re, im, I re, im at two frequencies.
  'probe:feed': [2, 0, 0, 0.5, 4, 0, 1, 0],
  'probe:load': [1, 1, 0.1, 0, 2, 0, 0, 0.2],
  'probe:load@1': [0, 3, 0.3, 0, 0, 0, 0, 0],
  'probe:feed@1': [1, 0, 1, 0, 1, 0, 1, 0],
  'probe:other': [0, 0, 0, 0, 0, 0, 0, 0],
  'probe:other@1': [5, 0, 0.25, 0, 5, 0, 0.25, 0],
};
const run = (more: Partial<RunReading> = {}, of: Partial<ResultMeta> = {}): RunReading => ({
  meta: { ...meta, ...of },
  frequency: [1e8, 2e8],
  network: null,
  waves: [{ column: 0, amplitude: [1, 0] }],
  array: (name): ResultArray | undefined => (table[name] ? { shape: [2, 4], data: Float64Array.from(table[name]) } : undefined),
  ...more,
});
const at = (quantity: string, of: string, r = run()): [number[], number[]] => {
  const c = quantities[quantity].curve(r, of)!;
  return [Array.from(c.re), Array.from(c.im!)];
};

describe('voltages and currents in wires', () => {
  test('as excited, for 1 V and for 1 A at the port that sends', () => {
    expect(at('probe-voltage', 'load')).toEqual([[1, 2], [1, 0]]); // prettier-ignore
    expect(at('probe-current', 'load')).toEqual([[0.1, 0], [0, 0.2]]); // prettier-ignore
    expect(at('probe-voltage-volt', 'load')).toEqual([[0.5, 0.5], [0.5, 0]]); // prettier-ignore
    // (1 + j) / 0.5j = 2 - 2j.
    expect(at('probe-voltage-ampere', 'load')[0][0]).toBeCloseTo(2, 12);
    expect(at('probe-voltage-ampere', 'load')[1][0]).toBeCloseTo(-2, 12);
    expect(at('probe-voltage-volt', 'feed')).toEqual([[1, 1], [0, 0]]); // prettier-ignore
  });

  test('of another excitation, and of waves together for 1 W in all', () => {
    const second = run({ waves: [{ column: 1, amplitude: [1, 0] }] });
    expect(at('probe-voltage', 'load', second)[1][0]).toBe(3);
    expect(at('probe-voltage-volt', 'load', second)[1][0]).toBeCloseTo(3 / 5, 12);
    const both = run({ waves: [{ column: 0, amplitude: [1, 0] }, { column: 1, amplitude: [0, 1] }] }); // prettier-ignore
    expect(at('probe-voltage', 'load', both)[0][0]).toBeCloseTo((1 - 3) / Math.SQRT2, 12);
  });

  test('under a wave for its strength or for 1 V/m', () => {
    const lit = run({ waves: [] }, { excitations: [], wave: { name: 'sky', theta: 0, phi: 0, strength: 10 } });
    expect(at('probe-voltage', 'load', lit)[0]).toEqual([10, 20]);
    expect(at('probe-voltage-field', 'load', lit)[0]).toEqual([1, 2]);
    expect(quantities['probe-voltage-volt'].terms(lit.meta)).toEqual([]);
    expect(quantities['probe-voltage-field'].terms(meta)).toEqual([]);
  });

  test('over the directions of a sweep, at each recorded frequency', () => {
    const swept = run(
      { waves: [], array: (name) => ({ 'sweep:probe:load': { shape: [1, 2, 4], data: Float64Array.of(1, 2, 3, 4, 5, 6, 7, 8) }, 'sweep:back': { shape: [1, 2], data: Float64Array.of(0.1, 0.2) } })[name] }, // prettier-ignore
      { excitations: [], wave: { name: 'sky', theta: 0, phi: 0, strength: 2, directions: [[0.5, 0], [0.5, Math.PI]] } }, // prettier-ignore
    );
    const voltage = quantities['sweep-voltage'].curve(swept, 'load/300000000')!;
    expect(Array.from(voltage.x)).toEqual([0, 180]);
    expect(Array.from(voltage.re)).toEqual([2, 10]);
    expect(at('sweep-current', 'load/300000000', swept)[1]).toEqual([8, 16]);
    expect(Array.from(quantities['sweep-back'].curve(swept, '/300000000')!.re)).toEqual([0.1, 0.2]);
    expect(quantities['sweep-voltage'].terms(swept.meta).map((t) => t.label)).toContain('load at 300 MHz');
    expect(quantities['sweep-voltage'].terms(meta)).toEqual([]);
  });

  test('points have a current and no voltage', () => {
    expect(quantities['probe-voltage'].terms(meta).map((t) => t.key)).toEqual(['feed', 'other', 'load']);
    expect(quantities['probe-current'].terms(meta).map((t) => t.key)).toEqual(['feed', 'other', 'load', 'there']);
  });
});

describe('wires as they are drawn', () => {
  const segments = [0, 0, 0, 0, 0, 1, 2, 1e-3, 0, 0, 2, 0, 0, 1, 1, 1e-3];
  test('tubes of at least a width, each corner with the end whose current it shows', () => {
    const { corners, ends } = wireTubes(segments, 0.05);
    expect(ends).toHaveLength(2 * 60);
    expect(new Set(ends)).toEqual(new Set([0, 1, 2, 3]));
    for (let i = 0; i < corners.length; i += 3) expect(Math.hypot(corners[i], corners[i + 1])).toBeCloseTo(0.05, 6);
    ends.forEach((e, i) => expect(corners[3 * i + 2]).toBeCloseTo([0, 2, 2, 3][e], 6));
  });
  test('sizes, instants and phases of currents, and the way along', () => {
    const currents = [3, 4, 0, 1, 0, 1, 0, 0];
    expect([...readWireCurrents(currents, 'peak', 0)]).toEqual([5, 1, 1, 0]);
    expect(readWireCurrents(currents, 'instant', Math.PI / 2)[0]).toBeCloseTo(-4, 12);
    expect(readWireCurrents(currents, 'phase', 0)[1]).toBeCloseTo(90, 12);
    expect(largestCurrent(currents)).toBe(5);
    expect([...alongWire([5, 1, 1, 0], [0, 2], segments, { first: 0, count: 2 }).x]).toEqual([0, 2, 2, 3]);
  });
});

test('runs on wires have a board of currents, and evidence of their own', () => {
  expect(defaultBoards(meta).map((b) => b.name)).toContain('Wires');
  const rows = Object.fromEntries(evidenceRows(meta));
  expect(rows['frequencies solved']).toBe('9, all was solved');
  expect(rows['segments, unknowns']).toBe('2, 3');
  const earth = Object.fromEntries(evidenceRows({ ...meta, evidence: { ...evidence, earth: true as const, powerBalance: null } }));
  expect(earth['power balance: accepted less radiated and lost']).toContain('earth');
});

describe('a run that a current dipole excited', () => {
  const spot = { name: 'spot', of: 'magnetic', at: [0, 0, 0], direction: [0, 0, 1] } as const;
  const told = { excitations: [], ports: [], dipole: { ...spot, at: [0, 0, 0], direction: [0, 0, 1] } } as Partial<ResultMeta>;
  const power = (f: number): number => ((2 * Math.PI * f) / 299792458) ** 2 / (12 * Math.PI * 376.730313668);
  const given = run({ waves: [], array: (name) => (name === 'source:power' ? { shape: [2], data: Float64Array.of(3 * power(1e8), power(2e8) / 2) } : undefined) }, told); // prettier-ignore

  test('has its power over that in free space as a curve, and by itself', () => {
    expect(quantities['dipole-enhancement'].terms(given.meta)).toEqual([{ key: '', label: 'spot' }]);
    const curve = quantities['dipole-enhancement'].curve(given, '')!;
    expect(Array.from(curve.re)).toEqual([expect.closeTo(3, 9), expect.closeTo(0.5, 9)]);
    expect(quantities['dipole-power'].curve(given, '')!.re[1]).toBeCloseTo(power(2e8) / 2, 18);
    // A run of ports has neither.
    expect(quantities['dipole-power'].terms(meta)).toEqual([]);
    expect(quantities['dipole-power'].curve(run(), '')).toBeNull();
  });

  test('opens on what it gives, and its evidence speaks of no reflection', () => {
    const boards = defaultBoards(given.meta);
    expect(boards[0].name).toBe('Source');
    expect(boards[0].cards.map((c) => c.kind)).toEqual(['curves', 'evidence']);
    const rows = evidenceRows(given.meta).map(([what]) => what);
    expect(rows[0]).toBe('power balance: given less radiated and lost');
    expect(rows.some((r) => r.includes('S11') || r.includes('amplitude out'))).toBe(false);
  });

  test('is told for 1 W that it gives', () => {
    expect([toldFor(given.meta), toldFor(meta), toldFor({ wave: { name: 'sky', theta: 0, phi: 0 } })]).toEqual([
      '1 W from the dipole',
      '1 W in',
      '1 V/m',
    ]);
  });
});
