/** Bessel functions J0 and J1 of a complex number near the positive real axis, into `out`: re and im of J0, then of J1. */
export function besselJ(x: number, y: number, out: Float64Array): void {
  if (x * x + y * y > 144) hankel(x, y, out);
  else series(x, y, out);
}

/** Ascending series (Abramowitz and Stegun 9.1.10); up to |z| = 12 it loses no more than five digits of fifteen. */
function series(x: number, y: number, out: Float64Array): void {
  // w = -(z / 2)^2
  const wr = -(x * x - y * y) / 4;
  const wi = (-2 * x * y) / 4;
  let [tr, ti] = [1, 0];
  let [ar, ai, br, bi] = [1, 0, 1, 0];
  for (let k = 1; k < 60; k++) {
    const [ur, ui] = [(tr * wr - ti * wi) / (k * k), (tr * wi + ti * wr) / (k * k)];
    [tr, ti] = [ur, ui];
    ar += tr;
    ai += ti;
    br += tr / (k + 1);
    bi += ti / (k + 1);
    if (tr * tr + ti * ti < 1e-34 * (ar * ar + ai * ai + 1e-30)) break;
  }
  out[0] = ar;
  out[1] = ai;
  out[2] = (br * x - bi * y) / 2;
  out[3] = (br * y + bi * x) / 2;
}

/** Hankel's asymptotic expansion (Abramowitz and Stegun 9.2.5). */
function hankel(x: number, y: number, out: Float64Array): void {
  const size = x * x + y * y;
  // 1 / (8 z)
  const [er, ei] = [x / (8 * size), -y / (8 * size)];
  // sqrt(2 / (pi z))
  const r = Math.sqrt(size);
  const m = Math.sqrt(2 / (Math.PI * r));
  const half = -Math.atan2(y, x) / 2;
  const [sr, si] = [m * Math.cos(half), m * Math.sin(half)];
  for (const order of [0, 1]) {
    const mu = 4 * order * order;
    let [pr, pi, qr, qi] = [1, 0, 0, 0];
    let [tr, ti] = [1, 0];
    let last = Infinity;
    for (let k = 1; k < 30; k++) {
      const f = (mu - (2 * k - 1) ** 2) / k;
      const [ur, ui] = [f * (tr * er - ti * ei), f * (tr * ei + ti * er)];
      const term = ur * ur + ui * ui;
      if (term > last || term < 1e-34) break;
      last = term;
      [tr, ti] = [ur, ui];
      // Terms go to Q, -P, -Q, P in turn.
      const sign = k % 4 === 1 || k % 4 === 0 ? 1 : -1;
      if (k % 2) {
        qr += sign * tr;
        qi += sign * ti;
      } else {
        pr += sign * tr;
        pi += sign * ti;
      }
    }
    const angle = x - (2 * order + 1) * (Math.PI / 4);
    const [ch, sh] = [Math.cosh(y), Math.sinh(y)];
    const [cr, ci] = [Math.cos(angle) * ch, -Math.sin(angle) * sh];
    const [nr, ni] = [Math.sin(angle) * ch, Math.cos(angle) * sh];
    const [vr, vi] = [pr * cr - pi * ci - (qr * nr - qi * ni), pr * ci + pi * cr - (qr * ni + qi * nr)];
    out[2 * order] = sr * vr - si * vi;
    out[2 * order + 1] = sr * vi + si * vr;
  }
}
