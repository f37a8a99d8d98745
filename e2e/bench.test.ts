import { readdirSync } from 'node:fs';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { readTouchstone } from '@jadebell/core/formats';
import type { Browser, Page } from 'playwright-core';
import { choose, quick, type Session, startSession, until } from './session.ts';

let session: Session;
let browser: Browser;
let page: Page;
let service: { address: string };
let faults: string[];
let chip: Session['chip'];
let setChip: Session['setChip'];
let add: Session['add'];
let stage: Session['stage'];
let entry: Session['entry'];
let saved: Session['saved'];
let downloaded: Session['downloaded'];

beforeAll(async () => {
  session = await startSession(14480);
  ({ browser, page, faults, chip, setChip, add, stage, entry, saved, downloaded } = session);
  service = session;
}, 120_000);
afterAll(() => session?.end(), 60_000);

async function exportFrom(card: string, item: string): Promise<{ name: string; text: string; bytes: Buffer }> {
  return downloaded(async () => {
    await page
      .getByRole('button', { name: `Export ${card}`, exact: true })
      .first()
      .click();
    await page.getByRole('menuitem', { name: item }).click();
  });
}
/** Bytes over the wire of everything a page loads. */
async function firstLoad(path: string): Promise<number> {
  const fresh = await browser.newContext();
  const own = await fresh.newPage();
  const client = await fresh.newCDPSession(own);
  await client.send('Network.enable');
  let bytes = 0;
  client.on('Network.loadingFinished', (e) => (bytes += e.encodedDataLength));
  await own.goto(`${service.address}${path}`, { waitUntil: 'networkidle' });
  await fresh.close();
  return bytes;
}

/** Opens a board of Read. */
const openBoard = (name: string): Promise<void> => page.getByRole('tab', { name, exact: true }).click();

describe('from the Shelf to a pattern', () => {
  test('the Shelf shows the demo projects with pictures, and loads light', async () => {
    await page.goto(service.address);
    await page.getByRole('link', { name: 'Tag 868', exact: true }).waitFor();
    expect(await page.locator('.shelf-card').count()).toBe(readdirSync('demo').filter((f) => f.endsWith('.json')).length);
    const picture = await page.request.get(`${service.address}${await page.locator('.shelf-card img').first().getAttribute('src')}`);
    expect(await picture.text()).toContain('<polygon');
    expect(await firstLoad('/')).toBeLessThan(1_000_000);
  });

  test('the run is queued, forms live, and ends with results that stay after a reload', async () => {
    await page.getByRole('link', { name: 'Tag 868', exact: true }).click();
    await entry('film').waitFor();
    await page.getByRole('slider', { name: 'dial bend' }).fill('0.03');
    await expect(chip('value of bend').textContent()).resolves.toBe('30 mm');
    await saved();
    await stage('Solve').click();
    // What then still rings is carried on by a fit.
    await session.draft({ ...quick, 'stop at energy': '1e-3', 'smallest cell': '0.8 mm' });
    await page.getByText(/on this machine’s/).waitFor();
    await page.getByRole('button', { name: 'Run', exact: true }).click();
    const run = page.getByLabel('Run 3', { exact: true });
    await run.getByText(/under way/).waitFor();
    await run.getByText(/reflection so far/).waitFor({ timeout: 60_000 });
    await run.getByRole('link', { name: 'Read' }).click({ timeout: 120_000 });
    await page.getByRole('heading', { name: 'Reflection S11' }).waitFor();
    const boards = { Match: ['Phase of S11', 'Smith chart', 'Input impedance', 'Evidence'], Pattern: ['Pattern', 'Cut', 'Antenna figures', 'Phase centre'], Fields: ['Field on above'] }; // prettier-ignore
    for (const [board, cards] of Object.entries(boards)) {
      await openBoard(board);
      for (const card of cards) await page.getByRole('heading', { name: card, exact: true }).first().waitFor();
    }
    await page.reload();
    // The board that was open is open again.
    await page.getByRole('img', { name: 'Field on a plane' }).waitFor();
    await openBoard('Pattern');
    await page.getByText('peak at theta, phi').first().waitFor();
    const figures = await page.getByLabel('Antenna figures', { exact: true }).textContent();
    expect(figures).toMatch(/directivity \(dBi\)1\.\d\d/);
  }, 240_000);

  test('exports can be read: Touchstone, CSV, PNG, the project', async () => {
    await openBoard('Match');
    const s1p = await exportFrom('Reflection S11', 'Touchstone (.s1p)');
    expect(s1p.name).toBe('tag-868-run3.s1p');
    const s = readTouchstone(s1p.text, 1);
    expect(s.references).toEqual([[50, 0]]);
    expect(s.frequency).toHaveLength(141);
    const csv = await exportFrom('Input impedance', 'Curves (CSV)');
    expect(csv.text.split('\r\n')[0]).toBe('frequency (Hz),Z at chip re (ohm),frequency (Hz),Z at chip im (ohm)');
    expect(csv.text.trim().split('\r\n')).toHaveLength(142);
    for (const [board, card] of [
      ['Match', 'Reflection S11'],
      ['Match', 'Smith chart'],
      ['Pattern', 'Pattern'],
      ['Pattern', 'Antenna figures'],
      ['Fields', 'Field on above'],
    ]) {
      await openBoard(board);
      const png = await exportFrom(card, 'Picture (PNG)');
      expect(png.bytes.subarray(1, 4).toString()).toBe('PNG');
      expect(png.bytes.length).toBeGreaterThan(8_000);
    }
    const project = await downloaded(() => page.getByRole('button', { name: 'Export project' }).click());
    expect(JSON.parse(project.text)).toMatchObject({ format: 'jadebell-project', title: 'Tag 868', solve: { accuracy: 'draft' } });
    await page.goto(service.address);
    await page.getByLabel('Project file').setInputFiles({ name: 'tag.json', mimeType: 'application/json', buffer: project.bytes });
    await entry('film').waitFor();
    const again = await downloaded(() => page.getByRole('button', { name: 'Export project' }).click());
    expect(JSON.parse(again.text)).toEqual(JSON.parse(project.text));
    await page.goto(service.address);
    await page.getByLabel('Project file').setInputFiles({ name: 'notes.json', mimeType: 'application/json', buffer: Buffer.from('{"a":1}') });
    await page.getByRole('alert').filter({ hasText: 'not a Jade Bell project' }).waitFor();
  });
});

describe('from nothing', () => {
  test('an antenna is built, fed, solved and read by the interface alone', async () => {
    await page.goto(service.address);
    await page.getByRole('button', { name: 'New project' }).click();
    await page.getByRole('textbox', { name: 'Project title' }).fill('Marsh loop end');
    await page.getByRole('button', { name: 'Add parameter' }).click();
    const name = page.getByRole('textbox', { name: 'name of parameter size' });
    await name.fill('arm');
    await name.press('Enter');
    await setChip('value of arm', '58 mm');
    // A sheet with a polygon for the other arm, a box as carrier and a rod as foot.
    await add('Flat', 'Rectangle');
    await setChip('extent along x', 'arm');
    await setChip('extent along y', '6 mm');
    await choose(page.getByLabel('anchor'), 'corner');
    await setChip('position x', '1.5 mm');
    await setChip('position y', '-3 mm');
    await add('Flat', 'Polygon');
    const polygon = entry('polygon');
    await polygon.getByRole('button', { name: '3 points' }).click();
    await polygon.getByRole('button', { name: 'Add point' }).click();
    for (const [i, [x, y]] of [
      ['-1.5 mm', '-3 mm'],
      ['-1.5 mm', '3 mm'],
      ['-1.5 mm - arm', '3 mm'],
      ['-1.5 mm - arm', '-3 mm'],
    ].entries()) {
      // prettier-ignore
      await setChip(`point ${i + 1} x`, x);
      await setChip(`point ${i + 1} y`, y);
    }
    await add('Solids', 'Box');
    const box = entry('box');
    await box.getByRole('button', { name: /^extent along x/ }).click();
    await page.getByRole('textbox', { name: 'extent along x' }).fill('2*arm');
    await page.keyboard.press('Enter');
    await box.getByRole('button', { name: /^position z/ }).click();
    await page.getByRole('textbox', { name: 'position z' }).fill('-0.5 mm');
    await page.keyboard.press('Enter');
    await add('Solids', 'Cylinder');
    const rod = entry('cylinder');
    await choose(rod.getByLabel('material'), 'PTFE');
    await rod.getByRole('button', { name: /^position z/ }).click();
    await page.getByRole('textbox', { name: 'position z' }).fill('-11 mm');
    await page.keyboard.press('Enter');
    // A line can be renamed, muted and brought back.
    await rod.hover();
    await rod.getByRole('button', { name: 'Mute cylinder' }).click();
    await rod.getByRole('button', { name: 'Unmute cylinder' }).click();
    await page.keyboard.press('2');
    await page.getByRole('button', { name: 'Add port' }).click();
    await page.getByRole('menuitem', { name: /across the gap/ }).click();
    await setChip('resistance', '73 ohm');
    await setChip('recorded frequency 1', '1.1 GHz');
    // Fields in a box at a frequency of its own, along the arms alone; one outside the band is told.
    await page.getByRole('button', { name: 'Add recorder' }).click();
    await page.getByRole('menuitem', { name: 'fields in a box' }).click();
    const inside = entry('box');
    await choose(inside.getByLabel('components'), 'x');
    await inside.getByRole('button', { name: 'the frequencies below' }).click();
    await inside.getByRole('button', { name: 'Add frequency' }).click();
    await setChip('frequency 1', '2 GHz');
    await inside.getByText(/at a frequency outside the band/).waitFor();
    await setChip('frequency 1', '1 GHz');
    await stage('Feed').getByText('●').waitFor();
    await page.keyboard.press('3');
    await setChip('lowest frequency', '0.9 GHz');
    await setChip('highest frequency', '1.3 GHz');
    await session.draft(quick);
    await page.getByText('nothing stands in the way').waitFor();
    await page.getByRole('button', { name: 'Run', exact: true }).click();
    await page.getByLabel('Run 1', { exact: true }).getByRole('link', { name: 'Read' }).click({ timeout: 120_000 });
    await openBoard('Pattern');
    await page.getByText('peak at theta, phi').first().waitFor();
    const figures = await page.getByLabel('Antenna figures', { exact: true }).textContent();
    // A dipole: between 1.5 and 2.4 dBi.
    expect(Number(/directivity \(dBi\)(\d\.\d\d)/.exec(figures ?? '')?.[1])).toBeGreaterThan(1.5);
    expect(Number(/directivity \(dBi\)(\d\.\d\d)/.exec(figures ?? '')?.[1])).toBeLessThan(2.4);
    await openBoard('Fields');
    await page.getByText(/x alone.*, 1 GHz$/).waitFor();
    // After a change the result says that it is of the old model.
    await page.keyboard.press('1');
    await setChip('value of arm', '50 mm');
    await page.keyboard.press('4');
    await page.getByText(/The model has changed since run 1/).waitFor();
    await page.getByText('arm: 58 mm → 50 mm').waitFor();
  }, 300_000);

  test('a run is stopped with what it has', async () => {
    await page.keyboard.press('3');
    await page.getByRole('button', { name: 'fine' }).click();
    await page.getByRole('button', { name: 'Run', exact: true }).click();
    const run = page.getByLabel('Run 2', { exact: true });
    await run.getByText(/step [\d,]+/).waitFor({ timeout: 60_000 });
    await run.getByRole('button', { name: 'Stop and keep' }).click();
    await run.getByText(/^Stopped by hand/).waitFor({ timeout: 60_000 });
    await run.getByRole('link', { name: 'Read' }).waitFor();
  }, 180_000);
});

describe('comfort', () => {
  test('palette, help, theme and stages by keyboard', async () => {
    await page.keyboard.press('Control+k');
    await page.getByRole('combobox', { name: 'Find a command' }).fill('add cyl');
    await page.keyboard.press('Enter');
    await entry('cylinder2').waitFor();
    // Until it is gone the keys are the palette's.
    await page.getByRole('dialog').waitFor({ state: 'detached' });
    await page.keyboard.press('Shift+?');
    await page.getByRole('article', { name: 'Shape' }).getByText('Lines').first().waitFor();
    await page.getByRole('searchbox', { name: 'Search the guide' }).fill('plane of symmetry');
    await page.getByLabel('Found').getByRole('button').first().click();
    await page.getByRole('article').getByText('symmetry').first().waitFor();
    await page.getByRole('button', { name: 'Take the tour' }).click();
    await page.getByRole('dialog', { name: 'Tour: Five stages' }).getByRole('button', { name: 'Next' }).click();
    await page
      .getByRole('dialog', { name: /^Tour: The model/ })
      .getByRole('button', { name: 'Leave' })
      .click();
    await page.getByRole('button', { name: 'Dark theme' }).click();
    await page.locator('html[data-theme=dark]').waitFor();
    await page.reload();
    await page.locator('html[data-theme=dark]').waitFor();
  });

  test('a view has an address: a link opens the same for another person, Back closes what was opened', async () => {
    const place = (): URLSearchParams => new URL(page.url()).searchParams;
    await page.goto(service.address);
    // The one that has been run, not its copy that was imported after.
    await page.getByRole('link', { name: 'Tag 868', exact: true }).last().click();
    await entry('film').waitFor();
    await entry('arm_left').click();
    await until('the picked line has an address', async () => place().get('line') === 'arm_left');
    await page.getByRole('button', { name: 'Library' }).click();
    const library = page.getByRole('dialog', { name: 'Materials' });
    await library.waitFor();
    expect(place().get('dialog')).toBe('materials');
    await page.goBack();
    await library.waitFor({ state: 'detached' });
    await page.goForward();
    await library.waitFor();
    await page.keyboard.press('Escape');
    await library.waitFor({ state: 'detached' });
    expect(place().get('line')).toBe('arm_left');
    await stage('Read').click();
    await openBoard('Pattern');
    await openBoard('Match');
    await page.getByRole('button', { name: 'Set up Reflection S11' }).click();
    const settings = page.getByRole('button', { name: 'Close the settings' });
    await settings.waitFor();
    const link = page.url();
    await settings.click();
    await settings.waitFor({ state: 'detached' });
    await page.goBack();
    await page.getByRole('tab', { name: 'Pattern', selected: true }).waitFor();
    // A browser that has never been here.
    const other = await (await browser.newContext({ viewport: { width: 1280, height: 800 }, deviceScaleFactor: 0.5 })).newPage();
    await other.goto(link);
    await other.getByRole('tab', { name: 'Match', selected: true }).waitFor();
    await other.getByRole('button', { name: 'Close the settings' }).click();
    await other.getByRole('button', { name: 'Close the settings' }).waitFor({ state: 'detached' });
    await other.context().close();
  });

  test('no fault was reported by any page on the way', () => {
    expect(faults.filter((f) => !/status of 4\d\d/.test(f))).toEqual([]);
  });
});
