import type { RecordedField } from '../reading/index.ts';

interface Attributes {
  create_attribute(name: string, value: string | number, shape?: null, type?: string): void;
}
/** What is asked of the library that writes HDF5 (h5wasm): a file in memory or on disk, and a way to read its bytes and be rid of it. */
export interface Hdf5 {
  open(name: string): Attributes & {
    create_dataset(of: { name: string; data: Float32Array | Float64Array; shape: number[] }): Attributes;
    close(): unknown;
  };
  take(name: string): Uint8Array;
}

/**
 * A recorded field at one frequency as HDF5: datasets x, y, z (m) and E, H as [z, y, x, component, re/im] (V/m, A/m), with attributes that say what they
 * are; docs/project-format.md describes it. `about` are attributes of the file.
 */
export function fieldHdf5(library: Hdf5, { volume, frequency }: RecordedField, about: Readonly<Record<string, string | number>>): Uint8Array {
  const name = `field-${Date.now()}.h5`;
  const file = library.open(name);
  const { axes } = volume;
  file.create_attribute('program', 'Jade Bell');
  for (const [key, value] of Object.entries(about)) file.create_attribute(key, value);
  // The form is named: a whole number would be taken for a short integer.
  file.create_attribute('frequency_Hz', frequency, null, '<d');
  file.create_attribute('convention', 'phasors, peak values, exp(+j w t)');
  axes.forEach((a, i) => file.create_dataset({ name: 'xyz'[i], data: Float64Array.from(a), shape: [a.length] }).create_attribute('unit', 'm'));
  const shape = [axes[2].length, axes[1].length, axes[0].length, 3, 2];
  for (const [key, dataset, unit] of [['e', 'E', 'V/m'], ['h', 'H', 'A/m']] as const) {
    const values = volume[key];
    if (!values) continue;
    const made = file.create_dataset({ name: dataset, data: values, shape });
    made.create_attribute('unit', unit);
    if (volume.only !== undefined) made.create_attribute('kept', `component ${'xyz'[volume.only]} alone; the others are zero`);
    made.create_attribute('axes', 'z, y, x, component (x, y, z), part (real, imaginary)');
  } // prettier-ignore
  file.close();
  return library.take(name);
}
