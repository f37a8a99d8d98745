import { describe, expect, test } from '@jest/globals';
import type { Pattern } from '@jadebell/core/radiation';
import type { PatternFigures, ScatterFigures } from '@jadebell/core/results';
import { frameOf, roundLength } from '../stageview/frameOf.ts';
import { antennaScales, cutOf, patternDb, radarScales } from './patterns.ts';

const eta0 = 376.730313668;
/** E_theta = sin(theta) everywhere: a short dipole along z; 1 W radiated of 2 W accepted of 4 W would be. */
const nTheta = 19;
const nPhi = 36;
const scale = Math.sqrt((2 * eta0 * 3) / (8 * Math.PI));
const pattern: Pattern = {
  nTheta,
  nPhi,
  values: Float64Array.from({ length: nTheta * nPhi * 4 }, (_, i) =>
    i % 4 === 0 ? scale * Math.sin((Math.floor(i / 4 / nPhi) * Math.PI) / (nTheta - 1)) : 0,
  ),
};
const figures = { directivity: 1.5, gain: 0.75, realisedGain: 0.375, fromPattern: 1 } as PatternFigures;

describe('pattern values', () => {
  test('directivity, gain and realised gain differ by their efficiencies', () => {
    const at = antennaScales(figures).map((s) => 10 ** (patternDb(pattern, s, 9, 4) / 10));
    [1.5, 0.75, 0.375].forEach((v, n) => expect(at[n]).toBeCloseTo(v, 6));
  });

  test('radar cross-section is 4 pi times the squared field for a wave of 1 V/m', () => {
    const [radar] = radarScales({ largest: 4 * Math.PI * scale ** 2 } as ScatterFigures);
    expect(radar.unit).toBe('dBsm');
    expect(10 ** (patternDb(pattern, radar, 9, 4) / 10) / (4 * Math.PI * scale ** 2)).toBeCloseTo(1, 9);
  });

  test('a cut is a full turn: up one side, down the other', () => {
    const [directivity] = antennaScales(figures);
    const cut = cutOf(pattern, directivity, 'phi90');
    expect(cut).toHaveLength(36);
    expect(cut[0]).toBeLessThan(-90);
    expect(cut[9]).toBeCloseTo(10 * Math.log10(1.5), 6);
    expect(cut[18]).toBeLessThan(-90);
    expect(cut[27]).toBeCloseTo(cut[9], 9);
    expect(cutOf(pattern, directivity, 'horizon').every((v) => Math.abs(v - cut[9]) < 1e-9)).toBe(true);
  });
});

test('views are framed around the bodies; scale bars have round lengths', () => {
  expect(frameOf([])).toEqual({ centre: [0, 0, 0], size: 0.1 });
  expect(frameOf([{ min: [0, 0, 0], max: [4, 2, 0] }, { min: [-2, 0, 0], max: [0, 1, 1] }])).toEqual({ centre: [1, 1, 0.5], size: 6 }); // prettier-ignore
  expect([0.0123, 0.049, 0.05, 0.99].map(roundLength)).toEqual([0.01, 0.02, 0.05, 0.5].map((v) => expect.closeTo(v, 12)));
});
