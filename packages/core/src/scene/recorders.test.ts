import { describe, expect, test } from '@jest/globals';
import { emptyProject, type Recorder } from '../document/index.ts';
import { loadGeometryKernel } from '../geometry/index.ts';
import { buildScene } from './index.ts';

/** Problems of a project with one recorder beside a block of 20 mm. */
async function faults(recorder: Recorder, recordAt = ['1 GHz']): Promise<[string, string | undefined][]> {
  const project = {
    ...emptyProject('t'),
    lines: [{ kind: 'box', name: 'block', material: 'PTFE', size: ['20 mm', '20 mm', '20 mm'], anchor: 'base', at: ['0 mm', '0 mm', '0 mm'] } as never], // prettier-ignore
    ports: [{ kind: 'plane-wave', name: 'wave', theta: '0 deg', phi: '0 deg', tilt: '0 deg', minor: '0' } as never],
    margin: '20 mm',
    recorders: [recorder],
    recordAt,
  };
  const { problems, recorders } = buildScene(project, await loadGeometryKernel());
  if (!problems.length) expect(recorders[0]).toMatchObject({ kind: recorder.kind, name: recorder.name });
  return problems.filter((p) => p.severity === 'error').map((p) => [p.code, p.place.chip]);
}
const flux = (change: Partial<Extract<Recorder, { kind: 'flux' }>>): Recorder => ({ kind: 'flux', name: 'power', normal: 'y', towards: 'up', at: '0 mm', from: ['-5 mm', '0 mm'], to: ['5 mm', '8 mm'], ...change }); // prettier-ignore

const signal = (at: [string, string, string], change: { start?: string; stop?: string } = {}): Recorder => ({ kind: 'signal', name: 'point', at, start: '0 ns', stop: '0 ns', every: '0 ns', ...change }); // prettier-ignore
const box = (change: Partial<Extract<Recorder, { kind: 'field-box' }>>): Recorder => ({ kind: 'field-box', name: 'volume', from: ['0 mm', '0 mm', '0 mm'], to: ['5 mm', '5 mm', '5 mm'], fields: 'e', components: 'all', where: 'nodes', every: '1', ...change }); // prettier-ignore

describe('recorders of a project', () => {
  test('rectangles and points within the region are taken', async () => {
    expect(await faults(flux({}))).toEqual([]);
    expect(await faults(signal(['0 mm', '0 mm', '35 mm']))).toEqual([]);
  });
  test('what lies outside is told with its place', async () => {
    expect(await faults(flux({ at: '900 mm' }))).toEqual([['recorder.outside', 'at']]);
    expect(await faults(flux({ from: ['-5 mm', '700 mm'], to: ['5 mm', '800 mm'] }))).toEqual([['recorder.outside', 'from.1']]);
    // One that reaches beyond is cut off.
    expect(await faults(flux({ to: ['5 mm', '800 mm'] }))).toEqual([]);
    expect(await faults(signal(['0 mm', '-800 mm', '0 mm']))).toEqual([['recorder.outside', 'at.1']]);
    expect(await faults({ kind: 'field-plane', name: 'cut', normal: 'z', at: '1 m' })).toEqual([['recorder.outside', 'at']]);
  });
  test('a rectangle without area, and a missing frequency, are told; a signal needs none', async () => {
    expect(await faults(flux({ to: ['-5 mm', '8 mm'] }))).toEqual([['recorder.flat', 'to.0']]);
    expect(await faults(flux({}), [])).toEqual([['recorder.no-frequency', undefined]]);
    expect(await faults(signal(['0 mm', '0 mm', '0 mm']), [])).toEqual([]);
  });
  test('boxes may be flat, energies want a body, and a signal must end after it begins', async () => {
    expect(await faults(box({}))).toEqual([]);
    expect(await faults(box({ to: ['0 mm', '0 mm', '0 mm'] }))).toEqual([]);
    expect(await faults(box({ from: ['0 mm', '700 mm', '0 mm'], to: ['5 mm', '800 mm', '5 mm'] }))).toEqual([['recorder.outside', 'from.1']]);
    expect(await faults(box({ every: '1.5' }))).toEqual([['value.not-whole', 'every']]);
    expect(await faults({ kind: 'energy', name: 'stored', body: 'block' })).toEqual([]);
    expect(await faults({ kind: 'energy', name: 'stored', body: 'gone' })).toEqual([['recorder.body', 'body']]);
    expect(await faults(signal(['0 mm', '0 mm', '0 mm'], { start: '2 ns', stop: '1 ns' }))).toEqual([['recorder.time', 'stop']]);
  });
});
