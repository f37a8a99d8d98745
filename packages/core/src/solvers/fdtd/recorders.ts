import type { Point3 } from '../../document/index.ts';
import { eta0 } from '../../numerics/constants.ts';
import type { FaceSamples } from '../../radiation/index.ts';
import {
  type AnyRecorderKind,
  type Face,
  faceSamples,
  facesOn,
  fieldOf,
  type GridReading,
  type GridRecording,
  type Index,
  type PlacedRecorder,
  type Probe,
  recorderKind,
  type RecorderTold,
} from '../../recorders/index.ts';
import type { ResultArray } from '../../results/index.ts';
import { farFieldOf, frequenciesOf, numbersOf, type GridScene } from '../../scene/index.ts';
import { extent, keptAt, planeRegion, type Region, type RegionSums, rowRegion, sumAt } from '../../yee/index.ts';
import { type BranchRun, branchRuns } from './branches.ts';
import { conductivityAt } from './dispersion.ts';
import type { TotalBox } from './discreteWave.ts';
import { type GuidedWave, takeOut } from './guidedWave.ts';
import { type ImageWall, imageWalls, insideShare, partsOf } from './images.ts';
import { apart } from '../../discretisation/split/types.ts';
import { immittanceAt } from '../../discretisation/immittance.ts';
import { dielectricsOf } from '../../discretisation/media.ts';
import type { SoughtModes } from './rectangleModes.ts';
import type { Discrete, MediumRow } from './discrete.ts';

/** Cells between the absorbing layers and the Huygens box. */
export const boxGap = 2;

/** A recorder of the scene, planned: what reads it once the run is done. */
interface Planned {
  recorder: PlacedRecorder;
  over: AnyRecorderKind['over'];
  read(reading: GridReading): object;
}

/** All regions that a run records and what each is for. */
export interface RecordingPlan {
  regions: Region[];
  /** Samples that are kept over time. */
  probes: Probe[];
  recorders: Planned[];
  /** Rectangles whose modes are to be solved before the run. */
  sought: SoughtModes[];
  /** Faces of the Huygens box, the first regions. */
  faces: Face[];
  /** Nodes between which the Huygens box stands. */
  box: { lo: number[]; hi: number[] };
  /** Walls at which the box ends, and how many parts like the region the structure has. */
  walls: ImageWall[];
  parts: number;
  /** How much of a sample's dual cell lies in the region. */
  share: (field: number, at: ArrayLike<number>) => number;
  firstLoss: number;
  /** Runs of branches in lossy metal; their regions begin at `firstMetal`. */
  metal: BranchRun[];
  firstMetal: number;
}

/** Regions of a run as they are added, each at the frequencies that its recorder keeps. */
class Regions {
  readonly list: Region[] = [];
  constructor(private readonly frequencies: number) {}

  add(region: Region, kept: readonly number[] | undefined): number {
    return this.list.push(kept ? { ...region, at: keptAt(kept, this.frequencies) } : region) - 1;
  }
}

/** The box around the structure on which the far field is taken: its nodes, and the faces that stand at open sides. */
function huygensBox(scene: GridScene, { grid }: Discrete, open: boolean): Pick<RecordingPlan, 'box' | 'faces'> {
  const last = grid.lines.map((x) => x.length - 1);
  // At a wall the box ends with the region; its image goes on behind.
  const gap = (side: number): number => grid.outerCells[side] + (scene.boundaries[side] === 'open' ? boxGap : 0);
  const box = { lo: [0, 1, 2].map((a) => gap(2 * a)), hi: [0, 1, 2].map((a) => last[a] - gap(2 * a + 1)) };
  const sides = ([0, 1, 2] as const).flatMap((normal) => ([-1, 1] as const).map((outward) => ({ normal, outward })));
  const faces = sides.flatMap(({ normal, outward }) =>
    open && scene.boundaries[2 * normal + (outward < 0 ? 0 : 1)] === 'open' ? facesOn(normal, outward, (outward < 0 ? box.lo : box.hi)[normal]) : [],
  );
  return { box, faces };
}

/** Chooses regions for the scene's recorders: Huygens box, what each kind asks for (within `total` if given), and rows that lose power. */
export function planRecording(scene: GridScene, d: Discrete, total?: TotalBox): RecordingPlan {
  const { grid } = d;
  const regions = new Regions(scene.recordAt.length);
  const probes: Probe[] = [];
  const sought: SoughtModes[] = [];
  const far = farFieldOf(scene);
  const { box, faces } = huygensBox(scene, d, !!far);
  for (const face of faces) regions.add(planeRegion(grid, fieldOf(face), face.normal, face.index, box.lo, box.hi), far!.kept);
  // Loss in metal is asked for by the far field and by recorders, each at frequencies of its own.
  const askers: { kept?: number[] }[] = faces.length ? [far!] : [];
  const inner = {
    lo: (total?.lo ?? [0, 1, 2].map((a) => grid.outerCells[2 * a])) as Index,
    hi: (total?.hi ?? [0, 1, 2].map((a) => grid.lines[a].length - 1 - grid.outerCells[2 * a + 1])) as Index,
  };
  const recorders = scene.recorders.flatMap((recorder): Planned[] => {
    const kind = recorderKind(recorder);
    const read = kind.onGrid?.(recorder, {
      grid,
      boundaries: scene.boundaries,
      mirrors: scene.mirrors,
      bodies: scene.bodies,
      inner,
      add: (region) => regions.add(region, recorder.kept),
      addProbe: (probe) => probes.push(probe) - 1,
      keepMetalLoss: () => void askers.push(recorder),
      modes(normal, lo, hi, modes) {
        const at = (node: Index): Point3 => node.map((i, a) => grid.lines[a][i]) as Point3;
        const one: SoughtModes = { guide: { name: recorder.name, order: 0, normal, into: 1, min: at(lo), max: at(hi), modes, shift: 0 } };
        sought.push(one);
        return () => one.found!;
      },
      dielectrics: (axis) => dielectricsOf(scene, axis),
      energyPart: (c, i, j, k) => d.cuts?.energyPart(c, i, j, k) ?? 0,
    } satisfies GridRecording);
    return read ? [{ recorder, over: kind.over, read }] : [];
  });
  const firstLoss = regions.list.length;
  if (faces.length)
    for (const row of lossyRows(d)) regions.add(rowRegion(row.component, [row.first, row.j, row.k], 0, row.classes.length), far!.kept);
  const firstMetal = regions.list.length;
  const metal = askers.length ? branchRuns(d.branches) : [];
  const { field, index } = d.branches;
  const kept = askers.every((r) => r.kept) ? [...new Set(askers.flatMap((r) => r.kept!))] : undefined;
  for (const { axis, entries } of metal) {
    const n = entries[0];
    regions.add(rowRegion(field[n], [index[3 * n], index[3 * n + 1], index[3 * n + 2]], axis, entries.length), kept);
  }
  const walls = imageWalls(scene, grid);
  const share = insideShare(grid, scene.boundaries);
  const parts = partsOf(scene.mirrors);
  return { regions: regions.list, probes, recorders, sought, faces, box, walls, parts, share, firstLoss, metal, firstMetal };
}

/** What recorders are read from: sums at frequencies with their factors, or samples over time. */
export interface Recordings {
  sums(region: number): RegionSums;
  scales: readonly [number, number][];
  steps: number;
  probe(n: number): ArrayLike<number>;
}

/** Arrays of a result as recorders fill them, and the names of those that tell where fields stand, which are the same for all excitations. */
export interface RecordedArrays {
  arrays: Record<string, ResultArray>;
  places: Set<string>;
}

/** Reads all recorders of a sort and adds their fields to a result's arrays. */
export function tellRecorders(
  scene: GridScene,
  d: Discrete,
  plan: RecordingPlan,
  over: AnyRecorderKind['over'],
  { sums, scales, steps, probe }: Recordings,
  { arrays, places }: RecordedArrays,
): RecorderTold[] {
  const mean2 = (f: number): number => Math.cos(Math.PI * scene.recordAt[f] * d.dt) ** 2;
  return plan.recorders
    .filter((r) => r.over === over)
    .map(({ recorder: { kind, name, kept }, read }) => {
      const told = read({
        all: scene.recordAt,
        scales,
        numbers: over === 'frequencies' ? numbersOf(kept, scene.recordAt.length) : [],
        sums,
        metalLoss: (f) => metalLosses(plan, d, sums, scene.recordAt, f, scales[f]).map((m) => ({ ...m, power: mean2(f) * m.power })),
        dt: d.dt,
        steps,
        probe,
        keep: (key, array) => void (arrays[key] = array),
        place(key, array) {
          arrays[key] = array;
          places.add(key);
        },
      });
      return { kind, name, ...frequenciesOf(kept, scene.recordAt), ...told } as RecorderTold;
    });
}

/** Faces of the Huygens box with their samples at one frequency (hertz, and its number), scaled by the complex factor; without what goes through them in guides. */
export function boxFaces(
  plan: RecordingPlan,
  d: Discrete,
  sums: (region: number) => RegionSums,
  [f, frequency]: readonly [number, number],
  scale: [number, number],
  guided: readonly GuidedWave[],
): FaceSamples[] {
  const { lo, hi } = plan.box;
  return plan.faces.map((face, n) => {
    const own = sums(n);
    const samples = faceSamples(face, own, d.grid, lo, hi, f, scale);
    takeOut(face, samples, own.region, d.grid, guided, frequency, d.dt);
    return samples;
  });
}

/** Rows in which some medium takes power. */
function lossyRows(d: Discrete): MediumRow[] {
  const lossy = d.classes.map((m) => m.model.poles.some(({ p, r }) => (p[1] === 0 ? r[0] !== 0 : p[0] < 0 || r[0] !== 0)));
  return [...d.mediumRows.values()].filter((row) => row.classes.some((kind) => kind > 0 && lossy[kind - 1]));
}

/** Power lost in dielectrics, W: half sigma |E|^2 over the dual volumes of the edges in media with memory. */
export function lossPower(
  plan: RecordingPlan,
  d: Discrete,
  sums: (region: number) => RegionSums,
  frequencies: readonly number[],
  f: number,
  scale: [number, number],
): number {
  const gain = scale[0] ** 2 + scale[1] ** 2;
  const sigma = d.classes.map((m) => conductivityAt(m, frequencies[f], d.dt));
  const level = d.classes.map((m) => conductivityAt(m, d.centre, d.dt));
  let total = 0;
  lossyRows(d).forEach((row, n) => {
    const s = sums(plan.firstLoss + n);
    const across = extent(d.grid, 1, row.component, row.j) * extent(d.grid, 2, row.component, row.k);
    for (let i = 0; i < row.classes.length; i++) {
      const kind = row.classes[i];
      if (!kind) continue;
      const [re, im] = sumAt(s, 0, i, f);
      const at = row.first + i;
      // A cut edge holds E times its free part: the loss belongs to the whole E in that part.
      const own = (row.level?.has(at) ? level : sigma)[kind - 1] / (row.free?.[i] || 1);
      total += 0.5 * own * (re * re + im * im) * gain * across * extent(d.grid, 0, row.component, at) * plan.share(row.component, [at, row.j, row.k]);
    }
  });
  return plan.parts * total;
}

/** Power lost in each line of lossy metal at one frequency, W. */
export function metalLosses(
  plan: RecordingPlan,
  { branches, cuts }: Discrete,
  sums: (region: number) => RegionSums,
  frequencies: readonly number[],
  f: number,
  scale: [number, number],
): { line: string; power: number }[] {
  const gain = scale[0] ** 2 + scale[1] ** 2;
  // Re Z or Re Y of each class; magnetic samples are H times the impedance of free space.
  const real = branches.metals.map((m) => immittanceAt(m.fit, frequencies[f])[0] / (m.normal === null ? eta0 ** 2 : 1));
  const lost = new Map<string, number>();
  plan.metal.forEach(({ entries }, n) => {
    const s = sums(plan.firstMetal + n);
    const metal = branches.metal[entries[0]];
    let sum = 0;
    entries.forEach((e, i) => {
      const [re, im] = sumAt(s, 0, i, f);
      const [field, at] = [branches.field[e], branches.index.subarray(3 * e, 3 * e + 3)];
      const stands = field === apart ? cuts!.splits!.places[at[0]] : { field, at };
      const inside = plan.share(stands.field, stands.at);
      sum += 0.5 * plan.parts * real[metal] * (re * re + im * im) * gain * branches.area[e] * inside;
    });
    const { line } = branches.metals[metal];
    lost.set(line, (lost.get(line) ?? 0) + sum);
  });
  return [...lost].map(([line, power]) => ({ line, power }));
}
