import { writeCsv } from '@jadebell/core/formats/csv';
import type { AlongCard as AlongCardData } from '@jadebell/core/document';
import { formatSI, withPrefix } from '@jadebell/core/expressions/format';
import { alongLine, fieldKinds, inMedia, lackingFor, readField } from '@jadebell/core/reading';
import { useMemo } from 'react';
import { Card } from '../../charts/Card.tsx';
import { traceStyle } from '../../charts/traces.ts';
import { download } from '../../ui/download.ts';
import { useDark } from '../../ui/useDark.ts';
import { usePhase } from '../../lens/useFrequency.ts';
import { Plot } from '../../charts/plot/Plot.tsx';
import { stemOf } from './stem.ts';
import { unitOfAxis } from '@jadebell/core/reading';
import { useCardRuns } from './useCardRuns.ts';
import { useField } from './useField.ts';

const samples = 401;
const frame = { along: [1, 0, 0], across: [0, 1, 0], normal: [0, 0, 1] } as const;
const parts = ['size', 'x', 'y', 'z'] as const;
function lookOf(part: (typeof parts)[number], dark: boolean): { color: string; dash: string | undefined } {
  const { color, dash } = traceStyle(parts.indexOf(part) + 1, dark);
  return { color, dash };
}

/** The field along a line that was drawn on a picture: its size and components over the way. */
export function AlongCard({ card }: { card: AlongCardData }) {
  const [shown] = useCardRuns();
  const dark = useDark();
  const { field, missing } = useField(shown?.run, card.recorder);
  const phase = usePhase();
  const line = useMemo(
    () => field && alongLine(inMedia(field.volume, card.quantity, field.frequency, field.filling), card.from, card.to, samples),
    [field, card.quantity, card.from, card.to],
  );
  const { quantity, form } = card;
  const lacking = field && lackingFor(fieldKinds[quantity], field.volume);
  const only = field?.volume.only;
  const moment = form === 'instant' ? phase : 0;
  const traces = useMemo(
    () =>
      line
        ? parts
            .filter((part) => part === 'size' || only === undefined || part === 'xyz'[only])
            .map((part) => ({
              name: part === 'size' ? `|${quantity}|` : `${quantity}${part}`,
              ...lookOf(part, dark),
              x: line.distance,
              y: readField(
                { ...frame, e: line.e, h: line.h },
                { quantity, part, form: form === 'phase' ? 'peak' : form },
                moment,
                new Float64Array(samples),
              ),
              axis: 'left' as const,
            }))
        : [],
    [line, only, quantity, form, moment, dark],
  );
  const x = useMemo(() => {
    const { size, unit } = unitOfAxis('m', line ? line.distance[samples - 1] : 1);
    return { label: `way along the line (${unit})`, size };
  }, [line]);
  const { unit } = fieldKinds[quantity];
  const left = useMemo(() => ({ label: `${quantity} (${unit})`, size: 1 }), [quantity, unit]);
  const stem = stemOf(shown, card.title ?? `along-${card.recorder}`);
  const point = (p: readonly number[]): string => p.map((v) => formatSI(v, 'length', 3)).join(', ');
  return (
    <Card
      title={card.title ?? `Along a line on ${card.recorder}`}
      about={
        field
          ? `${form === 'phase' ? 'peak' : form}, from ${point(card.from)} to ${point(card.to)}, ${shown.label}, ${formatSI(field.frequency, 'frequency')}`
          : shown?.label
      }
      file={stem}
      exports={[{ label: 'Values (CSV)', act: () => download(`${stem}.csv`, writeCsv([{ title: 'way (m)', values: line?.distance ?? [] }, ...traces.map((t) => ({ title: `${t.name} (${unit})`, values: t.y }))]), 'text/csv') }]} // prettier-ignore
      waiting={!line && !missing}
    >
      {lacking ? (
        <p className="quiet pad">
          {card.recorder} keeps no {lacking}.
        </p>
      ) : line ? (
        <div style={{ display: 'flex', flexDirection: 'column', height: '100%' }}>
          <div style={{ flex: 1, minHeight: 0 }}>
            <Plot
              label="Field along a line"
              x={x}
              left={left}
              traces={traces}
              tell={(_, __, y) => withPrefix(y, unit)}
              tellX={(v) => formatSI(v, 'length', 4)}
            />
          </div>
        </div>
      ) : (
        <p className="quiet pad">{missing ? `There is no recorder ${card.recorder}.` : 'Reading the field …'}</p>
      )}
    </Card>
  );
}
