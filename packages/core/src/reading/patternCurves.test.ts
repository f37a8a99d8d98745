import { expect, test } from '@jest/globals';
import { patternPower } from '../radiation/index.ts';
import type { ResultMeta } from '../results/index.ts';
import { quantities, type RunReading } from './index.ts';

const [nTheta, nPhi] = [37, 72];
/** A Huygens source along x with a share of another that faces down: |E| = a (1 + cos theta) + b (1 - cos theta) along both planes. */
const values = Float64Array.from({ length: 2 * nTheta * nPhi * 4 }, (_, n) => {
  const at = Math.floor(n / 4) % (nTheta * nPhi);
  const [theta, phi] = [(Math.floor(at / nPhi) * Math.PI) / (nTheta - 1), (2 * Math.PI * (at % nPhi)) / nPhi];
  const back = n < nTheta * nPhi * 4 ? 0.1 : 0.5;
  const [up, down] = [1 + Math.cos(theta), back * (1 - Math.cos(theta))];
  return [(up - down) * Math.cos(phi), 0, -(up + down) * Math.sin(phi), 0][n % 4];
});
const power = [0, 1].map((f) => patternPower({ nTheta, nPhi, values: values.subarray(f * nTheta * nPhi * 4, (f + 1) * nTheta * nPhi * 4) }).power);
const figures = [1e9, 2e9].map((frequency, f) => ({ frequency, radiated: 0.6, fromPattern: power[f], accepted: 0.8, lost: 0, theta: 0, phi: 0 }));
const run = {
  meta: { recordAt: [1e9, 2e9], farField: { nTheta, nPhi, figures }, ports: [], excitations: [] } as unknown as ResultMeta,
  frequency: [],
  network: null,
  waves: [],
  array: (name: string) => (name === 'farField' ? { shape: [2, nTheta, nPhi, 4], data: values } : undefined),
} as unknown as RunReading;
const curve = (quantity: string, of: string) => quantities[quantity].curve(run, of)!;

test('front to back, beamwidth and cuts are read of a far field at each of its frequencies', () => {
  expect(quantities['gain-cut'].terms(run.meta).map((t) => t.label)).toEqual(['phi 0° at 1 GHz', 'phi 0° at 2 GHz', 'phi 90° at 1 GHz', 'phi 90° at 2 GHz', 'theta 90° at 1 GHz', 'theta 90° at 2 GHz']); // prettier-ignore
  const ratio = curve('front-to-back', '');
  expect(ratio.x).toEqual([1e9, 2e9]);
  expect(ratio.re[0]).toBeCloseTo(100, 4);
  expect(ratio.re[1]).toBeCloseTo(4, 6);
  // Of 1 W in: 4 pi (2 a)^2 / (2 eta0) over what the pattern sums to, by the share that is radiated.
  const cut = curve('gain-cut', 'yz/2000000000');
  const at = (degrees: number): number => cut.re[Array.from(cut.x).indexOf(degrees)];
  expect([cut.x[0], cut.x[720], cut.x.length]).toEqual([-180, 180, 721]);
  expect(at(0) / at(180)).toBeCloseTo(4, 6);
  expect(at(180)).toBeCloseTo(at(-180), 12);
  expect(at(0)).toBeCloseTo((0.6 * 4 * Math.PI * 4) / (2 * 376.730313668) / power[1], 6);
  expect(at(90) / at(0)).toBeCloseTo((1.5 / 2) ** 2, 6);
  // Half power where (1 + cos) + b (1 - cos) is 2 / sqrt 2.
  const width = curve('beamwidth', 'yz').re[0];
  const half = Math.acos((Math.SQRT2 - 1.1) / 0.9);
  expect(width).toBeCloseTo((2 * half * 180) / Math.PI, 1);
  expect(Number.isNaN(curve('side-lobe', 'yz').re[1])).toBe(true);
  expect(quantities['gain-cut'].curve(run, 'yz/3000000000')).toBeNull();
  expect(quantities.beamwidth.curve(run, 'no')).toBeNull();
  expect(quantities['front-to-back'].terms({ ...run.meta, farField: null } as ResultMeta)).toEqual([]);
});
