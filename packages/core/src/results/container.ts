import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { z } from 'zod';
import { readMeta } from './read.ts';
import type { ResultArray, ResultSet } from './resultSet.ts';

const typeOf = (a: ResultArray): 'f4' | 'f8' => (a.data instanceof Float32Array ? 'f4' : 'f8');

/** Bytes of an array, little-endian as in memory on every machine we run on. */
export const arrayBytes = (a: ResultArray): Uint8Array => new Uint8Array(a.data.buffer, a.data.byteOffset, a.data.byteLength);

/** An array from its bytes. */
export function arrayFrom(bytes: Uint8Array, type: string, shape: number[]): ResultArray {
  const own = bytes.slice().buffer;
  return { shape, data: type === 'f4' ? new Float32Array(own) : new Float64Array(own) };
}

/** Packs a result into one zip file: meta.json, index.json (names, types, shapes), one raw file per array, and project.json where it is given. */
export function packResult(result: ResultSet, project?: object): Uint8Array {
  const names = Object.keys(result.arrays);
  const index = names.map((name, i) => ({ name, file: `${i}.bin`, type: typeOf(result.arrays[name]), shape: result.arrays[name].shape }));
  const files: Record<string, Uint8Array> = { 'meta.json': strToU8(JSON.stringify(result.meta)), 'index.json': strToU8(JSON.stringify(index)) };
  if (project) files['project.json'] = strToU8(JSON.stringify(project));
  index.forEach((e) => (files[e.file] = arrayBytes(result.arrays[e.name])));
  return zipSync(files, { level: 6 });
}

const indexSchema = z.array(z.object({ name: z.string(), file: z.string(), type: z.enum(['f4', 'f8']), shape: z.array(z.int()) }));

/**
 * Arrays of a packed file with what stands beside them, whatever that is.
 * @throws Error where a part is missing or damaged.
 */
export function unpackArrays(bytes: Uint8Array): { beside: unknown; arrays: ResultSet['arrays'] } {
  const files = unzipSync(bytes);
  if (!files['meta.json'] || !files['index.json']) throw new Error('The file is no result: it has no meta.json and index.json inside.');
  const index = indexSchema.parse(JSON.parse(strFromU8(files['index.json'])));
  return {
    beside: JSON.parse(strFromU8(files['meta.json'])) as unknown,
    arrays: Object.fromEntries(index.map((e) => [e.name, arrayFrom(files[e.file], e.type, e.shape)])),
  };
}

/**
 * Reads what packResult wrote, today or in an earlier version.
 * @throws Error where a part is missing or damaged.
 */
export function unpackResult(bytes: Uint8Array): ResultSet {
  const { beside, arrays } = unpackArrays(bytes);
  return { meta: readMeta(beside), arrays };
}

/** The project of a packed result as a reader takes it; null where there is none. */
export function unpackProject<T>(bytes: Uint8Array, read: (data: unknown) => T | null): T | null {
  const file = unzipSync(bytes, { filter: ({ name }) => name === 'project.json' })['project.json'];
  return file ? read(JSON.parse(strFromU8(file))) : null;
}
