import { expect, test } from '@jest/globals';
import type { Point2, Problem } from '@jadebell/core/document';
import type { GridScene } from '@jadebell/core/scene';
import { solvers } from '@jadebell/core/solvers';
import { filament, plainBody, plainScene } from '@jadebell/verification/bench';

const metal = { name: 'metal', kind: 'conductor' } as const;
const machine = { memory: 8e9, threads: 2, cellsPerSecond: 1e8 };
/** A dipole of two strips in one line, `w` wide, turned from x. */
function dipole(angle: number, w: number, details: GridScene['details'] = {}): GridScene {
  const turned = (x: number, y: number): Point2 => [x * Math.cos(angle) - y * Math.sin(angle), x * Math.sin(angle) + y * Math.cos(angle)];
  const arm = (name: string, a: number, b: number) =>
    plainBody(name, 0, metal, { form: 'sheet', normal: 2, offset: 0, loops: [[turned(a, -w / 2), turned(b, -w / 2), turned(b, w / 2), turned(a, w / 2)]] }); // prettier-ignore
  return plainScene({
    bodies: [arm('left', -20e-3, -0.5e-3), arm('right', 0.5e-3, 20e-3)],
    ports: [filament('feed', [-0.5e-3, 0, 0], 0, 1e-3, 50)],
    min: [-40e-3, -40e-3, -20e-3],
    max: [40e-3, 40e-3, 20e-3],
    band: { from: 2e9, to: 5e9, points: 5 },
    details,
  });
}
const found = (s: GridScene, code: string): Problem[] => solvers.fdtd.plan(s, machine).problems.filter((p) => p.code === code);
const told = (s: GridScene): Problem[] => found(s, 'grid.narrow');

test('the grid follows strips that run across no axis with the cells of the accuracy, as far as they are affordable, and says where they are not', () => {
  // Wide ones as asked, thinner ones with fewer cells, and what no affordable grid could hold not at all.
  expect([told(dipole(Math.PI / 4, 1.2e-3)), found(dipole(Math.PI / 4, 1.2e-3), 'grid.followed')]).toEqual([[], []]);
  const [fewer] = found(dipole(Math.PI / 4, 0.3e-3), 'grid.followed');
  expect(fewer.message).toMatch(/^Strips and gaps that run across no axis get [23] of 4 cells across: 4 would take \d+(\.\d)? million cells\.$/);
  expect(fewer.fix).toMatch(/^Fine follows them up to 20 million cells/);
  expect(found({ ...dipole(Math.PI / 4, 0.3e-3), accuracy: 'fine' }, 'grid.followed')[0]?.message ?? 'all').not.toMatch(/get [23] of/);
  expect(told(dipole(Math.PI / 4, 0.3e-3))).toEqual([]);

  // Where a finer accuracy affords them, that is the remedy, and it does.
  const thin = { ...dipole(Math.PI / 4, 0.3e-3), accuracy: 'draft' as const };
  expect(told(thin)[0].fix).toMatch(/^Take normal accuracy/);
  expect(told({ ...thin, accuracy: 'normal' })).toEqual([]);
  // Far thinner ones, of which no grid is even tried, are told like those.
  expect(told(dipole(0.6, 1e-6)).map((p) => p.place.name)).toEqual(['left', 'right']);
  const [left, right] = told(dipole(0.6, 0.05e-3));
  expect(left.message).toMatch(/^left is 50 um wide at .* mm, .*, and gets 0\.\d+ cells there; with fewer than 2 the grid loses its shape\.$/);
  expect(left.fix).toMatch(/no number of cells that can be set would do/);
  expect(left).toMatchObject({ severity: 'warning', place: { part: 'lines', name: 'left' } });
  expect(right.place.name).toBe('right');
});

test('a strip along an axis has its cells as before, whatever its width', () => {
  for (const w of [0.05e-3, 0.3e-3, 3e-3]) expect([told(dipole(0, w)), found(dipole(0, w), 'grid.followed')]).toEqual([[], []]);
});

test('a port of no width is told of where passes make the grid finer', () => {
  const bare = dipole(0, 1e-3);
  expect(found(bare, 'port.no-width')).toEqual([]);
  const [warning] = found({ ...bare, accuracy: 'adaptive' }, 'port.no-width');
  expect(warning).toMatchObject({ severity: 'warning', place: { part: 'ports', name: 'feed', chip: 'width' } });
  const wide = bare.ports.map((p) => ({ ...p, min: [p.min[0], -0.5e-3, 0], max: [p.max[0], 0.5e-3, 0] })) as GridScene['ports'];
  expect(found({ ...bare, ports: wide, accuracy: 'adaptive' }, 'port.no-width')).toEqual([]);
});
