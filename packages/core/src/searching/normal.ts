/** The distribution function of the normal distribution: M. Abramowitz and I. A. Stegun, 26.2.17, to 7.5e-8. */
export function normalBelow(x: number): number {
  const t = 1 / (1 + 0.2316419 * Math.abs(x));
  const tail =
    (Math.exp((-x * x) / 2) / Math.sqrt(2 * Math.PI)) *
    t *
    (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))));
  return x >= 0 ? 1 - tail : tail;
}

const rational = (r: number, above: readonly number[], below: readonly number[]): number => {
  let [p, q] = [0, 0];
  for (let i = above.length - 1; i >= 0; i--) p = p * r + above[i];
  for (let i = below.length - 1; i >= 0; i--) q = (q + below[i]) * r;
  return p / (q + 1);
};
const middle = [
  [3.3871328727963665, 133.14166789178438, 1971.5909503065513, 13731.69376550946, 45921.95393154987, 67265.7709270087, 33430.57558358813, 2509.0809287301227],
  [42.31333070160091, 687.1870074920579, 5394.196021424751, 21213.794301586597, 39307.89580009271, 28729.085735721943, 5226.495278852854],
] as const; // prettier-ignore
const near = [
  [1.4234371107496837, 4.630337846156546, 5.769497221460691, 3.6478483247632045, 1.2704582524523684, 0.2417807251774506, 0.022723844989269184, 0.0007745450142783414],
  [2.053191626637759, 1.6763848301838038, 0.6897673349851, 0.14810397642748008, 0.015198666563616457, 0.0005475938084995344, 1.0507500716444169e-9],
] as const; // prettier-ignore
const far = [
  [6.657904643501104, 5.463784911164114, 1.7848265399172913, 0.29656057182850487, 0.026532189526576124, 0.0012426609473880784, 2.7115555687434876e-5, 2.0103343992922881e-7],
  [0.599832206555888, 0.1369298809227358, 0.014875361290850615, 0.0007868691311456133, 1.8463183175100548e-5, 1.421511758316446e-7, 2.0442631033899397e-15],
] as const; // prettier-ignore

/** The value below which a normal distribution has a share, from 0 to 1 without its ends: M. J. Wichura, Appl. Stat. 37 (1988) 477, PPND16, to 1e-16. */
export function normalAt(share: number): number {
  const q = share - 0.5;
  if (Math.abs(q) <= 0.425) return q * rational(0.180625 - q * q, ...middle);
  const r = Math.sqrt(-Math.log(q < 0 ? share : 1 - share));
  return Math.sign(q) * (r <= 5 ? rational(r - 1.6, ...near) : rational(r - 5, ...far));
}
