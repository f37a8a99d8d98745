import { eta0 } from '../../numerics/constants.ts';
import { type Grid, nearestLine } from '../../grid/index.ts';
import type { FaceSamples } from '../../radiation/index.ts';
import type { FieldPlaneInfo, ResultArray, ResultMeta } from '../../results/index.ts';
import {
  frequenciesOf,
  imageSign,
  numbersOf,
  type Scene,
  type SceneFieldPlane,
  type SceneFlux,
  type SceneRecorder,
  type SceneSignal,
} from '../../scene/index.ts';
import type { TotalBox } from './discreteWave.ts';
import { type BranchRun, branchRuns } from './branches.ts';
import { conductivityAt } from './dispersion.ts';
import type { Discrete, MediumRow } from './discretise.ts';
import { type ImageWall, imageWalls, insideShare, partsOf, unfolded, unfoldedAxis } from './images.ts';
import { immittanceAt } from './immittance.ts';
import { type BoxPlan, planBox } from './recordedBoxes.ts';
import { type EnergyPlan, planEnergy } from './recordedEnergy.ts';
import { type ModesPlan, planModes } from './recordedModes.ts';
import { type CurrentPlan, type LinePlan, planCurrent, planLine } from './recordedLines.ts';
import { coordinate, extent, keptAt, planeRegion, type Region, type RegionSums, sumAt } from './recording.ts';

/** Cells between the absorbing layers and the Huygens box. */
export const boxGap = 2;

interface Face {
  normal: 0 | 1 | 2;
  outward: 1 | -1;
  index: number;
  component: 0 | 1 | 2;
  magnetic: boolean;
}

/** All regions that a run records and what each is for. */
export interface RecordingPlan {
  regions: Region[];
  faces: Face[];
  /** Nodes between which the Huygens box stands. */
  box: { lo: number[]; hi: number[] };
  /** Walls at which the box ends, and how many parts like the region the structure has. */
  walls: ImageWall[];
  parts: number;
  /** How much of a sample's dual cell lies in the region. */
  share: (field: number, at: ArrayLike<number>) => number;
  planes: { recorder: SceneFieldPlane; index: number; lo: number[]; hi: number[]; first: number }[];
  /** Rectangles through which power is taken: their nodes, four regions each from `first` on, and how many such parts the whole has. */
  fluxes: { recorder: SceneFlux; faces: Face[]; lo: number[]; hi: number[]; first: number }[];
  /** Points whose field is kept over time: their nodes; three probes each. */
  points: { recorder: SceneSignal; node: [number, number, number] }[];
  currents: CurrentPlan[];
  lines: LinePlan[];
  boxes: BoxPlan[];
  modes: ModesPlan[];
  energies: EnergyPlan[];
  firstLoss: number;
  /** Runs of branches in lossy metal; their regions begin at `firstMetal`. */
  metal: BranchRun[];
  firstMetal: number;
}

/** The tangential fields of a plane, each a face of its own. */
const facesOn = (normal: 0 | 1 | 2, outward: 1 | -1, index: number): Face[] =>
  ([0, 1, 2] as const)
    .filter((c) => c !== normal)
    .flatMap((component) => [false, true].map((magnetic): Face => ({ normal, outward, index, component, magnetic })));

/** Chooses regions for the scene's recorders: Huygens box, field planes (three electric components, within `total` if given), lossy rows. */
export function planRecording(scene: Scene, d: Discrete, total?: TotalBox): RecordingPlan {
  const { grid } = d;
  const regions: Region[] = [];
  const faces: Face[] = [];
  const last = grid.lines.map((x) => x.length - 1);
  const of = <K extends SceneRecorder['kind']>(kind: K): Extract<SceneRecorder, { kind: K }>[] =>
    scene.recorders.filter((r): r is Extract<SceneRecorder, { kind: K }> => r.kind === kind);
  /** Regions that are added meanwhile keep some of the recorded frequencies only; absent: all. */
  const keeping = <T>(kept: readonly number[] | undefined, add: () => T): T => {
    const first = regions.length;
    const made = add();
    if (kept) {
      const at = keptAt(kept, scene.recordAt.length);
      for (let n = first; n < regions.length; n++) regions[n].at = at;
    }
    return made;
  };
  const [far] = of('far-field');
  // At a wall the box ends with the region; its image goes on behind.
  const gap = (side: number): number => grid.pml[side] + (scene.boundaries[side] === 'open' ? boxGap : 0);
  const box = { lo: [0, 1, 2].map((a) => gap(2 * a)), hi: [0, 1, 2].map((a) => last[a] - gap(2 * a + 1)) };
  const onBox = (): void => {
    const { lo, hi } = box;
    for (const normal of [0, 1, 2] as const)
      for (const outward of [-1, 1] as const) {
        if (scene.boundaries[2 * normal + (outward < 0 ? 0 : 1)] !== 'open') continue;
        const index = outward < 0 ? lo[normal] : hi[normal];
        for (const face of facesOn(normal, outward, index)) {
          faces.push(face);
          regions.push(planeRegion(grid, face.component + (face.magnetic ? 3 : 0), normal, index, lo, hi));
        }
      }
  };
  if (far) keeping(far.kept, onBox);
  const planePlan = (r: SceneFieldPlane): RecordingPlan['planes'][number] => {
    const lo = total?.lo ?? [0, 1, 2].map((a) => grid.pml[2 * a]);
    const hi = total?.hi ?? [0, 1, 2].map((a) => last[a] - grid.pml[2 * a + 1]);
    const index = Math.min(Math.max(nearestLine(grid.lines[r.normal], r.at), 1), last[r.normal] - 1);
    const first = regions.length;
    for (const component of [0, 1, 2] as const) regions.push(planeRegion(grid, component, r.normal, index, lo, hi));
    return { recorder: r, index, lo, hi, first };
  };
  const fluxPlan = (r: SceneFlux): RecordingPlan['fluxes'][number] => {
    // What reaches into the absorbing layers is cut off; the plane itself needs samples on both sides.
    const ends = (p: readonly number[]): number[] =>
      ([0, 1, 2] as const).map((a) => {
        const least = total?.lo[a] ?? grid.pml[2 * a];
        const most = total?.hi[a] ?? last[a] - grid.pml[2 * a + 1];
        const i = Math.min(Math.max(nearestLine(grid.lines[a], p[a]), least), most);
        return a === r.normal ? Math.min(Math.max(i, 1), last[a] - 1) : i;
      });
    const [lo, hi] = [ends(r.min), ends(r.max)];
    const first = regions.length;
    const own = facesOn(r.normal, 1, lo[r.normal]);
    for (const { component, magnetic } of own) regions.push(planeRegion(grid, component + (magnetic ? 3 : 0), r.normal, lo[r.normal], lo, hi));
    return { recorder: r, faces: own, lo, hi, first };
  };
  const inside = (at: readonly number[]): [number, number, number] =>
    at.map((x, a) => Math.min(Math.max(nearestLine(grid.lines[a], x), 1), last[a] - 1)) as [number, number, number];
  const points = of('signal').map((recorder) => ({ recorder, node: inside(recorder.at) }));
  const each = <K extends SceneRecorder['kind'], T>(kind: K, plan: (r: Extract<SceneRecorder, { kind: K }>) => T): T[] =>
    of(kind).map((r) => keeping('kept' in r ? r.kept : undefined, () => plan(r)));
  const planes = each('field-plane', planePlan);
  const fluxes = each('flux', fluxPlan);
  const currents = each('current', (r) => planCurrent(scene, grid, r, regions));
  const lines = each('field-line', (r) => planLine(scene, grid, r, regions));
  const boxes = each('field-box', (r) => planBox(scene, grid, r, regions, total));
  const modes = each('mode', (r) => planModes(grid, r, regions));
  const energies = each('energy', (r) => planEnergy(scene, grid, r, regions));
  const firstLoss = regions.length;
  const onLossy = (): void => {
    for (const row of lossyRows(d))
      regions.push({
        field: row.component,
        from: [row.first, row.j, row.k],
        shift: [0, 0, 0],
        wa: 1,
        wb: 0,
        innerAxis: 0,
        inner: row.classes.length,
        outerAxis: 1,
        outer: 1,
      });
  };
  if (faces.length) keeping(far.kept, onLossy);
  const firstMetal = regions.length;
  const metal = faces.length || energies.length ? branchRuns(d.branches) : [];
  const { field, index } = d.branches;
  const onMetal = ({ axis, entries }: BranchRun): void => {
    const n = entries[0];
    const from: [number, number, number] = [index[3 * n], index[3 * n + 1], index[3 * n + 2]];
    regions.push({
      field: field[n],
      from,
      shift: [0, 0, 0],
      wa: 1,
      wb: 0,
      innerAxis: axis,
      inner: entries.length,
      outerAxis: axis === 2 ? 0 : 2,
      outer: 1,
    });
  };
  // Loss in metal is asked for by the far field and by energies of bodies, each at frequencies of its own.
  const askers = [...(faces.length ? [far] : []), ...of('energy')];
  keeping(askers.every((r) => r.kept) ? [...new Set(askers.flatMap((r) => r.kept!))] : undefined, () => metal.forEach(onMetal));
  const walls = imageWalls(scene, grid);
  const share = insideShare(grid, scene.boundaries);
  const parts = partsOf(scene.mirrors);
  return { regions, faces, box, walls, parts, share, planes, fluxes, points, currents, lines, boxes, modes, energies, firstLoss, metal, firstMetal };
}

const samplesAlong = (
  grid: Grid,
  axis: 0 | 1 | 2,
  field: number,
  from: number,
  count: number,
  box?: [number, number],
): [Float64Array, Float64Array] => {
  const at = new Float64Array(count);
  const width = new Float64Array(count);
  for (let i = 0; i < count; i++) {
    at[i] = coordinate(grid, axis, field, from + i);
    width[i] = extent(grid, axis, field, from + i);
    if (box) {
      // A sample on the box's edge stands for the half of its dual cell that lies inside.
      const [b0, b1] = box;
      const lines = grid.lines[axis];
      if (at[i] === b0) width[i] = (lines[from + i + 1] - lines[from + i]) / 2;
      if (at[i] === b1) width[i] = (lines[from + i] - lines[from + i - 1]) / 2;
    }
  }
  return [at, width];
};

/** Samples of a face between nodes lo and hi at one frequency, scaled by the complex factor. */
function faceSamples(
  face: Face,
  s: RegionSums,
  d: Discrete,
  lo: readonly number[],
  hi: readonly number[],
  f: number,
  scale: [number, number],
): FaceSamples {
  const { region } = s;
  const field = face.component + (face.magnetic ? 3 : 0);
  const [a, b] = [region.innerAxis, region.outerAxis];
  const box = (axis: 0 | 1 | 2): [number, number] => [d.grid.lines[axis][lo[axis]], d.grid.lines[axis][hi[axis]]];
  const [ca, wa] = samplesAlong(d.grid, a, field, region.from[a], region.inner, box(a));
  const [cb, wb] = samplesAlong(d.grid, b, field, region.from[b], region.outer, box(b));
  const re = new Float64Array(region.inner * region.outer);
  const im = new Float64Array(region.inner * region.outer);
  for (let o = 0; o < region.outer; o++)
    for (let i = 0; i < region.inner; i++) {
      const [x, y] = sumAt(s, o, i, f);
      re[o * region.inner + i] = x * scale[0] - y * scale[1];
      im[o * region.inner + i] = x * scale[1] + y * scale[0];
    }
  const { normal, outward, component, magnetic } = face;
  return {
    normal,
    outward,
    at: d.grid.lines[normal][face.index],
    component,
    magnetic,
    axes: [a, b],
    coordinates: [ca, cb],
    widths: [wa, wb],
    re,
    im,
  };
}

/** Faces of the Huygens box with their samples at one frequency, scaled by the complex factor. */
export function boxFaces(plan: RecordingPlan, d: Discrete, sums: (region: number) => RegionSums, f: number, scale: [number, number]): FaceSamples[] {
  const { lo, hi } = plan.box;
  return plan.faces.map((face, n) => faceSamples(face, sums(n), d, lo, hi, f, scale));
}

/** Power through the scene's rectangles at each recorded frequency (hertz), W. */
export const fluxesOf = (
  plan: RecordingPlan,
  d: Discrete,
  sums: (region: number) => RegionSums,
  frequencies: readonly number[],
  scales: readonly [number, number][],
): NonNullable<ResultMeta['fluxes']> =>
  plan.fluxes.map(({ recorder: { name, normal, sign, images = 1, turned, kept }, faces, lo, hi, first }) => ({
    name,
    normal,
    at: turned?.[normal] ? 2 * wallAt(plan, normal) - d.grid.lines[normal][lo[normal]] : d.grid.lines[normal][lo[normal]],
    ...frequenciesOf(kept, frequencies),
    power: numbersOf(kept, frequencies.length).map((f) => {
      const samples = faces.map((face, n) => faceSamples(face, sums(first + n), d, lo, hi, f, scales[f]));
      // As everywhere, power is that of the mean of E over a step.
      return images * sign * Math.cos(Math.PI * frequencies[f] * d.dt) * boxPower(samples);
    }),
  }));

/**
 * Time-averaged power out of the Huygens box, W. On a node plane of the staggered grid E_u and H_v stand at the same
 * points, once H has been interpolated to the plane, so the product needs no further averaging.
 */
export function boxPower(faces: readonly FaceSamples[]): number {
  let total = 0;
  for (const e of faces) {
    if (e.magnetic) continue;
    const component = 3 - e.normal - e.component;
    const h = faces.find((f) => f.magnetic && f.normal === e.normal && f.outward === e.outward && f.component === component)!;
    // (E x H*) . n = E_c H_other* with the sign of the permutation (c, other, n).
    const sign = ((component - e.component + 3) % 3 === 1 ? 1 : -1) * e.outward;
    const n = e.coordinates[0].length;
    for (let o = 0; o < e.coordinates[1].length; o++)
      for (let i = 0; i < n; i++) {
        const at = o * n + i;
        total += (sign * 0.5 * (e.re[at] * h.re[at] + e.im[at] * h.im[at]) * e.widths[0][i] * e.widths[1][o]) / eta0;
      }
  }
  return total;
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
  { branches }: Discrete,
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
      const inside = plan.share(branches.field[e], branches.index.subarray(3 * e, 3 * e + 3));
      sum += 0.5 * plan.parts * real[metal] * (re * re + im * im) * gain * branches.area[e] * inside;
    });
    const { line } = branches.metals[metal];
    lost.set(line, (lost.get(line) ?? 0) + sum);
  });
  return [...lost].map(([line, power]) => ({ line, power }));
}

/** Coordinate of the plane of symmetry across an axis. */
export const wallAt = (plan: RecordingPlan, axis: number): number => plan.walls.find((w) => w.real && w.axis === axis)!.at;

/** Signs of Ex, Ey, Ez in the image behind the planes of symmetry of the given axes. */
export const signsOf = (plan: RecordingPlan, turned: readonly boolean[]): [number, number, number] =>
  [0, 1, 2].map((c) => plan.walls.reduce((s, w) => (w.real && turned[w.axis] ? s * imageSign(w.wall, w.axis, c) : s), 1)) as [number, number, number];

/** What a result says of its recorded planes. */
export const planesOf = (plan: RecordingPlan, d: Discrete, frequencies: readonly number[]): FieldPlaneInfo[] =>
  plan.planes.map(({ index, recorder: { name, normal, turned, kept } }) => {
    const [u, v] = ([0, 1, 2] as const).filter((a) => a !== normal) as [0 | 1 | 2, 0 | 1 | 2];
    const at = d.grid.lines[normal][index];
    return { name, normal, at: turned ? 2 * wallAt(plan, normal) - at : at, u, v, ...frequenciesOf(kept, frequencies) };
  });

/** Adds the recorded planes to a result's arrays, at each frequency times its complex factor. */
export function planeArrays(
  plan: RecordingPlan,
  d: Discrete,
  sums: (region: number) => RegionSums,
  scales: readonly [number, number][],
  arrays: Record<string, ResultArray>,
): void {
  plan.planes.forEach(({ recorder: { name, normal, turned, kept }, lo, hi }, n) => {
    const [u, v] = ([0, 1, 2] as const).filter((a) => a !== normal);
    const numbers = numbersOf(kept, scales.length);
    const nf = numbers.length;
    const nu = hi[u] - lo[u] + 1;
    const nv = hi[v] - lo[v] + 1;
    const data = new Float32Array(nf * nu * nv * 6);
    numbers.forEach((f, i) => planeAtNodes(plan, n, sums, f, scales[f], data, i * nu * nv * 6));
    if (turned) {
      const signs = signsOf(plan, turned);
      data.forEach((x, i) => (data[i] = x * signs[(i % 6) >> 1]));
    }
    let whole = data;
    const places = [u, v].map((a) => d.grid.lines[a].slice(lo[a], hi[a] + 1));
    for (const [i, axis] of [u, v].entries()) {
      if (!plan.walls.some((w) => w.real && w.axis === axis)) continue;
      const signs = signsOf(plan, [0, 1, 2].map((a) => a === axis)); // prettier-ignore
      whole = unfolded(whole, [nf, places[1].length, places[0].length], i ? 'v' : 'u', signs);
      places[i] = unfoldedAxis(places[i]);
    }
    arrays[`plane:${name}`] = { shape: [nf, places[1].length, places[0].length, 6], data: whole };
    arrays[`plane:${name}:u`] = { shape: [places[0].length], data: places[0] };
    arrays[`plane:${name}:v`] = { shape: [places[1].length], data: places[1] };
  });
}

/** Electric field of a recorded plane, interpolated to the nodes: [v][u][6] re/im of Ex, Ey, Ez. */
function planeAtNodes(
  plan: RecordingPlan,
  p: number,
  sums: (region: number) => RegionSums,
  f: number,
  scale: [number, number],
  out: Float32Array,
  at: number,
): void {
  const plane = plan.planes[p];
  const [ua, va] = ([0, 1, 2] as const).filter((a) => a !== plane.recorder.normal);
  const nu = plane.hi[ua] - plane.lo[ua] + 1;
  const nv = plane.hi[va] - plane.lo[va] + 1;
  for (const c of [0, 1, 2] as const) {
    const s = sums(plane.first + c);
    const { region } = s;
    // Samples along the component's own axis stand between nodes.
    const du = c === ua ? 1 : 0;
    const dv = c === va ? 1 : 0;
    for (let v = 0; v < nv; v++)
      for (let u = 0; u < nu; u++) {
        let re = 0;
        let im = 0;
        const u0 = Math.min(Math.max(u - du, 0), region.inner - 1);
        const u1 = Math.min(u, region.inner - 1);
        const v0 = Math.min(Math.max(v - dv, 0), region.outer - 1);
        const v1 = Math.min(v, region.outer - 1);
        for (const [a, b] of [
          [u0, v0],
          [u1, v1],
        ]) {
          const [x, y] = sumAt(s, b, a, f);
          re += x / 2;
          im += y / 2;
        }
        const o = at + (v * nu + u) * 6 + 2 * c;
        out[o] = re * scale[0] - im * scale[1];
        out[o + 1] = re * scale[1] + im * scale[0];
      }
  }
}
