import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { thorough } from '@jadebell/verification/thorough';
import type { Page } from 'playwright-core';
import { abs, arg, c0 } from '@jadebell/core/numerics';
import { readTouchstone } from '@jadebell/core/formats';
import { choose, quick, type Session, startSession, until } from './session.ts';

let s: Session;
let page: Page;
beforeAll(async () => {
  s = await startSession(14660);
  page = s.page;
}, 120_000);
afterAll(() => s?.end(), 60_000);

/** Cells of the mode table's rows. */
const table = (): Promise<string[][]> =>
  page.locator('.mode-table tbody tr').evaluateAll((rows) => rows.map((r) => [...r.querySelectorAll('td')].map((c) => c.textContent)));
const solved = async (): Promise<void> => {
  await page.getByText(/solved in/).waitFor({ timeout: 60_000 });
};

describe('cross-sections of the chip and of a guided port', () => {
  test('the two supermodes of the coupler and their crossover length', async () => {
    await page.goto(s.address);
    await page.locator('.shelf-card', { hasText: 'Methane chip' }).getByRole('link').first().click();
    await s.entry('bus').waitFor();
    await page.keyboard.press('2');
    await s.entry('coupler').getByRole('button', { name: 'Modes', exact: true }).click();
    await solved();
    const rows = await table();
    expect(rows).toHaveLength(4);
    const index = rows.map((r) => Number(r[2]));
    expect(index).toEqual([...index].sort((a, b) => b - a));
    expect(await page.getByText('crossover length').count()).toBe(1);
    // The even one shows E of one sign in both guides, the odd one of both signs.
    await choose(page.getByLabel('Field shown'), 'ex');
    await page.getByRole('button', { name: 'Mode 3', exact: true }).click();
    await page.getByRole('img', { name: 'E along y of the mode over the section' }).waitFor();
  }, 120_000);

  test('a wider gap is followed at once and lengthens the crossover', async () => {
    const length = async (): Promise<number> => Number((await page.locator('.mode-details dd').last().locator('.mono').textContent())!.split(' ')[0]);
    const before = await length();
    await page.keyboard.press('1');
    await s.entry('bus').waitFor();
    await page
      .getByRole('button', { name: /0\.3 um/ })
      .first()
      .click();
    await page.keyboard.press('Control+a');
    await page.keyboard.type('0.5 um');
    await page.keyboard.press('Enter');
    await page.keyboard.press('2');
    await solved();
    await until(
      'the crossover is longer',
      async () =>
        (await page.locator('.mode-details').count()) > 0 && (await page.getByText(/solved in/).count()) > 0 && (await length()) > 1.2 * before,
    );
  }, 120_000);

  test('modes are followed over frequency and taken away as a table', async () => {
    await page.getByRole('button', { name: 'Over frequency' }).click();
    await page.getByLabel('points', { exact: true }).fill('3');
    await page.keyboard.press('Enter');
    await page.getByRole('button', { name: 'Follow the modes' }).click();
    await until('all points are solved', async () => (await page.getByText(/solved in/).count()) > 0, 60_000);
    const csv = await s.downloaded(() => page.getByRole('button', { name: 'CSV', exact: true }).click());
    const lines = csv.text.trim().split('\r\n');
    expect(lines).toHaveLength(4);
    expect(lines[0]).toContain('mode 1 effective index');
  }, 180_000);

  test('faults are told in words, and the section comes back when they are mended', async () => {
    await s.setChip('modes', '0', 1);
    await page.getByRole('alert').first().waitFor();
    await page.getByText('Mend the section in the ledger').waitFor();
    await s.setChip('modes', '2', 1);
    await solved();
    await page.getByRole('button', { name: 'Back to the model' }).click();
    await page.getByRole('button', { name: 'Back to the model' }).waitFor({ state: 'detached' });
  }, 90_000);

  test('a guided port shows its modes before any run', async () => {
    await page.goto(s.address);
    await page.locator('.shelf-card', { hasText: 'Gauge feed: straight guide' }).getByRole('link').first().click();
    await s.entry('guide_air').waitFor();
    await page.keyboard.press('2');
    await s.entry('left').getByRole('button', { name: 'Modes', exact: true }).click();
    await solved();
    const rows = await table();
    expect(rows.map((r) => r[1])).toEqual(['TE10', 'TE20, cut off', 'TE01, cut off', 'TE11, cut off']);
    expect(await page.getByText('9.48').count()).toBeGreaterThan(0);
    expect(s.faults.filter((f) => !/status of 4\d\d/.test(f))).toEqual([]);
  }, 90_000);
});

describe('a strip at 30 degrees', () => {
  thorough(
    'is drawn, fed at its ends, solved and read: it is a line as long as it is',
    async () => {
      await page.goto(s.address);
      await page.getByRole('button', { name: 'New project' }).click();
      await s.add('Flat', 'Rectangle');
      await s.setChip('extent along x', '60 mm');
      await s.setChip('extent along y', '60 mm');
      await s.add('Flat', 'Polygon');
      const strip = s.entry('polygon');
      await strip.getByRole('button', { name: '3 points' }).click();
      await strip.getByRole('button', { name: 'Add point' }).click();
      for (const [i, [along, across]] of [
        ['-15 mm', '-2.4 mm'],
        ['15 mm', '-2.4 mm'],
        ['15 mm', '2.4 mm'],
        ['-15 mm', '2.4 mm'],
      ].entries()) {
        // prettier-ignore
        await s.setChip(`point ${i + 1} x`, `${along} * cos(30 deg) - ${across} * sin(30 deg)`);
        await s.setChip(`point ${i + 1} y`, `${along} * sin(30 deg) + ${across} * cos(30 deg)`);
      }
      await strip.getByRole('button', { name: /^position z/ }).click();
      await page.getByRole('textbox', { name: 'position z' }).fill('1 mm');
      await page.keyboard.press('Enter');
      await page.keyboard.press('2');
      for (const [n, end] of ['-14 mm', '14 mm'].entries()) {
        await page.getByRole('button', { name: 'Add port' }).click();
        await page.getByRole('menuitem', { name: /^along a path between two points/ }).click();
        const port = s.entry(`port${n + 1}`);
        for (const [chip, value] of [
          ['from x', `${end} * cos(30 deg)`],
          ['from y', `${end} * sin(30 deg)`],
          ['from z', '0 mm'],
          ['to x', `${end} * cos(30 deg)`],
          ['to y', `${end} * sin(30 deg)`],
          ['to z', '1 mm'],
        ]) {
          // prettier-ignore
          await port.getByRole('button', { name: new RegExp(`^${chip}:`) }).click();
          await page.getByRole('textbox', { name: chip, exact: true }).fill(value);
          await page.keyboard.press('Enter');
        }
      }
      await until('both ports have their places', async () => (await page.getByRole('alert').count()) === 0);
      await page.keyboard.press('3');
      await s.setChip('lowest frequency', '1 GHz');
      await s.setChip('highest frequency', '3 GHz');
      await s.draft(quick);
      await page.getByText('nothing stands in the way').waitFor();
      await page.getByRole('button', { name: 'Run', exact: true }).click();
      await page.getByLabel('Run 1', { exact: true }).getByRole('link', { name: 'Read' }).click({ timeout: 200_000 });
      const file = await s.downloaded(async () => {
        await page.getByRole('button', { name: 'Export Scattering', exact: true }).click();
        await page.getByRole('menuitem', { name: 'Touchstone (.s2p)' }).click();
      });
      const read = readTouchstone(file.text, 2);
      read.frequency.forEach((f, n) => {
        // In air a wave takes the way between both ports with the velocity of light; gaps and open ends add a little.
        const k = (2 * Math.PI * f) / c0;
        const turn = -arg(read.s[1][0][n]) / k;
        expect(abs(read.s[1][0][n])).toBeGreaterThan(0.85);
        expect(turn).toBeGreaterThan(28e-3);
        expect(turn).toBeLessThan(34e-3);
      });
      expect(s.faults.filter((f) => !/status of 4\d\d/.test(f))).toEqual([]);
    },
    240_000,
  );
});
