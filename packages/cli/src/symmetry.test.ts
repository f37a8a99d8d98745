import { recordedOf } from '@jadebell/core/results';
import { beforeAll, describe, expect, test } from '@jest/globals';
import { thorough } from '@jadebell/verification/thorough';
import { emptyProject, type Project, readProject, type Symmetry } from '@jadebell/core/document';
import { loadGeometryKernel } from '@jadebell/core/geometry';
import { type ResultSet } from '@jadebell/core/results';
import { buildScene } from '@jadebell/core/scene';
import { type SolverHost, solverOf } from '@jadebell/core/solvers';
import { nodeHost } from '@jadebell/node';
import { sizeOf } from '@jadebell/core/methods';

const magnetic: Symmetry = { wall: 'magnetic', at: '0 mm' };
const electric: Symmetry = { wall: 'electric', at: '0 mm' };
const box = (name: string, material: string, size: string[], at: string[]): object => ({ kind: 'box', name, anchor: 'corner', size, at, material });
const far = { kind: 'far-field', name: 'pattern', step: '10 deg' };
const materials = [
  { name: 'film', kind: 'dielectric', permittivity: 1, lossTangent: 0.03 },
  { name: 'poor metal', kind: 'conductor', conductivity: 2e4 },
];

let kernel: Awaited<ReturnType<typeof loadGeometryKernel>>;
let host: SolverHost;
beforeAll(async () => {
  kernel = await loadGeometryKernel();
  host = await nodeHost();
});

function read(parts: object): Project {
  const { project, problems } = readProject(JSON.stringify({ ...emptyProject('test'), materials, ...parts }));
  if (!project) throw new Error(JSON.stringify(problems));
  return project;
}

async function solve(project: Project): Promise<ResultSet> {
  const { scene, problems } = buildScene(project, kernel);
  if (!scene) throw new Error(JSON.stringify(problems));
  return solverOf(scene).solve(scene, { host });
}

/** Largest difference over the largest size. */
function apart(a: ArrayLike<number>, b: ArrayLike<number>): number {
  expect(b.length).toBe(a.length);
  let [most, size] = [0, 0];
  for (let i = 0; i < a.length; i++) [most, size] = [Math.max(most, Math.abs(a[i] - b[i])), Math.max(size, Math.abs(a[i]))];
  return most / size;
}

describe('planes of symmetry', () => {
  /** A lossy strip dipole along x on a lossy board, all on a grid of 2 mm so that halves have the same cells. */
  const dipole = read({
    lines: [0, 1, 2, 3].flatMap((n) => [
      box(`board${n}`, 'film', ['36 mm', '10 mm', '4 mm'], [n & 1 ? '-36 mm' : '0 mm', n & 2 ? '-10 mm' : '0 mm', '-4 mm']),
      box(`arm${n}`, 'poor metal', ['28 mm', '4 mm', '4 mm'], [n & 1 ? '-30 mm' : '2 mm', n & 2 ? '-4 mm' : '0 mm', '0 mm']),
    ]),
    ports: [
      { kind: 'path', name: 'feed', from: ['-2 mm', '0 mm', '2 mm'], to: ['2 mm', '0 mm', '2 mm'], width: '8 mm', across: 'y', resistance: '50 ohm' },
    ],
    recorders: [
      far,
      { kind: 'field-plane', name: 'cut', normal: 'z', at: '12 mm' },
      { kind: 'field-plane', name: 'beside', normal: 'y', at: '-16 mm' },
      { kind: 'flux', name: 'up', normal: 'z', at: '14 mm', from: ['-20 mm', '-20 mm'], to: ['20 mm', '20 mm'], towards: 'up' },
      { kind: 'flux', name: 'side', normal: 'x', at: '-44 mm', from: ['0 mm', '-14 mm'], to: ['20 mm', '14 mm'], towards: 'down' },
      { kind: 'signal', name: 'point', at: ['-20 mm', '-10 mm', '10 mm'] },
    ],
    recordAt: ['2 GHz'],
    margin: '20 mm',
    solve: { solver: 'fdtd', from: '1.6 GHz', to: '2.4 GHz', points: 3, accuracy: 'draft', details: { cellsPerWavelength: 62 } },
  });

  test('a quarter of a lossy dipole gives S, pattern, powers and fields of the whole', async () => {
    const whole = await solve(dipole);
    for (const [name, symmetry] of [['quarter', { x: electric, y: magnetic }]] as const) {
      const part = await solve({ ...dipole, symmetry });
      const cells = (r: ResultSet): number => sizeOf(r.meta).count;
      const [f, g] = [whole, part].map((r) => r.meta.farField!.figures[0]);
      const told = {
        s: apart(whole.arrays.s.data, part.arrays.s.data),
        pattern: apart(whole.arrays.farField.data, part.arrays.farField.data),
        plane: apart(whole.arrays['plane:cut'].data, part.arrays['plane:cut'].data),
        // It lies in the half that is not computed.
        image: apart(whole.arrays['plane:beside'].data, part.arrays['plane:beside'].data),
        signal: apart(whole.arrays['point:point'].data, part.arrays['point:point'].data),
        radiated: Math.abs(g.radiated / f.radiated - 1),
        lost: Math.abs(g.lost / f.lost - 1),
        flux: Math.max(...recordedOf(whole.meta, 'flux').map((x, i) => Math.abs(recordedOf(part.meta, 'flux')[i].power[0] / x.power[0] - 1))),
      };
      process.stdout.write(
        `${name}, cells ${(cells(part) / cells(whole)).toFixed(2)}: ${Object.entries(told).map(([k, v]) => `${k} ${v.toExponential(1)}`).join(', ')}\n`, // prettier-ignore
      );
      for (const [key, error] of Object.entries(told)) expect([key, error < (key === 'signal' ? 3e-3 : 2e-4)]).toEqual([key, true]);
      expect(recordedOf(part.meta, 'flux').map((x) => x.at)[1]).toBeCloseTo(-0.044, 4);
      expect(recordedOf(part.meta, 'signal')[0].at[0]).toBeCloseTo(-0.02, 3);
      expect(Math.abs(part.meta.evidence.powerBalance![0])).toBeLessThan(2e-3);
    }
  }, 180_000);

  test('what a plane cannot hold is told with its place', () => {
    const codes = (symmetry: Project['symmetry'], more: object = {}): string[] =>
      buildScene(read({ ...dipole, ...more, symmetry }), kernel).problems.map((p) => p.code);
    expect(codes({ x: electric, y: magnetic })).toEqual([]);
    expect(codes({ y: { wall: 'magnetic', at: '1 mm' } })).toContain('symmetry.broken');
    // A wedge has the extents of its image, but is not like it.
    const wedge = { kind: 'prism', name: 'wedge', plane: 'xy', points: [['-20 mm', '-20 mm'], ['20 mm', '-20 mm'], ['-20 mm', '20 mm']], height: '4 mm', at: ['0 mm', '0 mm', '30 mm'], material: 'film' }; // prettier-ignore
    expect(codes({ y: magnetic }, { lines: [...dipole.lines, wedge] })).toContain('symmetry.broken');
    expect(codes({ x: magnetic })).toContain('symmetry.port');
    expect(codes({ y: electric })).toContain('symmetry.port');
    const flux = { kind: 'flux', name: 'odd', normal: 'z', at: '20 mm', from: ['-10 mm', '-30 mm'], to: ['30 mm', '30 mm'], towards: 'up' };
    expect(codes({ x: electric }, { recorders: [flux] })).toContain('symmetry.recorder');
    const aside = { kind: 'path', name: 'aside', from: ['2 mm', '4 mm', '0 mm'], to: ['2 mm', '4 mm', '4 mm'], width: '0 mm', across: 'x', resistance: '50 ohm' }; // prettier-ignore
    expect(codes({ y: magnetic }, { ports: [aside] })).toContain('symmetry.port');
  });
});

describe('walls', () => {
  const rod = (upper: boolean): Project =>
    read({
      lines: [
        box('top', 'Copper', ['4 mm', '4 mm', '68 mm'], ['-2 mm', '-2 mm', '4 mm']),
        ...(upper ? [] : [box('foot', 'Copper', ['4 mm', '4 mm', '68 mm'], ['-2 mm', '-2 mm', '-72 mm'])]),
      ],
      recorders: [far],
      recordAt: ['1 GHz'],
      solve: { solver: 'fdtd', from: '0.9 GHz', to: '1.1 GHz', points: 3, accuracy: 'draft' },
    });

  thorough(
    'a rod over a boundless ground has half the impedance and twice the directivity of two rods',
    async () => {
      const pair = await solve({ ...rod(false), ports: [{ kind: 'gap', name: 'feed', between: ['foot', 'top'], resistance: '100 ohm' }] });
      const single = rod(true);
      // The ground is the wall at z = 0; a thin plate on it gives the port its end.
      const plate = {
        kind: 'rectangle',
        name: 'plate',
        plane: 'xy',
        size: ['8 mm', '8 mm'],
        anchor: 'centre',
        at: ['0 mm', '0 mm', '0 mm'],
        material: 'Copper',
      };
      const over = await solve(
        read({
          ...single,
          lines: [plate, ...single.lines],
          ports: [{ kind: 'path', name: 'feed', from: ['0 mm', '0 mm', '0 mm'], to: ['0 mm', '0 mm', '4 mm'], width: '4 mm', across: 'x', resistance: '50 ohm' }], // prettier-ignore
          boundaries: { ...single.boundaries, zMin: 'electric' },
        }),
      );
      const [d, m] = [pair, over].map((r) => r.meta.farField!.figures[0]);
      process.stdout.write(`directivity ${d.directivity.toFixed(4)} of two rods, ${m.directivity.toFixed(4)} of one over ground\n`);
      expect(m.directivity / d.directivity).toBeCloseTo(2, 1);
      expect(m.theta).toBeCloseTo(Math.PI / 2, 6);
      expect(Math.abs(over.meta.evidence.powerBalance![0])).toBeLessThan(5e-3);
      expect(apart(pair.arrays.s.data, over.arrays.s.data)).toBeLessThan(0.06);
      // Nothing is radiated below the ground.
      const { shape, data } = over.arrays.farField;
      expect(Math.max(...data.subarray(data.length - 4 * shape[2] * 8).map(Math.abs))).toBe(0);
    },
    120_000,
  );

  thorough(
    'one dipole of an endless array: periodic sides and the walls of its symmetry give the same',
    async () => {
      const cell = read({
        lines: [
          // The film fills the cell, so that its sides are set by it.
          box('film', 'film', ['150 mm', '90 mm', '8 mm'], ['-75 mm', '-45 mm', '-8 mm']),
          box('arm1', 'Copper', ['54 mm', '8 mm', '4 mm'], ['4 mm', '-4 mm', '0 mm']),
          box('arm2', 'Copper', ['54 mm', '8 mm', '4 mm'], ['-58 mm', '-4 mm', '0 mm']),
        ],
        ports: [{ kind: 'gap', name: 'feed', between: ['arm2', 'arm1'], resistance: '100 ohm' }],
        recorders: [{ kind: 'flux', name: 'up', normal: 'z', at: '40 mm', from: ['-75 mm', '-45 mm'], to: ['75 mm', '45 mm'], towards: 'up' }],
        recordAt: ['1 GHz'],
        solve: { solver: 'fdtd', from: '0.9 GHz', to: '1.1 GHz', points: 3, accuracy: 'draft' },
      });
      const bounds = (x: string, y: string): object => ({ boundaries: { xMin: x, xMax: x, yMin: y, yMax: y, zMin: 'open', zMax: 'open' } });
      const periodic = await solve(read({ ...cell, ...bounds('periodic', 'periodic') }));
      const walls = await solve(read({ ...cell, ...bounds('electric', 'magnetic') }));
      const alone = await solve(cell);
      const quarter = await solve(read({ ...cell, ...bounds('electric', 'magnetic'), symmetry: { x: electric, y: magnetic } }));
      process.stdout.write(
        `periodic against walls ${apart(periodic.arrays.s.data, walls.arrays.s.data).toExponential(1)}, a quarter of it ${apart(walls.arrays.s.data, quarter.arrays.s.data).toExponential(1)}, alone ${apart(alone.arrays.s.data, walls.arrays.s.data).toFixed(2)}\n`,
      );
      expect(apart(periodic.arrays.s.data, walls.arrays.s.data)).toBeLessThan(1e-3);
      expect(apart(walls.arrays.s.data, quarter.arrays.s.data)).toBeLessThan(2e-2);
      expect(apart(alone.arrays.s.data, walls.arrays.s.data)).toBeGreaterThan(0.1);
      expect(recordedOf(periodic.meta, 'flux')[0].power[0] / recordedOf(walls.meta, 'flux')[0].power[0]).toBeCloseTo(1, 2);
    },
    120_000,
  );

  test('one periodic side alone, and a far field between walls, are told', () => {
    const codes = (boundaries: Partial<Project['boundaries']>): string[] => {
      const p = rod(true);
      return buildScene({ ...p, boundaries: { ...p.boundaries, ...boundaries } }, kernel).problems.map((x) => x.code);
    };
    const p = rod(true);
    const cell = (lines: object[], ports: object[] = []): string[] =>
      buildScene(read({ ...p, recorders: [], lines, ports, boundaries: { ...p.boundaries, xMin: 'periodic', xMax: 'periodic' } }), kernel)
        .problems.map((x) => x.code)
        .filter((c) => c !== 'port.none');
    const film = box('film', 'film', ['60 mm', '20 mm', '2 mm'], ['-30 mm', '-10 mm', '-2 mm']);
    expect(cell([film])).toEqual([]);
    expect(cell([film, box('tab', 'Copper', ['10 mm', '4 mm', '1 mm'], ['20 mm', '-2 mm', '0 mm'])])).toEqual(['period.broken']);
    const guided = { kind: 'guide-plane', name: 'p', normal: 'z', into: 'down', at: '10 mm', from: ['-30 mm', '-10 mm'], to: ['30 mm', '10 mm'], modes: '1', shift: '0 mm' }; // prettier-ignore
    expect(cell([film], [guided])).toEqual(['port.periodic']);
    expect(codes({ xMin: 'periodic' })).toContain('boundary.periodic');
    expect(codes({ xMin: 'periodic', xMax: 'periodic' })).toContain('recorder.closed');
    expect(codes({ zMin: 'electric', zMax: 'electric' })).toContain('recorder.closed');
    expect(codes({ zMin: 'electric' })).not.toContain('recorder.closed');
  });
});
