import { barrier } from './barrier';
import { branches } from './branch';
import { waveRows } from './wave';
import { mixAdd, mixChanges, mixShares } from './mix';
import { now } from './env';
import { cutChanges, cutMixed, cutSave } from './cut';
import { guides } from './guide';
import { memories } from './memory';
import { mirrorEnds, mirrorPlane } from './mirror';
import { portals } from './portal';
import { probes } from './probe';
import { f32At, i32At, word } from './inline';
import { splitJumps, splitSamples, splitShares, splitSums } from './split';
import * as L from './layout';
import { psiBlock, psiRow, rowAcross, rowFlat, rowMagnetic } from './update';

/** One plane of the electric update, its CPML memory and the edges of ports in it. */
function electricPlane(cfg: usize, k: i32, n: i32): void {
  const row = word(cfg, L.P_SX) << 2;
  const ny = <i32>word(cfg, L.P_NY);
  const nx = <i32>word(cfg, L.P_NX);
  const plane = row * (ny + 1);
  const rows = word(cfg, L.P_ROWS) + <usize>(k * 3 * (ny + 1)) * 4;
  const vacuum = load<f32>(cfg + (L.P_VACUUM << 2));
  const gxRow = word(cfg, L.P_EX_INV);
  const gyAll = word(cfg, L.P_EY_INV);
  const gz = f32At(word(cfg, L.P_EZ_INV), k);
  const zSlot = i32At(word(cfg, L.P_Z_SLOT), k);
  const ySlots = <i32>word(cfg, L.P_Y_SLOTS);
  const low = word(cfg, L.P_X_LOW) << 2;
  const high = word(cfg, L.P_X_HIGH) << 2;
  const xBlock = low + (row - high);
  const bx = word(cfg, L.P_PML_E),
    cx = word(cfg, L.P_PML_E + 1);
  const base = <usize>k * plane;
  const lastX = (<usize>nx) << 2;
  const mixed = word(cfg, L.P_MIX_COUNT) ? word(cfg, L.P_MIX_START) : 0,
    runs = word(cfg, L.P_MEMORY_START);
  for (let j = 0; j <= ny; j++) {
    const o = base + <usize>j * row;
    const ex = word(cfg, L.P_EX) + o,
      ey = word(cfg, L.P_EY) + o,
      ez = word(cfg, L.P_EZ) + o;
    const hx = word(cfg, L.P_HX) + o,
      hy = word(cfg, L.P_HY) + o,
      hz = word(cfg, L.P_HZ) + o;
    const rx = <usize>load<u32>(rows + ((<usize>j) << 2));
    const ry = <usize>load<u32>(rows + ((<usize>(j + ny + 1)) << 2));
    const rz = <usize>load<u32>(rows + ((<usize>(j + 2 * (ny + 1))) << 2));
    const gy = f32At(gyAll, j);
    // A uniform row carries c*dt in its step factors; a dictionary row carries it in cb.
    if (rx) rowFlat(ex, hz, row, rx & 1 ? gy * vacuum : gy, hy, plane, rx & 1 ? gz * vacuum : gz, rx, row);
    if (ry) rowAcross(ey, hz, gxRow, hx, plane, ry & 1 ? gz * vacuum : gz, ry, row, vacuum, -1);
    if (rz) rowAcross(ez, hy, gxRow, hx, row, rz & 1 ? gy * vacuum : gy, rz, row, vacuum, 1);
    const ySlot = i32At(word(cfg, L.P_Y_SLOT), j);
    if (ySlot >= 0) {
      const b = f32At(word(cfg, L.P_PML_E + 2), j),
        c = f32At(word(cfg, L.P_PML_E + 3), j);
      const at = <usize>(k * ySlots + ySlot) * row;
      if (rx) psiRow(ex, word(cfg, L.P_PSI_E) + at, hz, -(<isize>row), b, c, rx, rx & 1 ? vacuum : 1, row);
      if (rz) psiRow(ez, word(cfg, L.P_PSI_E + 5) + at, hx, -(<isize>row), b, c, rz, rz & 1 ? -vacuum : -1, row);
    }
    if (zSlot >= 0) {
      const b = f32At(word(cfg, L.P_PML_E + 4), k),
        c = f32At(word(cfg, L.P_PML_E + 5), k);
      const at = <usize>(zSlot * (ny + 1) + j) * row;
      if (rx) psiRow(ex, word(cfg, L.P_PSI_E + 1) + at, hy, -(<isize>plane), b, c, rx, rx & 1 ? -vacuum : -1, row);
      if (ry) psiRow(ey, word(cfg, L.P_PSI_E + 2) + at, hx, -(<isize>plane), b, c, ry, ry & 1 ? vacuum : 1, row);
    }
    if (xBlock) {
      const at = <usize>(k * (ny + 1) + j) * xBlock;
      if (ry) {
        const psi = word(cfg, L.P_PSI_E + 3) + at,
          cb: usize = ry & 1 ? 0 : ry + row,
          s: f32 = ry & 1 ? -vacuum : -1;
        psiBlock(ey, psi, hz, -4, bx, cx, cb, s, low);
        psiBlock(ey + high, psi + low, hz + high, -4, bx + high, cx + high, cb ? cb + high : <usize>0, s, row - high);
      }
      if (rz) {
        const psi = word(cfg, L.P_PSI_E + 4) + at,
          cb: usize = rz & 1 ? 0 : rz + row,
          s: f32 = rz & 1 ? vacuum : 1;
        psiBlock(ez, psi, hy, -4, bx, cx, cb, s, low);
        psiBlock(ez + high, psi + low, hy + high, -4, bx + high, cx + high, cb ? cb + high : <usize>0, s, row - high);
      }
    }
    // The uniform loop runs over the two end walls as well; tangential E there is zero.
    if (ry & 1) {
      store<f32>(ey, 0);
      store<f32>(ey + lastX, 0);
    }
    if (rz & 1) {
      store<f32>(ez, 0);
      store<f32>(ez + lastX, 0);
    }
    const at = k * (ny + 1) + j;
    if (mixed) mixAdd(word(cfg, L.P_MIX), i32At(mixed, at), i32At(mixed, at + 1));
    if (runs) memories(word(cfg, L.P_MEMORY), i32At(runs, at), i32At(runs, at + 1));
  }
  if (n < <i32>word(cfg, L.P_WAVE_STEPS)) {
    const tones = <i32>word(cfg, L.P_WAVE_TONES),
      wave = word(cfg, L.P_WAVE_E_START);
    waveRows(word(cfg, L.P_WAVE_E), i32At(wave, k), i32At(wave, k + 1), word(cfg, L.P_WAVE_E_TURN) + ((<usize>n * <usize>tones) << 3), tones);
  }
  const start = word(cfg, L.P_SRC_START);
  const first = i32At(start, k),
    last = i32At(start, k + 1);
  for (let s = first; s < last; s++) {
    const entry = word(cfg, L.P_SRC) + <usize>s * L.PORT_SOURCE_SIZE;
    store<f32>(<usize>load<u32>(entry, L.PORT_SOURCE_FIELD), load<f32>(<usize>load<u32>(entry, L.PORT_SOURCE_VALUE)));
  }
  const edges = word(cfg, L.P_EDGE_START);
  branches(word(cfg, L.P_EDGES), i32At(edges, k), i32At(edges, k + 1), word(cfg, L.P_BRANCH));
}

/** One plane of the magnetic update and its CPML memory. */
function magneticPlane(cfg: usize, k: i32, n: i32): void {
  const row = word(cfg, L.P_SX) << 2;
  const ny = <i32>word(cfg, L.P_NY);
  const plane = row * (ny + 1);
  const gx = word(cfg, L.P_HX_INV);
  const gyAll = word(cfg, L.P_HY_INV);
  const gz = f32At(word(cfg, L.P_HZ_INV), k);
  const zSlot = i32At(word(cfg, L.P_Z_SLOT), k);
  const ySlots = <i32>word(cfg, L.P_Y_SLOTS);
  const low = word(cfg, L.P_X_LOW) << 2;
  const high = word(cfg, L.P_X_HIGH) << 2;
  const xBlock = low + (row - high);
  const bx = word(cfg, L.P_PML_H),
    cx = word(cfg, L.P_PML_H + 1);
  const base = <usize>k * plane;
  for (let j = 0; j <= ny; j++) {
    const o = base + <usize>j * row;
    const ex = word(cfg, L.P_EX) + o,
      ey = word(cfg, L.P_EY) + o,
      ez = word(cfg, L.P_EZ) + o;
    const hx = word(cfg, L.P_HX) + o,
      hy = word(cfg, L.P_HY) + o,
      hz = word(cfg, L.P_HZ) + o;
    rowMagnetic(hx, hy, hz, ex, ey, ez, gx, f32At(gyAll, j), gz, row, plane);
    const ySlot = i32At(word(cfg, L.P_Y_SLOT), j);
    if (ySlot >= 0) {
      const b = f32At(word(cfg, L.P_PML_H + 2), j),
        c = f32At(word(cfg, L.P_PML_H + 3), j);
      const at = <usize>(k * ySlots + ySlot) * row;
      psiRow(hx, word(cfg, L.P_PSI_H) + at, ez, <isize>row, b, c, 1, 1, row);
      psiRow(hz, word(cfg, L.P_PSI_H + 5) + at, ex, <isize>row, b, c, 1, -1, row);
    }
    if (zSlot >= 0) {
      const b = f32At(word(cfg, L.P_PML_H + 4), k),
        c = f32At(word(cfg, L.P_PML_H + 5), k);
      const at = <usize>(zSlot * (ny + 1) + j) * row;
      psiRow(hx, word(cfg, L.P_PSI_H + 1) + at, ey, <isize>plane, b, c, 1, -1, row);
      psiRow(hy, word(cfg, L.P_PSI_H + 2) + at, ex, <isize>plane, b, c, 1, 1, row);
    }
    if (xBlock) {
      const at = <usize>(k * (ny + 1) + j) * xBlock;
      const psiY = word(cfg, L.P_PSI_H + 3) + at,
        psiZ = word(cfg, L.P_PSI_H + 4) + at;
      psiBlock(hy, psiY, ez, 4, bx, cx, 0, -1, low);
      psiBlock(hz, psiZ, ey, 4, bx, cx, 0, 1, low);
      psiBlock(hy + high, psiY + low, ez + high, 4, bx + high, cx + high, 0, -1, row - high);
      psiBlock(hz + high, psiZ + low, ey + high, 4, bx + high, cx + high, 0, 1, row - high);
    }
  }
  if (n < <i32>word(cfg, L.P_WAVE_STEPS)) {
    const tones = <i32>word(cfg, L.P_WAVE_TONES),
      wave = word(cfg, L.P_WAVE_H_START);
    waveRows(word(cfg, L.P_WAVE_H), i32At(wave, k), i32At(wave, k + 1), word(cfg, L.P_WAVE_H_TURN) + ((<usize>n * <usize>tones) << 3), tones);
  }
  const faces = word(cfg, L.P_FACE_START);
  branches(word(cfg, L.P_FACES), i32At(faces, k), i32At(faces, k + 1), word(cfg, L.P_BRANCH));
  if (word(cfg, L.P_MIRROR)) mirrorPlane(cfg, k);
}

/**
 * Lumped ports: the edges of a port form one branch with source and resistor, I = (Vs - mean V) / R, the same current through
 * all edges in series, shared over those in parallel. The new V is linear in I, so I is found in closed form: exact in
 * energy, V*I is just what the field receives. The new edge values are kept until the sweep reaches their plane.
 * In place of the resistor may stand a load whose inductance and capacitance follow the trapezoid rule; h is what it remembers.
 */
function updatePorts(cfg: usize, n: i32): void {
  const count = <i32>word(cfg, L.P_PORTS);
  for (let p = 0; p < count; p++) {
    const port = word(cfg, L.P_PORT) + <usize>p * L.PORT_SIZE;
    const edges = <usize>load<u32>(port, L.PORT_EDGES);
    const end = edges + <usize>load<u32>(port, L.PORT_COUNT) * L.PORT_EDGE_SIZE;
    const series = <usize>load<u32>(port, L.PORT_VOLTAGES) + ((<usize>n) << 3);
    let free: f64 = 0;
    for (let e = edges; e < end; e += L.PORT_EDGE_SIZE) {
      const value =
        load<f32>(e, L.PORT_EDGE_CA) * load<f32>(<usize>load<u32>(e, L.PORT_EDGE_FIELD)) +
        (load<f32>(e, L.PORT_EDGE_DRIVE_P) * load<f32>(<usize>load<u32>(e, L.PORT_EDGE_P)) +
          load<f32>(e, L.PORT_EDGE_DRIVE_BACK_P) * load<f32>(<usize>load<u32>(e, L.PORT_EDGE_BACK_P))) +
        (load<f32>(e, L.PORT_EDGE_DRIVE_Q) * load<f32>(<usize>load<u32>(e, L.PORT_EDGE_Q)) +
          load<f32>(e, L.PORT_EDGE_DRIVE_BACK_Q) * load<f32>(<usize>load<u32>(e, L.PORT_EDGE_BACK_Q)));
      store<f32>(<usize>load<u32>(e, L.PORT_EDGE_VALUE), value);
      free += <f64>value * <f64>load<f32>(e, L.PORT_EDGE_WEIGHT);
    }
    const before: f64 = n > 0 ? load<f64>(series - 8) : 0;
    const source = <f64>load<f32>(<usize>load<u32>(port, L.PORT_SOURCE) + ((<usize>n) << 2));
    const both = load<f64>(port, L.PORT_OWN),
      mean = 0.5 * (before + free),
      ha = load<f64>(port, L.PORT_HELD_A),
      hb = load<f64>(port, L.PORT_HELD_B);
    const current = (source - load<f64>(port, L.PORT_FACTOR) * (ha + hb) - mean) * load<f64>(port, L.PORT_GAIN);
    const held = load<f64>(port, L.PORT_PARALLEL) != 0 ? mean + 0.5 * current * both : current;
    store<f64>(port, -2 * load<f64>(port, L.PORT_RISING) * held - ha, L.PORT_HELD_A);
    store<f64>(port, 2 * load<f64>(port, L.PORT_FALLING) * held + hb, L.PORT_HELD_B);
    for (let e = edges; e < end; e += L.PORT_EDGE_SIZE) {
      const out = <usize>load<u32>(e, L.PORT_EDGE_VALUE);
      store<f32>(out, load<f32>(out) + <f32>(current * <f64>load<f32>(e, L.PORT_EDGE_PUSH)));
    }
    store<f64>(series, free + current * both);
  }
}

/** Adds one time sample to the running Fourier sums of every recorded region; rows are dealt out to the threads. */
function accumulate(cfg: usize, thread: i32, threads: i32, sample: i32): void {
  const nf = <i32>word(cfg, L.P_DFT_NF);
  const scratch = word(cfg, L.P_SCRATCH) + <usize>thread * word(cfg, L.P_SCRATCH_BYTES);
  const count = <i32>word(cfg, L.P_DFT_COUNT);
  for (let r = 0; r < count; r++) {
    const d = word(cfg, L.P_DFT) + <usize>r * L.REGION_SIZE;
    const a = <usize>load<u32>(d, L.REGION_A),
      b = <usize>load<u32>(d, L.REGION_B);
    const wa = load<f32>(d, L.REGION_WA),
      wb = load<f32>(d, L.REGION_WB);
    const inner = load<i32>(d, L.REGION_INNER),
      innerStride = <usize>load<u32>(d, L.REGION_INNER_STRIDE);
    const outer = load<i32>(d, L.REGION_OUTER),
      outerStride = <usize>load<u32>(d, L.REGION_OUTER_STRIDE);
    const sums = <usize>load<u32>(d, L.REGION_SUMS),
      padded = (<usize>load<u32>(d, L.REGION_PADDED)) << 2;
    const magnetic = load<i32>(d, L.REGION_MAGNETIC);
    const kept = load<i32>(d, L.REGION_KEPT),
      list = <usize>load<u32>(d, L.REGION_LIST);
    const twiddle = word(cfg, L.P_DFT_TWIDDLE) + <usize>((sample * 2 + magnetic) * nf) * 8;
    for (let o = (thread + r) % threads; o < outer; o += threads) {
      let pa = a + <usize>o * outerStride,
        pb = b + <usize>o * outerStride;
      for (let i = 0; i < inner; i++, pa += innerStride, pb += innerStride)
        store<f32>(scratch + ((<usize>i) << 2), wa * load<f32>(pa) + wb * load<f32>(pb));
      let at = sums + <usize>o * <usize>(kept * 2) * padded;
      for (let f = 0; f < kept; f++) {
        const turn = twiddle + ((<usize>load<u32>(list + ((<usize>f) << 2))) << 3);
        const c = f32x4.splat(load<f32>(turn));
        const s = f32x4.splat(load<f32>(turn, 4));
        for (let i: usize = 0; i < padded; i += 16) {
          const v = v128.load(scratch + i);
          v128.store(at + i, f32x4.add(v128.load(at + i), f32x4.mul(c, v)));
          v128.store(at + padded + i, f32x4.add(v128.load(at + padded + i), f32x4.mul(s, v)));
        }
        at += padded * 2;
      }
    }
  }
}

/** Sum of (E^2 + H'^2) dV over this thread's planes, vacuum weights. */
function energy(cfg: usize, thread: i32, k0: i32, k1: i32): void {
  const row = word(cfg, L.P_SX) << 2;
  const ny = <i32>word(cfg, L.P_NY);
  const plane = row * (ny + 1);
  const wx = word(cfg, L.P_ENERGY_WX);
  let total: f64 = 0;
  for (let k = k0; k < k1; k++)
    for (let j = 0; j < ny; j++) {
      const o = <usize>k * plane + <usize>j * row;
      let sum = f32x4.splat(0);
      for (let f = 0; f < 6; f++) {
        const at = word(cfg, L.P_EX + f) + o;
        for (let i: usize = 0; i < row; i += 16) {
          const v = v128.load(at + i);
          sum = f32x4.add(sum, f32x4.mul(v128.load(wx + i), f32x4.mul(v, v)));
        }
      }
      const line = f32x4.extract_lane(sum, 0) + f32x4.extract_lane(sum, 1) + f32x4.extract_lane(sum, 2) + f32x4.extract_lane(sum, 3);
      total += <f64>line * <f64>f32At(word(cfg, L.P_ENERGY_WY), j) * <f64>f32At(word(cfg, L.P_ENERGY_WZ), k);
    }
  store<f64>(word(cfg, L.P_ENERGY) + ((<usize>thread) << 3), total);
}

/**
 * One time step on one of `threads` threads. Electric and magnetic planes are updated in one sweep: H of plane k-1 follows E of plane k while both
 * are in cache, which halves the traffic to memory. H of a slab's last plane waits for the barrier, as it needs the next slab's E. Gives the
 * milliseconds of the sweep.
 */
function step(cfg: usize, thread: i32, threads: i32, n: i32): f64 {
  const slabs = word(cfg, L.P_SLABS);
  const k0 = i32At(slabs, thread),
    k1 = i32At(slabs, thread + 1);
  const gate = word(cfg, L.P_BARRIER);
  const every = <i32>word(cfg, L.P_DFT_EVERY);
  const cuts = <i32>word(cfg, L.P_CUT_COUNT),
    firstCut = (thread * cuts) / threads,
    endCut = ((thread + 1) * cuts) / threads;
  const mixed = <i32>word(cfg, L.P_MIX_COUNT),
    firstMixed = (thread * mixed) / threads,
    endMixed = ((thread + 1) * mixed) / threads;
  const cutBranches = i32At(word(cfg, L.P_FACE_START), <i32>word(cfg, L.P_NZ)),
    allBranches = i32At(word(cfg, L.P_FACE_START), <i32>word(cfg, L.P_NZ) + 1);
  if (mixed) {
    mixChanges(word(cfg, L.P_MIX), firstMixed, endMixed);
    barrier(gate, threads);
    mixShares(word(cfg, L.P_MIX), word(cfg, L.P_MIX_LINKS), firstMixed, endMixed);
  }
  if (cuts) cutSave(word(cfg, L.P_CUTS), firstCut, endCut);
  const splits = <i32>word(cfg, L.P_SPLIT_E_COUNT);
  if (splits) {
    splitSamples(word(cfg, L.P_SPLIT_E), (thread * splits) / threads, ((thread + 1) * splits) / threads);
    barrier(gate, threads);
    const sums = <i32>word(cfg, L.P_SPLIT_SUM_E_COUNT);
    splitSums(word(cfg, L.P_SPLIT_SUM_E), (thread * sums) / threads, ((thread + 1) * sums) / threads);
  }
  if (thread == 0) {
    updatePorts(cfg, n);
    guides(word(cfg, L.P_GUIDES), <i32>word(cfg, L.P_GUIDE_COUNT), n);
    portals(word(cfg, L.P_PORTALS), <i32>word(cfg, L.P_PORTAL_COUNT), n);
  }
  annexes(cfg, thread, threads, n);
  barrier(gate, threads);
  const began = now();
  electricPlane(cfg, k0, n);
  for (let k = k0 + 1; k < k1; k++) {
    electricPlane(cfg, k, n);
    magneticPlane(cfg, k - 1, n);
  }
  const busy = now() - began;
  barrier(gate, threads);
  magneticPlane(cfg, k1 - 1, n);
  barrier(gate, threads);
  if (splits) {
    const faces = <i32>word(cfg, L.P_SPLIT_H_COUNT);
    splitSamples(word(cfg, L.P_SPLIT_H), (thread * faces) / threads, ((thread + 1) * faces) / threads);
    barrier(gate, threads);
  }
  if (cuts) {
    cutChanges(word(cfg, L.P_CUTS), firstCut, endCut);
    barrier(gate, threads);
    cutMixed(word(cfg, L.P_CUTS), word(cfg, L.P_CUT_LINKS), firstCut, endCut);
    barrier(gate, threads);
    const jumps = <i32>word(cfg, L.P_SPLIT_JUMP_COUNT);
    if (jumps) {
      if (thread == 0) splitJumps(word(cfg, L.P_SPLIT_JUMP), jumps);
      barrier(gate, threads);
    }
    const last = thread + 1 == threads ? allBranches : cutBranches + ((allBranches - cutBranches) / threads) * (thread + 1);
    branches(word(cfg, L.P_FACES), cutBranches + ((allBranches - cutBranches) / threads) * thread, last, word(cfg, L.P_BRANCH));
    barrier(gate, threads);
    if (splits) {
      if (jumps && thread == 0) splitShares(word(cfg, L.P_SPLIT_JUMP), jumps);
      if (jumps) barrier(gate, threads);
      const sums = <i32>word(cfg, L.P_SPLIT_SUM_H_COUNT);
      splitSums(word(cfg, L.P_SPLIT_SUM_H), (thread * sums) / threads, ((thread + 1) * sums) / threads);
      barrier(gate, threads);
    }
  }
  if (word(cfg, L.P_MIRROR)) {
    if (cuts) {
      for (let k = k0; k < k1; k++) mirrorPlane(cfg, k);
      barrier(gate, threads);
    }
    mirrorEnds(cfg, thread, threads);
    barrier(gate, threads);
  }
  const probed = <i32>word(cfg, L.P_PROBE_COUNT);
  if (thread == 0) probes(word(cfg, L.P_PROBES), probed, n);
  // An annex of another thread would else set E while it is still read.
  if (probed && word(cfg, L.P_ANNEX_COUNT)) barrier(gate, threads);
  if (every > 0 && (n + 1) % every == 0) {
    accumulate(cfg, thread, threads, (n + 1) / every - 1);
    barrier(gate, threads);
  }
  return busy;
}

/**
 * Guides that go on behind their ports: each takes H half a cell inside the model, makes a step of its own on one thread, and gives the port's plane its E, which
 * the model's sweep leaves as it is. Both together are one space, cut along the plane.
 */
function annexes(cfg: usize, thread: i32, threads: i32, n: i32): void {
  const count = <i32>word(cfg, L.P_ANNEX_COUNT);
  for (let a = thread; a < count; a += threads) {
    const annex = word(cfg, L.P_ANNEXES) + <usize>a * L.ANNEX_SIZE;
    copyLinks(<usize>load<u32>(annex, L.ANNEX_INWARD), load<i32>(annex, L.ANNEX_INWARD_COUNT));
    step(<usize>load<u32>(annex, L.ANNEX_CONFIG), 0, 1, n);
    copyLinks(<usize>load<u32>(annex, L.ANNEX_OUTWARD), load<i32>(annex, L.ANNEX_OUTWARD_COUNT));
  }
}

function copyLinks(links: usize, count: i32): void {
  const end = links + <usize>count * L.ANNEX_LINK_SIZE;
  for (let at = links; at < end; at += L.ANNEX_LINK_SIZE)
    store<f32>(<usize>load<u32>(at, L.ANNEX_LINK_TO), load<f32>(<usize>load<u32>(at, L.ANNEX_LINK_FROM)));
}

/**
 * Runs `steps` time steps from step `first` on one of `threads` threads; all threads call it with the same arguments.
 * `withEnergy` asks for the field energy after the last step.
 */
export function run(cfg: usize, thread: i32, threads: i32, first: i32, steps: i32, withEnergy: i32): void {
  let busy: f64 = 0;
  for (let s = 0; s < steps; s++) busy += step(cfg, thread, threads, first + s);
  store<f64>(word(cfg, L.P_BUSY) + ((<usize>thread) << 3), busy);
  if (withEnergy) {
    const slabs = word(cfg, L.P_SLABS);
    energy(cfg, thread, i32At(slabs, thread), i32At(slabs, thread + 1));
    barrier(word(cfg, L.P_BARRIER), threads);
  }
}
