import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { readTouchstone } from '@jadebell/core/formats';
import type { Page } from 'playwright-core';
import { choose, type Session, startSession, until } from './session.ts';
import { abs } from '@jadebell/core/numerics';

let s: Session;
let page: Page;
beforeAll(async () => {
  s = await startSession(14730);
  page = s.page;
}, 120_000);
afterAll(() => s?.end());

const card = (name: string) => page.getByLabel(name, { exact: true });
/** Runs what is set up, and waits for the nth run to be done. */
async function run(n: number): Promise<void> {
  await page.keyboard.press('3');
  await page.getByRole('button', { name: 'Run', exact: true }).click();
  await page.getByLabel(`Run ${n}`, { exact: true }).getByText('done').waitFor({ timeout: 60_000 });
}
const exported = (name: string, entry: string) =>
  s.downloaded(async () => {
    await page
      .getByRole('button', { name: `Export ${name}`, exact: true })
      .first()
      .click();
    await page.getByRole('menuitem', { name: entry, exact: true }).click();
  });
/** The columns of a CSV file: heads and numbers. */
const columns = (text: string): { heads: string[]; rows: number[][] } => {
  const [head, ...rows] = text.trim().split('\n');
  return { heads: head.split(',').map((h) => h.replaceAll('"', '')), rows: rows.map((r) => r.split(',').map(Number)) };
};

describe('an array of wires, from an empty project', () => {
  test('a pasted table makes its elements, which change together', async () => {
    await page.goto(s.address);
    await page.getByRole('button', { name: 'New project' }).click();
    await page.getByRole('textbox', { name: 'Project title' }).fill('Reed array');
    await page.keyboard.press('Enter');
    await page.getByRole('button', { name: 'Exchange' }).click();
    await page.getByRole('menuitem', { name: /Paste a table/ }).click();
    await choose(page.getByLabel('Kind of line'), { label: 'Straight wire' });
    await page
      .getByRole('textbox', { name: 'Table' })
      .fill('name\tposition x\tlength\tradius\nback\t-397\t968\t4\nfed\t0\t929\t4\nfront\t397\t866\t4\nfar\t794\t857\t4');
    await page.getByRole('button', { name: 'Make 4 lines' }).click();
    await s.entry('far').waitFor();
    await s.entry('back').click();
    await s.entry('far').click({ modifiers: ['Shift'] });
    await page.getByLabel('Chosen lines').getByRole('button', { name: /^radius of all/ }).click(); // prettier-ignore
    await page.getByRole('textbox', { name: 'radius of all' }).fill('5 mm');
    await page.keyboard.press('Enter');
    for (const name of ['back', 'fed', 'front', 'far']) await s.entry(name).getByText('5 mm', { exact: true }).waitFor();
  });

  test('a port in a wire chooses the solver of wires; a feed at a free end is told before the run', async () => {
    await s.entry('fed').click({ position: { x: 8, y: 8 } });
    await page.keyboard.press('2');
    await page.getByRole('button', { name: 'Add port or source' }).click();
    await page.getByRole('menuitem', { name: 'in a wire', exact: true }).click();
    await until('the port stands in the picked wire', async () => (await page.getByLabel('wire', { exact: true }).textContent()) === 'fed');
    await page.getByRole('heading', { name: 'Ground', exact: true }).waitFor();
    await s.setChip('place along the wire', '1');
    await page.keyboard.press('3');
    await page.getByLabel('Checks').getByText('where no current flows').waitFor(); // prettier-ignore
    await until('it cannot be run', () => page.getByRole('button', { name: 'Run', exact: true }).isDisabled());
    await page.getByLabel('Checks').getByRole('button', { name: 'Show' }).first().click(); // prettier-ignore
    await s.setChip('place along the wire', '0.5');
    await page.keyboard.press('3');
    await page.getByText(/All bodies are round wires/).waitFor();
    await s.setChip('lowest frequency', '140 MHz');
    await s.setChip('highest frequency', '160 MHz');
    await page.keyboard.press('2');
    await page.getByRole('button', { name: 'Remove frequency 1 GHz' }).click();
    for (const [n, f] of ['145 MHz', '151 MHz', '155 MHz'].entries()) {
      await page.getByRole('button', { name: 'Add frequency' }).click();
      await s.setChip(`recorded frequency ${n + 1}`, f);
    }
    await page.getByRole('button', { name: 'Add recorder' }).click();
    await page.getByRole('menuitem', { name: 'field on a plane' }).click();
    await s.saved();
  });

  test('it is solved in seconds: match, pattern over frequency, near field in its plane, currents', async () => {
    await page.keyboard.press('3');
    await page.getByText(/segments, .* unknowns/).waitFor();
    await run(1);
    await page.getByLabel('Run 1', { exact: true }).getByRole('link', { name: 'Read' }).click(); // prettier-ignore
    await page.getByRole('tablist', { name: 'Boards' }).waitFor();
    await card('Evidence')
      .getByText(/segments, unknowns/)
      .waitFor();
    const touchstone = await exported('Reflection S11', 'Touchstone (.s1p)');
    const { frequency, s: scattering } = readTouchstone(touchstone.text, 1);
    expect(frequency).toHaveLength(101);
    for (const [[v]] of scattering) expect(abs(v)).toBeLessThan(1);
    await s.board('Pattern');
    const gain = async (): Promise<number> => Number(/peak (-?\d+\.\d+) dBi/.exec((await card('Cut').first().textContent()) ?? '')?.[1]);
    await until('the array points', async () => (await gain()) > 8);
    // The pattern follows the frequency of the lens as it is stepped, and is played.
    const before = await gain();
    await page.getByRole('button', { name: 'Frequency after' }).click();
    await until('the figures are of the next frequency', async () => (await gain()) !== before);
    await s.board('Fields');
    await page.locator('section.card canvas').first().waitFor();
    await s.board('Wires');
    const file = await exported('Current along wires', 'Values (CSV)');
    const { heads, rows } = columns(file.text);
    expect(heads[0]).toBe('wire');
    const sizes = rows.map((r) => Math.hypot(r[2], r[3]));
    // Free ends carry nothing, and every wire of the array something.
    for (const n of [1, 2, 3, 4]) {
      const own = rows.flatMap((r, i) => (r[0] === n ? [sizes[i]] : []));
      expect(own[0]).toBeLessThan(1e-9);
      expect(own[own.length - 1]).toBeLessThan(1e-9);
      expect(Math.max(...own)).toBeGreaterThan(0.02);
    }
    expect(s.faults).toEqual([]);
  });
});

describe('a cable over ground', () => {
  test('it is driven or lit without building it anew, and its far resistor is read over the band', async () => {
    await page.goto(s.address);
    await page.getByRole('link', { name: 'Mast cable', exact: true }).click();
    await s.entry('cable').waitFor();
    await page.keyboard.press('2');
    const excited = page.getByRole('group', { name: 'Excited' });
    await expect(excited.getByRole('button', { name: 'near' }).getAttribute('aria-pressed')).resolves.toBe('true');
    await excited.getByRole('button', { name: 'radio' }).click();
    await excited.getByText('the ports are loads of the wave').waitFor();
    await s.setChip('strength in V/m', '10');
    await s.saved();
    await run(3);
    await page.getByLabel('Run 3', { exact: true }).getByRole('link', { name: 'Read' }).click(); // prettier-ignore
    await page.getByText('lit by radio, 1 V/m').waitFor();
    await s.board('Wires');
    const lit = columns((await exported('Voltage at ports and loads', 'Curves (CSV)')).text);
    expect(lit.rows).toHaveLength(196);
    const largest = Math.max(...lit.rows.map((r) => r[1]));
    // The demo's own run was for 3 V/m: voltages follow the strength.
    await page.keyboard.press('3');
    await page.getByLabel('Run 2', { exact: true }).getByRole('link', { name: 'Read' }).click(); // prettier-ignore
    await s.board('Wires');
    await page.getByText('run 2').first().waitFor();
    const before = columns((await exported('Voltage at ports and loads', 'Curves (CSV)')).text);
    expect(largest / Math.max(...before.rows.map((r) => r[1]))).toBeCloseTo(10 / 3, 1);
    // Driven, the power that does not come back goes into the resistor and into space.
    await page.keyboard.press('2');
    await excited.getByRole('button', { name: 'near' }).click();
    await excited.getByText('one after the other').waitFor();
    await s.saved();
    await run(4);
    await page.getByLabel('Run 4', { exact: true }).getByRole('link', { name: 'Read' }).click(); // prettier-ignore
    await s.board('Match');
    const balance = card('Evidence').getByRole('row', { name: /^power balance/ });
    await balance.waitFor();
    for (const value of ((await balance.textContent()) ?? '').match(/-?\d+\.\d+ %/g) ?? []) expect(Math.abs(parseFloat(value))).toBeLessThan(0.1);
    expect(s.faults).toEqual([]);
  });

  test('over real earth the end that stood on the plane is told to be lifted', async () => {
    await page.keyboard.press('2');
    await choose(page.getByLabel('ground', { exact: true }), 'earth');
    await page.keyboard.press('3');
    await page.getByText(/ends in real earth/).waitFor();
  });
});
