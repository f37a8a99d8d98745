/** @jest-environment jsdom */
import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { act, cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { userEvent } from '@testing-library/user-event';
import type { ReactElement } from 'react';
import { Lines } from '../Lines.tsx';
import { PolarCut } from '../PolarCut.tsx';
import { drawnOf, layAxes } from './layout.ts';
import type { PlotTrace } from './parts.ts';
import { Plot } from './Plot.tsx';

const box = { width: 600, height: 300 };

let watchers: (() => void)[];
beforeEach(() => {
  watchers = [];
  globalThis.PointerEvent ??= MouseEvent as unknown as typeof PointerEvent;
  globalThis.ResizeObserver = class {
    constructor(private readonly tell: ResizeObserverCallback) {}
    observe(): void {
      watchers.push(() => this.tell([{ contentRect: box }] as unknown as ResizeObserverEntry[], this));
    }
    unobserve(): void {}
    disconnect(): void {}
  };
});
afterEach(cleanup);

/** Draws; a page without layout tells no sizes, so every chart is told that it is as large as `box`. */
function draw(what: ReactElement): HTMLElement {
  const { container } = render(what);
  act(() => watchers.forEach((tell) => tell()));
  return container;
}
const trace = (name: string, y: (x: number) => number, count = 101, axis: 'left' | 'right' = 'left'): PlotTrace => {
  const x = Float64Array.from({ length: count }, (_, i) => 1e9 + (i * 1e9) / (count - 1));
  return { name, color: '#123456', x, y: x.map(y), axis };
};
const gigahertz = { label: 'frequency (GHz)', size: 1e9 };
const plain = { label: 'S (dB)', size: 1 };
const tell = (_: PlotTrace, __: number, y: number): string => y.toFixed(2);
const tellX = (x: number): string => `${x / 1e9} GHz`;
const chart = (traces: PlotTrace[], more: Partial<Parameters<typeof Plot>[0]> = {}): HTMLElement =>
  draw(<Plot label="match" x={gigahertz} left={plain} right={plain} traces={traces} tell={tell} tellX={tellX} {...more} />);
const curves = (of: HTMLElement): string[] => [...of.querySelectorAll('.recharts-line-curve')].map((p) => p.getAttribute('d')!);
/** Corners of a drawn line. */
const corners = (d: string): [number, number][] => [...d.matchAll(/[ML]([-\d.e]+),([-\d.e]+)/g)].map((m) => [Number(m[1]), Number(m[2])]);

test('a line runs from end to end, its ticks are round, its names switch it off', async () => {
  const of = chart([trace('S11', (x) => -x / 1e8), trace('S21', () => -5)]);
  const [first] = curves(of).map(corners);
  expect(first).toHaveLength(101);
  expect(first.every(([x], i) => i === 0 || x > first[i - 1][0])).toBe(true);
  expect(first.at(-1)![1]).toBeGreaterThan(first[0][1]);
  expect([...of.querySelectorAll('.recharts-cartesian-axis-tick-value')].map((t) => t.textContent)).toEqual(
    expect.arrayContaining(['1.0', '2.0', '-20.0', '-10.0']),
  );
  expect(screen.getByRole('application').getAttribute('aria-label')).toBe('Plot of match: S11, S21, from 1 GHz to 2 GHz');
  await userEvent.click(screen.getByRole('button', { name: 'S11' }));
  expect(curves(of)).toHaveLength(1);
  await userEvent.click(screen.getByRole('button', { name: 'S11' }));
  expect(curves(of)).toHaveLength(2);
});

test('of 100,000 samples a few a column are drawn and the one that peaks is among them', () => {
  const sharp = trace('sharp', (x) => (Math.abs(x - 1.5e9) < 6e3 ? 40 : 0), 100_001);
  const laid = layAxes([sharp], { x: gigahertz, left: plain }, box);
  const drawn = drawnOf(sharp, laid.x, laid.left, 600, false);
  expect(drawn.length).toBeLessThan(2500);
  expect(drawn.some((p) => p.y === 40)).toBe(true);
});

test('a phase that turns over and what no logarithm has break the line; far values are held', () => {
  const phase = trace('phase', (x) => ((x / 1e6) % 360) - 180);
  const laid = layAxes([phase], { x: gigahertz, left: { ...plain, angles: true } }, box);
  const breaks = (turns: boolean): number => drawnOf(phase, laid.x, laid.left, 600, turns).filter((p) => p.y === null).length;
  expect([breaks(true), breaks(false)]).toEqual([3, 0]);
  const powers = trace('power', (x) => (x < 1.5e9 ? -1 : x));
  const log = layAxes([powers], { x: gigahertz, left: { ...plain, log: true } }, box);
  expect(drawnOf(powers, log.x, log.left, 600, false).filter((p) => p.y === null)).toHaveLength(50);
  const wild = trace('wild', (x) => (x === 1e9 ? 1e30 : 0.5));
  const near = layAxes([wild], { x: gigahertz, left: { ...plain, min: 0, max: 1 } }, box);
  expect(drawnOf(wild, near.x, near.left, 600, false)[0].y).toBe(21);
});

test('a stretch of x is shown with the values of that stretch, a second axis has its own', () => {
  const two = [trace('a', (x) => x), trace('b', () => 1e-12, 11, 'right')];
  const laid = layAxes(two, { x: { ...gigahertz, min: 1e9, max: 1.2e9 }, left: plain, right: plain }, box);
  expect(laid.left.max).toBeCloseTo(1.2e9, -3);
  expect(laid.right!.min).toBeLessThan(1e-12);
  expect(layAxes([two[0]], { x: gigahertz, left: plain, right: plain }, box).right).toBeNull();
});

test('keys read sample by sample and set a marker; the pointer reads, draws out a stretch and picks', async () => {
  const user = userEvent.setup();
  const done: unknown[] = [];
  const of = chart([trace('S11', (x) => -x / 1e8)], { onPick: (t, x) => done.push([t.name, x]), onZoom: (r) => done.push(r) });
  screen.getByRole('application').focus();
  await user.keyboard('{ArrowRight}');
  expect(screen.getByRole('status').textContent).toContain('1.5 GHz');
  await user.keyboard('{ArrowRight}{Enter}{Home}');
  expect(screen.getByRole('status').textContent).toContain('-15.10');
  expect(done).toEqual([['S11', 1.51e9], null]);
  await user.keyboard('{Escape}');
  expect(screen.queryByRole('status')).toBeNull();

  const area = of.querySelector('rect[fill="transparent"]')!;
  Object.assign(area, { setPointerCapture: () => {} });
  const width = Number(area.getAttribute('width'));
  const at = (t: number) => ({ clientX: t * width, clientY: 10, button: 0, pointerId: 1 });
  done.length = 0;
  fireEvent.pointerMove(area, at(0.25));
  expect(screen.getByRole('status').textContent).toContain('1.25 GHz');
  fireEvent.pointerDown(area, at(0.25));
  fireEvent.pointerMove(area, at(0.75));
  fireEvent.pointerUp(area, at(0.75));
  const [range] = done as { min: number; max: number }[];
  expect(range.min).toBeCloseTo(1.25e9, -3);
  expect(range.max).toBeCloseTo(1.75e9, -3);
  fireEvent.pointerDown(area, at(0.5));
  fireEvent.pointerUp(area, at(0.5));
  expect(done[1]).toEqual(['S11', 1.5e9]);
});

test('markers, limits, bands and levels stand where their values are; a marker goes with its trace', async () => {
  const s = trace('S11', (x) => -x / 1e8);
  const of = chart([s, trace('S21', () => -15)], {
    marks: [
      { x: 1.5e9, y: -15, axis: 'left', color: 'red', label: '7', kind: 'marker', on: s },
      { x: 9e9, y: -15, axis: 'left', color: 'red', label: 'out of sight', kind: 'note' },
    ],
    limits: [{ from: { x: 1e9, y: -12 }, to: { x: 2e9, y: -12 }, side: 'below', ok: false }],
    bands: [{ from: 1.2e9, to: 1.4e9 }],
    levels: [-10],
  });
  expect(screen.queryByText('out of sight')).toBeNull();
  expect(of.querySelectorAll('.recharts-reference-area, .recharts-reference-line')).toHaveLength(2);
  const limit = of.querySelector('g[stroke="var(--brick)"] line')!;
  const [x1, x2] = ['x1', 'x2'].map((n) => Number(limit.getAttribute(n)));
  const [line] = curves(of).map(corners);
  expect(x2 - x1).toBeCloseTo(line.at(-1)![0] - line[0][0], 3);
  await userEvent.click(screen.getByRole('button', { name: 'S11' }));
  expect(screen.queryByText('7')).toBeNull();
});

test('lines in SI are told in the unit that suits them, in the order of x, with a line where they are read', async () => {
  const of = draw(<Lines x={{ label: 'wavelength', unit: 'length', values: [2e-6, 1.5e-6, 1e-6] }} y={{ label: 'index' }} traces={[{ name: 'n', color: 'red', values: [1, 2, 3] }]} cursor={1.5e-6} />); // prettier-ignore
  expect(screen.getByText('wavelength (um)')).toBeTruthy();
  const [line] = curves(of).map(corners);
  expect(line[0][1]).toBeLessThan(line[2][1]);
  expect(of.querySelectorAll('.recharts-line-dot')).toHaveLength(3);
  await waitFor(() => expect(Number(of.querySelector('.plot-cursor')!.getAttribute('x1'))).toBeCloseTo(line[1][0], 6));
});

test('a polar cut has its peak at its angle, clockwise from the top, and what is below the floor in the middle', () => {
  const values = Array.from({ length: 360 }, (_, i) => (i === 90 ? 10 : -100));
  const of = draw(<PolarCut label="gain" cuts={[{ name: 'gain', color: 'red', dash: '', values }]} top={10} span={40} />);
  const points = corners(of.querySelector('.recharts-radar-polygon path')!.getAttribute('d')!);
  const xs = points.map(([x]) => x);
  expect(Math.max(...xs)).toBe(points[90][0]);
  const middle = points[0];
  expect(points[90][1]).toBeCloseTo(middle[1], 6);
  expect(new Set(points.filter((_, i) => i !== 90).map(([x, y]) => `${x.toFixed(3)} ${y.toFixed(3)}`)).size).toBe(1);
  expect(screen.getByRole('img', { name: /gain, outer ring 10 dB/ })).toBeTruthy();
});
