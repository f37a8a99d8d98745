import { deflate, inflate } from 'node:zlib';
import { promisify } from 'node:util';
import { arrayBytes, type ResultSet } from '@jadebell/core/results';
import { Op, type Transaction } from 'sequelize';
import { ChunkRow } from './models.ts';

const pack = promisify(deflate);
const unpack = promisify(inflate);

/** Bytes of a chunk before compression: a multiple of every element size. */
export const chunkBytes = 4 * 2 ** 20;

/** Stores the arrays of a result in compressed chunks. */
export async function storeArrays(runId: string, result: ResultSet, transaction: Transaction): Promise<void> {
  for (const [name, array] of Object.entries(result.arrays)) {
    const bytes = arrayBytes(array);
    const type = array.data instanceof Float32Array ? 'f4' : 'f8';
    for (let part = 0; part === 0 || part * chunkBytes < bytes.length; part++) {
      const data = await pack(bytes.subarray(part * chunkBytes, (part + 1) * chunkBytes), { level: 4 });
      await ChunkRow.create({ runId, name, part, type, shape: JSON.stringify(array.shape), data }, { transaction });
    }
  }
}

export interface StoredArray {
  type: 'f4' | 'f8';
  shape: number[];
}

/** Removes the arrays of a result; what is kept of its jobs stays. */
export const removeArrays = (runId: string): Promise<number> => ChunkRow.destroy({ where: { runId, name: { [Op.notLike]: 'job:%' } } });

/** Type and shape of a stored array, or null. */
export async function describeArray(runId: string, name: string): Promise<StoredArray | null> {
  const row = await ChunkRow.findOne({ where: { runId, name, part: 0 }, attributes: ['type', 'shape'] });
  return row && { type: row.type as 'f4' | 'f8', shape: JSON.parse(row.shape) as number[] };
}

/** Bytes [from, to) of a stored array, chunk by chunk; only the chunks that are needed are read. */
export async function* readArray(runId: string, name: string, from: number, to: number): AsyncGenerator<Buffer> {
  for (let part = Math.floor(from / chunkBytes); part * chunkBytes < to; part++) {
    const row = await ChunkRow.findOne({ where: { runId, name, part } });
    if (!row) return;
    const bytes = await unpack(row.data);
    const start = part * chunkBytes;
    yield bytes.subarray(Math.max(0, from - start), Math.min(bytes.length, to - start));
  }
}

/** A whole stored array as numbers. */
export async function loadArray(runId: string, name: string): Promise<{ shape: number[]; data: Float32Array | Float64Array } | null> {
  const about = await describeArray(runId, name);
  if (!about) return null;
  const parts: Buffer[] = [];
  for await (const part of readArray(runId, name, 0, Infinity)) parts.push(part);
  const bytes = new Uint8Array(Buffer.concat(parts));
  return { shape: about.shape, data: about.type === 'f4' ? new Float32Array(bytes.buffer) : new Float64Array(bytes.buffer) };
}
