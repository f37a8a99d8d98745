import { readFileSync } from 'node:fs';
import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { fireEvent, screen, waitFor, within } from '@testing-library/dom';
import { emptyProject } from '@jadebell/core/document';
import { readFileFor } from '@jadebell/core/formats/import';
import { closed, closePage, openPage, type Page } from './page.tsx';

let page: Page;
beforeEach(async () => {
  page = await openPage({ ...emptyProject('Imports'), parameters: [{ name: 'h', expression: '3 mm' }] }, 'shape');
});
afterEach(closePage);

/** A file as the page's own kind of one has it. */
const fileOf = (name: string, bytes: Uint8Array): File => {
  const file = new File([bytes as BlobPart], name);
  file.arrayBuffer = async () => bytes.slice().buffer as ArrayBuffer;
  return file;
};
async function bring(name: string, bytes: Uint8Array): Promise<void> {
  await closed('[role=dialog]');
  await page.menu('Exchange', /Import a file/);
  fireEvent.change(await screen.findByLabelText('File to import'), { target: { files: [fileOf(name, bytes)] } });
}
const button = (text: RegExp | string): HTMLButtonElement => screen.getByText(text, { selector: 'button' }) as HTMLButtonElement;
const text = (t: string): Uint8Array => new TextEncoder().encode(t);

test('a mesh and a drawing are imported with what is asked of them, and the model is written out again', async () => {
  await bring('buoy-hull.stl', readFileSync(new URL('../../../demo/parts/buoy-hull.stl', import.meta.url)));
  await screen.findByText('the file does not say; check the sizes below');
  expect(button(/^Import/).disabled).toBe(true);
  await page.choose('Unit of the file', 'mm');
  await screen.findByText('600 mm × 600 mm × 670 mm');
  await waitFor(() => expect(button('Import 1').disabled).toBe(false));
  // A form with nothing taken cannot be sent.
  await page.user.click(screen.getByLabelText(/^Take /));
  await waitFor(() => expect(button(/^Import/).disabled).toBe(true));
  await page.user.click(screen.getByLabelText(/^Take /));
  await page.choose(/^Material of /, 'PTFE');
  await page.user.click(button('Import 1'));
  await waitFor(() => expect(page.project().lines).toMatchObject([{ kind: 'import', material: 'PTFE', scale: '1' }]));
  const circle = (r: number): string[] => ['0', 'CIRCLE', '8', 'lid', '10', '0', '20', '0', '40', String(r)];
  await bring('lid.dxf', text(['0', 'SECTION', '2', 'ENTITIES', ...circle(50), ...circle(20), '0', 'ENDSEC', '0', 'EOF', ''].join('\n')));
  await screen.findByText(/2 closed outlines, 1 hole/);
  await page.choose('Unit of the file', 'mm');
  const thickness = screen.getByLabelText('Thickness of lid');
  fireEvent.change(thickness, { target: { value: '3 GHz' } });
  await screen.findByText(/is a frequency, but a length is needed here/);
  expect(button(/^Import/).disabled).toBe(true);
  fireEvent.change(thickness, { target: { value: 'h' } });
  await waitFor(() => expect(button('Import 1').disabled).toBe(false));
  await page.user.click(button('Import 1'));
  await page.line('lid');
  expect(page.project().lines[1]).toMatchObject({ kind: 'drawing', name: 'lid', thickness: 'h' });
  await bring('broken.stl', text('solid nothing at all'));
  await screen.findByText(/holds no triangles/);
  await page.user.click(button('Cancel'));
  await closed('[role=dialog]');
  await page.menu('Exchange', /Export the model/);
  await page.user.click(await screen.findByText('Write file'));
  await waitFor(() => expect([...page.files.keys()]).toEqual(['imports.stl']));
  const bytes = await new Promise<ArrayBuffer>((done) => {
    const reader = new FileReader();
    reader.onload = () => done(reader.result as ArrayBuffer);
    reader.readAsArrayBuffer(page.files.get('imports.stl')!);
  });
  expect((await readFileFor('imports.stl', new Uint8Array(bytes))).meshes[0].mesh.triangles.length).toBeGreaterThan(3000);
});

test('a design takes its figures and opens; calculator and library give to the project', async () => {
  await page.user.click(await screen.findByText('Start from a design'));
  await page.user.click(await screen.findByText('Microstrip line', { selector: '[role=dialog] *' }));
  fireEvent.change(await screen.findByLabelText('frequency'), { target: { value: '2 mm' } });
  await screen.findByText(/is a length/);
  fireEvent.change(screen.getByLabelText('frequency'), { target: { value: '24 GHz' } });
  await page.choose('board', 'Alumina');
  await page.user.click(screen.getByText('Start', { selector: 'button' }));
  await page.line('strip');
  expect(page.project().title).toBe('Imports');
  await closed('[role=dialog]');
  await page.user.click(screen.getByText('Calculator', { selector: 'button' }));
  await page.user.click(await screen.findByText('Skin depth'));
  await screen.findByText(/^66\d\.?\d* nm$/);
  await page.user.click(screen.getByText('Use as a parameter'));
  await screen.findByLabelText(/^value of skin_depth2?: /);
  if (document.querySelector('[role=dialog]')) fireEvent.keyDown(document.querySelector('[role=dialog]')!, { key: 'Escape' });
  await closed('[role=dialog]');
  await page.user.click(screen.getByText('Library', { selector: 'button' }));
  fireEvent.change(await screen.findByLabelText('Find a material'), { target: { value: 'nitride' } });
  await page.user.click(await screen.findByText('Silicon nitride (optical)'));
  await screen.findByText(/Opt. Lett. 40, 4823/);
  await page.user.click(screen.getByText('Copy into the project'));
  await page.user.click(screen.getByText('Keep in my library'));
  fireEvent.keyDown(document.querySelector('[role=dialog]')!, { key: 'Escape' });
  await within(await screen.findByLabelText('Materials')).findByText('unused');
});
