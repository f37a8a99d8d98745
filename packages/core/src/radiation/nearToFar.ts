import { c0, eta0 } from '../numerics/constants.ts';
import type { Axis } from '../numerics/axis.ts';

/** Surface samples of one tangential field component on one face of a closed box. */
export interface FaceSamples {
  /** 0, 1, 2: axis of the face's normal, and +1 or -1 outward. */
  normal: Axis;
  outward: 1 | -1;
  /** Coordinate of the face on its normal axis, metres. */
  at: number;
  /** Component axis, and whether it is E (V/m) or H' = eta0 H (V/m). */
  component: Axis;
  magnetic: boolean;
  /** The two in-plane axes and the coordinates and widths of the samples along them. */
  axes: [Axis, Axis];
  coordinates: [Float64Array, Float64Array];
  widths: [Float64Array, Float64Array];
  /** Complex samples [second axis][first axis]. */
  re: Float64Array;
  im: Float64Array;
}

/** A pattern on equally spaced angles: theta 0..pi in `nTheta` points, phi 0..2pi in `nPhi` points (last before 2 pi). */
export interface Pattern {
  nTheta: number;
  nPhi: number;
  /** [theta][phi][re Etheta, im Etheta, re Ephi, im Ephi], V, coefficient of exp(-jkr)/r. */
  values: Float64Array;
}

/**
 * Near-to-far transform: equivalent currents J = n x H, M = -n x E on a closed box, radiation integrals in the far zone
 * (C. A. Balanis, Antenna Theory, 4th ed., sec. 12.2 with exp(+j w t)). Every component is integrated at its own place on
 * the staggered grid. The phase factors separate along the two axes of a face, which makes it quick.
 */
export function nearToFar(faces: readonly FaceSamples[], frequency: number, nTheta: number, nPhi: number): Pattern {
  const k = (2 * Math.PI * frequency) / c0;
  const values = new Float64Array(nTheta * nPhi * 4);
  // Re and im of each face's integral, by phi, for one theta.
  const sums = faces.map(() => new Float64Array(2 * nPhi));
  for (let t = 0; t < nTheta; t++) {
    const theta = (t * Math.PI) / (nTheta - 1);
    faces.forEach((f, n) => ring(f, theta, nPhi, k, sums[n]));
    for (let p = 0; p < nPhi; p++)
      values.set(
        fieldFrom(faces, (n) => [sums[n][2 * p], sums[n][2 * p + 1]], k, theta, (p * 2 * Math.PI) / nPhi),
        (t * nPhi + p) * 4,
      );
  }
  return { nTheta, nPhi, values };
}

/**
 * Integrals of a face over all phi of one theta. A sum along one of the face's axes is shared: along z by all directions of the
 * ring, along x by phi and -phi.
 */
function ring(f: FaceSamples, theta: number, nPhi: number, k: number, out: Float64Array): void {
  const [a, b] = f.axes;
  const flat = f.normal === 2;
  // Axis to be summed along first, and the other.
  const first = flat ? 0 : 2;
  const inner = a === first;
  const other = inner ? b : a;
  const [x, w] = inner ? [f.coordinates[0], f.widths[0]] : [f.coordinates[1], f.widths[1]];
  const [y, v] = inner ? [f.coordinates[1], f.widths[1]] : [f.coordinates[0], f.widths[0]];
  const across = f.coordinates[0].length;
  const line = new Float64Array(2 * y.length);
  const collapse = (slope: number): void => {
    line.fill(0);
    for (let i = 0; i < x.length; i++) {
      const [c, s] = [Math.cos(k * slope * x[i]) * w[i], Math.sin(k * slope * x[i]) * w[i]];
      for (let o = 0; o < y.length; o++) {
        const at = inner ? o * across + i : i * across + o;
        line[2 * o] += f.re[at] * c - f.im[at] * s;
        line[2 * o + 1] += f.re[at] * s + f.im[at] * c;
      }
    }
  };
  const finish = (p: number): void => {
    const phi = (p * 2 * Math.PI) / nPhi;
    const direction = [Math.sin(theta) * Math.cos(phi), Math.sin(theta) * Math.sin(phi), Math.cos(theta)];
    let [re, im] = [0, 0];
    for (let o = 0; o < y.length; o++) {
      const angle = k * (direction[other] * y[o] + direction[f.normal] * f.at);
      const [c, s] = [Math.cos(angle) * v[o], Math.sin(angle) * v[o]];
      re += line[2 * o] * c - line[2 * o + 1] * s;
      im += line[2 * o] * s + line[2 * o + 1] * c;
    }
    out[2 * p] = re;
    out[2 * p + 1] = im;
  };
  if (!flat) collapse(Math.cos(theta));
  for (let p = 0; 2 * p <= nPhi; p++) {
    if (flat) collapse(Math.sin(theta) * Math.cos((p * 2 * Math.PI) / nPhi));
    finish(p);
    if (p && 2 * p < nPhi) finish(nPhi - p);
  }
}

let cosA = new Float64Array(0);
let sinA = new Float64Array(0);

/** The same in one direction, radians: re Etheta, im Etheta, re Ephi, im Ephi, V. */
export function farFieldAt(faces: readonly FaceSamples[], frequency: number, theta: number, phi: number): [number, number, number, number] {
  const k = (2 * Math.PI * frequency) / c0;
  const longest = Math.max(...faces.map((f) => f.coordinates[0].length));
  if (cosA.length < longest) [cosA, sinA] = [new Float64Array(longest), new Float64Array(longest)];
  const direction = [Math.sin(theta) * Math.cos(phi), Math.sin(theta) * Math.sin(phi), Math.cos(theta)];
  return fieldFrom(faces, (n) => faceIntegral(faces[n], direction, k, cosA, sinA), k, theta, phi);
}

/** Far field in a direction from the integrals of all faces. */
function fieldFrom(
  faces: readonly FaceSamples[],
  integral: (n: number) => [number, number],
  k: number,
  theta: number,
  phi: number,
): [number, number, number, number] {
  // Radiation vectors: N' = eta0 N from J, L from M; three complex components each.
  const n = [0, 0, 0, 0, 0, 0];
  const l = [0, 0, 0, 0, 0, 0];
  faces.forEach((f, i) => {
    const [sumRe, sumIm] = integral(i);
    // n x e_component = sign e_other, with other the third axis.
    const other = 3 - f.normal - f.component;
    const cross = ((f.component - f.normal + 3) % 3 === 1 ? 1 : -1) * f.outward;
    const into = f.magnetic ? n : l;
    const sign = f.magnetic ? cross : -cross;
    into[2 * other] += sign * sumRe;
    into[2 * other + 1] += sign * sumIm;
  });
  const eTheta = [Math.cos(theta) * Math.cos(phi), Math.cos(theta) * Math.sin(phi), -Math.sin(theta)];
  const ePhi = [-Math.sin(phi), Math.cos(phi), 0];
  const dot = (v: number[], e: number[], part: number): number => v[part] * e[0] + v[2 + part] * e[1] + v[4 + part] * e[2];
  // E_theta = -jk/(4 pi) (L_phi + eta N_theta); E_phi = jk/(4 pi) (L_theta - eta N_phi).
  const a = [0, 1].map((q) => dot(l, ePhi, q) + dot(n, eTheta, q));
  const b = [0, 1].map((q) => dot(l, eTheta, q) - dot(n, ePhi, q));
  const scale = k / (4 * Math.PI);
  return [scale * a[1], -scale * a[0], -scale * b[1], scale * b[0]];
}

/** Integral of samples * exp(jk r'.r) over a face. */
function faceIntegral(f: FaceSamples, direction: number[], k: number, cosA: Float64Array, sinA: Float64Array): [number, number] {
  const [a, b] = f.axes;
  const [xa, xb] = f.coordinates;
  const [wa, wb] = f.widths;
  for (let i = 0; i < xa.length; i++) {
    const angle = k * direction[a] * xa[i];
    cosA[i] = Math.cos(angle) * wa[i];
    sinA[i] = Math.sin(angle) * wa[i];
  }
  let re = 0;
  let im = 0;
  for (let o = 0, at = 0; o < xb.length; o++) {
    let rowRe = 0;
    let rowIm = 0;
    for (let i = 0; i < xa.length; i++, at++) {
      rowRe += f.re[at] * cosA[i] - f.im[at] * sinA[i];
      rowIm += f.re[at] * sinA[i] + f.im[at] * cosA[i];
    }
    const angle = k * (direction[b] * xb[o] + direction[f.normal] * f.at);
    const c = Math.cos(angle) * wb[o];
    const s = Math.sin(angle) * wb[o];
    re += rowRe * c - rowIm * s;
    im += rowRe * s + rowIm * c;
  }
  return [re, im];
}

/** Radiation intensity (|Etheta|^2 + |Ephi|^2) / (2 eta0) of one direction, W/sr. */
export function intensity(p: Pattern, t: number, f: number): number {
  const at = (t * p.nPhi + f) * 4;
  const v = p.values;
  return (v[at] ** 2 + v[at + 1] ** 2 + v[at + 2] ** 2 + v[at + 3] ** 2) / (2 * eta0);
}
