/**
 * Static field at the straight edge of a thin sheet, as a complex potential W of Z = d + jz: d the distance from the edge (positive off the metal), z the height.
 * Re W is the potential, 0 on the sheet, Im W the flux; near the edge W is the root of Z (J. Meixner, IEEE Trans. Antennas Propag. 20, 442, 1972). Each field
 * gives [Re W, Im W, Re dW/dZ, Im dW/dZ] at d, z; on the sheet itself the side from which z comes counts, its upper one at z = 0. Lengths in metres.
 */
export type EdgeField = (d: number, z: number, out: Float64Array) => void;

/** Of an edge with no other metal near: W = Z^1/2. */
export const openEdge: EdgeField = (d, z, out) => {
  const size = Math.hypot(d, z);
  const re = Math.sqrt(Math.max(0, (size + d) / 2));
  const im = Math.sqrt(Math.max(0, (size - d) / 2)) * (z < 0 ? -1 : 1);
  out[0] = re;
  out[1] = im;
  // 1 / (2 root).
  const twice = 2 * size;
  out[2] = twice > 0 ? re / twice : Infinity;
  out[3] = twice > 0 ? -im / twice : 0;
};

/** Newton steps of the map of a plate over ground; near it they double the digits. */
const mostSteps = 60;
/** The step from which on they are done. */
const stopsAt = 1e-12;
/** Around the plate's edge, where both roots of the map meet, its expansion begins the search. */
const closeToEdge = 1.2;

/**
 * w with w + e^w = x + jy for y >= 0, into out[0], out[1]: Wright's omega function, of which the logarithm is taken, with its cut on y = pi, x < -1, where
 * y = pi counts as above.
 */
function plateMap(x: number, y: number, out: Float64Array): void {
  let [u, v] = [x, y];
  if (Math.hypot(x + 1, y - Math.PI) < closeToEdge) {
    // w = j pi + s, s^2 = -2 (x + 1 + j (y - pi)) nearly; above the plate Re s > 0, below it < 0, Im s < 0 on both sides.
    const [a, b] = [-2 * (x + 1), -2 * (y - Math.PI)];
    const size = Math.hypot(a, b);
    u = Math.sqrt(Math.max(0, (size + a) / 2)) * (y >= Math.PI ? 1 : -1);
    v = Math.PI - Math.sqrt(Math.max(0, (size - a) / 2));
  } else if (x <= -1 && y >= Math.PI) {
    // Above the plate: w = log(t - w), begun at log t.
    const [lu, lv] = [Math.log(Math.hypot(x, y)), Math.atan2(y, x)];
    [u, v] = [Math.log(Math.hypot(x - lu, y - lv)), Math.atan2(y - lv, x - lu)];
  } else if (x > -1) {
    const small = x < 1 && y < Math.PI && Math.hypot(x + 1, y) < 3;
    [u, v] = small ? [x / 2, y / 2] : [Math.log(Math.hypot(x, y)), Math.atan2(y, x)];
  }
  for (let n = 0; n < mostSteps; n++) {
    const e = Math.exp(u);
    const [er, ei] = [e * Math.cos(v), e * Math.sin(v)];
    const [fr, fi, dr] = [u + er - x, v + ei - y, 1 + er];
    const size = dr * dr + ei * ei;
    if (size < 1e-24) break;
    let [du, dv] = [(fr * dr + fi * ei) / size, (fi * dr - fr * ei) / size];
    const step = Math.hypot(du, dv);
    if (step > 1) [du, dv] = [du / step, dv / step];
    u -= du;
    v -= dv;
    if (step < stopsAt) break;
  }
  out[0] = u;
  out[1] = v;
}

/**
 * Of an edge with ground at a distance `h` below: J. C. Maxwell's map of the edge of a condenser (A Treatise on Electricity and Magnetism, 1873, art. 202), pi Z / h
 * - 1 + j pi = w + e^w, W = j w + pi.
 */
export function edgeOverGround(h: number): EdgeField {
  const scale = 1 / Math.sqrt((2 * Math.PI) / h);
  return (d, z, out) => {
    plateMap((Math.PI * d) / h - 1, Math.max(0, (Math.PI * (z + h)) / h), out);
    const [u, v] = [out[0], out[1]];
    const e = Math.exp(u);
    const [a, b] = [1 + e * Math.cos(v), e * Math.sin(v)];
    const size = ((a * a + b * b) * h) / Math.PI;
    out[0] = scale * (Math.PI - v);
    out[1] = scale * u;
    out[2] = size > 0 ? (scale * b) / size : Infinity;
    out[3] = size > 0 ? (scale * a) / size : 0;
  };
}

/** The same with ground above instead. */
export function edgeUnderGround(h: number): EdgeField {
  const below = edgeOverGround(h);
  return (d, z, out) => {
    below(d, -z, out);
    out[1] *= -1;
    out[3] *= -1;
  };
}

/**
 * Of an edge midway between two grounds at a distance `h`: W = arcsin (1 - e^(-pi Z / h))^1/2, from mapping the strip onto a plane with two cuts. For grounds at
 * two distances each side has the field of its own.
 */
export function edgeBetweenGrounds(below: number, above: number): EdgeField {
  return (d, z, out) => {
    const h = z < 0 ? below : above;
    const scale = 1 / Math.sqrt(Math.PI / h);
    const [x, y] = [(-Math.PI * d) / h, (-Math.PI * Math.max(-h, Math.min(h, z))) / h];
    // q = e^(-pi Z / h); s = (1 - q)^1/2 with Re s >= 0.
    const e = Math.exp(Math.min(x, 600));
    const [qr, qi] = [e * Math.cos(y), e * Math.sin(y)];
    const [pr, pi] = [1 - qr, -qi];
    const size = Math.hypot(pr, pi);
    const sr = Math.sqrt(Math.max(0, (size + pr) / 2));
    const si = Math.sqrt(Math.max(0, (size - pr) / 2)) * (z < 0 ? -1 : 1);
    // arcsin s: its real part from the distances to -1 and 1 (W. Kahan's form), its imaginary part with the sign of Im s.
    const [r1, r2] = [Math.hypot(sr + 1, si), Math.hypot(sr - 1, si)];
    const half = Math.max(1, (r1 + r2) / 2);
    out[0] = scale * Math.asin(Math.min(1, sr / half));
    out[1] = scale * Math.acosh(half) * (si < 0 ? -1 : 1);
    // dW/dZ = (pi / 2h) e^(-pi Z / 2h) / (1 - q)^1/2, as 1 - s^2 = q.
    const root = Math.sqrt(e);
    const [nr, ni] = [root * Math.cos(y / 2), root * Math.sin(y / 2)];
    const factor = (scale * Math.PI) / (2 * h);
    out[2] = size > 0 ? (factor * (nr * sr + ni * si)) / size : Infinity;
    out[3] = size > 0 ? (factor * (ni * sr - nr * si)) / size : 0;
  };
}

/** Of two grounds one that many times farther away hardly counts. */
const muchFarther = 2;

/** The field of an edge with ground at given distances below and above; Infinity where there is none. */
export function edgeField(below: number, above: number): EdgeField {
  const [near, far] = [Math.min(below, above), Math.max(below, above)];
  if (!Number.isFinite(near)) return openEdge;
  if (far > muchFarther * near) return near === below ? edgeOverGround(below) : edgeUnderGround(above);
  return edgeBetweenGrounds(below, above);
}
