import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { arg, abs2, abs } from '@jadebell/core/numerics';
import { readTouchstone } from '@jadebell/core/formats';
import type { Page } from 'playwright-core';
import { choose, type Session, startSession, until } from './session.ts';

let s: Session;
let page: Page;
beforeAll(async () => {
  s = await startSession(14560);
  page = s.page;
}, 120_000);
afterAll(() => s?.end(), 60_000);

describe('a bend of guide between guided ports', () => {
  test('a port is put on a face; power through a rectangle and the field at a point are recorded', async () => {
    await page.goto(s.address);
    await page.locator('.shelf-card', { hasText: 'Gauge feed: bend' }).getByRole('link').first().click();
    const metal = s.entry('metal');
    await metal.locator('svg').first().click();
    await choose(metal.getByLabel('conductor', { exact: true }), 'perfect');
    await page.keyboard.press('2');
    await s.entry('up').hover();
    await page.getByRole('button', { name: 'Remove up' }).click();
    await page.getByRole('button', { name: 'Add port' }).click();
    await page.getByRole('menuitem', { name: 'guided, on a face of a body' }).click();
    const port = s.entry('port1');
    // The end of the upper arm is the face of the air towards high y that lies furthest out.
    await choose(port.getByLabel('face', { exact: true }), 'air.air_shape.side3');
    await until('the port has its place', async () => (await port.getByRole('alert').count()) === 0);
    await page.getByText('2 port1').waitFor();
    await page.getByRole('button', { name: 'Add recorder' }).click();
    await page.getByRole('menuitem', { name: 'power through a rectangle' }).click();
    const power = s.entry('power');
    await choose(power.getByLabel('normal', { exact: true }), 'x');
    for (const [chip, value] of [
      ['position', '-8 mm'],
      ['from z', '-20 mm'],
      ['to y', '20 mm'],
    ]) {
      // prettier-ignore
      await power.getByRole('button', { name: new RegExp(`^${chip}:`) }).click();
      await page.getByRole('textbox', { name: chip }).fill(value);
      await page.keyboard.press('Enter');
    }
    await until('the rectangle is taken', async () => (await power.getByRole('alert').count()) === 0);
    await page.getByRole('button', { name: 'Add recorder' }).click();
    await page.getByRole('menuitem', { name: 'field over time at a point' }).click();
    await s.entry('point').waitFor();
    await s.saved();
  }, 60_000);

  test('the run excites both in turn; S, modes and a two-port file can be read', async () => {
    await page.keyboard.press('3');
    await s.draft();
    await page.getByText('nothing stands in the way').waitFor();
    await page.getByText(/about 2 ×/).waitFor();
    await page.getByRole('button', { name: 'Run', exact: true }).click();
    await page.getByLabel('Run 2', { exact: true }).getByRole('link', { name: 'Read' }).click({ timeout: 200_000 });
    await page.getByText('S port1, left').first().waitFor();
    await s.suitingBoards();
    await s.board('Guide');
    await page.getByRole('img', { name: 'Field of left' }).waitFor();
    await page.getByRole('img', { name: 'Field of port1' }).waitFor();
    await s.board('Fields');
    await page.getByText('E at point').waitFor();
    const power = await s.downloaded(async () => {
      await page.getByRole('button', { name: 'Export Power through rectangles', exact: true }).click();
      await page.getByRole('menuitem', { name: 'Values (CSV)' }).click();
    });
    // Of the recorded frequencies the second is the middle of the band.
    const through = Number(power.text.trim().split('\n')[2].split(',')[1]);
    await s.board('Match');
    const file = await s.downloaded(async () => {
      await page.getByRole('button', { name: 'Export Scattering', exact: true }).click();
      await page.getByRole('menuitem', { name: 'Touchstone (.s2p)' }).click();
    });
    expect(file.name).toBe('gauge-feed-bend-run2.s2p');
    const read = readTouchstone(file.text, 2);
    read.frequency.forEach((_, f) => {
      const power = (to: number, from: number): number => abs2(read.s[to][from][f]);
      // Without loss all comes out again, and both ways alike.
      expect(Math.abs(power(0, 0) + power(1, 0) - 1)).toBeLessThan(2e-3);
      expect(Math.abs(power(1, 0) - power(0, 1))).toBeLessThan(1e-3);
    });
    expect(Math.max(...read.s[1][0].map((v) => abs(v)))).toBeGreaterThan(0.5);
    // What passes the rectangle goes into the bend: at the middle of the band, 1 less what S11 sends back, as far as a draft has it.
    const middle = read.s[0][0][(read.frequency.length - 1) / 2];
    expect(Math.abs(through - (1 - middle[0] ** 2 - middle[1] ** 2))).toBeLessThan(1e-2);
  }, 260_000);

  test('a lumped line is read with the gaps of its ports, without them, and both beside each other', async () => {
    await page.goto(s.address);
    await page.getByRole('link', { name: 'Mast line: lumped and guided feed', exact: true }).click();
    await s.entry('strip').waitFor();
    await page.keyboard.press('4');
    await choose(page.getByLabel('Run', { exact: true }), { label: '1, normal' });
    const curves = page.getByLabel('Scattering', { exact: true });
    const gaps = async (how: string): Promise<void> => {
      await page.getByRole('button', { name: /^Ports/ }).click();
      await choose(page.getByLabel('Gaps of ports'), { label: how });
      await page.keyboard.press('Escape');
    };
    await gaps('both');
    await curves.getByText('S right, left without gaps').waitFor();
    await page.getByLabel('Evidence', { exact: true }).getByText('gap of left, by a reference line').waitFor();
    const file = async (): Promise<ReturnType<typeof readTouchstone>> =>
      readTouchstone(
        (
          await s.downloaded(async () => {
            await page.getByRole('button', { name: 'Export Scattering', exact: true }).click();
            await page.getByRole('menuitem', { name: 'Touchstone (.s2p)' }).click();
          })
        ).text,
        2,
      );
    await gaps('taken out');
    await curves.getByText('gaps of ports taken out').waitFor();
    expect(await curves.getByText('S right, left without gaps').count()).toBe(0);
    const out = await file();
    await gaps('kept');
    await curves.getByText('gaps of ports taken out').waitFor({ state: 'detached' });
    const kept = await file();
    // At 3 GHz, where the stub does little: omega (C Z + L / Z) of both gaps, 25 fF and 7 pH on 48 ohm, is 0.025 rad by which the line seems longer.
    const at = kept.frequency.findIndex((f) => Math.abs(f - 3e9) < 1e6);
    const longer = arg(out.s[1][0][at]) - arg(kept.s[1][0][at]);
    expect(Math.abs(longer - 0.025)).toBeLessThan(0.015);
  }, 120_000);

  test('what a port cannot guide is told before a run, which waits until it is mended', async () => {
    await page.goto(s.address);
    await page.getByRole('link', { name: 'Gauge feed: bend', exact: true }).click();
    await page.locator('.entry').first().waitFor();
    await page.keyboard.press('2');
    for (const n of [1, 2, 3]) await s.setChip(`recorded frequency ${n}`, `${4 + n / 2} GHz`);
    await page.keyboard.press('3');
    await s.setChip('lowest frequency', '4 GHz');
    await s.setChip('highest frequency', '7 GHz');
    const checks = page.getByRole('region', { name: 'Checks' });
    await checks.getByText('No mode of the port propagates anywhere in the band.').first().waitFor({ timeout: 60_000 });
    await checks.getByText('2 to fix before a run').waitFor();
    expect(await page.getByRole('button', { name: 'Run', exact: true }).isDisabled()).toBe(true);
    await s.setChip('highest frequency', '15 GHz');
    await checks.getByText('nothing stands in the way').waitFor({ timeout: 60_000 });
    await until('the run may start', () => page.getByRole('button', { name: 'Run', exact: true }).isEnabled());
    expect(s.faults).toEqual([]);
  }, 90_000);
});
