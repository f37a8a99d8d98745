import { expect, test } from '@jest/globals';
import { mu0 } from '@jadebell/core/numerics';
import { boxMode, boxOfSheets, boxQuality, ringOfSheets, turned } from '@jadebell/verification/tiltedSheets';
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
