import type { Hdf5 } from '@jadebell/core/formats/hdf5';
import h5wasm from 'h5wasm';

/** The library that writes HDF5, on files in the browser's memory. */
export async function hdf5Here(): Promise<Hdf5> {
  const { FS } = await h5wasm.ready;
  return {
    open: (name) => new h5wasm.File(name, 'w'),
    take(name) {
      const bytes = FS.readFile(name);
      FS.unlink(name);
      return bytes;
    },
  };
}
