/** @jest-environment jsdom */
import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { act, cleanup, render, screen, within } from '@testing-library/react';
import { userEvent } from '@testing-library/user-event';
import { ThemeProvider } from '@mui/material/styles';
import { MemoryRouter, Route, Routes } from 'react-router';
import { SWRConfig } from 'swr';
import { theme } from '../kit/theme.ts';
import { Shelf } from './Shelf.tsx';

interface Asked {
  method: string;
  path: string;
  body: unknown;
}
const project = (n: number, title: string, more: object = {}): object => ({
  id: `00000000-0000-4000-8000-00000000000${n}`,
  title,
  revision: 1,
  updatedAt: `2026-01-0${n}T00:00:00.000Z`,
  runs: 0,
  folder: '',
  ...more,
});

let asked: Asked[];
let shelf: object[];
/** Answers by method and path; a number is a refusal with that status. */
let answers: Record<string, unknown>;
let user: ReturnType<typeof userEvent.setup>;
beforeEach(async () => {
  user = userEvent.setup();
  asked = [];
  answers = {};
  shelf = [project(1, 'Tag'), project(2, 'Horn', { note: 'of brass', folder: 'Gauge' }), project(3, 'Bend'), project(4, 'Reed'), project(5, 'Mast'), project(6, 'Buoy'), project(7, 'Array')]; // prettier-ignore
  globalThis.ResizeObserver = class {
    observe(): void {}
    unobserve(): void {}
    disconnect(): void {}
  };
  globalThis.fetch = (async (address: string, { method = 'GET', body }: RequestInit = {}) => {
    const path = address.replace('/api', '');
    asked.push({ method, path, body: body ? JSON.parse(String(body)) : undefined });
    const answer = answers[`${method} ${path}`] ?? (path === '/projects' && method === 'GET' ? shelf : undefined);
    if (typeof answer === 'number') return { ok: false, status: answer, json: async () => ({ detail: 'A run of this project is under way.' }) };
    return { ok: true, status: 200, json: async () => answer };
  }) as unknown as typeof fetch;
  render(
    <ThemeProvider theme={theme}>
      <SWRConfig value={{ provider: () => new Map() }}>
        <MemoryRouter>
          <Routes>
            <Route path="/" element={<Shelf />} />
            <Route path="/project/:id/shape" element={<p>opened</p>} />
          </Routes>
        </MemoryRouter>
      </SWRConfig>
    </ThemeProvider>,
  );
  await screen.findByRole('link', { name: 'Tag' });
});
afterEach(cleanup);
const titles = (): (string | null)[] => screen.getAllByRole('article').map((a) => within(a).getAllByRole('link')[0].getAttribute('aria-label'));

test('projects stand newest first, folders after; words are sought', async () => {
  expect(titles()).toEqual(['Array', 'Buoy', 'Mast', 'Reed', 'Bend', 'Tag', 'Horn']);
  expect(within(screen.getByRole('region', { name: 'Gauge' })).getByRole('link', { name: 'Horn' })).toBeTruthy();
  await user.type(screen.getByRole('searchbox', { name: 'Search the Shelf' }), 'brass');
  expect(titles()).toEqual(['Horn']);
  await user.type(screen.getByRole('searchbox', { name: 'Search the Shelf' }), ' gold');
  expect(screen.getByText('No project on the Shelf has these words.')).toBeTruthy();
});

test('a project is put into a folder, and what the server refuses is told', async () => {
  await user.click(screen.getByRole('button', { name: 'Folder of Tag' }));
  await user.type(screen.getByRole('textbox', { name: 'Folder of Tag' }), 'Birds{Enter}');
  expect(asked.find((a) => a.method === 'PUT')).toMatchObject({ path: '/projects/00000000-0000-4000-8000-000000000001/folder', body: { folder: 'Birds' } }); // prettier-ignore
  answers['DELETE /projects/00000000-0000-4000-8000-000000000003'] = 409;
  await user.click(screen.getByRole('button', { name: 'Remove Bend' }));
  await user.click(within(screen.getByRole('dialog')).getByRole('button', { name: 'Remove' }));
  expect((await screen.findByText('A run of this project is under way.')).closest('[role="alert"]')).toBeTruthy();
});

test('a file that is no project is told by its name; nothing is sent', async () => {
  const file = new File(['no json'], 'notes.json', { type: 'application/json' });
  await user.upload(screen.getByLabelText('Project file'), file);
  expect(await screen.findByText(/notes\.json is not a Jade Bell project/)).toBeTruthy();
  expect(asked.every((a) => a.method === 'GET')).toBe(true);
});

test('an answer that does not fit is told, where it does not', async () => {
  answers['POST /projects'] = { id: 'no uuid' };
  await user.click(screen.getByRole('button', { name: 'New project' }));
  expect(await screen.findByText(/answer to \/projects does not fit at id/)).toBeTruthy();
  expect(screen.queryByText('opened')).toBeNull();
});

test('the tour is offered until it is taken or declined', async () => {
  await act(async () => user.click(screen.getByRole('button', { name: 'Not now' })));
  expect(screen.queryByRole('button', { name: 'Take the tour' })).toBeNull();
  expect(localStorage.getItem('jadebell.tour')).toBe('seen');
});
