import { expect, test } from '@jest/globals';
import { mu0 } from '@jadebell/core/numerics';
import { boxMode, boxOfSheets, boxQuality, ringOfSheets, turned, wallsOfBox } from '@jadebell/verification/tiltedSheets';
import { nodeHost } from './index.ts';

test('a box of sheets at a slant to all axes resonates as it should, with their losses', async () => {
  const host = await nodeHost(2);
  const turn = turned(37, 21, 13);
  const [coarse, fine] = [
    await ringOfSheets(host, boxOfSheets(turn), boxMode, 4e-3, 1, 100),
    await ringOfSheets(host, boxOfSheets(turn), boxMode, 2.4e-3, 1, 100),
  ];
  const [e1, e2] = [coarse, fine].map(({ f }) => 100 * Math.abs(f / boxMode - 1));
  const order = Math.log(e1 / e2) / Math.log(4 / 2.4);
  process.stdout.write(`box of slanted sheets: ${e1.toFixed(2)} % and ${e2.toFixed(2)} % off (0.6, 0.25), order ${order.toFixed(1)} (1.5)\n`);
  expect(e1).toBeLessThan(0.6);
  expect(e2).toBeLessThan(0.25);
  expect(order).toBeGreaterThan(1.5);
  const metal = { name: 'metal', kind: 'conductor', conductivity: 1e4 } as const;
  const { q } = await ringOfSheets(host, boxOfSheets(turn, metal), boxMode, 2.4e-3, 1, 300);
  const expected = 2 * boxQuality(Math.sqrt((Math.PI * boxMode * mu0) / metal.conductivity));
  process.stdout.write(`of 10 kS/m: Q ${q.toFixed(0)}, by the closed form ${expected.toFixed(0)} (4 %)\n`);
  expect(Math.abs(q / expected - 1)).toBeLessThan(0.04);
});

test('so does a box of walls thinner than a tenth of a cell, on one side alone', async () => {
  const host = await nodeHost(2);
  const metal = { name: 'metal', kind: 'conductor', conductivity: 1e5 } as const;
  const expected = boxQuality(Math.sqrt((Math.PI * boxMode * mu0) / metal.conductivity));
  for (const turn of [turned(37, 21, 13), turned(3, 0, 0)]) {
    const { f, q } = await ringOfSheets(host, wallsOfBox(turn, 0.2e-3, metal), boxMode, 3e-3, 1, 300);
    process.stdout.write(`box of 0.2 mm walls on cells of 3 mm: ${(100 * (f / boxMode - 1)).toFixed(2)} % off (0.5), Q ${q.toFixed(0)}, by the closed form ${expected.toFixed(0)} (6 %)\n`); // prettier-ignore
    expect(Math.abs(f / boxMode - 1)).toBeLessThan(5e-3);
    expect(Math.abs(q / expected - 1)).toBeLessThan(0.06);
  }
});
