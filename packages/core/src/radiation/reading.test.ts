import { dot, type Vec3 } from '../numerics/vector.ts';
import { describe, expect, test } from '@jest/globals';
import { c0 } from '../numerics/constants.ts';
import {
  alongCut,
  axialRatio,
  component,
  cutFigures,
  type FarVector,
  frameTowards,
  globalFrame,
  type Pattern,
  PatternSampler,
  PhaseRays,
  sphericalBase,
  tilt,
} from './index.ts';

const k = (2 * Math.PI * 3e9) / c0;
/** Far field of short dipoles: complex moments at places, E = -(r x (r x p)) exp(jk r . r0). */
function pattern(sources: { at: Vec3; re: Vec3; im?: Vec3 }[], nTheta = 37): Pattern {
  const nPhi = 2 * (nTheta - 1);
  const values = new Float64Array(nTheta * nPhi * 4);
  for (let t = 0; t < nTheta; t++)
    for (let p = 0; p < nPhi; p++) values.set(exact(sources, (t * Math.PI) / (nTheta - 1), (2 * Math.PI * p) / nPhi), 4 * (t * nPhi + p));
  return { nTheta, nPhi, values };
}
function exact(sources: { at: Vec3; re: Vec3; im?: Vec3 }[], theta: number, phi: number): FarVector {
  const b = sphericalBase(theta, phi);
  const out = [0, 0, 0, 0];
  for (const { at, re, im = [0, 0, 0] as Vec3 } of sources) {
    const [c, s] = [Math.cos(k * dot(b.r, at)), Math.sin(k * dot(b.r, at))];
    [b.theta, b.phi].forEach((unit, i) => {
      const [x, y] = [dot(re, unit), dot(im, unit)];
      out[2 * i] += x * c - y * s;
      out[2 * i + 1] += x * s + y * c;
    });
  }
  return out as unknown as FarVector;
}
const worst = (a: FarVector, b: FarVector): number => Math.max(...a.map((v, i) => Math.abs(v - b[i])));

describe('a pattern between its samples', () => {
  // Three dipoles up to 0.9 wavelengths off the origin.
  const sources = [
    { at: [0.05, -0.02, 0.03] as Vec3, re: [1, 0.2, -0.4] as Vec3 },
    { at: [-0.04, 0.06, -0.05] as Vec3, re: [0.1, -0.6, 0.3] as Vec3, im: [0, 0.5, 0.2] as Vec3 },
    { at: [0, 0, 0.09] as Vec3, re: [0.3, 0.3, 1] as Vec3 },
  ];
  const sampler = new PatternSampler(pattern(sources));
  const directions = [[0.31, 1.234], [1.6, -2.7], [2.9, 0.01], [1e-3, 3.3], [Math.PI, 0.4], [0, 1.1]] as const; // prettier-ignore

  test('is exact where the step resolves it, poles included', () => {
    for (const [t, p] of directions) expect(worst(sampler.at(t, p), exact(sources, t, p))).toBeLessThan(1e-9);
  });

  test('in a frame of another origin and turned axes it is that of the sources moved and turned back', () => {
    const frame = frameTowards(0.9, -0.4, 0.7, [0.02, 0.03, -0.01]);
    const local = (v: Vec3): Vec3 => [dot(v, frame.x), dot(v, frame.y), dot(v, frame.z)];
    const moved = sources.map((s) => ({
      at: local([s.at[0] - 0.02, s.at[1] - 0.03, s.at[2] + 0.01]),
      re: local(s.re),
      im: local(s.im ?? [0, 0, 0]),
    }));
    for (const [t, p] of directions.slice(0, 3)) expect(worst(sampler.inFrame(frame, k, t, p), exact(moved, t, p))).toBeLessThan(1e-9);
  });
});

describe('polarisation', () => {
  test('a turning dipole: right-hand circular above, left-hand below, linear in its plane', () => {
    // x - j y radiates right-hand circular along +z for exp(+jwt).
    const e = (theta: number): FarVector => exact([{ at: [0, 0, 0], re: [1, 0, 0], im: [0, -1, 0] }], theta, 0.8);
    expect(Math.hypot(...component(e(0), 'left'))).toBeLessThan(1e-12);
    expect(Math.hypot(...component(e(0), 'right'))).toBeCloseTo(Math.SQRT2, 12);
    expect(Math.hypot(...component(e(Math.PI), 'right'))).toBeLessThan(1e-12);
    expect(axialRatio(e(0))).toBeCloseTo(1, 9);
    // At theta the ellipse is cos(theta) flat: its axial ratio is 1 / cos(theta).
    expect(axialRatio(e(Math.PI / 3))).toBeCloseTo(2, 9);
    expect(axialRatio(e(Math.PI / 2))).toBeGreaterThan(1e9);
  });

  test('the third definition: a Huygens source along x or along 30 degrees has no cross-polar field', () => {
    for (const reference of [0, Math.PI / 6])
      for (const [theta, phi] of [[0.4, 0.3], [1.2, 2.2], [0.9, -1]]) {
        // (1 + cos theta) (cos(phi - ref) theta - sin(phi - ref) phi).
        const size = 1 + Math.cos(theta);
        const e: FarVector = [size * Math.cos(phi - reference), 0, -size * Math.sin(phi - reference), 0];
        expect(Math.abs(component(e, 'cross', phi, reference)[0])).toBeLessThan(1e-12);
        expect(component(e, 'co', phi, reference)[0]).toBeCloseTo(size, 12);
      } // prettier-ignore
  });

  test('each pair of components holds the whole power; tilt of a slanted field', () => {
    const e: FarVector = [0.3, -0.7, 1.1, 0.4];
    const total = component(e, 'total')[0] ** 2;
    for (const [a, b] of [['theta', 'phi'], ['co', 'cross'], ['right', 'left']] as const)
      expect(Math.hypot(...component(e, a, 0.4, 0.2)) ** 2 + Math.hypot(...component(e, b, 0.4, 0.2)) ** 2).toBeCloseTo(total, 12); // prettier-ignore
    expect(tilt([1, 0, 1, 0])).toBeCloseTo(Math.PI / 4, 12);
  });
});

describe('cuts and their figures', () => {
  test('a half-wave dipole: 78 degrees', () => {
    const n = 720;
    const db = Array.from({ length: n }, (_, i) => {
      const t = (2 * Math.PI * (i + 0.001)) / n;
      return 20 * Math.log10(Math.max(1e-6, Math.abs(Math.cos((Math.PI / 2) * Math.cos(t)) / Math.sin(t))));
    });
    const f = cutFigures(db);
    // C. A. Balanis, Antenna Theory, 4th ed., sec. 4.6: 78 deg.
    expect((f.width3! * 180) / Math.PI).toBeCloseTo(78.08, 1);
    expect(f.frontToBack).toBeCloseTo(0, 3);
  });

  test('an even line source: 50.8 deg over length in wavelengths, side lobes 13.26 dB down, front to back 0', () => {
    const length = 10;
    const n = 3600;
    const db = Array.from({ length: n }, (_, i) => {
      const u = Math.PI * length * Math.sin((2 * Math.PI * i) / n - Math.PI / 2 - 0.2);
      return 20 * Math.log10(Math.max(1e-6, Math.abs(u) < 1e-9 ? 1 : Math.abs(Math.sin(u) / u)));
    });
    const f = cutFigures(db);
    // -13.26 dB at u = 4.4934 (ibid., sec. 12.5); width from sin(u)/u = 0.7071 at u = 1.39156.
    expect((f.width3! * 180) / Math.PI).toBeCloseTo((2 * Math.asin(1.39156 / (Math.PI * length)) * 180) / Math.PI, 2);
    // Its other main lobe at the back counts as a lobe.
    expect(f.sideLobe!.below).toBeCloseTo(0, 3);
    const front = cutFigures(db.map((v, i) => (Math.cos((2 * Math.PI * i) / n - Math.PI / 2 - 0.2) > 0 ? v : -60)));
    expect(front.sideLobe!.below).toBeCloseTo(13.26, 1);
    expect(Math.abs(front.angle - Math.PI / 2 - 0.2)).toBeLessThan(1e-3);
    expect(front.middle).toBeCloseTo(front.angle, 3);
    expect(front.width10).toBeGreaterThan(front.width3!);
  });

  test('an even pattern has no width and no lobe', () => {
    expect(cutFigures(new Float64Array(72))).toMatchObject({ width3: null, width10: null, sideLobe: null, frontToBack: 0 });
    // One part of the field vanishes behind, the other does not: the ratio is that of both.
    const part = Float64Array.from({ length: 72 }, (_, i) => 20 * Math.log10(Math.max(1e-10, Math.cos((Math.PI * i) / 72) ** 2)));
    const both = part.map((v) => 10 * Math.log10(10 ** (v / 10) + 0.01));
    expect(cutFigures(part).frontToBack).toBeGreaterThan(150);
    expect(cutFigures(part, both).frontToBack).toBeCloseTo(10 * Math.log10(101), 6);
  });

  test('a great circle through a tilted dipole is its own cut of theta', () => {
    const axis = sphericalBase(0.7, 0.5).r;
    const sampler = new PatternSampler(pattern([{ at: [0, 0, 0], re: axis }]));
    const cut = alongCut(sampler, { kind: 'great', theta: 0.7, phi: 0.5, tilt: 1.1 }, 36, globalFrame, k);
    cut.forEach(({ e }, i) => expect(component(e, 'total')[0]).toBeCloseTo(Math.abs(Math.sin((2 * Math.PI * i) / 36)), 9));
    // A cut of phi goes on through the pole on the other side.
    const meridian = alongCut(sampler, { kind: 'phi', phi: 0.5 }, 36, globalFrame, k);
    meridian.forEach(({ e }, i) => expect(component(e, 'total')[0]).toBeCloseTo(Math.abs(Math.sin((2 * Math.PI * i) / 36 - 0.7)), 9));
  });
});

describe('phase centre', () => {
  const at: Vec3 = [0.013, -0.027, 0.061];
  const sampler = new PatternSampler(pattern([{ at, re: [1, 0, 0] }]));

  test('of a displaced source is its place, over a cone about any axis', () => {
    for (const frame of [globalFrame, frameTowards(0.5, 1)]) {
      const found = new PhaseRays(sampler, frame, k, { half: 0.9 }, 'co').centre()!;
      if (frame === globalFrame) {
        found.at.forEach((v, i) => expect(v).toBeCloseTo(at[i], 8));
        expect(found.rms).toBeLessThan(1e-6);
      } else found.at.forEach((v, i) => expect(v).toBeCloseTo(at[i], 3));
    }
    const turning = new PatternSampler(pattern([{ at, re: [1, 0, 0], im: [0, -1, 0] }]));
    const circular = new PhaseRays(turning, globalFrame, k, { half: 0.7 }, 'right').centre()!;
    circular.at.forEach((v, i) => expect(v).toBeCloseTo(at[i], 8));
  });

  test('in a plane only its place within the plane is found', () => {
    const found = new PhaseRays(sampler, globalFrame, k, { half: 0.8, plane: Math.PI / 2 }, 'co', 0).centre()!;
    expect(found.at[0]).toBeCloseTo(0, 12);
    expect(found.at[1]).toBeCloseTo(at[1], 8);
    expect(found.at[2]).toBeCloseTo(at[2], 8);
  });

  test('the spread over origins along the axis is least there and grows as k d (1 - cos half)', () => {
    const on = (z: number) => new PhaseRays(sampler, globalFrame, k, { half: 0.6 }, 'co').spread([at[0], at[1], z]).spread;
    expect(on(at[2])).toBeLessThan(1e-6);
    expect(on(at[2] + 0.01)).toBeCloseTo(k * 0.01 * (1 - Math.cos(0.6)), 6);
  });

  test('two in-phase sources have theirs in the middle', () => {
    const pair = new PatternSampler(pattern([{ at: [0.02, 0, 0.03], re: [0, 1, 0] }, { at: [-0.01, 0, 0.03], re: [0, 1, 0] }])); // prettier-ignore
    const found = new PhaseRays(pair, globalFrame, k, { half: 0.5 }, 'co', Math.PI / 2).centre()!;
    expect(found.at[0]).toBeCloseTo(0.005, 4);
    expect(found.at[2]).toBeCloseTo(0.03, 4);
  });
});
