import { type Vec3 } from '../numerics/vector.ts';
import { describe, expect, test } from '@jest/globals';
import { eta0, c0 } from '../numerics/constants.ts';
import { globalFrame, type Pattern, patternPower, PatternSampler, sphericalBase } from '../radiation/index.ts';
import { cutText, glance, patternFactor, type PatternSource, patternTitle, readCut, readDirection, readGrid, readPhaseCentre } from './index.ts';

const frequency = 2e9;
const k = (2 * Math.PI * frequency) / c0;
/** A Huygens source along x at a place: (1 + cos theta)(cos phi theta - sin phi phi) exp(jk r . r0). */
function huygens(at: Vec3 = [0, 0, 0], circular = false, nTheta = 37): Pattern {
  const nPhi = 2 * (nTheta - 1);
  const values = new Float64Array(nTheta * nPhi * 4);
  for (let t = 0; t < nTheta; t++)
    for (let p = 0; p < nPhi; p++) {
      const [theta, phi] = [(t * Math.PI) / (nTheta - 1), (2 * Math.PI * p) / nPhi];
      const { r } = sphericalBase(theta, phi);
      const turn = k * (r[0] * at[0] + r[1] * at[1] + r[2] * at[2]);
      const size = 1 + Math.cos(theta);
      const [c, s] = [size * Math.cos(turn), size * Math.sin(turn)];
      const [cp, sp] = [Math.cos(phi), Math.sin(phi)];
      // x - jy is (cos phi - j sin phi) theta - (sin phi + j cos phi) phi times the size.
      const e = circular ? [cp * c + sp * s, cp * s - sp * c, -sp * c + cp * s, -sp * s - cp * c] : [cp * c, cp * s, -sp * c, -sp * s];
      values.set(e, 4 * (t * nPhi + p));
    }
  return { nTheta, nPhi, values };
}
function source(pattern: Pattern): PatternSource {
  const { power } = patternPower(pattern);
  return { pattern, frequency, powers: { lossless: power, radiated: 0.8, accepted: 0.9, incident: 1 } };
}
const db = (v: number): number => 10 * Math.log10(v);

describe('a Huygens source', () => {
  const s = source(huygens());
  const sampler = new PatternSampler(s.pattern);
  const g = glance(s, sampler);

  test('directivity 3 straight up; gain and realised gain by what is lost', () => {
    expect(g.peak).toBeCloseTo(db(3), 4);
    expect(g.gain! - g.peak).toBeCloseTo(db(0.8 / 0.9), 9);
    expect(g.realised! - g.peak).toBeCloseTo(db(0.8), 9);
    expect([g.theta, g.phi]).toEqual([0, 0]);
  });

  test('both planes are alike: half power where (1 + cos)^2 / 4 = 1/2, nothing behind', () => {
    const half = Math.acos(2 * Math.SQRT1_2 - 1);
    for (const { figures } of g.planes) {
      expect(figures.width3!).toBeCloseTo(2 * half, 3);
      expect(figures.sideLobe).toBeNull();
      expect(figures.frontToBack).toBeGreaterThan(80);
    }
    expect(g.sense).toBe('linear');
    expect(g.boresight).toBeGreaterThan(60);
  });

  test('grid and cut tell the same', () => {
    const reading = { quantity: 'gain', part: 'co', reference: 0 } as const;
    const grid = readGrid(s, reading);
    const cut = readCut(s, sampler, { kind: 'phi', phi: 0 }, globalFrame, reading, 72);
    for (let t = 0; t < 36; t++) expect(cut.values[t]).toBeCloseTo(grid[t * 72], 6);
    expect(patternTitle(s, reading)).toEqual({ label: 'gain, co-polar', unit: 'dBi', level: true });
  });
});

test('circular polarisation: axial ratio 0 dB, the right sense, the whole power', () => {
  const s = source(huygens([0, 0, 0], true));
  const g = glance(s, new PatternSampler(s.pattern));
  expect(g.sense).toBe('right');
  expect(g.boresight).toBeLessThan(1e-6);
  // Nowhere is there any of the other sense.
  expect(Math.max(...readGrid(s, { quantity: 'gain', part: 'left', reference: 0 }))).toBeLessThan(-190);
  const e = s.pattern.values.subarray(4 * 500, 4 * 504) as unknown as Parameters<typeof readDirection>[0];
  expect(readDirection(e, 0, { quantity: 'gain', part: 'axial-ratio', reference: 0 }, 1)).toBeLessThan(1e-6);
});

test('a cross-section is 4 pi |E|^2 for 1 V/m, a directivity 4 pi U over the power', () => {
  const pattern = huygens();
  expect(patternFactor({ pattern, frequency, powers: null }, 'directivity')).toBeCloseTo(4 * Math.PI, 12);
  const s = source(pattern);
  // The mean of directivity over the sphere is 1.
  expect(patternFactor(s, 'directivity') * 2 * eta0 * s.powers!.lossless).toBeCloseTo(4 * Math.PI, 9);
});

describe('the phase centre', () => {
  const at: Vec3 = [0.01, -0.02, 0.05];
  const s = source(huygens(at));
  const sampler = new PatternSampler(s.pattern);
  test('of a displaced source is found, co-polar direction and all', () => {
    const read = readPhaseCentre(s, sampler, { theta: 0, phi: 0 }, { part: 'co', half: 0.7 });
    read.found!.at.forEach((v, i) => expect(v).toBeCloseTo(at[i], 8));
    expect(Math.cos(2 * read.reference)).toBeCloseTo(1, 9);
    // The spread over origins along the axis is least in the middle.
    expect(read.along.spread[30]).toBeLessThan(1e-6);
    expect(read.along.spread[0]).toBeGreaterThan(0.5);
  });
  test('in the plane phi = 0 its y stays unknown', () => {
    const { found } = readPhaseCentre(s, sampler, { theta: 0, phi: 0 }, { part: 'co', half: 0.7, plane: 0 });
    expect(found!.at[0]).toBeCloseTo(at[0], 8);
    expect(found!.at[1]).toBeCloseTo(0, 12);
    expect(found!.at[2]).toBeCloseTo(at[2], 8);
  });
});

test('a cut is told without the figures of nulls, and a cross-polar one by its peak alone', () => {
  const figures = { peak: 6.123, angle: Math.PI * 1.9, width3: 1.2, width10: 2, middle: 0, sideLobe: { below: 13.26, angle: 1 }, frontToBack: 197.3 };
  expect(cutText(figures, 'dBi', 'co')).toBe('peak 6.12 dBi at -18.0°, width 68.8°, next lobe 13.3 dB below, front to back over 40 dB');
  const even = cutText({ ...figures, sideLobe: { ...figures.sideLobe!, below: 0.01 }, frontToBack: -0.02 }, 'dBi', 'total');
  expect(even).toBe('peak 6.12 dBi at -18.0°, width 68.8°, a second lobe as high, as much behind');
  expect(cutText({ ...figures, width3: null, sideLobe: null, frontToBack: 21.04 }, 'dBi', 'total')).toBe(
    'peak 6.12 dBi at -18.0°, front to back 21.0 dB',
  );
  expect(cutText(figures, 'dBi', 'cross')).toBe('peak 6.12 dBi at -18.0°');
});
