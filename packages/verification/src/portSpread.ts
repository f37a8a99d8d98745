import { buildGrid } from '@jadebell/core/grid';
import { eps0 } from '@jadebell/core/numerics';
import { type ResultSet, deembedded } from '@jadebell/core/results';
import type { GridScene } from '@jadebell/core/scene';
import { discretise, facingColumns, columnEdges, calibratePorts, solveScene } from '@jadebell/core/solvers/fdtd/parts';
import type { SolverHost } from '@jadebell/core/solvers';
import { plainBody, plainScene } from './bench.ts';
import type { Case } from './case.ts';
import { dielectric } from './modes/parts.ts';
import type { TimeEvidence } from '@jadebell/core/methods';

const [reach, width, air] = [40e-3, 6e-3, 30e-3];
const metal = { name: 'metal', kind: 'conductor' } as const;

/** A dipole of two strips, or of square bars, 6 mm wide along x, with a port narrower than they are across the gap between them, whose gap is to be taken out. */
export function gappedDipole(gap: number, across: number, bars: boolean, fill: number, more: Partial<GridScene> = {}): GridScene {
  const h = width / 2;
  const arm = (name: string, order: number, from: number, to: number): GridScene['bodies'][0] =>
    bars
      ? plainBody(name, order, metal, { form: 'box', min: [from, -h, -h], max: [to, h, h] })
      : plainBody(name, order, metal, { form: 'sheet', normal: 2, offset: 0, loops: [[[from, -h], [to, -h], [to, h], [from, h]]] }); // prettier-ignore
  const between = plainBody('filling', 0, dielectric(fill), { form: 'box', min: [-gap / 2, -h, -h], max: [gap / 2, h, h] });
  const end = reach + air;
  return plainScene({
    bodies: [...(fill > 1 ? [between] : []), arm('left', 1, -reach, -gap / 2), arm('right', 2, gap / 2, reach)],
    ports: [{ name: 'feed', order: 0, resistance: 50, axis: 0, direction: 1, min: [-gap / 2, -across / 2, 0], max: [gap / 2, across / 2, 0], across: 1, spread: true }],
    min: [-end, -air, -air],
    max: [end, air, air],
    band: { from: 1.2e9, to: 2.2e9, points: 11 },
    details: { cellsPerWavelength: 30 },
    ...more,
  }); // prettier-ignore
}

/** Largest differences of S of a run, with its gap kept and taken out, from that of the whole model with the port's current spread over the metal across the gap. */
export async function againstSpread(scene: GridScene, host: SolverHost): Promise<{ kept: number; out: number; result: ResultSet<TimeEvidence> }> {
  const grid = buildGrid(scene);
  const once = await solveScene(scene, discretise(scene, grid), { host });
  const result = await calibratePorts(scene, grid, once, { host }, solveScene);
  const { columns } = facingColumns(scene.ports[0], scene, grid);
  const plain: GridScene = { ...scene, ports: scene.ports.map((p) => ({ ...p, spread: undefined })) };
  const wide = await solveScene(
    plain,
    discretise(plain, grid, (p, g) => columnEdges(p, g, columns)),
    { host },
  );
  // What is left of the gap then is its capacitance alone.
  const [f, meta] = [result.arrays.frequency.data, result.meta];
  const alone = { ...meta, ports: meta.ports.map((p) => ({ ...p, gap: { ...p.gap!, inductance: [0, 0] as [number, number], mutual: 0 } })) };
  const bare = deembedded(result.arrays.s, f, meta)!.data;
  const reference = deembedded(wide.arrays.s, f, alone)!.data;
  const off = (s: ArrayLike<number>): number => Array.from(f).reduce((m, _, n) => Math.max(m, Math.hypot(s[2 * n] - reference[2 * n], s[2 * n + 1] - reference[2 * n + 1])), 0); // prettier-ignore
  return { kept: off(result.arrays.s.data), out: off(bare), result };
}

/** Gaps of ports that stand at no line's end: in dipoles, by a reference of their surroundings, against the whole model. */
export const portSpread: Case = {
  name: 'port-spread',
  title: 'Gap of a narrow port in a dipole 80 mm long and 6 mm wide, 1.2 to 2.2 GHz, taken out',
  slow: true,
  async run(host: SolverHost) {
    const rows = [];
    for (const [what, gap, across, bars, fill] of [
      ['strips, gap 2 mm, port 1 mm wide', 2e-3, 1e-3, false, 1],
      ['strips, gap 2 mm, port a filament', 2e-3, 0, false, 1],
      ['square bars, gap 1 mm, port 1 mm wide', 1e-3, 1e-3, true, 1],
      ['square bars, gap 1 mm filled with permittivity 3, port 1 mm wide', 1e-3, 1e-3, true, 3],
    ] as const) {
      const started = host.now();
      const { kept, out, result } = await againstSpread(gappedDipole(gap, across, bars, fill), host);
      const { gap: found } = result.meta.ports[0];
      const cells = result.meta.evidence.cells.reduce((p, n) => p * n, 1);
      const seconds = host.now() - started;
      const told = `by ${(found!.inductance[0] * 1e12).toFixed(0)} pH and ${(found!.capacitance[0] * 1e15).toFixed(1)} fF`;
      rows.push({ quantity: `${what}: largest difference of S (kept: ${kept.toFixed(4)})`, reference: '0', source: 'the whole model with the port’s current spread over all metal that faces across the gap, its capacitance taken out', computed: `${out.toFixed(4)}, ${told}`, error: out, allowed: 0.005, unit: '' as const, cells, seconds }); // prettier-ignore
      if (!bars) continue;
      const plates = (eps0 * fill * width ** 2) / gap;
      rows.push({ quantity: `${what}: capacitance across`, reference: `${(plates * 1e15).toFixed(1)} fF`, source: 'parallel plates', computed: `${(found!.capacitance[0] * 1e15).toFixed(1)} fF`, error: 100 * Math.abs(found!.capacitance[0] / plates - 1), allowed: 1, unit: '%' as const, cells, seconds: 0 }); // prettier-ignore
    }
    return rows;
  },
};
