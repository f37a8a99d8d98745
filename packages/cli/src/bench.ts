import { emptyProject, type Project } from '@jadebell/core/document';
import { loadGeometryKernel } from '@jadebell/core/geometry';
import { buildScene, type GridScene, sceneFor } from '@jadebell/core/scene';
import { buildGrid, cellCount } from '@jadebell/core/grid';
import { solvers } from '@jadebell/core/solvers';
import { kernels, nodeHost, spawnKernel } from '@jadebell/node';
import { discretise, planRecording, Simulation, samplesPerPeriod, type Discrete } from '@jadebell/core/solvers/fdtd/parts';
import { pulseAt, pulseFor } from '@jadebell/core/numerics';

interface Instance {
  exports: Record<string, (...args: number[]) => void>;
}
interface Wasm {
  Memory: new (d: { initial: number; maximum: number; shared: boolean }) => { buffer: SharedArrayBuffer };
  instantiate(module: unknown, imports: object): Promise<Instance>;
}
const wasm = (globalThis as unknown as { WebAssembly: Wasm }).WebAssembly;

const now = (): number => performance.now() / 1000;
/** Best of `rounds` runs of work that returns units per second: the machine is shared, the best is the steadiest. */
async function best(rounds: number, once: () => Promise<number>): Promise<number> {
  let top = 0;
  for (let i = 0; i < rounds; i++) top = Math.max(top, await once());
  return top;
}

/** Calls a kernel on all threads with thread-dependent arguments; gives seconds. */
async function together(name: string, threads: number, bytes: number, args: (thread: number) => number[]): Promise<number> {
  const module = await kernels();
  const pages = Math.ceil(bytes / 65536) + 4;
  const memory = new wasm.Memory({ initial: pages, maximum: pages, shared: true });
  const instance = await wasm.instantiate(module, { env: { memory, now: () => performance.now(), abort: () => undefined } });
  const helpers = await Promise.all(Array.from({ length: threads - 1 }, () => spawnKernel(module, memory)));
  const go = async (): Promise<number> => {
    const started = now();
    const others = helpers.map((h, i) => h.call(name, args(i + 1)));
    instance.exports[name](...args(0));
    await Promise.all(others);
    return now() - started;
  };
  await go();
  const seconds = Math.min(await go(), await go());
  helpers.forEach((h) => h.close());
  return seconds;
}

const side = 160;
const steps = 40;
const base = 131072;

const bare = async (threads: number): Promise<number> => {
  const sx = side + 32;
  const bytes = sx * side * (side + 1) * 4 * 6;
  const seconds = await together('bare', threads, bytes + base + 65536, (t) => [t, threads, steps, base, sx, side, side, 65536]);
  return (side ** 3 * steps) / seconds;
};
const triad = async (threads: number): Promise<number> => {
  const bytes = 64 * 2 ** 20;
  const rounds = 8;
  const seconds = await together('triad', threads, 3 * bytes + base + 65536, (t) => [t, threads, rounds, base, bytes, 65536]);
  return (3 * bytes * rounds) / seconds;
};

/** A model with all that costs: lossy and lossless blocks, rods, a sheet, layers on six sides, far field, a plane. */
function fullProject(): Project {
  const p = emptyProject('Bench');
  p.lines = [
    {
      kind: 'box',
      name: 'block',
      material: 'Glass-epoxy laminate',
      size: ['60 mm', '60 mm', '40 mm'],
      anchor: 'centre',
      at: ['0 mm', '0 mm', '-30 mm'],
    },
    { kind: 'cylinder', name: 'rod', material: 'Alumina', axis: 'y', radius: '12 mm', height: '60 mm', at: ['20 mm', '-30 mm', '30 mm'] },
    { kind: 'rectangle', name: 'left', material: 'Copper', plane: 'xy', size: ['28 mm', '4 mm'], anchor: 'corner', at: ['-30 mm', '-2 mm', '0 mm'] },
    { kind: 'rectangle', name: 'right', material: 'Copper', plane: 'xy', size: ['28 mm', '4 mm'], anchor: 'corner', at: ['2 mm', '-2 mm', '0 mm'] },
  ];
  p.ports = [{ kind: 'gap', name: 'feed', between: ['left', 'right'], resistance: '50 ohm' }];
  p.margin = '12 mm';
  p.recorders = [
    { kind: 'far-field', name: 'pattern', step: '15 deg' },
    { kind: 'field-plane', name: 'cut', normal: 'z', at: '5 mm' },
  ];
  p.recordAt = ['3 GHz', '4 GHz'];
  p.solve = { solver: 'fdtd', from: '2.5 GHz', to: '4.5 GHz', points: 41, accuracy: 'normal', details: { cellsPerWavelength: 60 } };
  return p;
}

/** The same with as many cells as a machine of this kind must hold. */
function largeProject(): Project {
  const p = fullProject();
  p.margin = '44 mm';
  p.solve.details = { cellsPerWavelength: 105, maxSteps: 100 };
  return p;
}

/** Prints what a model of sixty million cells takes. */
export async function benchLarge(print: (line: string) => void): Promise<void> {
  const built = buildScene(largeProject(), await loadGeometryKernel());
  const started = now();
  const { rate, bytesPerCell, cells } = await full(sceneFor('fdtd', built.scene), 2);
  const count = cells.reduce((a, b) => a * b, 1);
  print(`large model ${cells.join(' x ')} = ${(count / 1e6).toFixed(1)} million cells (aim: at least 60), 100 steps`);
  print(
    `  ${(rate / 1e6).toFixed(0)} Mcell/s on 2 threads, ${bytesPerCell.toFixed(0)} bytes a cell (aim: at most 60), ${(now() - started).toFixed(0)} s in all`,
  );
}

async function full(scene: GridScene, threads: number): Promise<{ rate: number; bytesPerCell: number; cells: number[] }> {
  const host = await nodeHost(threads);
  const result = await solvers.fdtd.solve(scene, { host });
  const e = result.meta.evidence;
  const cells = e.cells[0] * e.cells[1] * e.cells[2];
  return { rate: e.cellsPerSecond, bytesPerCell: e.bytes / cells, cells: e.cells };
}

/** Steps after which pages are touched and code is compiled for good, and steps that are timed, in this many stretches of which the best counts. */
const warm = 60;
const timed = 80;
const stretches = 3;

/** Speed of the time stepping with all that goes with it, once it is warm. */
async function stepping(discrete: Discrete, scene: GridScene, threads: number): Promise<{ rate: number; bytesPerCell: number }> {
  const pulse = pulseFor(scene.band.from, scene.band.to);
  const simulation = await Simulation.create(
    {
      discrete,
      waveform: (_, t) => pulseAt(pulse, t),
      resistance: (p) => scene.ports[p].resistance,
      maxSteps: warm + stretches * timed,
      regions: planRecording(scene, discrete).regions,
      frequencies: scene.recordAt,
      every: Math.max(1, Math.floor(1 / (samplesPerPeriod * pulse.highest * discrete.dt))),
      lowest: scene.band.from,
      boundaries: scene.boundaries,
    },
    await nodeHost(threads),
  );
  const cells = cellCount(discrete.grid);
  await simulation.advance(warm);
  const rate = await best(stretches, async () => {
    const started = now();
    await simulation.advance(timed);
    return (cells * timed) / (now() - started);
  });
  simulation.close();
  return { rate, bytesPerCell: simulation.bytes / cells };
}

/** The bench model with media that lose nothing and so need no memory. */
const lossless = (p: Project): Project => ({
  ...p,
  materials: [4.3, 9.8].map((permittivity, i) => ({ name: `Lossless ${i}`, kind: 'dielectric', permittivity })),
  lines: p.lines.map((l, i) => (i < 2 ? { ...l, material: `Lossless ${i}` } : l)) as Project['lines'],
});

/** Prints speeds of this run and their ratios; absolute numbers are for this machine at this moment only. */
export async function bench(print: (line: string) => void): Promise<void> {
  const rate = (v: number): string => `${(v / 1e6).toFixed(0)} Mcell/s`;
  const triads = [await triad(1), await triad(2)];
  const bares = [await best(3, () => bare(1)), await best(3, () => bare(2))];
  print(`memory loop a = b + s*c   1 thread ${(triads[0] / 1e9).toFixed(1)} GB/s   2 threads ${(triads[1] / 1e9).toFixed(1)} GB/s   ratio ${(triads[1] / triads[0]).toFixed(2)}`); // prettier-ignore
  print(`bare loop ${side}^3           1 thread ${rate(bares[0])}   2 threads ${rate(bares[1])}   ratio ${(bares[1] / bares[0]).toFixed(2)}`);
  const kernel = await loadGeometryKernel();
  for (const [what, project] of [
    ['media without loss', lossless(fullProject())],
    ['lossy media', fullProject()],
  ] as const) {
    const built = buildScene(project, kernel);
    if (!built.scene) throw new Error(built.problems.map((p) => p.message).join(' '));
    const scene = sceneFor('fdtd', built.scene);
    const started = now();
    const discrete = discretise(scene, buildGrid(scene));
    const made = now() - started;
    const runs = [await stepping(discrete, scene, 1), await stepping(discrete, scene, 2)];
    const size = discrete.grid.lines.map((l) => l.length - 1).join(' x ');
    print(`full solver, ${what}, ${size}`);
    print(`  1 thread ${rate(runs[0].rate)}   2 threads ${rate(runs[1].rate)}   two threads / one ${(runs[1].rate / runs[0].rate).toFixed(2)} (aim: at least 1.7)`); // prettier-ignore
    print(`  full / bare   1 thread ${(runs[0].rate / bares[0]).toFixed(2)}   2 threads ${(runs[1].rate / bares[1]).toFixed(2)} (aim: at least 0.6)`);
    print(`  ${runs[1].bytesPerCell.toFixed(0)} bytes a cell${what === 'lossy media' ? '' : ' (aim: at most 60)'}; grid and coefficients took as long as ${((made * runs[1].rate) / cellCount(discrete.grid)).toFixed(0)} steps`); // prettier-ignore
  }
}
