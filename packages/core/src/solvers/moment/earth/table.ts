import type { Complex } from '../../../numerics/complex.ts';
import { fading } from './halfSpace.ts';
import { halfSpaceKernel, kernelParts } from './sommerfeld.ts';

/** Distances between which a table is asked, over k0: along the ground up to `rho`, sums of heights from `low` to `high`. */
export interface Reach {
  rho: number;
  low: number;
  high: number;
}

/** Largest error of the table over 1 / R that is accepted, and points along each way on which it is tried. */
const accepted = 1e-4;
const trials = 10;
const mostNodes = 20_000;

/**
 * The kernel of a half-space on a grid of the distance along the ground and the sum of heights, with its phase exp(-jR) and its decay 1 / R taken out, read
 * by cubic interpolation. The grid is made finer until it meets the integrals at points between its nodes; wires of one height need one row only.
 */
export class EarthTable {
  private rhos: Float64Array = new Float64Array(0);
  private heights: Float64Array = new Float64Array(0);
  private values: Float64Array = new Float64Array(0);
  /** Largest error over 1 / R at the points on which it was tried. */
  error = Infinity;

  constructor(
    private readonly eps: Complex,
    reach: Reach,
  ) {
    let [fineR, fineH] = [1, 1];
    for (let round = 0; round < 6; round++) {
      this.build(reach, fineR, fineH);
      const [alongR, alongH] = this.tried();
      this.error = Math.max(alongR, alongH);
      if (this.error < accepted || this.rhos.length * this.heights.length > mostNodes) break;
      if (alongR >= accepted) fineR *= 1.5;
      if (alongH >= accepted) fineH *= 1.5;
    }
  }

  /** Number of places at which integrals were taken for the last grid. */
  get size(): number {
    return this.rhos.length * this.heights.length;
  }

  private build({ rho, low, high }: Reach, fineR: number, fineH: number): void {
    // The ground's own waves die within it: far away only what runs above is left.
    const fade = Math.abs(fading(this.eps)[1]);
    const index = fade * low > 6 ? 1 : Math.sqrt(Math.hypot(...this.eps));
    const rhos = [0];
    while (rhos[rhos.length - 1] < rho || rhos.length < 5) {
      const x = rhos[rhos.length - 1];
      const r = Math.hypot(x, low);
      rhos.push(x + Math.min(0.4 * r, fade * r > 6 ? 1.2 : 2 / index) / fineR);
    }
    this.rhos = Float64Array.from(rhos);
    if (high < low * 1.0001) this.heights = Float64Array.of(low);
    else {
      const count = Math.max(4, Math.ceil((fineH * Math.log(high / low)) / Math.log(1.6)) + 1, Math.ceil((fineH * (high - low) * index) / 4) + 1);
      // Even on a scale that is logarithmic near the ground and straight far above.
      const map = (h: number): number => Math.log(h) + (h * index) / 4;
      this.heights = Float64Array.from({ length: count }, (_, i) => {
        if (i === 0) return low;
        if (i === count - 1) return high;
        const wanted = map(low) + ((map(high) - map(low)) * i) / (count - 1);
        let [a, b] = [low, high];
        for (let n = 0; n < 60; n++) [a, b] = map((a + b) / 2) < wanted ? [(a + b) / 2, b] : [a, (a + b) / 2];
        return a;
      });
    }
    const { length } = this.heights;
    this.values = new Float64Array(this.rhos.length * length * kernelParts);
    const out = new Float64Array(kernelParts);
    this.rhos.forEach((x, i) =>
      this.heights.forEach((h, j) => {
        this.smooth(x, h, out);
        this.values.set(out, (i * length + j) * kernelParts);
      }),
    );
  }

  /** The kernel times R exp(jR). */
  private smooth(rho: number, h: number, out: Float64Array): void {
    halfSpaceKernel(this.eps, rho, h, out);
    const r = Math.hypot(rho, h);
    const [c, s] = [r * Math.cos(r), r * Math.sin(r)];
    for (let n = 0; n < kernelParts; n += 2) [out[n], out[n + 1]] = [out[n] * c - out[n + 1] * s, out[n] * s + out[n + 1] * c];
  }

  /** Errors in the middle between distances, and between heights. */
  private tried(): [alongR: number, alongH: number] {
    const [own, told] = [new Float64Array(kernelParts), new Float64Array(kernelParts)];
    const worst: [number, number] = [0, 0];
    const ways = this.heights.length > 1 ? [0, 1] : [0];
    for (const way of ways)
      for (let n = 0; n < trials; n++) {
        const i = Math.floor(((n * 0.618 + 0.1) % 1) * (this.rhos.length - 1));
        const j = Math.floor(((n * 0.377 + 0.1) % 1) * Math.max(1, this.heights.length - 1));
        const x = way ? this.rhos[i] : (this.rhos[i] + this.rhos[i + 1]) / 2;
        const h = way ? (this.heights[j] + this.heights[j + 1]) / 2 : this.heights[j];
        this.smooth(x, h, own);
        this.read(x, h, told);
        for (let c = 0; c < kernelParts; c++) worst[way] = Math.max(worst[way], Math.abs(own[c] - told[c]));
      }
    return worst;
  }

  /** Interpolates at a distance and a height. */
  private read(rho: number, h: number, out: Float64Array): void {
    const i = lagrange(this.rhos, rho, weightsR);
    const { length } = this.heights;
    const j = length > 1 ? lagrange(this.heights, h, weightsH) : 0;
    out.fill(0);
    for (let p = 0; p < 4; p++)
      for (let q = 0; q < Math.min(4, length); q++) {
        const w = weightsR[p] * (length > 1 ? weightsH[q] : 1);
        const at = ((i + p) * length + j + q) * kernelParts;
        for (let c = 0; c < kernelParts; c++) out[c] += w * this.values[at + c];
      }
  }

  /** The kernel at distances over k0, as halfSpaceKernel gives it. */
  at(rho: number, h: number, out: Float64Array): void {
    const r = Math.hypot(rho, h);
    this.read(rho, h, out);
    const [c, s] = [Math.cos(r) / r, -Math.sin(r) / r];
    for (let n = 0; n < kernelParts; n += 2) {
      const [x, y] = [out[n], out[n + 1]];
      out[n] = x * c - y * s;
      out[n + 1] = x * s + y * c;
    }
  }
}

const weightsR = [0, 0, 0, 0];
const weightsH = [0, 0, 0, 0];

/** First of four nodes around a place; the weights of the cubic through them go to `w`. */
function lagrange(nodes: Float64Array, x: number, w: number[]): number {
  let [lo, hi] = [0, nodes.length - 1];
  while (hi - lo > 1) {
    const mid = (lo + hi) >> 1;
    if (nodes[mid] <= x) lo = mid;
    else hi = mid;
  }
  const first = Math.max(0, Math.min(nodes.length - 4, lo - 1));
  for (let p = 0; p < 4; p++) {
    let v = 1;
    for (let q = 0; q < 4; q++) if (q !== p) v *= (x - nodes[first + q]) / (nodes[first + p] - nodes[first + q]);
    w[p] = v;
  }
  return first;
}
