import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { Page } from 'playwright-core';
import { choose, quick, type Session, startSession, until } from './session.ts';

let s: Session;
let page: Page;
beforeAll(async () => {
  s = await startSession(14610);
  page = s.page;
}, 120_000);
afterAll(() => s?.end(), 60_000);

/** Sets a chip of one entry. */
async function setIn(entry: string, label: string, value: string): Promise<void> {
  await s.entry(entry).getByRole('button', { name: new RegExp(`^${label}:`) }).click(); // prettier-ignore
  await page.getByRole('textbox', { name: label }).fill(value);
  await page.keyboard.press('Enter');
}
const cell = async (card: string, row: string): Promise<string> =>
  (await page.getByLabel(card, { exact: true }).getByRole('row').filter({ hasText: row }).getByRole('cell').last().textContent()) ?? '';

describe('two dipoles fed a quarter period apart, a quarter of them computed', () => {
  test('lines are chosen together by their numbers, and a chip opens at the first click', async () => {
    await page.goto(s.address);
    await page.getByRole('button', { name: 'Start from a design' }).click();
    await page.getByRole('button', { name: /^Dipole/ }).click();
    await page.getByRole('button', { name: 'Start', exact: true }).click();
    await s.entry('upper').locator('.number').click();
    await s
      .entry('lower')
      .locator('.number')
      .click({ modifiers: ['Control'] });
    expect(await page.locator('.entry.chosen').count()).toBe(2);
    await page.keyboard.press('Escape');
    for (const name of ['upper', 'lower']) {
      await s.entry(name).hover();
      await s.entry(name).hover();
      await page.getByRole('button', { name: `Duplicate ${name}`, exact: true }).click();
      await setIn(`${name}2`, 'position y', 'wavelength(f0) / 4');
    }
    await s.saved();
  });

  test('a new port takes the narrowest gap that is not fed; planes of symmetry are set and their faults told', async () => {
    await page.keyboard.press('2');
    await page.getByRole('button', { name: 'Add port or source' }).click();
    await page.getByRole('menuitem', { name: /^across the gap/ }).click();
    const port = s.entry('port1');
    await port.waitFor();
    expect(await port.getByRole('combobox').allTextContents()).toEqual(['lower2', 'upper2', 'gap kept']);
    await setIn('port1', 'resistance', '73 ohm');
    await choose(page.getByLabel('symmetry across z', { exact: true }), 'magnetic');
    await page.getByText(/its wall does not allow/).first().waitFor(); // prettier-ignore
    await choose(page.getByLabel('symmetry across z', { exact: true }), 'electric');
    await choose(page.getByLabel('symmetry across x', { exact: true }), 'magnetic');
    await s.setChip('plane of symmetry across x', '1 mm');
    await page.getByText(/has no like on the other side/).first().waitFor(); // prettier-ignore
    await s.setChip('plane of symmetry across x', '0 mm');
    await until('symmetry is taken', async () => (await page.getByRole('alert').count()) === 0);
    await page.getByText('mirror, E along it', { exact: true }).waitFor();
  });

  test('waves together, a current and a line are recorded and read', async () => {
    await choose(page.getByLabel('fields are of', { exact: true }), 'together');
    await s.setChip('phase of wave 2', '-90 deg');
    for (const title of ['current through a rectangle', 'field on a line']) {
      await page.getByRole('button', { name: 'Add recorder' }).click();
      await page.getByRole('menuitem', { name: title }).click();
    }
    // A new rectangle spans the whole structure, also what lies behind the planes.
    const spans = await s.entry('current').getByRole('button', { name: /^(from|to) x:/ }).allTextContents(); // prettier-ignore
    expect(Number.parseFloat(spans[0])).toBeCloseTo(-Number.parseFloat(spans[1]), 3);
    for (const [label, value] of [['position', 'gap'], ['from x', '-8 mm'], ['from y', '-8 mm'], ['to x', '8 mm'], ['to y', '8 mm']]) await setIn('current', label, value); // prettier-ignore
    await s.saved();
    await page.keyboard.press('3');
    await s.draft(quick);
    await page.getByText(/on this machine’s/).waitFor();
    await page.getByRole('button', { name: 'Run', exact: true }).click();
    await page.getByLabel('Run 1', { exact: true }).getByRole('link', { name: 'Read' }).click({ timeout: 150_000 }); // prettier-ignore
    await page.getByText('fields of feed + port1, 1 W incident').waitFor();
    await s.board('Pattern');
    // Behind the dipole that leads by a quarter period the waves cancel: more than twice the 2.15 dBi of one ahead.
    expect(Number(await cell('Antenna figures', 'directivity'))).toBeGreaterThan(4.5);
    expect(await cell('Antenna figures', 'peak at')).toBe('90°, 90°');
    await s.board('Match');
    expect(Math.abs(Number((await cell('Evidence', 'power balance')).replace(' %', '')))).toBeLessThan(1);
    await s.board('Fields');
    await page.getByRole('heading', { name: 'Waves together' }).waitFor();
    const reflections = await page.getByLabel('Waves together', { exact: true }).getByRole('row').allTextContents();
    expect(reflections[2]).toMatch(/port1.*0\.707.*-90\.0°.*dB/);
    expect(await cell('Current through rectangles', 'current')).toMatch(/^\d+\.?\d* mA, -?\d+\.\d°$/);
    await page.getByRole('heading', { name: 'E along line' }).waitFor();
    expect(s.faults).toEqual([]);
  }, 240_000);
});
