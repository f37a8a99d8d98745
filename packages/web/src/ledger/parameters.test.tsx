/** @jest-environment jsdom */
import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { act, cleanup, render, screen, within } from '@testing-library/react';
import { userEvent } from '@testing-library/user-event';
import { emptyProject, type Project } from '@jadebell/core/document';
import { evaluateParameters } from '@jadebell/core/expressions';
import { useModel } from '../project/model.ts';
import { useProject } from '../project/store.ts';
import type { Reply, Request } from '../workers/protocol.ts';
import { LedgerFrame } from './LedgerFrame.ts';
import { Parameters } from './Parameters.tsx';

/** The model's worker, as far as expressions that are being typed ask it. */
class ModelWorker {
  onmessage: ((e: { data: Reply }) => void) | null = null;
  postMessage(request: Request): void {
    if (request.kind !== 'expression') return;
    const good = !request.text.includes('?');
    queueMicrotask(() => this.onmessage?.({ data: { ticket: request.ticket, value: { text: good ? `= ${request.text}` : 'no such thing', good, si: 1 } } as Reply })); // prettier-ignore
  }
}
const parameters = (): Project['parameters'] => useProject.getState().document!.parameters;
/** Tells the page what the parameters come to, as the worker would. */
function evaluate(): void {
  const scope = evaluateParameters(useProject.getState().document!);
  act(() => useModel.setState((s) => ({ view: { ...s.view, summary: scope.summary, problems: scope.problems } })));
}

let user: ReturnType<typeof userEvent.setup>;
beforeEach(() => {
  user = userEvent.setup();
  globalThis.Worker = ModelWorker as unknown as typeof Worker;
  const document: Project = {
    ...emptyProject('t'),
    parameters: [
      { name: 'f0', expression: '868 MHz' },
      { name: 'arm', expression: 'wavelength(f0) / 4', note: 'quarter wave', group: 'wire' },
      { name: 'spare', expression: '3 mm', group: 'wire' },
    ],
    recordAt: ['f0'],
  };
  useProject.setState({ id: 'p', document, past: [], future: [], saved: 'saved' });
  evaluate();
  render(<Parameters />, { wrapper: LedgerFrame });
});
afterEach(cleanup);

test('parameters stand in their groups with what they come to; one that nothing uses is marked', () => {
  expect(screen.getByText('86.346 mm')).toBeTruthy();
  // A number with its unit needs no value beside it.
  expect(screen.queryAllByText('868 MHz')).toHaveLength(1);
  expect(screen.getAllByText('unused')).toHaveLength(2);
  expect(screen.getByRole('button', { name: /wire/, expanded: true })).toBeTruthy();
});

test('a value is edited in place: told as one types, taken with Enter, left with Escape', async () => {
  await user.click(screen.getByRole('button', { name: /^value of spare/ }));
  const field = screen.getByRole('textbox', { name: 'value of spare' });
  await user.clear(field);
  await user.type(field, 'arm / ?');
  expect(await screen.findByText('no such thing')).toBeTruthy();
  await user.keyboard('{Escape}');
  expect(parameters()[2].expression).toBe('3 mm');
  await user.click(screen.getByRole('button', { name: /^value of spare/ }));
  await user.clear(screen.getByRole('textbox', { name: 'value of spare' }));
  await user.type(screen.getByRole('textbox', { name: 'value of spare' }), 'arm / 2{Enter}');
  expect(parameters()[2].expression).toBe('arm / 2');
  evaluate();
  expect(screen.getByText('43.173 mm')).toBeTruthy();
  act(() => useProject.getState().undo());
  expect(parameters()[2].expression).toBe('3 mm');
});

test('what fails is told below its row, in the words of the check', () => {
  act(() => useProject.getState().edit('x', (d) => ({ ...d, parameters: d.parameters.map((p) => (p.name === 'arm' ? { ...p, expression: 'f1 * 2' } : p)) }))); // prettier-ignore
  evaluate();
  expect(screen.getByRole('alert').textContent).toMatch(/There is no parameter named f1\. Did you mean f0\?/);
});

test('a parameter is named anew wherever it is used, put up as a dial around its value, noted, added and removed', async () => {
  const name = screen.getByRole('textbox', { name: 'name of parameter f0' });
  await user.clear(name);
  await user.type(name, 'band{Enter}');
  expect(parameters().map((p) => p.expression)).toContain('wavelength(band) / 4');
  expect(useProject.getState().document!.recordAt).toEqual(['band']);
  evaluate();
  await user.click(screen.getByRole('button', { name: 'Dial for arm' }));
  expect(parameters()[1].dial).toEqual({ min: '43.2 mm', max: '130 mm' });
  await user.click(screen.getByRole('button', { name: 'Dial for arm' }));
  expect(parameters()[1]).not.toHaveProperty('dial');
  await user.type(screen.getByRole('textbox', { name: 'note on spare' }), 'room');
  expect(parameters()[2].note).toBe('room');
  await user.click(screen.getByRole('button', { name: 'Add parameter' }));
  expect(parameters()).toHaveLength(4);
  await user.click(screen.getByRole('button', { name: 'Remove parameter spare' }));
  expect(parameters().map((p) => p.name)).toEqual(['band', 'arm', 'size']);
});

test('as a table all stand at once, with range and group', async () => {
  await user.click(screen.getByRole('button', { name: 'Table' }));
  const table = within(screen.getByRole('table'));
  expect(table.getAllByRole('row')).toHaveLength(4);
  expect(table.getByText('86.346 mm')).toBeTruthy();
});
