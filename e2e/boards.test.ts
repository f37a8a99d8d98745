import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { readFarField, readVtk } from '@jadebell/core/formats';
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
const exported = (name: string, entry: string) =>
  s.downloaded(async () => {
    await page
      .getByRole('button', { name: `Export ${name}`, exact: true })
      .first()
      .click();
    await page.getByRole('menuitem', { name: entry, exact: true }).click();
  });
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

describe('boards', () => {
  test('a card is dragged and sized with the mouse; it stays so after a reload; the board is written as a report', async () => {
    await open('Tag 868');
    const place = async (name: string): Promise<{ x: number; y: number; width: number; height: number }> => (await card(name).boundingBox())!;
    const before = await place('Phase of S11');
    await page.mouse.move(before.x + 60, before.y + 14);
    await page.mouse.down();
    await page.mouse.move(before.x + 700, before.y + 14, { steps: 8 });
    await page.mouse.up();
    await until('it has gone aside', async () => (await place('Phase of S11')).x > before.x + 200);
    const corner = await place('Reflection S11');
    await page.mouse.move(corner.x + corner.width - 3, corner.y + corner.height - 3);
    await page.mouse.down();
    await page.mouse.move(corner.x + corner.width - 200, corner.y + corner.height - 3, { steps: 6 });
    await page.mouse.up();
    await until('it is narrower', async () => (await place('Reflection S11')).width < corner.width - 100);
    const { width } = await place('Reflection S11');
    await s.saved();
    await page.reload();
    await card('Phase of S11').waitFor();
    await until('all stands as it was left', async () => Math.abs((await place('Reflection S11')).width - width) < 3);
    const report = await s.downloaded(async () => {
      await page.getByRole('button', { name: 'Board', exact: true }).click();
      await page.getByRole('menuitem', { name: /^Report of this board/ }).click();
    });
    expect(report.text).toContain('<h1>Tag 868</h1>');
    expect(report.text.match(/<img src="data:image\/png/g)!.length).toBeGreaterThan(4);
    expect(report.text).toMatch(/<td>bend<\/td><td>35 mm<\/td>/);
  }, 60_000);
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
