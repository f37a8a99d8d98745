import { writeCsv } from '@jadebell/core/formats/csv';
import { type FieldSlice, sampleVolume } from '@jadebell/core/reading';
import { type VtkArray, writeVti, writeVtr } from '@jadebell/core/formats/vtk';
import type { Run } from '../../api/types.ts';
import { download } from '../../ui/download.ts';
import type { RecordedField } from './useField.ts';
import type { Axis } from '@jadebell/core/numerics';

const fields = ['e', 'h'] as const;
const names = { e: 'E', h: 'H' };
const units = { e: 'V/m', h: 'A/m' };

/** The components that a field holds. */
const componentsOf = ({ volume: { only } }: RecordedField): readonly Axis[] => (only === undefined ? [0, 1, 2] : [only]);

/** Real and imaginary parts as three components each, as VTK wants vectors, or as the one that was kept. */
function vectors(values: Float32Array, name: string, unit: string, kept: readonly Axis[]): VtkArray[] {
  const count = values.length / 6;
  const size = kept.length === 1 ? 1 : 3;
  return (['real', 'imaginary'] as const).map((part, p) => {
    const out = new Float32Array(size * count);
    for (let n = 0; n < count; n++) for (let k = 0; k < size; k++) out[size * n + k] = values[6 * n + 2 * kept[k] + p];
    return { name: `${name}${size === 1 ? 'xyz'[kept[0]] : ''} ${part} (${unit})`, components: size, values: out };
  });
}

/** Files of a recorded field at the frequency that is shown: what the picture shows as CSV and an even image, all of it as a grid and HDF5. */
export function fieldFiles(
  run: Run,
  recorder: string,
  field: RecordedField,
  slice: FieldSlice,
  stem: string,
): { label: string; act(): void | Promise<void> }[] {
  const { axes } = field.volume;
  const kept = componentsOf(field);
  const csv = (): void => {
    const nu = slice.u.length;
    const count = nu * slice.v.length;
    const place = (axis: Axis): Float64Array =>
      Float64Array.from(
        { length: count },
        (_, n) => slice.origin[axis] + slice.u[n % nu] * slice.along[axis] + slice.v[Math.floor(n / nu)] * slice.across[axis],
      );
    const columns = fields.flatMap((f) => {
      const values = slice[f];
      return values
        ? kept.flatMap((k) =>
            ['real', 'imaginary'].map((part, p) => ({
              title: `${names[f]}${'xyz'[k]} ${part} (${units[f]})`,
              values: Float64Array.from({ length: count }, (_, n) => values[6 * n + 2 * k + p]),
            })),
          )
        : [];
    });
    download(`${stem}.csv`, writeCsv([...([0, 1, 2] as const).map((a) => ({ title: `${'xyz'[a]} (m)`, values: place(a) })), ...columns]), 'text/csv');
  };
  const vtr = (): void => {
    const arrays = fields.flatMap((f) => (field.volume[f] ? vectors(field.volume[f], names[f], units[f], kept) : []));
    download(`${stem}.vtr`, writeVtr(axes, arrays), 'application/xml');
  };
  const vti = (): void => {
    // An image needs even steps: the finest of each axis, as far as a few million samples allow.
    const even = evenAxes(axes);
    const arrays = fields.flatMap((f) => (field.volume[f] ? vectors(resampled(axes, field.volume[f], even), names[f], units[f], kept) : []));
    download(`${stem}.vti`, writeVti(even.size, even.origin, even.spacing, arrays), 'application/xml');
  };
  const hdf5 = async (): Promise<void> => {
    const { fieldHdf5 } = await import('./hdf5.ts');
    download(`${stem}.h5`, await fieldHdf5(run, recorder, field), 'application/x-hdf5');
  };
  return [
    { label: 'Values (CSV)', act: csv },
    { label: 'Field (VTK grid, .vtr)', act: vtr },
    { label: 'Field (VTK image, .vti)', act: vti },
    { label: 'Field (HDF5)', act: hdf5 },
  ];
}

interface Even {
  size: [number, number, number];
  origin: number[];
  spacing: number[];
}
type Axes = RecordedField['volume']['axes'];
const most = 4_000_000;

function evenAxes(axes: Axes): Even {
  const finest = axes.map((a) => Array.from(a).reduce((least, x, i) => (i ? Math.min(least, x - a[i - 1]) : least), Infinity));
  const extent = axes.map((a) => a[a.length - 1] - a[0]);
  const sizeAt = (coarser: number): [number, number, number] => extent.map((e, i) => (axes[i].length === 1 ? 1 : Math.max(2, Math.round(e / (finest[i] * coarser)) + 1))) as [number, number, number]; // prettier-ignore
  let coarser = 1;
  while (sizeAt(coarser).reduce((n, s) => n * s, 1) > most) coarser *= 1.25;
  const size = sizeAt(coarser);
  return { size, origin: axes.map((a) => a[0]), spacing: extent.map((e, i) => (size[i] > 1 ? e / (size[i] - 1) : 1)) };
}

function resampled(axes: Axes, values: Float32Array, { size, origin, spacing }: Even): Float32Array {
  const out = new Float32Array(6 * size[0] * size[1] * size[2]);
  let at = 0;
  for (let k = 0; k < size[2]; k++)
    for (let j = 0; j < size[1]; j++)
      for (let i = 0; i < size[0]; i++, at += 6)
        sampleVolume(axes, values, [origin[0] + i * spacing[0], origin[1] + j * spacing[1], origin[2] + k * spacing[2]], out, at);
  return out;
}
