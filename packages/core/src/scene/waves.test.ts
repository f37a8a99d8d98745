import { cross, dot } from '../numerics/vector.ts';
import { describe, expect, test } from '@jest/globals';
import { loadAdmittance, waveOf } from './index.ts';

describe('plane waves', () => {
  test.each([
    [0, 0, 0, 0],
    [0.7, 0.4, 0.3, 0],
    [2.1, 3.9, 1.1, 0.5],
    [1.3, 5.2, -0.8, -1],
  ])('from theta %p, phi %p: E lies across the way and is of one volt a metre', (theta, phi, tilt, minor) => {
    const w = waveOf('w', 0, theta, phi, tilt, minor);
    expect(dot(w.towards, w.towards)).toBeCloseTo(1, 12);
    expect(dot(w.towards, w.re)).toBeCloseTo(0, 12);
    expect(dot(w.towards, w.im)).toBeCloseTo(0, 12);
    expect(dot(w.re, w.re) + dot(w.im, w.im)).toBeCloseTo(1, 12);
    // It goes away from where it comes from.
    expect(dot(w.towards, [Math.sin(theta) * Math.cos(phi), Math.sin(theta) * Math.sin(phi), Math.cos(theta)])).toBeCloseTo(-1, 12);
  });

  test('right-hand circular turns clockwise to one who looks along with it', () => {
    const w = waveOf('w', 0, Math.PI, 0, 0, 1);
    expect(w.towards[2]).toBeCloseTo(1, 12);
    // E at time 0 and a quarter period later; for exp(+jwt) the latter is minus the imaginary part.
    const [now, later] = [w.re, w.im];
    // Seen along +z, clockwise is the right-handed turn about +z.
    expect(-dot(cross(now, later), w.towards)).toBeGreaterThan(0.4);
  });

  test('from the zenith, without tilt, E of phi 0 lies along x', () => {
    const w = waveOf('w', 0, 0, 0, 0, 0);
    expect(w.re.map(Math.abs)).toEqual([expect.closeTo(1, 12), expect.closeTo(0, 12), expect.closeTo(0, 12)]);
  });
});

describe('loads', () => {
  test('series and parallel parts, and resonance', () => {
    const f = 1 / (2 * Math.PI * Math.sqrt(2e-9 * 1e-12));
    expect(loadAdmittance({ form: 'series', r: 20, l: 2e-9, c: 1e-12 }, f)[0]).toBeCloseTo(0.05, 9);
    expect(loadAdmittance({ form: 'series', r: 20, l: 2e-9, c: 1e-12 }, f)[1]).toBeCloseTo(0, 9);
    expect(loadAdmittance({ form: 'parallel', r: 20, l: 2e-9, c: 1e-12 }, f)[1]).toBeCloseTo(0, 9);
    expect(loadAdmittance({ form: 'series', r: 0, l: 1e-9, c: 0 }, 1e9)[1]).toBeCloseTo(-1 / (2 * Math.PI), 9);
    expect(loadAdmittance({ form: 'parallel', r: 0, l: 0, c: 1e-12 }, 1e9)[1]).toBeCloseTo(2 * Math.PI * 1e-3, 12);
  });

  test('the trapezoid rule turns the frequency a little', () => {
    const exact = loadAdmittance({ form: 'parallel', r: 0, l: 0, c: 1e-12 }, 1e9)[1];
    const stepped = loadAdmittance({ form: 'parallel', r: 0, l: 0, c: 1e-12 }, 1e9, 1e-12)[1];
    expect(stepped / exact).toBeGreaterThan(1);
    expect(stepped / exact).toBeLessThan(1.0001);
  });
});
