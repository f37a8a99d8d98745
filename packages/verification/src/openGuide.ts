import type { GridScene } from '@jadebell/core/scene';
import { solvers } from '@jadebell/core/solvers';
import { plainBody, plainScene } from './bench.ts';
import type { Case, Row } from './case.ts';

const metal = { name: 'metal', kind: 'conductor' } as const;
const [a, b, length, wall] = [15.8e-3, 7.9e-3, 30e-3, 1e-3];

/** A guide of metal plates that is shut behind its port and radiates from its open end, in a region with the given margin, metres. */
export function openGuide(accuracy: GridScene['accuracy'], margin: number): GridScene {
  const plates: [[number, number, number], [number, number, number]][] = [
    [[-3 * wall, -wall, -wall], [length, 0, b + wall]],
    [[-3 * wall, a, -wall], [length, a + wall, b + wall]],
    [[-3 * wall, -wall, -wall], [length, a + wall, 0]],
    [[-3 * wall, -wall, b], [length, a + wall, b + wall]],
    [[-3 * wall, -wall, -wall], [-wall, a + wall, b + wall]],
  ]; // prettier-ignore
  return plainScene({
    bodies: plates.map(([min, max], i) => plainBody(`wall ${i}`, i, metal, { form: 'box', min, max })),
    ports: [],
    guides: [{ name: 'feed', order: 0, normal: 0, into: 1, min: [0, 0, 0], max: [0, a, b], modes: 1, shift: 0 }],
    min: [-margin, -margin, -margin],
    max: [length + margin, a + margin, b + margin],
    band: { from: 12e9, to: 17e9, points: 11 },
    recorders: [{ kind: 'far-field', name: 'pattern', step: Math.PI / 36 }],
    recordAt: [12e9, 14.5e9, 17e9],
    accuracy,
  });
}

/** What an open-ended guide takes in must come out: at two grids, and with the box of the far field near and further off. */
export const openEnded: Case = {
  name: 'open-guide',
  title: 'Open-ended guide 15.8 x 7.9 mm',
  slow: true,
  async run(host) {
    const rows: Row[] = [];
    for (const [accuracy, margin] of [
      ['draft', 5e-3],
      ['draft', 20e-3],
      ['normal', 5e-3],
    ] as const) {
      const started = host.now();
      const { meta } = await solvers.fdtd.solve(openGuide(accuracy, margin), { host });
      const figures = meta.farField!.figures;
      const common = { cells: meta.evidence.cells.reduce((p, n) => p * n, 1), seconds: host.now() - started, reference: '0', unit: '%' as const };
      const worst = (error: (f: (typeof figures)[number]) => number): number => Math.max(...figures.map((f) => Math.abs(error(f)))) * 100;
      const add = (quantity: string, error: number, allowed: number): void => {
        rows.push({ ...common, quantity, source: 'conservation of energy', computed: `${error.toFixed(2)} %`, error, allowed });
      };
      const where = `${accuracy}, ${(margin * 1e3).toFixed(0)} mm of air`;
      add(`accepted against radiated through the box, ${where}`, worst((f) => f.radiated / f.accepted - 1), 1); // prettier-ignore
      add(`accepted against the integral of the pattern, ${where}`, worst((f) => f.fromPattern / f.accepted - 1), accuracy === 'draft' ? 3 : 1.5); // prettier-ignore
    }
    return rows;
  },
};
