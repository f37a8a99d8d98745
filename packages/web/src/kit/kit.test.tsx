/** @jest-environment jsdom */
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { act, cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { userEvent } from '@testing-library/user-event';
import { useState } from 'react';
import { Choice, type Option } from './Choice.tsx';
import { TypedField } from './Field.tsx';
import { Hints } from './Hints.tsx';
import { IconTool } from './IconTool.tsx';
import { Range } from './Range.tsx';
import { Stops } from './Stops.tsx';
import { OneOf, Tick } from './Tick.tsx';
import { Tool } from './Tool.tsx';
import { ToolMenu } from './ToolMenu.tsx';

let user: ReturnType<typeof userEvent.setup>;
let taken: unknown[];
const take = (v: unknown): void => void taken.push(v);
beforeEach(() => {
  user = userEvent.setup();
  taken = [];
});
afterEach(cleanup);

describe('a typed field', () => {
  const even = (t: string): string | null => (Number(t) % 2 ? 'an even number' : null);
  const show = (onDone?: () => void): HTMLInputElement => {
    render(<TypedField label="count" value="4" check={even} onChange={take} onDone={onDone} whole />);
    return screen.getByLabelText('count');
  };

  test('takes its text with Enter and on leaving, but only one that differs', async () => {
    const field = show();
    await user.click(field);
    await user.keyboard('6{Enter}');
    expect(taken).toEqual(['6']);
    expect(document.activeElement).toBe(field);
    await user.clear(field);
    await user.type(field, ' 4 ');
    await user.tab();
    expect(taken).toEqual(['6']);
  });

  test('says why a text is not taken, beside it and to those who cannot see it', async () => {
    const field = show();
    await user.clear(field);
    await user.type(field, '7{Enter}');
    expect(taken).toEqual([]);
    expect(field.getAttribute('aria-invalid')).toBe('true');
    expect(document.getElementById(field.getAttribute('aria-describedby')!)!.textContent).toBe('an even number');
    screen.getByRole('alert');
  });

  test('gives the old text back with Escape; a second Escape is for what it stands in', async () => {
    const outside: string[] = [];
    window.addEventListener('keydown', (e) => outside.push(e.key));
    const field = show();
    await user.clear(field);
    await user.type(field, '8{Escape}');
    expect(field.value).toBe('4');
    expect(outside).not.toContain('Escape');
    await user.keyboard('{Escape}');
    expect(outside).toContain('Escape');
    expect(taken).toEqual([]);
  });

  test('opened in place it is done with Enter and with Escape', async () => {
    const done: string[] = [];
    const field = show(() => done.push('done'));
    await user.clear(field);
    await user.type(field, '8{Enter}');
    expect([taken, done]).toEqual([['8'], ['done']]);
    await user.clear(field);
    await user.type(field, '12{Escape}');
    expect([taken, done]).toEqual([['8'], ['done', 'done']]);
  });
});

test('a choice opens and is made by keyboard, under headings, and shows what it is told to', async () => {
  const options: Option<string | number>[] = [
    { heading: 'Some' },
    { value: 'a', label: 'first' },
    { value: 2, label: 'second' },
    { value: 'c', label: 'third', disabled: true },
  ];
  const Own = () => {
    const [value, set] = useState<string | number>('a');
    return <Choice label="kind" value={value} options={options} onChange={(v) => (take(v), set(v))} />;
  };
  render(<Own />);
  const face = screen.getByRole('combobox', { name: 'kind' });
  expect(face.textContent).toBe('first');
  act(() => face.focus());
  await user.keyboard('{ArrowDown}');
  expect(screen.getAllByRole('option').map((o) => o.textContent)).toEqual(['first', 'second', 'third']);
  expect(screen.getByRole('option', { name: 'third' }).getAttribute('aria-disabled')).toBe('true');
  await user.keyboard('{ArrowDown}{Enter}');
  expect(taken).toEqual([2]);
  expect(screen.getByRole('combobox', { name: 'kind' }).textContent).toBe('second');
  cleanup();
  // A press that comes before the pointer was seen opens it too, and it has the focus when it is closed.
  render(<Own />);
  fireEvent.mouseDown(screen.getByRole('combobox', { name: 'kind' }), { button: 0 });
  await user.keyboard('{Escape}');
  await waitFor(() => expect(screen.queryByRole('listbox')).toBeNull());
  expect(document.activeElement).toBe(screen.getByRole('combobox', { name: 'kind' }));
  cleanup();
  render(<Choice label="kind" value="" options={[{ value: '', label: 'choose' }]} shows="pick one" failing onChange={take} />);
  expect(screen.getByRole('combobox', { name: 'kind' }).textContent).toBe('pick one');
});

test('a range tells its value in words and moves by keys', async () => {
  const Own = () => {
    const [value, set] = useState(2);
    return (
      <Range label="height" min={0} max={5} value={value} told={`${value} mm`} onChange={(v) => (take(v), set(v))} onDone={() => take('done')} />
    );
  };
  render(<Own />);
  const slider = screen.getByRole('slider', { name: 'height' });
  expect(slider.getAttribute('aria-valuetext')).toBe('2 mm');
  fireEvent.keyDown(slider, { key: 'ArrowRight' });
  expect(taken).toEqual([3, 'done']);
  expect(slider.getAttribute('aria-valuetext')).toBe('3 mm');
});

test('a tool keeps its name beside its hint, stays down, and opens a menu', async () => {
  render(
    <>
      <Tool hint="Only what is picked (i)" aria-pressed onClick={() => take('isolate')}>
        Isolate
      </Tool>
      <Tool hint="Nothing to show" disabled>
        Show
      </Tool>
      <ToolMenu
        label="View from"
        face="View"
        items={() => [
          { title: 'top', act: () => take('top') },
          { title: 'left', disabled: true, act: () => take('left') },
        ]}
      />
    </>,
  );
  const tool = screen.getByRole('button', { name: 'Isolate', pressed: true });
  await user.click(tool);
  expect(screen.getByRole('button', { name: 'Show' }).getAttribute('title')).toBe('Nothing to show');
  await user.click(screen.getByRole('button', { name: 'View from' }));
  expect(screen.getByRole('menuitem', { name: 'left' }).getAttribute('aria-disabled')).toBe('true');
  await user.click(screen.getByRole('menuitem', { name: 'top' }));
  expect(taken).toEqual(['isolate', 'top']);
  expect(screen.queryByRole('menu')).toBeNull();
});

test('ticks, stops and one of a few', async () => {
  render(
    <>
      <Tick label="with loss" value={false} onChange={take} />
      <Tick silent label="take part 1" value onChange={take} />
      <Stops
        label="accuracy"
        value="draft"
        options={[
          { value: 'draft', label: 'draft' },
          { value: 'fine', label: 'fine' },
        ]}
        onChange={take}
      />
      <OneOf
        label="format"
        value="stl"
        options={[
          { value: 'stl', label: 'STL' },
          { value: 'glb', label: 'glTF' },
        ]}
        onChange={take}
      />
    </>,
  );
  await user.click(screen.getByLabelText('with loss'));
  await user.click(screen.getByRole('checkbox', { name: 'take part 1' }));
  await user.click(screen.getByRole('button', { name: 'fine', pressed: false }));
  // The one that is chosen stays so.
  await user.click(screen.getByRole('button', { name: 'draft', pressed: true }));
  await user.click(screen.getByRole('radio', { name: 'glTF' }));
  expect(taken).toEqual([true, false, 'fine', 'glb']);
});

test('what is pointed at or reached by key says more of itself, in one note for the page', async () => {
  const page = (hint: string | undefined) => (
    <>
      <Hints />
      <Tool hint={hint}>Isolate</Tool>
      <IconTool label="Remove rod" hint="Remove" icon={<svg />} disabled />
    </>
  );
  const { rerender } = render(page('Shows it alone'));
  const note = () => screen.queryByRole('tooltip')?.textContent ?? null;
  const tool = screen.getByRole('button', { name: 'Isolate' });
  expect(tool.getAttribute('aria-description')).toBe('Shows it alone');
  await user.tab();
  expect(document.activeElement).toBe(tool);
  await waitFor(() => expect(note()).toBe('Shows it alone'));
  rerender(page('Shows all again'));
  await waitFor(() => expect(note()).toBe('Shows all again'));
  await user.keyboard('{Escape}');
  await waitFor(() => expect(note()).toBeNull());
  // Of one that is disabled too; and no longer once it is gone.
  await user.hover(screen.getByRole('button', { name: 'Remove rod' }).parentElement!);
  await waitFor(() => expect(note()).toBe('Remove'));
  rerender(<Hints />);
  await waitFor(() => expect(note()).toBeNull());
});
