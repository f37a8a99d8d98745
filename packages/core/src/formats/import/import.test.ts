import { beforeAll, describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { strToU8, zipSync } from 'fflate';
import { emptyProject, packMesh, packOutlines, type Point2, signedArea, unpackMesh, unpackOutlines } from '../../document/index.ts';
import { evaluateModel, type Kernel, loadGeometryKernel, modelOutlines, resolveOutlines } from '../../geometry/index.ts';
import { stepSolids } from '@jadebell/verification/stepSolids';
import { writeDxf, writeGlb, writeStl } from '../index.ts';
import { closeOutlines, ImportFault, importers, readFileFor, repairMesh } from './index.ts';

let kernel: Kernel;
beforeAll(async () => {
  kernel = await loadGeometryKernel();
});
const bytes = (text: string): Uint8Array => new TextEncoder().encode(text);
/** Closed box of 1 x 2 x 3, or whatever is asked, metres. */
const boxMesh = (size = [1, 2, 3], name = 'box') => {
  const [x, y, z] = size;
  const positions = Float32Array.from([0, 1, 2, 3, 4, 5, 6, 7].flatMap((i) => [i & 1 ? x : 0, i & 2 ? y : 0, i & 4 ? z : 0]));
  const triangles = Uint32Array.from([0, 2, 3, 0, 3, 1, 4, 5, 7, 4, 7, 6, 0, 1, 5, 0, 5, 4, 2, 6, 7, 2, 7, 3, 0, 4, 6, 0, 6, 2, 1, 3, 7, 1, 7, 5]);
  return { name, positions, triangles, colour: [1, 1, 1, 1] as const };
};
const extent = (p: ArrayLike<number>): number[] =>
  [0, 1, 2].map((a) => Math.max(...Array.from(p).filter((_, i) => i % 3 === a)) - Math.min(...Array.from(p).filter((_, i) => i % 3 === a)));
const faultOf = async (name: string, data: Uint8Array): Promise<string> => {
  try {
    await readFileFor(name, data);
    return 'taken';
  } catch (error) {
    if (error instanceof ImportFault) return `${error.message} ${error.fix}`;
    throw error;
  }
};

describe('meshes come back as they were written', () => {
  test('STL, binary and text', async () => {
    const { meshes } = await readFileFor('hull.STL', writeStl([boxMesh()]));
    expect(extent(meshes[0].mesh.positions).map((v) => Math.round(v))).toEqual([1000, 2000, 3000]);
    const text = 'solid a b\nfacet normal 0 0 1\nouter loop\nvertex 0 0 0\nvertex 1 0 0\nvertex 0 1e0 0\nendloop\nendfacet\nendsolid\n';
    const read = await readFileFor('x.stl', bytes(text));
    expect(read.meshes[0].name).toBe('a b');
    expect(read.meshes[0].mesh.triangles).toHaveLength(3);
  });

  test('glTF keeps names, metres and the upward axis', async () => {
    const { meshes, unit } = await readFileFor('x.glb', writeGlb([boxMesh(), boxMesh([4, 4, 4], 'cube')]));
    expect(unit).toBe('m');
    expect(meshes.map((m) => [m.name, ...extent(m.mesh.positions)])).toEqual([['box', 1, 2, 3], ['cube', 4, 4, 4]]); // prettier-ignore
  });

  test('OBJ with polygons and parts, 3MF with placed components in inches', async () => {
    const quad = 'o low\nv 0 0 0\nv 1 0 0\nv 1 1 0\nv 0 1 0\nf 1 2 3 4\ng high\nv 0 0 5\nf -1/2/3 1//2 2\n';
    const o = await readFileFor('x.obj', bytes(quad));
    expect(o.meshes.map((m) => [m.name, m.mesh.triangles.length / 3])).toEqual([['low', 2], ['high', 1]]); // prettier-ignore
    const model =
      '<model unit="inch"><resources><object id="1" name="leaf"><mesh><vertices><vertex x="0" y="0" z="0"/><vertex x="1" y="0" z="0"/><vertex x="0" y="1" z="0"/><vertex x="0" y="0" z="1"/></vertices><triangles><triangle v1="0" v2="2" v3="1"/><triangle v1="0" v2="1" v3="3"/><triangle v1="1" v2="2" v3="3"/><triangle v1="2" v2="0" v3="3"/></triangles></mesh></object><object id="2"><components><component objectid="1" transform="2 0 0 0 2 0 0 0 2 5 0 0"/></components></object></resources><build><item objectid="2"/></build></model>';
    const m = await readFileFor('x.3mf', zipSync({ '3D/3dmodel.model': strToU8(model) }));
    expect(m.unit).toBe('inch');
    expect([m.meshes[0].name, ...extent(m.meshes[0].mesh.positions)]).toEqual(['leaf', 2, 2, 2]);
  });

  test('STEP parts by name, in millimetres', async () => {
    const { meshes, unit } = await readFileFor('x.step', bytes(stepSolids([{ name: 'lid', min: [0, 0, 0], max: [10, 20, 3] }, { name: 'pin', min: [4, 4, 3], max: [6, 6, 9] }]))); // prettier-ignore
    expect(unit).toBe('mm');
    expect(meshes.map((m) => [m.name, ...extent(m.mesh.positions).map((v) => Number(v.toFixed(6)))])).toEqual([['lid', 10, 20, 3], ['pin', 2, 2, 6]]); // prettier-ignore
    expect(repairMesh(meshes[0].mesh).closed).toBe(true);
  }, 30_000);

  test('a packed part unpacks to itself', () => {
    const { positions, triangles } = boxMesh();
    expect(unpackMesh(packMesh({ positions, triangles }))).toEqual({ positions, triangles });
    const loops: Point2[][] = [[[0, 0], [1 / 3, 0], [0, 1e-9]]]; // prettier-ignore
    expect(unpackOutlines(packOutlines(loops))).toEqual(loops);
  });
});

describe('repair', () => {
  test('welds, turns and closes; reports what it did', () => {
    const { positions, triangles } = boxMesh();
    const loose = {
      positions: Float32Array.from([...triangles].flatMap((v) => [...positions.subarray(3 * v, 3 * v + 3)])),
      triangles: Uint32Array.from({ length: 36 }, (_, i) => i),
    };
    expect(repairMesh(loose)).toMatchObject({ closed: true, welded: 28, holes: 0, turned: 0 });
    const turned = triangles.slice();
    [turned[1], turned[2]] = [turned[2], turned[1]];
    expect(repairMesh({ positions, triangles: turned })).toMatchObject({ closed: true, turned: 1 });
    const leaky = repairMesh({ positions, triangles: triangles.slice(6) });
    expect(leaky).toMatchObject({ closed: true, holes: 1, bad: 0 });
    const inside = repairMesh({ positions, triangles: Uint32Array.from({ length: 36 }, (_, i) => triangles[i - (i % 3) + [0, 2, 1][i % 3]]) });
    expect(inside).toMatchObject({ closed: true, turned: 12 });
    const fin = repairMesh({ positions: Float32Array.from([...positions, 9, 9, 9]), triangles: Uint32Array.from([...triangles, 0, 1, 8, 0, 8, 1]) });
    expect(fin.closed).toBe(false);
  });

  test('a mended mesh becomes a body of the right volume', () => {
    const { mesh } = repairMesh({ positions: boxMesh().positions, triangles: boxMesh().triangles.slice(6) });
    const p = {
      ...emptyProject('t'),
      parts: [{ name: 'hull', kind: 'mesh' as const, source: 'hull.stl', data: packMesh(mesh) }],
      lines: [{ kind: 'import' as const, name: 'hull', material: 'Polyethylene', part: 'hull', scale: '0.01', at: ['1 m', '0 mm', '0 mm'] as [string, string, string], turn: ['0 deg', '0 deg', '90 deg'] as [string, string, string], simplify: '0 mm' }],
    }; // prettier-ignore
    const { bodies, problems } = evaluateModel(p, kernel);
    expect(problems).toEqual([]);
    expect(bodies[0].volume / 6e-6).toBeCloseTo(1, 5);
    expect(bodies[0].min.map((v) => Number(v.toFixed(6)))).toEqual([0.98, 0, 0]);
    // The data are checked when they are used.
    const broken = evaluateModel({ ...p, parts: [{ ...p.parts[0], data: 'AAAA' }] }, kernel);
    expect(broken.problems[0].message).toMatch(/cannot be read/);
  });
});

describe('drawings', () => {
  const square = (x: number, y: number, s: number): Point2[] => [[x, y], [x + s, y], [x + s, y + s], [x, y + s]]; // prettier-ignore
  test('DXF comes back by layer, holes and overlaps are understood', async () => {
    const loops = [square(0, 0, 10e-3), square(2e-3, 2e-3, 3e-3), square(8e-3, 8e-3, 6e-3)];
    const { layers, unit } = await readFileFor('x.dxf', bytes(writeDxf([{ name: 'copper', loops }, { name: 'edge', loops: [square(0, 0, 20e-3)] }]))); // prettier-ignore
    expect(unit).toBe('mm');
    expect(layers.map((l) => [l.name, l.loops.length, l.open])).toEqual([['copper', 3, 0], ['edge', 1, 0]]); // prettier-ignore
    const region = resolveOutlines(kernel, layers[0].loops);
    expect(region.overlaps).toBe(1);
    expect(region.holes).toBe(1);
    expect(region.loops.reduce((s, l) => s + signedArea(l), 0)).toBeCloseTo(100 + 36 - 4 - 9, 6);
  });

  test('separate lines and arcs are joined, polylines keep their arcs, blocks are placed', async () => {
    const entity = (...pairs: (string | number)[]): string => pairs.join('\n');
    const line = (x0: number, y0: number, x1: number, y1: number): string => entity(0, 'LINE', 8, 'a', 10, x0, 20, y0, 11, x1, 21, y1);
    const text = [
      entity(0, 'SECTION', 2, 'BLOCKS', 0, 'BLOCK', 8, '0', 2, 'pad', 70, 0, 10, 0, 20, 0, 30, 0),
      entity(0, 'CIRCLE', 8, '0', 10, 0, 20, 0, 40, 1),
      entity(0, 'ENDBLK', 8, '0', 0, 'ENDSEC', 0, 'SECTION', 2, 'ENTITIES'),
      line(0, 0, 4, 0),
      line(4, 2, 4, 0),
      entity(0, 'ARC', 8, 'a', 10, 2, 20, 2, 40, 2, 50, 0, 51, 180),
      line(0, 0, 0, 2),
      line(50, 50, 60, 60),
      entity(0, 'LWPOLYLINE', 8, 'b', 90, 2, 70, 1, 10, 0, 20, 0, 42, 1, 10, 2, 20, 0, 42, 1),
      entity(0, 'INSERT', 8, 'c', 2, 'pad', 10, 7, 20, 0, 41, 2, 42, 2),
      entity(0, 'TEXT', 8, 'a', 10, 0, 20, 0, 40, 1, 1, 'hm'),
      entity(0, 'ENDSEC', 0, 'EOF', ''),
    ].join('\n');
    const { layers, notes } = await readFileFor('x.dxf', bytes(text));
    const area = (name: string): number => layers.find((l) => l.name === name)!.loops.reduce((s, l) => s + Math.abs(signedArea(l)), 0);
    expect(area('a')).toBeCloseTo(8 + 2 * Math.PI, 1);
    expect(layers.find((l) => l.name === 'a')!.open).toBe(1);
    expect(area('b')).toBeCloseTo(Math.PI, 1);
    expect(area('c')).toBeCloseTo(4 * Math.PI, 1);
    expect(notes.join()).toMatch(/TEXT/);
  });

  test('tables of points', async () => {
    const { layers } = await readFileFor('x.csv', bytes('x;y\n0;0\n4;0\n4;3\n\n1;1\n2;1\n2;2\n'));
    expect(layers[0].loops.map((l) => Math.abs(signedArea(l)))).toEqual([6, 0.5]);
    expect(await faultOf('x.csv', bytes('0,0\n1,zero\n2,2\n'))).toMatch(/no pair of numbers/);
  });

  test('a thousand loose pieces in any order become one outline', () => {
    const n = 1000;
    const at = (i: number): Point2 => [Math.cos((2 * Math.PI * i) / n), Math.sin((2 * Math.PI * i) / n)];
    const pieces = Array.from({ length: n }, (_, i) => ({ points: i % 2 ? [at(i), at(i + 1)] : [at(i + 1), at(i)], closed: false }));
    pieces.sort((a, b) => Math.sin(1e4 * a.points[0][0]) - Math.sin(1e4 * b.points[0][0]));
    const { loops, open } = closeOutlines(pieces);
    expect([loops.length, open]).toEqual([1, 0]);
    expect(Math.abs(signedArea(loops[0]))).toBeCloseTo(Math.PI, 3);
  });

  test('a model is cut to outlines that read back', async () => {
    const p = { ...emptyProject('t'), lines: [{ kind: 'tube' as const, name: 'tube', material: 'Copper', axis: 'z' as const, radius: '5 mm', bore: '3 mm', height: '10 mm', at: ['0 mm', '0 mm', '0 mm'] as [string, string, string] }] }; // prettier-ignore
    const bodies = evaluateModel(p, kernel).bodies.map((b) => ({ ...b, sheet: false, normal: null }));
    const outlines = modelOutlines(kernel, bodies, 2, 4e-3);
    const { layers } = await readFileFor('x.dxf', bytes(writeDxf(outlines)));
    const region = resolveOutlines(kernel, layers[0].loops);
    expect(region.loops.reduce((s, l) => s + signedArea(l), 0)).toBeCloseTo(Math.PI * 16, 0);
    expect(region.holes).toBe(1);
  });
});

describe('bad files get a sentence', () => {
  const lying = writeStl([boxMesh()]);
  new DataView(lying.buffer).setUint32(80, 4_000_000_000, true);
  test.each<[string, Uint8Array, RegExp]>([
    ['empty.stl', new Uint8Array(), /empty/],
    ['short.stl', new Uint8Array(40), /too short/],
    ['lying.stl', lying, /too short for them/],
    ['cut.glb', writeGlb([boxMesh()]).slice(0, 200), /damaged/],
    ['not.step', bytes('hello'), /not a STEP/],
    ['bad.step', bytes('ISO-10303-21;\nHEADER;\nENDSEC;\nDATA;\n#1=NONSENSE(;'), /could not be read|no solids/],
    ['not.3mf', bytes('PK nothing'), /no 3MF/],
    ['x.dxf', bytes('0\nSECTION\n2\nENTITIES\n0\nENDSEC\n0\nEOF\n'), /no lines/],
    ['x.obj', bytes('f 1 2 3'), /not there/],
    ['x.docx', bytes('x'), /cannot be read/],
    ['nan.stl', bytes('solid a\nvertex a b c\nvertex 0 0 0\nvertex 1 1 1\n'), /no number|no triangles/],
  ])('%s', async (name, data, expected) => {
    expect(await faultOf(name, data)).toMatch(expected);
  });

  test('a mesh that claims two million triangles too many is refused before it is read', async () => {
    const many = new Uint8Array(84 + 50 * 2_000_001);
    new DataView(many.buffer).setUint32(80, 2_000_001, true);
    expect(await faultOf('many.stl', many)).toMatch(/at most 2,000,000/);
  });

  const endings = importers.flatMap((i) => i.endings).filter((e) => !/ste?p$|ige?s$/.test(e));
  const good: Record<string, () => Uint8Array> = {
    '.stl': () => writeStl([boxMesh()]),
    '.glb': () => writeGlb([boxMesh()]),
    '.dxf': () => bytes(writeDxf([{ name: 'a', loops: [[[0, 0], [1, 0], [1, 1]]] }])), // prettier-ignore
  };
  test('fuzz: noise and damaged files never hang and never crash, they are taken or refused in words', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.constantFrom(...endings),
        fc.uint8Array({ maxLength: 400 }),
        fc.array(fc.tuple(fc.nat(2000), fc.nat(255)), { maxLength: 8 }),
        async (ending, noise, changes) => {
          const data = good[ending]?.() ?? noise;
          for (const [at, value] of changes) if (data.length) data[at % data.length] = value;
          const result = await faultOf(`x${ending}`, data);
          return result === 'taken' || /[.!?]$/.test(result);
        },
      ),
      { numRuns: 1500 },
    );
  }, 60_000);
});
