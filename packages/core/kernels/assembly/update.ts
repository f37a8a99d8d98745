/**
 * Row updates of the Yee scheme. All addresses are bytes; a row is `row` bytes long, a multiple of 16.
 * Coefficient rows come from the row dictionary (ca then cb, each `row` bytes), so a row of any materials costs the
 * same straight loop and the few distinct rows of a model stay in the first-level cache.
 */

/** e = ca*e + cb*((p - p[pBack])*gp - (q - q[qBack])*gq); gp, gq constant along the row. Used for Ex. */
// @ts-ignore: decorator
@inline
export function rowFlat(e: usize, p: usize, pBack: usize, gp: f32, q: usize, qBack: usize, gq: f32, coefficients: usize, row: usize): void {
  const vp = f32x4.splat(gp), vq = f32x4.splat(gq);
  if (coefficients & 1) {
    for (let i: usize = 0; i < row; i += 16) {
      const curl = f32x4.sub(
        f32x4.mul(f32x4.sub(v128.load(p + i), v128.load(p + i - pBack)), vp),
        f32x4.mul(f32x4.sub(v128.load(q + i), v128.load(q + i - qBack)), vq));
      v128.store(e + i, f32x4.add(v128.load(e + i), curl));
    }
    return;
  }
  const cb = coefficients + row;
  for (let i: usize = 0; i < row; i += 16) {
    const curl = f32x4.sub(
      f32x4.mul(f32x4.sub(v128.load(p + i), v128.load(p + i - pBack)), vp),
      f32x4.mul(f32x4.sub(v128.load(q + i), v128.load(q + i - qBack)), vq));
    v128.store(e + i, f32x4.add(f32x4.mul(v128.load(coefficients + i), v128.load(e + i)), f32x4.mul(v128.load(cb + i), curl)));
  }
}

/**
 * e = ca*e + cb*sign*((x - x[-1])*gx[i] - (q - q[qBack])*gq): the two components whose curl has an x-derivative.
 * sign is +1 for Ez (x-derivative of Hy first) and -1 for Ey.
 */
// @ts-ignore: decorator
@inline
export function rowAcross(e: usize, x: usize, gx: usize, q: usize, qBack: usize, gq: f32, coefficients: usize, row: usize, vacuum: f32, sign: f32): void {
  const s = f32x4.splat(sign), vq = f32x4.splat(gq * sign);
  if (coefficients & 1) {
    const sv = f32x4.splat(sign * vacuum);
    for (let i: usize = 0; i < row; i += 16) {
      const curl = f32x4.sub(
        f32x4.mul(f32x4.sub(v128.load(x + i), v128.load(x + i - 4)), f32x4.mul(v128.load(gx + i), sv)),
        f32x4.mul(f32x4.sub(v128.load(q + i), v128.load(q + i - qBack)), vq));
      v128.store(e + i, f32x4.add(v128.load(e + i), curl));
    }
    return;
  }
  const cb = coefficients + row;
  for (let i: usize = 0; i < row; i += 16) {
    const curl = f32x4.sub(
      f32x4.mul(f32x4.sub(v128.load(x + i), v128.load(x + i - 4)), f32x4.mul(v128.load(gx + i), s)),
      f32x4.mul(f32x4.sub(v128.load(q + i), v128.load(q + i - qBack)), vq));
    v128.store(e + i, f32x4.add(f32x4.mul(v128.load(coefficients + i), v128.load(e + i)), f32x4.mul(v128.load(cb + i), curl)));
  }
}

/** The three magnetic rows of one (j, k) in one loop, so that each electric row is read once. */
// @ts-ignore: decorator
@inline
export function rowMagnetic(hx: usize, hy: usize, hz: usize, ex: usize, ey: usize, ez: usize, gx: usize, gy: f32, gz: f32, row: usize, plane: usize): void {
  const vy = f32x4.splat(gy), vz = f32x4.splat(gz);
  for (let i: usize = 0; i < row; i += 16) {
    const x = v128.load(ex + i), y = v128.load(ey + i), z = v128.load(ez + i), wx = v128.load(gx + i);
    const dzy = f32x4.mul(f32x4.sub(v128.load(ez + i + row), z), vy);
    const dyz = f32x4.mul(f32x4.sub(v128.load(ey + i + plane), y), vz);
    v128.store(hx + i, f32x4.sub(v128.load(hx + i), f32x4.sub(dzy, dyz)));
    const dxz = f32x4.mul(f32x4.sub(v128.load(ex + i + plane), x), vz);
    const dzx = f32x4.mul(f32x4.sub(v128.load(ez + i + 4), z), wx);
    v128.store(hy + i, f32x4.sub(v128.load(hy + i), f32x4.sub(dxz, dzx)));
    const dyx = f32x4.mul(f32x4.sub(v128.load(ey + i + 4), y), wx);
    const dxy = f32x4.mul(f32x4.sub(v128.load(ex + i + row), x), vy);
    v128.store(hz + i, f32x4.sub(v128.load(hz + i), f32x4.sub(dyx, dxy)));
  }
}

/** CPML memory of a whole row: psi = b*psi + c*(h - h[back]); e += sign*cb*psi (cb row, or `vacuum` where uniform). */
// @ts-ignore: decorator
@inline
export function psiRow(field: usize, psi: usize, d: usize, ahead: isize, b: f32, c: f32, coefficients: usize, scale: f32, row: usize): void {
  const vb = f32x4.splat(b), vc = f32x4.splat(c), vs = f32x4.splat(scale);
  if (coefficients & 1) {
    for (let i: usize = 0; i < row; i += 16) {
      const next = f32x4.add(f32x4.mul(vb, v128.load(psi + i)), f32x4.mul(vc, f32x4.sub(v128.load(d + i), v128.load(d + i + ahead))));
      v128.store(psi + i, next);
      v128.store(field + i, f32x4.add(v128.load(field + i), f32x4.mul(vs, next)));
    }
    return;
  }
  const cb = coefficients + row;
  for (let i: usize = 0; i < row; i += 16) {
    const next = f32x4.add(f32x4.mul(vb, v128.load(psi + i)), f32x4.mul(vc, f32x4.sub(v128.load(d + i), v128.load(d + i + ahead))));
    v128.store(psi + i, next);
    v128.store(field + i, f32x4.add(v128.load(field + i), f32x4.mul(f32x4.mul(vs, v128.load(cb + i)), next)));
  }
}

/** CPML memory of one end block of a row: b and c vary along it. `psi` is packed, the other addresses start at the block. */
// @ts-ignore: decorator
@inline
export function psiBlock(field: usize, psi: usize, d: usize, ahead: isize, b: usize, c: usize, cb: usize, scale: f32, bytes: usize): void {
  const vs = f32x4.splat(scale);
  for (let i: usize = 0; i < bytes; i += 16) {
    const next = f32x4.add(f32x4.mul(v128.load(b + i), v128.load(psi + i)), f32x4.mul(v128.load(c + i), f32x4.sub(v128.load(d + i), v128.load(d + i + ahead))));
    v128.store(psi + i, next);
    const add = f32x4.mul(vs, next);
    v128.store(field + i, f32x4.add(v128.load(field + i), cb ? f32x4.mul(v128.load(cb + i), add) : add));
  }
}
