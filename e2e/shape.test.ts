import { readFileSync } from 'node:fs';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { formulas } from '@jadebell/core/formulas';
import { stepSolids } from '@jadebell/verification/stepSolids';
import { readFileFor } from '@jadebell/core/formats/import';
import type { Page } from 'playwright-core';
import { choose, type Session, startSession, until } from './session.ts';

let s: Session;
let page: Page;
beforeAll(async () => {
  s = await startSession(14520);
  page = s.page;
}, 120_000);
afterAll(() => s?.end(), 60_000);

const newProject = async (title: string): Promise<void> => {
  await page.goto(s.address);
  await page.getByRole('button', { name: 'New project' }).click();
  await page.getByRole('textbox', { name: 'Project title' }).fill(title);
  await page.keyboard.press('Enter');
};
/** Value that is told beside a parameter. */
const told = async (name: string): Promise<number> => {
  const row = page.locator('.parameter', { has: page.getByRole('textbox', { name: `name of parameter ${name}`, exact: true }) });
  return parseFloat((await row.locator('span.mono').textContent()) ?? '');
};
/** Sets a chip of one line. */
const setIn = async (line: string, label: string, value: string): Promise<void> => {
  await s.entry(line).getByRole('button', { name: new RegExp(`^${label}:`) }).click(); // prettier-ignore
  await page.getByRole('textbox', { name: label }).fill(value);
  await page.keyboard.press('Enter');
};
const rename = async (line: string, to: string): Promise<void> => {
  await s.entry(line).getByRole('button', { name: new RegExp(`^name ${line},`) }).press('Enter'); // prettier-ignore
  await page.getByRole('textbox', { name: 'name', exact: true }).fill(to);
  await page.keyboard.press('Enter');
  await s.entry(to).waitFor();
};
/** Takes all out of a list of references. */
const clear = async (line: string, label: string): Promise<void> => {
  const out = s.entry(line).getByRole('button', { name: new RegExp(`^Take .* out of ${label}`) });
  while (await out.count()) await out.first().click();
};
const good = (): Promise<void> => s.stage('Shape').getByText('●').waitFor();

describe('the Patch wall element from an empty project', () => {
  test('is built by the interface alone, and its line follows the board', async () => {
    await newProject('Reed wall patch');
    const table = [
      'f0\t9.6 GHz\tradar frequency\tboard',
      'h\t0.8 mm\tthickness of the board\tboard',
      'er\t3.5\tpermittivity of the board\tboard',
      'side\t26 mm\tof the board\tboard',
      'w\tc0 / (2*f0) * sqrt(2/(er + 1))\twidth of the patch\tpatch',
      'eeff\tmicrostrip_permittivity(w, er, h, f0)\tunder the patch\tpatch',
      'l\tc0 / (2*f0*sqrt(eeff)) - 0.9 * h\tlength of the patch\tpatch',
      'w50\tmicrostrip_width(50 ohm, er, h, f0)\twidth of the line\tline',
      'inset\t0.3 * l\thow far the line runs in\tline',
    ].join('\n');
    await page.getByLabel('Parameters').getByRole('button', { name: 'Paste' }).click();
    await page.getByRole('textbox', { name: 'Table of parameters' }).fill(table);
    await page.getByRole('button', { name: 'Take 9' }).click();
    await s.add('Solids', 'Box');
    await rename('box', 'substrate');
    for (const [label, value] of [['extent along x', 'side'], ['extent along y', 'side'], ['extent along z', 'h']]) await setIn('substrate', label, value); // prettier-ignore
    await choose(s.entry('substrate').getByLabel('anchor'), 'base');
    await choose(s.entry('substrate').getByLabel('material'), 'Low-loss laminate');
    // The sheets hang on the substrate by reference, not by number.
    await s.add('From other lines', 'Copy a face');
    await rename('copy_face', 'ground');
    await choose(s.entry('ground').getByLabel('face', { exact: true }), 'substrate.zmin');
    const sheet = async (name: string, a: string, b: string, x: string, y: string): Promise<void> => {
      await s.add('Flat', 'Rectangle');
      await rename('rectangle', name);
      await setIn(name, 'extent along x', a);
      await setIn(name, 'extent along y', b);
      await setIn(name, 'position x', x);
      await setIn(name, 'position y', y);
      await setIn(name, 'position z', 'substrate.max.z');
    };
    await sheet('full', 'l', 'w', '0 mm', '0 mm');
    await sheet('notch', 'inset', '2 * w50', '(inset - l) / 2', '0 mm');
    await s.add('Combine', 'Cut');
    await choose(s.entry('cut').getByLabel('body', { exact: true }), 'full');
    await clear('cut', 'tools');
    await choose(s.entry('cut').getByLabel('Add to tools'), 'notch');
    await sheet('line', 'side / 2 - l / 2 + inset', 'w50', 'substrate.min.x / 2 - l / 4 + inset / 2', '0 mm');
    await s.add('Combine', 'Join');
    await rename('join', 'patch');
    await clear('patch', 'bodies');
    for (const part of ['cut', 'line']) await choose(s.entry('patch').getByLabel('Add to bodies'), part);
    await good();
    // It can be fed and is ready to solve.
    await page.keyboard.press('2');
    await page.getByRole('button', { name: 'Add port' }).click();
    await page.getByRole('menuitem', { name: /^along a path/ }).click();
    for (const [label, value] of [['from x', 'patch.min.x'], ['to x', 'patch.min.x'], ['to z', 'h'], ['width', 'w50']]) await s.setChip(label, value); // prettier-ignore
    await page.keyboard.press('3');
    await s.setChip('lowest frequency', '8.5 GHz');
    await s.setChip('highest frequency', '10.5 GHz');
    await page.keyboard.press('2');
    await s.setChip('recorded frequency 1', 'f0');
    await s.stage('Feed').getByText('●').waitFor();
    await s.stage('Solve').getByText('●').waitFor();
    // A thicker board: the line grows with it, and everything still hangs together.
    await page.keyboard.press('1');
    const before = await told('w50');
    await s.setChip('value of h', '1.6 mm');
    await until('w50 has changed', async () => (await told('w50')) !== before);
    const after = await told('w50');
    const width = formulas.find((f) => f.name === 'microstrip_width')!;
    const ratio = width.compute([50, 3.5, 1.6e-3, 9.6e9]).si / width.compute([50, 3.5, 0.8e-3, 9.6e9]).si;
    expect(after / before).toBeCloseTo(ratio, 3);
    await good();
  }, 180_000);
});

describe('the stage view', () => {
  test('a picked corner goes into an open chip as a reference, and the body follows it', async () => {
    await newProject('Reference');
    await s.add('Solids', 'Box');
    await s.add('Solids', 'Cylinder');
    await setIn('cylinder', 'radius', '0.5 mm');
    await setIn('cylinder', 'length', '10 mm');
    await page.keyboard.press('.');
    await page.getByRole('button', { name: 'View from' }).click();
    await page.getByRole('menuitem', { name: 'top' }).click();
    const canvas = (await page.locator('.stage canvas').boundingBox())!;
    const centre = [canvas.x + canvas.width / 2, canvas.y + canvas.height / 2];
    await choose(page.getByLabel('What is picked (,)'), 'faces');
    await s.entry('cylinder').getByRole('button', { name: /^position z:/ }).click(); // prettier-ignore
    await page.getByRole('textbox', { name: 'position z' }).fill('');
    await page.mouse.move(centre[0] + 60, centre[1] + 30);
    await page.getByText(/face box\.zmax/).waitFor();
    await page.mouse.click(centre[0] + 60, centre[1] + 30);
    await expect(page.getByRole('textbox', { name: 'position z' }).inputValue()).resolves.toBe('box.zmax.centre.z');
    await page.keyboard.press('Enter');
    await setIn('box', 'extent along z', '7 mm');
    await page.mouse.move(centre[0] + 60, centre[1] + 30);
    await page.getByText(/centre 0 mm, 0 mm, 3.5 mm/).waitFor();
    // The rod stands on the box, so its top lies 10 mm above.
    await page.mouse.move(centre[0], centre[1]);
    await page.getByText(/face cylinder\.(top|side)/).waitFor();
    await good();
  });

  test('a new body is placed and sized with the pointer, or by typing', async () => {
    await s.add('Solids', 'Box');
    const bar = page.getByRole('group', { name: 'Placing' });
    await bar.getByText('stands').waitFor();
    const name = (await bar.locator('b').textContent())!;
    const canvas = (await page.locator('.stage canvas').boundingBox())!;
    const at = (dx: number, dy: number): [number, number] => [canvas.x + canvas.width / 2 + dx, canvas.y + canvas.height / 2 + dy];
    const value = (label: string): Promise<string> => bar.getByLabel(label, { exact: true }).inputValue();
    // On the corner of the box that stands there it is taken as it is.
    await page.mouse.move(...at(-150, 60));
    await until('it follows the pointer', async () => (await value('position x')) !== '0 mm');
    await page.mouse.click(...at(-150, 60));
    await bar.getByText('size').waitFor();
    const before = await value('extent along x');
    await page.mouse.move(...at(-100, 40));
    await until('its sides follow', async () => (await value('extent along x')) !== before);
    await bar.getByLabel('extent along y').waitFor();
    // What is typed goes into the first value.
    await page.keyboard.type('12 mm');
    await page.keyboard.press('Enter');
    await until('what was typed stands there', async () => (await value('extent along x')) === '12 mm');
    await bar.getByRole('button', { name: 'Next' }).click();
    await page.mouse.move(...at(-100, -60));
    await bar.getByRole('button', { name: 'Done' }).waitFor();
    await page.mouse.click(...at(-100, -60));
    await bar.waitFor({ state: 'hidden' });
    await s
      .entry(name)
      .getByRole('button', { name: /^extent along x: 12 mm/ })
      .waitFor();
    await page.keyboard.press('Control+z');
    await page.keyboard.press('Control+z');
    await page.keyboard.press('Control+z');
    await until('it is gone', async () => (await s.entry(name).count()) === 0);
  });

  test('measures, cuts, hides and isolates', async () => {
    await page.keyboard.press('m');
    const canvas = (await page.locator('.stage canvas').boundingBox())!;
    const [x, y] = [canvas.x + canvas.width / 2, canvas.y + canvas.height / 2];
    await choose(page.getByLabel('What is picked (,)'), 'faces');
    await page.mouse.click(x, y);
    await page.getByText(/pick the other end/).waitFor();
    await page.mouse.move(x + 60, y + 30);
    await page.mouse.click(x + 60, y + 30);
    await page.getByText(/distance of the faces 10 mm/).waitFor();
    await page.keyboard.press('m');
    await page.keyboard.press('x');
    await page.getByRole('slider', { name: 'Section plane along x' }).fill('-0.004');
    await page.mouse.click(x + 61, y + 30);
    await page.getByText('face box').waitFor({ state: 'hidden' });
    await page.keyboard.press('x');
    await s.entry('box').click();
    await page.keyboard.press('i');
    await page.getByRole('button', { name: 'Show all (1)' }).click();
  });
});

describe('editing many lines', () => {
  test('a pasted table makes lines, which change together, fold, are found and undone', async () => {
    await newProject('Stubs');
    await page.getByRole('button', { name: 'Exchange' }).click();
    await page.getByRole('menuitem', { name: /Paste a table/ }).click();
    await page.getByRole('textbox', { name: 'Table' }).fill('name\textent along x\tposition x\nstub1\t3\t0\nstub2\t4\t10\nstub3\t5 mm\t20');
    await page.getByRole('button', { name: 'Make 3 lines' }).click();
    await s.entry('stub3').waitFor();
    await good();
    await s.entry('stub1').click();
    await s.entry('stub3').click({ modifiers: ['Shift'] });
    await page.getByRole('heading', { name: '3 lines chosen' }).waitFor();
    await choose(page.getByLabel('material of all'), 'PTFE');
    await page.getByLabel('Chosen lines').getByRole('button', { name: /^extent along y of all/ }).click(); // prettier-ignore
    await page.getByRole('textbox', { name: 'extent along y of all' }).fill('2 mm');
    await page.keyboard.press('Enter');
    for (const n of [1, 2, 3]) await s.entry(`stub${n}`).getByText('2 mm', { exact: true }).waitFor();
    await page.getByLabel('Chosen lines').getByRole('button', { name: 'Duplicate' }).click();
    await s.entry('stub6').waitFor();
    await page.keyboard.press('Control+z');
    await s.entry('stub6').waitFor({ state: 'detached' });
    await page.getByRole('searchbox', { name: 'Find lines' }).fill('stub2');
    await s.entry('stub1').waitFor({ state: 'detached' });
    await page.getByRole('searchbox', { name: 'Find lines' }).fill('');
    await page.getByRole('button', { name: 'Add section' }).click();
    await page.getByRole('textbox', { name: 'title of section' }).fill('Later parts');
    await s.add('Solids', 'Sphere');
    await page.getByRole('button', { name: 'Fold Later parts' }).click();
    await s.entry('sphere').waitFor({ state: 'detached' });
    await s.saved();
  });
});

describe('files', () => {
  test('an STL and a DXF are imported with units asked, and the model is written out again', async () => {
    await newProject('Imports');
    const open = async (path: string, name: string, bytes?: Buffer): Promise<void> => {
      await page.getByRole('button', { name: 'Exchange' }).click();
      await page.getByRole('menuitem', { name: /Import a file/ }).click();
      await page.getByLabel('File to import').setInputFiles({ name, mimeType: 'application/octet-stream', buffer: bytes ?? readFileSync(path) });
    };
    await open('demo/parts/buoy-hull.stl', 'buoy-hull.stl');
    await page.getByText('the file does not say').waitFor();
    await expect(page.getByRole('button', { name: 'Import 1' }).isDisabled()).resolves.toBe(true);
    await choose(page.getByLabel('Unit of the file'), 'mm');
    await page.getByText('600 mm × 600 mm × 670 mm').waitFor();
    await page.getByRole('button', { name: 'Import 1' }).click();
    await page.locator('.entry', { hasText: 'Imported body' }).waitFor();
    await good();
    const dxf = ['0', 'SECTION', '2', 'ENTITIES', '0', 'CIRCLE', '8', 'lid', '10', '0', '20', '0', '40', '50', '0', 'CIRCLE', '8', 'lid', '10', '0', '20', '0', '40', '20', '0', 'ENDSEC', '0', 'EOF', ''].join('\n'); // prettier-ignore
    await open('', 'lid.dxf', Buffer.from(dxf));
    await page.getByText(/2 closed outlines, 1 hole/).waitFor();
    await choose(page.getByLabel('Unit of the file'), 'mm');
    await page.getByLabel('Thickness of lid').fill('3 mm');
    await page.getByRole('button', { name: 'Import 1' }).click();
    await s.entry('lid').waitFor();
    await good();
    await open('', 'broken.stl', Buffer.from('solid nothing at all'));
    await page.getByRole('alert').getByText(/holds no triangles/).waitFor(); // prettier-ignore
    await page.getByRole('button', { name: 'Cancel' }).click();
    await page.getByRole('button', { name: 'Exchange' }).click();
    await page.getByRole('menuitem', { name: /Export the model/ }).click();
    const stl = await s.downloaded(() => page.getByRole('button', { name: 'Write file' }).click());
    expect(stl.name).toBe('imports.stl');
    expect((await readFileFor(stl.name, new Uint8Array(stl.bytes))).meshes[0].mesh.triangles.length).toBeGreaterThan(3000);
  }, 120_000);

  test('a STEP file of eighty round pins, 20,000 triangles, is read with progress, and turning it asks nothing of the pointer', async () => {
    await newProject('Pins');
    await page.getByRole('button', { name: 'Exchange' }).click();
    await page.getByRole('menuitem', { name: /Import a file/ }).click();
    const pins = Array.from({ length: 80 }, (_, i) => ({ name: `pin ${i + 1}`, min: [4 * (i % 16), 4 * Math.floor(i / 16), 0], max: [4 * (i % 16) + 2, 4 * Math.floor(i / 16) + 2, 20], round: true })); // prettier-ignore
    await page.getByLabel('File to import').setInputFiles({ name: 'pins.step', mimeType: 'application/step', buffer: Buffer.from(stepSolids(pins)) });
    await page.getByRole('progressbar').waitFor();
    await page.getByRole('checkbox', { name: 'Take pin 80' }).waitFor({ timeout: 60_000 });
    const triangles = await page.getByRole('table').locator('tbody tr td:nth-child(5)').allTextContents();
    expect(triangles.reduce((n, t) => n + Number(t.replaceAll(',', '')), 0)).toBeGreaterThan(19_000);
    await page.getByRole('checkbox', { name: 'Take pin 7', exact: true }).uncheck();
    await page.getByRole('button', { name: 'Import 79' }).click();
    const find = page.getByLabel('Find lines');
    const lines = page.locator('.entry');
    await until('the lines are there', async () => (await lines.count()) > 10, 60_000);
    // Of so many lines only those that are seen are drawn; what is picked is scrolled to.
    expect(await lines.count()).toBeLessThan(40);
    await find.fill('pin_80');
    await s.entry('pin_80').click();
    await find.fill('');
    await s.entry('pin_79').waitFor();
    await find.fill('pin_7');
    await s.entry('pin_70').waitFor();
    expect(await s.entry('pin_7').count()).toBe(0);
    await find.fill('');
    await good();
    // How long a frame takes the page's own thread is printed, not judged: machines differ, and here the picture is drawn in software.
    const box = (await page.locator('.stage canvas').boundingBox())!;
    const client = await page.context().newCDPSession(page);
    await client.send('Performance.enable');
    const busy = async (): Promise<number> => (await client.send('Performance.getMetrics')).metrics.find((m) => m.name === 'TaskDuration')!.value;
    await page.mouse.move(box.x + 300, box.y + 300);
    await page.mouse.down();
    const before = await busy();
    for (let i = 1; i <= 8; i++) await page.mouse.move(box.x + 300 + 20 * i, box.y + 300 + 5 * i);
    process.stdout.write(
      `main thread ${((1000 * ((await busy()) - before)) / 8).toFixed(1)} ms a frame while turning 20,000 triangles in 79 bodies\n`,
    );
    expect(await page.locator('.entry.lit').count()).toBeLessThan(2);
    await page.mouse.up();
    // A click still picks.
    await page.getByRole('button', { name: 'Fit' }).click();
    await page.mouse.click(box.x + box.width / 2, box.y + box.height / 2 + 20);
    await page.locator('.entry.selected').waitFor();
  }, 180_000);
});

test('a starter opens as a project; the calculator and the library give to it', async () => {
  await page.goto(s.address);
  await page.getByRole('button', { name: 'Start from a design' }).click();
  await page.getByRole('button', { name: 'Microstrip line' }).click();
  await page.getByLabel('frequency').fill('2 mm');
  await page.getByRole('alert').getByText(/is a length/).waitFor(); // prettier-ignore
  await page.getByLabel('frequency').fill('24 GHz');
  await choose(page.getByLabel('board', { exact: true }), 'Alumina');
  await page.getByRole('button', { name: 'Start', exact: true }).click();
  await s.entry('strip').waitFor();
  await good();
  await s.stage('Solve').getByText('●').waitFor();
  await page.getByRole('button', { name: 'Calculator' }).click();
  await page.getByRole('button', { name: 'Skin depth' }).click();
  await page.getByRole('status').getByText(/^66\d\.?\d* nm$/).waitFor(); // prettier-ignore
  await page.getByRole('button', { name: 'Use as a parameter' }).click();
  await s.chip('value of skin_depth2?').waitFor();
  await page.getByRole('button', { name: 'Library' }).click();
  await page.getByRole('searchbox', { name: 'Find a material' }).fill('nitride');
  await page.getByRole('button', { name: 'Silicon nitride (optical)' }).click();
  await page.getByText(/Opt. Lett. 40, 4823/).waitFor();
  await page.getByRole('button', { name: 'Copy into the project' }).click();
  await page.getByRole('button', { name: 'Keep in my library' }).click();
  await page.keyboard.press('Escape');
  await page.getByLabel('Materials').getByText('unused').waitFor();
});

test('no fault was reported by any page on the way', () => {
  expect(s.faults.filter((f) => !/status of 4\d\d/.test(f))).toEqual([]);
});
