import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { readFarField, readTouchstone, readVtk } from '@jadebell/core/formats';
import { decibel } from '@jadebell/core/results';
import type { Page } from 'playwright-core';
import { choose, type Session, startSession, until } from './session.ts';

let s: Session;
let page: Page;
beforeAll(async () => {
  s = await startSession(14710);
  page = s.page;
}, 120_000);
afterAll(() => s?.end());

const open = async (title: string): Promise<void> => {
  await page.goto(s.address);
  await page.getByRole('link', { name: title, exact: true }).click();
  await page.locator('.entry').first().waitFor();
  await page.keyboard.press('4');
  await page.getByRole('tablist', { name: 'Boards' }).waitFor();
  // The demos bring boards of their own; the tests begin with those that suit the run.
  await s.suitingBoards();
};
const card = (name: string) => page.getByLabel(name, { exact: true });
const setUp = (name: string): Promise<void> =>
  page
    .getByRole('button', { name: `Set up ${name}`, exact: true })
    .first()
    .click();
const type = async (label: string, value: string): Promise<void> => {
  await page.getByRole('textbox', { name: label, exact: true }).fill(value);
  await page.keyboard.press('Enter');
};
const add = async (title: string): Promise<void> => {
  await page.getByRole('button', { name: '+ Card' }).click();
  await page.getByRole('menuitem', { name: new RegExp(`^${title}`) }).click();
};
const exported = (name: string, entry: string) =>
  s.downloaded(async () => {
    await page
      .getByRole('button', { name: `Export ${name}`, exact: true })
      .first()
      .click();
    await page.getByRole('menuitem', { name: entry, exact: true }).click();
  });
/** Rows of a card's markers: what stands in their cells. */
const markers = (name: string): Promise<string[][]> =>
  card(name)
    .getByRole('table', { name: 'Markers' })
    .getByRole('row')
    .evaluateAll((rows) => rows.map((r) => [...r.querySelectorAll('td')].map((c) => c.textContent ?? '')));
const number = (text: string): number => Number(/-?\d+(\.\d+)?/.exec(text)?.[0]);
/** The pixels of the first canvas of a card, as one number. */
const picture = (name: string): Promise<number> =>
  card(name)
    .locator('canvas')
    .first()
    .evaluate((c) => {
      // Runs in the page, whose types are not known here.
      const canvas = c as unknown as {
        width: number;
        height: number;
        getContext(k: '2d'): { getImageData(...r: number[]): { data: Uint8ClampedArray } };
      };
      const { data } = canvas.getContext('2d').getImageData(0, 0, canvas.width, canvas.height);
      let sum = 0;
      for (let i = 0; i < data.length; i += 7) sum = (sum * 31 + data[i]) % 1_000_000_007;
      return sum;
    });

describe('curves', () => {
  test('markers follow a dip and a level, and tell their difference; a limit and a bandwidth are judged', async () => {
    await open('Tag 868');
    await setUp('Reflection S11');
    await page.getByRole('button', { name: 'Add a marker' }).click();
    await page.getByRole('button', { name: 'Add a marker' }).click();
    await choose(page.getByLabel('Marker 2 follows'), 'level');
    await type('Level of marker 2', '-10');
    await page.getByLabel('Differences from marker 1').check();
    await until('the difference stands there', async () => (await markers('Reflection S11'))[1]?.[4].startsWith('Δ'));
    const [dip, level] = await markers('Reflection S11');
    const file = readTouchstone((await exported('Reflection S11', 'Touchstone (.s1p)')).text, 1);
    const db = file.s[0][0].map(decibel);
    const lowest = db.indexOf(Math.min(...db));
    expect(number(dip[3])).toBeCloseTo(db[lowest], 2);
    expect(number(dip[2])).toBeCloseTo(file.frequency[lowest] / 1e6, 1);
    // Where the curve passes -10 dB first, by the file's samples.
    const k = db.findIndex((v) => v < -10);
    const at = file.frequency[k - 1] + ((db[k - 1] + 10) / (db[k - 1] - db[k])) * (file.frequency[k] - file.frequency[k - 1]);
    expect(number(level[2])).toBeCloseTo(at / 1e6, 1);
    expect(number(level[4])).toBeCloseTo((at - file.frequency[lowest]) / 1e6, 1);
    await page.getByLabel('tell where it is').check();
    await card('Reflection S11')
      .getByText(/below -10\.00 dB/)
      .waitFor();
    await page.getByRole('button', { name: 'Add a limit' }).click();
    await type('Limit 1 from', '860 MHz');
    await type('Limit 1 to', '880 MHz');
    await card('Reflection S11')
      .getByText(/keeps limit 1/)
      .waitFor();
    await type('Level of limit 1 to', '-60');
    await card('Reflection S11')
      .getByText(/breaks limit 1/)
      .waitFor();
  }, 60_000);

  test('a complex reference changes the match on every card at once, without a run; the file says the same', async () => {
    const before = number((await markers('Reflection S11'))[0][3]);
    await page.getByRole('button', { name: /^Ports/ }).click();
    await type('Reference of chip', '20+30j');
    await page.keyboard.press('Escape');
    await card('Reflection S11').getByText('referred to 20+30j ohm').waitFor();
    await card('Smith chart').getByText('referred to 20+30j ohm').waitFor();
    await until('another dip', async () => Math.abs(number((await markers('Reflection S11'))[0][3]) - before) > 0.5);
    const text = (await exported('Reflection S11', 'Touchstone 2.0 (.ts)')).text;
    const file = readTouchstone(text, null);
    expect(file.references).toEqual([[20, 30]]);
    const least = Math.min(...file.s[0][0].map(decibel));
    expect(number((await markers('Reflection S11'))[0][3])).toBeCloseTo(least, 2);
    // The input impedance is what it was.
    const z = (await exported('Input impedance', 'Curves (CSV)')).text.split('\r\n');
    await page.getByRole('button', { name: /^Ports/ }).click();
    await page.getByRole('button', { name: 'As solved' }).click();
    await page.keyboard.press('Escape');
    await card('Reflection S11').getByText('reference 50 ohm').waitFor();
    const own = (await exported('Input impedance', 'Curves (CSV)')).text.split('\r\n');
    expect(own).toHaveLength(z.length);
    own.slice(1, -1).forEach((row, i) => expect(Math.abs(Number(row.split(',')[1]) / Number(z[i + 1].split(',')[1]) - 1)).toBeLessThan(1e-9));
  }, 60_000);

  test('two runs are compared: by colour with what differs, as differences, in a table; measured data stand beside', async () => {
    await page.getByRole('group', { name: 'Runs shown beside it' }).getByRole('button', { name: '1', exact: true }).click();
    await card('Reflection S11').getByText('run 1 (bend = 30 mm)').first().waitFor();
    await page.getByLabel('as differences from the first').check();
    await card('Reflection S11').getByText('S11, difference').or(card('Reflection S11').getByText('run 1 (bend = 30 mm)')).first().waitFor();
    expect(await card('Reflection S11').locator('.recharts-line-curve').count()).toBe(1);
    await page.getByLabel('as differences from the first').uncheck();
    await add('Table');
    await choose(page.getByLabel('Table of'), 'runs');
    await card('Differences of runs').getByText('30 mm').waitFor();
    const measured = (await exported('Reflection S11', 'Touchstone (.s1p)')).bytes;
    await page.getByLabel('Data to compare with').setInputFiles({ name: 'chamber.s1p', mimeType: 'text/plain', buffer: measured });
    await page.getByText('chamber brought in.').waitFor();
    await card('chamber').getByText('chamber S11').waitFor();
    await page.getByLabel('Data to compare with').setInputFiles({ name: 'notes.csv', mimeType: 'text/csv', buffer: Buffer.from('a,b\nx,1\n') });
    await page.getByRole('alert').filter({ hasText: 'notes.csv: Row 2' }).waitFor();
    // Solved less measured, which is itself here.
    await page.getByRole('group', { name: 'Runs shown beside it' }).getByRole('button', { name: '1', exact: true }).click();
    await setUp('chamber');
    await page.getByRole('button', { name: 'Add a curve' }).click();
    await page.getByRole('button', { name: 'Add a curve' }).click();
    await choose(page.getByLabel('Quantity of curve c'), 'formula');
    await type('Formula of curve c', 'b - a');
    await page.getByLabel('min, max, mean').check();
    const line = card('chamber').locator('p', { hasText: 'b - a: min' });
    await line.waitFor();
    for (const v of (await line.textContent())!.matchAll(/(?:min|max|mean) (-?[\d.e-]+) dB/g)) expect(Math.abs(Number(v[1]))).toBeLessThan(1e-6);
    await type('Formula of curve c', 'b - q');
    await card('chamber')
      .getByText(/There is no curve q/)
      .waitFor();
  }, 90_000);
});

describe('boards', () => {
  test('cards are moved and sized by keyboard, pinned, removed; all is there after a reload, and undone', async () => {
    const head = card('Phase of S11').locator('> header');
    const place = async (): Promise<{ x: number; width: number }> => (await card('Phase of S11').boundingBox())!;
    const before = await place();
    await head.focus();
    for (let i = 0; i < 2; i++) await page.keyboard.press('Shift+ArrowLeft');
    await until('narrower', async () => (await place()).width < before.width - 100);
    const menu = async (name: string, entry: string): Promise<void> => {
      await page.getByRole('button', { name: `Export ${name}`, exact: true }).click();
      await page.getByRole('menuitem', { name: entry, exact: true }).click();
    };
    await menu('Phase of S11', 'Pin to these values');
    await page.getByRole('button', { name: 'Phase of S11 is pinned: let it follow the lens' }).waitFor();
    await menu('Standing wave ratio', 'Remove');
    await card('Standing wave ratio').waitFor({ state: 'detached' });
    await s.saved();
    await page.reload();
    await page.getByRole('button', { name: 'Phase of S11 is pinned: let it follow the lens' }).waitFor();
    expect((await place()).width).toBeLessThan((await card('Reflection S11').boundingBox())!.width - 80);
    expect(await card('Standing wave ratio').count()).toBe(0);
    expect((await markers('Reflection S11')).length).toBeGreaterThan(1);
    await page.getByRole('button', { name: 'Board', exact: true }).click();
    await page.getByRole('menuitem', { name: 'Back to the boards that suit the run' }).click();
    await card('Standing wave ratio').waitFor();
    await page.keyboard.press('Control+z');
    await card('Standing wave ratio').waitFor({ state: 'detached' });
    await page.getByRole('button', { name: 'Board', exact: true }).click();
    await page.getByRole('menuitem', { name: 'New board', exact: true }).click();
    await page.getByRole('tab', { name: 'Board', exact: true, selected: true }).waitFor();
    await add('Note');
    await page.getByLabel('Text of the note').fill('Bend the arms to 35 mm.');
    await s.saved();
    await page.reload();
    await page.getByLabel('Text of the note').waitFor();
    expect(await page.getByLabel('Text of the note').inputValue()).toBe('Bend the arms to 35 mm.');
    await s.board('Match');
    const report = await s.downloaded(async () => {
      await page.getByRole('button', { name: 'Board', exact: true }).click();
      await page.getByRole('menuitem', { name: /^Report of this board/ }).click();
    });
    expect(report.text).toContain('<h1>Tag 868</h1>');
    expect(report.text.match(/<img src="data:image\/png/g)!.length).toBeGreaterThan(4);
    expect(report.text).toMatch(/<td>bend<\/td><td>35 mm<\/td>/);
  }, 90_000);
});

describe('fields', () => {
  test('an instant moves with the phase, the film of it can be read; a drawn line becomes a card', async () => {
    await open('Gauge feed: iris filter');
    await s.board('Fields');
    await setUp('Field on inside');
    await choose(page.getByLabel('Moment'), 'instant');
    await choose(page.getByLabel('Part', { exact: true }), 'normal');
    await card('Field on inside').locator('canvas').waitFor();
    const still = await picture('Field on inside');
    await page.getByRole('button', { name: 'Play the phase' }).click();
    await until('the picture moves', async () => (await picture('Field on inside')) !== still);
    await page.getByRole('button', { name: 'Stop playing the phase' }).click();
    const gif = (await exported('Field on inside', 'Film over the phase (GIF)')).bytes;
    expect(gif.subarray(0, 6).toString()).toBe('GIF89a');
    // A graphic control block for each of 30 pictures.
    let frames = 0;
    for (let i = 0; i < gif.length - 3; i++) if (gif[i] === 0x21 && gif[i + 1] === 0xf9 && gif[i + 2] === 4) frames++;
    expect(frames).toBe(30);
    const webm = (await exported('Field on inside', 'Film over the phase (WebM)')).bytes;
    expect(webm.subarray(0, 4).toString('hex')).toBe('1a45dfa3');
    expect(webm.includes(Buffer.from('V_VP8'))).toBe(true);
    expect(webm.length).toBeGreaterThan(10_000);
    await page.getByRole('button', { name: 'Line', exact: true }).click();
    const box = (await card('Field on inside').locator('canvas').boundingBox())!;
    await page.mouse.move(box.x + 4, box.y + box.height / 2);
    await page.mouse.down();
    await page.mouse.move(box.x + box.width - 4, box.y + box.height / 2, { steps: 4 });
    await page.mouse.up();
    await card('Along a line on inside').getByText('|E|').waitFor();
    const along = (await exported('Along a line on inside', 'Values (CSV)')).text.trim().split('\r\n');
    expect(along).toHaveLength(402);
    expect(Math.max(...along.slice(1).map((r) => Number(r.split(',')[1])))).toBeGreaterThan(1000);
  }, 120_000);

  test('the excitation of the lens: fields of the other port, and of both together', async () => {
    const first = await picture('Field on inside');
    await choose(page.getByLabel('Excitation', { exact: true }), 'right');
    await page.getByText('fields of right, 1 W incident').waitFor();
    await until('another field', async () => (await picture('Field on inside')) !== first);
    const second = await picture('Field on inside');
    await page.getByRole('button', { name: 'Waves', exact: true }).click();
    await type('Amplitude of left', '1');
    await type('Phase of left', '90');
    await page.keyboard.press('Escape');
    await page.getByText('fields of left + right, 1 W incident').waitFor();
    await until('a third field', async () => ![first, second].includes(await picture('Field on inside')));
    await choose(page.getByLabel('Excitation', { exact: true }), '');
    await until('the first again', async () => (await picture('Field on inside')) === first);
  }, 60_000);

  test('fields are written as VTK and HDF5 and read again alike', async () => {
    const vtr = readVtk((await exported('Field on inside', 'Field (VTK grid, .vtr)')).text);
    const [nx, ny, nz] = [1, 3, 5].map((i) => vtr.extent[i] + 1);
    const real = vtr.arrays.get('E real (V/m)')!;
    expect(real.length).toBe(3 * nx * ny * nz);
    const vti = readVtk((await exported('Field on inside', 'Field (VTK image, .vti)')).text);
    expect(vti.kind).toBe('ImageData');
    const largest = (a: ArrayLike<number>): number => Array.from(a).reduce((m, v) => Math.max(m, Math.abs(v)), 0);
    expect(largest(vti.arrays.get('E real (V/m)')!) / largest(real)).toBeCloseTo(1, 1);
    const h5 = (await exported('Field on inside', 'Field (HDF5)')).bytes;
    expect(h5.subarray(1, 4).toString()).toBe('HDF');
    const { default: h5wasm } = await import('h5wasm/node');
    await h5wasm.ready;
    const { writeFileSync, mkdtempSync } = await import('node:fs');
    const { tmpdir } = await import('node:os');
    const path = `${mkdtempSync(`${tmpdir()}/jadebell-h5-`)}/field.h5`;
    writeFileSync(path, h5);
    const file = new h5wasm.File(path, 'r');
    const e = file.get('E') as { shape: number[]; value: Float32Array };
    expect(e.shape).toEqual([nz, ny, nx, 3, 2]);
    for (let i = 0; i < e.value.length / 2; i += 97) expect(e.value[2 * i]).toBe(real[i]);
    expect(file.attrs.frequency_Hz.value).toBeGreaterThan(1e10);
    file.close();
    const svg = (await exported('Field on inside', 'Drawing (SVG)')).text;
    expect(svg).toContain('<svg xmlns="http://www.w3.org/2000/svg"');
    expect(svg).toContain('<image');
  }, 60_000);
});

describe('patterns', () => {
  test('polarisation, cuts, figures and the phase centre follow the lens; the far field is written as text and read again', async () => {
    await open('Gauge feed: horn');
    await s.board('Pattern');
    await card('Antenna figures').getByText('E plane: width, 10 dB width').waitFor();
    const peak = card('Cut').first().locator('p', { hasText: /^peak/ });
    await peak.waitFor();
    const told = number((await peak.textContent())!);
    const far = readFarField((await exported('Pattern', 'Far field (text, docs/far-field-format.md)')).text);
    expect(far.patterns).toHaveLength(3);
    // Directivity of the middle frequency straight up by the file: 4 pi U over the power that the pattern sums to.
    const { values, radiated } = far.patterns[1];
    const up = values.slice(0, 4).reduce((sum, v) => sum + v * v, 0);
    const level = 10 * Math.log10((4 * Math.PI * up) / (2 * 376.730313668 * radiated!));
    expect(Math.abs(level - told)).toBeLessThan(0.1);
    await setUp('Cut');
    await choose(page.getByLabel('Second part'), 'cross');
    await choose(page.getByLabel('Part of the field'), 'co');
    await page.getByLabel('straight axes').check();
    await card('Cut').first().getByText('directivity, cross-polar').first().waitFor();
    await card('Phase centre')
      .getByText(/phase even within/)
      .waitFor();
    const centre = async (): Promise<number> => number(/z (-?[\d.]+)/.exec((await card('Phase centre').locator('p').first().textContent())!)![1]);
    const middle = await centre();
    await page.getByRole('button', { name: 'Frequency after' }).click();
    await until('another centre', async () => (await centre()) !== middle);
    expect(s.faults.filter((f) => !/status of 4\d\d/.test(f))).toEqual([]);
  }, 60_000);
});
