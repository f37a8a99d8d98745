import { describe, expect, test } from '@jest/globals';
import type { SceneGuide } from '../../scene/index.ts';
import { plainBody, plainScene } from '@jadebell/verification/bench';
import { discretise } from './discretise.ts';
import { guideModes } from './guides.ts';
import { buildGrid } from '../../grid/index.ts';

const board = { name: 'board', kind: 'dielectric', permittivity: 9.8, lossTangent: 0 } as const;
const metal = { name: 'metal', kind: 'conductor' } as const;

/** A strip on a board, 12 mm between walls, fed by a port of the given height, another strip at a height above it if one is given. */
function modes(height: number, top: 'open' | 'electric', region = 10e-3, above?: number) {
  const guide: SceneGuide = {
    name: 'port',
    order: 0,
    normal: 2,
    into: 1,
    min: [-6e-3, 0, 0],
    max: [6e-3, height, 0],
    modes: 1,
    shift: 0,
    inhomogeneous: true,
  };
  const scene = plainScene({
    bodies: [
      plainBody('board', 0, board, { form: 'box', min: [-0.05, 0, -0.05], max: [0.05, 0.6e-3, 0.05] }),
      ...[0.6e-3, ...(above ? [above] : [])].map(
        (at, n) =>
        plainBody(`strip${n}`, 1, metal, { form: 'sheet', normal: 1, offset: at, loops: [[[-0.05, -0.3e-3], [0.05, -0.3e-3], [0.05, 0.3e-3], [-0.05, 0.3e-3]]] }), // prettier-ignore
      ),
    ],
    ports: [],
    guides: [guide],
    min: [-6e-3, 0, 0],
    max: [6e-3, region, 10e-3],
    band: { from: 2e9, to: 10e9, points: 3 },
    boundaries: ['electric', 'electric', 'electric', top, 'open', 'electric'],
    accuracy: 'draft',
  });
  const d = discretise(scene, buildGrid(scene));
  return { problems: undefined, found: undefined, ...guideModes(d, guide, d.guides[0], scene.band) };
}
const faults = (...of: Parameters<typeof modes>): string[] => modes(...of).problems?.map((p) => p.code) ?? [];

describe('the rim of a guided port on several media', () => {
  test('may be drawn close to the line: the mode is solved as far as the region reaches, open or closed', () => {
    for (const top of ['open', 'electric'] as const) for (const height of [1.5e-3, 4e-3, 10e-3]) expect(faults(height, top)).toEqual([]);
    expect(faults(4e-3, 'electric', 4e-3)).toEqual([]);
  });
  test('must not cut the mode in the open, where the region ends or another conductor stands', () => {
    expect(faults(1.5e-3, 'open', 1.5e-3)).toEqual(['port.rim']);
    expect(faults(1.5e-3, 'open', 10e-3, 2.2e-3)).toEqual(['port.rim']);
    // Metal far away leaves it the room it needs, to half way there.
    expect(faults(4e-3, 'open', 20e-3, 18e-3)).toEqual([]);
  });
  test('of a mode is the same however small the port is drawn', () => {
    const z = [2e-3, 10e-3].map((height) => modes(height, 'open').found!.modes[0].impedance!);
    // The port's own line moves those of the grid a little.
    expect(Math.abs(z[0] / z[1] - 1)).toBeLessThan(2e-3);
  });
});
