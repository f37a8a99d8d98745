import { beforeAll, describe, expect, test } from '@jest/globals';
import type { ManifoldToplevel } from 'manifold-3d';
import { emptyProject, mapExpressions, projectSchema, type Project, redirectLines } from '../../document/index.ts';
import { loadGeometryKernel } from '../../geometry/index.ts';
import { solvers } from '../../solvers/index.ts';
import { buildScene, loadImpedance, wireLength, sceneFor } from '../index.ts';

let kernel: ManifoldToplevel;
beforeAll(async () => {
  kernel = await loadGeometryKernel();
});

type Lines = Project['lines'];
type Loose = Record<string, unknown>;
const rod = (name: string, more: Loose = {}): Loose => ({ kind: 'straight-wire', name, material: 'Copper', axis: 'z', length: '0.5 m', radius: '1 mm', at: ['0 mm', '0 mm', '0 mm'], ...more }); // prettier-ignore
const through = (name: string, points: string[][], more: Loose = {}): Loose => ({ kind: 'bent-wire', name, material: 'Copper', points, ends: 'open', radius: '1 mm', at: ['0 mm', '0 mm', '0 mm'], ...more }); // prettier-ignore
const port = (more: Loose = {}): Loose => ({ kind: 'wire-port', name: 'feed', wire: 'rod', at: '0.5', resistance: '50 ohm', ...more });

/** A project of wires, as it would stand in a file. */
function project(lines: Loose[], ports: Loose[] = [port()], more: Loose = {}): Project {
  const p = emptyProject('wires');
  return projectSchema.parse({
    ...p,
    lines,
    ports,
    recorders: [],
    recordAt: [],
    solve: { ...p.solve, solver: 'moment', from: '200 MHz', to: '400 MHz' },
    ...more,
  });
}
const machine = { memory: 8e9, threads: 2, cellsPerSecond: 2e8 };
/** Codes of what is wrong, with where, before a run. */
function told(p: Project): string[] {
  const { scene, problems } = buildScene(p, kernel);
  const all = [...problems, ...(scene ? solvers.moment.plan(sceneFor('moment', scene), machine).problems : [])];
  return all.map((x) => `${x.severity} ${x.code} ${x.place.name ?? x.place.part}`);
}

describe('wires of a model', () => {
  test('straight and bent wires, cables, wires along curves, rods, moved and repeated ones are wires, with coat and metal', () => {
    const lines = [
      rod('rod', { coat: '1 mm', coatPermittivity: '2.3' }),
      through('loop', [['1 m', '0 m', '0 m'], ['2 m', '0 m', '0 m'], ['2 m', '1 m', '0 m']], { ends: 'closed' }), // prettier-ignore
      {
        kind: 'cable',
        name: 'cable',
        material: 'Copper',
        points: [
          ['0 m', '2 m'],
          ['1 m', '2 m'],
        ],
        height: '50 mm',
        radius: '1 mm',
        at: '-1 m',
      },
      {
        kind: 'helix',
        name: 'screw',
        axis: 'z',
        radius: '50 mm',
        end: '50 mm',
        pitch: '20 mm',
        turns: '2',
        sense: 'right',
        phase: '0 deg',
        at: ['-1 m', '0 m', '0 m'],
      },
      { kind: 'wire', name: 'coil', material: 'Copper', radius: '1 mm', path: 'screw', conductor: { as: 'perfect' } },
      { kind: 'cylinder', name: 'post', material: 'Copper', axis: 'z', radius: '2 mm', height: '0.3 m', at: ['-2 m', '0 m', '0 m'] },
      { kind: 'pattern-line', name: 'row', of: 'post', count: '3', step: ['-0.2 m', '0 m', '0 m'], as: 'many' },
    ];
    const { wires, problems } = buildScene(project(lines), kernel);
    expect(problems).toEqual([]);
    const found = new Map(wires!.wires.map((w) => [w.name, w]));
    expect([...found.keys()]).toEqual(['rod', 'loop', 'cable', 'coil', 'row_1', 'row_2', 'row_3']);
    expect(found.get('rod')!.coat).toEqual({ radius: 2e-3, permittivity: [2.3, 0] });
    expect(found.get('rod')!.metal!.conductivity).toBeGreaterThan(5e7);
    expect(found.get('coil')!.metal).toBeNull();
    expect(wireLength(found.get('coil')!)).toBeCloseTo(2 * Math.hypot(2 * Math.PI * 0.05, 0.02), 2);
    expect(wireLength(found.get('loop')!)).toBeCloseTo(2 + Math.SQRT2, 9);
    expect(found.get('cable')!.points[0]).toEqual([0, 2, -1]);
    expect(wireLength(found.get('cable')!)).toBeCloseTo(1.1, 9);
    expect(found.get('row_3')!.points[0][0]).toBeCloseTo(-2.4, 9);
  });

  test('a wire along the edge of a body of air', () => {
    const lines = [
      { kind: 'box', name: 'crate', material: 'Air', size: ['1 m', '2 m', '3 m'], anchor: 'corner', at: ['0 m', '0 m', '0 m'] },
      { kind: 'edge-curve', name: 'rim', first: 'crate.zmax', second: 'crate.xmax', nth: '1' },
      { kind: 'wire', name: 'rod', material: 'Copper', radius: '1 mm', path: 'rim' },
    ];
    const { scene, problems } = buildScene(project(lines), kernel);
    expect(problems).toEqual([]);
    expect(sceneFor('moment', scene).wires.wires).toHaveLength(1);
    expect([1, 2, 3]).toContain(Math.round(wireLength(sceneFor('moment', scene).wires.wires[0]) * 1e6) / 1e6);
    const wrong = buildScene(project([lines[0], { ...lines[1], second: 'crate.zmin' }, lines[2]]), kernel).problems;
    expect(wrong[0]).toMatchObject({ place: { name: 'rim', chip: 'second' }, message: 'The two faces do not meet.' });
  });

  test('loads and places follow expressions and names', () => {
    const p = project([rod('rod')], [port({ at: 'third' }), { kind: 'element-wire', name: 'load', wire: 'rod', at: '1 - third', form: 'parallel', r: '50 ohm', l: '0 nH', c: '1 pF' }], { parameters: [{ name: 'third', expression: '1 / 3' }] }); // prettier-ignore
    const { scene } = buildScene(p, kernel);
    expect(sceneFor('moment', scene).wires.ports[0].place.at).toBeCloseTo(0.5 / 3, 9);
    const [re, im] = loadImpedance(sceneFor('moment', scene).wires.loads[0].load, 1e9);
    const b = 2 * Math.PI * 1e9 * 1e-12;
    expect(re).toBeCloseTo(1 / 50 / ((1 / 50) ** 2 + b * b), 6);
    expect(im).toBeCloseTo(-b / ((1 / 50) ** 2 + b * b), 6);
    const renamed = redirectLines(p, new Map([['rod', 'mast']]));
    expect(renamed.ports.map((x) => 'wire' in x && x.wire)).toEqual(['mast', 'mast']);
    expect(mapExpressions({ ...p, ground: { kind: 'earth', at: 'low', conductivity: '1 S/m' } }, (t) => `(${t})`).ground).toEqual({ kind: 'earth', at: '(low)', conductivity: '(1 S/m)' }); // prettier-ignore
  });

  test('a wave among several excited things lights the wires, and is off where it is not named', () => {
    const wave = { kind: 'plane-wave', name: 'sky', theta: '0 deg', phi: '0 deg', tilt: '0 deg', minor: '0', strength: '5' };
    const p = project([rod('rod')], [port(), wave]);
    expect(buildScene(p, kernel).scene!.source).toMatchObject({ name: 'sky', strength: 5 });
    expect(buildScene({ ...p, solve: { ...p.solve, excite: ['feed'] } }, kernel).scene!.source).toBeNull();
    expect(buildScene({ ...p, solve: { ...p.solve, excite: ['sky'] } }, kernel).scene!.source).not.toBeNull();
  });
});

describe('what is said before a run', () => {
  const far = ['0.5 m', '0 m', '0 m'];
  test.each<[string, Loose[], Loose[], Loose, string]>([
    ['a body that is no wire', [rod('rod'), { kind: 'box', name: 'lump', material: 'Copper', size: ['1 m', '1 m', '1 m'], anchor: 'corner', at: ['2 m', '0 m', '0 m'] }], [port()], {}, 'error solver.no-wire lump'], // prettier-ignore
    ['a wire of dielectric', [rod('rod', { material: 'Polyimide film' })], [port()], {}, 'error solver.wire-material rod'],
    ['a feed on no wire', [rod('rod')], [port({ wire: 'rood' })], {}, 'error port.no-wire feed'],
    ['a feed beyond its wire', [rod('rod')], [port({ at: '1.2' })], {}, 'error port.off-wire feed'],
    ['a feed at a free end', [rod('rod')], [port({ at: '1' })], {}, 'error wire.free-end feed'],
    ['a load on nothing', [rod('rod')], [port(), { kind: 'element-wire', name: 'load', wire: '', at: '0.5', form: 'series', r: '1 ohm', l: '0 nH', c: '0 pF' }], {}, 'error port.no-wire load'], // prettier-ignore
    ['a load that does nothing', [rod('rod')], [port(), { kind: 'element-wire', name: 'load', wire: 'rod', at: '0.2', form: 'series', r: '0 ohm', l: '0 nH', c: '0 pF' }], {}, 'error load.nothing load'], // prettier-ignore
    ['a table whose frequencies fall', [rod('rod')], [port(), { kind: 'element-wire', name: 'load', wire: 'rod', at: '0.2', form: 'series', r: '0 ohm', l: '0 nH', c: '0 pF', table: [['2 GHz', '1 ohm', '0 ohm'], ['1 GHz', '1 ohm', '0 ohm']] }], {}, 'error load.table load'], // prettier-ignore
    ['a terminator to a missing ground', [rod('rod'), { kind: 'cable', name: 'cable', material: 'Copper', points: [['1 m', '0 m'], ['2 m', '0 m']], height: '50 mm', radius: '1 mm', at: '0 m' }], [port(), { kind: 'element-wire', name: 'load', wire: 'cable', at: '1', form: 'series', r: '50 ohm', l: '0 nH', c: '0 pF' }], {}, 'error wire.free-end load'], // prettier-ignore
    ['wires that cross', [rod('rod'), rod('bar', { axis: 'x' })], [port()], {}, 'error wire.crossing bar'],
    [
      'wires that pass within their radii',
      [rod('rod'), rod('bar', { axis: 'x', at: ['0 mm', '1.5 mm', '10 mm'] })],
      [port()],
      {},
      'error wire.crossing bar',
    ],
    ['a wire that crosses itself', [through('rod', [['0 m', '0 m', '0 m'], ['1 m', '0 m', '0 m'], ['1 m', '1 m', '0 m'], ['0.5 m', '1 m', '0 m'], ['0.5 m', '-1 m', '0 m']])], [port({ at: '0.1' })], {}, 'error wire.self-crossing rod'], // prettier-ignore
    ['wires that nearly touch', [rod('rod'), rod('bar', { axis: 'x', at: ['0 mm', '3 mm', '10 mm'] })], [port()], {}, 'warning wire.nearly bar'],
    ['wires that overlap', [rod('rod'), rod('twin', { at: ['0 mm', '0 mm', '100 mm'] })], [port()], {}, 'error wire.overlap twin'],
    ['a wire in the ground', [rod('rod')], [port()], { ground: { kind: 'perfect', at: '0 mm' } }, 'error wire.buried rod'],
    ['a wire on the ground', [rod('rod', { axis: 'x' })], [port()], { ground: { kind: 'perfect', at: '0 mm' } }, 'error wire.on-ground rod'],
    [
      'a wire into real earth',
      [rod('rod', { at: ['0 mm', '0 mm', '0.25 m'] })],
      [port()],
      { ground: { kind: 'earth', at: '0 mm' } },
      'error wire.earth-contact rod',
    ],
    ['earth of less than nothing', [rod('rod', { at: ['0 mm', '0 mm', '1 m'] })], [port()], { ground: { kind: 'earth', at: '0 mm', conductivity: '-1 S/m' } }, 'error ground.conductivity boundaries'], // prettier-ignore
    ['a thick wire', [rod('rod', { radius: '30 mm' })], [port()], {}, 'warning wire.thick rod'],
    ['a piece shorter than its radius', [rod('rod', { radius: '20 mm' })], [port({ at: '0.97' })], {}, 'warning wire.short rod'],
    ['a sharp angle', [rod('rod'), through('branch', [['0 m', '0 m', '0.25 m'], ['0.05 m', '0 m', '0.05 m']])], [port()], {}, 'warning wire.sharp branch'], // prettier-ignore
    ['nothing that feeds', [rod('rod')], [], {}, 'error port.none ports'],
    ['a port that only the other solver takes', [rod('rod')], [port(), { kind: 'gap', name: 'gap', between: ['rod', 'rod'], resistance: '50 ohm' }], {}, 'warning port.off-wires gap'], // prettier-ignore
    ['a recorder that is not kept', [rod('rod')], [port()], { recorders: [{ kind: 'energy', name: 'stored', body: 'rod' }], recordAt: ['300 MHz'] }, 'warning recorder.not-kept stored'], // prettier-ignore
    ['fields close to real earth', [rod('rod', { at: ['0 mm', '0 mm', '1 m'] })], [port()], { ground: { kind: 'earth', at: '0 mm' }, recorders: [{ kind: 'field-plane', name: 'plane', normal: 'z', at: '2 m' }], recordAt: ['300 MHz'] }, 'warning recorder.over-earth plane'], // prettier-ignore
  ])('%s', (_, lines, ports, more, wanted) => {
    expect(told(project(lines, ports, more))).toContain(wanted);
  });

  test('ends that meet exactly are joined without a word, and good models are silent', () => {
    const tee = through('arm', [['0 m', '0 m', '0.1 m'], ['0.3 m', '0 m', '0.1 m']]); // prettier-ignore
    expect(told(project([rod('rod'), tee]))).toEqual([]);
    expect(told(project([rod('rod'), rod('side', { at: far })]))).toEqual([]);
  });

  test('a slip of a unit that would make a million unknowns is refused before anything is cut', () => {
    expect(told(project([rod('rod', { length: '5 km', radius: '0.1 mm' })], [port()], { solve: { ...emptyProject('x').solve, solver: 'moment', from: '20 GHz', to: '30 GHz' } }))).toContain('error machine.memory machine'); // prettier-ignore
  });

  test('the time-domain solver leaves ports in wires out and says so', () => {
    const p = project([rod('rod')]);
    const { problems } = buildScene({ ...p, solve: { ...p.solve, solver: 'fdtd' } }, kernel);
    expect(problems.map((x) => x.code)).toEqual(expect.arrayContaining(['port.on-wire', 'port.none']));
  });
});

test('a coat or a line that makes no sense is told at its chip', () => {
  const wrong = (lines: Loose[]): string[] =>
    buildScene({ ...project([rod('rod')]), lines: lines as unknown as Lines }, kernel).problems.map((p) => `${p.code} ${p.place.chip}`);
  expect(wrong([rod('rod', { coat: '-1 mm' })])).toContain('shape.impossible coat');
  expect(wrong([rod('rod', { coat: '1 mm', coatPermittivity: '0.5' })])).toContain('shape.impossible coatPermittivity');
  expect(wrong([{ kind: 'cable', name: 'rod', material: 'Copper', points: [['0 m', '0 m'], ['1 m', '0 m']], height: '1 mm', radius: '2 mm', at: '0 m' }])).toContain('shape.impossible height'); // prettier-ignore
  expect(wrong([through('rod', [['0 m', '0 m', '0 m'], ['0 m', '0 m', '0 m']])])).toContain('shape.impossible points.0.0'); // prettier-ignore
});
