import { writeCsv } from '@jadebell/core/formats/csv';
import type { PhaseCentreCard as PhaseCentreCardData } from '@jadebell/core/document';
import { formatSI } from '@jadebell/core/expressions/format';
import { readPhaseCentre } from '@jadebell/core/reading';
import { useMemo } from 'react';
import { Card } from '../../charts/Card.tsx';
import { traceStyle } from '../../charts/traces.ts';
import { download } from '../../ui/download.ts';
import { useDark } from '../../ui/useDark.ts';
import { Plot } from '../../charts/plot/Plot.tsx';
import { stemOf } from './stem.ts';
import { unitOfAxis } from '@jadebell/core/reading';
import { useCardRuns } from './useCardRuns.ts';
import { useFarField } from './useFarField.ts';

const degrees = (v: number): string => `${((180 * v) / Math.PI).toFixed(1)}°`;

/** The origin about which the phase is most even, and how the spread grows along the axis. */
export function PhaseCentreCard({ card }: { card: PhaseCentreCardData }) {
  const [shown] = useCardRuns();
  const dark = useDark();
  const { far } = useFarField(shown?.run);
  const read = useMemo(() => far && readPhaseCentre(far.source, far.sampler, far.glance, card), [far, card]);
  const stem = stemOf(shown, card.title ?? 'phase-centre');
  const x = useMemo(() => {
    if (!read) return null;
    const { size, unit } = unitOfAxis('m', Math.max(...read.along.offset));
    return { label: `origin along the axis from there (${unit})`, size };
  }, [read]);
  const spread = useMemo(() => read?.along.spread.map((v) => (180 * v) / Math.PI), [read]);
  const trace = useMemo(
    () =>
      read && spread
        ? [{ name: 'spread of the phase', color: traceStyle(1, dark).color, x: read.along.offset, y: spread, axis: 'left' as const }]
        : [],
    [read, spread, dark],
  );
  const over = card.plane === undefined ? 'a cone' : `the plane at ${degrees(card.plane)}`;
  return (
    <Card
      title={card.title ?? 'Phase centre'}
      about={
        read && far
          ? `${shown.label}, ${formatSI(far.source.frequency, 'frequency')}, ${over} of ±${degrees(card.half)} about theta ${degrees(read.theta)}, phi ${degrees(read.phi)}`
          : shown?.label
      }
      file={stem}
      exports={[
        {
          label: 'Spread over origin (CSV)',
          act: () =>
            download(
              `${stem}.csv`,
              writeCsv([
                { title: 'origin along the axis (m)', values: read?.along.offset ?? [] },
                { title: 'spread of the phase (deg)', values: spread ?? [] },
              ]),
              'text/csv',
            ),
        },
      ]}
      waiting={!read}
    >
      {!read || !x ? (
        <p className="quiet pad">{shown?.run.meta!.farField ? 'Reading the far field …' : 'This run has no far field of an antenna.'}</p>
      ) : (
        <div style={{ display: 'flex', flexDirection: 'column', height: '100%' }}>
          <p className="small-line">
            {read.found ? (
              <>
                at{' '}
                <span className="mono">
                  {read.found.at.map((v, i) => `${'xyz'[i]} ${formatSI(Math.abs(v) < 1e-9 ? 0 : v, 'length', 4)}`).join(', ')}
                </span>
                ; phase even within <span className="mono">{degrees(read.found.spread)}</span>, rms{' '}
                <span className="mono">{degrees(read.found.rms)}</span>
              </>
            ) : (
              'The component vanishes there: it has no phase centre.'
            )}
          </p>
          <div style={{ flex: 1, minHeight: 0 }}>
            <Plot
              label="Spread of the phase"
              x={x}
              left={spreadAxis}
              traces={trace}
              tell={(_, __, y) => `${y.toFixed(2)}°`}
              tellX={(v) => formatSI(v, 'length', 4)}
            />
          </div>
        </div>
      )}
    </Card>
  );
}
const spreadAxis = { label: 'spread of the phase (°)', size: 1, min: 0 };
