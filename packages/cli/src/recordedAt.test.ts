import { recordedOf, farFrequencies, frequenciesKept, type ResultSet } from '@jadebell/core/results';
import { describe, expect, test } from '@jest/globals';
import { thorough } from '@jadebell/verification/thorough';
import { emptyProject, type Project, type Recorder, readProjectData } from '@jadebell/core/document';
import { quantities, type RunReading } from '@jadebell/core/reading';
import { buildScene, type PlacedRecorder, type Scene } from '@jadebell/core/scene';
import { solvers, solverOf } from '@jadebell/core/solvers';
import { loadGeometryKernel } from '@jadebell/core/geometry';
import { nodeHost } from '@jadebell/node';
import { plainScene } from '@jadebell/verification/bench';

const mm = (...v: number[]): string[] => v.map((x) => `${x} mm`);
const bar = (name: string, material: string, at: number[], size: number[]): unknown => ({ kind: 'box', name, material, size: mm(...size), anchor: 'base', at: mm(...at) }); // prettier-ignore

/** Two plates of poor metal, lossy stuff between them, fed at two places. */
const structure: Partial<Project> = {
  materials: [{ name: 'stuff', kind: 'dielectric', permittivity: 3, lossTangent: 0.05 } as never],
  lines: [
    bar('low', 'Copper', [0, 0, -3], [20, 12, 3]),
    bar('high', 'Copper', [0, 0, 4], [20, 12, 3]),
    { ...(bar('post', 'stuff', [6, 0, 0], [4, 12, 4]) as object) },
  ] as never,
  ports: [
    { kind: 'path', name: 'one', from: mm(-8, 0, 0), to: mm(-8, 0, 4), width: '2 mm', across: 'y', resistance: '50 ohm' },
    { kind: 'path', name: 'two', from: mm(0, 0, 0), to: mm(0, 0, 4), width: '2 mm', across: 'y', resistance: '50 ohm' },
  ] as never,
  margin: '15 mm',
};
const rectangle = { normal: 'z', towards: 'up', at: '2 mm', from: mm(-9, -5), to: mm(9, 5) } as const;
const everyKind = [
  { kind: 'far-field', name: 'far', step: '30 deg' },
  { kind: 'field-plane', name: 'cut', normal: 'y', at: '0 mm' },
  { kind: 'field-line', name: 'along', along: 'x', at: mm(0, 2), from: '-9 mm', to: '9 mm' },
  { kind: 'flux', name: 'power', ...rectangle },
  { kind: 'current', name: 'amps', ...rectangle },
  { kind: 'field-box', name: 'volume', from: mm(2, -2, 1), to: mm(8, 2, 3), fields: 'eh', components: 'all', where: 'nodes', every: '1' },
  { kind: 'energy', name: 'stored', body: 'post' },
] as Recorder[];
const own: Readonly<Record<string, string[]>> = { far: ['3 GHz'], cut: ['2 GHz', '3 GHz'], along: ['4 GHz'], power: ['4 GHz', '2 GHz'], amps: ['2 GHz'], volume: ['3 GHz'], stored: ['4 GHz'] }; // prettier-ignore

async function sceneOf(change: Partial<Project>): Promise<Scene> {
  const { project, problems } = readProjectData({ ...emptyProject('t'), ...structure, ...change });
  expect(problems).toEqual([]);
  const built = buildScene(project!, await loadGeometryKernel());
  expect(built.problems.filter((p) => p.severity === 'error')).toEqual([]);
  return built.scene!;
}
const solve = async (change: Partial<Project>): Promise<ResultSet> => {
  const scene = await sceneOf(change);
  return solverOf(scene).solve(scene, { host: await nodeHost() });
};
const withOwn = (list: Recorder[]): Recorder[] => list.map((r) => (own[r.name] ? { ...r, frequencies: own[r.name].map((f): [string] => [f]) } as Recorder : r)); // prettier-ignore
const settings = (change: Partial<Project['solve']> = {}): Project['solve'] => ({ ...emptyProject('t').solve, from: '2 GHz', to: '4 GHz', points: 3, accuracy: 'draft', details: { maxSteps: 120 }, ...change }); // prettier-ignore

/** Whether every recorder with frequencies of its own tells just what one that keeps all tells at them. */
function compare(all: ResultSet, some: ResultSet, hertz: (name: string) => number[]): void {
  const { recordAt } = all.meta;
  const numbers = (name: string): number[] => hertz(name).map((f) => recordAt.indexOf(f));
  expect(some.meta.recordAt).toEqual(recordAt);
  for (const [name, array] of Object.entries(some.arrays)) {
    const kind = /^(plane|line|box|farField)/.exec(name.split('@')[0]);
    if (!kind || /:(u|v|x|y|z|at|fill)$/.test(name)) continue;
    const recorder = kind[1] === 'farField' ? 'far' : name.split('@')[0].split(':')[1];
    const list = numbers(recorder);
    const whole = all.arrays[name];
    expect(array.shape).toEqual([list.length, ...whole.shape.slice(1)]);
    const size = whole.data.length / recordAt.length;
    list.forEach((f, n) => expect([...array.data.subarray(n * size, (n + 1) * size)]).toEqual([...whole.data.subarray(f * size, (f + 1) * size)]));
  }
  some.meta.recorded.forEach((entry, n) => {
    expect(frequenciesKept(some.meta, entry)).toEqual(hertz(entry.name));
    const pick = numbers(entry.name);
    for (const [k, v] of Object.entries(all.meta.recorded[n]))
      if (Array.isArray(v) && v.length === recordAt.length && k !== 'at') expect((entry as never)[k]).toEqual(pick.map((f) => v[f] as unknown));
  });
  const [a, b] = [all, some].map(({ meta }) => (meta.farField ?? meta.scattered)!.figures as { frequency: number }[]);
  expect(b).toEqual(numbers('far').map((f) => a[f]));
  expect(farFrequencies(some.meta)).toEqual(hertz('far'));
}
const rising = (name: string): number[] => (own[name] ?? ['2 GHz', '3 GHz', '4 GHz']).map((t) => 1e9 * parseFloat(t)).sort((p, q) => p - q);

describe('recorders with frequencies of their own', () => {
  const recordAt = ['2 GHz', '3 GHz', '4 GHz'];
  thorough(
    'keep what those that keep all keep there: of one excitation, of waves together, of each, and of a lit structure',
    async () => {
      const combine = ['one', 'two'].map((port, n) => ({ port, mode: 1, amplitude: '1', phase: `${60 * n} deg` }));
      const wave = { kind: 'plane-wave', name: 'wave', theta: '40 deg', phi: '20 deg', tilt: '0 deg', minor: '0' };
      for (const change of [
        { solve: settings({ excite: ['one'] }) },
        { solve: settings({ combine }) },
        { solve: settings({ keep: 'each' }) },
        { solve: settings(), ports: [wave] as never },
      ]) {
        const all = await solve({ ...change, recorders: everyKind, recordAt });
        const some = await solve({ ...change, recorders: withOwn(everyKind), recordAt });
        compare(all, some, rising);
      }
    },
    240_000,
  );

  test('keep waves of modes where they are asked for', async () => {
    const [a, b, length] = [20e-3, 10e-3, 30e-3];
    const waves = (name: string, kept?: number[]): PlacedRecorder => ({ kind: 'mode', name, normal: 2, sign: 1, min: [0, 0, 12e-3], max: [a, b, 12e-3], modes: 2, kept }); // prettier-ignore
    const scene = plainScene({
      bodies: [],
      ports: [],
      guides: ([1, -1] as const).map((into, i) => ({ name: `port${i + 1}`, order: i, normal: 2, into, min: [0, 0, i * length], max: [a, b, i * length], modes: 1, shift: 0 })), // prettier-ignore
      excite: ['port1'],
      min: [0, 0, 0],
      max: [a, b, length],
      band: { from: 9e9, to: 11e9, points: 3 },
      boundaries: Array<'electric'>(6).fill('electric'),
      recorders: [waves('all'), waves('some', [0, 2])],
      recordAt: [9.5e9, 10e9, 10.5e9],
      details: { cellsPerWavelength: 20 },
    });
    const { meta } = await solvers.fdtd.solve(scene, { host: await nodeHost() });
    const [all, some] = recordedOf(meta, 'mode');
    expect([all.frequencies, some.frequencies]).toEqual([undefined, [9.5e9, 10.5e9]]);
    all.modes.forEach((mode, m) => {
      for (const key of ['forward', 'backward', 'propagates'] as const) expect(some.modes[m][key]).toEqual([mode[key][0], mode[key][2]]);
      if (!m) for (const [re, im] of mode.forward) expect(re * re + im * im).toBeCloseTo(1, 2);
    });
    const curve = quantities['mode-power'].curve({ meta, frequency: [], array: () => undefined } as unknown as RunReading, 'some/1/forward');
    expect(Array.from(curve!.x)).toEqual([9.5e9, 10.5e9]);
  }, 60_000);

  test('add frequencies that the project does not name, and curves are over those of the recorder', async () => {
    const list = withOwn(everyKind.filter((r) => r.kind === 'flux' || r.kind === 'field-plane')).map((r): Recorder => (r.kind === 'flux' ? r : { ...r, frequencies: undefined } as Recorder)); // prettier-ignore
    const { meta } = await solve({ solve: settings({ excite: ['one'] }), recorders: list, recordAt: ['3 GHz'] });
    expect(meta.recordAt).toEqual([2e9, 3e9, 4e9]);
    expect(recordedOf(meta, 'field-plane')[0].frequencies).toEqual([3e9]);
    const curve = quantities.flux.curve({ meta, frequency: [], array: () => undefined } as unknown as RunReading, 'power');
    expect(Array.from(curve!.x)).toEqual([2e9, 4e9]);
    expect(curve!.re).toEqual(recordedOf(meta, 'flux')[0].power);
  }, 60_000);

  test('need no frequency of the project, and are told where one lies outside the band', async () => {
    const [far] = everyKind;
    const at = async (text: string): Promise<string[]> => {
      const project = { ...emptyProject('t'), ...structure, solve: settings(), recordAt: [], recorders: [{ ...far, frequencies: [['3 GHz'], [text]] }] } as Project; // prettier-ignore
      const built = buildScene(project, await loadGeometryKernel());
      return built.problems.filter((p) => p.severity === 'error').map((p) => `${p.code} ${p.place.name} ${p.place.chip}`);
    };
    expect(await at('3.5 GHz')).toEqual([]);
    expect(await at('5 GHz')).toEqual(['recorder.outside-band far frequencies.1.0']);
    expect(await at('5 mm')).toEqual(['expression.wrong-unit far frequencies.1.0']);
  });

  test('do so in wires too', async () => {
    const wires: Partial<Project> = {
      lines: [{ kind: 'straight-wire', name: 'rod', material: 'Copper', axis: 'z', length: '60 mm', radius: '0.5 mm', at: mm(0, 0, 0) }] as never,
      ports: [{ kind: 'wire-port', name: 'feed', wire: 'rod', at: '0.5', resistance: '50 ohm' }] as never,
      solve: settings({ solver: 'moment', details: undefined }),
      recordAt,
    };
    const list = everyKind.filter((r) => r.kind !== 'energy').map((r) => (r.kind === 'field-box' ? { ...r, every: '10' } : r));
    compare(await solve({ ...wires, recorders: list }), await solve({ ...wires, recorders: withOwn(list) }), rising);
  }, 60_000);
});
