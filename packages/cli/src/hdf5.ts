import { readFileSync, unlinkSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Hdf5 } from '@jadebell/core/formats/hdf5';

/** The library that writes HDF5, on files in the machine's folder for what does not last. */
export async function hdf5Here(): Promise<Hdf5> {
  const { default: library } = await import('h5wasm/node');
  await library.ready;
  const path = (name: string): string => join(tmpdir(), `jadebell-${process.pid}-${name}`);
  return {
    open: (name) => new library.File(path(name), 'w'),
    take(name) {
      const bytes = readFileSync(path(name));
      unlinkSync(path(name));
      return bytes;
    },
  };
}
