import { propagationColumns } from '../../reading/index.ts';
import type { Column } from '../../recorders/index.ts';
import { channelNames } from '../../results/index.ts';
import { writeCsv } from '../csv.ts';
import { curvesCsv, summaryJson, touchstoneOf } from '../resultFiles.ts';
import { type ExportKind, namePart } from './kind.ts';

/** S, and what the ports know besides. */
export const touchstone: ExportKind = {
  key: 'touchstone',
  title: 'S as Touchstone',
  type: 'text/plain',
  arrays: ['frequency', 's', 'beta'],
  files({ result, title, view }) {
    const found = touchstoneOf(result, title, view);
    return found ? [{ ending: found.version === '2' ? '.ts' : `.s${found.ports}p`, write: () => found.text }] : [];
  },
};

export const curves: ExportKind = {
  key: 'curves',
  title: 'S and input impedance as a table',
  type: 'text/csv',
  arrays: ['frequency', 's'],
  files({ result }) {
    const text = curvesCsv(result);
    return text === null ? [] : [{ ending: '-s.csv', write: () => text }];
  },
};

export const summary: ExportKind = {
  key: 'summary',
  title: 'figures, evidence and S of all channels as JSON',
  type: 'application/json',
  arrays: ['frequency', 's'],
  files: ({ result }) => [{ ending: '-result.json', write: () => `${summaryJson(result)}\n` }],
};

export const portModes: ExportKind = {
  key: 'port-modes',
  title: 'propagation of the modes of guided ports',
  type: 'text/csv',
  arrays: ['frequency', 'beta'],
  files({ result: { meta, arrays } }) {
    const { frequency, beta } = arrays;
    return beta ? [{ ending: '-port-modes.csv', write: () => writeCsv(propagationColumns(meta, frequency.data, beta.data)) }] : [];
  },
};

export const modeFields: ExportKind = {
  key: 'mode-fields',
  title: 'transverse fields of the modes of guided ports',
  type: 'text/csv',
  files({ result: { meta, arrays } }) {
    const names = channelNames(meta.ports);
    return meta.ports.flatMap((_, n) => {
      const [e, u, v] = [`mode:${n}`, `mode:${n}:u`, `mode:${n}:v`].map((name) => arrays[name]?.data as ArrayLike<number> | undefined);
      if (!e || !u || !v) return [];
      const size = u.length * v.length;
      /** Each component at the middle of its edge, which begins at the node. */
      const places = (axis: 0 | 1, half: boolean): Float64Array =>
        Float64Array.from({ length: size }, (_x, i) => {
          const k = axis ? Math.floor(i / u.length) : i % u.length;
          const x = axis ? v : u;
          return half ? (x[k] + (x[k + 1] ?? x[k])) / 2 : x[k];
        });
      const columns = (['u', 'v'] as const).flatMap((of, c): Column[] => [
        { title: `u of E${of} (m)`, values: places(0, c === 0) },
        { title: `v of E${of} (m)`, values: places(1, c === 1) },
        { title: `E${of}`, values: Array.from({ length: size }, (_x, i) => e[c * size + i]) },
      ]);
      return [{ ending: `-mode-${namePart(names[n])}.csv`, write: () => writeCsv(columns) }];
    });
  },
};

export const portSignals: ExportKind = {
  key: 'port-signals',
  title: 'voltages and waves of ports over time, as the pulse makes them',
  type: 'text/csv',
  arrays: ['time', 'signal'],
  files({ result: { meta, arrays } }) {
    const { time, signal } = arrays;
    if (!time || !signal) return [];
    const names = channelNames(meta.ports);
    const of = (n: number): Float64Array => Float64Array.from({ length: time.data.length }, (_, i) => signal.data[i * names.length + n]);
    const columns = [{ title: 'time (s)', values: time.data }, ...names.map((name, n) => ({ title: `${name} (V)`, values: of(n) }))];
    return [{ ending: '-port-signals.csv', write: () => writeCsv(columns) }];
  },
};
