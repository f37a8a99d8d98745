import { channelNames, decibel } from '@jadebell/core/results';
import type { Run } from '../api/types.ts';
import { degrees, FiguresTable } from '../charts/FiguresTable.tsx';

/** What each of the combined waves meets while all are there. */
export function CombinedCard({ run, stem }: { run: Run; stem: string }) {
  const { combined = [], ports } = run.meta!;
  const names = channelNames(ports);
  return (
    <FiguresTable
      run={run}
      title="Waves together"
      about="active reflection"
      file={`${stem}-waves`}
      heads={['wave', 'amplitude', 'phase']}
      rows={combined.map((w) => ({
        heads: [names[w.channel], w.amplitude.toFixed(3), degrees(w.phase)],
        texts: w.reflection.map((r) => `${decibel(r).toFixed(2)} dB`),
      }))}
      columns={combined.map((w) => ({ title: `active reflection of ${names[w.channel]} (dB)`, values: w.reflection.map(decibel) }))}
    />
  );
}
