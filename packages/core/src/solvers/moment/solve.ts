import { meshWires, type WireMesh } from '../../grid/index.ts';
import { abs2, type Complex, mul } from '../../numerics/complex.ts';
import { c0 } from '../../numerics/constants.ts';
import {
  type PatternFigures,
  type ResultArray,
  type ResultMeta,
  resultOf,
  type ResultSet,
  type ScatterFigures,
  excitationKey,
} from '../../results/index.ts';
import { directionsOf, type RecorderTold } from '../../recorders/index.ts';
import { bandFrequencies, farFieldOf, loadImpedance, type WiresScene, type SceneWave, type WireScene } from '../../scene/index.ts';
import type { SolveOptions } from '../solver.ts';
import { circuitOf, extraUnknowns } from './circuit.ts';
import { endCurrents, testField } from './excite.ts';
import { antennaFigures, crossSectionBack, type FieldSource, patternOf, scatterFigures, tellRecorders } from './recorded.ts';
import {
  coefficients,
  type Drives,
  exciteDrives,
  type Excited,
  dipolePower,
  placeCurrent,
  scaled,
  type Direction,
  fromDirection,
  solveDirections,
  solveDrives,
  waveOut,
} from './solution.ts';
import { incidentField } from './sources.ts';
import { sweepBand } from './sweep.ts';
import { WireSystem } from './system.ts';
import { wireImpedance } from './wireMetal.ts';
import { wireAccuracy, type WireEvidence } from '../../methods/index.ts';

/** Deviation of a fit over the band that is accepted. */
const fitTolerance = { draft: 1e-3, normal: 1e-4, fine: 1e-5, adaptive: 1e-5 } as const;

/** Largest length of a segment for a scene. */
function longestSegment(scene: WiresScene): number {
  const most = Math.max(scene.band.to, ...scene.recordAt);
  return c0 / most / (scene.details.segmentsPerWavelength ?? wireAccuracy[scene.accuracy].perWavelength);
}

/** The segments of a scene at its accuracy. */
export const meshOf = (scene: WiresScene): WireMesh =>
  meshWires(scene.wires, { longest: longestSegment(scene), grading: wireAccuracy[scene.accuracy].grading });

/** Moment of a dipole that gives 1 W, from the power of moment 1; none where it gives no power. */
const strengthOf = (power: number): number => (power > 0 ? 1 / Math.sqrt(power) : 0);

type Excite = (drives: Drives, frequency: number, sends: number | null) => Excited;

const half = ([a, b]: Complex, [c, d]: Complex): number => (a * c + b * d) / 2;

/** Solves a scene of wires: S over the band, then currents, fields and patterns of each port that is excited, or of the wave that lights them. */
export async function solveScene(scene: WiresScene, { host, onProgress, signal }: SolveOptions): Promise<ResultSet<WireEvidence>> {
  const wires = scene.wires;
  const started = host.now();
  const mesh = meshOf(scene);
  const { source } = scene;
  const wave = source?.kind === 'wave' ? source : null;
  const dipole = source?.kind === 'dipole' ? source : null;
  const circuit = circuitOf(wires, mesh, dipole !== null);
  const system = await WireSystem.create(mesh, extraUnknowns(wires), wires.ground, host);
  try {
    const band = bandFrequencies(scene.band);
    const turns = source ? [null] : wires.ports.flatMap((p, n) => (!scene.excite || scene.excite.includes(p.name) ? [n] : []));
    const arrays: Record<string, ResultArray> = {};
    let lastReport = started;
    const expected = (scene.details.eachFrequency ? band.length : Math.min(band.length, 14)) + scene.recordAt.length;
    let done = 0;
    const report = async (fraction: number): Promise<void> => {
      await host.breathe();
      const now = host.now();
      if (!onProgress || now - lastReport < 0.2) return;
      lastReport = now;
      const elapsed = now - started;
      onProgress({
        fraction,
        step: done,
        steps: expected,
        turn: 0,
        turns: 1,
        secondsLeft: fraction > 0.02 ? (elapsed * (1 - fraction)) / fraction : null,
      });
    };
    const solve = async (f: number): Promise<Drives> => {
      const drives = await solveDrives(system, wires, circuit, source, f);
      done++;
      await report(Math.min(0.7, (0.7 * done) / expected));
      return drives;
    };
    const sweep = await sweepBand(band, solve, {
      tolerance: fitTolerance[scene.accuracy],
      each: scene.details.eachFrequency,
      aborted: () => !!signal?.aborted,
    });
    const seconds = (): number => host.now() - started;
    /** What is excited, at the strength for which all is told: of a dipole that for which it gives 1 W. */
    const excite = (drives: Drives, frequency: number, sends: number | null): Excited => {
      const excited = exciteDrives(drives, circuit, wires, sends);
      return dipole ? scaled(excited, strengthOf(dipolePower(system, wires, circuit, dipole, { drives, excited, frequency }))) : excited;
    };
    const bandTold = tellBand(wires, circuit, band, turns, sweep.at, excite, arrays);
    if (dipole) {
      const power = Float64Array.from(band, (frequency) => {
        const drives = sweep.at(frequency);
        return dipolePower(system, wires, circuit, dipole, { drives, excited: exciteDrives(drives, circuit, wires, null), frequency });
      });
      arrays['source:power'] = { shape: [band.length], data: power };
    }

    // Fields, patterns and currents at the recorded frequencies.
    const solved: Drives[] = [];
    const swept: Direction[][] = [];
    for (const f of scene.recordAt) {
      if (signal?.aborted) break;
      solved.push(await solve(f));
      if (wave?.sweep) swept.push(solveDirections(system, wires, circuit, wave.sweep, f));
    }
    const at = scene.recordAt.slice(0, solved.length);
    const told: Turn[] = [];
    for (const [turn, sends] of turns.entries()) {
      if (signal?.aborted && turn) break;
      told.push(
        await tellTurn({
          scene,
          wires,
          mesh,
          at,
          solved,
          circuit,
          excite,
          turn,
          sends,
          arrays,
          rest: () => report(0.7 + (0.3 * (turn + 0.5)) / turns.length),
        }),
      );
    }
    if (wave?.sweep) tellSweep({ wires, mesh, at, solved, circuit, arrays }, swept, wave.sweep);
    wireArrays(mesh, arrays);
    const asked = farFieldOf(scene);
    const far = asked && at.length ? { name: asked.name, step: directionsOf(asked.step).step } : null;
    const first = told[0];
    const evidence: WireEvidence = {
      segments: mesh.count,
      unknowns: system.size,
      segmentsPerWavelength: leastPerWavelength(mesh, Math.max(scene.band.to, ...scene.recordAt)),
      solved: done,
      fitError: sweep.error,
      ...(wires.ground?.kind === 'earth' ? { earth: true as const } : {}),
      ended: sweep.whole && !signal?.aborted ? 'solved' : 'stopped',
      powerBalance: first?.balance ?? null,
      ...bandTold,
      seconds: seconds(),
      threads: system.threads,
      bytes: WireSystem.bytes(mesh, system.size - mesh.bases, system.threads),
    };
    return resultOf<WireEvidence>(
      {
        solver: 'moment',
        ports: wires.ports.map((p) => ({ name: p.name, resistance: p.resistance, ...(p.reactance ? { reactance: p.reactance } : {}) })),
        excitations: source ? [] : (turns as number[]),
        recordAt: at,
        farField: far && first?.figures ? { ...far, figures: first.figures } : null,
        ...(wave
          ? {
              wave: {
                name: wave.name,
                theta: wave.from[0],
                phi: wave.from[1],
                ...(wave.strength !== undefined ? { strength: wave.strength } : {}),
                ...(wave.sweep ? { directions: wave.sweep.map((w) => w.from) } : {}),
              },
              scattered: far && first?.scattered ? { ...far, figures: first.scattered } : null,
            }
          : {}),
        ...(dipole ? { dipole: { name: dipole.name, of: dipole.of, at: dipole.at, direction: dipole.direction } } : {}),
        recorded: first?.recorded ?? [],
        wires: wires.wires.map((w, n) => ({ name: w.name, line: w.line, first: mesh.firstOf[n], count: mesh.firstOf[n + 1] - mesh.firstOf[n], radius: w.radius })), // prettier-ignore
        probes: probesOf(wires),
        ...(told.length > 1 ? { others: told.slice(1).map((t, i) => ({ turn: i + 1, figures: t.figures, recorded: t.recorded })) } : {}),
        evidence,
      },
      arrays,
    );
  } finally {
    system.close();
  }
}

/** Places whose voltage and current a result keeps, in its order. */
export const probesOf = (w: WireScene): NonNullable<ResultMeta['probes']> => [
  ...w.ports.map(({ name }) => ({ name, kind: 'port' as const })),
  ...w.loads.map(({ name }) => ({ name, kind: 'load' as const })),
  ...w.probes.map(({ name }) => ({ name, kind: 'point' as const })),
];

/** Fewest segments for a wavelength. */
function leastPerWavelength(mesh: WireMesh, frequency: number): number {
  let most = 0;
  for (let i = 0; i < mesh.count; i++) most = Math.max(most, mesh.segments[8 * i + 6]);
  return c0 / frequency / most;
}

/** S and the probes over the band, as arrays; what they tell of themselves. */
function tellBand(
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
function tellSweep(
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
interface Turn {
  figures: PatternFigures[] | null;
  scattered: ScatterFigures[] | null;
  balance: number[] | null;
  recorded: RecorderTold[];
}

/** Everything of one excitation at the recorded frequencies. */
async function tellTurn({ scene, wires, mesh, at, solved, circuit, excite, turn, sends, arrays, rest }: TurnInput): Promise<Turn> {
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
  const { nTheta, nPhi } = directionsOf(far.step);
  const kept = far.kept?.filter((f) => f < at.length) ?? at.map((_, f) => f);
  const data = new Float64Array(kept.length * nTheta * nPhi * 4);
  const figures: PatternFigures[] = [];
  const scattered: ScatterFigures[] = [];
  const balance: number[] = [];
  const overEarth = wires.ground?.kind === 'earth';
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
    const fromPorts = wires.ports.reduce((sum, _, i) => sum + half(e.voltage[i], e.current[i]), 0);
    const { source: from } = scene;
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
  const lit = scene.source?.kind === 'wave';
  return { figures: lit ? null : figures, scattered: lit ? scattered : null, balance: overEarth ? null : balance, recorded };
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
function wireArrays(mesh: WireMesh, arrays: Record<string, ResultArray>): void {
  arrays['wire:segments'] = { shape: [mesh.count, 8], data: mesh.segments };
  arrays['wire:along'] = { shape: [mesh.count], data: mesh.along };
}
