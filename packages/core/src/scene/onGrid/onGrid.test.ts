import { describe, expect, test } from '@jest/globals';
import { plainBody } from '@jadebell/verification/bench';
import { type Boundary, emptyProject, type Project } from '../../document/index.ts';
import { rotation } from '../../numerics/affine.ts';
import type { SceneGuide, ScenePort } from '../../ports/index.ts';
import type { PlacedRecorder } from '../../recorders/index.ts';
import type { Mirrors } from '../../yee/index.ts';
import { checkOnGrid, type OnGrid } from './checks.ts';
import { solvableBodies } from './materials.ts';
import { boundariesOf, magneticSides, marginOf, regionAround, unpaired, wholeOf } from './region.ts';

const metal = { name: 'metal', kind: 'conductor' } as const;
const block = plainBody('block', 0, metal, { form: 'box', min: [-0.01, -0.02, 0], max: [0.01, 0.02, 0.005] });
const slanted = plainBody('slanted', 1, metal, { form: 'tilted sheet', frame: rotation([0, 1, 0], 0.5), loops: [[[-0.01, -0.01], [0.01, -0.01], [0.01, 0.01], [-0.01, 0.01]]] }); // prettier-ignore
const open: Boundary[] = ['open', 'open', 'open', 'open', 'open', 'open'];
const none: Mirrors = [null, null, null];
const guide = (more: Partial<SceneGuide> = {}): SceneGuide => ({ name: 'port1', order: 0, normal: 2, into: 1, min: [-0.01, -0.02, 0], max: [0.01, 0.02, 0], modes: 1, shift: 0, ...more }); // prettier-ignore
const port: ScenePort = { name: 'feed', order: 0, resistance: 50, axis: 2, direction: 1, min: [0, 0, 0.005], max: [0, 0, 0.008], across: 0 };
const contents = { bodies: [block], ports: [port], guides: [], sources: [] };

describe('the computed region', () => {
  test('holds all there is, with the margin beyond at open sides and none at walls', () => {
    const sides: Boundary[] = ['open', 'electric', 'magnetic', 'open', 'electric', 'open'];
    expect(regionAround(contents, sides, 0.1, none)).toEqual({
      min: [-0.11, -0.02, 0],
      max: [0.01, expect.closeTo(0.12, 12), expect.closeTo(0.108, 12)],
      boundaries: sides,
    });
  });

  test('begins at planes of symmetry, which stand in the place of the low sides; the whole has the image', () => {
    const mirrors: Mirrors = [{ wall: 'magnetic', at: 0 }, null, null];
    const region = regionAround(contents, open, 0.1, mirrors);
    expect([region.min[0], region.max[0]]).toEqual([0, expect.closeTo(0.11, 12)]);
    expect(wholeOf(region, mirrors).min).toEqual([expect.closeTo(-0.11, 12), region.min[1], region.min[2]]);
    const p = emptyProject('t');
    expect(boundariesOf(p, mirrors)).toEqual(['magnetic', 'open', 'open', 'open', 'open', 'open']);
    expect(unpaired(['magnetic', 'periodic', 'open', 'open', 'open', 'open'], mirrors)[0].message).toContain('plane of symmetry');
    expect(unpaired(['open', 'open', 'open', 'open', 'open', 'periodic'], none)[0].message).toContain('Across z only one side');
    expect(unpaired(['periodic', 'periodic', 'open', 'open', 'open', 'open'], none)).toEqual([]);
  });

  test('the margin is a quarter of the longest wavelength, or as asked, but leaves the cells that a source needs', () => {
    const project: Project = emptyProject('t');
    const value = (text: string): number => Number(text.split(' ')[0]) / 1000;
    const band = { from: 1e9, to: 3e9 };
    const quarter = 299792458 / 1e9 / 4;
    expect(marginOf(project, band, [], value)).toBeCloseTo(quarter, 12);
    expect(marginOf({ ...project, margin: '2 mm' }, band, [], value)).toBe(0.002);
    const source = { kind: { room: 7 }, placed: {} } as never;
    expect(marginOf({ ...project, margin: '2 mm' }, band, [source], value)).toBeCloseTo((7 * 299792458) / 3e9 / 12, 12);
    // Coarser cells need more room; finer ones than a draft's do not make it less, as the run may be a draft.
    const coarse = { ...project, margin: '2 mm', solve: { ...project.solve, details: { cellsPerWavelength: 6 } } };
    expect(marginOf(coarse, band, [source], value)).toBeCloseTo((7 * 299792458) / 3e9 / 6, 12);
    expect(marginOf({ ...project, margin: '-5 mm' }, band, [source], value)).toBe(-0.005);
  });

  test('a guided port on magnetic sides knows which of its own they are', () => {
    const boundaries: Boundary[] = ['magnetic', 'electric', 'open', 'magnetic', 'magnetic', 'open'];
    const region = { min: [-0.01, -0.03, 0], max: [0.01, 0.02, 0.1], boundaries } as Parameters<typeof magneticSides>[1];
    expect(magneticSides(guide(), region)).toEqual({ magnetic: [true, false, false, true, false, false] });
    expect(magneticSides(guide({ min: [-0.005, -0.02, 0], max: [0.01, 0.01, 0] }), region)).toEqual({});
  });
});

describe('what is looked at before a grid is made', () => {
  const around = regionAround(contents, open, 0.1, none);
  const sound: OnGrid = { project: emptyProject('t'), ...contents, recorders: [], margin: 0.1, mirrors: none, around, region: around, whole: wholeOf(around, none) }; // prettier-ignore
  const codes = (more: Partial<OnGrid>): string[] => checkOnGrid({ ...sound, ...more }).map((p) => p.code);
  const far: PlacedRecorder = { kind: 'far-field', name: 'far', step: 0.1 };
  const walls = { ...around, boundaries: ['electric', 'electric', 'open', 'open', 'open', 'open'] as Boundary[] };

  test('a sound model has nothing in its way', () => {
    expect(codes({})).toEqual([]);
  });

  test.each<[string, Partial<OnGrid>, string[]]>([
    ['a far field between two walls', { recorders: [far], around: walls }, ['recorder.closed']],
    ['a far field over one wall', { recorders: [far], around: { ...walls, boundaries: ['electric', 'open', 'open', 'open', 'open', 'open'] } }, []],
    ['a far field along a period', { recorders: [far], around: { ...around, boundaries: ['open', 'periodic', 'open', 'open', 'open', 'open'] } }, ['recorder.closed']], // prettier-ignore
    ['a far field beside a port in several media', { recorders: [far], guides: [guide({ inhomogeneous: true })] }, ['recorder.port']],
    ['a negative margin', { margin: -1e-3 }, ['value.not-positive']],
    ['nothing that feeds', { ports: [] }, ['port.none']],
    ['nothing but a load', { ports: [{ ...port, load: { form: 'series', r: 50, l: 0, c: 0 } }] }, ['port.none']],
    ['a region of no height', { region: { ...around, max: [around.max[0], around.max[1], around.min[2]] } }, ['model.flat']],
    ['a sheet across no axis', { bodies: [block, slanted] }, []],
    ['a sheet across no axis that crosses a guided port', { bodies: [block, slanted], guides: [guide()] }, ['port.tilted-sheet']],
    ['the same beside the port', { bodies: [block, slanted], guides: [guide({ min: [-0.01, -0.02, 0.02], max: [0.01, 0.02, 0.02] })] }, []],
    ['a recorder beyond the region', { recorders: [{ kind: 'field-plane', name: 'cut', normal: 2, at: 1 }] }, ['recorder.outside']],
    ['a reactance while a port is silent', { ports: [{ ...port, reactance: 20 }, { ...port, name: 'other', order: 1 }], project: { ...sound.project, solve: { ...sound.project.solve, excite: ['feed'] } } }, ['port.reactance']], // prettier-ignore
  ])('%s', (_, more, wanted) => {
    expect(codes(more)).toEqual(wanted);
  });

  test('a port that could not be placed is told by itself: that nothing feeds is not said as well', () => {
    const lacking: Project = { ...sound.project, ports: [{ kind: 'gap', name: 'p', between: ['a', 'b'], resistance: '50 ohm' }] };
    expect(codes({ ports: [], project: lacking })).toEqual([]);
  });
});

test('bodies of one material share what is solved for, and what no solver takes is told once', () => {
  const soft = { name: 'soft', kind: 'dielectric', permittivity: 2, permeability: 3, range: [1e9, 2e9] } as never;
  const two = [plainBody('a', 0, soft, { form: 'box', min: [0, 0, 0], max: [1, 1, 1] }), plainBody('b', 1, soft, { form: 'box', min: [2, 0, 0], max: [3, 1, 1] })]; // prettier-ignore
  const { bodies, problems } = solvableBodies(two, [1e9, 3e9]);
  expect(bodies[0].material).toBe(bodies[1].material);
  expect(problems.map((p) => [p.code, p.severity])).toEqual([
    ['material.magnetic', 'error'],
    ['material.range', 'warning'],
  ]);
});
