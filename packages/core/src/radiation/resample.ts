/** The periodic sinc of an even number of samples. */
function dirichlet(count: number, x: number): number {
  const t = Math.tan(x / 2);
  return Math.abs(t) < 1e-13 ? 1 : Math.abs(t) > 1e13 ? 0 : Math.sin((count * x) / 2) / (count * t);
}

/**
 * A pattern of `half` steps of theta and twice as many of phi at other steps: by its trigonometric polynomials, of which it must have no more than `half`
 * harmonics. On the doubled sphere (theta, phi) and (-theta, phi + pi) are one direction, with both components turned round. Four numbers a direction.
 */
export function resampled(values: Float64Array, half: number, nTheta: number, nPhi: number): Float64Array {
  const around = 2 * half;
  if (nTheta === half + 1 && nPhi === around) return values;
  return inPhi(inTheta(values, half, nTheta), around, nTheta, nPhi);
}

/** Rings of `from` samples (even) at other places around; what is even in phi and what is odd apart, as they are two at a time. */
function inPhi(values: Float64Array, from: number, nTheta: number, to: number): Float64Array {
  const [half, upTo] = [from / 2, Math.floor(to / 2)];
  const weightsOf = (sign: number): Float64Array =>
    Float64Array.from({ length: (upTo + 1) * (half + 1) }, (_, n) => {
      const [phi, at] = [(2 * Math.PI * Math.floor(n / (half + 1))) / to, (Math.PI * (n % (half + 1))) / half];
      return (dirichlet(from, phi - at) + sign * dirichlet(from, phi + at)) / 2;
    });
  const [evens, odds] = [weightsOf(1), weightsOf(-1)];
  const out = new Float64Array(nTheta * to * 4);
  const [e, o] = [new Float64Array((half + 1) * 4), new Float64Array((half + 1) * 4)];
  for (let t = 0; t < nTheta; t++) {
    for (let m = 0; m <= half; m++)
      for (let q = 0; q < 4; q++) {
        const [x, y] = [values[(t * from + m) * 4 + q], values[(t * from + ((from - m) % from)) * 4 + q]];
        const whole = m === 0 || m === half ? 0.5 : 1;
        e[4 * m + q] = whole * (x + y);
        o[4 * m + q] = whole * (x - y);
      }
    for (let p = 0; p <= upTo; p++) {
      let a = 0,
        b = 0,
        c = 0,
        d = 0,
        f = 0,
        g = 0,
        h = 0,
        i = 0;
      for (let m = 0, w = p * (half + 1), at = 0; m <= half; m++, w++, at += 4) {
        const x = evens[w],
          y = odds[w];
        a += x * e[at];
        b += x * e[at + 1];
        c += x * e[at + 2];
        d += x * e[at + 3];
        f += y * o[at];
        g += y * o[at + 1];
        h += y * o[at + 2];
        i += y * o[at + 3];
      }
      const [here, there] = [(t * to + p) * 4, (t * to + ((to - p) % to)) * 4];
      out[there] = a - f;
      out[there + 1] = b - g;
      out[there + 2] = c - h;
      out[there + 3] = d - i;
      out[here] = a + f;
      out[here + 1] = b + g;
      out[here + 2] = c + h;
      out[here + 3] = d + i;
    }
  }
  return out;
}

/** The same along theta alone: sum and difference of opposite half circles are even and odd beyond the pole. */
function inTheta(values: Float64Array, half: number, nTheta: number): Float64Array {
  const around = 2 * half;
  // Of a full circle in theta, at places from pole to pole.
  const circle = Array.from({ length: nTheta }, (_, i) => (i * Math.PI) / (nTheta - 1));
  const weightsOf = (sign: number): Float64Array =>
    Float64Array.from({ length: nTheta * (half + 1) }, (_, n) => {
      const [theta, m] = [circle[Math.floor(n / (half + 1))], n % (half + 1)];
      const here = dirichlet(around, theta - (m * Math.PI) / half);
      return m === 0 || m === half ? here : here + sign * dirichlet(around, theta + (m * Math.PI) / half);
    });
  // Beyond the pole a sum goes on turned round, a difference as it is.
  const [sums, differences] = [weightsOf(-1), weightsOf(1)];
  const out = new Float64Array(nTheta * around * 4);
  const [s, d] = [new Float64Array((half + 1) * 4), new Float64Array((half + 1) * 4)];
  for (let p = 0; p < half; p++) {
    for (let m = 0; m <= half; m++)
      for (let q = 0; q < 4; q++) {
        const [x, y] = [values[(m * around + p) * 4 + q], values[(m * around + p + half) * 4 + q]];
        s[4 * m + q] = x + y;
        d[4 * m + q] = x - y;
      }
    for (let t = 0; t < nTheta; t++)
      for (let q = 0; q < 4; q++) {
        let x = 0,
          y = 0;
        for (let m = 0, w = t * (half + 1); m <= half; m++, w++) {
          x += sums[w] * s[4 * m + q];
          y += differences[w] * d[4 * m + q];
        }
        out[(t * around + p) * 4 + q] = (x + y) / 2;
        out[(t * around + p + half) * 4 + q] = (x - y) / 2;
      }
  }
  return out;
}
