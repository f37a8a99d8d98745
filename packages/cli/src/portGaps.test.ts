import { describe, expect, test } from '@jest/globals';
import { thorough } from '@jadebell/verification/thorough';
import { foldedBodies, mirrorOf, rowSpans, spansAlong, type Exact } from '@jadebell/core/geometry';
import { type ResultMeta, deembedded } from '@jadebell/core/results';
import { facesEnd, type Mirrors, portLine, type GridScene, type ScenePort } from '@jadebell/core/scene';
import { solvers } from '@jadebell/core/solvers';
import { nodeHost } from '@jadebell/node';
import { fitGap, halfLine, discretise, facingColumns, fitSpread, calibratePorts, solveScene } from '@jadebell/core/solvers/fdtd/parts';
import { plainBody } from '@jadebell/verification/bench';
import { buildGrid } from '@jadebell/core/grid';
import { lumpedLine } from '@jadebell/verification/portGaps';
import { againstSpread, gappedDipole } from '@jadebell/verification/portSpread';

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
    expect(gap.impedance![0]).toBeCloseTo(49, 6);
    expect(gap.before).toBeGreaterThan(0.05);
    expect(gap.after).toBeLessThan(1e-9);
    // And taken out of the S of the two ports they leave the line between them.
    const full = f.flatMap((_, i) => [...s.slice(4 * i, 4 * i + 4), ...s.slice(4 * i + 2, 4 * i + 4), ...s.slice(4 * i, 4 * i + 2)]);
    const meta = { ports: [{ name: 'a', resistance: 50, gap }, { name: 'b', resistance: 50, gap }], excitations: [0, 1] } satisfies Pick<ResultMeta, 'ports' | 'excitations'>; // prettier-ignore
    const bare = deembedded({ shape: [f.length, 2, 2, 2], data: Float64Array.from(full) }, f, meta)!;
    f.forEach((x, i) => {
      const even = halfLine(line, 49, true, x, 50, 0, 0);
      expect(bare.data[8 * i] + bare.data[8 * i + 2]).toBeCloseTo(even[0], 8);
      expect(bare.data[8 * i + 1] + bare.data[8 * i + 3]).toBeCloseTo(even[1], 8);
    });
    expect(deembedded(bare, f, { ...meta, excitations: [0] })).toBeNull();
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
      `gap: ${(left.capacitance[0] * 1e15).toFixed(2)} fF, ${(left.inductance[0] * 1e12).toFixed(1)} pH, sees ${left.impedance![0].toFixed(2)} ohm; S off by ${left.before.toFixed(4)} with, ${left.after.toFixed(4)} without\n`,
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

  test('at no line’s end the inductance comes first, then the capacitance', () => {
    const [f, r, l, c] = [2e9, 50, 0.4e-9, 80e-15];
    const w = 2 * Math.PI * f;
    // 70 + 20j ohm with c across it, then l in series.
    const [g, b] = [70 / (70 ** 2 + 20 ** 2), -20 / (70 ** 2 + 20 ** 2) + w * c];
    const [x, y] = [g / (g * g + b * b), -b / (g * g + b * b) + w * l];
    const s = (re: number, im: number): number[] => {
      const d = (re + r) ** 2 + im ** 2;
      return [(re * re + im * im - r * r) / d, (2 * r * im) / d];
    };
    const gap = { capacitance: [c, 0], inductance: [l, 0], before: 0, after: 0 } satisfies ResultMeta['ports'][0]['gap'];
    const bare = deembedded({ shape: [1, 1, 1, 2], data: Float64Array.from(s(x, y)) }, [f], { ports: [{ resistance: r, gap }], excitations: [0] })!;
    s(70, 20).forEach((v, i) => expect(bare.data[i]).toBeCloseTo(v, 12));
  });

  test('the two impedances of a spread port tell inductance and what turns into the capacitance before it', () => {
    const f = Array.from({ length: 11 }, (_, i) => 1e9 + 1e8 * i);
    const [l, m, c] = [0.34e-9, -0.11e-9, 0.9e-12];
    const wide = f.map((x): [number, number] => [12 + x / 1e8, 1e10 * (2 / x - 1e-8 / 2)]);
    const narrow = wide.map(([re, im], n): [number, number] => {
      const w = 2 * Math.PI * f[n];
      return [re - w * w * m * c * re, im + w * l - w * w * m * c * im];
    });
    const gap = fitSpread(f, narrow, wide, c, 50);
    expect(gap.inductance[0] / l).toBeCloseTo(1, 9);
    expect(gap.mutual! / m).toBeCloseTo(1, 9);
    expect(gap.after).toBeLessThan(1e-12);
    // Taken out of the narrow port's S it leaves the spread one with its capacitance alone.
    const s = ([re, im]: readonly [number, number]): number[] => {
      const d = (re + 50) ** 2 + im ** 2;
      return [(re * re + im * im - 2500) / d, (100 * im) / d];
    };
    const meta = (g: ResultMeta['ports'][0]['gap']): Pick<ResultMeta, 'ports' | 'excitations'> => ({ ports: [{ name: 'a', resistance: 50, gap: g }], excitations: [0] }); // prettier-ignore
    const array = (z: [number, number][]): { shape: number[]; data: Float64Array } => ({
      shape: [11, 1, 1, 2],
      data: Float64Array.from(z.flatMap(s)),
    });
    const out = deembedded(array(narrow), f, meta(gap))!;
    const alone = deembedded(array(wide), f, meta({ ...gap, inductance: [0, 0], mutual: 0 }))!;
    out.data.forEach((v, i) => expect(v).toBeCloseTo(alone.data[i], 9));
    expect(fitSpread(f, narrow, narrow, 0, 50)).toEqual({ capacitance: [0, 0], inductance: [0, 0], before: 0, after: 0 });
  });

  test('metal that faces metal across a gap: strips with no area, bars and rods with theirs, a plate that goes on is none', () => {
    const areaOf = (scene: ReturnType<typeof gappedDipole>): number => facingColumns(scene.ports[0], scene, buildGrid(scene)).patches.reduce((sum, p) => sum + p.area, 0); // prettier-ignore
    expect(areaOf(gappedDipole(2e-3, 1e-3, false, 1))).toBe(0);
    expect(areaOf(gappedDipole(2e-3, 1e-3, true, 1)) / 36e-6).toBeCloseTo(1, 9);
    const bars = gappedDipole(2e-3, 0, true, 1);
    const rods = bars.bodies.map((b) => plainBody(b.name, b.order, metal, { form: 'cylinder', axis: 0, base: [b.min[0], 0, 0], height: b.max[0] - b.min[0], radius: 3e-3 })); // prettier-ignore
    expect(Math.abs(areaOf({ ...bars, bodies: rods, details: { cellsPerWavelength: 400 } }) / (Math.PI * 9e-6) - 1)).toBeLessThan(0.06);
    const [port] = bars.ports;
    expect(facesEnd(port, bars.bodies)).toBe(true);
    const plates = [-1, 1].map((side, i) => plainBody(`plate ${i}`, i, metal, { form: 'box', min: [side < 0 ? -3e-3 : 1e-3, -0.1, -0.1], max: [side < 0 ? -1e-3 : 3e-3, 0.1, 0.1] })); // prettier-ignore
    expect(facesEnd(port, plates)).toBe(false);
  });

  thorough.each([['bars with a filling', 2e-3, true, 3, 3 * 8.8541878e-12 * 18e-3]])(
    'a narrow port in a dipole of %s, its gap taken out, is one spread over all the metal across it',
    async (what, width, bars, fill, c) => {
      const { kept, out, result } = await againstSpread(
        gappedDipole(width, 1e-3, bars, fill, { accuracy: 'draft', details: { stopAt: 1e-4 } }),
        await nodeHost(),
      );
      const gap = result.meta.ports[0].gap!;
      process.stdout.write(`${what}: ${(gap.inductance[0] * 1e12).toFixed(0)} pH, ${(gap.capacitance[0] * 1e15).toFixed(0)} fF; S off by ${kept.toFixed(4)} with, ${out.toFixed(4)} without\n`); // prettier-ignore
      expect(gap.capacitance[0] / (c || 1)).toBeCloseTo(c ? 1 : 0, 3);
      expect(gap.inductance[0]).toBeGreaterThan(0);
      expect(out).toBeLessThan(0.005);
      expect(kept).toBeGreaterThan(3 * out);
    },
    120_000,
  );

  thorough(
    'half of a dipole, the other behind a plane of symmetry, has the gap of the whole',
    async () => {
      const whole = gappedDipole(2e-3, 2e-3, true, 3, { accuracy: 'draft', details: { stopAt: 1e-4 } });
      const low = (p: GridScene['min']): GridScene['min'] => [p[0], 0, p[2]];
      const half: GridScene = {
        ...whole,
        min: low(whole.min),
        boundaries: whole.boundaries.map((b, s) => (s === 2 ? 'magnetic' : b)),
        mirrors: [null, { wall: 'magnetic', at: 0 }, null] as unknown as Mirrors,
        ports: whole.ports.map((p) => ({ ...p, min: low(p.min), halved: [false, true, false] })),
      };
      // On one grid: that of the half, and the same with its image.
      const grid = buildGrid(half);
      const y = Array.from(grid.lines[1].subarray(grid.outerCells[2]));
      const both = Float64Array.from([...y.slice(1).map((v) => -v), ...y].sort((p, q) => p - q));
      const full: typeof grid = {
        ...grid,
        lines: [grid.lines[0], both, grid.lines[2]],
        outerCells: grid.outerCells.map((n, s) => (s === 2 ? grid.outerCells[3] : n)),
      };
      const gaps = [];
      for (const [scene, on] of [
        [whole, full],
        [half, grid],
      ] as const) {
        const host = await nodeHost();
        const once = await solveScene(scene, discretise(scene, on), { host });
        gaps.push((await calibratePorts(scene, on, once, { host }, solveScene)).meta.ports[0].gap!);
      }
      const [one, two] = gaps;
      process.stdout.write(`whole ${(one.inductance[0] * 1e12).toFixed(1)} pH, half ${(two.inductance[0] * 1e12).toFixed(1)} pH\n`);
      expect(two.capacitance[0] / one.capacitance[0]).toBeCloseTo(1, 6);
      expect(Math.abs(two.inductance[0] / one.inductance[0] - 1)).toBeLessThan(0.02);
      expect(Math.abs(two.mutual! / one.mutual! - 1)).toBeLessThan(0.05);
    },
    120_000,
  );
});
