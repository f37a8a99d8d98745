import { writeCsv } from '@jadebell/core/formats/csv';
import { formatSI } from '@jadebell/core/expressions/format';
import type { SmithCard as SmithCardData } from '@jadebell/core/document';
import { quantities } from '@jadebell/core/reading';
import { type Complex, impedance } from '@jadebell/core/results';
import { useContext, useMemo } from 'react';
import { Card } from '../../charts/Card.tsx';
import { traceStyle } from '../../charts/traces.ts';
import { download } from '../../ui/download.ts';
import { useDark } from '../../ui/useDark.ts';
import { CardContext } from '../../charts/CardContext.ts';
import { useFrequency } from '../../lens/useFrequency.ts';
import { SmithChart } from '../../charts/SmithChart.tsx';
import { useReadings } from '../../lens/useReadings.ts';
import { aboutReferences } from './about.ts';
import { stemOf } from './stem.ts';
import { TouchstoneExports } from './touchstoneExports.ts';
import { useCardRuns } from './useCardRuns.ts';
import { termsOfS } from '@jadebell/core/cards';
import { abs } from '@jadebell/core/numerics';

const none: string[] = [];
const nearestIndex = (x: ArrayLike<number>, at: number): number => {
  let best = 0;
  for (let i = 1; i < x.length; i++) if (Math.abs(x[i] - at) < Math.abs(x[best] - at)) best = i;
  return best;
};
const ohms = (z: Complex): string => `${z[0].toPrecision(4)} ${z[1] < 0 ? '−' : '+'} ${Math.abs(z[1]).toPrecision(4)}j`;

/** Reflections of the shown runs in the Smith chart. */
export function SmithCard({ card }: { card: SmithCardData }) {
  const board = useContext(CardContext)!;
  const runs = useCardRuns();
  const dark = useDark();
  const { readings, loading } = useReadings(runs, () => none);
  const frequency = useFrequency();
  const traces = useMemo(
    () =>
      readings.flatMap((r) => {
        const all = termsOfS(r.meta);
        const wanted = card.terms.length ? card.terms : all.slice(0, 1).map((t) => t.key);
        return wanted.flatMap((key, k) => {
          const curve = quantities.s.curve(r, key);
          const term = all.find((t) => t.key === key);
          if (!curve || !term || !curve.im) return [];
          const style = traceStyle(runs.length > 1 ? r.shown.tint : k + 1, dark);
          const name = [runs.length > 1 ? r.shown.label : '', term.label, r.bare ? 'without gaps' : ''].filter(Boolean).join(' ');
          const own = term.to === r.meta.excitations[term.from];
          return [
            {
              name,
              color: style.color,
              dash: r.bare ? '1 3' : runs.length > 1 ? traceStyle(k + 1, dark).dash : style.dash,
              re: curve.re,
              im: curve.im,
              frequency: r.frequency,
              reference: own ? r.network!.references[term.to] : null,
            },
          ];
        });
      }),
    [readings, card.terms, runs.length, dark],
  );
  const at = (t: (typeof traces)[number], i: number): Complex => [t.re[i], t.im[i]];
  const tell = (t: (typeof traces)[number], i: number): string => {
    const s = at(t, i);
    const size = abs(s);
    const z = t.reference ? `, ${ohms(impedance(s, t.reference))} ohm` : '';
    const ratio = size < 1 ? `, ratio ${((1 + size) / (1 - size)).toPrecision(3)}` : '';
    return `${formatSI(t.frequency[i], 'frequency', 5)}: ${(20 * Math.log10(size)).toFixed(2)} dB${z}${ratio}`;
  };
  const marks = card.markers.flatMap((f, m) =>
    traces.map((t) => ({ at: at(t, nearestIndex(t.frequency, f)), label: String(m + 1), on: t, i: nearestIndex(t.frequency, f), m })),
  );
  const cursor = frequency === null ? [] : traces.map((t) => ({ at: at(t, nearestIndex(t.frequency, frequency)), on: t }));
  const stem = stemOf(runs[0], card.title ?? 'smith');
  const csv = (): void =>
    download(
      `${stem}.csv`,
      writeCsv(
        traces.flatMap((t) => [
          { title: 'frequency (Hz)', values: t.frequency },
          { title: `${t.name} real`, values: t.re },
          { title: `${t.name} imaginary`, values: t.im },
        ]),
      ),
      'text/csv',
    );
  return (
    <Card
      title={card.title ?? 'Smith chart'}
      about={readings[0]?.network ? aboutReferences(readings[0]) : undefined}
      file={stem}
      exports={[{ label: 'Reflections (CSV)', act: csv }, ...(runs[0] ? TouchstoneExports(runs[0].run) : [])]}
      waiting={loading}
    >
      <div style={{ display: 'flex', flexDirection: 'column', height: '100%' }}>
        <div style={{ flex: 1, minHeight: 0 }}>
          <SmithChart
            traces={traces}
            grid={card.grid}
            ratios={card.ratios}
            marks={marks}
            cursor={cursor}
            tell={tell}
            onPick={(t, i) => board.change({ markers: [...card.markers, t.frequency[i]] } as Partial<SmithCardData>)}
          />
        </div>
        {marks.length > 0 && (
          <div className="readout">
            {marks.map((p) => (
              <p key={`${p.m}-${p.on.name}`} className="small-line">
                <b>{p.label}</b> {traces.length > 1 ? `${p.on.name} ` : ''}
                <span className="mono">{tell(p.on, p.i)}</span>
              </p>
            ))}
          </div>
        )}
      </div>
    </Card>
  );
}
