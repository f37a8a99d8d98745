import type { Complex } from '../../../numerics/complex.ts';
import { c0, eps0, mu0 } from '../../../numerics/constants.ts';
import { gauss } from '../../../numerics/gauss.ts';
import type { WireMesh } from '../../../grid/index.ts';
import type { Ground } from '../../../scene/index.ts';
import { earthPermittivity, staticReflection } from './halfSpace.ts';
import { kernelParts } from './sommerfeld.ts';
import { EarthTable, type Reach } from './table.ts';

export type Earth = Extract<Ground, { kind: 'earth' }>;

/** Heights and distances that a mesh spans, metres. */
function reachOf({ segments, count }: WireMesh, ground: number): Reach {
  let [low, high] = [Infinity, 0];
  const [min, max] = [
    [Infinity, Infinity],
    [-Infinity, -Infinity],
  ];
  for (let i = 0; i < count; i++)
    for (const end of [0, 1]) {
      const p = [0, 1, 2].map((a) => segments[8 * i + a] + end * segments[8 * i + 6] * segments[8 * i + 3 + a]);
      low = Math.min(low, p[2] - ground);
      high = Math.max(high, p[2] - ground);
      for (const a of [0, 1]) {
        min[a] = Math.min(min[a], p[a]);
        max[a] = Math.max(max[a], p[a]);
      }
    }
  return { rho: Math.hypot(max[0] - min[0], max[1] - min[1]), low: 2 * low, high: 2 * high };
}

/** Points for each segment of a pair: more where their images are closer than their length. */
const rules = [gauss(2), gauss(4), gauss(6)];
/** Distances of the middles, in lengths of the longer segment, beyond which two and four points do. */
const farAway = 5;
const away = 1.5;
/** Distance along earth over height below which the difference of two nearly equal terms is taken by its series, to which the next term adds the square of this. */
const almostAbove = 1e-4;

/** What earth sends from one segment to another, as sums over their pairs of shape functions. */
export class EarthPairs {
  /** Vector parts of the four products of shape functions, re and im, and the scalar part. */
  readonly sums = new Float64Array(10);
  /** Factors of the vector and the scalar part in the matrix, ohms. */
  readonly vector: number;
  readonly scalar: number;
  private readonly k: number;
  /** Reflection of charge at rest. */
  private readonly still: Complex;
  private readonly table: EarthTable;
  private readonly told = new Float64Array(kernelParts);
  /** Closed form of a level and an upright element, re and im. */
  private readonly mixed = new Float64Array(2);

  /** `frequency` in hertz. */
  constructor(
    private readonly mesh: WireMesh,
    private readonly earth: Earth,
    frequency: number,
  ) {
    const w = 2 * Math.PI * frequency;
    this.k = w / c0;
    const eps = earthPermittivity(earth, frequency);
    this.still = staticReflection(eps);
    const reach = reachOf(mesh, earth.at);
    this.table = new EarthTable(eps, { rho: this.k * reach.rho, low: this.k * reach.low, high: this.k * reach.high });
    this.vector = (w * mu0) / (4 * Math.PI);
    this.scalar = 1 / (4 * Math.PI * w * eps0);
  }

  /** Quadrature over a pair; `rho2` is null where the image's static part is not taken out, and else the squared distance that keeps its thin wires apart. */
  sum(i: number, j: number, rho2: number | null): void {
    const { sums, k, still, told, mixed } = this;
    const ground = this.earth.at;
    sums.fill(0);
    const a = this.mesh.segments.subarray(8 * i, 8 * i + 8);
    const b = this.mesh.segments.subarray(8 * j, 8 * j + 8);
    const { points, weights } = rules[this.ruleOf(a, b)];
    const level = a[3] * b[3] + a[4] * b[4];
    const upright = a[5] * b[5];
    for (let p = 0; p < points.length; p++)
      for (let q = 0; q < points.length; q++) {
        const [s, t] = [points[p], points[q]];
        const x = a[0] + s * a[6] * a[3] - b[0] - t * b[6] * b[3];
        const y = a[1] + s * a[6] * a[4] - b[1] - t * b[6] * b[4];
        const h = a[2] + s * a[6] * a[5] + b[2] + t * b[6] * b[5] - 2 * ground;
        const rho = Math.hypot(x, y);
        const weight = weights[p] * weights[q] * a[6] * b[6];
        this.table.at(k * rho, k * h, told);
        const r = Math.sqrt(rho * rho + h * h + (rho2 ?? 0));
        // exp(-jkR) / R of the image, less what its static integral holds.
        const [er, ei] = [(Math.cos(k * r) - (rho2 === null ? 0 : 1)) / r, -Math.sin(k * r) / r];
        const slope = rho > 0 ? (a[5] * (b[3] * x + b[4] * y) - b[5] * (a[3] * x + a[4] * y)) / rho : 0;
        if (slope) this.levelUpright(slope, rho, h);
        else mixed.fill(0);
        const ir = still[0] * er - still[1] * ei;
        const ii = still[0] * ei + still[1] * er;
        const vr = weight * (level * k * told[0] + upright * (k * told[6] - 2 * ir) + mixed[0]);
        const vi = weight * (level * k * told[1] + upright * (k * told[7] - 2 * ii) + mixed[1]);
        sums[0] += (1 - s) * (1 - t) * vr;
        sums[1] += (1 - s) * (1 - t) * vi;
        sums[2] += (1 - s) * t * vr;
        sums[3] += (1 - s) * t * vi;
        sums[4] += s * (1 - t) * vr;
        sums[5] += s * (1 - t) * vi;
        sums[6] += s * t * vr;
        sums[7] += s * t * vi;
        sums[8] += weight * (k * told[2] + ir);
        sums[9] += weight * (k * told[3] + ii);
      }
  }

  /** Adds the image's static part of a close pair, from its integrals over the four products of shape functions. */
  addStatic(i: number, j: number, integrals: ArrayLike<number>): void {
    const { sums, still } = this;
    const { segments } = this.mesh;
    const vertical = segments[8 * i + 5] * segments[8 * j + 5];
    let whole = 0;
    for (let n = 0; n < 4; n++) {
      sums[2 * n] += -2 * still[0] * vertical * integrals[n];
      sums[2 * n + 1] += -2 * still[1] * vertical * integrals[n];
      whole += integrals[n];
    }
    sums[8] += still[0] * whole;
    sums[9] += still[1] * whole;
  }

  /** Rule for a pair, by how far the middle of one is from the image of the other's. */
  private ruleOf(a: Float64Array, b: Float64Array): 0 | 1 | 2 {
    const middle = (s: Float64Array, c: number): number => s[c] + (s[6] * s[3 + c]) / 2;
    const apart = Math.hypot(middle(a, 0) - middle(b, 0), middle(a, 1) - middle(b, 1), middle(a, 2) + middle(b, 2) - 2 * this.earth.at);
    const far = apart / Math.max(a[6], b[6]);
    return far > farAway ? 0 : far > away ? 1 : 2;
  }

  /** Between a level and an upright element, rho along earth and h between one and the image of the other, metres: the table's part and the closed form beside it. */
  private levelUpright(slope: number, rho: number, h: number): void {
    const { k, still, told, mixed } = this;
    const apart = Math.hypot(rho, h);
    const small = rho < almostAbove * h;
    const [hr, hi] = [Math.cos(k * h), -Math.sin(k * h)];
    const [er, ei] = [Math.cos(k * apart), -Math.sin(k * apart)];
    const limit = rho / (2 * h * h);
    const dr = small ? limit * (hr - k * h * hi) : (hr - (h / apart) * er) / rho;
    const di = small ? limit * (hi + k * h * hr) : (hi - (h / apart) * ei) / rho;
    mixed[0] = slope * (k * told[4] + still[0] * dr - still[1] * di);
    mixed[1] = slope * (k * told[5] + still[0] * di + still[1] * dr);
  }
}
