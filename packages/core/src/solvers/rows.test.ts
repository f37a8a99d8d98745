import { readFileSync } from 'node:fs';
import { describe, expect, test } from '@jest/globals';
import { nodeHost } from '@jadebell/node';
import { firstByte } from './arena.ts';
import { kernelInstance, wasm } from './kernels.ts';
import { tables } from './layout.ts';
import { type Entry, Rows, type TableName } from './rows.ts';

const names = Object.keys(tables) as TableName[];
const typesOf = (table: TableName): Record<string, readonly [string, number]> => tables[table].fields;

describe('what host and kernel tell each other by', () => {
  test('both sides are made from one description', async () => {
    const script = '../../../../scripts/kernels.mjs';
    const { layouts } = (await import(script)) as { layouts: [file: string, make: () => string][] };
    for (const [file, make] of layouts) expect(readFileSync(file, 'utf8')).toBe(make());
  });

  test.each(names)('the kernel reads a table %s as the host writes it', async (table) => {
    const memory = new wasm.Memory({ initial: 4, maximum: 4, shared: true });
    const { echo } = await kernelInstance((await nodeHost(1)).module, memory);
    const fields = Object.entries(typesOf(table));
    // Values of no two fields are alike, with a half where a type has room for one, and negative where it has a sign.
    const entry = Object.fromEntries(fields.map(([name, [type]], i) => [name, type === 'u32' ? 7 + i : type === 'i32' ? -7 - i : -7.5 - i]));
    const rows = new Rows(table, 2, 3);
    rows.set(0, {}, [1, 2, 3]);
    rows.set(1, entry as Entry<typeof table>, [4, 5, 6]);
    new Uint8Array(memory.buffer).set(rows.bytes, firstByte);
    const second = firstByte + tables[table].size + 12;
    const out = 8 * Math.ceil(second / 8) + 1024;
    expect(echo(names.indexOf(table), second, out)).toBe(tables[table].size);
    const read = new Float64Array(memory.buffer, out, fields.length);
    expect(Object.fromEntries(fields.map(([name], i) => [name, read[i]]))).toEqual(entry);
    // What stands behind the entry is not touched by it.
    expect([...new Float32Array(rows.bytes.slice(-12).buffer)]).toEqual([4, 5, 6]);
  });

  test('kernels whose own data reach into what the host gives out are refused', async () => {
    const { ownBytes } = await kernelInstance((await nodeHost(1)).module, new wasm.Memory({ initial: 4, maximum: 4, shared: true }));
    expect(ownBytes()).toBeLessThanOrEqual(firstByte);
    expect(ownBytes()).toBeGreaterThan(0);
  });
});
