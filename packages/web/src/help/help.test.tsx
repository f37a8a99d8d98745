/** @jest-environment jsdom */
import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { act, cleanup, render, screen } from '@testing-library/react';
import { userEvent } from '@testing-library/user-event';
import { projectSchema } from '@jadebell/core/document';
import { example, stops, useTour } from './tour.ts';
import { TourCard } from './TourCard.tsx';

let went: string[];
beforeEach(() => {
  localStorage.clear();
  went = [];
  useTour.setState({ at: null, seen: false });
});
afterEach(cleanup);

test('the tour goes from stage to stage, can be left, and is offered once', async () => {
  const user = userEvent.setup();
  render(<TourCard stage="shape" goTo={(s) => went.push(s)} />);
  expect(screen.queryByRole('dialog')).toBeNull();
  act(() => useTour.getState().start());
  await screen.findByRole('dialog', { name: 'Tour: Five stages' });
  expect(screen.queryByRole('button', { name: 'Back' })).toBeNull();
  for (let i = 1; i < stops.length; i++) await user.click(screen.getByRole('button', { name: 'Next' }));
  expect(went.at(-1)).toBe('explore');
  await user.click(screen.getByRole('button', { name: 'Back' }));
  await user.click(screen.getByRole('button', { name: 'Next' }));
  await user.click(screen.getByRole('button', { name: 'Done' }));
  expect(screen.queryByRole('dialog')).toBeNull();
  expect(useTour.getState()).toMatchObject({ at: null, seen: true });
  act(() => useTour.getState().start());
  await user.click(await screen.findByRole('button', { name: 'Leave' }));
  expect(localStorage.getItem('jadebell.tour')).toBe('seen');
});

test('its example is a project, and one for the solver that takes seconds', () => {
  const project = example();
  expect(projectSchema.safeParse(project).error).toBeUndefined();
  expect(project).toMatchObject({ title: 'First antenna', solve: { solver: 'moment', accuracy: 'draft' } });
});
