import { c0, eta0 } from '../../numerics/constants.ts';
import { type FarGround, patternPower, wireFarField, wireFarFieldOf, type WireCurrents, wireNearField, withGround } from '../../radiation/index.ts';
import { type FieldPlaneInfo, type PatternFigures, type ResultArray, type ResultMeta, type ScatterFigures, turnName } from '../../results/index.ts';
import { frequenciesOf, type Scene, type SceneRecorder, type SceneWave, type WireScene } from '../../scene/index.ts';
import { addWave } from './excite.ts';
import { earthPermittivity, reflections } from './earth/halfSpace.ts';
import { incidentOf } from './solution.ts';

type Of<K extends SceneRecorder['kind']> = Extract<SceneRecorder, { kind: K }>;
const ofKind = <K extends SceneRecorder['kind']>(scene: Scene, kind: K): Of<K>[] => scene.recorders.filter((r): r is Of<K> => r.kind === kind);

/** Samples along the longer side of a plane, and most of a box. */
const planeSamples = 81;
const boxSamples = 41;

/** Fields at any point at one frequency for one excitation. */
export interface FieldSource {
  frequency: number;
  currents: WireCurrents;
  /** The wave that lights the wires, where it does. */
  wave: SceneWave | null;
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
    const side = distance > 1e-6 * radius ? aside.map((v) => v / distance) : level > 1e-9 ? [-d[1] / level, d[0] / level, 0] : [1, 0, 0];
    return p.map((_, a) => segments[o + a] + along * segments[o + 3 + a] + radius * side[a]);
  }
  return p;
}

/** E and H of wires, ground and wave at a point, in `out`. */
function fieldAt(scene: WireScene, { frequency, wave }: FieldSource, p: readonly number[], out: Float64Array, both: WireCurrents): void {
  out.fill(0);
  // Below a perfect ground there is nothing.
  if (scene.ground?.kind === 'perfect' && p[2] < scene.ground.at) return;
  wireNearField(both, frequency, outOfWires(both, p), out);
  if (!wave) return;
  const k = (2 * Math.PI * frequency) / c0;
  for (const w of incidentOf(scene, wave, frequency)) {
    const e = new Float64Array(6);
    addWave(w, k, p, e);
    const t = w.towards;
    for (const c of [0, 1]) {
      const [x, y, z] = [e[c], e[2 + c], e[4 + c]];
      out[c] += x;
      out[2 + c] += y;
      out[4 + c] += z;
      out[6 + c] += (t[1] * z - t[2] * y) / eta0;
      out[8 + c] += (t[2] * x - t[0] * z) / eta0;
      out[10 + c] += (t[0] * y - t[1] * x) / eta0;
    }
  }
}

const spread = (from: number, to: number, n: number): Float64Array =>
  Float64Array.from({ length: n }, (_, i) => (n === 1 ? from : from + ((to - from) * i) / (n - 1)));

type Breathe = () => Promise<void>;

/** The sources at the frequencies that a recorder keeps, of those that were solved. */
const keptOf = <T>({ kept }: { kept?: readonly number[] }, all: readonly T[]): readonly T[] =>
  kept ? kept.flatMap((f) => (f < all.length ? [all[f]] : [])) : all;

/** What a result says of the frequencies of a recorder that does not keep all. */
const toldAt = ({ kept }: { kept?: readonly number[] }, solved: readonly number[]): { frequencies?: number[] } =>
  frequenciesOf(kept?.filter((f) => f < solved.length), solved); // prettier-ignore

/** A source, and its currents with their images in a perfect ground. */
interface Grounded {
  source: FieldSource;
  both: WireCurrents;
}
const groundedOf = (wires: WireScene, sources: readonly FieldSource[]): Grounded[] =>
  sources.map((source) => ({ source, both: wires.ground?.kind === 'perfect' ? withGround(source.currents, wires.ground.at) : source.currents }));

/** What is recorded of one excitation at all recorded frequencies, as arrays of a result. */
export async function recordTurn(
  scene: Scene,
  sources: readonly FieldSource[],
  turn: number,
  arrays: Record<string, ResultArray>,
  breathe: Breathe,
): Promise<void> {
  const wires = scene.wires!;
  const all = groundedOf(wires, sources);
  const out = new Float64Array(12);
  const name = (base: string): string => turnName(base, turn);
  for (const r of ofKind(scene, 'field-plane')) {
    const { u, v } = planeAxes(scene, r.normal);
    const own = keptOf(r, all);
    const data = new Float32Array(own.length * u.length * v.length * 6);
    const [a, b] = [0, 1, 2].filter((x) => x !== r.normal);
    let at = 0;
    for (const { source, both } of own)
      for (const y of v) {
        await breathe();
        for (const x of u) {
          const p = [r.at, r.at, r.at];
          [p[a], p[b]] = [x, y];
          fieldAt(wires, source, p, out, both);
          data.set(out.subarray(0, 6), at);
          at += 6;
        }
      }
    arrays[name(`plane:${r.name}`)] = { shape: [own.length, v.length, u.length, 6], data };
    if (turn) continue;
    arrays[`plane:${r.name}:u`] = { shape: [u.length], data: u };
    arrays[`plane:${r.name}:v`] = { shape: [v.length], data: v };
  }
  for (const r of ofKind(scene, 'field-line')) {
    const length = r.to - r.from;
    const s = spread(r.from, r.from + length, 201);
    const own = keptOf(r, all);
    const data = new Float32Array(own.length * s.length * 6);
    own.forEach(({ source, both }, f) =>
      s.forEach((x, i) => {
        const p = [...r.at];
        p[r.axis] = x;
        fieldAt(wires, source, p, out, both);
        data.set(out.subarray(0, 6), 6 * (f * s.length + i));
      }),
    );
    arrays[name(`line:${r.name}`)] = { shape: [own.length, s.length, 6], data };
    if (!turn) arrays[`line:${r.name}:at`] = { shape: [s.length], data: s };
    await breathe();
  }
  for (const r of ofKind(scene, 'field-box')) {
    const sides = [0, 1, 2].map((a) => r.max[a] - r.min[a]);
    const flat = sides.filter((l) => l === 0).length;
    const most = flat ? planeSamples : boxSamples;
    const axes = sides.map((l, a) =>
      spread(r.min[a], r.max[a], l === 0 ? 1 : Math.max(2, Math.ceil(((most - 1) * l) / Math.max(...sides) / r.every) + 1)),
    );
    const fields = [...(r.electric ? [0, 1, 2] : []), ...(r.magnetic ? [3, 4, 5] : [])].filter((c) => r.only === undefined || c % 3 === r.only);
    const width = 2 * fields.length;
    const own = keptOf(r, all);
    const data = new Float32Array(own.length * axes[0].length * axes[1].length * axes[2].length * width);
    let at = 0;
    for (const { source, both } of own)
      for (const z of axes[2])
        for (const y of axes[1]) {
          await breathe();
          for (const x of axes[0]) {
            fieldAt(wires, source, [x, y, z], out, both);
            for (const c of fields) {
              data[at++] = out[2 * c];
              data[at++] = out[2 * c + 1];
            }
          }
        }
    arrays[name(`box:${r.name}`)] = { shape: [own.length, axes[2].length, axes[1].length, axes[0].length, width], data };
    if (turn) continue;
    axes.forEach((x, a) => (arrays[`box:${r.name}:${'xyz'[a]}`] = { shape: [x.length], data: x }));
  }
}

/** Powers through rectangles and currents through them, of one excitation, by H and E on 24 x 24 points of Gauss and by H around the edge. */
export function powersOf(scene: Scene, sources: readonly FieldSource[]): Pick<ResultMeta, 'fluxes' | 'currents'> {
  const wires = scene.wires!;
  const all = groundedOf(wires, sources);
  const solved = sources.map((g) => g.frequency);
  const out = new Float64Array(12);
  const n = 48;
  const fluxes = ofKind(scene, 'flux').map((r) => {
    const [a, b] = [0, 1, 2].filter((x) => x !== r.normal);
    const cell = ((r.max[a] - r.min[a]) * (r.max[b] - r.min[b])) / (n * n);
    // Components u, w, normal in right-handed order.
    const [u, w] = [(r.normal + 1) % 3, (r.normal + 2) % 3];
    const power = keptOf(r, all).map(({ source, both }) => {
      let sum = 0;
      for (let i = 0; i < n; i++)
        for (let j = 0; j < n; j++) {
          const p = [...r.min] as number[];
          p[a] = r.min[a] + ((i + 0.5) / n) * (r.max[a] - r.min[a]);
          p[b] = r.min[b] + ((j + 0.5) / n) * (r.max[b] - r.min[b]);
          fieldAt(wires, source, p, out, both);
          const re = (e: number, h: number): number => out[2 * e] * out[6 + 2 * h] + out[2 * e + 1] * out[7 + 2 * h];
          sum += (re(u, w) - re(w, u)) / 2;
        }
      return r.sign * sum * cell;
    });
    return { name: r.name, normal: r.normal, at: r.min[r.normal], ...toldAt(r, solved), power };
  });
  const currents = ofKind(scene, 'current').map((r) => {
    const [u, w] = [(r.normal + 1) % 3, (r.normal + 2) % 3];
    const current = keptOf(r, all).map(({ source, both }): [number, number] => {
      const sum: [number, number] = [0, 0];
      const edge = (axis: number, other: number, place: number, sign: number): void => {
        const m = 400;
        for (let i = 0; i < m; i++) {
          const p = [...r.min] as number[];
          p[axis] = r.min[axis] + ((i + 0.5) / m) * (r.max[axis] - r.min[axis]);
          p[other] = place;
          fieldAt(wires, source, p, out, both);
          const dl = (sign * r.sign * (r.max[axis] - r.min[axis])) / m;
          sum[0] += dl * out[6 + 2 * axis];
          sum[1] += dl * out[7 + 2 * axis];
        }
      };
      edge(u, w, r.min[w], 1);
      edge(w, u, r.max[u], 1);
      edge(u, w, r.max[w], -1);
      edge(w, u, r.min[u], -1);
      return sum;
    });
    return { name: r.name, normal: r.normal, at: r.min[r.normal], ...toldAt(r, solved), current };
  });
  return { fluxes, currents };
}

/** Samples of a plane across an axis: the region, square cells, so many along its longer side. */
function planeAxes(scene: Scene, normal: 0 | 1 | 2): { u: Float64Array; v: Float64Array } {
  const [a, b] = [0, 1, 2].filter((x) => x !== normal);
  const [la, lb] = [scene.max[a] - scene.min[a], scene.max[b] - scene.min[b]];
  const longer = Math.max(la, lb);
  const n = (l: number): number => Math.max(3, Math.round(((planeSamples - 1) * l) / longer) + 1);
  return { u: spread(scene.min[a], scene.max[a], n(la)), v: spread(scene.min[b], scene.max[b], n(lb)) };
}

/** What a result tells of the recorders that keep fields, of which these frequencies, hertz, were solved. */
export function recordersTold(scene: Scene, solved: readonly number[]): Pick<ResultMeta, 'fieldPlanes' | 'fieldLines' | 'fieldBoxes'> {
  return {
    fieldPlanes: ofKind(scene, 'field-plane').map((r): FieldPlaneInfo => {
      const [u, v] = [0, 1, 2].filter((x) => x !== r.normal) as (0 | 1 | 2)[];
      return { name: r.name, normal: r.normal, at: r.at, u, v, ...toldAt(r, solved) };
    }),
    fieldLines: ofKind(scene, 'field-line').map((r) => ({ name: r.name, axis: r.axis, at: r.at, ...toldAt(r, solved) })),
    fieldBoxes: ofKind(scene, 'field-box').map((r) => ({
      name: r.name,
      electric: r.electric,
      magnetic: r.magnetic,
      ...(r.only === undefined ? {} : { only: r.only }),
      ...toldAt(r, solved),
    })),
  };
}

/** Grid of directions for the step of a far field, and the numbers of the frequencies that it keeps; absent: all. */
export function patternGrid(scene: Scene): { name: string; nTheta: number; nPhi: number; kept?: readonly number[] } | null {
  const far = ofKind(scene, 'far-field')[0];
  if (!far) return null;
  const nTheta = Math.max(7, Math.round(Math.PI / far.step) + 1);
  return { name: far.name, nTheta, nPhi: 2 * (nTheta - 1), kept: far.kept };
}

/** Real earth as the far field sees it. */
function farGround({ ground }: WireScene, frequency: number): FarGround | undefined {
  if (ground?.kind !== 'earth') return undefined;
  const eps = earthPermittivity(ground, frequency);
  return { at: ground.at, reflection: (cosine) => reflections(eps, [1 - cosine * cosine, 0]) };
}

/** Far field of one excitation at one frequency, and the power that it carries. */
export function patternOf(wires: WireScene, { frequency, currents }: FieldSource, nTheta: number, nPhi: number) {
  if (wires.ground?.kind !== 'perfect') {
    const pattern = wireFarField(currents, frequency, nTheta, nPhi, farGround(wires, frequency));
    return { pattern, ...patternPower(pattern) };
  }
  // With its image the pattern is smooth all round, and half of its power goes up.
  const whole = wireFarField(withGround(currents, wires.ground.at), frequency, nTheta, nPhi);
  const { power, ...peak } = patternPower(whole);
  const values = whole.values.slice();
  const half = (nTheta - 1) / 2;
  for (let t = Math.ceil(half + 1e-9); t < nTheta; t++) values.fill(0, 4 * t * nPhi, 4 * (t + 1) * nPhi);
  return { pattern: { ...whole, values }, power: power / 2, ...peak, theta: Math.min(peak.theta, Math.PI - peak.theta) };
}

/** Figures of an antenna for 1 W incident. */
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
export function scatterFigures(wires: WireScene, source: FieldSource, p: ReturnType<typeof patternOf>, taken: number, given: number): ScatterFigures {
  const density = 1 / (2 * eta0);
  const { wave, currents, frequency } = source;
  return {
    frequency,
    scattering: p.power / density,
    fromPattern: p.power / density,
    absorption: taken / density,
    extinction: given / density,
    largest: (4 * Math.PI * p.peak) / density,
    theta: p.theta,
    phi: p.phi,
    back: crossSectionBack(wires, currents, frequency, wave!.from),
  };
}

/** Radar cross-section towards a direction, m^2, of currents for 1 V/m; over real earth with what it reflects. */
export function crossSectionBack(wires: WireScene, currents: WireCurrents, frequency: number, towards: readonly [number, number]): number {
  const all = wires.ground?.kind === 'perfect' ? withGround(currents, wires.ground.at) : currents;
  const e = new Float64Array(4);
  wireFarFieldOf(all, frequency, farGround(wires, frequency))(...towards, e);
  return 4 * Math.PI * (e[0] ** 2 + e[1] ** 2 + e[2] ** 2 + e[3] ** 2);
}
