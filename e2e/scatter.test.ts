import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Page } from 'playwright-core';
import { quick, type Session, startSession, until } from './session.ts';

let s: Session;
let page: Page;
beforeAll(async () => {
  s = await startSession(14640);
  page = s.page;
}, 120_000);
afterAll(() => s?.end(), 60_000);

describe('a reflector under a plane wave', () => {
  test('the wave’s polarisation is checked, a load is put across its plates', async () => {
    await page.goto(s.address);
    await page.locator('.shelf-card', { hasText: 'Mooring reflector' }).getByRole('link').first().click();
    await s.entry('level').waitFor();
    await page.keyboard.press('2');
    const wave = s.entry('radar');
    await page.getByText('1 radar').waitFor();
    await s.setChip('axis ratio of E', '2');
    await wave.getByText('beyond 1').waitFor();
    await s.setChip('axis ratio of E', '1');
    await until('circular is taken', async () => (await wave.getByRole('alert').count()) === 0);
    await page.getByRole('button', { name: 'Add port' }).click();
    expect(await page.getByRole('menuitem', { name: 'plane wave from a direction' }).getAttribute('aria-disabled')).toBe('true');
    await page.getByRole('menuitem', { name: 'lumped R, L, C along a path, no port' }).click();
    const load = s.entry('load1');
    await s.setChip('resistance', '0 ohm');
    await load.getByText('neither resistance nor inductance nor capacitance').waitFor();
    await s.setChip('inductance', '2 nH');
    await until('the load is taken', async () => (await load.getByRole('alert').count()) === 0);
    await load.hover();
    await s.entry('load1').hover();
    await page.getByRole('button', { name: 'Remove load1' }).click();
    await s.saved();
  });

  test('cross-sections and the scattered pattern are read and taken away', async () => {
    await page.keyboard.press('3');
    await s.draft(quick);
    await page.getByText('nothing stands in the way').waitFor();
    await page.getByRole('button', { name: 'Run', exact: true }).click();
    await page.getByLabel('Run 2', { exact: true }).getByRole('link', { name: 'Read' }).click({ timeout: 120_000 });
    await page.getByText('lit by radar, 1 V/m').waitFor();
    const row = page.locator('tr', { hasText: 'radar cross-section back (dBsm)' });
    await row.waitFor();
    const back = (await row.locator('td').allTextContents()).slice(1).map(Number);
    expect(back).toHaveLength(3);
    // A corner of this size sends back some -10 dBsm; circular waves come back from it with the other sense.
    for (const v of back) expect(Math.abs(v + 11)).toBeLessThan(3);
    expect(await page.getByText('Reflection S11').count()).toBe(0);
    const pattern = await s.downloaded(async () => {
      await page.getByRole('button', { name: 'Export Scattered field', exact: true }).click();
      await page.getByRole('menuitem', { name: 'Far field (CSV)' }).click();
    });
    expect(pattern.text.split('\r\n')[0]).toContain('radar cross-section (dBsm)');
    expect(s.faults.filter((f) => !/status of 4\d\d/.test(f))).toEqual([]);
  }, 180_000);
});
