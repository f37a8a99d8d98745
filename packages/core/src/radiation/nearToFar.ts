import { c0, eta0 } from '../numerics/constants.ts';
import { plainProducts, type ProductKernel } from '../numerics/product.ts';
import { boxAround, harmonicsOf, patternOnBox } from './boxPattern.ts';
import { resampled } from './resample.ts';
import { currentOf, type FaceSamples, fieldOf, type Pattern } from './surface.ts';

/**
 * Near-to-far transform: equivalent currents J = n x H, M = -n x E on a closed box, radiation integrals in the far zone
 * (C. A. Balanis, Antenna Theory, 4th ed., sec. 12.2 with exp(+j w t)). Every component is integrated at its own place on
 * the staggered grid. The field has only as many harmonics as the box has wavelengths around it, so it is computed in as few directions as these take
 * and drawn to those asked for, within a part in 1e9 of the largest.
 */
export function nearToFar(
  faces: readonly FaceSamples[],
  frequency: number,
  nTheta: number,
  nPhi: number,
  products: ProductKernel = plainProducts,
): Pattern {
  const k = (2 * Math.PI * frequency) / c0;
  const box = boxAround(faces);
  const own = harmonicsOf(k * Math.hypot(...box.half));
  const steps = nTheta - 1;
  // Directions that are further apart than that are computed themselves, an even number of them from pole to pole.
  const direct = steps < own && nPhi === 2 * steps;
  const half = direct ? (steps % 2 ? 2 * steps : steps) : own;
  const values = patternOnBox(faces, box, k, half, products);
  const between = direct ? everySecond(values, half, half / steps) : resampled(values, half, nTheta, nPhi, products);
  return { nTheta, nPhi, values: aboutOrigin(between, box.centre, k, nTheta, nPhi) };
}

/** Every n-th direction of a pattern, both ways. */
function everySecond(values: Float64Array, half: number, every: number): Float64Array {
  if (every === 1) return values;
  const [rows, columns] = [half / every + 1, (2 * half) / every];
  const out = new Float64Array(rows * columns * 4);
  for (let t = 0; t < rows; t++)
    for (let p = 0; p < columns; p++) {
      const from = (t * every * 2 * half + p * every) * 4;
      out.set(values.subarray(from, from + 4), (t * columns + p) * 4);
    }
  return out;
}

/** Turns the phases of a pattern about a centre into those about the origin. Changes the values. */
function aboutOrigin(values: Float64Array, centre: readonly number[], k: number, nTheta: number, nPhi: number): Float64Array {
  const around = Float64Array.from({ length: nPhi }, (_, p) => {
    const phi = (p * 2 * Math.PI) / nPhi;
    return Math.cos(phi) * centre[0] + Math.sin(phi) * centre[1];
  });
  for (let t = 0, at = 0; t < nTheta; t++) {
    const theta = (t * Math.PI) / (nTheta - 1);
    const [up, out] = [Math.cos(theta) * centre[2], Math.sin(theta)];
    for (let p = 0; p < nPhi; p++) {
      const angle = k * (out * around[p] + up);
      const c = Math.cos(angle),
        s = Math.sin(angle);
      for (let q = 0; q < 2; q++, at += 2) {
        const re = values[at],
          im = values[at + 1];
        values[at] = re * c - im * s;
        values[at + 1] = re * s + im * c;
      }
    }
  }
  return values;
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
    const { axis, sign } = currentOf(f);
    const into = f.magnetic ? n : l;
    into[2 * axis] += sign * sumRe;
    into[2 * axis + 1] += sign * sumIm;
  });
  const out: [number, number, number, number] = [0, 0, 0, 0];
  fieldOf(n, l, k, theta, phi, out);
  return out;
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
