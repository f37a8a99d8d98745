import { c0 } from '../../../numerics/constants.ts';
import { Arena } from '../../arena.ts';
import { apart } from '../../../discretisation/split/types.ts';
import type { Discrete } from '../discrete.ts';
import { P } from '../../layout.ts';
import { type AxisFactors, axisFactors } from '../pml.ts';
import type { SimulationPlan } from '../simulation.ts';
import { type Rows, type TableName } from '../../rows.ts';

/** Bytes of one field array. */
export const fieldBytes = (sx: number, ny: number, nz: number): number => sx * (ny + 1) * (nz + 2) * 4;

/** A model as it is laid out for the kernel: words of its parameter block, and what goes where in memory once there is some. */
export class Sheet {
  readonly words: number[] = new Array<number>(P.WORDS).fill(0);
  readonly d: Discrete;
  readonly cells: [nx: number, ny: number, nz: number];
  /** Address of the parameter block. */
  readonly config: number;
  /** Sides with absorbing layers: their cells, else 0. */
  readonly open: number[];
  readonly factors: AxisFactors[];
  /** Bytes from a sample to the next along each axis. */
  readonly strides: [number, number, number];
  private readonly writes: [at: number, bytes: Uint8Array][] = [];

  /** `arena` hands out the memory that it shares with other models. */
  constructor(
    readonly plan: SimulationPlan,
    readonly arena = new Arena(),
  ) {
    const { discrete: d, boundaries, lowest } = plan;
    const { grid, sx, dt } = d;
    this.d = d;
    this.cells = grid.lines.map((x) => x.length - 1) as [number, number, number];
    const [nx, ny, nz] = this.cells;
    Object.assign(this.words, { [P.SX]: sx, [P.NX]: nx, [P.NY]: ny, [P.NZ]: nz });
    this.config = this.arena.take(P.WORDS * 4);
    for (let f = 0; f < 6; f++) this.words[P.EX + f] = this.arena.take(fieldBytes(sx, ny, nz) + 64) + 64;
    this.open = boundaries.map((b, i) => (b === 'open' ? grid.outerCells[i] : 0));
    this.factors = ([0, 1, 2] as const).map((a) => axisFactors(grid.lines[a], this.open[2 * a], this.open[2 * a + 1], dt, lowest));
    this.strides = [4, sx * 4, sx * (ny + 1) * 4];
  }

  /** Gives data a place; they are written once there is a memory. */
  put(data: Float32Array | Int32Array | Uint32Array | Uint8Array): number {
    const at = this.arena.take(data.byteLength + 16);
    this.writes.push([at, new Uint8Array(data.buffer, data.byteOffset, data.byteLength)]);
    return at;
  }
  /** The same of a table. */
  putRows = (rows: Rows<TableName>): number => this.put(rows.bytes);
  /** The same of numbers as floats, with room up to a length. */
  putFloats(data: ArrayLike<number>, length = data.length): number {
    const out = new Float32Array(length);
    out.set(data);
    return this.put(out);
  }

  /** Address of the samples that stand in no array of the grid. */
  apart = 0;

  /** Address of a sample of a field, 0..5: Ex .. Hz; 6: of one apart, by its number. */
  address = (field: number, at: ArrayLike<number>): number =>
    field === apart ? this.apart + 4 * at[0] : this.words[P.EX + field] + at[0] * this.strides[0] + at[1] * this.strides[1] + at[2] * this.strides[2];

  /** First entry of each plane in a list of entries whose planes are given, and the end. */
  planeStarts(planes: Iterable<number>, count: number): Int32Array {
    const starts = new Int32Array(count + 1);
    for (const k of planes) starts[k + 1]++;
    for (let k = 0; k < count; k++) starts[k + 1] += starts[k];
    return starts;
  }
  /** First entry of each row (k, j) of a list sorted by rows, and its end. */
  rowStarts(rows: Iterable<readonly [j: number, k: number]>): Int32Array {
    const [, ny, nz] = this.cells;
    const starts = new Int32Array((nz + 1) * (ny + 1) + 1);
    for (const [j, k] of rows) starts[k * (ny + 1) + j + 1]++;
    for (let n = 1; n < starts.length; n++) starts[n] += starts[n - 1];
    return starts;
  }

  /** Writes all into a memory. */
  write(memory: ArrayBufferLike): void {
    const all = new Uint8Array(memory);
    for (const [at, bytes] of this.writes) all.set(bytes, at);
    new Uint32Array(memory, this.config, P.WORDS).set(this.words);
    new Float32Array(memory, this.config, P.WORDS)[P.VACUUM] = c0 * this.d.dt;
  }
}
