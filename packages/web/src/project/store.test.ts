import { beforeEach, describe, expect, jest, test } from '@jest/globals';
import { emptyProject, type Project } from '@jadebell/core/document';

/** Answers of the server, by request; records what was sent. */
const sent: { path: string; body: { revision: number; document: Project } }[] = [];
let answer: (path: string, method: string) => Response = () => new Response('{}');
Object.assign(globalThis, {
  window: { addEventListener: () => undefined },
  fetch: (path: string, options?: { method?: string; body?: string }): Promise<Response> => {
    if (options?.body) sent.push({ path, body: JSON.parse(options.body) });
    return Promise.resolve(answer(path, options?.method ?? 'GET'));
  },
});
const { useProject } = await import('./store.ts');
const id = '11111111-1111-4111-8111-111111111111';
const json = (value: unknown, status = 200): Response => new Response(JSON.stringify(value), { status });
const title = (t: string) => (d: Project) => ({ ...d, title: t });
const state = () => useProject.getState();

beforeEach(async () => {
  jest.useRealTimers();
  sent.length = 0;
  let revision = 1;
  answer = (_, method) =>
    method === 'PUT'
      ? json({ revision: ++revision })
      : json({ id, revision: 1, updatedAt: '2026-01-01T00:00:00.000Z', document: emptyProject('first') });
  await state().load(id);
});

describe('the open project', () => {
  test('edits are undone and redone one by one; quick ones of a kind count as one', () => {
    state().edit('title', title('a'));
    state().edit('title', title('ab'));
    state().edit('note', (d) => ({ ...d, note: 'n' }));
    expect(state().past).toHaveLength(2);
    state().undo();
    expect(state().document).toMatchObject({ title: 'ab' });
    expect(state().document!.note).toBeUndefined();
    state().undo();
    expect(state().document!.title).toBe('first');
    state().undo();
    expect(state().document!.title).toBe('first');
    state().redo();
    state().redo();
    expect(state().document).toMatchObject({ title: 'ab', note: 'n' });
    state().undo();
    state().edit('title', title('new branch'));
    expect(state().future).toEqual([]);
  });

  test('a change that changes nothing is no step', () => {
    state().edit('nothing', (d) => d);
    expect(state().past).toEqual([]);
    expect(state().saved).toBe('saved');
  });

  test('edits save by themselves with the revision that the last save brought', async () => {
    state().edit('title', title('one'));
    expect(state().saved).toBe('unsaved');
    await state().saveNow();
    expect(state().saved).toBe('saved');
    state().edit('title', title('two'));
    await state().saveNow();
    expect(sent.map((s) => [s.body.revision, s.body.document.title])).toEqual([[1, 'one'], [2, 'two']]); // prettier-ignore
  });

  test('an edit made while a save is under way is saved after it', async () => {
    state().edit('title', title('one'));
    const first = state().saveNow();
    state().edit('title', title('two'));
    await Promise.all([first, state().saveNow()]);
    expect(sent.map((s) => s.body.document.title)).toEqual(['one', 'two']);
    expect(state()).toMatchObject({ saved: 'saved', revision: 3 });
  });

  test('a refused save says so and keeps the edit', async () => {
    answer = () => json({ detail: 'The project was changed in another window.' }, 409);
    state().edit('title', title('mine'));
    await state().saveNow();
    expect(state()).toMatchObject({ saved: 'failed', fault: 'The project was changed in another window.' });
    expect(state().document!.title).toBe('mine');
  });
});
