import { describe, expect, test } from '@jest/globals';
import { cardWith, type DataSet, packNumbers } from '../document/index.ts';
import { c0 } from '../numerics/constants.ts';
import { channelNames, type ResultArray, type ResultMeta } from '../results/index.ts';
import {
  asSolved,
  curveForms,
  curveName,
  dataCurve,
  defaultBoards,
  drawTraces,
  immittanceOf,
  type NamedReading,
  quantities,
  spotOf,
  traceLetter,
  viewNetwork,
  figureColumns,
  freshSpot,
} from './index.ts';
import type { CardOf } from '../cards/index.ts';

const n = 51;
const frequency = Float64Array.from({ length: n }, (_, i) => 8e9 + (4e9 * i) / (n - 1));
const evidence = {} as ResultMeta['evidence'];
const base: Omit<ResultMeta, 'ports' | 'excitations'> = {
  format: 'jadebell-result', version: 3, solver: 'fdtd', coreVersion: '0', recordAt: [9e9, 10e9, 11e9], farField: null, recorded: [], evidence,
}; // prettier-ignore
const lumped: ResultMeta = {
  ...base,
  ports: [
    { name: 'in', resistance: 50 },
    { name: 'out', resistance: 50 },
  ],
  excitations: [0, 1],
};
const guided: ResultMeta = {
  ...base,
  ports: [
    { name: 'left', resistance: 0, mode: 1, family: 'TE' },
    { name: 'right', resistance: 0, mode: 1, family: 'TE' },
  ],
  excitations: [0, 1],
};
/** A lossless line of 50 ohm between two ports: S21 = exp(-j w t). */
const delay = 0.31e-9;
const line = (): ResultArray => {
  const data = new Float64Array(n * 8);
  frequency.forEach((f, i) => {
    const [c, s] = [Math.cos(2 * Math.PI * f * delay), -Math.sin(2 * Math.PI * f * delay)];
    data.set([0, 0, c, s, c, s, 0, 0], 8 * i);
  });
  return { shape: [n, 2, 2, 2], data };
};
const cutoff = 6.5e9;
const betaAt = (f: number): number => (2 * Math.PI * Math.sqrt(f * f - cutoff * cutoff)) / c0;
const beta = (): ResultArray => ({ shape: [n, 2, 2], data: Float64Array.from({ length: n * 4 }, (_, i) => (i % 2 ? 0 : betaAt(frequency[i >> 2]))) });

function reading(meta: ResultMeta, s: ResultArray, more: Partial<NamedReading> = {}, view = asSolved): NamedReading {
  const arrays: Record<string, ResultArray> = { beta: beta() };
  return {
    meta, frequency, network: viewNetwork(meta, frequency, s, arrays.beta, view), waves: [{ column: 0, amplitude: [1, 0] }], label: 'run 1', bare: false,
    array: (name) => arrays[name], parameter: () => null, ...more,
  }; // prettier-ignore
}
const curves = (card: object): CardOf<'curves'> =>
  cardWith({ kind: 'curves', id: 'c1', place: { x: 0, y: 0, w: 6, h: 6 }, traces: [], ...card } as never) as CardOf<'curves'>;
const draw = (card: object, runs: NamedReading[], data: DataSet[] = [], at: number | null = null) => drawTraces(curves(card), runs, data, at);

describe('S as it is seen', () => {
  test('every port can have its own reference, complex ones too, and impedances stay what they are', () => {
    const plain = viewNetwork(lumped, frequency, line(), undefined, asSolved);
    const other = viewNetwork(lumped, frequency, line(), undefined, { ...asSolved, references: { in: [75, 0], out: [30, -12] } });
    expect(other.references).toEqual([[75, 0], [30, -12]]); // prettier-ignore
    const [a, b] = [immittanceOf(plain, 'Z')!, immittanceOf(other, 'Z')!];
    a.data.forEach((v, i) => expect(Math.abs(v - b.data[i])).toBeLessThan(1e-6 * Math.max(1, Math.abs(v))));
    // Z11 of a line is -j Z0 cot(theta).
    const theta = 2 * Math.PI * frequency[7] * delay;
    expect(a.data[8 * 7 + 1]).toBeCloseTo(-50 / Math.tan(theta), 6);
  });

  test('planes of guided ports move along their mode, those of lumped ones do not and say so', () => {
    const moved = viewNetwork(guided, frequency, line(), beta(), { ...asSolved, shifts: { left: 5e-3 } });
    const turn = Math.atan2(moved.s.data[8 * 9 + 5], moved.s.data[8 * 9 + 4]) - Math.atan2(line().data[8 * 9 + 5], line().data[8 * 9 + 4]);
    expect(Math.cos(turn - betaAt(frequency[9]) * 5e-3)).toBeCloseTo(1, 9);
    const stuck = viewNetwork(lumped, frequency, line(), undefined, { ...asSolved, shifts: { in: 5e-3 } });
    expect(stuck.refused[0]).toContain('in cannot be moved');
    expect(stuck.s.data).toEqual(line().data);
  });

  test('what cannot be referred is told', () => {
    const one = viewNetwork({ ...lumped, excitations: [0] }, frequency, { shape: [n, 2, 1, 2], data: new Float64Array(4 * n) }, undefined, {
      ...asSolved,
      references: { '': [75, 0] },
    });
    expect(one.refused[0]).toContain('every port was excited');
    const mode = viewNetwork(guided, frequency, line(), beta(), { ...asSolved, references: { left: [75, 0] } });
    expect(mode.refused[0]).toContain('left keeps its own reference');
  });
});

describe('quantities', () => {
  test('of a line: its delay, no reflection, full transmission', () => {
    const run = reading(lumped, line());
    Array.from(quantities.delay.curve(run, 'S21')!.re).forEach((t) => expect(t).toBeCloseTo(delay, 15));
    expect(curveForms.db.of(quantities.s.curve(run, 'S21')!)[5]).toBeCloseTo(0, 9);
    expect(curveForms.db.of(quantities.s.curve(run, 'S11')!)[5]).toBe(-200);
    expect(curveForms.vswr.of(quantities.vswr.curve(run, 'S11')!)[5]).toBe(1);
    const turn = curveForms.unwrapped.of(quantities.s.curve(run, 'S21')!);
    expect(turn[n - 1] - turn[0]).toBeCloseTo(-360 * 4e9 * delay, 6);
    expect(Array.from(quantities.input.curve(run, 'in')!.re)[3]).toBeCloseTo(50, 9);
  });

  test('of a guided mode: index and wave impedance', () => {
    const run = reading(guided, line());
    const at = 20;
    const root = Math.sqrt(1 - (cutoff / frequency[at]) ** 2);
    expect(quantities.index.curve(run, 'left')!.re[at]).toBeCloseTo(root, 9);
    expect(quantities['mode-impedance'].curve(run, 'left')!.re[at]).toBeCloseTo(376.730313668 / root, 4);
    expect(quantities.input.terms(guided)).toEqual([]);
  });

  test('of a guided mode: group velocity is c times the root by which the guide wave is longer, its inverse the delay per length; none below cutoff', () => {
    const run = reading(guided, line());
    const speed = quantities['group-velocity'].curve(run, 'left')!.re;
    const delays = quantities['delay-per-length'].curve(run, 'left')!.re;
    for (let f = 1; f + 1 < n; f++) {
      // v_g v_phase = c^2 in a hollow guide (Collin, Field Theory of Guided Waves, sec. 5.1).
      const root = Math.sqrt(1 - (cutoff / frequency[f]) ** 2);
      expect(Math.abs(speed[f] / (299792458 * root) - 1)).toBeLessThan(2e-3);
      expect(speed[f] * delays[f]).toBeCloseTo(1, 12);
    }
    const dead = { ...run, array: (name: string) => (name === 'beta' ? { shape: [n, 2, 2], data: Float64Array.from({ length: 4 * n }, (_, i) => (i % 2 ? -90 : 0)) } : run.array(name)) }; // prettier-ignore
    expect(Array.from(quantities['group-velocity'].curve(dead, 'left')!.re).every((v) => Number.isNaN(v))).toBe(true);
  });

  test('active reflection goes by the waves of the lens', () => {
    const run = reading(lumped, line(), { waves: [{ column: 0, amplitude: [1, 0] }, { column: 1, amplitude: [0, 1] }] }); // prettier-ignore
    const own = quantities.active.curve(run, 'in')!;
    const s12 = quantities.s.curve(run, 'S12')!;
    expect(own.re[4]).toBeCloseTo(-s12.im![4], 12);
    expect(own.im![4]).toBeCloseTo(s12.re[4], 12);
  });

  test('names say what is needed', () => {
    const [left, right] = ['left', 'right'].map((name) =>
      [1, 2].map((mode) => ({ name, resistance: 0, mode, family: 'TE' as const, modeName: `TE${mode}0` })),
    );
    const several = { ...guided, ports: [...left, ...right] };
    expect(curveName('s', 'S2(1),1(2)', undefined, several)).toBe('S right TE10, left TE20');
    expect(curveName('beta', 'left:2', undefined, several)).toBe('phase constant, left TE20');
    expect(curveName('s', 'S21', 'phase', guided)).toBe('S right, left phase');
    expect(curveName('z', 'S21', undefined, lumped)).toBe('Z out, in');
    expect(curveName('s', 'S11', undefined, { ...lumped, ports: [{ name: 'in', resistance: 50 }], excitations: [0] })).toBe('S11');
    const twins = { ...several, ports: [...left.map((p) => ({ ...p, modeName: undefined })), ...right.map((p) => ({ ...p, modeName: 'TE11' }))] };
    expect(channelNames(twins.ports)).toEqual(['left mode 1', 'left mode 2', 'right TE11 no. 1', 'right TE11 no. 2']);
    expect(curveName('s', 'S21', undefined)).toBe('S21');
    expect(curveName('s', 'S21', 'phase')).toBe('S21 phase');
    expect(curveName('input', 'in', 'imaginary')).toBe('Z at in im');
    expect(curveName('z', 'S21', undefined)).toBe('Z21');
  });
});

describe('traces of a card', () => {
  const run = reading(lumped, line());
  test('formulas use the other curves by letter, also each other, never themselves', () => {
    const { drawn, faults } = draw({ traces: [{ quantity: 's', of: 'S21', form: 'magnitude' }, { quantity: 'formula', of: '2*a + 1' }, { quantity: 'formula', of: 'b - a' }] }, [run]); // prettier-ignore
    expect(faults).toEqual([]);
    expect(drawn[2].y[9]).toBeCloseTo(2, 9);
    expect(
      draw(
        {
          traces: [
            { quantity: 'formula', of: 'b' },
            { quantity: 'formula', of: 'a' },
          ],
        },
        [run],
      ).faults[0].text,
    ).toContain('uses itself');
    expect(draw({ traces: [{ quantity: 'formula', of: 'q + 1' }] }, [run]).faults[0].text).toContain('no curve q');
    expect([traceLetter(0), traceLetter(25), traceLetter(26)]).toEqual(['a', 'z', 'a1']);
  });

  test('over wavelength x ascends and values keep their place', () => {
    const like = draw({ traces: ['left', 'right'].map((of) => ({ quantity: 'beta', of })) }, [reading(guided, line())]).drawn;
    expect(like.map((d) => d.name)).toEqual(['left and right']);
    const { drawn, over } = draw({ over: 'wavelength', traces: [{ quantity: 's', of: 'S21', form: 'phase' }] }, [run]);
    expect(over).toBe('wavelength');
    expect(drawn[0].x[0]).toBeCloseTo(c0 / 12e9, 12);
    expect(drawn[0].y[0]).toBeCloseTo(curveForms.phase.of(quantities.s.curve(run, 'S21')!)[n - 1], 9);
  });

  test('over a parameter each run is a point at the frequency of the lens', () => {
    const at = [3, 1, 2].map((g) => reading(lumped, line(), { parameter: () => g, label: `run ${g}` }));
    const { drawn, over } = draw({ over: 'gap', traces: [{ quantity: 'delay', of: 'S21' }] }, at, [], 9.9e9);
    expect(over).toBe('parameter');
    expect([...drawn[0].x]).toEqual([1, 2, 3]);
    expect(drawn[0].y[1]).toBeCloseTo(delay, 15);
  });

  test('differences stand against the first run, which is not drawn', () => {
    const half = line();
    half.data = half.data.map((v) => v / 2);
    const { drawn } = draw({ differences: true, traces: [{ quantity: 's', of: 'S21' }] }, [run, reading(lumped, half, { label: 'run 2' })]);
    expect(drawn).toHaveLength(1);
    expect(drawn[0].y[3]).toBeCloseTo(-6.0206, 4);
  });

  test('data that were brought in stand beside, in their own numbers', () => {
    const set: DataSet = {
      name: 'bench', source: 'bench.s1p', over: 'frequency', columns: [{ name: 'S11', complex: true }, { name: 'level', complex: false }],
      data: packNumbers(Float64Array.of(1e9, 2e9, 0.1, 0, 0, -0.2, 7, 8)),
    }; // prettier-ignore
    expect(Array.from(dataCurve([set], 'bench/level')!.re)).toEqual([7, 8]);
    const { drawn, faults } = draw({ traces: [{ quantity: 's', of: 'S11' }, { quantity: 'data', of: 'bench/S11' }, { quantity: 'data', of: 'bench/none' }] }, [run], [set]); // prettier-ignore
    expect(drawn[1].y[1]).toBeCloseTo(20 * Math.log10(0.2), 9);
    expect(faults).toEqual([{ trace: 2, text: 'There are no data bench/none.' }]);
    // What is over something else stands on no card over wavelength, where it was drawn among the others.
    const tuned = draw({ over: 'wavelength', traces: [{ quantity: 's', of: 'S11' }, { quantity: 'data', of: 'bench/level' }] }, [run], [{ ...set, over: 'number' }]); // prettier-ignore
    expect(tuned.drawn).toHaveLength(1);
    expect(tuned.faults[0].text).toContain('is over number, the others are over wavelength');
  });

  test('a quantity that no run has, and one over time among those over frequency, are told', () => {
    expect(draw({ traces: [{ quantity: 'gain' }] }, [run]).faults[0].text).toContain('No run that is shown has gain');
    expect(draw({ traces: [{ quantity: 'nonsense' }] }, [run]).faults[0].text).toContain('no quantity nonsense');
  });

  test('markers follow what they are told to', () => {
    const curve = { x: [0, 1, 2, 3, 4], y: [0, -3, -1, -9, 0] };
    const marker = { trace: 0, nth: 1 } as const;
    expect(spotOf({ ...marker, kind: 'dip' }, curve)).toEqual({ x: 3, y: -9 });
    expect(spotOf({ ...marker, kind: 'dip', nth: 2 }, curve)).toEqual({ x: 1, y: -3 });
    expect(spotOf({ ...marker, kind: 'peak' }, curve, { from: 1, to: 3 })).toEqual({ x: 2, y: -1 });
    expect(spotOf({ ...marker, kind: 'level', level: -5 }, curve)!.x).toBeCloseTo(2.5, 12);
    expect(spotOf({ ...marker, kind: 'at', x: 1.6 }, curve)).toEqual({ x: 2, y: -1 });
    expect(spotOf({ ...marker, kind: 'level', level: -50 }, curve)).toBeNull();
  });
});

test('boards suit what was solved: cards fit twelve columns and do not overlap', () => {
  const antenna: ResultMeta = {
    ...base,
    ports: [{ name: 'feed', resistance: 50 }],
    excitations: [0],
    farField: { name: 'pattern', step: 0.1, figures: [] },
    recorded: [{ kind: 'field-plane', name: 'p', normal: 2, at: 0, u: 0, v: 1 }],
  };
  expect(defaultBoards(antenna).map((b) => b.name)).toEqual(['Match', 'Pattern', 'Fields']);
  expect(defaultBoards(guided).map((b) => b.name)).toEqual(['Match', 'Guide']);
  expect(defaultBoards(guided, true).map((b) => b.name)).toEqual(['Match', 'Optics']);
  const lit: ResultMeta = {
    ...base,
    ports: [],
    excitations: [],
    wave: { name: 'w', theta: 0, phi: 0 },
    scattered: { name: 'pattern', step: 0.1, figures: [] },
  };
  expect(defaultBoards(lit).map((b) => b.name)).toEqual(['Pattern']);
  for (const { cards } of [antenna, guided, lit].flatMap((m) => defaultBoards(m))) {
    const taken = new Set<string>();
    for (const { place } of cards)
      for (let x = place.x; x < place.x + place.w; x++)
        for (let y = place.y; y < place.y + place.h; y++) {
          expect(x).toBeLessThan(12);
          expect(taken.has(`${x} ${y}`)).toBe(false);
          taken.add(`${x} ${y}`);
        }
  }
});

test('a new limit stands amid what the curves are over, whatever that is', () => {
  const trace = (x: number[], y: number[], unit: string) => ({ x: Float64Array.from(x), y: Float64Array.from(y), unit });
  const wavelength = freshSpot([trace([1.5e-6, 1.6e-6, 1.7e-6], [-3, -2, -9], 'dB')]);
  expect((wavelength.from + wavelength.to) / 2).toBeCloseTo(1.6e-6, 12);
  expect(wavelength.to).toBeLessThan(1.7e-6);
  expect(wavelength.y).toBe(-10);
  const time = freshSpot([trace([0, 2e-9], [NaN, 4], 'V/m'), trace([1e-9, 4e-9], [2, 2], 'V/m')]);
  expect((time.from + time.to) / 2).toBeCloseTo(2e-9, 15);
  expect(time.y).toBe(3);
  expect(freshSpot([])).toEqual({ from: 0, to: 0, y: 0 });
});

test('figures of a far field are told in words with units', () => {
  const figures = { frequency: 1e9, directivity: 10, gain: 5, realisedGain: 4, theta: Math.PI / 2, phi: 0, radiated: 0.8, fromPattern: 0.8, accepted: 0.9, lost: 0.1, radiationEfficiency: 0.9, totalEfficiency: 0.8 }; // prettier-ignore
  const columns = figureColumns([figures]);
  expect(columns.find((c) => c.key === 'realisedGain')).toEqual({
    key: 'realisedGain',
    title: 'realised gain (dBi)',
    values: [expect.closeTo(6.0206, 4)],
  });
  expect(columns.find((c) => c.key === 'theta')!.values[0]).toBeCloseTo(90, 12);
  // Every number of the figures has a column, and no title is the name of a property.
  expect(columns.map((c) => c.key).sort()).toEqual(Object.keys(figures).sort());
  for (const { title } of columns) expect(title).not.toMatch(/^[a-z]+[A-Z]\w+$/);
});
