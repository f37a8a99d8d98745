import { directionsOf, type RecorderTold } from '../../recorders/index.ts';
import { excitationKey, type PatternFigures, type ResultArray, type ResultMeta, type ScatterFigures, type Told } from '../../results/index.ts';
import { farFieldOf, loadImpedance, type SceneWave, type WireScene, type WiresScene } from '../../scene/index.ts';
import { abs2, type Complex, mul } from '../../numerics/complex.ts';
import { c0 } from '../../numerics/constants.ts';
import type { WireMesh } from '../../grid/index.ts';
import type { WireEvidence } from '../../methods/index.ts';
import type { circuitOf } from './circuit.ts';
import { endCurrents, testField } from './excite.ts';
import { antennaFigures, crossSectionBack, type FieldSource, patternOf, scatterFigures, tellRecorders } from './recorded.ts';
import { coefficients, type Direction, type Drives, type Excited, exciteDrives, fromDirection, placeCurrent, waveOut } from './solution.ts';
import { incidentField } from './sources.ts';
import { wireImpedance } from './wireMetal.ts';

/** What a frequency's drives make of an excitation: of the port that sends, or of the source. */
export type Excite = (drives: Drives, frequency: number, sends: number | null) => Excited;

/** Power of a voltage (V) and a current (A), W. */
const powerInto = ([a, b]: Complex, [c, d]: Complex): number => (a * c + b * d) / 2;

/** What a result says of itself beside its evidence: ports, the source, what was recorded of each turn, and the wires. */
export function metaOf(
  scene: WiresScene,
  mesh: WireMesh,
  at: number[],
  excitations: number[],
  told: readonly Turn[],
): Omit<Told<WireEvidence>, 'evidence'> {
  const { wires, source } = scene;
  const asked = farFieldOf(scene);
  const far = asked && at.length ? { name: asked.name, step: directionsOf(asked.step).step } : null;
  const first = told[0];
  const lit = source?.kind === 'wave' && {
    wave: {
      name: source.name,
      theta: source.from[0],
      phi: source.from[1],
      ...(source.strength !== undefined ? { strength: source.strength } : {}),
      ...(source.sweep ? { directions: source.sweep.map((w) => w.from) } : {}),
    },
    scattered: far && first?.scattered ? { ...far, figures: first.scattered } : null,
  };
  return {
    solver: 'moment',
    ports: wires.ports.map((p) => ({ name: p.name, resistance: p.resistance, ...(p.reactance ? { reactance: p.reactance } : {}) })),
    excitations,
    recordAt: at,
    farField: far && first?.figures ? { ...far, figures: first.figures } : null,
    ...lit,
    ...(source?.kind === 'dipole' ? { dipole: { name: source.name, of: source.of, at: source.at, direction: source.direction } } : {}),
    recorded: first?.recorded ?? [],
    wires: wires.wires.map((w, n) => ({
      name: w.name,
      line: w.line,
      first: mesh.firstOf[n],
      count: mesh.firstOf[n + 1] - mesh.firstOf[n],
      radius: w.radius,
    })),
    probes: probesOf(wires),
    ...(told.length > 1 ? { others: told.slice(1).map((t, i) => ({ turn: i + 1, figures: t.figures, recorded: t.recorded })) } : {}),
  };
}

/** Places whose voltage and current a result keeps, in its order. */
const probesOf = (w: WireScene): NonNullable<ResultMeta['probes']> => [
  ...w.ports.map(({ name }) => ({ name, kind: 'port' as const })),
  ...w.loads.map(({ name }) => ({ name, kind: 'load' as const })),
  ...w.probes.map(({ name }) => ({ name, kind: 'point' as const })),
];

/** Fewest segments for a wavelength at a frequency, Hz. */
export function leastPerWavelength(mesh: WireMesh, frequency: number): number {
  let most = 0;
  for (let i = 0; i < mesh.count; i++) most = Math.max(most, mesh.segments[8 * i + 6]);
  return c0 / frequency / most;
}

/** S and the probes over the band, as arrays; what they tell of themselves. */
export function tellBand(
  wires: WireScene,
  circuit: ReturnType<typeof circuitOf>,
  band: Float64Array,
  turns: readonly (number | null)[],
  at: (f: number) => Drives,
  excite: Excite,
  arrays: Record<string, ResultArray>,
): Pick<WireEvidence, 'largestReflection' | 'asymmetry'> {
  const p = wires.ports.length;
  const excited = turns.filter((t): t is number => t !== null);
  const s = new Float64Array(2 * band.length * p * excited.length);
  const probes = probesOf(wires);
  const kept = turns.map(() => probes.map(() => new Float64Array(4 * band.length)));
  let largest = 0;
  let asymmetry: number | null = null;
  band.forEach((frequency, f) => {
    const drives = at(frequency);
    turns.forEach((sends, turn) => {
      const e = excite(drives, frequency, sends);
      probes.forEach((_, i) =>
        kept[turn][i].set([...voltageAt(wires, e, drives, circuit, i, frequency), ...placeCurrent(drives, circuit, e, i)], 4 * f),
      );
      if (sends === null) return;
      let out = 0;
      for (let to = 0; to < p; to++) {
        const b = waveOut(e, wires, to);
        s.set(b, 2 * ((f * p + to) * excited.length + turn));
        out += abs2(b);
      }
      largest = Math.max(largest, Math.sqrt(out));
    });
    for (const [i, from] of excited.entries())
      for (const [j, to] of excited.entries()) {
        if (j <= i) continue;
        const one = 2 * ((f * p + to) * excited.length + i);
        const other = 2 * ((f * p + from) * excited.length + j);
        asymmetry = Math.max(asymmetry ?? 0, Math.hypot(s[one] - s[other], s[one + 1] - s[other + 1]));
      }
  });
  arrays.frequency = { shape: [band.length], data: band };
  if (excited.length) arrays.s = { shape: [band.length, p, excited.length, 2], data: s };
  turns.forEach((_, turn) =>
    probes.forEach(({ name }, i) => (arrays[excitationKey(`probe:${name}`, turn)] = { shape: [band.length, 4], data: kept[turn][i] })),
  );
  return { largestReflection: largest, asymmetry };
}

/** Voltage of a port, or across a load along the wire's current; of a mere point there is none. */
function voltageAt(wires: WireScene, e: Excited, drives: Drives, circuit: ReturnType<typeof circuitOf>, place: number, frequency: number): Complex {
  if (place < wires.ports.length) return e.voltage[place];
  const load = wires.loads[place - wires.ports.length];
  if (!load) return [0, 0];
  return mul(loadImpedance(load.load, frequency), placeCurrent(drives, circuit, e, place));
}

/** Voltages and currents, and the cross-section back, from each direction of a sweep. */
export function tellSweep(
  { wires, mesh, at, solved, circuit, arrays }: Pick<TurnInput, 'wires' | 'mesh' | 'at' | 'solved' | 'circuit' | 'arrays'>,
  swept: readonly Direction[][],
  directions: readonly SceneWave[],
): void {
  const n = directions.length;
  const probes = probesOf(wires);
  const kept = probes.map(() => new Float64Array(4 * n * at.length));
  const back = new Float64Array(n * at.length);
  swept.forEach((list, f) =>
    list.forEach((direction, d) => {
      const drives = fromDirection(solved[f], direction);
      const e = exciteDrives(drives, circuit, wires, null);
      probes.forEach((_, i) =>
        kept[i].set([...voltageAt(wires, e, drives, circuit, i, at[f]), ...placeCurrent(drives, circuit, e, i)], 4 * (f * n + d)),
      );
      const currents = { segments: mesh.segments, currents: endCurrents(mesh, coefficients(mesh, drives, e)) };
      back[f * n + d] = crossSectionBack(wires, currents, at[f], directions[d].from);
    }),
  );
  probes.forEach(({ name }, i) => (arrays[`sweep:probe:${name}`] = { shape: [at.length, n, 4], data: kept[i] }));
  arrays['sweep:back'] = { shape: [at.length, n], data: back };
}

interface TurnInput {
  scene: WiresScene;
  wires: WireScene;
  mesh: WireMesh;
  at: readonly number[];
  solved: readonly Drives[];
  circuit: ReturnType<typeof circuitOf>;
  excite: Excite;
  turn: number;
  sends: number | null;
  arrays: Record<string, ResultArray>;
  rest(): Promise<void>;
}
export interface Turn {
  figures: PatternFigures[] | null;
  scattered: ScatterFigures[] | null;
  balance: number[] | null;
  recorded: RecorderTold[];
}

/** Everything of one excitation at the recorded frequencies. */
export async function tellTurn(input: TurnInput): Promise<Turn> {
  const { scene, wires, mesh, at, solved, excite, turn, sends, arrays, rest } = input;
  const excited = solved.map((d, f) => excite(d, at[f], sends));
  const waves = solved.map((d, f) => coefficients(mesh, d, excited[f]));
  const sources = waves.map((x, f): FieldSource => ({
    frequency: at[f],
    currents: { segments: mesh.segments, currents: endCurrents(mesh, x) },
    // The source is the last drive.
    incident: scene.source && { field: incidentField(wires, scene.source, at[f]), size: excited[f].factors.at(-1)![0] },
  }));
  const currents = new Float64Array(4 * mesh.count * at.length);
  sources.forEach((s, f) => currents.set(s.currents.currents, 4 * mesh.count * f));
  arrays[excitationKey('wire:current', turn)] = { shape: [at.length, mesh.count, 2, 2], data: currents };
  const lineOf = (segment: number): string => wires.wires[mesh.wireOf[segment]].line;
  const recorded = at.length ? await tellRecorders(scene, { segments: mesh.segments, lineOf }, sources, turn, arrays, rest) : [];
  const far = farFieldOf(scene);
  if (!far || !at.length) return { figures: null, scattered: null, balance: null, recorded };
  return { ...(await tellFar(input, far, excited, waves, sources)), recorded };
}

/** Patterns of one excitation, with what they and losses come to. */
async function tellFar(
  { scene, wires, mesh, at, solved, circuit, turn, arrays, rest }: TurnInput,
  far: NonNullable<ReturnType<typeof farFieldOf>>,
  excited: readonly Excited[],
  waves: readonly Float64Array[],
  sources: readonly FieldSource[],
): Promise<Omit<Turn, 'recorded'>> {
  const { nTheta, nPhi } = directionsOf(far.step);
  const kept = far.kept?.filter((f) => f < at.length) ?? at.map((_, f) => f);
  const data = new Float64Array(kept.length * nTheta * nPhi * 4);
  const figures: PatternFigures[] = [];
  const scattered: ScatterFigures[] = [];
  const balance: number[] = [];
  const overEarth = wires.ground?.kind === 'earth';
  const { source: from } = scene;
  for (const [n, f] of kept.entries()) {
    const source = sources[f];
    await rest();
    const p = patternOf(wires, source, nTheta, nPhi);
    data.set(p.pattern.values, n * nTheta * nPhi * 4);
    const e = excited[f];
    const inMetal = metalLosses(wires, mesh, source);
    const inLoads = wires.loads.reduce((sum, { load }, i) => {
      const current = placeCurrent(solved[f], circuit, e, wires.ports.length + i);
      return sum + (loadImpedance(load, at[f])[0] * abs2(current)) / 2;
    }, 0);
    const fromPorts = wires.ports.reduce((sum, _, i) => sum + powerInto(e.voltage[i], e.current[i]), 0);
    if (from?.kind !== 'wave') {
      // A dipole gives 1 W, of which ports as loads take their part: their voltage drops against the current.
      const [accepted, inPorts] = from ? [1, -fromPorts] : [fromPorts, 0];
      const own = antennaFigures(at[f], p, accepted, inMetal, inLoads + inPorts, overEarth);
      figures.push(own);
      balance.push((accepted - own.radiated - own.lost) / accepted);
      continue;
    }
    const taken = inLoads - fromPorts + inMetal.reduce((s, m) => s + m.power, 0);
    const work = testField(mesh, source.incident!.field, mesh.bases);
    let given = 0;
    for (let i = 0; i < work.length; i += 2) given += (work[i] * waves[f][i] + work[i + 1] * waves[f][i + 1]) / 2;
    scattered.push(scatterFigures(wires, from, source, p, taken, given));
    balance.push((given - p.power - taken) / given);
  }
  arrays[excitationKey('farField', turn)] = { shape: [kept.length, nTheta, nPhi, 4], data };
  const lit = from?.kind === 'wave';
  return { figures: lit ? null : figures, scattered: lit ? scattered : null, balance: overEarth ? null : balance };
}

/** Power lost in the metal of each wire, W: R |I|^2 / 2 along linear currents. */
function metalLosses(wires: WireScene, mesh: WireMesh, { frequency, currents }: FieldSource): { line: string; power: number }[] {
  const losses = new Map<string, number>();
  wires.wires.forEach((wire, n) => {
    const [r] = wireImpedance(wire, frequency);
    if (!r) return;
    let power = 0;
    for (let i = mesh.firstOf[n]; i < mesh.firstOf[n + 1]; i++) {
      const [a, b, c, d] = currents.currents.subarray(4 * i, 4 * i + 4);
      // Mean of |I|^2 along the segment.
      power += (r * mesh.segments[8 * i + 6] * (a * a + b * b + c * c + d * d + a * c + b * d)) / 6;
    }
    losses.set(wire.line, (losses.get(wire.line) ?? 0) + power);
  });
  return [...losses].map(([line, power]) => ({ line, power }));
}

/** Where the segments lie. */
export function wireArrays(mesh: WireMesh, arrays: Record<string, ResultArray>): void {
  arrays['wire:segments'] = { shape: [mesh.count, 8], data: mesh.segments };
  arrays['wire:along'] = { shape: [mesh.count], data: mesh.along };
}
