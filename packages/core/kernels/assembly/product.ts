/**
 * Adds to C (m rows of n) the product of A (m rows of k) and B (k rows of n), double precision, row-major; n is a multiple of four, so that rows of B and C
 * begin at multiples of 16 bytes. Four rows by four columns are held in registers.
 */
export function product(a: usize, b: usize, c: usize, m: i32, k: i32, n: i32): void {
  const wide = (<usize>n) << 3;
  const deep = (<usize>k) << 3;
  let r = 0;
  for (; r + 4 <= m; r += 4) {
    const a0 = a + <usize>r * deep,
      a1 = a0 + deep,
      a2 = a1 + deep,
      a3 = a2 + deep;
    for (let at: usize = 0; at < wide; at += 32) {
      const c0 = c + <usize>r * wide + at,
        c1 = c0 + wide,
        c2 = c1 + wide,
        c3 = c2 + wide;
      let p0 = v128.load(c0),
        q0 = v128.load(c0, 16),
        p1 = v128.load(c1),
        q1 = v128.load(c1, 16),
        p2 = v128.load(c2),
        q2 = v128.load(c2, 16),
        p3 = v128.load(c3),
        q3 = v128.load(c3, 16);
      let from = b + at;
      for (let i: usize = 0; i < deep; i += 8, from += wide) {
        const x = v128.load(from),
          y = v128.load(from, 16);
        const s0 = v128.load64_splat(a0 + i);
        p0 = f64x2.add(p0, f64x2.mul(s0, x));
        q0 = f64x2.add(q0, f64x2.mul(s0, y));
        const s1 = v128.load64_splat(a1 + i);
        p1 = f64x2.add(p1, f64x2.mul(s1, x));
        q1 = f64x2.add(q1, f64x2.mul(s1, y));
        const s2 = v128.load64_splat(a2 + i);
        p2 = f64x2.add(p2, f64x2.mul(s2, x));
        q2 = f64x2.add(q2, f64x2.mul(s2, y));
        const s3 = v128.load64_splat(a3 + i);
        p3 = f64x2.add(p3, f64x2.mul(s3, x));
        q3 = f64x2.add(q3, f64x2.mul(s3, y));
      }
      v128.store(c0, p0);
      v128.store(c0, q0, 16);
      v128.store(c1, p1);
      v128.store(c1, q1, 16);
      v128.store(c2, p2);
      v128.store(c2, q2, 16);
      v128.store(c3, p3);
      v128.store(c3, q3, 16);
    }
  }
  for (; r < m; r++) {
    const row = a + <usize>r * deep;
    for (let at: usize = 0; at < wide; at += 32) {
      const to = c + <usize>r * wide + at;
      let p = v128.load(to),
        q = v128.load(to, 16);
      let from = b + at;
      for (let i: usize = 0; i < deep; i += 8, from += wide) {
        const s = v128.load64_splat(row + i);
        p = f64x2.add(p, f64x2.mul(s, v128.load(from)));
        q = f64x2.add(q, f64x2.mul(s, v128.load(from, 16)));
      }
      v128.store(to, p);
      v128.store(to, q, 16);
    }
  }
}
