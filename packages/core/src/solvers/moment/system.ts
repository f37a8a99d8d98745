import type { Complex } from '../../numerics/complex.ts';
import { c0, eps0, mu0 } from '../../numerics/constants.ts';
import type { WireMesh } from '../../grid/index.ts';
import { firstByte } from '../arena.ts';
import { kernelInstance, wasm } from '../kernels.ts';
import type { KernelThread, SolverHost } from '../solver.ts';
import type { Ground } from '../../scene/index.ts';
import { setFields } from '../rows.ts';
import { type NearList, nearPairs } from './near.ts';
import { type Ends, packWires, panelBytes, panelRows, type WirePlaces } from './packing.ts';

/** Growth of elements in a factorisation without exchanges up to which eleven digits are left. */
const mostGrowth = 1e4;
/** Unknowns up to which one thread does. */
const few = 300;

/**
 * The system of equations of a wire model in the compiled kernels' memory: mixed-potential electric-field integral equation on the wires' surfaces, tested
 * with its own piecewise linear functions (Galerkin),
 *
 *   Z_mn = j w mu0 / 4 pi  int int f_m . f_n G + 1 / (j w eps0 4 pi)  int int f_m' f_n' G,   G = exp(-jkR) / R
 *
 * (R. F. Harrington, Field Computation by Moment Methods, 1968, chapter 4). Over a perfect ground each segment has an image; its current along the ground and its
 * charge change their sign. What is near is split into its static part, computed once, and a smooth rest.
 */
export class WireSystem {
  private constructor(
    readonly mesh: WireMesh,
    /** Unknowns: bases and others behind them. */
    readonly size: number,
    private readonly memory: { buffer: ArrayBufferLike },
    private readonly exports: Record<string, (...args: number[]) => void>,
    private readonly helpers: KernelThread[],
    private readonly at: WirePlaces,
    /** Doubles of a row. */
    private readonly width: number,
    /** Segments close to the images of others, over real earth. */
    readonly images: NearList | null,
  ) {}

  /** Bytes that a system takes. */
  static bytes(mesh: Pick<WireMesh, 'count' | 'bases'>, others: number, threads: number): number {
    const n = mesh.bases + others;
    return n * (n + (n & 1) + panelRows) * 16 + mesh.count * (128 + 80 * threads + 40 * 48 + 64) + threads * panelBytes + firstByte;
  }

  /** Lays out a system; Over a perfect ground the images are filled with the rest, over real earth they are left to be added. */
  static async create(mesh: WireMesh, others: number, ground: Ground | null, host: SolverHost): Promise<WireSystem> {
    const size = mesh.bases + others;
    const columns = size + (size & 1);
    const mirror = ground && mirrored(mesh.segments, ground.at);
    const near = mirror && nearPairs(mesh.segments, mirror);
    // A second thread is worth its start only where there is much to do.
    const threads = size > few ? host.threads : 1;
    const { places, pages, write } = packWires({
      mesh,
      size,
      columns,
      threads,
      near: nearPairs(mesh.segments, mesh.segments),
      images: ground?.kind === 'perfect' ? { segments: mirror!, near: near! } : null,
      ends: endsOf(mesh),
      firstSource: firstSources(mesh),
    });
    const memory = new wasm.Memory({ initial: pages, maximum: 65536, shared: true });
    const exports = await kernelInstance(host.module, memory);
    const helpers: KernelThread[] = [];
    for (let t = 1; t < threads; t++) helpers.push(await host.spawn(host.module, memory));
    write(memory.buffer);
    return new WireSystem(mesh, size, memory, exports, helpers, places, 2 * columns, ground?.kind === 'earth' ? near : null);
  }

  get threads(): number {
    return this.helpers.length + 1;
  }

  /** Runs a kernel on all threads. */
  private async all(name: string, args: (thread: number, threads: number) => number[]): Promise<void> {
    const { threads } = this;
    const others = this.helpers.map((h, i) => h.call(name, args(i + 1, threads)));
    this.exports[name](...args(0, threads));
    await Promise.all(others);
  }

  /** Nothing but the wires: what one function does to another is mutual, and the upper half of the matrix is enough. */
  get symmetric(): boolean {
    return this.size === this.mesh.bases;
  }

  /** Computes the interactions at a frequency, hertz: all, or their upper half. Rows of the other unknowns are zero then. */
  async fill(frequency: number, half = false): Promise<void> {
    const w = 2 * Math.PI * frequency;
    const factors = { k: w / c0, vector: (w * mu0) / (4 * Math.PI), scalar: 1 / (4 * Math.PI * w * eps0), half: half ? 1 : 0 };
    setFields(this.memory.buffer, 'wireFill', this.at.fill, factors);
    const { bases } = this.mesh;
    new Float64Array(this.memory.buffer, this.at.matrix + 8 * this.width * bases, (this.size - bases) * this.width).fill(0);
    await this.all('momentFill', (thread, threads) => [this.at.fill, thread, threads]);
  }

  private get matrix(): Float64Array {
    return new Float64Array(this.memory.buffer, this.at.matrix, this.size * this.width);
  }
  private place(r: number, c: number): number {
    return r * this.width + ((c >> 1) << 2) + (c & 1);
  }

  /** Adds to an element of the matrix. */
  add(r: number, c: number, re: number, im: number): void {
    const m = this.matrix;
    const at = this.place(r, c);
    m[at] += re;
    m[at + 2] += im;
  }

  /** An element of the matrix. */
  element(r: number, c: number): Complex {
    const m = this.matrix;
    const at = this.place(r, c);
    return [m[at], m[at + 2]];
  }

  /**
   * Factors a matrix whose upper half was filled; `solve` may follow. False where it would lose digits without exchanges of rows: then the whole is to be filled
   * and factored.
   */
  async factorSymmetric(): Promise<boolean> {
    const { matrix, left, packed, meet } = this.at;
    const before = this.largest(true);
    await this.all('momentFactorSymmetric', (thread, threads) => [matrix, 8 * this.width, this.size, left, packed, meet, thread, threads]);
    this.half = true;
    const after = this.largest(false);
    return after <= mostGrowth * before;
  }

  /** Largest size of an element on the diagonal, or in the upper half; infinite where one is no number. */
  private largest(diagonal: boolean): number {
    const { size, width } = this;
    const m = this.matrix;
    let most = 0;
    for (let r = 0; r < size; r++)
      for (let c = r; c < (diagonal ? r + 1 : size); c++) {
        const at = r * width + ((c >> 1) << 2) + (c & 1);
        const v = m[at] * m[at] + m[at + 2] * m[at + 2];
        if (!(v <= most)) most = v === v ? v : Infinity;
      }
    return Math.sqrt(most);
  }

  /** Whether the factors are those of the upper half. */
  private half = false;

  /** Factors the whole matrix in place with exchange of rows; `solve` may follow. */
  async factor(): Promise<void> {
    this.half = false;
    const { matrix, pivots, packed, meet } = this.at;
    await this.all('momentFactor', (thread, threads) => [matrix, 8 * this.width, this.size, pivots, packed, meet, thread, threads]);
  }

  /** Solves for one right side, pairs of real and imaginary part, in place. */
  solve(x: Float64Array): void {
    const { size: n, width } = this;
    const m = this.matrix;
    if (this.half) {
      // U^T D^-1 y = b row by row of U, then U x = y.
      for (let r = 0; r < n; r++) {
        const at = this.place(r, r);
        const [a, b] = [m[at], m[at + 2]];
        const d = a * a + b * b;
        const [p, q] = [(x[2 * r] * a + x[2 * r + 1] * b) / d, (x[2 * r + 1] * a - x[2 * r] * b) / d];
        const row = r * width;
        for (let c = r + 1; c < n; c++) {
          const u = row + ((c >> 1) << 2) + (c & 1);
          x[2 * c] -= m[u] * p - m[u + 2] * q;
          x[2 * c + 1] -= m[u] * q + m[u + 2] * p;
        }
      }
      this.backward(x);
      return;
    }
    const pivots = new Int32Array(this.memory.buffer, this.at.pivots, n);
    for (let r = 0; r < n; r++) {
      const p = pivots[r];
      if (p === r) continue;
      for (const c of [0, 1]) [x[2 * r + c], x[2 * p + c]] = [x[2 * p + c], x[2 * r + c]];
    }
    for (let r = 0; r < n; r++) {
      let [re, im] = [x[2 * r], x[2 * r + 1]];
      for (let c = 0, at = r * width; c < r; c++, at += c & 1 ? 1 : 3) {
        const [a, b, u, v] = [m[at], m[at + 2], x[2 * c], x[2 * c + 1]];
        re -= a * u - b * v;
        im -= a * v + b * u;
      }
      x[2 * r] = re;
      x[2 * r + 1] = im;
    }
    this.backward(x);
  }

  /** Solves with the upper half of the matrix, in place. */
  private backward(x: Float64Array): void {
    const { size: n } = this;
    const m = this.matrix;
    for (let r = n - 1; r >= 0; r--) {
      let [re, im] = [x[2 * r], x[2 * r + 1]];
      for (let c = r + 1; c < n; c++) {
        const at = this.place(r, c);
        const [a, b, u, v] = [m[at], m[at + 2], x[2 * c], x[2 * c + 1]];
        re -= a * u - b * v;
        im -= a * v + b * u;
      }
      const at = this.place(r, r);
      const [a, b] = [m[at], m[at + 2]];
      const d = a * a + b * b;
      x[2 * r] = (re * a + im * b) / d;
      x[2 * r + 1] = (im * a - re * b) / d;
    }
  }

  close(): void {
    this.helpers.forEach((h) => h.close());
  }
}

/** Segments behind a ground at a height. Their directions are those of the mirrored geometry. */
export function mirrored(segments: Float64Array, ground: number): Float64Array {
  const out = segments.slice();
  for (let i = 0; i < out.length; i += 8) {
    out[i + 2] = 2 * ground - out[i + 2];
    out[i + 5] = -out[i + 5];
  }
  return out;
}

/** Numbers of the bases at each end of each segment, by 2 segment + end. */
export function endsOf({ halves, halfFirst, count, bases }: WireMesh): Ends {
  const at: [number, number][][] = Array.from({ length: 2 * count }, () => []);
  for (let b = 0; b < bases; b++)
    for (let h = halfFirst[b]; h < halfFirst[b + 1]; h++) at[2 * halves[h].segment + halves[h].end].push([b, halves[h].sign]);
  const first = new Int32Array(2 * count + 1);
  at.forEach((list, i) => (first[i + 1] = first[i] + list.length));
  return { first, list: at.flat() };
}

/** For each basis the first segment from which on there are bases of its number or above. */
function firstSources(mesh: WireMesh): Int32Array {
  const last = new Int32Array(mesh.count).fill(-1);
  for (let b = 0; b < mesh.bases; b++) for (let h = mesh.halfFirst[b]; h < mesh.halfFirst[b + 1]; h++) last[mesh.halves[h].segment] = b;
  const out = new Int32Array(mesh.bases);
  let j = 0;
  for (let b = 0; b < mesh.bases; b++) {
    while (j < mesh.count && last[j] < b) j++;
    out[b] = j;
  }
  return out;
}
