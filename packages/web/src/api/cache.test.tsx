/** @jest-environment jsdom */
import { afterEach, expect, test } from '@jest/globals';
import { act, cleanup, render, screen, waitFor } from '@testing-library/react';
import { StrictMode } from 'react';
import useSWR, { mutate as ofTheLibrary, SWRConfig } from 'swr';
import { BoundedCache, cache } from './boundedCache.ts';
import { CacheAtHand, mutate } from './mutate.ts';
import { readAhead, useKept } from './useKept.ts';

afterEach(cleanup);
const Page = ({ children }: { children: React.ReactNode }) => (
  <StrictMode>
    <SWRConfig value={{ provider: () => cache }}>
      <CacheAtHand />
      {children}
    </SWRConfig>
  </StrictMode>
);

/** A reader whose answers come when they are let go. */
function desk(): { load(key: string): () => Promise<string>; answer(key: string): Promise<void>; asked: string[] } {
  const asked: string[] = [];
  const waiting = new Map<string, (v: string) => void>();
  return {
    asked,
    load: (key) => () => {
      asked.push(key);
      return new Promise((resolve) => waiting.set(key, resolve));
    },
    answer: (key) => act(async () => waiting.get(key)!(`value of ${key}`)),
  };
}
const Card = ({ at, load }: { at: string; load(key: string): () => Promise<string> }) => {
  const { data, of, loading } = useKept(at, load(at));
  return (
    <p>
      {data ?? 'nothing'}, {of ?? 'of nothing'}, {loading ? 'loading' : 'still'}
    </p>
  );
};

test('a card whose key changes keeps the last value, with the key that it is of, and is told of the new one', async () => {
  const { load, answer, asked } = desk();
  const shown = render(<Card at="a" load={load} />, { wrapper: Page });
  screen.getByText('nothing, of nothing, loading');
  await answer('a');
  screen.getByText('value of a, a, still');
  shown.rerender(<Card at="b" load={load} />);
  await waitFor(() => screen.getByText('value of a, a, loading'));
  await answer('b');
  screen.getByText('value of b, b, still');
  // What is there needs no second request, by whoever asks.
  shown.rerender(
    <>
      <Card at="a" load={load} />
      <Card at="b" load={load} />
    </>,
  );
  screen.getByText('value of a, a, still');
  screen.getByText('value of b, b, still');
  expect(asked).toEqual(['a', 'b']);
});

test('a change of key while the last is still on its way ends with the newest, whichever answers first', async () => {
  const { load, answer } = desk();
  const shown = render(<Card at="c" load={load} />, { wrapper: Page });
  shown.rerender(<Card at="d" load={load} />);
  await answer('d');
  screen.getByText('value of d, d, still');
  await answer('c');
  screen.getByText('value of d, d, still');
});

test('what is read ahead is asked for once, and told to cards that ask for it before and after it comes', async () => {
  const { load, answer, asked } = desk();
  render(<p>page</p>, { wrapper: Page });
  act(() => readAhead('e', load('e')));
  act(() => readAhead('e', load('e')));
  const shown = render(<Card at="e" load={load} />, { wrapper: Page });
  await answer('e');
  screen.getByText('value of e, e, still');
  act(() => readAhead('f', load('f')));
  await answer('f');
  shown.rerender(<Card at="f" load={load} />);
  await waitFor(() => screen.getByText('value of f, f, still'));
  expect(asked).toEqual(['e', 'f']);
});

/*
 * Why cards once were not told: with a cache of one's own, the function `mutate` that the library hands out changes a cache that no card reads. Both
 * are shown here; the page uses ours.
 */
test('a change is told to cards through the cache that they read, which the library’s own function does not know', async () => {
  const List = () => <p>{useSWR('list', () => Promise.resolve('first')).data ?? 'nothing'}</p>;
  render(<List />, { wrapper: Page });
  await waitFor(() => screen.getByText('first'));
  await act(async () => void (await ofTheLibrary('list', 'second', { revalidate: false })));
  screen.getByText('first');
  await act(async () => void (await mutate('list', 'third', { revalidate: false })));
  screen.getByText('third');
});

test('the cache lets go what was looked at longest ago when its arrays are heavy, never the newest', () => {
  const own = new BoundedCache(1000);
  const arrays = (bytes: number) => ({ data: { of: 'x', value: new Map([['s', { data: new Uint8Array(bytes) }]]) } });
  own.set('a', arrays(400));
  own.set('note', { data: 'words' });
  own.set('b', arrays(400));
  own.get('a');
  own.set('c', arrays(400));
  expect([...own.keys()].sort()).toEqual(['a', 'c', 'note']);
  own.set('c', arrays(5000));
  expect([...own.keys()].sort()).toEqual(['c', 'note']);
  own.delete('c');
  own.set('d', arrays(900));
  expect([...own.keys()].sort()).toEqual(['d', 'note']);
});

test('keys are gone through once, though what is looked at goes to the end', () => {
  const own = new BoundedCache();
  for (const key of ['a', 'b', 'c']) own.set(key, { data: key } as never);
  const seen: string[] = [];
  for (const key of own.keys()) {
    seen.push(key);
    own.get(key);
    if (seen.length > 10) break;
  }
  expect(seen).toEqual(['a', 'b', 'c']);
});
