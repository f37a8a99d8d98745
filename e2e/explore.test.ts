import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { choose, type Session, startSession, until } from './session.ts';

let s: Session;
let project = '';
/** A whip fed in the middle, which is solved in a fraction of a second. */
const whip = {
  format: 'jadebell-project',
  version: 3,
  title: 'Relay whip',
  parameters: [
    { name: 'long', expression: '100 mm' },
    { name: 'thick', expression: '0.5 mm' },
  ],
  materials: [],
  lines: [{ kind: 'straight-wire', name: 'rod', material: 'Copper', axis: 'z', length: 'long', radius: 'thick', at: ['0 mm', '0 mm', '0 mm'] }],
  ports: [{ kind: 'wire-port', name: 'feed', wire: 'rod', at: '0.5', resistance: '73 ohm' }],
  boundaries: { xMin: 'open', xMax: 'open', yMin: 'open', yMax: 'open', zMin: 'open', zMax: 'open' },
  recorders: [{ kind: 'far-field', name: 'pattern', step: '10 deg' }],
  recordAt: ['1.4 GHz'],
  sections: [],
  solve: { solver: 'moment', from: '1 GHz', to: '2 GHz', points: 41, accuracy: 'draft' },
};

beforeAll(async () => {
  s = await startSession(4655);
  const made = await s.page.request.post(`${s.address}/api/projects`, { data: { document: whip } });
  project = ((await made.json()) as { id: string }).id;
});
afterAll(async () => {
  await s.end();
});
const table = () => s.page.getByRole('table', { name: 'Points of the study' });

test('a study is begun, solved, drawn as a map, and its points are gone through in Read', async () => {
  const { page } = s;
  await page.goto(`${s.address}/project/${project}/explore`);
  await page.getByRole('button', { name: 'New study' }).click();
  await page.getByRole('menuitem', { name: /^long/ }).click();
  await s.setChip('long from', '90 mm');
  await s.setChip('long to', '110 mm');
  await page.getByLabel('Points of long').fill('3');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Move another' }).click();
  await page.getByRole('menuitem', { name: /^thick/ }).click();
  await page.getByLabel('Points of thick').fill('2');
  await page.keyboard.press('Enter');
  await page.getByText(/^6 points/).waitFor();
  await page.getByText(/in all; long \d+ mm, thick \d+ um alone/).waitFor();
  await page.getByRole('button', { name: 'Solve all 6' }).click();
  await page.getByText('all solved').waitFor({ timeout: 60_000 });
  await until('all points are read', async () => (await table().getByText(/GHz$/).count()) === 6);
  // The map has a picture of its cells; a click on one picks its point on all cards.
  const map = page.getByRole('region', { name: 'tuned_to over long and thick' });
  await map.locator('image').waitFor();
  const plot = (await map.locator('image').boundingBox())!;
  await page.mouse.click(plot.x + 0.9 * plot.width, plot.y + 0.9 * plot.height);
  const picked = page.getByRole('region', { name: 'Picked point' });
  await picked.getByText('long 110 mm, thick 400 um').waitFor();
  await choose(map.getByRole('combobox', { name: 'Measure of the map' }), 'match');
  await page.getByRole('region', { name: 'match over long and thick' }).waitFor();
  const { text } = await s.downloaded(async () => {
    await page.getByRole('button', { name: 'Export Points' }).click();
    await page.getByRole('menuitem', { name: 'Table (CSV)' }).click();
  });
  expect(text.trim().split('\r\n')).toHaveLength(7);
  // In Read a slider goes over the points.
  await picked.getByRole('link', { name: /^Read run/ }).click();
  const slider = page.getByRole('slider', { name: 'Point by long' });
  expect(await slider.getAttribute('aria-valuetext')).toBe('110 mm');
  const before = page.url();
  await slider.press('ArrowLeft');
  await until('the run is another one', async () => page.url() !== before);
  expect(await slider.getAttribute('aria-valuetext')).toBe('100 mm');
  expect(await page.getByRole('slider', { name: 'Point by thick' }).getAttribute('aria-valuetext')).toBe('400 um');
  await page.getByRole('button', { name: 'Play the points as a film' }).click();
  const there = page.url();
  await until('the film goes on', async () => page.url() !== there);
  await page.getByRole('button', { name: 'Stop the film' }).click();
  // Solve does not list them one by one.
  await s.stage('Solve').click();
  await page.getByText('6 points of').getByRole('link', { name: 'long_study' }).click();
  await page.getByText('all solved').waitFor();
  expect(s.faults).toEqual([]);
}, 120_000);

test('a search finds what is sought, and its values are taken over', async () => {
  const { page } = s;
  await page.goto(`${s.address}/project/${project}/explore`);
  await page.getByRole('button', { name: 'New search' }).click();
  await page.getByRole('menuitem', { name: /^long/ }).click();
  await s.setChip('Value of goal 1', '1.25 GHz');
  await s.setChip('Within of goal 1', '1 MHz');
  await page.getByRole('button', { name: /^(Search|Go on)$/ }).click();
  await page.getByText('over, as all goals are met').waitFor({ timeout: 60_000 });
  const best = page.getByRole('region', { name: 'Best so far' });
  await best.getByText(/tuned_to 1\.2(49|5)\d* GHz/).waitFor();
  await best.getByRole('button', { name: 'Take its values over' }).click();
  await s.saved();
  const kept = (await (await page.request.get(`${s.address}/api/projects/${project}`)).json()) as { document: typeof whip };
  expect(Number.parseFloat(kept.document.parameters[0].expression)).toBeGreaterThan(110);
  expect(s.faults).toEqual([]);
}, 120_000);

test('a length that varies has a yield, a spread and a worst case, and its middle is moved to where most keep the goal', async () => {
  const { page } = s;
  await page.goto(`${s.address}/project/${project}/explore`);
  await page.getByRole('button', { name: 'New study' }).click();
  await page.getByRole('menuitem', { name: /^long/ }).click();
  await choose(page.getByRole('combobox', { name: 'How long moves' }), { label: 'varies, normally about its value' });
  await s.setChip('long by', '1 mm');
  await s.setChip('long shift', '8 mm');
  await page.getByLabel('Points that are spread').fill('8');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Ask for something' }).click();
  await page.getByRole('menuitem', { name: /^tuned_to/ }).click();
  // The last search left it at 1.25 GHz.
  await s.setChip('Value of goal 1', '1.3 GHz');
  await s.setChip('Within of goal 1', '20 MHz');
  await page.getByRole('button', { name: /^Solve/ }).click();
  await page.getByText('all solved').waitFor({ timeout: 60_000 });
  const card = page.getByRole('region', { name: 'Yield and worst case' });
  await card.getByText(/keep the goal/).waitFor();
  expect(
    Number.parseFloat(
      (await card
        .getByText(/^\d+\.\d %$/)
        .first()
        .textContent())!,
    ),
  ).toBeLessThan(10);
  // A length of 1 % makes a frequency of 1 %: within 20 of 1,300 MHz lie 87 in 100.
  const better = Number.parseFloat(
    (await card
      .getByText(/^\d+\.\d %$/)
      .last()
      .textContent())!,
  );
  expect(Math.abs(better - 87)).toBeLessThan(6);
  await page
    .getByRole('region', { name: 'Spread of tuned_to' })
    .getByLabel(/^Plot of Spread of tuned_to/)
    .waitFor();
  await card.getByRole('button', { name: 'Take over' }).click();
  await s.saved();
  await page.getByRole('button', { name: /^Solve/ }).waitFor();
  expect(s.faults).toEqual([]);
}, 120_000);
