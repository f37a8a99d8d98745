import h5wasm from 'h5wasm';
import type { Run } from '../../api/types.ts';
import type { RecordedField } from './useField.ts';

/**
 * A recorded field at one frequency as HDF5: datasets x, y, z (m) and E, H as [z, y, x, component, re/im] (V/m, A/m), with attributes that say what they
 * are; docs/project-format.md describes it.
 */
export async function fieldHdf5(run: Run, recorder: string, { volume, frequency }: RecordedField): Promise<Uint8Array> {
  const { FS } = await h5wasm.ready;
  const name = `field-${Date.now()}.h5`;
  const file = new h5wasm.File(name, 'w');
  const { axes } = volume;
  file.create_attribute('program', 'Jade Bell');
  file.create_attribute('run', run.number);
  file.create_attribute('recorder', recorder);
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
  const bytes = FS.readFile(name);
  FS.unlink(name);
  return bytes;
}
