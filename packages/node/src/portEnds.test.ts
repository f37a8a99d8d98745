import { beforeAll, describe, expect, test } from '@jest/globals';
import { decibel, sCurve } from '@jadebell/core/results';
import type { GridScene, SceneGuide } from '@jadebell/core/scene';
import { type SolverHost, solvers } from '@jadebell/core/solvers';
import { halved, plainBody, plainScene } from '@jadebell/verification/bench';
import { nodeHost } from './index.ts';

const metal = { name: 'metal', kind: 'conductor' } as const;
const [w, h, length] = [1.8e-3, 0.8e-3, 20e-3];
let host: SolverHost;
beforeAll(async () => {
  host = await nodeHost(1);
});
const solve = (scene: GridScene): ReturnType<typeof solvers.fdtd.solve> => solvers.fdtd.solve(scene, { host });

interface Line {
  /** The model ends at the ports, or goes on behind them. */
  ends: boolean;
  /** Half the width and the height of the ports. */
  port: [number, number];
  open?: boolean;
  tan?: number;
}
/** A microstrip between guided ports, in a box or in the open. */
function line({ ends, port: [side, top], open, tan = 0 }: Line, more: Partial<GridScene> = {}): GridScene {
  const board = { name: 'board', kind: 'dielectric', permittivity: 3.5, lossTangent: tan } as const;
  const [from, to] = ends ? [0, length] : [-1, 1];
  const margin = ends ? 8e-3 : 0;
  const port = (name: string, order: number, into: 1 | -1): SceneGuide => {
    const x = into > 0 ? 0 : length;
    return {
      name,
      order,
      normal: 0,
      into,
      min: [x, -side, 0],
      max: [x, side, top],
      modes: 1,
      shift: 0,
      inhomogeneous: true,
      ...(ends ? { ends } : {}),
    };
  };
  const sheet = (name: string, offset: number, half: number) =>
    plainBody(name, 1, metal, { form: 'sheet', normal: 2, offset, loops: [[[from, -half], [to, -half], [to, half], [from, half]]] }); // prettier-ignore
  return plainScene({
    bodies: [
      plainBody('board', 0, board, { form: 'box', min: [from, -15e-3, 0], max: [to, 15e-3, h] }),
      sheet('strip', h, w / 2),
      ...(open ? [sheet('ground', 0, 15e-3)] : []),
    ],
    ports: [],
    guides: [port('left', 0, 1), port('right', 1, -1)],
    min: [-margin, open ? -20e-3 : -5e-3, open ? -8e-3 : 0],
    max: [length + margin, open ? 20e-3 : 5e-3, open ? 12e-3 : 6e-3],
    band: { from: 4e9, to: 8e9, points: 5 },
    boundaries: open ? Array<'open'>(6).fill('open') : ['open', 'open', 'electric', 'electric', 'electric', 'electric'],
    accuracy: 'draft',
    ...more,
  });
}
const worst = (s: [number, number][]): number => Math.max(...s.map(decibel));

describe('a guided port at which the model ends', () => {
  test('takes its wave as if the line went on, with loss as well, whole or half behind a magnetic wall', async () => {
    for (const tan of [0, 0.02]) {
      const [on, ends] = [line({ ends: false, port: [5e-3, 6e-3], tan }), line({ ends: true, port: [5e-3, 6e-3], tan })];
      const [a, b, half] = [await solve(on), await solve(ends), await solve(halved(ends, 1, 0))];
      if (!tan) process.stdout.write(`straight line, ${worst(sCurve(b.arrays.s, 0, 0)).toFixed(1)} dB reflected\n`);
      if (!tan) for (const r of [b, half]) expect(worst(sCurve(r.arrays.s, 0, 0))).toBeLessThan(-100);
      for (const to of [0, 1])
        sCurve(a.arrays.s, to, 0).forEach((s, f) => {
          for (const other of [b, half]) {
            const t = sCurve(other.arrays.s, to, 0)[f];
            expect(Math.hypot(t[0] - s[0], t[1] - s[1])).toBeLessThan(2e-4);
          }
        });
      expect(half.meta.evidence.residualEnergy).toBeLessThan(1e-6);
    }
  });

  test('stays quiet for long after the pulse', async () => {
    const scene = line({ ends: true, port: [5e-3, 6e-3] }, { details: { stopAt: 1e-30, maxSteps: 12000 } });
    const { meta } = await solve(halved({ ...scene, guides: scene.guides.slice(0, 1) }, 1, 0));
    expect(meta.evidence.steps).toBeGreaterThan(5000);
    expect(meta.evidence.residualEnergy).toBeLessThan(1e-6);
  });

  test('in the open sends what it does not take back into space: the power is kept', async () => {
    const recorded: Partial<GridScene> = { recorders: [{ kind: 'far-field', name: 'pattern', step: Math.PI / 18 }], recordAt: [6e9] };
    const scene = line({ ends: true, open: true, port: [4.5e-3, 4e-3] }, recorded);
    // The line is left open at its other end.
    const strip = scene.bodies.find((b) => b.name === 'strip')!;
    strip.shape = { form: 'sheet', normal: 2, offset: h, loops: [[[0, -w / 2], [14e-3, -w / 2], [14e-3, w / 2], [0, w / 2]]] }; // prettier-ignore
    strip.max = [14e-3, w / 2, h];
    const { meta } = await solve({ ...scene, guides: scene.guides.slice(0, 1) });
    const [{ radiated, accepted, fromPattern }] = meta.farField!.figures;
    process.stdout.write(`an open end radiates ${radiated.toExponential(3)} W of ${accepted.toExponential(3)} W that it takes\n`);
    expect(accepted).toBeGreaterThan(5e-3);
    expect(Math.abs(radiated - accepted)).toBeLessThan(3e-4);
    expect(Math.abs(fromPattern / radiated - 1)).toBeLessThan(0.02);
  });
});

describe('a guided port behind which the model goes on', () => {
  test('of five widths by five heights on an open line reflects nothing, and its wave is no radiation', async () => {
    const recorded: Partial<GridScene> = { recorders: [{ kind: 'far-field', name: 'pattern', step: Math.PI / 18 }], recordAt: [6e9] };
    const { meta, arrays } = await solve(line({ ends: false, open: true, port: [4.5e-3, 4e-3] }, recorded));
    const [{ radiated, fromPattern }] = meta.farField!.figures;
    process.stdout.write(`open line: ${worst(sCurve(arrays.s, 0, 0)).toFixed(1)} dB reflected, ${radiated.toExponential(2)} W of 1 W leave it\n`);
    expect(worst(sCurve(arrays.s, 0, 0))).toBeLessThan(-60);
    expect(Math.abs(radiated)).toBeLessThan(5e-4);
    expect(fromPattern).toBeLessThan(5e-4);
  });
});
