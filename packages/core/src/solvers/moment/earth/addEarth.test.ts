import type { Complex } from '../../../numerics/complex.ts';
import { describe, expect, test } from '@jest/globals';
import { nodeHost } from '@jadebell/node';
import { eps0 } from '../../../numerics/constants.ts';
import type { Ground, SceneWire } from '../../../scene/index.ts';
import { plainWire, upright, wireScene } from '@jadebell/verification/wireBench';
import { meshWires } from '../../../grid/index.ts';
import { WireSystem } from '../system.ts';
import { addEarth } from './addEarth.ts';
import type { Earth } from './pairs.ts';

const frequency = 100e6;

type Row = Complex[];

/** The system's matrix for wires over a ground; what of it is the ground's where `alone` is taken off. */
async function matrix(wires: SceneWire[], ground: Ground | null, alone?: Row[]): Promise<Row[]> {
  const mesh = meshWires(wireScene({ wires, ports: [], frequency, more: { ground } }).wires, { longest: 0.12 });
  const system = await WireSystem.create(mesh, 0, ground, await nodeHost(1));
  try {
    await system.fill(frequency);
    if (ground?.kind === 'earth') addEarth(system, ground, system.images!, frequency);
    const rows = Array.from({ length: system.size }, (_, r) => Array.from({ length: system.size }, (__, c) => system.element(r, c)));
    return alone ? rows.map((row, r) => row.map(([re, im], c) => [re - alone[r][c][0], im - alone[r][c][1]])) : rows;
  } finally {
    system.close();
  }
}

const largest = (m: Row[]): number => Math.max(...m.flat().map((v) => Math.hypot(...v)));
const apart = (a: Row[], b: Row[]): number => largest(a.map((row, r) => row.map(([re, im], c) => [re - b[r][c][0], im - b[r][c][1]])));

/** An upright wire close above the ground, a level one, and one that leans: all pairs of directions, near images and far ones. */
const wires = [
  upright('mast', 0.9, 2e-3, [0, 0, 0.55]),
  plainWire('arm', [[0.3, 0.1, 0.35], [1.1, 0.3, 0.35]], 2e-3), // prettier-ignore
  plainWire('stay', [[-0.9, 0, 0.15], [-0.3, 0.5, 0.8]], 2e-3), // prettier-ignore
];
const earth = (permittivity: number, conductivity: number): Earth => ({ kind: 'earth', at: 0, permittivity, conductivity });

describe('what real earth adds to a wire model', () => {
  test('is nothing where the earth is air', async () => {
    const alone = await matrix(wires, null);
    expect(largest(await matrix(wires, earth(1, 0), alone))).toBeLessThan(1e-9 * largest(alone));
  });

  test('comes to what the images in a perfect ground add, with the root of the conductivity, as its surface impedance goes', async () => {
    const alone = await matrix(wires, null);
    const perfect = await matrix(wires, { kind: 'perfect', at: 0 }, alone);
    for (const sigma of [0.5, 5]) {
      const off = apart(await matrix(wires, earth(10, sigma), alone), perfect) / largest(perfect);
      // One over the index of the earth.
      const surface = Math.sqrt((2 * Math.PI * frequency * eps0) / sigma);
      process.stdout.write(
        `earth of ${sigma} S/m against a perfect ground: ${off.toExponential(2)}, its surface impedance over that of free space ${surface.toExponential(2)}\n`,
      );
      expect(off / surface).toBeGreaterThan(0.5);
      expect(off / surface).toBeLessThan(1.5);
    }
  });

  test('is the same both ways, and goes with the earth, not with where heights are counted from', async () => {
    const alone = await matrix(wires, null);
    const added = await matrix(wires, earth(13, 0.005), alone);
    const size = largest(added);
    expect(size).toBeGreaterThan(1e-3 * largest(alone));
    const turned = added.map((row, r) => row.map((_, c) => added[c][r]));
    expect(apart(added, turned)).toBeLessThan(1e-6 * size);
    const lifted = wires.map((w) => ({ ...w, points: w.points.map(([x, y, z]) => [x, y, z + 2]) })) as SceneWire[];
    const above = await matrix(lifted, { ...earth(13, 0.005), at: 2 }, await matrix(lifted, null));
    expect(apart(added, above)).toBeLessThan(1e-6 * size);
  });

  test('far above it there is little left of it', async () => {
    const alone = await matrix([wires[0]], null);
    const [near, far] = [0.55, 4.55].map((z) => matrix([upright('mast', 0.9, 2e-3, [0, 0, z])], earth(13, 0.005), alone));
    expect(largest(await far)).toBeLessThan(0.2 * largest(await near));
  });
});
