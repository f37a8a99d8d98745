import { describe, expect, test } from '@jest/globals';
import type { SceneGuide } from '../../scene/index.ts';
import { plainBody, plainScene } from '@jadebell/verification/bench';
import { discretise } from './discretise.ts';
import { guideModes } from './guides.ts';
import { buildGrid } from '../../grid/index.ts';

const board = { name: 'board', kind: 'dielectric', permittivity: 9.8, lossTangent: 0 } as const;
const metal = { name: 'metal', kind: 'conductor' } as const;

/** A strip on a board, 12 mm between walls, fed by a port of the given height. */
function faults(height: number, top: 'open' | 'electric', region = 10e-3): string[] {
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
      plainBody('strip', 1, metal, { form: 'sheet', normal: 1, offset: 0.6e-3, loops: [[[-0.05, -0.3e-3], [0.05, -0.3e-3], [0.05, 0.3e-3], [-0.05, 0.3e-3]]] }), // prettier-ignore
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
  const result = guideModes(d, guide, d.guides[0], scene.band);
  return 'problems' in result ? result.problems.map((p) => p.code) : [];
}

describe('the rim of a guided port on several media', () => {
  test('may lie on electric walls, or where the mode has faded', () => {
    expect(faults(4e-3, 'electric', 4e-3)).toEqual([]);
    expect(faults(10e-3, 'open')).toEqual([]);
  });
  test('must not cut the mode in the open', () => {
    expect(faults(4e-3, 'open')).toEqual(['port.rim']);
    // A wall further off does not help: the rim is what counts.
    expect(faults(4e-3, 'electric')).toEqual(['port.rim']);
  });
});
