import { afterEach, describe, expect, test } from '@jest/globals';
import { fireEvent, screen, waitFor, within } from '@testing-library/dom';
import { emptyProject } from '@jadebell/core/document';
import { formulas } from '@jadebell/core/formulas';
import { closePage, demo, openPage, type Page } from './page.tsx';

let page: Page;
afterEach(closePage);

/** What stands at a stage in the course: its dot, or what is to be mended. */
const stageTold = (name: string): string =>
  screen.getByRole('navigation', { name: 'Course' }).querySelector(`a[href*="/${name}"]`)!.textContent ?? '';
const isGood = (stage: string): Promise<void> => waitFor(() => expect(stageTold(stage)).toContain('●'));
const chipText = (label: string): string => screen.getByLabelText(new RegExp(`^${label}: `)).textContent ?? '';

describe('Shape', () => {
  test('a changed parameter moves the model, undo and redo bring it back, and what is wrong is told at its place', async () => {
    page = await openPage(demo('tag-868'), 'shape');
    await screen.findByText('48 mm');
    await page.setChip('value of span', '104 mm');
    await screen.findByText('51 mm');
    fireEvent.keyDown(document.body, { key: 'z', code: 'KeyZ', ctrlKey: true });
    await screen.findByText('48 mm');
    fireEvent.keyDown(document.body, { key: 'z', code: 'KeyZ', ctrlKey: true, shiftKey: true });
    await screen.findByText('51 mm');
    fireEvent.change(screen.getByLabelText('dial bend'), { target: { value: '0.03' } });
    await waitFor(() => expect(chipText('value of bend')).toBe('30 mm'));
    // While one types it is told what it would come to; Escape leaves all as it was.
    await page.user.click(screen.getByLabelText(/^value of w: /));
    fireEvent.change(screen.getByLabelText('value of w', { selector: 'input' }), { target: { value: '3 MHz + gap' } });
    await screen.findByText(/a frequency and a length cannot be added/);
    await page.user.keyboard('{Escape}');
    expect(chipText('value of w')).toBe('3 mm');
    await page.setChip('value of w', 'span_h');
    await screen.findAllByText(/There is no parameter named span_h/);
    expect(stageTold('shape')).toMatch(/to fix/);
    await page.setChip('value of w', '3 mm');
    await isGood('shape');
    await waitFor(() => expect(screen.getAllByRole('status').map((e) => e.textContent)).toContain('saved'));
  });

  test('a pasted table makes lines, which change together, are found, filtered, folded, and undone', async () => {
    page = await openPage(emptyProject('Stubs'), 'shape');
    await page.menu('Exchange', /Paste a table/);
    fireEvent.change(await screen.findByLabelText('Table'), { target: { value: 'name\textent along x\tposition x\nstub1\t3\t0\nstub2\t4\t10\nstub3\t5 mm\t20' } }); // prettier-ignore
    await page.user.click(await screen.findByText('Make 3 lines'));
    await isGood('shape');
    fireEvent.click(await page.line('stub1'));
    fireEvent.click(await page.line('stub3'), { shiftKey: true });
    await screen.findByText('3 lines chosen');
    await page.choose('material of all', 'PTFE');
    await page.setChip('extent along y of all', '2 mm');
    for (const n of [1, 2, 3]) await within(await page.line(`stub${n}`)).findByText('2 mm');
    expect(page.project().lines.map((l) => 'material' in l && l.material)).toEqual(['PTFE', 'PTFE', 'PTFE']);
    await page.user.click(within(screen.getByLabelText('Chosen lines')).getByText('Duplicate'));
    await page.line('stub6');
    fireEvent.keyDown(document.body, { key: 'z', code: 'KeyZ', ctrlKey: true });
    await waitFor(() => expect(document.querySelector('#entry-stub6')).toBeNull());
    fireEvent.change(screen.getByLabelText('Find lines'), { target: { value: 'stub2' } });
    await waitFor(() => expect(document.querySelector('#entry-stub1')).toBeNull());
    fireEvent.change(screen.getByLabelText('Find lines'), { target: { value: '' } });
    await page.user.click(screen.getByText('Add section'));
    const head = await screen.findByLabelText('title of section');
    fireEvent.change(head, { target: { value: 'Later parts' } });
    fireEvent.keyDown(head, { key: 'Enter' });
    await page.menu('+ Solids', /^Sphere/);
    await page.line('sphere');
    await page.user.click(screen.getByLabelText('Fold Later parts'));
    await waitFor(() => expect(document.querySelector('#entry-sphere')).toBeNull());
    await page.user.click(screen.getByText('Dense'));
    expect((await page.line('stub2')).textContent).toMatch(/stub2.*PTFE/);
    expect(within(await page.line('stub2')).queryByLabelText(/^extent along y: /)).toBeNull();
  });

  test('a patch is built from an empty project; its line follows the board', async () => {
    page = await openPage(emptyProject('Reed wall patch'), 'shape');
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
    await page.user.click(within(screen.getByLabelText('Parameters')).getByText('Paste'));
    fireEvent.change(await screen.findByLabelText('Table of parameters'), { target: { value: table } });
    await page.user.click(await screen.findByText('Take 9'));
    const rename = async (line: string, to: string): Promise<HTMLElement> => {
      fireEvent.keyDown(within(await page.line(line)).getByLabelText(new RegExp(`^name ${line},`)), { key: 'Enter' });
      const field = await screen.findByLabelText('name');
      fireEvent.change(field, { target: { value: to } });
      fireEvent.keyDown(field, { key: 'Enter' });
      return page.line(to);
    };
    const fill = async (line: HTMLElement, values: Record<string, string>): Promise<void> => {
      for (const [label, value] of Object.entries(values)) await page.setChip(label, value, line);
    };
    await page.menu('+ Solids', /^Box/);
    const board = await rename('box', 'substrate');
    await fill(board, { 'extent along x': 'side', 'extent along y': 'side', 'extent along z': 'h' });
    await page.choose('anchor', 'standing on', await page.line('substrate'));
    await page.choose('material', 'Low-loss laminate', await page.line('substrate'));
    // The sheets hang on the substrate by reference, not by number.
    await page.menu('+ From other lines', /^Copy a face/);
    await rename('copy_face', 'ground');
    await page.choose('face', /substrate.zmin/, await page.line('ground'));
    const sheet = async (name: string, a: string, b: string, x: string): Promise<void> => {
      await page.menu('+ Flat', /^Rectangle/);
      const line = await rename('rectangle', name);
      await fill(line, { 'extent along x': a, 'extent along y': b, 'position x': x, 'position z': 'substrate.max.z' });
    };
    await sheet('full', 'l', 'w', '0 mm');
    await sheet('notch', 'inset', '2 * w50', '(inset - l) / 2');
    /** Takes all out of a list of references, and puts others in. */
    const refill = async (line: string, label: string, names: string[]): Promise<void> => {
      for (const out of within(await page.line(line)).queryAllByLabelText(new RegExp(`^Take .* out of ${label}`))) await page.user.click(out);
      for (const name of names) await page.choose(`Add to ${label}`, name, await page.line(line));
    };
    await page.menu('+ Combine', /^Cut/);
    await page.choose('body', 'full', await page.line('cut'));
    await refill('cut', 'tools', ['notch']);
    await sheet('line', 'side / 2 - l / 2 + inset', 'w50', 'substrate.min.x / 2 - l / 4 + inset / 2');
    await page.menu('+ Combine', /^Join/);
    await rename('join', 'patch');
    await refill('patch', 'bodies', ['cut', 'line']);
    await isGood('shape');
    fireEvent.keyDown(document.body, { key: '2', code: 'Digit2' });
    await page.menu(/^Add port/, /^along a path/);
    for (const [label, value] of Object.entries({ 'from x': 'patch.min.x', 'to x': 'patch.min.x', 'to z': 'h', width: 'w50' })) await page.setChip(label, value); // prettier-ignore
    fireEvent.keyDown(document.body, { key: '3', code: 'Digit3' });
    await page.setChip('lowest frequency', '8.5 GHz');
    await page.setChip('highest frequency', '10.5 GHz');
    fireEvent.keyDown(document.body, { key: '2', code: 'Digit2' });
    await page.setChip('recorded frequency 1', 'f0');
    await isGood('feed');
    await isGood('solve');
    // A thicker board: the line grows with it, and everything still hangs together.
    fireEvent.keyDown(document.body, { key: '1', code: 'Digit1' });
    const told = async (): Promise<number> => {
      const name = await screen.findByLabelText('name of parameter w50');
      return parseFloat(name.closest('.parameter')!.querySelector('span.mono')!.textContent!);
    };
    const before = await told();
    await page.setChip('value of h', '1.6 mm');
    await waitFor(async () => expect(await told()).not.toBe(before));
    const width = formulas.find((f) => f.name === 'microstrip_width')!;
    const ratio = width.compute([50, 3.5, 1.6e-3, 9.6e9]).si / width.compute([50, 3.5, 0.8e-3, 9.6e9]).si;
    expect((await told()) / before).toBeCloseTo(ratio, 3);
    await isGood('shape');
  }, 120_000);
});

describe('Feed', () => {
  test('the metal of a line is told to be lossy, of a thickness, or perfect', async () => {
    page = await openPage(demo('gauge-feed-bend'), 'shape');
    const metal = await page.line('metal');
    fireEvent.click(metal);
    await page.choose('thickness of the metal known', /given|of/, metal);
    await page.setChip('thickness of the metal', '0 um', metal);
    await within(metal).findByRole('alert');
    await page.setChip('thickness of the metal', '5 um', metal);
    await waitFor(() => expect(within(metal).queryByRole('alert')).toBeNull());
    await page.choose('conductor', 'without loss', metal);
    await waitFor(() => expect(within(metal).queryByLabelText('thickness of the metal known')).toBeNull());
    // The choice stays to be read when the line is no longer picked.
    fireEvent.click(await page.line('way'));
    expect(within(metal).getByLabelText('conductor').textContent).toBe('without loss');
  });

  test('a port is put on a face, power through a rectangle is recorded; their faults are told', async () => {
    page = await openPage(demo('gauge-feed-bend'), 'feed');
    const old = await page.line('up');
    await page.user.hover(old);
    await page.user.click(within(old).getByLabelText('Remove up'));
    await page.menu(/^Add port/, 'guided, on a face of a body');
    const port = await page.line('port1');
    await within(port).findByText('The port has no face yet.', { exact: false });
    await page.choose('face', /air\.air_shape\.side3/, port);
    await waitFor(() => expect(within(port).queryByRole('alert')).toBeNull());
    await page.setChip('modes', '0', port);
    await within(port).findByRole('alert');
    await page.setChip('modes', '1', port);
    await waitFor(() => expect(within(port).queryByRole('alert')).toBeNull());
    const excited = within(screen.getByRole('group', { name: 'Excited ports' })).getByText('port1');
    await page.user.click(excited);
    expect(excited.closest('[aria-pressed]')!.getAttribute('aria-pressed')).toBe('false');
    await page.menu(/^Add recorder/, 'power through a rectangle');
    const power = await page.line('power');
    await page.choose('normal', 'x =', power);
    await page.setChip('position', '90 mm', power);
    await within(power).findByText(/The rectangle lies outside the computed region\./);
    await page.setChip('position', '-8 mm', power);
    await page.setChip('from z', '-20 mm', power);
    await page.setChip('to y', '20 mm', power);
    await waitFor(() => expect(within(power).queryByRole('alert')).toBeNull());
    // A frequency came along, as there was none.
    await screen.findByLabelText(/^recorded frequency 1: /);
  });
});
