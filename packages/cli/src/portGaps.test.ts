import { describe, expect, test } from '@jest/globals';
import { foldedBodies, mirrorOf, rowSpans, spansAlong, type Exact } from '@jadebell/core/geometry';
import { type ResultMeta, withoutGaps } from '@jadebell/core/results';
import { type Mirrors, portLine, type ScenePort } from '@jadebell/core/scene';
import { solvers } from '@jadebell/core/solvers';
import { nodeHost } from '@jadebell/node';
import { fitGap, halfLine } from '../../core/src/solvers/fdtd/gapFit.ts';
import { plainBody } from '../../core/src/verification/bench.ts';
import { lumpedLine } from '../../core/src/verification/portGaps.ts';

const metal = { name: 'metal', kind: 'conductor' } as const;
const c0 = 299792458;

describe('gaps of lumped ports', () => {
  test('a folded body is itself before the cut, its section along the stretch, and its image beyond', () => {
    const box: Exact = { form: 'box', min: [-5, 0, 0], max: [20, 1, 1] };
    const hole: Exact = { form: 'cylinder', axis: 2, base: [-2, 0.5, -1], height: 3, radius: 0.3 };
    const stub: Exact = { form: 'box', min: [8, 0, 0], max: [9, 4, 1] };
    const body = plainBody('line', 0, metal, box);
    const shape: Exact = { form: 'join', parts: [{ form: 'cut', from: box, tools: [hole] }, stub] };
    const fold = { axis: 0, at: 3, inward: 1, length: 10 } as const;
    const [folded] = foldedBodies([{ ...body, shape }], fold);
    // The stub stood beyond the cut and is gone; the hole has an image.
    expect(rowSpans(folded.shape, 2, 0.5)).toEqual([]);
    const row = rowSpans(folded.shape, 0.5, 0.5);
    [-5, -2.3, -1.7, 17.7, 18.3, 21].forEach((x, i) => expect(row[i]).toBeCloseTo(x, 9));
    // The other two axes see the section of the cut along the stretch, that of the image beyond it.
    expect(spansAlong(folded.shape as Exact, [9, 0.5, 0], [0, 0, 1])).toEqual([0, 1]);
    expect(spansAlong(folded.shape as Exact, [18, 0, 0.5], [0, 1, 0])).toHaveLength(4);
    expect([folded.min[0], folded.max[0], mirrorOf(fold, -5)]).toEqual([-5, 21, 21]);
    // A sheet with a slot that opens beyond the cut: two legs, and a mirrored web at the other end.
    const sheet = plainBody('sheet', 0, metal, { form: 'sheet', normal: 2, offset: 0, loops: [[[0, 0], [8, 0], [8, 1], [1, 1], [1, 2], [8, 2], [8, 3], [0, 3]]] }); // prettier-ignore
    const [flat] = foldedBodies([sheet], fold);
    const loops = (flat.shape as { loops: [number, number][][] }).loops;
    const area = loops.map((l) => Math.abs(l.reduce((s, p, i) => s + p[0] * l[(i + 1) % l.length][1] - p[1] * l[(i + 1) % l.length][0], 0) / 2));
    // 16 long and 3 wide, less the closed slot 14 by 1.
    expect(Math.abs(area[0] - (area[1] ?? 0))).toBeCloseTo(16 * 3 - 14, 9);
  });

  test('capacitance, inductance and impedance come back from the S they make', () => {
    const beta = (f: number): number => (2 * Math.PI * f * 1.6) / c0;
    const line = { length: 20e-3, impedance: 48, beta };
    const f = Array.from({ length: 21 }, (_, i) => 1e9 + 0.4e9 * i);
    const s = f.flatMap((x) => {
      const [even, odd] = [true, false].map((open) => halfLine(line, 49, open, x, 50, 30e-15, 0.2e-9));
      const sum = (sign: number): number[] => [0, 1].map((k) => (even[k] + sign * odd[k]) / 2);
      return [...sum(1), ...sum(-1)];
    });
    const gap = fitGap(f, s, 50, line);
    expect(gap.capacitance[0] / 30e-15).toBeCloseTo(1, 6);
    expect(gap.inductance[0] / 0.2e-9).toBeCloseTo(1, 6);
    expect(gap.impedance[0]).toBeCloseTo(49, 6);
    expect(gap.before).toBeGreaterThan(0.05);
    expect(gap.after).toBeLessThan(1e-9);
    // And taken out of the S of the two ports they leave the line between them.
    const full = f.flatMap((_, i) => [...s.slice(4 * i, 4 * i + 4), ...s.slice(4 * i + 2, 4 * i + 4), ...s.slice(4 * i, 4 * i + 2)]);
    const meta = { ports: [{ name: 'a', resistance: 50, gap }, { name: 'b', resistance: 50, gap }], excitations: [0, 1] } satisfies Pick<ResultMeta, 'ports' | 'excitations'>; // prettier-ignore
    const bare = withoutGaps({ shape: [f.length, 2, 2, 2], data: Float64Array.from(full) }, f, meta)!;
    f.forEach((x, i) => {
      const even = halfLine(line, 49, true, x, 50, 0, 0);
      expect(bare.data[8 * i] + bare.data[8 * i + 2]).toBeCloseTo(even[0], 8);
      expect(bare.data[8 * i + 1] + bare.data[8 * i + 3]).toBeCloseTo(even[1], 8);
    });
    expect(withoutGaps(bare, f, { ...meta, excitations: [0] })).toBeNull();
  });

  test('the line is found at its end, and nowhere else', () => {
    const { bodies, ports } = lumpedLine();
    expect(portLine({ ...ports[0], line: undefined }, bodies)).toEqual({ axis: 2, inward: 1 });
    expect(portLine({ ...ports[1], line: undefined }, bodies)).toEqual({ axis: 2, inward: -1 });
    // In the middle metal goes on to both sides.
    const middle: ScenePort = { ...ports[0], min: [ports[0].min[0], 0, 15e-3], max: [ports[0].max[0], ports[0].max[1], 15e-3] };
    expect(portLine(middle, bodies)).toBeNull();
  });

  test('the gap at the end of a microstrip is some 20 fF, and without it a reference line is nearly ideal', async () => {
    const result = await solvers.fdtd.solve(lumpedLine({ accuracy: 'draft', band: { from: 1e9, to: 8e9, points: 3 } }), { host: await nodeHost() });
    const [left, right] = result.meta.ports.map((p) => p.gap!);
    process.stdout.write(
      `gap: ${(left.capacitance[0] * 1e15).toFixed(2)} fF, ${(left.inductance[0] * 1e12).toFixed(1)} pH, sees ${left.impedance[0].toFixed(2)} ohm; S off by ${left.before.toFixed(4)} with, ${left.after.toFixed(4)} without\n`,
    );
    expect(left.capacitance[0]).toBeGreaterThan(10e-15);
    expect(left.capacitance[0]).toBeLessThan(40e-15);
    expect(left.after).toBeLessThan(0.012);
    expect(left.before).toBeGreaterThan(3 * left.after);
    // The same port the other way round.
    expect(Math.abs(right.capacitance[0] / left.capacitance[0] - 1)).toBeLessThan(1e-3);
  }, 120_000);

  test('a gap whose line cannot be solved is kept and told, and the run stands', async () => {
    const scene = lumpedLine({ accuracy: 'draft', band: { from: 1e9, to: 8e9, points: 3 } });
    // Half the line: the plane lies across it.
    const half = { ...scene, mirrors: [null, null, { wall: 'electric', at: 15e-3 }] as unknown as Mirrors, ports: scene.ports.slice(1), min: [scene.min[0], scene.min[1], 15e-3] as [number, number, number], boundaries: scene.boundaries.map((b, s) => (s === 4 ? 'electric' : b)) }; // prettier-ignore
    const { meta } = await solvers.fdtd.solve(half, { host: await nodeHost() });
    expect(meta.ports[0].gap).toBeUndefined();
    expect(meta.evidence.gapsKept).toEqual([{ name: 'right', why: expect.stringContaining('plane of symmetry') as unknown as string }]);
  }, 120_000);
});
