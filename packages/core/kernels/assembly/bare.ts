import { barrier } from './barrier';

/**
 * The yardstick of `npm run bench`: the plain vacuum update on a uniform grid, two passes, no materials, no boundary,
 * no recording. Layout as the solver's: rows of sx floats, ny rows a plane, nz planes; six arrays from `fields`.
 */
export function bare(thread: i32, threads: i32, steps: i32, fields: usize, sx: i32, ny: i32, nz: i32, gate: usize): void {
  const row: usize = (<usize>sx) << 2;
  const plane: usize = row * ny;
  const size: usize = plane * (nz + 1);
  const ex = fields,
    ey = ex + size,
    ez = ey + size,
    hx = ez + size,
    hy = hx + size,
    hz = hy + size;
  const c = f32x4.splat(0.5);
  const k0 = 1 + (thread * (nz - 2)) / threads;
  const k1 = 1 + ((thread + 1) * (nz - 2)) / threads;
  for (let n = 0; n < steps; n++) {
    for (let k = k0; k < k1; k++)
      for (let j = 1; j < ny - 1; j++) {
        const o: usize = <usize>k * plane + <usize>j * row;
        for (let i: usize = 16; i < row - 16; i += 16) {
          const a = o + i;
          const vx = v128.load(hx + a),
            vy = v128.load(hy + a),
            vz = v128.load(hz + a);
          v128.store(
            ex + a,
            f32x4.add(v128.load(ex + a), f32x4.mul(c, f32x4.sub(f32x4.sub(vz, v128.load(hz + a - row)), f32x4.sub(vy, v128.load(hy + a - plane))))),
          );
          v128.store(
            ey + a,
            f32x4.add(v128.load(ey + a), f32x4.mul(c, f32x4.sub(f32x4.sub(vx, v128.load(hx + a - plane)), f32x4.sub(vz, v128.load(hz + a - 4))))),
          );
          v128.store(
            ez + a,
            f32x4.add(v128.load(ez + a), f32x4.mul(c, f32x4.sub(f32x4.sub(vy, v128.load(hy + a - 4)), f32x4.sub(vx, v128.load(hx + a - row))))),
          );
        }
      }
    barrier(gate, threads);
    for (let k = k0; k < k1; k++)
      for (let j = 1; j < ny - 1; j++) {
        const o: usize = <usize>k * plane + <usize>j * row;
        for (let i: usize = 16; i < row - 16; i += 16) {
          const a = o + i;
          const vx = v128.load(ex + a),
            vy = v128.load(ey + a),
            vz = v128.load(ez + a);
          v128.store(
            hx + a,
            f32x4.sub(v128.load(hx + a), f32x4.mul(c, f32x4.sub(f32x4.sub(v128.load(ez + a + row), vz), f32x4.sub(v128.load(ey + a + plane), vy)))),
          );
          v128.store(
            hy + a,
            f32x4.sub(v128.load(hy + a), f32x4.mul(c, f32x4.sub(f32x4.sub(v128.load(ex + a + plane), vx), f32x4.sub(v128.load(ez + a + 4), vz)))),
          );
          v128.store(
            hz + a,
            f32x4.sub(v128.load(hz + a), f32x4.mul(c, f32x4.sub(f32x4.sub(v128.load(ey + a + 4), vy), f32x4.sub(v128.load(ex + a + row), vx)))),
          );
        }
      }
    barrier(gate, threads);
  }
}

/** Bandwidth loop a[i] = b[i] + s*c[i] over `bytes` bytes per array; three arrays from `at`. */
export function triad(thread: i32, threads: i32, rounds: i32, at: usize, bytes: usize, gate: usize): void {
  const part: usize = (bytes / threads) & ~15;
  const from = at + part * thread;
  const s = f32x4.splat(0.5);
  for (let n = 0; n < rounds; n++) {
    for (let p = from, end = from + part; p < end; p += 16) v128.store(p, f32x4.add(v128.load(p + bytes), f32x4.mul(s, v128.load(p + 2 * bytes))));
    barrier(gate, threads);
  }
}
