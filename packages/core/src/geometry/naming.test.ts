import { beforeAll, describe, expect, test } from '@jest/globals';
import { emptyProject, type Line, shapes } from '../document/index.ts';
import { type Body, evaluateModel, type Kernel, loadGeometryKernel } from './index.ts';
import { edgeName, extentName, faceName, pointName } from './naming.ts';

let kernel: Kernel;
beforeAll(async () => {
  kernel = await loadGeometryKernel();
});
const line = (kind: string, name: string, change: object = {}): Line =>
  ({ ...(shapes.find((s) => s.kind === kind)!.fresh(name) as object), ...change }) as unknown as Line;

const plate = line('box', 'plate', { size: ['20 mm', '12 mm', '3 mm'] });
const slot = line('box', 'slot', { size: ['6 mm', '20 mm', '1 mm'], at: ['2 mm', '0 mm', '1.5 mm'] });
const models: Record<string, Line[]> = {
  box: [plate],
  cut: [plate, slot, line('cut', 'part', { from: 'plate', tools: ['slot'] })],
  turned: [plate, line('turn', 'leaning', { of: 'plate', angle: '30 deg', axis: 'x' })],
  prism: [line('prism', 'wedge', { plane: 'yz', points: [['0 mm', '0 mm'], ['9 mm', '1 mm'], ['4 mm', '7 mm']], height: '4 mm' })], // prettier-ignore
  frustum: [line('frustum', 'horn')],
  mirrored: [line('prism', 'half'), line('mirror', 'whole', { of: 'half', plane: 'yz', at: '-3 mm', original: 'joined' })],
};

describe.each(Object.keys(models))('what is picked on a %s', (kind) => {
  const build = (): Body[] => {
    const { bodies, problems } = evaluateModel({ ...emptyProject('t'), lines: models[kind] }, kernel);
    expect(problems).toEqual([]);
    return bodies;
  };

  test('every corner has a name', () => {
    for (const b of build())
      for (let i = 0; i < b.edges.length; i += 3) {
        const p = [b.edges[i], b.edges[i + 1], b.edges[i + 2]];
        expect(pointName(b, p)).not.toBeNull();
      }
  });

  test('names of corners, edges and faces evaluate to what was picked', () => {
    const lines = models[kind];
    // Each name is used by a box that comes after, as a user would.
    for (const b of build()) {
      const probes: { text: string; expected: number }[] = [];
      for (let s = 0; s < b.edges.length / 6; s++) {
        const ends = [0, 3].map((k) => [0, 1, 2].map((a) => b.edges[6 * s + k + a]));
        const name = edgeName(b, s);
        const straight = Math.hypot(...ends[0].map((c, a) => c - ends[1][a]));
        if (name) probes.push({ text: name, expected: straight });
        const corner = pointName(b, ends[0])!;
        for (const a of [0, 1, 2]) probes.push({ text: `${corner}.${'xyz'[a]} + 1 m`, expected: ends[0][a] + 1 });
      }
      b.faces.forEach((f, i) => probes.push({ text: `${faceName(b, i)}.centre.z + 1 m`, expected: f.centre[2] + 1 }));
      for (const { text, expected } of probes) {
        const m = evaluateModel({ ...emptyProject('t'), lines: [...lines, line('box', 'probe', { size: [text, '1 mm', '1 mm'] })] }, kernel);
        expect(m.problems).toEqual([]);
        const got = m.values.probe['size.0'];
        // An edge may go on over several segments.
        if (text.includes('.length')) expect(got).toBeGreaterThanOrEqual(expected * (1 - 1e-5));
        else expect(Math.abs(got - expected)).toBeLessThan(2e-8);
      }
    }
  });

  test('an end or the middle of a body has a name on each axis', () => {
    const [b] = build();
    expect(extentName(b, b.min, 0)).toBe(`${b.name}.min.x`);
    expect(extentName(b, b.max, 2)).toBe(`${b.name}.max.z`);
    expect(extentName(b, b.min.map((m, a) => 0.37 * m + 0.63 * b.max[a]), 1)).toBeNull(); // prettier-ignore
  });
});

test('points of sheets and curves that the user gave have their numbers', () => {
  const { bodies, curves } = evaluateModel({ ...emptyProject('t'), lines: [line('rectangle', 'leaf'), line('polyline', 'way')] }, kernel);
  expect(pointName(bodies[0], [10e-3, -1e-3, 0])).toBe('leaf.p2');
  expect(edgeName(bodies[0], 0)).toMatch(/^abs\(leaf\.p\d\.[xy] - leaf\.p\d\.[xy]\)$/);
  expect(curves[0].corners).toHaveLength(3);
});
