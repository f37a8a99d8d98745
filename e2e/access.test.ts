import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { AxeBuilder } from '@axe-core/playwright';
import { type Session, startSession } from './session.ts';

let s: Session;
beforeAll(async () => {
  s = await startSession(14980);
}, 120_000);
afterAll(() => s?.end(), 60_000);

const rules = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'];

/** What of a view does not meet WCAG 2.2 AA, as far as it can be found without a person: all of it in light, contrast in dark as well. */
async function faults(view: string): Promise<string[]> {
  const found: string[] = [];
  for (const theme of ['dark', 'light']) {
    // The attribute by which the theme's colours are chosen; the button for it may lie below a dialog. Colours of buttons take a moment to change.
    await s.page.locator('html').evaluate((html, t) => html.setAttribute('data-theme', t), theme);
    await s.page.waitForTimeout(250);
    // Handles of a body seen from aside may lie beside each other: the chips of its line do the same.
    const axe = new AxeBuilder({ page: s.page as never })
      .options({ resultTypes: ['violations'] })
      .exclude('[aria-label="Handles"]')
      .setLegacyMode();
    const { violations, passes } = await (theme === 'light' ? axe.withTags(rules) : axe.withRules(['color-contrast'])).analyze();
    if (!passes.length) found.push(`${view}, ${theme}: no rule found anything to look at`);
    for (const v of violations) for (const n of v.nodes) found.push(`${view}, ${theme}: ${v.help}: ${n.html.slice(0, 160)}`);
  }
  return found;
}

test('every main view meets WCAG 2.2 AA, as far as a program can tell', async () => {
  const { page } = s;
  const all: string[] = [];
  const look = async (view: string): Promise<void> => void all.push(...(await faults(view)));
  await page.goto(s.address);
  await page.getByRole('link', { name: 'Tag 868', exact: true }).waitFor();
  await look('Shelf');
  await page.getByRole('button', { name: 'Start from a design' }).click();
  await page.getByRole('dialog', { name: 'Start from a design' }).waitFor();
  await look('designs');
  await page.keyboard.press('Escape');
  await page.getByRole('link', { name: 'Tag 868', exact: true }).click();
  await s.entry('film').locator('.glyph').click();
  await page.getByRole('button', { name: 'Drag the position x' }).waitFor();
  await look('Shape');
  for (const [name, dialog] of [
    ['Library', 'Materials'],
    ['Calculator', 'Calculator'],
  ]) {
    await page.getByRole('button', { name, exact: true }).click();
    await page.getByRole('dialog', { name: dialog }).waitFor();
    await look(dialog);
    await page.keyboard.press('Escape');
    await page.getByRole('dialog').waitFor({ state: 'detached' });
  }
  await s.stage('Feed').click();
  await s.entry('chip').waitFor();
  await look('Feed');
  await s.stage('Solve').click();
  await page.getByRole('button', { name: 'Show details' }).click();
  await page.getByText('nothing stands in the way').waitFor();
  await look('Solve');
  await s.stage('Read').click();
  await page.getByRole('button', { name: 'Set up Reflection S11' }).click();
  await look('Match, with settings');
  for (const board of ['Pattern', 'Fields']) {
    await s.board(board);
    await page.locator('section.card canvas').first().waitFor();
    await look(board);
  }
  await s.stage('Explore').click();
  await page.getByRole('heading', { name: 'S11 of the runs' }).waitFor();
  await look('Explore');
  for (const [way, sign] of [
    ['Variants', 'What they differ in'],
    ['bend_and_width', 'Points'],
    ['to_868', 'Best so far'],
  ]) {
    await page.getByRole('navigation', { name: 'Ways of exploring' }).getByRole('button', { name: way }).click();
    await page.getByText(sign, { exact: true }).waitFor();
    await look(way);
  }
  expect(all).toEqual([]);
  expect(s.faults).toEqual([]);
}, 240_000);
