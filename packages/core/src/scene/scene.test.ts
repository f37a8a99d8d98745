import { readFileSync } from 'node:fs';
import { beforeAll, describe, expect, test } from '@jest/globals';
import type { ManifoldToplevel } from 'manifold-3d';
import { emptyProject, type Line, type Project, readProject } from '../document/index.ts';
import { insideSheet, loadGeometryKernel, pictureOf, rowSpans, touches } from '../geometry/index.ts';
import { solvers } from '../solvers/index.ts';
import { buildScene, sceneFor } from './index.ts';

let kernel: ManifoldToplevel;
beforeAll(async () => {
  kernel = await loadGeometryKernel();
});

const box = (name: string, size: [string, string, string], at: [string, string, string], material = 'Copper'): Line => ({
  kind: 'box',
  name,
  material,
  size,
  anchor: 'centre',
  at,
});
const pair = (): Project => ({
  ...emptyProject('t'),
  lines: [box('a', ['10 mm', '4 mm', '2 mm'], ['-8 mm', '0 mm', '0 mm']), box('b', ['10 mm', '6 mm', '2 mm'], ['8 mm', '1 mm', '0 mm'])],
  ports: [{ kind: 'gap', name: 'p', between: ['a', 'b'], resistance: '50 ohm' }],
});
const codes = (p: Project): string[] => buildScene(p, kernel).problems.map((q) => q.code);

describe('bodies', () => {
  test('have the volume and area of their shape', () => {
    const p = {
      ...emptyProject('t'),
      lines: [
        box('a', ['10 mm', '4 mm', '2 mm'], ['0 mm', '0 mm', '0 mm']),
        { kind: 'cylinder', name: 'c', material: 'Copper', axis: 'x', radius: '3 mm', height: '20 mm', at: ['1 mm', '0 mm', '0 mm'] } as Line,
      ],
    };
    const [a, c] = buildScene(p, kernel).model.bodies;
    expect(a.volume).toBeCloseTo(80e-9, 15);
    expect(a.area).toBeCloseTo(2 * (40 + 20 + 8) * 1e-6, 12);
    expect(c.volume).toBeCloseTo(Math.PI * 9e-6 * 20e-3, 15);
    expect([c.min[0], c.max[0], c.min[1]]).toEqual([1e-3, 21e-3, -3e-3].map((v) => expect.closeTo(v, 9)));
    expect(c.positions.length % 3).toBe(0);
    // The drawn mesh stays within the exact bounds.
    for (let i = 0; i < c.positions.length; i += 3) expect(Math.hypot(c.positions[i + 1], c.positions[i + 2])).toBeLessThan(3e-3 * 1.00001);
    expect(pictureOf([a, c])).toContain('<polygon');
  });

  test('answer exactly where a row is inside', () => {
    const [, c] = buildScene(
      {
        ...pair(),
        lines: [
          pair().lines[0],
          { kind: 'cylinder', name: 'c', material: 'Copper', axis: 'z', radius: '5 mm', height: '2 mm', at: ['0 mm', '0 mm', '0 mm'] },
        ],
      },
      kernel,
    ).model.bodies;
    expect(rowSpans(c.shape, 3e-3, 1e-3).map((v) => v * 1e3)).toEqual([expect.closeTo(-4, 9), expect.closeTo(4, 9)]);
    expect(rowSpans(c.shape, 3e-3, 2.1e-3)).toEqual([]);
    expect(touches(c.shape, [5e-3, 0, 1e-3], 1e-6)).toBe(true);
    expect(touches(c.shape, [5.1e-3, 0, 1e-3], 1e-6)).toBe(false);
  });

  test('outlines count their edge as inside, concave ones too', () => {
    const ell: [number, number][] = [[0, 0], [4, 0], [4, 1], [1, 1], [1, 4], [0, 4]]; // prettier-ignore
    for (const [u, w, inside] of [
      [0, 0, true],
      [4, 1, true],
      [2, 1, true],
      [2, 1.1, false],
      [1, 3, true],
      [0.5, 2, true],
      [-0.1, 2, false],
    ] as const)
      // prettier-ignore
      expect(insideSheet([ell], [u, w], 1e-6)).toBe(inside);
  });
});

describe('ports', () => {
  test('across a gap span just what faces each other', () => {
    const [port] = buildScene(pair(), kernel).ports;
    expect(port).toMatchObject({ axis: 0, direction: 1, across: 1 });
    expect(port.min.map((v) => v * 1e3)).toEqual([-3, -2, 0].map((v) => expect.closeTo(v, 9)));
    expect(port.max.map((v) => v * 1e3)).toEqual([3, 2, 0].map((v) => expect.closeTo(v, 9)));
  });

  test('from the face of a sheet to a rod above it take the width of the rod', () => {
    const plate: Line = {
      kind: 'rectangle',
      name: 'a',
      material: 'Copper',
      plane: 'xy',
      size: ['60 mm', '40 mm'],
      anchor: 'centre',
      at: ['0 mm', '0 mm', '0 mm'],
    };
    const rod: Line = { kind: 'cylinder', name: 'b', material: 'Copper', axis: 'z', radius: '2 mm', height: '80 mm', at: ['5 mm', '0 mm', '3 mm'] };
    const { ports, problems } = buildScene({ ...pair(), lines: [plate, rod] }, kernel);
    expect(problems.filter((p) => p.severity === 'error')).toEqual([]);
    expect(ports[0]).toMatchObject({ axis: 2, direction: 1 });
    expect([ports[0].min[2], ports[0].max[2]]).toEqual([0, 3e-3]);
    const { across, min, max } = ports[0];
    expect(max[across] - min[across]).toBeCloseTo(4e-3, 9);
  });

  test('that make no sense are told, with what to do', () => {
    const gap = (change: Partial<Project>): string[] => codes({ ...pair(), ...change });
    expect(gap({ ports: [{ kind: 'gap', name: 'p', between: ['a', 'c'], resistance: '50 ohm' }] })).toContain('port.no-body');
    expect(gap({ lines: [pair().lines[0], box('b', ['10 mm', '6 mm', '2 mm'], ['8 mm', '9 mm', '0 mm'])] })).toContain('port.not-facing');
    expect(gap({ lines: [pair().lines[0], box('b', ['10 mm', '6 mm', '2 mm'], ['2 mm', '0 mm', '0 mm'])] })).toContain('port.no-gap');
    expect(gap({ lines: [pair().lines[0], { ...pair().lines[1], material: 'PTFE' }] })).toContain('port.not-metal');
    expect(gap({ ports: [{ kind: 'gap', name: 'p', between: ['a', 'b'], resistance: '0 ohm' }] })).toContain('value.not-positive');
    const path = {
      kind: 'path',
      name: 'p',
      from: ['-3 mm', '0 mm', '0 mm'],
      to: ['3 mm', '0 mm', '0 mm'],
      width: '0 mm',
      across: 'y',
      resistance: '50 ohm',
    } as const;
    expect(gap({ ports: [{ ...path }] as Project['ports'] })).toEqual(expect.not.arrayContaining(['port.touches-nothing']));
    expect(gap({ ports: [{ ...path, to: ['2 mm', '0 mm', '0 mm'] }] as Project['ports'] })).toContain('port.touches-nothing');
    expect(gap({ ports: [{ ...path, to: ['3 mm', '1 mm', '0 mm'] }] as Project['ports'] })).toContain('port.oblique');
    expect(gap({ ports: [] })).toContain('port.none');
  });
});

describe('bad input', () => {
  test('a body of zero size, a crossed outline, an unknown material, a dielectric sheet', () => {
    expect(codes({ ...pair(), lines: [...pair().lines, box('z', ['0 mm', '1 mm', '1 mm'], ['0 mm', '0 mm', '9 mm'])] })).toContain(
      'value.not-positive',
    );
    const bow: Line = { kind: 'polygon', name: 'bow', material: 'Copper', plane: 'xy', points: [['0 mm', '0 mm'], ['2 mm', '2 mm'], ['2 mm', '0 mm'], ['0 mm', '2 mm']], at: ['0 mm', '0 mm', '9 mm'] }; // prettier-ignore
    expect(codes({ ...pair(), lines: [...pair().lines, bow] })).toContain('shape.impossible');
    expect(codes({ ...pair(), lines: [...pair().lines, { ...bow, material: 'Unobtainium' }] })).toContain('material.unknown');
    expect(
      codes({
        ...pair(),
        lines: [
          ...pair().lines,
          { kind: 'rectangle', name: 'r', material: 'PTFE', plane: 'xy', size: ['1 mm', '1 mm'], anchor: 'centre', at: ['0 mm', '0 mm', '9 mm'] },
        ],
      }),
    ).toContain('material.sheet');
  });

  test('one failing line leaves the others standing', () => {
    const p = { ...pair(), lines: [box('bad', ['oops', '1 mm', '1 mm'], ['0 mm', '0 mm', '9 mm']), ...pair().lines] };
    const { model, scene } = buildScene(p, kernel);
    expect(model.bodies.map((b) => b.name)).toEqual(['a', 'b']);
    expect(scene).toBeNull();
  });

  test('bands, planes and margins out of place', () => {
    const p = pair();
    expect(codes({ ...p, solve: { ...p.solve, from: '2 GHz' } })).toContain('band.empty');
    expect(codes({ ...p, recordAt: ['5 GHz'] })).toContain('recorder.outside-band');
    expect(codes({ ...p, recorders: [{ kind: 'field-plane', name: 'f', normal: 'z', at: '3 m' }] })).toContain('recorder.outside');
    expect(codes({ ...p, boundaries: { ...p.boundaries, zMin: 'electric', zMax: 'electric' } })).toContain('recorder.closed');
    expect(codes({ ...p, margin: '-3 mm' })).toContain('value.not-positive');
  });

  test('a model that no machine holds is refused at once, with its size', () => {
    const p = pair();
    const { scene } = buildScene({ ...p, solve: { ...p.solve, from: '1 GHz', to: '3 THz' }, margin: '75 mm' }, kernel);
    const found = solvers.fdtd.plan(sceneFor('fdtd', scene), { memory: 16e9, threads: 2, cellsPerSecond: 1e8 }).problems;
    expect(found[0]).toMatchObject({ code: 'machine.memory', severity: 'error', message: expect.stringMatching(/GB/) });
  });
});

test('the estimate of the demo stays within what its issue allows', () => {
  const { project } = readProject(readFileSync(new URL('../../../../demo/tag-868.json', import.meta.url), 'utf8'));
  const { scene } = buildScene(project!, kernel);
  const e = solvers.fdtd.plan(sceneFor('fdtd', scene), { memory: 16e9, threads: 2, cellsPerSecond: 2e8 }).ready!.estimate;
  expect(e.bytes).toBeLessThan(1e9);
  expect(e.seconds).toBeLessThan(120);
  expect(e.cellsPerWavelength).toBeGreaterThan(17.9);
});
