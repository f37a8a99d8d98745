import { describe, expect, test } from '@jest/globals';
import type { MaterialEntry } from '@jadebell/core/document';
import { nodeHost } from '@jadebell/node';
import { plainBody, plainScene } from '@jadebell/verification/bench';
import { fdtd } from '@jadebell/core/solvers/fdtd';
import { discretise, Simulation } from '@jadebell/core/solvers/fdtd/parts';
import { buildGrid } from '@jadebell/core/grid';

const medium = (dispersion: MaterialEntry['dispersion'], permittivity: number): MaterialEntry => ({ name: 'medium', kind: 'dielectric', permittivity, dispersion }); // prettier-ignore
const side = 0.1;
/** A ball of a medium in a closed box. */
const scene = (material: MaterialEntry) =>
  plainScene({
    bodies: [plainBody('ball', 0, material, { form: 'ball', centre: [0.052, 0.049, 0.051], radii: [0.03, 0.03, 0.03] })],
    ports: [],
    min: [0, 0, 0],
    max: [side, side, side],
    band: { from: 2e9, to: 3e9, points: 2 },
    boundaries: Array<'electric'>(6).fill('electric'),
    details: { cellsPerWavelength: 12 },
  });

describe('media with memory in the time stepping', () => {
  test.each<[string, MaterialEntry, number]>([
    ['resonant without loss', medium({ form: 'lorentz', infinity: 2, terms: [[1, 6e9, 0]] }, 3.3), 10],
    ['transparent, of an index formula', medium({ form: 'sellmeier', constant: 1, terms: [[1.2, 1.5e4]] }, 2.3), 10],
    ['free carriers without loss', medium({ form: 'poles', infinity: 1.5, poles: [[0, 1e7, 0, -8e12]] }, 2), 10],
    ['relaxing', medium({ form: 'debye', infinity: 2, static: 6, relaxation: 5e-11 }, 5), 1],
  ])(
    '%s: noise in a box with a ball of it never grows',
    async (_, material, most) => {
      const s = scene(material);
      const discrete = discretise(s, buildGrid(s));
      expect(discrete.classes.length).toBeGreaterThan(1);
      const simulation = await Simulation.create(
        {
          discrete,
          waveform: () => 0,
          resistance: () => 50,
          maxSteps: 2400,
          regions: [],
          frequencies: [],
          every: 1,
          lowest: 2e9,
          boundaries: s.boundaries,
        },
        await nodeHost(),
      );
      try {
        let seed = 1;
        simulation.setElectric(() => (seed = (seed * 16807) % 2147483647) / 2147483647 - 0.5);
        const energies: number[] = [];
        for (let n = 0; n < 12; n++) energies.push(await simulation.advance(200));
        // Energy moves between the fields, which are counted, and the medium, which is not; it does not come from nowhere.
        expect(Math.max(...energies.slice(6))).toBeLessThan(most * Math.max(...energies.slice(0, 3)));
        expect(energies.every(Number.isFinite)).toBe(true);
        process.stdout.write(`${energies.map((e) => (e / energies[0]).toFixed(2)).join(' ')}\n`);
      } finally {
        simulation.close();
      }
    },
    60_000,
  );

  test('what they remember counts in the memory that a run is said to need', () => {
    const machine = { memory: 1e10, threads: 1, cellsPerSecond: 1e8 };
    const plain = fdtd.plan(scene({ name: 'plain', kind: 'dielectric', permittivity: 4, lossTangent: 0 }), machine).ready!.estimate;
    const lossy = fdtd.plan(scene({ name: 'lossy', kind: 'dielectric', permittivity: 4, lossTangent: 0.01 }), machine).ready!.estimate;
    const inBox = plain.cells.reduce((p, n) => p * n * 0.6, 1);
    // Some relaxations on three edges a cell, four bytes each.
    expect((lossy.bytes - plain.bytes) / inBox).toBeGreaterThan(20);
    expect((lossy.bytes - plain.bytes) / inBox).toBeLessThan(120);
  });
});
