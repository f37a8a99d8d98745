import { writeCsv } from '@jadebell/core/formats/csv';
import { fieldVti, fieldVtr } from '@jadebell/core/formats/fields';
import { fieldHdf5 } from '@jadebell/core/formats/hdf5';
import type { FieldSlice, RecordedField } from '@jadebell/core/reading';
import type { Run } from '../../api/types.ts';
import { download } from '../../ui/download.ts';
import type { Axis } from '@jadebell/core/numerics';

const fields = ['e', 'h'] as const;
const names = { e: 'E', h: 'H' };
const units = { e: 'V/m', h: 'A/m' };

/** The components that a field holds. */
const componentsOf = ({ volume: { only } }: RecordedField): readonly Axis[] => (only === undefined ? [0, 1, 2] : [only]);

/** Files of a recorded field at the frequency that is shown: what the picture shows as CSV and an even image, all of it as a grid and HDF5. */
export function fieldFiles(
  run: Run,
  recorder: string,
  field: RecordedField,
  slice: FieldSlice,
  stem: string,
): { label: string; act(): void | Promise<void> }[] {
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
  const vtr = (): void => download(`${stem}.vtr`, fieldVtr(field.volume), 'application/xml');
  const vti = (): void => download(`${stem}.vti`, fieldVti(field.volume), 'application/xml');
  const hdf5 = async (): Promise<void> => {
    const { hdf5Here } = await import('./hdf5.ts');
    download(`${stem}.h5`, fieldHdf5(await hdf5Here(), field, { run: run.number, recorder }), 'application/x-hdf5');
  };
  return [
    { label: 'Values (CSV)', act: csv },
    { label: 'Field (VTK grid, .vtr)', act: vtr },
    { label: 'Field (VTK image, .vti)', act: vti },
    { label: 'Field (HDF5)', act: hdf5 },
  ];
}
