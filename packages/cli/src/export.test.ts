import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import h5wasm from 'h5wasm/node';
import { parseTable, readTouchstone } from '@jadebell/core/formats';
import { renormalised } from '@jadebell/core/network';
import { packResult, type ResultSet, unpackResult } from '@jadebell/core/results';
import { exportResult } from './export.ts';
import { readOptions } from './options.ts';

const kept = (name: string): string => fileURLToPath(new URL(`../../../demo/results/${name}.zip`, import.meta.url));
let folder: string;
beforeAll(() => void (folder = mkdtempSync(join(tmpdir(), 'jadebell-export-'))));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

let turn = 0;
/** Files that an export of a result with some options writes, by what stands behind the result's name. */
async function exported(file: string, options: Record<string, unknown>): Promise<Map<string, string>> {
  const out = join(folder, String(++turn));
  await exportResult(file, readOptions({ ...options, out, quiet: true }));
  return new Map(readdirSync(out).map((name) => [name.replace(/^.*?\.\d(?=[.-])/, ''), join(out, name)]));
}
/** Columns of a CSV file by their titles. */
function columnsOf(path: string): Record<string, number[]> {
  const [head, ...rows] = parseTable(readFileSync(path, 'utf8'));
  return Object.fromEntries(head.map((title, c) => [title, rows.map((r) => Number(r[c]))]));
}

describe('files of a kept result', () => {
  test('S of two guided ports: Touchstone on other planes, tables and JSON by names', async () => {
    const file = kept('gauge-feed-bend.1');
    const { meta, arrays } = unpackResult(readFileSync(file));
    const plain = await exported(file, { as: ['touchstone,summary', 'port-modes', 'mode-fields'] });
    expect([...plain.keys()].sort()).toEqual(['-mode-left.csv', '-mode-up.csv', '-port-modes.csv', '-result.json', '.s2p']);
    const s = readTouchstone(readFileSync(plain.get('.s2p')!, 'utf8'), 2);
    const json = JSON.parse(readFileSync(plain.get('-result.json')!, 'utf8')) as { s: { to: string; from: string; values: [number, number][] }[] };
    expect(json.s.map(({ to, from }) => `${to} from ${from}`)).toEqual(['left from left', 'up from left', 'left from up', 'up from up']);
    expect(json.s[1].values[7][1]).toBeCloseTo(s.s[1][0][7][1], 8);
    const moved = await exported(file, { as: ['touchstone'], touchstone: '2', shift: ['up=5 mm'] });
    const shifted = readTouchstone(readFileSync(moved.get('.ts')!, 'utf8'), null);
    const beta = columnsOf(plain.get('-port-modes.csv')!);
    const up = Object.keys(beta).find((t) => t.startsWith('up') && t.includes('beta'))!;
    const turned = (n: number): number => Math.atan2(shifted.s[1][0][n][1], shifted.s[1][0][n][0]) - Math.atan2(s.s[1][0][n][1], s.s[1][0][n][0]);
    for (const n of [3, 20]) expect(Math.cos(turned(n) - 5e-3 * beta[up][n])).toBeCloseTo(1, 5);
    const mode = columnsOf(plain.get('-mode-left.csv')!);
    expect(Object.keys(mode)).toHaveLength(6);
    expect(Math.max(...mode.Ev.map(Math.abs), ...mode.Eu.map(Math.abs))).toBeGreaterThan(0);
    expect(meta.ports).toHaveLength(2);
    expect(arrays.beta.shape[1]).toBe(2);
  });

  test('a field is the same as a table, a grid and HDF5, at the frequency that is asked for', async () => {
    const file = kept('tag-868.1');
    const result = unpackResult(readFileSync(file));
    const data = result.arrays['plane:above'].data;
    const size = data.length / result.meta.recordAt.length;
    const all = await exported(file, { fields: ['csv', 'hdf5'], of: ['above'], at: ['860 MHz'], as: ['fields'] });
    expect([...all.keys()].sort()).toEqual(['-above-0.868GHz.csv', '-above-0.868GHz.h5']);
    const table = columnsOf(all.get('-above-0.868GHz.csv')!);
    await h5wasm.ready;
    const h5 = new h5wasm.File(all.get('-above-0.868GHz.h5')!, 'r');
    const e = (h5.get('E') as unknown as { value: Float32Array }).value;
    const x = (h5.get('x') as unknown as { value: Float64Array }).value;
    h5.close();
    expect(table['Ex real (V/m)']).toHaveLength(size / 6);
    for (const n of [17, 400, 1003]) {
      expect(table['Ey imaginary (V/m)'][n]).toBe(data[size + 6 * n + 3]);
      expect(e[6 * n + 3]).toBe(data[size + 6 * n + 3]);
      expect(table['x (m)'][n]).toBe(x[n % x.length]);
    }
    const grid = readFileSync([...(await exported(file, { as: ['fields'], at: ['868 MHz'] })).values()][0], 'utf8');
    expect(grid).toContain('<RectilinearGrid');
    const s = readTouchstone(readFileSync((await exported(file, { as: ['touchstone'], reference: ['75'] })).get('.s1p')!, 'utf8'), 1);
    const other = renormalised(result.arrays.s, [[50, 0]], [[75, 0]]);
    expect(s.references).toEqual([[75, 0]]);
    expect(s.s[0][0][5][0]).toBeCloseTo(other!.data[10], 8);
  });

  test('currents along wires, and what was kept at places on them', async () => {
    const all = await exported(kept('mast-cable.1'), { as: ['currents', 'probes'] });
    const { meta, arrays } = unpackResult(readFileSync(kept('mast-cable.1')));
    expect(all.size).toBe(meta.recordAt.length + meta.probes!.length);
    const [path] = [...all].filter(([name]) => name.startsWith('-wire-currents')).map(([, p]) => p);
    const table = columnsOf(path);
    const last = table.wire.length - 1;
    expect(table['current real (A)'][last]).toBe(arrays['wire:current'].data[2 * last]);
    expect(new Set(table.wire).size).toBe(meta.wires!.length);
  });

  test('recorders over lines, time and bodies, and in figures', async () => {
    const lines = { shape: [2, 3, 6], data: Float32Array.from({ length: 36 }, (_, i) => i) };
    const result = {
      meta: {
        format: 'jadebell-result', version: 3, solver: 'fdtd', ports: [], excitations: [], recordAt: [1e9, 2e9], farField: null, evidence: {},
        recorded: [
          { kind: 'field-line', name: 'up', axis: 2, at: [0, 0, 0] },
          { kind: 'signal', name: 'here', at: [0, 0, 0] },
          { kind: 'flux', name: 'through', normal: 0, at: 0.1, from: [0, 0], to: [1, 1], sign: 1, power: [0.25, 0.5] },
        ],
      },
      arrays: {
        'line:up': lines, 'line:up:at': { shape: [3], data: Float64Array.of(0, 1, 2) },
        'point:here': { shape: [2, 3], data: Float32Array.of(1, 2, 3, 4, 5, 6) }, 'point:here:time': { shape: [2], data: Float64Array.of(1e-9, 2e-9) },
      },
    } as unknown as ResultSet; // prettier-ignore
    const file = join(folder, 'made.1.zip');
    writeFileSync(file, packResult(result, { title: 'no project' }));
    const all = await exported(file, { at: ['1.9 GHz'] });
    expect([...all.keys()].sort()).toEqual(['-here.csv', '-power-through.csv', '-result.json', '-up-2GHz.csv']);
    expect(columnsOf(all.get('-up-2GHz.csv')!)).toMatchObject({ 'z (m)': [0, 1, 2], 'Ex real (V/m)': [18, 24, 30], 'Ez imaginary (V/m)': [23, 29, 35] }); // prettier-ignore
    expect(columnsOf(all.get('-here.csv')!)).toEqual({ 'time (s)': [1e-9, 2e-9], 'Ex (V/m)': [1, 4], 'Ey (V/m)': [2, 5], 'Ez (V/m)': [3, 6] });
    expect(columnsOf(all.get('-power-through.csv')!)['through (W)']).toEqual([0.25, 0.5]);
  });

  test('what a wave from many directions and a dipole give', async () => {
    const common = { format: 'jadebell-result', version: 3, solver: 'moment', ports: [], excitations: [], recordAt: [1e9, 2e9], farField: null, evidence: {}, recorded: [] }; // prettier-ignore
    const lit = {
      meta: {
        ...common,
        wave: { name: 'wave', theta: 0, phi: 0, strength: 2, directions: [[0, 0], [Math.PI / 2, Math.PI]] },
        probes: [{ name: 'end', kind: 'load' }, { name: 'middle', kind: 'point' }],
      },
      arrays: {
        'sweep:back': { shape: [2, 2], data: Float64Array.of(1, 2, 3, 4) },
        'sweep:probe:end': { shape: [2, 2, 4], data: Float64Array.from({ length: 16 }, (_, i) => i) },
        'sweep:probe:middle': { shape: [2, 2, 4], data: new Float64Array(16) },
      },
    } as unknown as ResultSet; // prettier-ignore
    const file = join(folder, 'lit.1.zip');
    writeFileSync(file, packResult(lit, { title: 'no project' }));
    const all = await exported(file, { as: ['sweep'], at: ['2 GHz'], of: ['end'] });
    expect([...all.keys()]).toEqual(['-sweep-2GHz.csv']);
    expect(columnsOf(all.get('-sweep-2GHz.csv')!)).toEqual({
      'theta of the wave (deg)': [0, 90],
      'phi of the wave (deg)': [0, 180],
      'cross-section back (m2)': [3, 4],
      'end voltage real (V)': [16, 24],
      'end voltage imaginary (V)': [18, 26],
      'end current real (A)': [20, 28],
      'end current imaginary (A)': [22, 30],
    });
    const driven = {
      meta: { ...common, dipole: { name: 'd', of: 'magnetic', at: [0, 0, 0], direction: [0, 0, 1] } },
      arrays: { frequency: { shape: [2], data: Float64Array.of(1e9, 2e9) }, 'source:power': { shape: [2], data: Float64Array.of(5, 7) } },
    } as unknown as ResultSet;
    const other = join(folder, 'driven.1.zip');
    writeFileSync(other, packResult(driven, { title: 'no project' }));
    expect(columnsOf((await exported(other, { as: ['source-power'] })).get('-source-power.csv')!)).toEqual({ 'frequency (Hz)': [1e9, 2e9], 'power for a moment of 1 V m, peak (W)': [5, 7] }); // prettier-ignore
  });

  test.each([
    [{ of: ['nowhere'] }, /--of: the result has no recorder or wire 'nowhere'. There are: above/],
    [{ reference: ['left=50'] }, /--reference: the result has no channel 'left'/],
    [{ excite: ['port=1'] }, /no channel that was excited 'port'|keeps the fields of one excitation alone/],
    [{ at: ['12 mm'] }, /--at 12 mm: .*frequency/],
    [{ as: ['currents'] }, /--as: the result has nothing of currents/],
  ])('what the result does not have is told by its name: %j', async (options, words) => {
    await expect(exported(kept('tag-868.1'), options)).rejects.toThrow(words);
  });

  test.each([['75'], ['up=75']])('a reference that no channel can take is refused: %s', async (reference) => {
    await expect(exported(kept('gauge-feed-bend.1'), { reference: [reference] })).rejects.toThrow(
      /--reference: .* as modes of hollow guides have none/,
    );
  });

  test('options that cannot be read say what they need', () => {
    expect(() => readOptions({ as: ['pictures'] })).toThrow('--as is one of touchstone, curves');
    expect(() => readOptions({ reference: ['port=loud'] })).toThrow("--reference needs ohms, such as 75 or 50-20j, not 'loud'");
    expect(() => readOptions({ excite: ['port=1@north'] })).toThrow('--excite needs an amplitude and degrees');
    expect(() => readOptions({ shift: ['5 mm'] })).toThrow("--shift needs PORT=LENGTH, not '5 mm'");
  });
});
