import type { ProductKernel } from '../numerics/product.ts';

/** The periodic sinc of an even number of samples. */
function dirichlet(count: number, x: number): number {
  const t = Math.tan(x / 2);
  return Math.abs(t) < 1e-13 ? 1 : Math.abs(t) > 1e13 ? 0 : Math.sin((count * x) / 2) / (count * t);
}

/**
 * A pattern of `half` steps of theta and twice as many of phi at other steps: by its trigonometric polynomials, of which it must have no more than `half`
 * harmonics. On the doubled sphere (theta, phi) and (-theta, phi + pi) are one direction, with both components turned round. Four numbers a direction.
 */
export function resampled(values: Float64Array, half: number, nTheta: number, nPhi: number, products: ProductKernel): Float64Array {
  const around = 2 * half;
  if (nTheta === half + 1 && nPhi === around) return values;
  return inPhi(inTheta(values, half, nTheta, products), around, nTheta, nPhi, products);
}

/** Rings of `from` samples (even) at other places around; what is even in phi and what is odd apart, as they are two at a time. */
function inPhi(values: Float64Array, from: number, nTheta: number, to: number, products: ProductKernel): Float64Array {
  const [half, upTo] = [from / 2, Math.floor(to / 2)];
  const weightsOf = (sign: number): Float64Array =>
    Float64Array.from({ length: (upTo + 1) * (half + 1) }, (_, n) => {
      const [phi, at] = [(2 * Math.PI * Math.floor(n / (half + 1))) / to, (Math.PI * (n % (half + 1))) / half];
      return (dirichlet(from, phi - at) + sign * dirichlet(from, phi + at)) / 2;
    });
  // Rows of all rings for each place of half a turn.
  const wide = 4 * nTheta;
  const [e, o] = [new Float64Array((half + 1) * wide), new Float64Array((half + 1) * wide)];
  for (let m = 0; m <= half; m++) {
    const whole = m === 0 || m === half ? 0.5 : 1;
    for (let t = 0, to = m * wide; t < nTheta; t++)
      for (let q = 0; q < 4; q++, to++) {
        const [x, y] = [values[(t * from + m) * 4 + q], values[(t * from + ((from - m) % from)) * 4 + q]];
        e[to] = whole * (x + y);
        o[to] = whole * (x - y);
      }
  }
  const [a, b] = [new Float64Array((upTo + 1) * wide), new Float64Array((upTo + 1) * wide)];
  products.multiply(weightsOf(1), e, upTo + 1, half + 1, wide, a);
  products.multiply(weightsOf(-1), o, upTo + 1, half + 1, wide, b);
  const out = new Float64Array(to * wide);
  for (let p = 0, at = 0; p <= upTo; p++)
    for (let t = 0; t < nTheta; t++) {
      const [here, there] = [(t * to + p) * 4, (t * to + ((to - p) % to)) * 4];
      for (let q = 0; q < 4; q++, at++) {
        out[there + q] = a[at] - b[at];
        out[here + q] = a[at] + b[at];
      }
    }
  return out;
}

/** The same along theta alone: sum and difference of opposite half circles are even and odd beyond the pole. */
function inTheta(values: Float64Array, half: number, nTheta: number, products: ProductKernel): Float64Array {
  const around = 2 * half;
  // Of a full circle in theta, at places from pole to pole.
  const circle = Array.from({ length: nTheta }, (_, i) => (i * Math.PI) / (nTheta - 1));
  const weightsOf = (sign: number): Float64Array =>
    Float64Array.from({ length: nTheta * (half + 1) }, (_, n) => {
      const [theta, m] = [circle[Math.floor(n / (half + 1))], n % (half + 1)];
      const here = dirichlet(around, theta - (m * Math.PI) / half);
      return m === 0 || m === half ? here : here + sign * dirichlet(around, theta + (m * Math.PI) / half);
    });
  const wide = 4 * half;
  const [s, d] = [new Float64Array((half + 1) * wide), new Float64Array((half + 1) * wide)];
  for (let m = 0, to = 0; m <= half; m++)
    for (let p = 0, at = m * around * 4; p < wide; p++, at++, to++) {
      const [x, y] = [values[at], values[at + wide]];
      s[to] = x + y;
      d[to] = x - y;
    }
  const [a, b] = [new Float64Array(nTheta * wide), new Float64Array(nTheta * wide)];
  // Beyond the pole a sum goes on turned round, a difference as it is.
  products.multiply(weightsOf(-1), s, nTheta, half + 1, wide, a);
  products.multiply(weightsOf(1), d, nTheta, half + 1, wide, b);
  const out = new Float64Array(nTheta * around * 4);
  for (let t = 0, from = 0; t < nTheta; t++)
    for (let p = 0, at = t * around * 4; p < wide; p++, at++, from++) {
      out[at] = (a[from] + b[from]) / 2;
      out[at + wide] = (a[from] - b[from]) / 2;
    }
  return out;
}
