import { figureColumns } from '../../reading/index.ts';
import { writeCsv } from '../csv.ts';
import { writeFarField } from '../farField.ts';
import { patternCsv } from '../resultFiles.ts';
import type { ExportKind } from './kind.ts';

/** Far fields and their figures. */
export const pattern: ExportKind = {
  key: 'pattern',
  title: 'far field and directivity as a table',
  type: 'text/csv',
  arrays: ['farField'],
  files({ result }) {
    const text = patternCsv(result);
    return text === null ? [] : [{ ending: '-pattern.csv', write: () => text }];
  },
};

export const farField: ExportKind = {
  key: 'farfield',
  title: 'far field as text, in the form of docs/far-field-format.md',
  type: 'text/plain',
  arrays: ['farField'],
  files({ result, title }) {
    const text = writeFarField(result, title);
    return text === null ? [] : [{ ending: '-far-field.txt', write: () => text }];
  },
};

export const figures: ExportKind = {
  key: 'figures',
  title: 'directivity, gains, powers, or cross-sections over frequency',
  type: 'text/csv',
  arrays: [],
  files({ result: { meta } }) {
    const all = meta.farField?.figures ?? meta.scattered?.figures ?? [];
    return all.length ? [{ ending: '-figures.csv', write: () => writeCsv(figureColumns(all)) }] : [];
  },
};
