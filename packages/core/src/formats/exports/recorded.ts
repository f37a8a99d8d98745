import { keptValues, recordedField } from '../../reading/index.ts';
import { type Column, recorderKind, recorderKinds, type RecorderTold } from '../../recorders/index.ts';
import { frequenciesKept } from '../../results/index.ts';
import { writeCsv } from '../csv.ts';
import { fieldHdf5 } from '../hdf5.ts';
import { fieldVti, fieldVtr } from '../fieldFiles.ts';
import { atFrequency, type Exporting, type ExportKind, type FieldForm, namePart, numbersWanted, type ResultFile, wanted } from './kind.ts';

/** Frequencies that were recorded and what goes with them, as the tables of recorders have it: those of each recorder that keeps others than the first. */
export const tables: ExportKind = {
  key: 'recorders',
  title: 'what recorders tell in figures: powers, currents, waves, energies',
  type: 'text/csv',
  files(e) {
    const { meta } = e.result;
    if (e.mixed) return [];
    return recorderKinds.flatMap((kind) =>
      meta.recorded
        .filter((told) => told.kind === kind.kind && kind.table && wanted(e, told.name))
        .map((told): ResultFile => {
          const columns: Column[] = [
            { title: 'frequency (Hz)', values: frequenciesKept(meta, told) },
            ...kind.table!.rows(told).flatMap((row) => row.columns),
          ];
          return { ending: `-${kind.table!.file}-${namePart(told.name)}.csv`, write: () => writeCsv(columns) };
        }),
    );
  },
};

/** Files of a recorder, one for each wanted frequency, or one over time. */
function eachKept(e: Exporting, told: RecorderTold, write: (at: number) => ResultFile['write'], form: string): ResultFile[] {
  const { meta } = e.result;
  if (recorderKind(told).over === 'time') return [{ ending: `-${namePart(told.name)}${form}`, write: write(0) }];
  const all = frequenciesKept(meta, told);
  return numbersWanted(e, all).map((at) => ({ ending: `-${namePart(told.name)}-${atFrequency(all[at])}${form}`, write: write(at) }));
}

const isField = ({ kind }: RecorderTold): boolean => kind === 'field-plane' || kind === 'field-box';
const recordersOf = (e: Exporting, fields: boolean): RecorderTold[] =>
  e.result.meta.recorded.filter((told) => wanted(e, told.name) && isField(told) === fields && keptValues(e.result, told, 0));

const asTable = (e: Exporting, told: RecorderTold) => (at: number) => (): string => {
  const { values, places } = keptValues(e.result, told, at)!;
  return writeCsv(recorderKind(told).values!.columns(told, values, places));
};

export const values: ExportKind = {
  key: 'values',
  title: 'fields along lines, over time, and on bodies, as tables',
  type: 'text/csv',
  files: (e) => recordersOf(e, false).flatMap((told) => eachKept(e, told, asTable(e, told), '.csv')),
};

/** How a recorded field is written in each form. */
const writers: Record<FieldForm, { ending: string; of(e: Exporting, told: RecorderTold): (at: number) => ResultFile['write'] }> = {
  csv: { ending: '.csv', of: asTable },
  vtr: { ending: '.vtr', of: (e, told) => (at) => () => fieldVtr(fieldAt(e, told, at).volume) },
  vti: { ending: '.vti', of: (e, told) => (at) => () => fieldVti(fieldAt(e, told, at).volume) },
  hdf5: {
    ending: '.h5',
    of: (e, told) => (at) => async () => fieldHdf5(await e.hdf5!(), fieldAt(e, told, at), { recorder: told.name }),
  },
};
function fieldAt({ result }: Exporting, told: RecorderTold, at: number) {
  const { values: kept, places } = keptValues(result, told, at)!;
  return recordedField(result.meta, told, at, kept as Float32Array, places)!;
}

export const fields: ExportKind = {
  key: 'fields',
  title: 'fields on planes and in boxes as VTK, HDF5 or tables',
  type: 'application/octet-stream',
  files: (e) =>
    recordersOf(e, true).flatMap((told) =>
      (e.fields ?? ['vtr']).flatMap((form) => eachKept(e, told, writers[form].of(e, told), writers[form].ending)),
    ),
};
