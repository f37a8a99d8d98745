import { eta0 } from '../../numerics/constants.ts';
import {
  addPointPattern,
  type FarGround,
  type Pattern,
  patternPower,
  wireFarField,
  wireFarFieldOf,
  type WireCurrents,
  wireNearField,
  withGround,
} from '../../radiation/index.ts';
import { recorderKind, type RecorderTold } from '../../recorders/index.ts';
import { type PatternFigures, type ResultArray, type ScatterFigures, excitationKey } from '../../results/index.ts';
import { frequenciesOf, numbersOf, type WiresScene, type SceneWave, type WireScene } from '../../scene/index.ts';
import type { IncidentField } from './sources.ts';
import { earthPermittivity, reflections } from './earth/halfSpace.ts';
import { sameMesh, sameNumber } from '../../numerics/tolerance.ts';

/** Fields at any point at one frequency for one excitation. */
export interface FieldSource {
  frequency: number;
  currents: WireCurrents;
  /** The field of a source from without, where one excites the wires, and how many times as strong. */
  incident: { field: IncidentField; size: number } | null;
}

/** A point, or where it lies within a wire, the place on its surface beside it: the fields there stand for those within. */
function outOfWires({ segments }: WireCurrents, p: readonly number[]): readonly number[] {
  for (let o = 0; o < segments.length; o += 8) {
    const [x, y, z] = [p[0] - segments[o], p[1] - segments[o + 1], p[2] - segments[o + 2]];
    const radius = segments[o + 7];
    const along = x * segments[o + 3] + y * segments[o + 4] + z * segments[o + 5];
    if (along < 0 || along > segments[o + 6]) continue;
    const aside = [0, 1, 2].map((a) => [x, y, z][a] - along * segments[o + 3 + a]);
    const distance = Math.hypot(...aside);
    if (distance >= radius) continue;
    // On the axis itself any side will do: one level, or along x for an upright wire.
    const d = [segments[o + 3], segments[o + 4]];
    const level = Math.hypot(...d);
    const side = distance > sameMesh * radius ? aside.map((v) => v / distance) : level > sameNumber ? [-d[1] / level, d[0] / level, 0] : [1, 0, 0];
    return p.map((_, a) => segments[o + a] + along * segments[o + 3 + a] + radius * side[a]);
  }
  return p;
}

/** E and H of wires, ground and source at a point, in `out`. */
function fieldAt(scene: WireScene, source: FieldSource, p: readonly number[], out: Float64Array, both: WireCurrents): void {
  out.fill(0);
  // Below a perfect ground there is nothing.
  if (scene.ground?.kind === 'perfect' && p[2] < scene.ground.at) return;
  wireNearField(both, source.frequency, outOfWires(both, p), out);
  const { incident } = source;
  if (!incident) return;
  const own = new Float64Array(12);
  incident.field.add(p, own);
  for (let i = 0; i < 12; i++) out[i] += incident.size * own[i];
}

/** A source, and its currents with their images in a perfect ground. */
interface Grounded {
  source: FieldSource;
  both: WireCurrents;
}
const groundedOf = (wires: WireScene, sources: readonly FieldSource[]): Grounded[] =>
  sources.map((source) => ({ source, both: wires.ground?.kind === 'perfect' ? withGround(source.currents, wires.ground.at) : source.currents }));

/** What a solution holds of wires: where segments lie, and the line that each belongs to. */
interface Wired {
  segments: Float64Array;
  lineOf(segment: number): string;
}

/** Reads all recorders of one excitation at the frequencies that were solved, and adds their fields to a result's arrays. */
export async function tellRecorders(
  scene: WiresScene,
  { segments, lineOf }: Wired,
  sources: readonly FieldSource[],
  turn: number,
  arrays: Record<string, ResultArray>,
  rest: () => Promise<void>,
): Promise<RecorderTold[]> {
  const wires = scene.wires;
  const all = groundedOf(wires, sources);
  const solved = sources.map((g) => g.frequency);
  const told: RecorderTold[] = [];
  for (const recorder of scene.recorders) {
    const { onWires } = recorderKind(recorder);
    if (!onWires) continue;
    const { kind, name } = recorder;
    const kept = recorder.kept?.filter((f) => f < solved.length);
    const numbers = numbersOf(kept, solved.length);
    const own = await onWires(recorder, {
      numbers,
      frequencies: numbers.map((f) => solved[f]),
      min: scene.min,
      max: scene.max,
      fieldAt: (f, p, out) => fieldAt(wires, all[f].source, p, out, all[f].both),
      segments,
      lineOf,
      currentAt(f, segment) {
        const c = sources[f].currents.currents;
        const o = 4 * segment;
        return [
          [c[o], c[o + 1]],
          [c[o + 2], c[o + 3]],
        ];
      },
      rest,
      keep: (key, array) => void (arrays[excitationKey(key, turn)] = array),
      place: (key, array) => void (arrays[key] = array),
    });
    told.push({ kind, name, ...frequenciesOf(kept, solved), ...own } as RecorderTold);
  }
  return told;
}

/** Real earth as the far field sees it. */
function farGround({ ground }: WireScene, frequency: number): FarGround | undefined {
  if (ground?.kind !== 'earth') return undefined;
  const eps = earthPermittivity(ground, frequency);
  return { at: ground.at, reflection: (cosine) => reflections(eps, [1 - cosine * cosine, 0]) };
}

/** Far field of one excitation at one frequency, and the power that it carries. */
export function patternOf(wires: WireScene, { frequency, currents, incident }: FieldSource, nTheta: number, nPhi: number) {
  // A dipole among the wires radiates as they do; a wave is no part of what is scattered.
  const own = (p: Pattern): void => {
    if (incident) addPointPattern(incident.field.points, incident.size, frequency, p);
  };
  if (wires.ground?.kind !== 'perfect') {
    const pattern = wireFarField(currents, frequency, nTheta, nPhi, farGround(wires, frequency));
    own(pattern);
    return { pattern, ...patternPower(pattern) };
  }
  // With its image the pattern is smooth all round, and half of its power goes up.
  const whole = wireFarField(withGround(currents, wires.ground.at), frequency, nTheta, nPhi);
  own(whole);
  const { power, ...peak } = patternPower(whole);
  const values = whole.values.slice();
  const half = (nTheta - 1) / 2;
  for (let t = Math.ceil(half + sameNumber); t < nTheta; t++) values.fill(0, 4 * t * nPhi, 4 * (t + 1) * nPhi);
  return { pattern: { ...whole, values }, power: power / 2, ...peak, theta: Math.min(peak.theta, Math.PI - peak.theta) };
}

/** Figures of an antenna for 1 W incident, or of a dipole that gives 1 W. */
export function antennaFigures(
  frequency: number,
  p: ReturnType<typeof patternOf>,
  accepted: number,
  inMetal: { line: string; power: number }[],
  inLoads: number,
  overEarth: boolean,
): PatternFigures {
  const radiated = p.power;
  // Into real earth goes what is left over.
  const lost = overEarth ? accepted - radiated : inLoads + inMetal.reduce((s, m) => s + m.power, 0);
  return {
    frequency,
    radiated,
    fromPattern: p.power,
    accepted,
    lost,
    lostInMetal: inMetal,
    directivity: (4 * Math.PI * p.peak) / p.power,
    gain: (4 * Math.PI * p.peak) / accepted,
    realisedGain: 4 * Math.PI * p.peak,
    theta: p.theta,
    phi: p.phi,
    radiationEfficiency: radiated / accepted,
    totalEfficiency: radiated,
  };
}

/** Figures of wires lit by a wave of 1 V/m. `taken` is the power that loads, ports and metal take, W; `given` what the wave loses, W. */
export function scatterFigures(
  wires: WireScene,
  wave: SceneWave,
  source: FieldSource,
  p: ReturnType<typeof patternOf>,
  taken: number,
  given: number,
): ScatterFigures {
  const density = 1 / (2 * eta0);
  const { currents, frequency } = source;
  return {
    frequency,
    scattering: p.power / density,
    fromPattern: p.power / density,
    absorption: taken / density,
    extinction: given / density,
    largest: (4 * Math.PI * p.peak) / density,
    theta: p.theta,
    phi: p.phi,
    back: crossSectionBack(wires, currents, frequency, wave.from),
  };
}

/** Radar cross-section towards a direction, m^2, of currents for 1 V/m; over real earth with what it reflects. */
export function crossSectionBack(wires: WireScene, currents: WireCurrents, frequency: number, towards: readonly [number, number]): number {
  const all = wires.ground?.kind === 'perfect' ? withGround(currents, wires.ground.at) : currents;
  const e = new Float64Array(4);
  wireFarFieldOf(all, frequency, farGround(wires, frequency))(...towards, e);
  return 4 * Math.PI * (e[0] ** 2 + e[1] ** 2 + e[2] ** 2 + e[3] ** 2);
}
