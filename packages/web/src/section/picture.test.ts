import { describe, expect, test } from '@jest/globals';
import { colourTables } from '../charts/colours.ts';
import type { Prepared } from '../workers/section.protocol.ts';
import type { Quantity } from './display.ts';
import { bandsOf, bodyAt, linesOf, paintSection, tellAt, valuesOf, viewOf } from './picture.ts';

/** Four by two millimetres in cells of 1, 1 and 2 mm across; the right half of it metal, its lower left quarter a dielectric; two layers absorb on the left. */
const section: Prepared = {
  name: 's',
  axes: [1, 2],
  normal: 0,
  at: 0,
  frequency: 1e9,
  x: Float64Array.of(0, 1e-3, 2e-3, 4e-3),
  y: Float64Array.of(0, 1e-3, 2e-3),
  layers: [1, 0, 0, 1],
  cells: 6,
  bodies: [
    { name: 'core', metal: false },
    { name: 'wall', metal: true },
  ],
  media: { nx: 6, ny: 4, body: Uint16Array.from([1, 1, 1, 1, 2, 2, 1, 1, 1, 1, 2, 2, 0, 0, 0, 0, 2, 2, 0, 0, 0, 0, 2, 2]) },
  metal: Float32Array.of(0, 2e-3, 2e-3, 2e-3),
  bent: false,
};
const height: Quantity = { label: 'height', unit: 'mm', signed: true, of: (f, n) => f[n] };
/** At each node how high it lies, from -1 to 1. */
const field = new Float32Array(12 * 12);
for (let n = 0; n < 12; n++) field[12 * n] = Math.floor(n / 4) - 1;
const view = viewOf(section, { width: 424, height: 1000 });
const palette = { ground: 1, metal: 2, tints: [3, 4] };
const painted = (values: ReturnType<typeof valuesOf> | null): ((x: number, fromBelow: number) => number) => {
  const out = new Uint32Array(view.width * view.height);
  paintSection(view, section, values, 'signed', palette, out);
  return (x, fromBelow) => out[(view.height - 1 - fromBelow) * view.width + x];
};

describe('the picture of a section', () => {
  test('is to scale and as large as its box allows', () => {
    expect([view.width, view.height]).toEqual([400, 200]);
    expect(viewOf(section, { width: 10, height: 10 })).toMatchObject({ width: 1, height: 1 });
    // A pixel in the last, wide cell, halfway along it.
    expect([view.cols.cell[300], view.cols.share[300]]).toEqual([2, expect.closeTo(0.5, 2)]);
  });
  test('shows bodies by their tint, metal and what is empty', () => {
    const at = painted(null);
    expect([at(50, 50), at(50, 150), at(350, 50), at(350, 150)]).toEqual([3, 1, 2, 2]);
    expect(bodyAt(view, section, 199, 99)).toBe(1);
    expect(bodyAt(view, section, 201, 99)).toBe(2);
  });
  test('shows a field between its nodes where there is no metal, zero in the middle of the colours', () => {
    const values = valuesOf(field, height);
    expect(values).toMatchObject({ top: 1, most: 1 });
    const at = painted(values);
    const { signed } = colourTables;
    expect(at(100, 100)).toBe(signed[Math.round(255 * 0.5025)]);
    expect(at(100, 0)).toBe(signed[Math.round((255 * 0.005) / 2)]);
    expect(at(100, 199)).toBe(signed[Math.round(255 * 0.9975)]);
    expect(at(350, 100)).toBe(2);
  });
  test('faces stand between bodies, sheets where they are, the grid on its lines', () => {
    const { faces, metal, mesh } = linesOf(section, view, true);
    expect(faces).toContain('M200.0 200.0V150.0');
    expect(faces).toContain('M0.0 100.0H50.0');
    expect(faces).not.toContain('M200.0 100.0H');
    expect(metal).toMatch(/^M0.0 -?0.0L200.0 -?0.0$/);
    expect(mesh.match(/V200/g)).toHaveLength(4);
    expect(mesh.match(/H400/g)).toHaveLength(3);
    expect(linesOf(section, view, false).mesh).toBe('');
  });
  test('absorbing edges are as thick as their layers', () => {
    expect(bandsOf(section, view)).toEqual([
      [0, 0, 100, 200],
      [0, 0, 400, expect.closeTo(100, 9)],
    ]);
  });
  test('a pixel is told by its nearest node, its body and the value there; outside it is that of the edge', () => {
    const values = valuesOf(field, height);
    expect(tellAt(view, section, values, height, 102, 197)).toBe('y 1 mm, z 0 mm, core: height -1.000 mm');
    expect(tellAt(view, section, null, height, 390, 10)).toBe('y 4 mm, z 2 mm, wall');
    expect(tellAt(view, section, null, height, -40, -40)).toBe('y 0 mm, z 2 mm');
  });
});
