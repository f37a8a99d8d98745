import { formatSI } from '@jadebell/core/format';
import type { Run } from '../api/types.ts';
import { degrees, FiguresTable, rectangle } from './FiguresTable.tsx';

interface Props {
  run: Run;
  stem: string;
}
type Wave = readonly [re: number, im: number];

const ways = ['forward', 'backward'] as const;

/** Power and phase of each mode's waves through rectangles, both ways. */
export function ModeWavesCard({ run, stem }: Props) {
  const { modeWaves = [], wave } = run.meta!;
  const rows = modeWaves.flatMap((r) => r.modes.flatMap((mode, m) => ways.map((way) => ({ r, mode, m, way }))));
  const told = (propagates: boolean, [re, im]: Wave): string =>
    `${(re * re + im * im).toPrecision(4)} W, ${degrees(Math.atan2(im, re))}${propagates ? '' : ' (cut off)'}`;
  return (
    <FiguresTable
      run={run}
      title="Waves of modes"
      about={`power and phase there, for ${wave ? '1 V/m' : '1 W in'}`}
      file={`${stem}-mode-waves`}
      heads={['rectangle', 'mode', 'way']}
      rows={rows.map(({ r, mode, m, way }) => ({
        of: r,
        heads: [rectangle(r), `${m + 1} ${mode.family}`, way],
        texts: mode[way].map((x, f) => told(mode.propagates[f], x)),
      }))}
      columns={rows.flatMap(({ r, mode, m, way }) =>
        ['real', 'imaginary'].map((part, i) => ({
          of: r,
          title: `${r.name} mode ${m + 1} ${way} ${part} (W^(1/2))`,
          values: mode[way].map((x) => x[i]),
        })),
      )}
    />
  );
}

const kinds = [
  { key: 'electric', label: 'stored in E', unit: 'J' },
  { key: 'magnetic', label: 'stored in H', unit: 'J' },
  { key: 'lost', label: 'lost', unit: 'W' },
] as const;

/** Stored energies and lost power of bodies. */
export function EnergyCard({ run, stem }: Props) {
  const { energies = [], wave } = run.meta!;
  // Metal keeps fields out: it only loses.
  const rows = energies.flatMap((e) => kinds.filter((k) => k.key === 'lost' || e[k.key].some((x) => x > 0)).map((k) => ({ e, k })));
  const told = (x: number, unit: 'J' | 'W'): string => formatSI(x, unit === 'J' ? 'energy' : 'power', 4);
  return (
    <FiguresTable
      run={run}
      title="Energy and loss in bodies"
      about={`means over a period, for ${wave ? '1 V/m' : '1 W in'}`}
      file={`${stem}-energy`}
      heads={['body', 'what']}
      rows={rows.map(({ e, k }) => ({ of: e, heads: [e.line, k.label], texts: e[k.key].map((x) => told(x, k.unit)) }))}
      columns={rows.map(({ e, k }) => ({ of: e, title: `${e.line} ${k.label} (${k.unit})`, values: e[k.key] }))}
    />
  );
}
