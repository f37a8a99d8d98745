import { type Vec3 } from '../numerics/vector.ts';
import { describe, expect, test } from '@jest/globals';
import { c0, eta0 } from '../numerics/constants.ts';
import {
  alongLine,
  boxWidth,
  fieldKinds,
  fieldScale,
  type FieldVolume,
  lackingFor,
  levelSurface,
  percentile,
  piecesOf,
  readArrows,
  readField,
  sampleVolume,
  sliceOfVolume,
  tiltedSlice,
  volumeOf,
} from './index.ts';

const k = (2 * Math.PI * 5e9) / c0;
/** A wave along x, elliptically polarised: E = (0, 2, j) exp(-jkx) V/m, H = (0, -j, 2) exp(-jkx) / eta0. */
const axes: FieldVolume['axes'] = [
  Float64Array.from({ length: 41 }, (_, i) => i * 1e-3 + 1e-4 * Math.sin(i)),
  Float64Array.from({ length: 7 }, (_, i) => i * 2e-3),
  Float64Array.from({ length: 5 }, (_, i) => i * 3e-3),
];
const count = axes[0].length * axes[1].length * axes[2].length;
const both = new Float32Array(12 * count);
for (let n = 0; n < count; n++) {
  const x = axes[0][n % axes[0].length];
  const [c, s] = [Math.cos(k * x), -Math.sin(k * x)];
  const h = 1 / eta0;
  both.set([0, 0, 2 * c, 2 * s, -s, c, 0, 0, s * h, -c * h, 2 * c * h, 2 * s * h], 12 * n);
}
const volume = volumeOf(axes, both, { electric: true, magnetic: true });
const slice = sliceOfVolume(volume, 2, 2);
const read = (reading: Parameters<typeof readField>[1], phase = 0): Float64Array =>
  readField(slice, reading, phase, new Float64Array(slice.u.length * slice.v.length));

describe('a box that keeps one component alone', () => {
  test.each([0, 1, 2] as const)('component %i stands in its place, the others are zero, and what needs them all is not told', (only) => {
    const kept = { electric: true, magnetic: true, only };
    expect([boxWidth(kept), boxWidth({ ...kept, magnetic: false }), boxWidth({ electric: true, magnetic: false })]).toEqual([4, 2, 6]);
    const alone = Float32Array.from({ length: 4 * count }, (_, i) => both[12 * (i >> 2) + (i & 2 ? 6 : 0) + 2 * only + (i & 1)]);
    const volume = volumeOf(axes, alone, kept);
    const { e, h, only: told } = volume;
    expect(told).toBe(only);
    for (let n = 0; n < count; n++)
      for (let c = 0; c < 6; c++) {
        expect(e![6 * n + c]).toBe(c >> 1 === only ? both[12 * n + c] : 0);
        expect(h![6 * n + c]).toBe(c >> 1 === only ? both[12 * n + 6 + c] : 0);
      }
    expect(lackingFor(fieldKinds.S, volume)).toBe(`components but ${'xyz'[only]}`);
    expect(lackingFor(fieldKinds.E, volume)).toBeNull();
    // Of its parts the own one can be told, and no other.
    for (const part of ['x', 'y', 'z', 'normal', 'tangential'] as const) expect(lackingFor(fieldKinds.E, volume, part) === null).toBe(part === 'xyz'[only]); // prettier-ignore
    expect(lackingFor(fieldKinds.E, volumeOf(axes, both, { electric: true, magnetic: true }), 'normal')).toBeNull();
    expect(lackingFor(fieldKinds.H, volumeOf(axes, alone, { electric: true, magnetic: false, only }))).toBe('H');
  });
});

describe('readings of a wave', () => {
  test('peak is the long half axis of the ellipse, mean the root of the mean square', () => {
    read({ quantity: 'E', part: 'size', form: 'peak' }).forEach((v) => expect(v).toBeCloseTo(2, 5));
    read({ quantity: 'E', part: 'size', form: 'mean' }).forEach((v) => expect(v).toBeCloseTo(Math.sqrt(2.5), 5));
    read({ quantity: 'H', part: 'z', form: 'peak' }).forEach((v) => expect(v).toBeCloseTo(2 / eta0, 8));
  });

  test('an instant turns with the phase, the largest of all instants is the peak', () => {
    const y = read({ quantity: 'E', part: 'y', form: 'instant' }, 0.7);
    y.forEach((v, n) => expect(v).toBeCloseTo(2 * Math.cos(0.7 - k * axes[0][n % 41]), 5));
    let most = 0;
    for (let p = 0; p < 360; p += 2) most = Math.max(most, read({ quantity: 'E', part: 'size', form: 'instant' }, (p * Math.PI) / 180)[17]);
    expect(most).toBeCloseTo(2, 3);
  });

  test('power flow is |E|^2 / (2 eta0) along x, also as the mean of its instants; it needs H', () => {
    const flow = 5 / (2 * eta0);
    read({ quantity: 'S', part: 'x', form: 'mean' }).forEach((v) => expect(v / flow).toBeCloseTo(1, 5));
    read({ quantity: 'S', part: 'size', form: 'peak' }).forEach((v) => expect(v / flow).toBeCloseTo(1, 5));
    let sum = 0;
    for (let p = 0; p < 40; p++) sum += read({ quantity: 'S', part: 'x', form: 'instant' }, (p * Math.PI) / 20)[33] / 40;
    expect(sum / flow).toBeCloseTo(1, 5);
    expect(readField({ ...slice, h: null }, { quantity: 'S', part: 'x', form: 'mean' }, 0, new Float64Array(3))[0]).toBeNaN();
  });

  test('phase of a component falls with the way; parts across and in the plane', () => {
    const phase = read({ quantity: 'E', part: 'y', form: 'phase' });
    expect(phase[3]).toBeCloseTo((-180 * k * axes[0][3]) / Math.PI, 3);
    read({ quantity: 'E', part: 'normal', form: 'peak' }).forEach((v) => expect(v).toBeCloseTo(1, 5));
    read({ quantity: 'E', part: 'tangential', form: 'peak' }).forEach((v) => expect(v).toBeCloseTo(2, 5));
  });

  test('scales: a size, a sign, a phase', () => {
    expect(fieldScale({ quantity: 'E', part: 'size', form: 'instant' })).toBe('size');
    expect(fieldScale({ quantity: 'E', part: 'x', form: 'instant' })).toBe('signed');
    expect(fieldScale({ quantity: 'E', part: 'x', form: 'peak' })).toBe('size');
    expect(fieldScale({ quantity: 'S', part: 'x', form: 'mean' })).toBe('signed');
    expect(fieldScale({ quantity: 'H', part: 'x', form: 'phase' })).toBe('cyclic');
  });

  test('arrows lie in the plane', () => {
    const arrows = readArrows(slice, 'E', 'instant', 0, new Float64Array(2 * slice.u.length * slice.v.length));
    expect(arrows[0]).toBeCloseTo(0, 6);
    expect(arrows[2 * 5 + 1]).toBeCloseTo(2 * Math.cos(k * axes[0][5]), 5);
  });
});

describe('cuts', () => {
  test('a tilted cut reads the same wave where it lies, and nothing outside the box', () => {
    const s = Math.SQRT1_2;
    const tilted = tiltedSlice(volume, [s, 0, s], [0.02, 6e-3, 6e-3], 90);
    const values = readField(tilted, { quantity: 'E', part: 'y', form: 'instant' }, 0, new Float64Array(tilted.u.length * tilted.v.length));
    let [inside, outside] = [0, 0];
    values.forEach((v, n) => {
      const [u, w] = [tilted.u[n % tilted.u.length], tilted.v[Math.floor(n / tilted.u.length)]];
      const place = [0, 1, 2].map((a) => tilted.origin[a] + u * tilted.along[a] + w * tilted.across[a]);
      if (Number.isNaN(v)) outside++;
      else {
        inside++;
        expect(Math.abs(v - 2 * Math.cos(k * place[0]))).toBeLessThan(3e-3);
      }
    });
    expect(Math.min(inside, outside)).toBeGreaterThan(200);
    expect(tilted.normal.reduce((sum, v, a) => sum + v * tilted.along[a], 0)).toBeCloseTo(0, 12);
  });

  test('a line between samples: linear where the field is, not a number outside', () => {
    const line = alongLine(volume, [0.005, 1e-3, 1e-3], [0.05, 1e-3, 1e-3], 91);
    expect(line.distance[90]).toBeCloseTo(0.045, 12);
    const at = 20;
    expect(line.e![6 * at + 2]).toBeCloseTo(2 * Math.cos(k * (0.005 + 0.0005 * at)), 2);
    expect(line.e![6 * 90]).toBeNaN();
    // A flat box is read where it lies, whatever the line says across it.
    const flat = sliceOfVolume(volume, 2, 2);
    const thin: FieldVolume = { axes: [axes[0], axes[1], [axes[2][2]]], e: flat.e, h: flat.h };
    expect(alongLine(thin, [0.005, 1e-3, -1], [0.02, 1e-3, 1], 5).e![2]).toBeCloseTo(2 * Math.cos(k * 0.005), 2);
    const out = new Float64Array(6);
    expect(sampleVolume(axes, volume.e!, [-1, 0, 0], out)).toBe(false);
  });

  test('percentiles leave the few behind', () => {
    expect(percentile([1, 2, -3, 4, NaN, 1000], 0.75)).toBe(4);
    expect(percentile([], 0.5)).toBe(0);
  });
});

describe('surfaces', () => {
  const size = (a: ArrayLike<number>, n: number): number => {
    const p = (i: number): Vec3 => [a[9 * n + 3 * i], a[9 * n + 3 * i + 1], a[9 * n + 3 * i + 2]];
    const [u, v] = [p(1).map((x, i) => x - p(0)[i]), p(2).map((x, i) => x - p(0)[i])];
    return Math.hypot(u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]) / 2;
  };
  const area = (a: ArrayLike<number>): number => Array.from({ length: a.length / 9 }, (_, n) => size(a, n)).reduce((s, v) => s + v, 0);

  test('the level surface of a distance is a sphere, to second order in the step', () => {
    const error = (n: number): number => {
      const line = Float64Array.from({ length: n }, (_, i) => -1 + (2 * i) / (n - 1));
      const values = new Float64Array(n ** 3);
      for (let i = 0; i < n ** 3; i++) values[i] = Math.hypot(line[i % n], line[Math.floor(i / n) % n], line[Math.floor(i / n / n)]);
      return 1 - area(levelSurface([line, line, line], values, 0.7)) / (4 * Math.PI * 0.49);
    };
    expect(Math.abs(error(33))).toBeLessThan(4e-3);
    expect(error(17) / error(33)).toBeGreaterThan(3);
  });

  test('faces are cut fine, keep their area and normals, and end with the box', () => {
    // One face of 20 by 12 mm, half of it within the box.
    const positions = [0, 0, 3e-3, 20e-3, 0, 3e-3, 20e-3, 12e-3, 3e-3, 0, 12e-3, 3e-3];
    const pieces = piecesOf(positions, [0, 1, 2, 0, 2, 3], axes, 1.5e-3);
    expect(area(pieces.corners)).toBeCloseTo(240e-6, 10);
    expect(pieces.normals.every((v, i) => v === (i % 3 === 2 ? 1 : 0))).toBe(true);
    for (let n = 0; n < pieces.normals.length / 3; n++) expect(size(pieces.corners, n)).toBeLessThan(1.2e-6);
    const beyond = piecesOf(positions.map((v, i) => (i % 3 === 0 ? v + 30e-3 : v)), [0, 1, 2, 0, 2, 3], axes, 1.5e-3); // prettier-ignore
    expect(area(beyond.corners)).toBeLessThan(170e-6);
    expect(area(beyond.corners)).toBeGreaterThan(110e-6);
  });
});
