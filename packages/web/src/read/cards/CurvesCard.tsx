import { termsOfS } from '@jadebell/core/cards';
import type { CurvesCard as CurvesCardData } from '@jadebell/core/document';
import { writeCsv } from '@jadebell/core/formats/csv';
import { bandStretches, type Drawing, judgedLimits, markerRows, overUnit, valueText as told } from '@jadebell/core/reading';
import { MenuItem, Select } from '@mui/material';
import { useContext } from 'react';
import { Card } from '../../charts/Card.tsx';
import { CardContext } from '../../charts/CardContext.ts';
import { download } from '../../ui/download.ts';
import { LensCursor } from './LensCursor.tsx';
import { Plot } from '../../charts/plot/Plot.tsx';
import type { PlotMark, PlotTrace } from '../../charts/plot/parts.ts';
import { aboutReferences } from './about.ts';
import { CurveLines, MarkerTable } from './CurveReadout.tsx';
import { stemOf } from './stem.ts';
import { TouchstoneExports } from './touchstoneExports.ts';
import { useCardRuns } from './useCardRuns.ts';
import { overTitle, useCurveAxes } from './useCurveAxes.ts';
import { useDrawing } from './useDrawing.ts';
import { Message } from '../../kit/Message.tsx';

/** The curves of a card as a table: of each its own x and y. */
function curvesCsv(card: CurvesCardData, { drawn, over }: Drawing, traces: readonly PlotTrace[]): string {
  const unit = overUnit[over];
  const columns = drawn.flatMap((d, n) => [
    { title: `${overTitle(card, over)}${unit ? ` (${unit})` : ''}`, values: Array.from(d.x) },
    { title: `${traces[n].name}${d.unit ? ` (${d.unit})` : ''}`, values: Array.from(d.y) },
  ]);
  const rows = Math.max(0, ...columns.map((c) => c.values.length));
  return writeCsv(columns.map((c) => ({ title: c.title, values: Array.from({ length: rows }, (_, i) => c.values[i] ?? ('' as unknown as number)) })));
}

/** Lines over frequency, wavelength, time or a parameter, with markers, limits, bandwidth and statistics. */
export function CurvesCard({ card }: { card: CurvesCardData }) {
  const board = useContext(CardContext)!;
  const runs = useCardRuns();
  const { drawing, traces, readings, error, loading } = useDrawing(card);
  const { drawn, over, faults } = drawing;
  const change = (next: Partial<CurvesCardData>): void => board.change(next);
  const stem = stemOf(runs[0], card.title ?? 'curves');
  const unitX = overUnit[over];
  const { x, left, right } = useCurveAxes(card, drawing);

  const rows = markerRows(card, drawn);
  const marks: PlotMark[] = [
    ...rows.map(({ marker, curve, spot }) => ({
      ...spot,
      axis: drawn[curve].axis,
      color: traces[curve].color,
      label: String(marker + 1),
      on: traces[curve],
      kind: 'marker' as const,
    })),
    ...card.notes.map((n) => ({ x: n.x, y: n.y, axis: 'left' as const, color: 'var(--plum)', label: n.text, kind: 'note' as const })),
  ];
  const limits = judgedLimits(card, drawn);

  const onlyS = card.traces.length > 0 && card.traces.every((t) => t.quantity === 's' && (t.form ?? 'db') === (card.traces[0].form ?? 'db'));
  const refused = [...new Set(readings.flatMap((r) => r.network?.refused ?? []))];
  const reading = readings[0];
  const about = [
    onlyS && reading?.network ? aboutReferences(reading) : '',
    reading && !reading.bare && reading.network?.bare ? 'gaps of ports taken out' : '',
    runs.length === 1 ? runs[0].label : '',
  ];
  return (
    <Card
      title={card.title ?? 'Curves'}
      about={about.filter(Boolean).join(', ')}
      file={stem}
      tools={onlyS && runs[0] && <TermsOfS card={card} terms={termsOfS(runs[0].run.meta!)} change={change} />}
      exports={[
        { label: 'Curves (CSV)', act: () => download(`${stem}.csv`, curvesCsv(card, drawing, traces), 'text/csv') },
        ...(onlyS && runs[0] ? TouchstoneExports(runs[0].run) : []),
      ]}
      waiting={loading}
    >
      <div style={{ display: 'flex', flexDirection: 'column', height: '100%' }}>
        {error && <Message>{error.message}</Message>}
        <div style={{ flex: 1, minHeight: 0 }}>
          {loading && !traces.length ? (
            <p className="quiet pad">Reading the curves …</p>
          ) : traces.length ? (
            <Plot
              label={card.title ?? 'Curves'}
              x={x}
              left={left}
              right={right}
              traces={traces}
              marks={marks}
              limits={limits}
              bands={bandStretches(card, drawn).flat()}
              levels={card.bandwidth ? [card.bandwidth.level] : []}
              tell={(t, _, y) => told(y, drawn[traces.indexOf(t)]?.unit ?? '')}
              tellX={(v) => told(v, unitX, 6)}
              onPick={(t, at) => change({ markers: [...card.markers, { kind: 'at', trace: drawn[traces.indexOf(t)].trace, x: at, nth: 1 }] })}
              onZoom={(range) => change({ x: { ...card.x, min: range?.min, max: range?.max } })}
            >
              <LensCursor over={over} />
            </Plot>
          ) : (
            <p className="quiet pad">{card.traces.length ? '' : 'No curve is chosen. Set the card up to add some.'}</p>
          )}
        </div>
        {[...faults.map((f) => f.text), ...refused].slice(0, 3).map((t) => (
          <Message key={t} tone="warn" role="note">
            {t}
          </Message>
        ))}
        <MarkerTable rows={rows} drawing={drawing} traces={traces} />
        <CurveLines card={card} drawing={drawing} limits={limits} traces={traces} />
      </div>
    </Card>
  );
}

interface TermsProps {
  card: CurvesCardData;
  terms: ReturnType<typeof termsOfS>;
  change(next: Partial<CurvesCardData>): void;
}
/** Choice of the terms of S that a card of nothing else shows. */
function TermsOfS({ card, terms, change }: TermsProps) {
  if (terms.length < 2) return null;
  return (
    <Select
      multiple
      size="small"
      variant="standard"
      disableUnderline
      value={card.traces.map((t) => t.of)}
      onChange={(e) => {
        const wanted = typeof e.target.value === 'string' ? e.target.value.split(';') : e.target.value;
        if (wanted.length) change({ traces: wanted.map((of) => ({ ...card.traces[0], name: undefined, of })) });
      }}
      renderValue={(v) => (v.length > 2 ? `${v.length} terms` : v.map((key) => terms.find((t) => t.key === key)?.label ?? key).join('; '))}
      inputProps={{ 'aria-label': 'Terms of S' }}
      sx={{ fontSize: 12.5, minWidth: 84 }}
    >
      {terms.map((t) => (
        <MenuItem key={t.key} value={t.key}>
          {t.label}
        </MenuItem>
      ))}
    </Select>
  );
}
