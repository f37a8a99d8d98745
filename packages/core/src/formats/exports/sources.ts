import { writeCsv } from '../csv.ts';
import { atFrequency, type ExportKind, numbersWanted, wanted } from './kind.ts';
import { probeColumns } from './wires.ts';

export const sweep: ExportKind = {
  key: 'sweep',
  title: 'cross-section back, voltages and currents over the direction of a plane wave',
  type: 'text/csv',
  files(e) {
    const { meta, arrays } = e.result;
    const { directions, strength = 1 } = meta.wave ?? {};
    const back = arrays['sweep:back'];
    if (!directions || !back) return [];
    const n = directions.length;
    const degrees = (which: 0 | 1): number[] => directions.map((d) => (d[which] * 180) / Math.PI);
    return numbersWanted(e, meta.recordAt).map((f) => ({
      ending: `-sweep-${atFrequency(meta.recordAt[f])}.csv`,
      write: () => {
        const places = (meta.probes ?? []).filter(({ name }) => wanted(e, name) && arrays[`sweep:probe:${name}`]);
        return writeCsv([
          { title: 'theta of the wave (deg)', values: degrees(0) },
          { title: 'phi of the wave (deg)', values: degrees(1) },
          { title: 'cross-section back (m2)', values: back.data.subarray(f * n, (f + 1) * n) },
          // Kept for 1 V/m, told for the strength of the wave.
          ...places.flatMap(({ name, kind }) => {
            const data = arrays[`sweep:probe:${name}`].data.slice(4 * f * n, 4 * (f + 1) * n).map((v) => strength * v);
            return probeColumns(data, kind, `${name} `);
          }),
        ]);
      },
    }));
  },
};

export const sourcePower: ExportKind = {
  key: 'source-power',
  title: 'power of the current dipole over the band',
  type: 'text/csv',
  arrays: ['frequency', 'source:power'],
  files({ result: { meta, arrays } }) {
    const power = arrays['source:power'];
    if (!meta.dipole || !power) return [];
    const moment = meta.dipole.of === 'magnetic' ? '1 V m' : '1 A m';
    return [
      {
        ending: '-source-power.csv',
        write: () =>
          writeCsv([
            { title: 'frequency (Hz)', values: arrays.frequency.data },
            { title: `power for a moment of ${moment}, peak (W)`, values: power.data },
          ]),
      },
    ];
  },
};
