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
const told = (s: GridScene): Problem[] => solvers.fdtd.plan(s, machine).problems.filter((p) => p.code === 'grid.narrow');

test('strips that run across no axis and get fewer than two cells are told, with how many cells would do', () => {
  const [left, right, ...gaps] = told(dipole(Math.PI / 4, 0.3e-3));
  expect(left.message).toMatch(/^left is 300 um wide at .* mm, .*, and gets 0\.\d+ cells there; with fewer than 2 the grid loses its shape\.$/);
  expect(left).toMatchObject({ severity: 'warning', place: { part: 'lines', name: 'left' } });
  expect([right.place.name, gaps]).toEqual(['right', []]);
  // What it says is enough, and no more than is needed.
  const cells = Number(/Set (\d+) cells a wavelength/.exec(told(dipole(Math.PI / 4, 1.2e-3))[0].fix)![1]);
  expect(told(dipole(Math.PI / 4, 1.2e-3, { cellsPerWavelength: cells }))).toEqual([]);
  expect(told(dipole(Math.PI / 4, 1.2e-3, { cellsPerWavelength: Math.floor(0.7 * cells) }))).not.toEqual([]);
});

test('a strip along an axis has its cells, a wide one too, and one that none could resolve is told so', () => {
  expect(told(dipole(0, 0.3e-3))).toEqual([]);
  // Of wide arms it is the gap between them that the grid has lost.
  expect(told(dipole(0.6, 9e-3)).map((p) => /^(.*) (left|right) is 1 mm wide/.exec(p.message)?.[1])).toEqual(['The gap beside', 'The gap beside']);
  expect(told(dipole(0.6, 0.05e-3))[0].fix).toMatch(/no number of cells that can be set would do/);
});
