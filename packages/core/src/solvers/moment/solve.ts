import { meshWires, type WireMesh } from '../../grid/index.ts';
import { c0 } from '../../numerics/constants.ts';
import { type ResultArray, resultOf, type ResultSet } from '../../results/index.ts';
import { bandFrequencies, type WiresScene } from '../../scene/index.ts';
import { wireAccuracy, type WireEvidence } from '../../methods/index.ts';
import type { SolveOptions } from '../solver.ts';
import { circuitOf, extraUnknowns } from './circuit.ts';
import { type Drives, type Direction, dipolePower, exciteDrives, type Excited, scaled, solveDirections, solveDrives } from './solution.ts';
import { sweepBand } from './sweep.ts';
import { WireSystem } from './system.ts';
import { leastPerWavelength, metaOf, tellBand, tellSweep, tellTurn, type Turn, wireArrays } from './told.ts';

/** Deviation of a fit over the band that is accepted. */
const fitTolerance = { draft: 1e-3, normal: 1e-4, fine: 1e-5, adaptive: 1e-5 } as const;

/** Largest length of a segment for a scene. */
function longestSegment(scene: WiresScene): number {
  const most = Math.max(scene.band.to, ...scene.recordAt);
  const perWavelength = scene.details.segmentsPerWavelength ?? wireAccuracy[scene.accuracy].perWavelength;
  return c0 / most / (perWavelength * (scene.details.finer ?? 1));
}

/** The segments of a scene at its accuracy. */
export const meshOf = (scene: WiresScene): WireMesh =>
  meshWires(scene.wires, { longest: longestSegment(scene), grading: wireAccuracy[scene.accuracy].grading });

/** Moment of a dipole that gives 1 W, from the power of moment 1; none where it gives no power. */
const strengthOf = (power: number): number => (power > 0 ? 1 / Math.sqrt(power) : 0);

/** Frequencies that a fit over the band asks for, about: for what is told of progress. */
const fitted = 14;
/** Part of a run's progress that solving takes; the rest is fields and patterns. */
const solvingShare = 0.7;
/** Seconds between two reports of progress. */
const reportEvery = 0.2;

/** Tells progress, and lets the host breathe: `solved` counts a frequency, `rest` is how far fields and patterns are, from 0 to 1. */
function progressOf(
  { host, onProgress }: SolveOptions,
  expected: number,
): { solved(): Promise<void>; rest(part: number): Promise<void>; done(): number } {
  const started = host.now();
  let [last, done] = [started, 0];
  const report = async (fraction: number): Promise<void> => {
    await host.breathe();
    const now = host.now();
    if (!onProgress || now - last < reportEvery) return;
    last = now;
    const secondsLeft = fraction > 0.02 ? ((now - started) * (1 - fraction)) / fraction : null;
    onProgress({ fraction, step: done, steps: expected, turn: 0, turns: 1, secondsLeft });
  };
  return {
    solved: () => report(Math.min(1, ++done / expected) * solvingShare),
    rest: (part) => report(solvingShare + (1 - solvingShare) * part),
    done: () => done,
  };
}

/** Solves a scene of wires: S over the band, then currents, fields and patterns of each port that is excited, or of the wave that lights them. */
export async function solveScene(scene: WiresScene, options: SolveOptions): Promise<ResultSet<WireEvidence>> {
  const { host, signal } = options;
  const { wires, source } = scene;
  const started = host.now();
  const mesh = meshOf(scene);
  const wave = source?.kind === 'wave' ? source : null;
  const dipole = source?.kind === 'dipole' ? source : null;
  const circuit = circuitOf(wires, mesh, dipole !== null);
  const system = await WireSystem.create(mesh, extraUnknowns(wires), wires.ground, host);
  try {
    const band = bandFrequencies(scene.band);
    const turns = source ? [null] : wires.ports.flatMap((p, n) => (!scene.excite || scene.excite.includes(p.name) ? [n] : []));
    const arrays: Record<string, ResultArray> = {};
    const progress = progressOf(options, (scene.details.eachFrequency ? band.length : Math.min(band.length, fitted)) + scene.recordAt.length);
    const solve = async (f: number): Promise<Drives> => {
      const drives = await solveDrives(system, wires, circuit, source, f);
      await progress.solved();
      return drives;
    };
    const sweep = await sweepBand(band, solve, {
      tolerance: fitTolerance[scene.accuracy],
      each: scene.details.eachFrequency,
      aborted: () => !!signal?.aborted,
    });
    const powerOfDipole = (drives: Drives, excited: Excited, frequency: number): number =>
      dipolePower(system, wires, circuit, dipole!, { drives, excited, frequency });
    /** What is excited, at the strength for which all is told: of a dipole that for which it gives 1 W. */
    const excite = (drives: Drives, frequency: number, sends: number | null): Excited => {
      const excited = exciteDrives(drives, circuit, wires, sends);
      return dipole ? scaled(excited, strengthOf(powerOfDipole(drives, excited, frequency))) : excited;
    };
    const bandTold = tellBand(wires, circuit, band, turns, sweep.at, excite, arrays);
    if (dipole) {
      const powers = Float64Array.from(band, (f) => powerOfDipole(sweep.at(f), exciteDrives(sweep.at(f), circuit, wires, null), f));
      arrays['source:power'] = { shape: [band.length], data: powers };
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
      const rest = (): Promise<void> => progress.rest((turn + 0.5) / turns.length);
      told.push(await tellTurn({ scene, wires, mesh, at, solved, circuit, excite, turn, sends, arrays, rest }));
    }
    if (wave?.sweep) tellSweep({ wires, mesh, at, solved, circuit, arrays }, swept, wave.sweep);
    wireArrays(mesh, arrays);
    const evidence: WireEvidence = {
      segments: mesh.count,
      unknowns: system.size,
      segmentsPerWavelength: leastPerWavelength(mesh, Math.max(scene.band.to, ...scene.recordAt)),
      solved: progress.done(),
      fitError: sweep.error,
      ...(wires.ground?.kind === 'earth' ? { earth: true as const } : {}),
      ended: sweep.whole && !signal?.aborted ? 'solved' : 'stopped',
      powerBalance: told[0]?.balance ?? null,
      ...bandTold,
      seconds: host.now() - started,
      threads: system.threads,
      bytes: WireSystem.bytes(mesh, system.size - mesh.bases, system.threads),
    };
    return resultOf<WireEvidence>({ ...metaOf(scene, mesh, at, source ? [] : (turns as number[]), told), evidence }, arrays);
  } finally {
    system.close();
  }
}
