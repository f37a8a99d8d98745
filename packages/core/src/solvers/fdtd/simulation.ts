import { c0, eta0 } from '../../numerics/constants.ts';
import { kernelImports, wasm } from '../kernels.ts';
import type { SolverHost, KernelThread } from '../solver.ts';
import type { InjectedRow, Injection } from './injection.ts';
import { portalEdges, weightedEdges } from './guides.ts';
import type { SceneLoad } from '../../scene/index.ts';
import { recursion, terms } from '../../discretisation/immittance.ts';
import { Arena, P } from './layout.ts';
import { type AxisFactors, axisFactors } from './pml.ts';
import type { Region, RegionSums } from '../../yee/index.ts';
import { costsOf, type PlaneLoads, rebalanced, slabsOf } from './slabs.ts';
import type { GuideModes } from './modeTypes.ts';
import { coefficients, type Discrete } from './discrete.ts';
import type { Axis } from '../../numerics/axis.ts';

export interface SimulationPlan {
  discrete: Discrete;
  /** Source voltage of each port at (n + 1/2) dt. */
  waveform: (port: number, t: number) => number;
  /** Resistance of each port, ohms. */
  resistance: (port: number) => number;
  /** Passive element in a port's place, if any. */
  load?: (port: number) => SceneLoad | null;
  /** Modes of the guided ports, in the order of the discrete model; none where absent. */
  guides?: GuideModes[];
  /** Source of a guided port's mode at (n + 1/2) dt. */
  drive?: (guide: number, mode: number, t: number) => number;
  /** What a source from without adds to the fields. */
  injection?: Injection;
  maxSteps: number;
  /** Samples kept at every step. */
  probes?: Probe[];
  regions: Region[];
  /** Hertz. */
  frequencies: number[];
  /** Steps between Fourier samples. */
  every: number;
  /** Lowest frequency of interest, sets the absorbing layers. */
  lowest: number;
  boundaries: readonly string[];
}

/** The mean of two neighbouring samples of a field, kept at every step. Fields 0..5: Ex, Ey, Ez, Hx, Hy, Hz. */
export interface Probe {
  field: number;
  at: [number, number, number];
  /** Indices by which the second sample is moved, and weights of either. */
  shift: [number, number, number];
  weights: [number, number];
}

/** Floats of one class of branches. */
const classFloats = 4 + 3 * terms;

const rowKey = (component: number, j: number, k: number): string => `${component} ${j} ${k}`;

/** Runs of edges along x in one medium with memory, sorted by row. */
function memoryRuns(d: Discrete): { component: number; at: [number, number, number]; count: number; kind: number }[] {
  const runs: ReturnType<typeof memoryRuns> = [];
  for (const { component, j, k, first, classes, level } of d.mediumRows.values())
    for (let i = 0; i < classes.length;) {
      const kind = level?.has(first + i) ? 0 : classes[i];
      let end = i + 1;
      while (end < classes.length && classes[end] === kind && !level?.has(first + end)) end++;
      if (kind && d.classes[kind - 1].real.length + d.classes[kind - 1].paired.length)
        runs.push({ component, at: [first + i, j, k], count: end - i, kind });
      i = end;
    }
  return runs.sort((a, b) => a.at[2] - b.at[2] || a.at[1] - b.at[1]);
}

/** Cells below which one thread does it all. */
const smallModel = 20_000;

const fieldsBytes = (sx: number, ny: number, nz: number): number => sx * (ny + 1) * (nz + 2) * 4;

/** Bytes that a model takes, without building it. `sums` is the number of floats of Fourier sums. */
export function memoryNeeded(cells: readonly [number, number, number], pml: readonly number[], dictionaryBytes: number, sums: number): number {
  const [nx, ny, nz] = cells;
  const sx = (nx + 4) & ~3;
  const xBlock = pml[0] + pml[1] ? 2 * 16 : 0;
  const psi = 4 * (xBlock * (ny + 1) * (nz + 1) + sx * (pml[2] + pml[3] + 2) * (nz + 1) + sx * (ny + 1) * (pml[4] + pml[5] + 2)) * 4;
  return 6 * fieldsBytes(sx, ny, nz) + psi + dictionaryBytes + 12 * (ny + 1) * nz + sums * 4;
}

/**
 * A time-domain model in shared memory, ready to be stepped. Arrays of the six fields have shape [nz + 1][ny + 1][sx],
 * x fastest; E in V/m, H multiplied by the impedance of free space.
 */
export class Simulation {
  readonly bytes: number;
  private step = 0;
  private constructor(
    private readonly plan: SimulationPlan,
    private readonly buffer: ArrayBufferLike,
    private readonly run: (...args: number[]) => void,
    private readonly helpers: KernelThread[],
    private readonly at: {
      config: number;
      voltages: number[];
      records: number[];
      probes: number[];
      energy: number;
      /** Costs of planes, see slabs.ts. */
      costs: Float64Array;
      sums: { at: number; padded: number; count: number; floats: number }[];
    },
    bytes: number,
  ) {
    this.bytes = bytes;
  }

  static async create(plan: SimulationPlan, host: SolverHost): Promise<Simulation> {
    const { discrete: d, regions, frequencies } = plan;
    const { grid, sx, dt } = d;
    const [nx, ny, nz] = grid.lines.map((x) => x.length - 1);
    // Small models lose more by waiting than they gain by sharing.
    const threads = nx * ny * nz < smallModel ? 1 : Math.max(1, Math.min(host.threads, nz));
    const arena = new Arena();
    const words: number[] = new Array<number>(P.WORDS).fill(0);
    words[P.SX] = sx;
    words[P.NX] = nx;
    words[P.NY] = ny;
    words[P.NZ] = nz;
    const config = arena.take(P.WORDS * 4);
    const size = fieldsBytes(sx, ny, nz);
    for (let f = 0; f < 6; f++) words[P.EX + f] = arena.take(size + 64) + 64;

    const writes: ((buffer: ArrayBufferLike) => void)[] = [];
    const put = (data: Float32Array | Int32Array | Uint32Array | Uint8Array): number => {
      const at = arena.take(data.byteLength + 16);
      writes.push((b) => new Uint8Array(b).set(new Uint8Array(data.buffer, data.byteOffset, data.byteLength), at));
      return at;
    };
    const floats = (data: Float64Array, length: number): Float32Array => {
      const out = new Float32Array(length);
      out.set(data);
      return out;
    };

    const dictionary = put(d.dictionary);
    words[P.ROWS] = put(d.rowOf.map((r) => (r < 2 ? r : dictionary + (r - 2) * 2 * sx * 4)));

    // Absorbing layers.
    const open = plan.boundaries.map((b, i) => (b === 'open' ? grid.pml[i] : 0));
    const factors = ([0, 1, 2] as const).map((a) => axisFactors(grid.lines[a], open[2 * a], open[2 * a + 1], dt, plan.lowest));
    ([P.EX_INV, P.EY_INV, P.EZ_INV] as const).forEach((w, a) => (words[w] = put(floats(factors[a].eInverse, Math.max(sx, grid.lines[a].length)))));
    ([P.HX_INV, P.HY_INV, P.HZ_INV] as const).forEach((w, a) => (words[w] = put(floats(factors[a].hInverse, Math.max(sx, grid.lines[a].length)))));
    const pick = (k: keyof AxisFactors, a: number): number => put(floats(factors[a][k], Math.max(sx, grid.lines[a].length)));
    [0, 1, 2].forEach((a) => {
      words[P.PML_E + 2 * a] = pick('eB', a);
      words[P.PML_E + 2 * a + 1] = pick('eC', a);
      words[P.PML_H + 2 * a] = pick('hB', a);
      words[P.PML_H + 2 * a + 1] = pick('hC', a);
    });
    words[P.MIRROR] = plan.boundaries.some(hasCellBehind) ? put(mirrorTable(plan.boundaries, grid)) : 0;
    const low = (open[0] + 3) & ~3;
    const high = open[1] ? Math.max(low, (nx - open[1]) & ~3) : sx;
    words[P.X_LOW] = low;
    words[P.X_HIGH] = high;
    const slots = (a: 1 | 2): Int32Array => {
      const n = grid.lines[a].length;
      let next = 0;
      return Int32Array.from({ length: n }, (_, i) => (i < open[2 * a] || (open[2 * a + 1] > 0 && i >= n - 1 - open[2 * a + 1]) ? next++ : -1));
    };
    const ySlots = slots(1);
    const zSlots = slots(2);
    const used = (s: Int32Array): number => s.reduce((m, v) => Math.max(m, v + 1), 0);
    words[P.Y_SLOT] = put(ySlots);
    words[P.Z_SLOT] = put(zSlots);
    words[P.Y_SLOTS] = used(ySlots);
    const yBytes = used(ySlots) * (nz + 1) * sx * 4;
    const zBytes = used(zSlots) * (ny + 1) * sx * 4;
    const xBytes = (low + sx - high) * (ny + 1) * (nz + 1) * 4;
    for (const base of [P.PSI_E, P.PSI_H])
      [yBytes, zBytes, zBytes, xBytes, xBytes, yBytes].forEach((bytes, i) => (words[base + i] = arena.take(bytes)));

    const offset = (at: ArrayLike<number>): number => ((at[2] * (ny + 1) + at[1]) * sx + at[0]) * 4;
    const strides = [4, sx * 4, sx * (ny + 1) * 4];
    const addressOf = (field: number, at: Int32Array, n: number): number => words[P.EX + field] + offset(at.subarray(3 * n, 3 * n + 3));
    const series = d.ports.map((_, p) => put(Float32Array.from({ length: plan.maxSteps }, (__, n) => plan.waveform(p, (n + 0.5) * dt))));
    const voltages = d.ports.map(() => arena.take(plan.maxSteps * 8));
    const table = new DataView(new ArrayBuffer(d.ports.length * 80));
    const held: { k: number; at: number; value: number }[] = [];
    d.ports.forEach((edges, p) => {
      const view = new DataView(new ArrayBuffer(edges.length * 48));
      const values = arena.take(edges.length * 4);
      let both = 0;
      edges.forEach((e, n) => {
        // E_a is driven by H_c stepping back along b, less H_b stepping back along c, with a, b, c in cyclic order.
        const a = e.component;
        const b = ((a + 1) % 3) as Axis;
        const c = ((a + 2) % 3) as Axis;
        const field = words[P.EX + a] + offset(e.index);
        const value = values + n * 4;
        const push = (e.cb * eta0 * e.current) / e.area;
        const u32 = [field, value, words[P.HX + c] + offset(e.index), strides[b], words[P.HX + b] + offset(e.index), strides[c]];
        const f32 = [e.ca, e.cb * factors[b].eInverse[e.index[b]], e.cb * factors[c].eInverse[e.index[c]], e.weight, push];
        u32.forEach((v, i) => view.setUint32(n * 48 + 4 * i, v, true));
        f32.forEach((v, i) => view.setFloat32(n * 48 + 24 + 4 * i, v, true));
        both += e.weight * push;
        held.push({ k: e.index[2], at: field, value });
      });
      table.setUint32(p * 80, put(new Uint32Array(view.buffer)), true);
      table.setUint32(p * 80 + 4, edges.length, true);
      table.setUint32(p * 80 + 8, series[p], true);
      table.setUint32(p * 80 + 12, voltages[p], true);
      const { parallel, impedance, rising, falling } = companion(plan.load?.(p) ?? null, plan.resistance(p), dt);
      [1 / (impedance + both / 2), both, parallel ? impedance : 1, rising, falling, parallel ? 1 : 0].forEach((v, i) =>
        table.setFloat64(p * 80 + 16 + 8 * i, v, true),
      );
    });
    held.sort((a, b) => a.k - b.k);
    words[P.PORTS] = d.ports.length;
    words[P.PORT] = put(new Uint32Array(table.buffer));
    words[P.SRC] = put(Uint32Array.from(held.flatMap((h) => [h.at, h.value])));
    words[P.SRC_START] = put(Int32Array.from({ length: nz + 1 }, (_, k) => held.filter((h) => h.k < k).length));

    // Guided ports: edges with the modes' fields, a line for each mode, what it sends and what is recorded.
    const records = (plan.guides ?? []).map(({ modes }) => arena.take(signalsOf(modes) * 2 * plan.maxSteps * 8));
    const portalAddresses = (plan.guides ?? []).flatMap((guide, g) => {
      const { modes } = guide;
      if (modes[0].line) return [];
      const edges = portalEdges(d, guide);
      const profiles = signalsOf(modes);
      const stride = 8 + 4 * modes.length + 8 * profiles;
      const view = new DataView(new ArrayBuffer(edges.length * stride));
      edges.forEach(({ c, at, other, beyond, source, e, h }, n) => {
        view.setUint32(n * stride, words[P.EX + c] + offset(at), true);
        view.setUint32(n * stride + 4, words[P.HX + other] + offset(beyond), true);
        source.forEach((v, m) => view.setFloat32(n * stride + 8 + 4 * m, v, true));
        e.forEach((v, k) => {
          view.setFloat32(n * stride + 8 + 4 * modes.length + 8 * k, v, true);
          view.setFloat32(n * stride + 12 + 4 * modes.length + 8 * k, h[k], true);
        });
      });
      const sources = Float32Array.from({ length: modes.length * plan.maxSteps }, (_, i) =>
        plan.drive!(g, Math.floor(i / plan.maxSteps), ((i % plan.maxSteps) + 0.5) * dt),
      );
      return [put(Uint32Array.of(put(new Uint32Array(view.buffer)), edges.length, modes.length, profiles, put(sources), records[g], plan.maxSteps))];
    });
    words[P.PORTALS] = put(Uint32Array.from(portalAddresses));
    words[P.PORTAL_COUNT] = portalAddresses.length;
    const guideAddresses = (plan.guides ?? []).flatMap((guide, g) => {
      const { modes, step } = guide;
      if (!modes[0].line) return [];
      const edges = weightedEdges(guide);
      const stride = 8 + 8 * modes.length;
      const view = new DataView(new ArrayBuffer(edges.length * stride));
      edges.forEach(({ c, at, beyond, other, e, w }, n) => {
        view.setUint32(n * stride, words[P.EX + c] + offset(at), true);
        view.setUint32(n * stride + 4, words[P.HX + other] + offset(beyond), true);
        modes.forEach((_, m) => {
          view.setFloat32(n * stride + 8 + 8 * m, e[m], true);
          view.setFloat32(n * stride + 12 + 8 * m, w[m], true);
        });
      });
      const cells = Math.ceil(0.5 * plan.maxSteps * Math.min(1, (c0 * dt) / step)) + 8;
      const head = new DataView(new ArrayBuffer(40 + modes.length * 48));
      const sources = Float32Array.from({ length: modes.length * plan.maxSteps }, (_, i) =>
        plan.drive!(g, Math.floor(i / plan.maxSteps), ((i % plan.maxSteps) + 0.5) * dt),
      );
      const u32 = [
        put(new Uint32Array(view.buffer)),
        edges.length,
        modes.length,
        cells,
        arena.take(modes.length * (3 * cells + 6) * 8),
        put(sources),
        records[g],
        plan.maxSteps,
      ];
      u32.forEach((v, i) => head.setUint32(4 * i, v, true));
      head.setFloat64(32, (c0 * dt) / step, true);
      modes.forEach(({ line }, m) => {
        const { c, l, kc, form } = line!;
        const cut = c0 * dt * kc;
        const factors = [
          (c0 * dt) / (c * step),
          (c0 * dt) / (l * step),
          form === 'shunt' ? cut : 0,
          form === 'series' ? cut / l : 0,
          cut / c,
          cut / c,
        ];
        factors.forEach((v, i) => head.setFloat64(40 + m * 48 + 8 * i, v, true));
      });
      return [put(new Uint32Array(head.buffer))];
    });
    words[P.GUIDES] = put(Uint32Array.from(guideAddresses));
    words[P.GUIDE_COUNT] = guideAddresses.length;

    // Losses of metal: branches by plane, edges and faces apart; a lumped port's edge has its own branch.
    const { branches } = d;
    const loaded = new Set(held.map((h) => h.at));
    // Branches on cut faces come last, as of the plane beyond the grid: their faces are ready only after the sweep.
    const planeOf = (n: number): number => (n < branches.onCuts ? nz : branches.index[3 * n + 2]);
    const order = Array.from({ length: branches.count }, (_, n) => n).sort((a, b) => planeOf(a) - planeOf(b));
    for (const [start, list, magnetic] of [
      [P.EDGE_START, P.EDGES, false],
      [P.FACE_START, P.FACES, true],
    ] as const) {
      const mine = order.filter((n) => branches.field[n] > 2 === magnetic && !loaded.has(addressOf(branches.field[n], branches.index, n)));
      const view = new DataView(new ArrayBuffer(Math.max(1, mine.length) * 48));
      mine.forEach((n, i) => {
        view.setUint32(i * 48, addressOf(branches.field[n], branches.index, n), true);
        view.setUint32(i * 48 + 4, branches.metal[n], true);
        view.setFloat32(i * 48 + 8, branches.q[n], true);
      });
      words[list] = put(new Uint32Array(view.buffer));
      const starts = new Int32Array(nz + 2);
      for (const n of mine) starts[planeOf(n) + 1]++;
      for (let k = 0; k <= nz; k++) starts[k + 1] += starts[k];
      words[start] = put(starts);
    }
    /** First entry of each row (k, j) of a list sorted by rows, and its end. */
    const rowStarts = (rows: Iterable<readonly [j: number, k: number]>): Int32Array => {
      const starts = new Int32Array((nz + 1) * (ny + 1) + 1);
      for (const [j, k] of rows) starts[k * (ny + 1) + j + 1]++;
      for (let n = 1; n < starts.length; n++) starts[n] += starts[n - 1];
      return starts;
    };
    // Media with memory: runs of edges of one class, by row.
    const kinds = d.classes.map((m) => {
      const view = new DataView(new ArrayBuffer(8 + 12 * m.real.length + 24 * m.paired.length));
      view.setUint32(0, m.real.length, true);
      view.setUint32(4, m.paired.length, true);
      [...m.real.flat(), ...m.paired.flat(2)].forEach((v, i) => view.setFloat32(8 + 4 * i, v, true));
      return put(new Uint8Array(view.buffer));
    });
    const runs = memoryRuns(d);
    const runView = new Uint32Array(4 * runs.length);
    /** Of edges that mix: class, first state, bytes from state to state. */
    const remembered = new Map<number, [number, number, number]>();
    const mixedRows = new Set(d.mixing ? Array.from({ length: d.mixing.count }, (_, n) => rowKey(d.mixing!.component[n], d.mixing!.index[3 * n + 1], d.mixing!.index[3 * n + 2])) : []); // prettier-ignore
    // States stand close together, in the order of the sweep; blocks of four edges on whole vectors.
    const sizes = runs.map(({ count, kind }) => {
      const each = 4 * (d.classes[kind - 1].real.length + 2 * d.classes[kind - 1].paired.length);
      return count === 1 ? each : Math.ceil(count / 4) * 4 * each;
    });
    const places: number[] = [];
    let room = 0;
    runs.forEach(({ count }, n) => {
      if (count > 1) room = (room + 15) & ~15;
      places.push(room);
      room += sizes[n];
    });
    const allStates = arena.take(room + 16);
    runs.forEach(({ component, at, count, kind }, n) => {
      const next = count === 1 ? 4 : 16;
      const block = count === 1 ? sizes[n] : sizes[n] / Math.ceil(count / 4);
      const states = allStates + places[n];
      const field = words[P.EX + component] + offset(at);
      runView.set([field, kinds[kind - 1], count, states], 4 * n);
      if (mixedRows.has(rowKey(component, at[1], at[2])))
        for (let i = 0; i < count; i++) remembered.set(field + 4 * i, [kinds[kind - 1], states + block * (i >> 2) + 4 * (i & 3), next]);
    });
    words[P.MEMORY] = runs.length ? put(runView) : 0;
    words[P.MEMORY_START] = runs.length ? put(rowStarts(runs.map((r) => [r.at[1], r.at[2]]))) : 0;

    // Edges at curved dielectric surfaces. Within the layers their shares lack the layers' memory.
    const { mixing } = d;
    const mixCount = mixing?.count ?? 0;
    const mixView = new DataView(new ArrayBuffer(Math.max(1, mixCount) * 64));
    const mixLinks = new DataView(new ArrayBuffer(Math.max(1, mixing?.other.length ?? 0) * 8));
    for (let n = 0; n < mixCount; n++) {
      const a = mixing!.component[n] as Axis;
      const [b, c] = [(a + 1) % 3, (a + 2) % 3] as [Axis, Axis];
      const at = mixing!.index.subarray(3 * n, 3 * n + 3);
      const [ca, cb] = coefficients(d, a, at);
      const u32 = [words[P.EX + a] + offset(at), words[P.HX + c] + offset(at), strides[b], words[P.HX + b] + offset(at), strides[c]];
      const f32 = [ca - 1, cb * factors[b].eInverse[at[b]], cb * factors[c].eInverse[at[c]]];
      u32.forEach((v, i) => mixView.setUint32(n * 64 + 4 * i, v, true));
      f32.forEach((v, i) => mixView.setFloat32(n * 64 + 20 + 4 * i, v, true));
      mixView.setInt32(n * 64 + 40, mixing!.start[n], true);
      mixView.setInt32(n * 64 + 44, mixing!.start[n + 1], true);
      remembered.get(u32[0])?.forEach((v, i) => mixView.setUint32(n * 64 + 48 + 4 * i, v, true));
    }
    mixing?.other.forEach((to, l) => {
      mixLinks.setInt32(l * 8, to, true);
      mixLinks.setFloat32(l * 8 + 4, mixing.factor[l], true);
    });
    words[P.MIX_COUNT] = mixCount;
    words[P.MIX] = put(new Uint32Array(mixView.buffer));
    words[P.MIX_LINKS] = put(new Uint32Array(mixLinks.buffer));
    words[P.MIX_START] = put(rowStarts(Array.from({ length: mixCount }, (_, n) => [mixing!.index[3 * n + 1], mixing!.index[3 * n + 2]])));

    // Rows to which a source adds, by plane.
    const { injection } = plan;
    words[P.WAVE_STEPS] = injection?.steps ?? 0;
    if (injection) {
      words[P.WAVE_TONES] = injection.tones;
      const tables = injection.tables.map((t) => ({ node: put(t.node), half: put(t.half), toIm: 4 * t.length }));
      const place = (magnetic: boolean, list: number, start: number, turn: number, turns: Float32Array): void => {
        const mine = injection.rows.filter((r) => r.field > 2 === magnetic).sort((p, q) => p.at[2] - q.at[2]);
        const view = new DataView(new ArrayBuffer(mine.length * 32));
        const starts = new Int32Array(nz + 2);
        const word = (r: InjectedRow): number[] => {
          const room = new Float32Array(4 * injection.tones);
          room.set(r.factors);
          const t = tables[r.axis];
          return [words[P.EX + r.field] + offset(r.at), strides[r.axis], r.count, put(room), (r.half ? t.half : t.node) + 4 * r.from, t.toIm];
        };
        mine.forEach((r, n) => {
          word(r).forEach((v, i) => view.setUint32(n * 32 + 4 * i, v, true));
          starts[r.at[2] + 1]++;
        });
        for (let k = 0; k <= nz; k++) starts[k + 1] += starts[k];
        words[list] = put(new Uint32Array(view.buffer));
        words[start] = put(starts);
        words[turn] = put(turns);
      };
      place(false, P.WAVE_E, P.WAVE_E_START, P.WAVE_E_TURN, injection.turnE);
      place(true, P.WAVE_H, P.WAVE_H_START, P.WAVE_H_TURN, injection.turnH);
    }

    // Faces cut by curved metal.
    const cuts = d.cuts?.faces;
    const cutCount = cuts?.count ?? 0;
    const cutView = new DataView(new ArrayBuffer(Math.max(1, cutCount) * 24));
    const linkView = new DataView(new ArrayBuffer(Math.max(1, cuts?.other.length ?? 0) * 8));
    for (let n = 0; n < cutCount; n++) {
      cutView.setUint32(n * 24, addressOf(cuts!.field[n], cuts!.index, n), true);
      cutView.setFloat32(n * 24 + 12, cuts!.own[n], true);
      cutView.setInt32(n * 24 + 16, cuts!.start[n], true);
      cutView.setInt32(n * 24 + 20, cuts!.start[n + 1], true);
    }
    cuts?.other.forEach((to, l) => {
      linkView.setInt32(l * 8, to, true);
      linkView.setFloat32(l * 8 + 4, cuts.factor[l], true);
    });
    words[P.CUT_COUNT] = cutCount;
    words[P.CUTS] = put(new Uint32Array(cutView.buffer));
    words[P.CUT_LINKS] = put(new Uint32Array(linkView.buffer));

    const classes = new Float32Array(Math.max(1, branches.metals.length) * classFloats);
    branches.metals.forEach((m, i) => classes.set(recursion(m.fit, dt), i * classFloats));
    words[P.BRANCH] = put(classes);

    // Samples kept at every step.
    const kept = plan.probes ?? [];
    const series32 = kept.map(() => arena.take(plan.maxSteps * 4));
    const probeView = new DataView(new ArrayBuffer(Math.max(1, kept.length) * 20));
    kept.forEach(({ field, at, shift, weights }, n) => {
      const base = words[P.EX + field];
      [base + offset(at), base + offset(at.map((v, i) => v + shift[i]))].forEach((v, i) => probeView.setUint32(n * 20 + 4 * i, v, true));
      weights.forEach((v, i) => probeView.setFloat32(n * 20 + 8 + 4 * i, v, true));
      probeView.setUint32(n * 20 + 16, series32[n], true);
    });
    words[P.PROBES] = put(new Uint32Array(probeView.buffer));
    words[P.PROBE_COUNT] = kept.length;

    // Running Fourier sums.
    const nf = frequencies.length;
    const sums = regions.map((r) => {
      const padded = (r.inner + 3) & ~3;
      const count = r.at?.list.length ?? nf;
      const floats = r.outer * count * 2 * padded;
      return { at: arena.take(floats * 4), padded, count, floats };
    });
    const lists = new Map<Region['at'], number>([[undefined, nf ? put(Uint32Array.from(frequencies, (_, f) => f)) : 0]]);
    for (const { at } of regions) if (at && !lists.has(at)) lists.set(at, put(Uint32Array.from(at.list)));
    const descriptors = new DataView(new ArrayBuffer(regions.length * 56));
    regions.forEach((r, n) => {
      const a = words[P.EX + r.field] + offset(r.from);
      const b = words[P.EX + r.field] + offset(r.from.map((v, i) => v + r.shift[i]));
      const u32 = [a, b, 0, 0, r.inner, strides[r.innerAxis], r.outer, strides[r.outerAxis], sums[n].at, sums[n].padded, r.field < 3 ? 0 : 1, sums[n].count, lists.get(r.at)!]; // prettier-ignore
      u32.forEach((v, i) => descriptors.setUint32(n * 56 + i * 4, v, true));
      descriptors.setFloat32(n * 56 + 8, r.wa, true);
      descriptors.setFloat32(n * 56 + 12, r.wb, true);
    });
    words[P.DFT_COUNT] = nf ? regions.length : 0;
    words[P.DFT] = put(new Uint32Array(descriptors.buffer));
    words[P.DFT_EVERY] = nf && regions.length ? plan.every : 0;
    words[P.DFT_NF] = nf;
    const samples = Math.floor(plan.maxSteps / plan.every);
    const twiddle = new Float32Array(samples * 4 * nf);
    for (let s = 0, at = 0; s < samples; s++)
      // A step ends with E at (n + 1) dt and then H half a step later.
      for (const later of [0, 0.5])
        for (const f of frequencies) {
          const angle = 2 * Math.PI * f * ((s + 1) * plan.every + later) * dt;
          twiddle[at++] = Math.cos(angle);
          twiddle[at++] = -Math.sin(angle);
        }
    words[P.DFT_TWIDDLE] = put(twiddle);
    words[P.SCRATCH_BYTES] = (Math.max(sx, ny + 1, nz + 1) + 16) * 4;
    words[P.SCRATCH] = arena.take(words[P.SCRATCH_BYTES] * threads);

    const steps = (a: Axis): Float32Array => {
      const x = grid.lines[a];
      return Float32Array.from({ length: Math.max(sx, x.length) }, (_, i) => (i + 1 < x.length ? x[i + 1] - x[i] : 0));
    };
    ([P.ENERGY_WX, P.ENERGY_WY, P.ENERGY_WZ] as const).forEach((w, a) => (words[w] = put(steps(a as Axis))));
    words[P.ENERGY] = arena.take(8 * threads);
    words[P.BUSY] = arena.take(8 * threads);
    const loads: PlaneLoads = { cells: nx * ny, layer: (k) => zSlots[k] >= 0, states: new Float64Array(nz + 1), mixed: new Float64Array(nz + 1) };
    for (const { at, count, kind } of runs) loads.states[at[2]] += count * (d.classes[kind - 1].real.length + 2 * d.classes[kind - 1].paired.length);
    for (let n = 0; n < mixCount; n++) loads.mixed[mixing!.index[3 * n + 2]]++;
    const costs = costsOf(nz, loads);
    words[P.SLABS] = put(slabsOf(costs, threads));
    words[P.BARRIER] = arena.take(64);

    const memory = new wasm.Memory({ initial: arena.pages(), maximum: arena.pages(), shared: true });
    for (const write of writes) write(memory.buffer);
    const block = new Uint32Array(memory.buffer, config, P.WORDS);
    block.set(words);
    new Float32Array(memory.buffer, config, P.WORDS)[P.VACUUM] = c0 * dt;
    // A faint static field keeps the quiet region ahead of the wave out of denormal numbers, which are slow.
    for (let c = 0; c < 3; c++) quietBias(new Float32Array(memory.buffer, words[P.EX + c], (size / 4) | 0), d, c as Axis);

    const instance = await wasm.instantiate(host.module, kernelImports(memory));
    const helpers = await Promise.all(Array.from({ length: threads - 1 }, () => host.spawn(host.module, memory)));
    return new Simulation(
      plan,
      memory.buffer,
      instance.exports.run,
      helpers,
      { config, voltages, records, probes: series32, energy: words[P.ENERGY], costs, sums },
      arena.bytes,
    );
  }

  /** Sets the electric field, V/m, of every edge off the outer walls; for tests. */
  setElectric(value: (c: Axis, at: [number, number, number]) => number): void {
    const { sx, grid } = this.plan.discrete;
    const [nx, ny, nz] = grid.lines.map((x) => x.length - 1);
    const words = new Uint32Array(this.buffer, this.at.config, P.WORDS);
    for (const c of [0, 1, 2] as const) {
      const field = new Float32Array(this.buffer, words[P.EX + c], sx * (ny + 1) * (nz + 1));
      for (let k = c === 2 ? 0 : 1; k < nz; k++)
        for (let j = c === 1 ? 0 : 1; j < ny; j++)
          for (let i = c === 0 ? 0 : 1; i < nx; i++) field[(k * (ny + 1) + j) * sx + i] = value(c, [i, j, k]);
    }
  }

  /** Row length in floats, and rows of a plane, of the field arrays. */
  get shape(): { sx: number; rows: number } {
    const { sx, grid } = this.plan.discrete;
    return { sx, rows: grid.lines[1].length };
  }

  /** A component of E as it stands, V/m, on all edges; x fastest. */
  electric(c: Axis): Float32Array {
    const { sx, grid } = this.plan.discrete;
    const [at] = new Uint32Array(this.buffer, this.at.config + 4 * (P.EX + c), 1);
    return new Float32Array(this.buffer, at, sx * grid.lines[1].length * grid.lines[2].length);
  }

  get steps(): number {
    return this.step;
  }
  get threads(): number {
    return this.helpers.length + 1;
  }

  /** Runs `count` steps on all threads and gives the field energy after them (arbitrary unit). */
  async advance(count: number): Promise<number> {
    const threads = this.threads;
    const args = (t: number): number[] => [this.at.config, t, threads, this.step, count, 1];
    const others = this.helpers.map((h, i) => h.run(args(i + 1)));
    this.run(...args(0));
    await Promise.all(others);
    this.step += count;
    if (threads > 1) this.rebalance();
    return new Float64Array(this.buffer, this.at.energy, threads).reduce((s, v) => s + v, 0);
  }

  /** Moves the borders of the threads' slabs by what the last steps took. */
  private rebalance(): void {
    const { config, costs } = this.at;
    const words = new Uint32Array(this.buffer, config, P.WORDS);
    const slabs = new Int32Array(this.buffer, words[P.SLABS], this.threads + 1);
    slabs.set(rebalanced(slabs.slice(), costs, new Float64Array(this.buffer, words[P.BUSY], this.threads)));
  }

  /**
   * Fades the running Fourier sums out between two steps, by half a period of a cosine, and takes nothing after them: what still
   * rings outside the band then does not spill into it.
   */
  fadeSums(from: number, to: number): void {
    const { every, frequencies, maxSteps } = this.plan;
    const [at] = new Uint32Array(this.buffer, this.at.config + 4 * P.DFT_TWIDDLE, 1);
    const row = 4 * frequencies.length;
    const samples = Math.floor(maxSteps / every);
    const twiddle = new Float32Array(this.buffer, at, samples * row);
    for (let s = Math.ceil(from / every); s < samples; s++) {
      const t = Math.min(1, ((s + 1) * every - from) / (to - from));
      const weight = 0.5 + 0.5 * Math.cos(Math.PI * t);
      for (let i = s * row; i < (s + 1) * row; i++) twiddle[i] *= weight;
    }
  }

  /** Voltage of a port after each step so far, V. */
  voltage(port: number): Float64Array {
    return new Float64Array(this.buffer, this.at.voltages[port], this.step);
  }

  /**
   * Amplitude of a guided mode's E after each step, and of its H half a step before, at the port's plane. Of a port with profiles:
   * E before each step, and H half a step after, on a profile, those of all modes counted through.
   */
  guided(guide: number, mode: number): { v: Float64Array; i: Float64Array } {
    const at = this.at.records[guide] + 2 * mode * this.plan.maxSteps * 8;
    return { v: new Float64Array(this.buffer, at, this.step), i: new Float64Array(this.buffer, at + this.plan.maxSteps * 8, this.step) };
  }

  /** Samples of a probe after each step so far; E in V/m, H times the impedance of free space. */
  probe(n: number): Float32Array {
    return new Float32Array(this.buffer, this.at.probes[n], this.step);
  }

  /** Fourier sums of a region so far. */
  sums(region: number): RegionSums {
    const s = this.at.sums[region];
    return { region: this.plan.regions[region], padded: s.padded, count: s.count, data: new Float32Array(this.buffer, s.at, s.floats) };
  }

  close(): void {
    for (const h of this.helpers) h.close();
  }
}

/** Signals that a guided port records: one for each mode or profile. */
const signalsOf = (modes: GuideModes['modes']): number => modes.reduce((n, m) => n + (m.shape?.profiles.length ?? 1), 0);

const hasCellBehind = (boundary: string): boolean => boundary === 'magnetic' || boundary === 'periodic';

/** What the cell behind each wall holds, as the kernel's mirror.ts takes it. */
function mirrorTable(boundaries: readonly string[], grid: Discrete['grid']): Uint8Array {
  const view = new DataView(new ArrayBuffer(6 * 12));
  boundaries.forEach((b, s) => {
    const last = grid.lines[s >> 1].length - 2;
    const [own, beside, far] = s & 1 ? [last, last - 1, 1] : [0, 1, last - 1];
    const periodic = b === 'periodic';
    view.setInt32(12 * s, hasCellBehind(b) ? own : -1, true);
    view.setInt32(12 * s + 4, periodic ? far : beside, true);
    view.setFloat32(12 * s + 8, periodic ? 1 : -1, true);
  });
  return new Uint8Array(view.buffer);
}

const bias = 1e-20;

/**
 * A load by the trapezoid rule: in a step V = impedance * I and what it remembers; `rising` and `falling` belong to the inductance
 * and capacitance in series, or the other way round in parallel.
 */
function companion(
  load: SceneLoad | null,
  resistance: number,
  dt: number,
): { parallel: boolean; impedance: number; rising: number; falling: number } {
  if (!load) return { parallel: false, impedance: resistance, rising: 0, falling: 0 };
  const { form, r, l, c } = load;
  const parallel = form === 'parallel';
  const [grow, fall] = parallel ? [c, l] : [l, c];
  const rising = (2 * grow) / dt;
  const falling = fall ? dt / (2 * fall) : 0;
  const own = parallel ? (r ? 1 / r : 0) : r;
  const sum = own + rising + falling;
  return { parallel, impedance: parallel ? 1 / sum : sum, rising, falling };
}

/** Writes the bias on every edge that is not metal, a wall or padding. */
function quietBias(field: Float32Array, d: Discrete, c: Axis): void {
  const [nx, ny, nz] = d.grid.lines.map((x) => x.length - 1);
  for (let k = 0; k < nz; k++)
    for (let j = 0; j <= ny; j++) {
      const row = d.rowOf[(k * 3 + c) * (ny + 1) + j];
      if (row === 0) continue;
      const at = (k * (ny + 1) + j) * d.sx;
      const from = at + (c === 0 ? 0 : 1);
      if (row === 1) field.fill(bias, from, at + nx);
      else {
        const cb = (row - 2) * 2 * d.sx + d.sx;
        for (let i = c === 0 ? 0 : 1; i < nx; i++) if (d.dictionary[cb + i] !== 0) field[at + i] = bias;
      }
    }
}
