import { describe, expect, test } from '@jest/globals';
import { cardWith, type CurvesCard } from '../document/index.ts';
import {
  bandLines,
  bandStretches,
  type Drawing,
  type DrawnTrace,
  judgedLimits,
  limitText,
  markerRows,
  nameOfTrace,
  sourceOf,
  statisticsLines,
} from './index.ts';

const card = (more: object): CurvesCard =>
  cardWith({ kind: 'curves', id: 'c1', place: { x: 0, y: 0, w: 6, h: 6 }, traces: [{ quantity: 's', of: 'S11' }], ...more }) as CurvesCard;
const curve = (y: number[], more: Partial<DrawnTrace> = {}): DrawnTrace => ({
  trace: 0,
  run: 0,
  name: 'S11',
  axis: 'left',
  unit: 'dB',
  x: Float64Array.from(y, (_, i) => 1e9 * (i + 1)),
  y: Float64Array.from(y),
  ...more,
});
const dip = curve([0, -6, -20, -6, 0]);
const drawing = (...drawn: DrawnTrace[]): Drawing => ({ drawn, over: 'frequency', faults: [] });

describe('figures of curves', () => {
  test('markers stand on each run’s curve of their trace, and are told against one of them', () => {
    const deeper = curve([0, -8, -30, -8, 0], { run: 1 });
    const phase = curve([0, 10, 20, 30, 40], { trace: 1, unit: 'deg', axis: 'right' });
    const set = card({ traces: [{ quantity: 's' }, { quantity: 's', form: 'phase' }], base: 0, markers: [{ kind: 'dip', trace: 0, nth: 1 }, { kind: 'at', trace: 0, x: 2e9, nth: 1 }, { kind: 'at', trace: 1, x: 4e9, nth: 1 }] }); // prettier-ignore
    const rows = markerRows(set, [dip, deeper, phase]);
    expect(rows.map((r) => [r.marker, r.curve, r.spot.y, r.isBase])).toEqual([
      [0, 0, -20, true],
      [0, 1, -30, true],
      [1, 0, -6, false],
      [1, 1, -8, false],
      [2, 2, 30, false],
    ]);
    // Each against the base on its own curve; of another unit the values cannot be compared, the places can.
    expect(rows.map((r) => r.apart)).toEqual([undefined, undefined, { x: -1e9, y: 14 }, { x: -1e9, y: 22 }, { x: 1e9, y: null }]);
    expect(markerRows(card({ markers: set.markers.slice(1, 2) }), [dip]).map((r) => r.apart)).toEqual([undefined]);
    // Of the part that is shown.
    expect(markerRows({ ...set, x: { min: 3.5e9 } }, [dip])[0].spot).toEqual({ x: 4e9, y: -6 });
  });

  test('a limit is judged by the worst curve on its axis, and by none where none reaches it', () => {
    const at = (level: number, from = 2e9, to = 4e9) => ({ from: { x: from, y: level }, to: { x: to, y: level }, side: 'below' });
    const [kept, broken, far] = judgedLimits(card({ limits: [at(-5), at(-10), at(-10, 8e9, 9e9)] }), [dip, curve([9, 9, 9, 9, 9], { axis: 'right' })]); // prettier-ignore
    expect([kept.ok, broken.ok, far.ok]).toEqual([true, false, null]);
    expect(limitText(kept, 1, 'dB', 'frequency')).toMatch(/^keeps limit 1: 1\.000 dB to spare at [24] GHz$/);
    expect(limitText(broken, 2, 'dB', 'frequency')).toMatch(/^breaks limit 2: 4\.000 dB beyond at [24] GHz$/);
    expect(limitText(far, 3, 'dB', 'frequency')).toBeNull();
  });

  test('bandwidth and statistics are told in words, with what is cut off at the ends', () => {
    const set = card({ bandwidth: { level: -10, side: 'below' }, statistics: {} });
    // Straight between samples: -10 is passed 4/14 of the way.
    const [[stretch]] = bandStretches(set, [dip]);
    expect([stretch.from / 1e9, stretch.to / 1e9]).toEqual([expect.closeTo(2 + 4 / 14, 9), expect.closeTo(4 - 4 / 14, 9)]);
    expect(bandLines(set, drawing(dip), ['S11'])).toEqual(['S11: below -10.00 dB 1.4286 GHz (2.2857 GHz to 3.7143 GHz, 47.6 %)']);
    expect(bandLines(set, drawing(curve([-20, -20])), ['S11'])[0]).toContain('at least 1 GHz (≤ 1 GHz to ≥ 2 GHz');
    expect(bandLines(set, drawing(curve([0, 0])), ['S11'])).toEqual(['S11: below -10.00 dB nowhere']);
    expect(statisticsLines(set, drawing(dip), ['S11'])).toEqual([
      'S11: min -20.00 dB at 3 GHz, max 0.000 dB at 1 GHz, mean -8.000 dB, peak to peak 20.00 dB',
    ]);
    expect([...bandLines(card({}), drawing(dip), ['S11']), ...statisticsLines(card({}), drawing(dip), ['S11'])]).toEqual([]);
  });

  test('a trace has the name of its source', () => {
    const t = { quantity: 's', of: 'S21', axis: 'left' } as const;
    expect([t, { ...t, quantity: 'formula' }, { ...t, quantity: 'data' }].map(sourceOf)).toEqual(['quantity', 'formula', 'data']);
    expect(nameOfTrace({ ...t, quantity: 'data', of: 'bench/S11' }, true)).toBe('bench S11');
    expect(nameOfTrace({ ...t, quantity: 'formula', of: 'a - b' }, true)).toBe('a - b');
    expect(nameOfTrace({ ...t, name: 'mine' }, false)).toBe('mine');
  });
});
