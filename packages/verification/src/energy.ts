import { recordedOf } from '@jadebell/core/results';
import { eps0 } from '@jadebell/core/numerics';
import type { GridScene } from '@jadebell/core/scene';
import { type SolverHost, solvers } from '@jadebell/core/solvers';
import { plainBody, plainScene } from './bench.ts';
import { type Case, percent } from './case.ts';

/** Radius, permittivity and loss tangent of the ball. */
export const ball = { radius: 2e-3, permittivity: 4, lossTangent: 0.01, frequency: 1.2e9 };

/** A dielectric ball far smaller than a wave, lit by a plane wave of 1 V/m, with the energy in it recorded. */
export function litBall(cell: number): GridScene {
  const { radius, permittivity, lossTangent, frequency } = ball;
  return plainScene({
    bodies: [plainBody('ball', 0, { name: 'glassy', kind: 'dielectric', permittivity, lossTangent }, { form: 'ball', centre: [0, 0, 0], radii: [radius, radius, radius] })], // prettier-ignore
    ports: [],
    source: { kind: 'wave', name: 'wave', order: 0, from: [0, 0], towards: [0, 0, -1], re: [1, 0, 0], im: [0, 0, 0] },
    min: [-4e-3, -4e-3, -4e-3],
    max: [4e-3, 4e-3, 4e-3],
    band: { from: 0.6e9, to: 1.8e9, points: 2 },
    recorders: [{ kind: 'energy', name: 'in_ball', line: 'ball' }],
    recordAt: [frequency],
    boxes: [{ min: [-1, -1, -1], max: [1, 1, 1], cell }],
  });
}

/** Electric energy in it, J: the field inside is 3 / (e + 2) of that outside (Jackson, Classical Electrodynamics, 3rd ed., sec. 4.4). */
export const ballEnergy = (): number => {
  const { radius, permittivity: e } = ball;
  return (e * eps0 * (3 / (e + 2)) ** 2 * (4 / 3) * Math.PI * radius ** 3) / 4;
};

/** Energy recorded in a body with a curved surface. */
export const bodyEnergy: Case = {
  name: 'body-energy',
  title: 'Electric energy in a small dielectric ball in a plane wave',
  slow: true,
  async run(host: SolverHost) {
    const wanted = ballEnergy();
    const rows = [];
    for (const [cell, allowed] of [
      [0.4e-3, 6],
      [0.2e-3, 2],
    ]) {
      const started = host.now();
      const { meta } = await solvers.fdtd.solve(litBall(cell), { host });
      const found = recordedOf(meta, 'energy')[0].electric[0];
      rows.push({
        quantity: `energy, ${(ball.radius / cell).toFixed(0)} cells to the radius`,
        reference: `${(wanted * 1e21).toFixed(2)} zJ`,
        source: 'quasi-static field in a ball (Jackson, sec. 4.4)',
        computed: `${(found * 1e21).toFixed(2)} zJ`,
        error: percent(found, wanted),
        allowed,
        unit: '%' as const,
        cells: meta.evidence.cells.reduce((p, n) => p * n, 1),
        seconds: host.now() - started,
      });
    }
    return rows;
  },
};
