import { wireColumns } from '../../reading/index.ts';
import { phasorColumns } from '../../recorders/index.ts';
import { writeCsv } from '../csv.ts';
import { atFrequency, type ExportKind, namePart, numbersWanted, wanted } from './kind.ts';

export const wireCurrents: ExportKind = {
  key: 'currents',
  title: 'currents along wires',
  type: 'text/csv',
  files(e) {
    const { meta, arrays } = e.result;
    const own = (meta.wires ?? []).filter((w) => wanted(e, w.name));
    const [current, along, segments] = [arrays['wire:current'], arrays['wire:along'], arrays['wire:segments']];
    if (!own.length || !current || !along || !segments) return [];
    const size = current.data.length / current.shape[0];
    return numbersWanted(e, meta.recordAt).map((f) => ({
      ending: `-wire-currents-${atFrequency(meta.recordAt[f])}.csv`,
      write: () => {
        const numbers = own.map((w) => meta.wires!.indexOf(w) + 1);
        return writeCsv(wireColumns(own, current.data.subarray(f * size, (f + 1) * size), along.data, segments.data, numbers));
      },
    }));
  },
};

/** Voltage and current of a place, kept as four numbers each time; a mere point has no voltage. */
export const probeColumns = (data: ArrayLike<number>, kind: 'port' | 'load' | 'point', name = '') => [
  ...(kind === 'point' ? [] : phasorColumns(data, 4, [{ of: `${name}voltage`, at: 0 }], 'V')),
  ...phasorColumns(data, 4, [{ of: `${name}current`, at: 2 }], 'A'),
];

export const probes: ExportKind = {
  key: 'probes',
  title: 'voltages and currents of places on wires over the band',
  type: 'text/csv',
  files(e) {
    const { meta, arrays } = e.result;
    return (meta.probes ?? [])
      .filter(({ name }) => wanted(e, name) && arrays[`probe:${name}`])
      .map(({ name, kind }) => ({
        ending: `-${namePart(name)}.csv`,
        write: () => {
          const { data } = arrays[`probe:${name}`];
          return writeCsv([{ title: 'frequency (Hz)', values: arrays.frequency.data }, ...probeColumns(data, kind)]);
        },
      }));
  },
};
