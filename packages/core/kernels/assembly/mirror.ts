import { word } from './inline';
import * as L from './layout';

/**
 * One cell outside the region behind a magnetic or periodic wall holds the tangential H that the wall asks for: that of the cell
 * inside with the other sign, or that of the far end. The electric update on the wall is then the ordinary one.
 * The table has an entry for each side: xMin, xMax, yMin, yMax, zMin, zMax.
 */

/** to = sign * from, `bytes` long, a multiple of 16. */
function copyRow(to: usize, from: usize, sign: f32, bytes: usize): void {
  const s = f32x4.splat(sign);
  for (let i: usize = 0; i < bytes; i += 16) v128.store(to + i, f32x4.mul(s, v128.load(from + i)));
}

/** Fills what lies behind the walls across x and y in one plane. */
export function mirrorPlane(cfg: usize, k: i32): void {
  const table = word(cfg, L.P_MIRROR);
  const row = word(cfg, L.P_SX) << 2;
  const ny = <i32>word(cfg, L.P_NY);
  const base = <usize>k * row * <usize>(ny + 1);
  const hx = word(cfg, L.P_HX) + base,
    hy = word(cfg, L.P_HY) + base,
    hz = word(cfg, L.P_HZ) + base;
  for (let side = 0; side < 2; side++) {
    const entry = table + <usize>side * L.SIDE_SIZE;
    const to = load<i32>(entry, L.SIDE_TO),
      from = load<i32>(entry, L.SIDE_FROM);
    if (to < 0) continue;
    const sign = load<f32>(entry, L.SIDE_SIGN);
    const a = (<usize>to) << 2,
      b = (<usize>from) << 2;
    for (let j = 0; j <= ny; j++) {
      const o = <usize>j * row;
      store<f32>(hy + o + a, sign * load<f32>(hy + o + b));
      store<f32>(hz + o + a, sign * load<f32>(hz + o + b));
    }
  }
  for (let side = 2; side < 4; side++) {
    const entry = table + <usize>side * L.SIDE_SIZE;
    const to = load<i32>(entry, L.SIDE_TO),
      from = load<i32>(entry, L.SIDE_FROM);
    if (to < 0) continue;
    const sign = load<f32>(entry, L.SIDE_SIGN);
    copyRow(hx + <usize>to * row, hx + <usize>from * row, sign, row);
    copyRow(hz + <usize>to * row, hz + <usize>from * row, sign, row);
  }
}

/** Fills the planes behind the walls across z; rows are dealt out to the threads. */
export function mirrorEnds(cfg: usize, thread: i32, threads: i32): void {
  const table = word(cfg, L.P_MIRROR);
  const row = word(cfg, L.P_SX) << 2;
  const rows = <i32>word(cfg, L.P_NY) + 1;
  const plane = row * <usize>rows;
  for (let side = 4; side < 6; side++) {
    const entry = table + <usize>side * L.SIDE_SIZE;
    const to = load<i32>(entry, L.SIDE_TO),
      from = load<i32>(entry, L.SIDE_FROM);
    if (to < 0) continue;
    const sign = load<f32>(entry, L.SIDE_SIGN);
    for (let j = thread; j < rows; j += threads) {
      const a = <usize>to * plane + <usize>j * row,
        b = <usize>from * plane + <usize>j * row;
      copyRow(word(cfg, L.P_HX) + a, word(cfg, L.P_HX) + b, sign, row);
      copyRow(word(cfg, L.P_HY) + a, word(cfg, L.P_HY) + b, sign, row);
    }
  }
}
