import { afterEach, describe, expect, test } from '@jest/globals';
import { fireEvent, screen, waitFor, within } from '@testing-library/dom';
import { readTouchstone } from '@jadebell/core/formats';
import { decibel } from '@jadebell/core/results';
import { closePage, demo, openPage, type Page } from './page.tsx';

let page: Page;
afterEach(closePage);

const card = (name: string): Promise<HTMLElement> => waitFor(() => {
  const found = document.querySelector<HTMLElement>(`.card[aria-label="${name}"]`);
  expect(found).not.toBeNull();
  return found!;
}); // prettier-ignore
const number = (text: string | null | undefined): number => Number(/-?\d+(\.\d+)?/.exec(text ?? '')?.[0]);
/** Opens Read on the boards that suit the run of a demo. */
async function openRead(name: string, board: string): Promise<void> {
  const { boards: _, ...document } = demo(name);
  page = await openPage(document, `read?board=${board}`, name);
}
const type = (label: string, value: string): void => {
  const field = screen.getByLabelText(label, { selector: 'input' });
  fireEvent.change(field, { target: { value } });
  fireEvent.keyDown(field, { key: 'Enter' });
};
const setUp = async (name: string): Promise<void> => page.user.click(within(await card(name)).getByLabelText(`Set up ${name}`));
async function exported(name: string, entry: string): Promise<{ name: string; text: string }> {
  page.files.clear();
  const own = await card(name);
  await page.user.click(within(own).getByLabelText(`Export ${name}`));
  // What is still being read cannot be exported yet.
  await page.user.click(await screen.findByText(entry, { selector: '[role=menuitem]:not([aria-disabled])' }));
  await waitFor(() => expect(page.files.size).toBe(1));
  const [[file, blob]] = [...page.files];
  const text = await new Promise<string>((done) => {
    const reader = new FileReader();
    reader.onload = () => done(String(reader.result));
    reader.readAsText(blob);
  });
  return { name: file, text };
}
/** Rows of a card's markers. */
const markers = async (name: string): Promise<string[][]> =>
  [...(await within(await card(name)).findByLabelText('Markers')).querySelectorAll('tr')].map((r) => [...r.querySelectorAll('td')].map((c) => c.textContent ?? '')); // prettier-ignore
const says = async (name: string, text: RegExp | string): Promise<HTMLElement> => within(await card(name)).findByText(text);

describe('a board of curves', () => {
  test('markers follow a dip and a level and tell their difference; a limit and a bandwidth are judged', async () => {
    await openRead('tag-868', 'Match');
    await setUp('Reflection S11');
    const add = await screen.findByText('Add a marker');
    await page.user.click(add);
    await page.user.click(await screen.findByText('Add a marker'));
    await page.choose('Marker 2 follows', /level/);
    type('Level of marker 2', '-10');
    await page.user.click(screen.getByLabelText('Differences from marker 1'));
    await waitFor(async () => expect((await markers('Reflection S11'))[1]?.[4]).toMatch(/^Δ/));
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
    await page.user.click(screen.getByLabelText('tell where it is'));
    await says('Reflection S11', /below -10\.00 dB/);
    await page.user.click(screen.getByText('Add a limit'));
    type('Limit 1 from', '860 MHz');
    type('Limit 1 to', '880 MHz');
    await says('Reflection S11', /keeps limit 1/);
    type('Level of limit 1 to', '-60');
    await says('Reflection S11', /breaks limit 1/);
  });

  test('a complex reference changes the match on every card at once, without a run, and the file says the same', async () => {
    await openRead('tag-868', 'Match');
    await setUp('Reflection S11');
    await page.user.click(await screen.findByText('Add a marker'));
    const before = number((await markers('Reflection S11'))[0][3]);
    const z = (await exported('Input impedance', 'Curves (CSV)')).text.split('\r\n');
    await page.user.click(screen.getByText(/^Ports/, { selector: 'button' }));
    await screen.findByLabelText('Reference of chip', { selector: 'input' });
    type('Reference of chip', '20+30j');
    fireEvent.keyDown(screen.getByLabelText('Reference of chip', { selector: 'input' }), { key: 'Escape' });
    for (const name of ['Reflection S11', 'Smith chart']) await says(name, /referred to 20\+30j ohm/);
    await waitFor(async () => expect(Math.abs(number((await markers('Reflection S11'))[0][3]) - before)).toBeGreaterThan(0.5));
    const file = readTouchstone((await exported('Reflection S11', 'Touchstone 2.0 (.ts)')).text, null);
    expect(file.references).toEqual([[20, 30]]);
    expect(number((await markers('Reflection S11'))[0][3])).toBeCloseTo(Math.min(...file.s[0][0].map(decibel)), 2);
    // The input impedance is what it was.
    const own = (await exported('Input impedance', 'Curves (CSV)')).text.split('\r\n');
    expect(own).toHaveLength(z.length);
    own.slice(1, -1).forEach((row, i) => expect(Math.abs(Number(row.split(',')[1]) / Number(z[i + 1].split(',')[1]) - 1)).toBeLessThan(1e-9));
    // How it is looked at is the project's.
    expect(page.project().lens?.references).toEqual({ chip: '20+30j' });
  });

  test('two runs are compared, as differences and in a table; measured data stand beside, and formulas of curves', async () => {
    await openRead('tag-868', 'Match');
    await setUp('Reflection S11');
    await page.user.click(within(screen.getByRole('group', { name: 'Runs shown beside it' })).getByText('1'));
    expect((await within(await card('Reflection S11')).findAllByText('run 1 (bend = 30 mm)')).length).toBeGreaterThan(0);
    const curves = async (): Promise<number> => (await card('Reflection S11')).querySelectorAll('.recharts-line-curve').length;
    await waitFor(async () => expect(await curves()).toBe(2));
    await page.user.click(screen.getByLabelText('as differences from the first'));
    await waitFor(async () => expect(await curves()).toBe(1));
    await page.user.click(screen.getByLabelText('as differences from the first'));
    await page.menu('+ Card', /^Table/);
    await page.choose('Table of', /Differences of runs|runs/);
    await says('Differences of runs', '30 mm');
    const measured = (await exported('Reflection S11', 'Touchstone (.s1p)')).text;
    const bring = async (name: string, text: string): Promise<void> => {
      const picker = screen.getByLabelText<HTMLInputElement>('Data to compare with');
      const file = new File([text], name, { type: 'text/plain' });
      file.text = async () => text;
      file.arrayBuffer = async () => new TextEncoder().encode(text).buffer as ArrayBuffer;
      await page.user.upload(picker, file);
    };
    await bring('chamber.s1p', measured);
    await says('chamber', 'chamber S11');
    await bring('notes.csv', 'a,b\nx,1\n');
    await screen.findByText(/notes\.csv: Row 2/);
    // Solved less measured, which is itself here.
    await page.user.click(within(screen.getByRole('group', { name: 'Runs shown beside it' })).getByText('1'));
    await setUp('chamber');
    for (let i = 0; i < 2; i++) await page.user.click(await screen.findByText('Add a curve'));
    await page.choose('Quantity of curve c', 'Formula of curves');
    type('Formula of curve c', 'b - a');
    await page.user.click(screen.getByLabelText('min, max, mean'));
    const line = await says('chamber', /b - a: min/);
    for (const v of line.textContent!.matchAll(/(?:min|max|mean) (-?[\d.e-]+) dB/g)) expect(Math.abs(Number(v[1]))).toBeLessThan(1e-6);
    type('Formula of curve c', 'b - q');
    await says('chamber', /There is no curve q/);
  });

  test('cards are moved and sized by keys, pinned and removed; all is in the project, and undone', async () => {
    await openRead('tag-868', 'Match');
    const place = (): { w: number } => page.project().boards!.find((b) => b.name === 'Match')!.cards.find((c) => c.kind === 'curves' && /phase/i.test(JSON.stringify(c)))!.place; // prettier-ignore
    const head = (await card('Phase of S11')).querySelector('header')!;
    fireEvent.keyDown(head, { key: 'ArrowLeft', shiftKey: true });
    await waitFor(() => expect(page.project().boards).toBeDefined());
    const first = place().w;
    await waitFor(() => expect(screen.getAllByRole('status').map((e) => e.textContent)).toContain('saved'));
    fireEvent.keyDown(head, { key: 'ArrowLeft', shiftKey: true });
    await waitFor(() => expect(place().w).toBe(first - 1));
    const take = async (name: string, entry: string): Promise<void> => {
      await page.user.click(within(await card(name)).getByLabelText(`Export ${name}`));
      await page.user.click(await screen.findByText(entry, { selector: '[role=menuitem]' }));
    };
    await take('Phase of S11', 'Pin to these values');
    await screen.findByLabelText('Phase of S11 is pinned: let it follow the lens');
    await take('Standing wave ratio', 'Remove');
    await waitFor(() => expect(document.querySelector('.card[aria-label="Standing wave ratio"]')).toBeNull());
    await page.menu('Board', 'Back to the boards that suit the run');
    await card('Standing wave ratio');
    fireEvent.keyDown(document.body, { key: 'z', code: 'KeyZ', ctrlKey: true });
    await waitFor(() => expect(document.querySelector('.card[aria-label="Standing wave ratio"]')).toBeNull());
    await page.menu('Board', 'New board');
    await screen.findByRole('tab', { name: 'Board', selected: true });
    await page.menu('+ Card', /^Note/);
    fireEvent.change(await screen.findByLabelText('Text of the note'), { target: { value: 'Bend the arms to 35 mm.' } });
    await waitFor(() => expect(JSON.stringify(page.project().boards)).toContain('Bend the arms to 35 mm.'));
  });
});

describe('Explore', () => {
  test('runs stand side by side, sorted by what is clicked, shown and hidden, copied as a table', async () => {
    page = await openPage(demo('tag-868'), 'explore', 'tag-868');
    const table = await screen.findByLabelText('Runs of the project');
    await within(table).findByText('bend');
    const order = (): string[] => [...table.querySelectorAll('tbody tr')].map((r) => r.querySelector('td')!.textContent!);
    expect(order()).toEqual(['2', '1']);
    await waitFor(() => expect(document.querySelectorAll('.recharts-line-curve')).toHaveLength(2));
    await page.user.click(within(table).getByText('lowest S11 (dB)'));
    const lowest = [...table.querySelectorAll('tbody tr')].map((r) => number([...r.querySelectorAll('td')].at(-5)!.textContent));
    expect(lowest).toEqual(lowest.toSorted((a, b) => a - b));
    await page.user.click(within(table).getByText('run'));
    expect(order()).toEqual(['1', '2']);
    await page.user.click(within(table).getByText('run'));
    await page.user.click(within(table).getByText('run'));
    expect(order()).toEqual(['2', '1']);
    await page.user.click(within(table).getByLabelText('Show run 1'));
    await waitFor(() => expect(document.querySelectorAll('.recharts-line-curve')).toHaveLength(1));
    let copied = '';
    Object.defineProperty(navigator, 'clipboard', { value: { writeText: async (t: string) => void (copied = t) }, configurable: true });
    await page.user.click(screen.getByLabelText('Export Runs'));
    await page.user.click(await screen.findByText('Copy as table', { selector: '[role=menuitem]' }));
    await waitFor(() => expect(copied.split('\n')).toHaveLength(4));
    expect(copied.split('\n')[0].split('\t').slice(0, 6)).toEqual(['run', '★', 'name', 'note', 'accuracy', 'bend']);
  });
});
