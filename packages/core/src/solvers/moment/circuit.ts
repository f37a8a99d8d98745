import { currentAt, type WireMesh } from '../../grid/index.ts';
import { loadImpedance, type WireScene } from '../../scene/index.ts';
import type { WireSystem } from './system.ts';
import { coatPotential, wireImpedance } from './wireMetal.ts';

/** What hangs on the wires, as rows of the system: currents at points are sums over bases. */
export interface Circuit {
  ports: [basis: number, sign: number][][];
  loads: [basis: number, sign: number][][];
  probes: [basis: number, sign: number][][];
  lines: [[basis: number, sign: number][], [basis: number, sign: number][]][];
  /** Whether what the wires do to a dipole is kept after the currents at all places. */
  heard: boolean;
}

/** What hangs on the wires of a scene, on its mesh. */
export const circuitOf = (scene: WireScene, mesh: WireMesh, heard = false): Circuit => ({
  ports: scene.ports.map((p) => currentAt(mesh, p.place)),
  loads: scene.loads.map((p) => currentAt(mesh, p.place)),
  probes: scene.probes.map((p) => currentAt(mesh, p.place)),
  lines: scene.lines.map(({ places: [a, b] }) => [currentAt(mesh, a), currentAt(mesh, b)]),
  heard,
});

/** How many unknowns there are beside the bases: the two voltages of each line. */
export const extraUnknowns = (scene: WireScene): number => 2 * scene.lines.length;

/** Adds to a filled system what wires lose and store by themselves, loads and lines. */
export function addCircuit(system: WireSystem, scene: WireScene, circuit: Circuit, frequency: number): void {
  addWires(system, scene, frequency);
  scene.loads.forEach(({ load }, i) => {
    const [re, im] = loadImpedance(load, frequency);
    for (const [m, s] of circuit.loads[i]) for (const [n, t] of circuit.loads[i]) system.add(m, n, s * t * re, s * t * im);
  });
  addLines(system, scene, circuit, frequency);
}

/** Skin effect along the current, the coat's potential on the charge; both act on a segment alone. */
function addWires(system: WireSystem, scene: WireScene, frequency: number): void {
  const { mesh } = system;
  const w = 2 * Math.PI * frequency;
  const own = scene.wires.map((wire) => wireImpedance(wire, frequency));
  const coats = scene.wires.map((wire) => coatPotential(wire));
  if (![...own, ...coats].some(([re, im]) => re || im)) return;
  const at: [basis: number, end: number, sign: number][][] = Array.from({ length: mesh.count }, () => []);
  for (let b = 0; b < mesh.bases; b++)
    for (let h = mesh.halfFirst[b]; h < mesh.halfFirst[b + 1]; h++) at[mesh.halves[h].segment].push([b, mesh.halves[h].end, mesh.halves[h].sign]);
  at.forEach((list, i) => {
    const wire = mesh.wireOf[i];
    const length = mesh.segments[8 * i + 6];
    const [zr, zi] = own[wire];
    // Potential over j w: (re + j im) / (j w).
    const [cr, ci] = [coats[wire][1] / w, -coats[wire][0] / w];
    for (const [m, e, s] of list)
      for (const [n, f, t] of list) {
        const same = (s * t * length) / (e === f ? 3 : 6);
        const slope = (s * t * (e === f ? 1 : -1)) / length;
        system.add(m, n, zr * same + cr * slope, zi * same + ci * slope);
      }
  });
}

/**
 * A line between two gaps: its voltages are unknowns of their own, so that no length is special. With I the currents that leave the wires' gaps into it,
 * V1 = cos V2 + j Z sin I2', I1 = j sin / Z V2 + cos I2', I2' = -I2.
 */
function addLines(system: WireSystem, scene: WireScene, circuit: Circuit, frequency: number): void {
  scene.lines.forEach(({ impedance, delay }, i) => {
    const [v1, v2] = [system.mesh.bases + 2 * i, system.mesh.bases + 2 * i + 1];
    const angle = 2 * Math.PI * frequency * delay;
    const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
    // A gap's voltage drops along the current of the wire.
    for (const [m, s] of circuit.lines[i][0]) system.add(m, v1, s, 0);
    for (const [m, s] of circuit.lines[i][1]) system.add(m, v2, s, 0);
    // V1 - cos V2 + j Z sin I2 = 0
    system.add(v1, v1, 1, 0);
    system.add(v1, v2, -cos, 0);
    for (const [n, s] of circuit.lines[i][1]) system.add(v1, n, 0, impedance * sin * s);
    // Z I1 - j sin V2 + Z cos I2 = 0
    for (const [n, s] of circuit.lines[i][0]) system.add(v2, n, impedance * s, 0);
    system.add(v2, v2, 0, -sin);
    for (const [n, s] of circuit.lines[i][1]) system.add(v2, n, impedance * cos * s, 0);
  });
}
