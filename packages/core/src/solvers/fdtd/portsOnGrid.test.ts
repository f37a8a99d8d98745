import { describe, expect, test } from '@jest/globals';
import type { MaterialEntry, Point3 } from '../../document/index.ts';
import { buildGrid } from '../../grid/index.ts';
import type { GridScene, SceneGuide, ScenePort } from '../../scene/index.ts';
import { plainBody, plainScene } from '@jadebell/verification/bench';
import { portsOnGrid } from './portsOnGrid.ts';

const metal = { name: 'metal', kind: 'conductor' } as const;
const medium = (permittivity: number): MaterialEntry => ({ name: `medium ${permittivity}`, kind: 'dielectric', permittivity });
const box = (name: string, order: number, material: MaterialEntry, min: Point3, max: Point3) =>
  plainBody(name, order, material, { form: 'box', min, max });

/** Two bars along x with a gap of 2 mm, a port across it, and what else stands there. */
function bars(port: Partial<ScenePort> = {}, ...more: GridScene['bodies']): GridScene {
  return plainScene({
    bodies: [box('left', 0, metal, [-20e-3, -1e-3, -1e-3], [-1e-3, 1e-3, 1e-3]), box('right', 1, metal, [1e-3, -1e-3, -1e-3], [20e-3, 1e-3, 1e-3]), ...more], // prettier-ignore
    ports: [{ name: 'feed', order: 0, resistance: 50, axis: 0, direction: 1, min: [-1e-3, 0, 0], max: [1e-3, 0, 0], across: 1, ...port }],
    min: [-40e-3, -20e-3, -20e-3],
    max: [40e-3, 20e-3, 20e-3],
    band: { from: 2e9, to: 4e9, points: 3 },
    accuracy: 'draft',
  });
}

/** A guide of 15.8 x 7.9 mm along x within a block of metal, fed at its start. */
function guide(change: Partial<SceneGuide>, band: [number, number], ...more: GridScene['bodies']): GridScene {
  const [a, b, length] = [15.8e-3, 7.9e-3, 30e-3];
  return plainScene({
    bodies: more,
    ports: [],
    guides: [{ name: 'in', order: 0, normal: 0, into: 1, min: [0, 0, 0], max: [0, a, b], modes: 1, shift: 0, ...change }],
    min: [0, 0, 0],
    max: [length, a, b],
    band: { from: band[0], to: band[1], points: 3 },
    boundaries: ['electric', 'open', 'electric', 'electric', 'electric', 'electric'],
    accuracy: 'draft',
  });
}

const codes = (scene: GridScene): string[] => portsOnGrid(scene, buildGrid(scene)).map((p) => `${p.code} ${p.place.part} ${p.place.name}`);

describe('ports on the grid, before a run', () => {
  test('sound ones have no problem', () => {
    expect(codes(bars())).toEqual([]);
    expect(codes(guide({ modes: 2 }, [12e9, 15e9]))).toEqual([]);
  });
  test.each<[string, GridScene, string]>([
    ['is cut by a wall', bars({}, box('wall', 2, metal, [-0.2e-3, -5e-3, -5e-3], [0.2e-3, 5e-3, 5e-3])), 'port.shorted'],
    ['lies wholly in metal', bars({}, box('block', 2, metal, [-3e-3, -5e-3, -5e-3], [3e-3, 5e-3, 5e-3])), 'port.shorted'],
    ['ends in the open', bars({ min: [-1e-3, 4e-3, 0], max: [1e-3, 4e-3, 0] }), 'port.touches-nothing'],
  ])('a lumped port that %s is told with its name', (_, scene, code) => {
    expect(codes(scene)).toEqual([`${code} ports feed`]);
  });
  test('a round wall thinner than a cell that crosses a guided port is told; a thick one is not', () => {
    const round = (name: string, order: number, material: MaterialEntry, radius: number) =>
      plainBody(name, order, material, { form: 'cylinder', axis: 0, base: [-1e-3, 8e-3, 8e-3], height: 40e-3, radius });
    const tube = (wall: number): GridScene => {
      const scene = guide(
        { min: [0, 0, 0], max: [0, 16e-3, 16e-3] },
        [18e9, 20e9],
        round('wall', 0, metal, 6e-3 + wall),
        round('bore', 1, medium(1), 6e-3),
      );
      return { ...scene, max: [30e-3, 16e-3, 16e-3] };
    };
    expect(codes(tube(0.1e-3))).toContain('port.thin-wall ports in');
    expect(codes(tube(4e-3)).join()).not.toContain('port.thin-wall');
  });
  test.each<[string, GridScene, string]>([
    ['does not propagate in the band', guide({}, [4e9, 8e9]), 'port.cutoff'],
    ['has fewer modes than asked for', guide({ modes: 400 }, [12e9, 15e9]), 'port.modes'],
    ['is filled with metal', guide({}, [12e9, 15e9], box('plug', 0, metal, [-1e-3, -1e-3, -1e-3], [9e-3, 20e-3, 20e-3])), 'port.shorted'],
    ['sees two media', guide({}, [12e9, 15e9], box('half', 0, medium(4), [-1e-3, -1e-3, -1e-3], [40e-3, 20e-3, 4e-3])), 'port.media'],
  ])('a guided port that %s is told with its name', (_, scene, code) => {
    expect(codes(scene)).toEqual([`${code} ports in`]);
  });
  test('only the grid around a port is made: a small port in a vast model is looked at as fast', () => {
    const scene = bars();
    const vast: GridScene = { ...scene, min: [-0.5, -0.5, -0.5], max: [0.5, 0.5, 0.5], accuracy: 'fine' };
    expect(codes(vast)).toEqual([]);
  });
});

describe('a current dipole before a run', () => {
  const source = (at: Point3): Partial<GridScene> => ({
    ports: [],
    source: { kind: 'dipole', name: 'spot', order: 0, of: 'electric', at, direction: [0, 0, 1] },
  });
  const wide: Partial<GridScene> = { min: [-60e-3, -60e-3, -60e-3], max: [60e-3, 60e-3, 60e-3] };
  const codesAt = (at: Point3, ...more: GridScene['bodies']): string[] => codes({ ...bars({}, ...more), ...wide, ...source(at) });

  test('is looked at where it stands: clear of bodies nothing is told', () => {
    expect(codesAt([0, 35e-3, 0])).toEqual([]);
    expect(codesAt([0, 35e-3, 20e-3], box('board', 2, medium(3), [-20e-3, 2e-3, -15e-3], [20e-3, 50e-3, -12e-3]))).toEqual([]);
  });

  test('in metal, in a loss, and too close to a surface or to the boundary it is told so', () => {
    expect(codesAt([10e-3, 0, 0])).toEqual(['dipole.metal ports spot']);
    const wet: MaterialEntry = { name: 'wet', kind: 'dielectric', permittivity: 4, lossTangent: 0.2 };
    expect(codesAt([0, 12e-3, 0], box('sea', 2, wet, [-20e-3, 2e-3, -15e-3], [20e-3, 19e-3, 15e-3]))).toEqual(['dipole.lossy ports spot']);
    expect(codesAt([0, 12e-3, 0], box('board', 2, medium(3), [-20e-3, 2e-3, -15e-3], [20e-3, 19e-3, -1e-3]))).toEqual(['dipole.close ports spot']);
    // Perfect walls all round a body without loss take nothing; those of a real metal would.
    const shut = { boundaries: Array<'electric'>(6).fill('electric') };
    const ball = box('ball', 0, medium(3), [-10e-3, -10e-3, -10e-3], [10e-3, 10e-3, 10e-3]);
    expect(codes({ ...bars(), ...wide, ...shut, ...source([0, 35e-3, 0]), bodies: [ball] })).toEqual(['dipole.closed ports spot']);
    expect(codes({ ...bars(), ...wide, ...shut, ...source([0, 35e-3, 0]), bodies: [{ ...ball, material: wet }] })).toEqual([]);
    // Within a clear medium it may stand.
    expect(codesAt([0, 30e-3, 0], box('ice', 2, medium(3), [-60e-3, -60e-3, -60e-3], [60e-3, 60e-3, 60e-3]))).toEqual([]);
    expect(codesAt([0, 55e-3, 0])).toEqual(['dipole.outside ports spot']);
  });
});

/** A microstrip on a board that ends at x = 0, with a port there. */
function printed(side: number, port: 'guided' | 'lumped', more: Partial<GridScene> = {}): GridScene {
  const strip = plainBody('strip', 1, metal, { form: 'sheet', normal: 2, offset: 0.8e-3, loops: [[[0, -0.9e-3], [40e-3, -0.9e-3], [40e-3, 0.9e-3], [0, 0.9e-3]]] }); // prettier-ignore
  const ground = plainBody('ground', 2, metal, { form: 'sheet', normal: 2, offset: 0, loops: [[[0, -15e-3], [40e-3, -15e-3], [40e-3, 15e-3], [0, 15e-3]]] }); // prettier-ignore
  return plainScene({
    bodies: [box('board', 0, medium(3.5), [0, -15e-3, 0], [40e-3, 15e-3, 0.8e-3]), strip, ground],
    ports: port === 'lumped' ? [{ name: 'feed', order: 0, resistance: 50, axis: 2, direction: 1, min: [0, -0.9e-3, 0], max: [0, 0.9e-3, 0.8e-3], across: 1, line: { axis: 0, inward: 1 } }] : [], // prettier-ignore
    guides: port === 'guided' ? [{ name: 'feed', order: 0, normal: 0, into: 1, min: [0, -side, 0], max: [0, side, 5e-3], modes: 1, shift: 0, inhomogeneous: true, ends: true }] : [], // prettier-ignore
    min: [-10e-3, -25e-3, -10e-3],
    max: [50e-3, 25e-3, 12e-3],
    band: { from: 4e9, to: 8e9, points: 3 },
    accuracy: 'draft',
    ...more,
  });
}

describe('ports on printed lines, before a run', () => {
  test('a second mode that fits into the tube behind a port is told', () => {
    expect(codes(printed(4.5e-3, 'guided'))).toEqual([]);
    expect(codes(printed(14e-3, 'guided'))).toEqual(['port.further-mode ports feed']);
  });
  test('a gap that cannot be taken out is told with its reason, that of an open line can be', () => {
    expect(codes(printed(0, 'lumped'))).toEqual([]);
    // So close to the line the region ends in its field.
    const close = printed(0, 'lumped', { min: [-10e-3, -1.6e-3, -1e-3], max: [50e-3, 1.6e-3, 1.6e-3] });
    const [problem] = portsOnGrid(close, buildGrid(close));
    expect([problem.code, problem.severity, problem.place.chip]).toEqual(['port.gap-kept', 'warning', 'gap']);
    expect(problem.message).toMatch(
      /^The gap cannot be taken out\. A mode still has \d+(\.\d)? % of its mean field at the end of the computed region/,
    );
    expect(problem.fix).toMatch(/margin/);
  });
});
