/** @jest-environment jsdom */
import { beforeEach, expect, test } from '@jest/globals';
import { act, renderHook } from '@testing-library/react';
import { z } from 'zod';
import { useRemembered } from './remembered.ts';

beforeEach(() => localStorage.clear());

test('a way of looking is there again; what cannot be read is as if nothing were', () => {
  const first = renderHook(() => useRemembered('dense', z.boolean(), false));
  expect(first.result.current[0]).toBe(false);
  act(() => first.result.current[1](true));
  expect(first.result.current[0]).toBe(true);
  expect(renderHook(() => useRemembered('dense', z.boolean(), false)).result.current[0]).toBe(true);
  for (const damaged of ['{', '"yes"', 'null']) {
    localStorage.setItem('jadebell.dense', damaged);
    expect(renderHook(() => useRemembered('dense', z.boolean(), false)).result.current[0]).toBe(false);
  }
});
