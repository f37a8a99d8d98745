import { expect, test } from '@jest/globals';
import { thorough } from '@jadebell/verification/thorough';
import { mu0 } from '@jadebell/core/numerics';
import { solvers } from '@jadebell/core/solvers';
import { filament, plainBody, plainScene, uniformGrid } from '@jadebell/verification/bench';
import { hannPower, peakNear, ringing } from '@jadebell/verification/cavity';
import { boxMode, boxOfSheets, boxQuality, ringOfSheets, turned, wallsOfBox } from '@jadebell/verification/tiltedSheets';
import { nodeHost } from './index.ts';

test('a box of walls thinner than a tenth of a cell at a slant resonates as it should, with the losses of one side alone', async () => {
  const host = await nodeHost(2);
  const metal = { name: 'metal', kind: 'conductor', conductivity: 1e5 } as const;
  const expected = boxQuality(Math.sqrt((Math.PI * boxMode * mu0) / metal.conductivity));
  // Others are turned by npm run verify.
  const { f, q } = await ringOfSheets(host, wallsOfBox(turned(3, 0, 0), 0.2e-3, metal), boxMode, 3e-3, 1, 150);
  process.stdout.write(`box of 0.2 mm walls on cells of 3 mm: ${(100 * (f / boxMode - 1)).toFixed(2)} % off (0.5), Q ${q.toFixed(0)}, by the closed form ${expected.toFixed(0)} (6 %)\n`); // prettier-ignore
  expect(Math.abs(f / boxMode - 1)).toBeLessThan(5e-3);
  expect(Math.abs(q / expected - 1)).toBeLessThan(0.06);
});

test('half a box at a slant behind a magnetic wall rings as the whole', async () => {
  const host = await nodeHost(1);
  const step = 5e-3;
  for (const bodies of [boxOfSheets(turned(20, 0, 0)), wallsOfBox(turned(20, 0, 0), 0.3e-3)]) {
    const cells = [0, 1, 2].map((a) => Math.ceil(Math.max(...bodies.map((b) => b.max[a])) / step) * 2 + 4) as [number, number, number];
    const min = cells.map((n, a) => -step * (n / 2 - [0, 0.17, 0.43][a])) as [number, number, number];
    const max = min.map((x, a) => x + step * cells[a]) as [number, number, number];
    const whole = uniformGrid(min, max, cells, 0);
    // One cell behind the wall holds the image.
    const half = { ...whole, lines: [whole.lines[0].filter((x) => x > -1.01 * step), whole.lines[1], whole.lines[2]] as typeof whole.lines, outerCells: [1, 0, 0, 0, 0, 0] }; // prettier-ignore
    const from = whole.lines.map((l, a) => l.reduce((best, x) => (Math.abs(x - (a ? 1e-3 : step)) < Math.abs(best - (a ? 1e-3 : step)) ? x : best))) as [number, number, number]; // prettier-ignore
    const ring = async (grid: typeof whole, wall: 'electric' | 'magnetic') => {
      const boundaries = [wall, ...Array<'electric'>(5).fill('electric')];
      const scene = plainScene({ bodies, ports: [filament('p', from, 1, step, 1e6)], min: [wall === 'magnetic' ? 0 : min[0], min[1], min[2]], max, band: { from: 0.8 * boxMode, to: 1.2 * boxMode, points: 2 }, boundaries }); // prettier-ignore
      const { signal, dt } = await ringing(host, scene, grid, boxMode, 40);
      return peakNear(hannPower(signal, dt), boxMode);
    };
    expect((await ring(half, 'magnetic')) / (await ring(whole, 'electric'))).toBeCloseTo(1, 5);
  }
});

thorough('a dipole before a corner of slanted sheets: what is taken is radiated or lost in them, and told by line', async () => {
  const metal = { name: 'metal', kind: 'conductor' } as const;
  const size = 0.2;
  const plate = (sign: 1 | -1) => {
    const s = Math.SQRT1_2;
    // Along (1, sign, 0) and along z.
    const frame = [s, 0, sign * s, 0, sign * s, 0, -s, 0, 0, 1, 0, -size / 2];
    return plainBody(sign > 0 ? 'upper' : 'lower', sign > 0 ? 0 : 1, { ...metal, conductivity: 20 }, { form: 'tilted sheet', frame, loops: [[[0, 0], [size, 0], [size, size], [0, size]]] }); // prettier-ignore
  };
  const arm = (n: number, from: number, to: number) =>
    plainBody(`arm ${n}`, 2 + n, metal, { form: 'box', min: [0.098, -2e-3, from], max: [0.102, 2e-3, to] });
  const { meta } = await solvers.fdtd.solve(
    plainScene({
      bodies: [plate(1), plate(-1), arm(0, 3e-3, 45e-3), arm(1, -45e-3, -3e-3)],
      ports: [{ ...filament('feed', [0.1, 0, -3e-3], 2, 6e-3, 50) }],
      min: [-0.03, -0.17, -0.13],
      max: [0.18, 0.17, 0.13],
      band: { from: 1.2e9, to: 1.8e9, points: 7 },
      accuracy: 'draft',
      recorders: [{ kind: 'far-field', name: 'pattern', step: Math.PI / 36 }],
      recordAt: [1.5e9],
    }),
    { host: await nodeHost(2) },
  );
  const { accepted, lost, radiated, directivity } = meta.farField!.figures[0];
  process.stdout.write(`corner: directivity ${(10 * Math.log10(directivity)).toFixed(1)} dBi, ${(100 * lost / accepted).toFixed(1)} % lost, balance ${(100 * (accepted - radiated - lost) / accepted).toFixed(2)} % (1)\n`); // prettier-ignore
  expect(lost / accepted).toBeGreaterThan(0.02);
  expect(Math.abs(accepted - radiated - lost) / accepted).toBeLessThan(0.01);
  // Kraus, Antennas, 2nd ed., 12-3: 11 to 13 dBi from half a wavelength on, with plates of any size.
  expect(10 * Math.log10(directivity)).toBeGreaterThan(9);
});
