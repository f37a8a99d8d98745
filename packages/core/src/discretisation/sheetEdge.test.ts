import { describe, expect, test } from '@jest/globals';
import { type EdgeField, edgeOverGround, openEdge } from './edgeField.ts';
import { edgePart, facePart, postPart, sidePart } from './sheetEdge.ts';

/**
 * Capacitance over permittivity, per metre, of a strip of width w between plates 1 apart (in its middle) or, `over` ground alone, 1 above it, on cells of
 * `cell` by `rise`: node potentials on which the energy is least. The strip's edges lie anywhere among the lines.
 */
function capacitance(w: number, cell: number, rise: number, offset: number, over: boolean, field: EdgeField | null): number {
  const side = over ? 10 : 2;
  const [nx, nz] = [2 * Math.ceil((w / 2 + side) / cell), Math.round((over ? 8 : 1) / rise)];
  const plane = Math.round((over ? 1 : 0.5) / rise);
  const from = (nx * cell - w) / 2 + offset * cell;
  const distance = (x: number): number => (x < from + w / 2 ? from - x : x - from - w);
  const width = nx + 1;
  const [along, up] = [new Float64Array(width * (nz + 1)).fill(rise / cell), new Float64Array(width * (nz + 1)).fill(cell / rise)];
  const potential = new Float64Array(width * (nz + 1));
  const free: number[] = [];
  for (let k = 1; k < nz; k++)
    for (let i = 1; i < nx; i++) {
      const n = k * width + i;
      if (k === plane && distance(i * cell) <= 1e-9) potential[n] = 1;
      else free.push(n);
    }
  if (field)
    for (let i = 0; i < nx; i++) {
      const n = plane * width + i;
      const [d, middle, next] = [0, 0.5, 1].map((t) => distance((i + t) * cell));
      const slope = i * cell < from + w / 2 ? -1 : 1;
      if (Math.abs(middle) < 1.6 * cell) {
        const part = edgePart(field, { ends: [d, next], middle, along: slope, across: 0, width: 1 }, rise / 2, rise / 2);
        along[n] = part > 0 ? along[n] / part : 0;
      }
      if (Math.abs(d) < 1.6 * cell) {
        up[n] /= postPart(field, d, [slope, 0], [cell, 1], rise);
        up[n - width] /= postPart(field, d, [slope, 0], [cell, 1], -rise);
      }
    }
  for (let sweep = 0; sweep < 3000; sweep++) {
    let most = 0;
    for (const n of free) {
      const [a, b, c, d] = [along[n], along[n - 1], up[n], up[n - width]];
      const change = 1.88 * ((a * potential[n + 1] + b * potential[n - 1] + c * potential[n + width] + d * potential[n - width]) / (a + b + c + d) - potential[n]); // prettier-ignore
      potential[n] += change;
      most = Math.max(most, Math.abs(change));
    }
    if (most < 1e-7) break;
  }
  let energy = 0;
  for (let n = 0; n + width < potential.length; n++) energy += along[n] * (potential[n + 1] - potential[n]) ** 2 + up[n] * (potential[n + width] - potential[n]) ** 2; // prettier-ignore
  return energy;
}

/** K(k) by the arithmetic-geometric mean. */
function elliptic(k: number): number {
  let [a, b] = [1, Math.sqrt(1 - k * k)];
  for (let n = 0; n < 40; n++) [a, b] = [(a + b) / 2, Math.sqrt(a * b)];
  return Math.PI / 2 / a;
}

describe('parts beside the edge of a sheet', () => {
  test('a strip between plates, three to ten cells wide, has its capacitance wherever its edges lie among the lines', () => {
    // S. B. Cohn, IRE Trans. Microwave Theory Tech. 2, 52, 1954: 4 K(k) / K(k'), k = tanh (pi w / 2b).
    let [worst, plain] = [0, 0];
    for (const [w, cell] of [
      [0.3, 0.1],
      [0.5, 0.1],
      [0.5, 0.05],
    ])
      for (const offset of [0, 0.15, 0.4, 0.75, 0.95]) {
        const k = Math.tanh((Math.PI * w) / 2);
        const exact = (4 * elliptic(k)) / elliptic(Math.sqrt(1 - k * k));
        worst = Math.max(worst, Math.abs(capacitance(w, cell, cell, offset, false, openEdge) / exact - 1));
        plain = Math.max(plain, Math.abs(capacitance(w, cell, cell, offset, false, null) / exact - 1));
      }
    process.stdout.write(`strip between plates: ${(100 * worst).toFixed(2)} % (0.3 %), with whole cells ${(100 * plain).toFixed(1)} %\n`);
    expect(worst).toBeLessThan(3e-3);
    expect(plain).toBeGreaterThan(0.02);
  });

  test('over ground cells may be as wide as the height, and nearly twice that', () => {
    const fine = capacitance(8, 0.25, 0.25, 0.3, true, edgeOverGround(1));
    const worst = (cell: number): number =>
      Math.max(...[1 / 3, 0.5, 0.9].map((o) => Math.abs(capacitance(8, cell, 0.5, o, true, edgeOverGround(1)) / fine - 1)));
    const [one, two] = [worst(1), worst(1.8)];
    process.stdout.write(
      `strip over ground: cells of its height ${(100 * one).toFixed(2)} % (0.3 %), of 1.8 of that ${(100 * two).toFixed(2)} % (1 %)\n`,
    );
    expect(one).toBeLessThan(3e-3);
    expect(two).toBeLessThan(1e-2);
  });

  test('what lies in metal has no part, what is far off is whole, and a face across the plane knows the field along the edge alone', () => {
    const inside = { ends: [-2, -1] as const, middle: -1.5, along: 1, across: 0, width: 1 };
    expect(edgePart(openEdge, inside, 0.5, 0.5)).toBe(0);
    const far = { ends: [30, 31] as const, middle: 30.5, along: 0.8, across: 0.6, width: 1 };
    expect(edgePart(openEdge, far, 0.5, 0.5)).toBeCloseTo(1, 3);
    expect(facePart(openEdge, [30, 31, 30.5, 31.5], 30.75, 0.5, 0.5).part).toBeCloseTo(1, 3);
    expect(postPart(openEdge, 30, [0.6, 0.8], [1, 1], 1)).toBeCloseTo(1, 2);
    expect(sidePart(openEdge, { ...far, along: 1, across: 0 }, 1)).toBe(1);
    expect(Math.abs(sidePart(openEdge, { ...far, ends: [0.9, 0.9], middle: 0.9, along: 0, across: 1 }, 1) - 1)).toBeGreaterThan(0.05);
  });
});
