import { beforeAll, describe, expect, test } from '@jest/globals';
import { thorough } from '@jadebell/verification/thorough';
import { freePower, wireNearField, withGround } from '@jadebell/core/radiation';
import type { PlacedRecorder, SceneDipole, WireScene, WiresScene } from '@jadebell/core/scene';
import type { SolverHost } from '@jadebell/core/solvers';
import { f, plainWire, solveWires, upright, wireScene, wl } from '@jadebell/verification/wireBench';
import { nodeHost } from './index.ts';

let host: SolverHost;
beforeAll(async () => {
  host = await nodeHost(2);
});
const far: PlacedRecorder = { kind: 'far-field', name: 'far', step: Math.PI / 36 };
const dipole = (of: SceneDipole['of'], at: SceneDipole['at'], direction: SceneDipole['direction']): SceneDipole => ({
  kind: 'dipole',
  name: 'spot',
  order: 0,
  of,
  at,
  direction,
});
const slanted: SceneDipole['direction'] = [0.36, 0.48, 0.8];
const perfect = { kind: 'perfect', at: 0 } as const;

/** A bent wire with a port and a load beside a dipole. */
function beside(source: SceneDipole, ground: WireScene['ground'], more: Partial<WiresScene> = {}): WiresScene {
  const bent = plainWire('w', [[0, 0, 0.1 * wl], [0.1 * wl, 0, 0.3 * wl], [0.4 * wl, 0.1 * wl, 0.35 * wl]], 1e-3 * wl); // prettier-ignore
  return {
    ...wireScene({
      wires: [{ ...bent, metal: { conductivity: 1e6, permeability: 1 } }],
      ports: [[0, 0.1 * wl]],
      frequency: f,
      accuracy: 'fine',
      recorders: [far],
      more: { ground, loads: [{ name: 'load', place: { wire: 0, at: 0.3 * wl }, load: { form: 'series', r: 70, l: 0, c: 0 } }] },
    }),
    source,
    ...more,
  };
}

describe('a current dipole beside wires', () => {
  test('over a perfect ground gives what theory says of it and its image', async () => {
    // Any wire far off and short will do: nothing flows on it.
    const idle = upright('idle', wl / 400, 1e-5 * wl, [9 * wl, 0, wl]);
    const d = 0.17 * wl;
    const x = (4 * Math.PI * d) / wl;
    const [s, c] = [Math.sin(x), Math.cos(x)];
    const [across, along] = [3 * (s / x ** 3 - c / x ** 2), 1.5 * (s / x + c / x ** 2 - s / x ** 3)];
    // J. R. Wait, Geophysics 1969, or by the field of the image; magnetic moments by duality.
    const theory = { electric: [1 + across, 1 - along], magnetic: [1 - across, 1 + along] };
    for (const kind of ['electric', 'magnetic'] as const)
      for (const [n, direction] of (
        [
          [0, 0, 1],
          [0.6, 0.8, 0],
        ] as SceneDipole['direction'][]
      ).entries()) {
        const scene = {
          ...wireScene({ wires: [idle], frequency: f, more: { ground: perfect }, recorders: [far] }),
          source: dipole(kind, [0, 0, d], direction),
        };
        const { arrays, meta } = await solveWires(scene, host);
        const off = arrays['source:power'].data[0] / freePower(kind, f) / theory[kind][n] - 1;
        process.stdout.write(`${kind}, ${n ? 'level' : 'upright'}: off by ${off.toExponential(1)}; balance ${meta.evidence.powerBalance![0].toExponential(1)}\n`); // prettier-ignore
        expect(Math.abs(off)).toBeLessThan(1e-4);
        expect(Math.abs(meta.evidence.powerBalance![0])).toBeLessThan(2e-3);
      }
  });

  test.each(['electric', 'magnetic'] as const)('gives what wires radiate and lose, ports and loads counted in: %s', async (of) => {
    for (const ground of [null, perfect]) {
      const source = dipole(of, [0.03 * wl, 0.015 * wl, 0.22 * wl], slanted);
      const { arrays, meta } = await solveWires(beside(source, ground), host);
      const [figures] = meta.farField!.figures;
      process.stdout.write(`${of}${ground ? ' over ground' : ''}: ${(arrays['source:power'].data[0] / freePower(of, f)).toFixed(3)} times as in free space, radiates ${figures.radiated.toFixed(4)}, loses ${figures.lost.toFixed(4)} of 1 W\n`); // prettier-ignore
      // Much of it must go through the wires, or nothing is shown.
      expect(figures.lost).toBeGreaterThan(0.1);
      expect(Math.abs(meta.evidence.powerBalance![0])).toBeLessThan(5e-3);
    }
  });

  thorough('drives a port as the port’s field drives it', async () => {
    for (const kind of ['electric', 'magnetic'] as const) {
      const source = dipole(kind, [0.15 * wl, -0.1 * wl, 0.2 * wl], slanted);
      const { arrays } = await solveWires(beside(source, perfect), host);
      const current = Math.hypot(arrays['probe:p1'].data[2], arrays['probe:p1'].data[3]) * Math.sqrt(arrays['source:power'].data[0]);
      // The port sends 1 W from behind 50 ohm, sqrt(8 R) V; what its currents and their images make at the dipole's place is the field on it.
      const sent = await solveWires(beside(source, perfect, { source: null }), host);
      const [segments, currents] = [sent.arrays['wire:segments'], sent.arrays['wire:current']].map((x) => x.data as Float64Array);
      const field = new Float64Array(12);
      wireNearField(withGround({ segments, currents }, 0), f, source.at, field);
      const along = [0, 1].map((c) => slanted.reduce((sum, d, a) => sum + d * field[(kind === 'electric' ? 0 : 6) + 2 * a + c], 0));
      const off = (Math.sqrt(8 * 50) * current) / Math.hypot(...along) - 1;
      process.stdout.write(`${kind}: reciprocity off by ${off.toExponential(1)}\n`);
      expect(Math.abs(off)).toBeLessThan(2e-3);
    }
  });

  test('over a band, by a fit of few frequencies, as solved at each', async () => {
    const band = { from: 0.8 * f, to: 1.2 * f, points: 31 };
    const source = dipole('electric', [0.05 * wl, 0.02 * wl, 0.25 * wl], slanted);
    const [fitted, each] = await Promise.all(
      [false, true].map((eachFrequency) => solveWires(beside(source, null, { band, recorders: [], recordAt: [], details: { eachFrequency } }), host)),
    );
    expect(fitted.meta.evidence.solved).toBeLessThan(20);
    const most = Math.max(...each.arrays['source:power'].data);
    each.arrays['source:power'].data.forEach((p, n) => expect(Math.abs(fitted.arrays['source:power'].data[n] - p) / most).toBeLessThan(1e-3));
  });
});
