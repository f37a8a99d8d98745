import { describe, expect, test } from '@jest/globals';
import { c0, eta0 } from '../numerics/constants.ts';
import { farFieldAt, type FaceSamples, nearToFar, patternPower, thetaWeights } from './index.ts';
import type { Axis } from '../numerics/axis.ts';

test('the weights integrate polynomials in cos(theta) exactly', () => {
  const w = thetaWeights(12);
  for (const [power, exact] of [
    [0, 2],
    [1, 0],
    [2, 2 / 3],
    [5, 0],
    [8, 2 / 9],
    [12, 2 / 13],
  ])
    // prettier-ignore
    expect(w.reduce((s, v, i) => s + v * Math.cos((i * Math.PI) / 12) ** power, 0)).toBeCloseTo(exact, 12);
});

/** Fields of a short current element along `axis` at `place`, sampled on a box: E (V/m) and eta0 H. */
function boxOfElement(axis: Axis, place: number[], frequency: number, half: number, cells: number): FaceSamples[] {
  const k = (2 * Math.PI * frequency) / c0;
  const field = (p: number[]): { e: [number, number][]; h: [number, number][] } => {
    const d = p.map((v, i) => v - place[i]);
    const r = Math.hypot(...d);
    const n = d.map((v) => v / r);
    const kr = k * r;
    const [c, s] = [Math.cos(kr) / r, -Math.sin(kr) / r];
    const mul = (re: number, im: number): [number, number] => [re * c - im * s, re * s + im * c];
    // E ~ exp(-jkr)/r [ (1 - j/kr - 1/kr^2)(a - (a.n) n) ... ], Balanis eq. 4-8 and 4-10 for a unit jk eta I l / 4 pi.
    const across: [number, number] = [1 - 1 / kr ** 2, -1 / kr];
    const along: [number, number] = [-2 / kr ** 2, -2 / kr];
    const e = [0, 1, 2].map((i) => {
      const a = i === axis ? 1 : 0;
      const t = a - n[axis] * n[i];
      const l = n[axis] * n[i];
      return mul(-t * across[0] + l * along[0], -t * across[1] + l * along[1]);
    });
    const turn = [0, 1, 2].map((i) => {
      const [p1, p2] = [(i + 1) % 3, (i + 2) % 3];
      return (p1 === axis ? n[p2] : 0) - (p2 === axis ? n[p1] : 0);
    });
    // H' = n x E_far direction: a x n for a field -(a - (a.n)n); factor (1 - j/kr).
    const h = turn.map((v) => mul(v, -v / kr));
    return { e, h };
  };
  const step = (2 * half) / cells;
  const coordinates = Float64Array.from({ length: cells }, (_, i) => -half + (i + 0.5) * step);
  const widths = new Float64Array(cells).fill(step);
  const faces: FaceSamples[] = [];
  for (const normal of [0, 1, 2] as const)
    for (const outward of [1, -1] as const) {
      const axes = ([0, 1, 2] as const).filter((a) => a !== normal) as [Axis, Axis];
      for (const component of axes)
        for (const magnetic of [false, true]) {
          const re = new Float64Array(cells * cells);
          const im = new Float64Array(cells * cells);
          for (let o = 0; o < cells; o++)
            for (let i = 0; i < cells; i++) {
              const p = [0, 0, 0];
              p[normal] = outward * half;
              p[axes[0]] = coordinates[i];
              p[axes[1]] = coordinates[o];
              const f = field(p);
              [re[o * cells + i], im[o * cells + i]] = (magnetic ? f.h : f.e)[component];
            }
          faces.push({
            normal,
            outward,
            at: outward * half,
            component,
            magnetic,
            axes,
            coordinates: [coordinates, coordinates],
            widths: [widths, widths],
            re,
            im,
          });
        }
    }
  return faces;
}

describe('near to far', () => {
  test.each([
    [2, [0, 0, 0]],
    [0, [0.01, -0.02, 0.015]],
    [1, [-0.03, 0, 0.02]],
  ] as const)('a current element along axis %d, off the centre', (axis, where) => {
    const place: number[] = [...where];
    const pattern = nearToFar(boxOfElement(axis, place, 1e9, 0.08, 60), 1e9, 19, 36);
    const { power, peak } = patternPower(pattern);
    expect((4 * Math.PI * peak) / power).toBeCloseTo(1.5, 2);
    // Far field of the unit element: |E| = sin(angle to the axis), phase k r'.n.
    const k = (2 * Math.PI * 1e9) / c0;
    expect(power).toBeCloseTo((8 * Math.PI) / 3 / (2 * eta0), 4);
    for (const [t, f] of [
      [9, 3],
      [4, 20],
      [13, 31],
    ]) {
      // prettier-ignore
      const theta = (t * Math.PI) / 18;
      const phi = (f * 2 * Math.PI) / 36;
      const n = [Math.sin(theta) * Math.cos(phi), Math.sin(theta) * Math.sin(phi), Math.cos(theta)];
      const eTheta = [Math.cos(theta) * Math.cos(phi), Math.cos(theta) * Math.sin(phi), -Math.sin(theta)];
      const ePhi = [-Math.sin(phi), Math.cos(phi), 0];
      const angle = k * place.reduce((s, v, i) => s + v * n[i], 0);
      const at = (t * 36 + f) * 4;
      const v = pattern.values;
      expect(v[at]).toBeCloseTo(-eTheta[axis] * Math.cos(angle), 2);
      expect(v[at + 1]).toBeCloseTo(-eTheta[axis] * Math.sin(angle), 2);
      expect(v[at + 2]).toBeCloseTo(-ePhi[axis] * Math.cos(angle), 2);
      expect(v[at + 3]).toBeCloseTo(-ePhi[axis] * Math.sin(angle), 2);
    }
  });
});

test('a pattern ring by ring is what each direction gives by itself', () => {
  const faces = boxOfElement(1, [0.01, -0.02, 0.03], 2e9, 0.1, 13);
  // Faces of unlike shape, so that rows and columns cannot be taken for each other.
  for (const f of faces) {
    const rows = f.coordinates[1].length - 3;
    f.coordinates[1] = f.coordinates[1].slice(0, rows);
    f.widths[1] = f.widths[1].slice(0, rows);
  }
  const [nTheta, nPhi] = [7, 12];
  const { values } = nearToFar(faces, 2e9, nTheta, nPhi);
  const top = Math.max(...values.map(Math.abs));
  for (let t = 0; t < nTheta; t++)
    for (let p = 0; p < nPhi; p++)
      farFieldAt(faces, 2e9, (t * Math.PI) / (nTheta - 1), (p * 2 * Math.PI) / nPhi).forEach((v, c) =>
        expect(Math.abs(values[(t * nPhi + p) * 4 + c] - v) / top).toBeLessThan(1e-9),
      );
});

test('directions between those that the box needs are drawn to what each gives by itself, on boxes of any shape and place', () => {
  const [frequency, nTheta, nPhi] = [3e9, 91, 180];
  for (const [half, cells, shift] of [
    [0.2, 60, [0, 0, 0]],
    [0.06, 14, [0.5, -0.3, 0.2]],
  ] as const) {
    const faces = boxOfElement(2, [0.03, -0.02, 0.01], frequency, half, cells).map((f): FaceSamples => ({
      ...f,
      at: f.at + shift[f.normal],
      coordinates: f.axes.map((a, n) => f.coordinates[n].map((x) => (a === 1 ? 0.6 : 1) * x + shift[a])) as unknown as FaceSamples['coordinates'],
    })); // prettier-ignore
    const { values } = nearToFar(faces, frequency, nTheta, nPhi);
    const top = Math.max(...values.map(Math.abs));
    let worst = 0;
    for (let t = 0; t < nTheta; t += 7)
      for (let p = 0; p < nPhi; p += 11)
        farFieldAt(faces, frequency, (t * Math.PI) / (nTheta - 1), (p * 2 * Math.PI) / nPhi).forEach(
          (v, c) => (worst = Math.max(worst, Math.abs(values[(t * nPhi + p) * 4 + c] - v) / top)),
        );
    expect(worst).toBeLessThan(1e-9);
  }
});
