import { writeCsv } from '@jadebell/core/formats/csv';
import { bands as bandsOf, held, statistics } from '@jadebell/core/curves';
import type { CurvesCard as CurvesCardData } from '@jadebell/core/document';
import { spotOf } from '@jadebell/core/reading';
import { MenuItem, Select } from '@mui/material';
import { useContext, useMemo } from 'react';
import { Card } from '../../charts/Card.tsx';
import { Legend } from '../../charts/Legend.tsx';
import { download } from '../../ui/download.ts';
import { CardContext } from '../../charts/CardContext.ts';
import { LensCursor } from '../plot/LensCursor.tsx';
import { Plot } from '../plot/Plot.tsx';
import type { PlotMark } from '../plot/PlotStatic.tsx';
import { aboutReferences, axisTitle } from './about.ts';
import { stemOf } from './stem.ts';
import { TouchstoneExports } from './touchstoneExports.ts';
import { overUnit, told, unitOfAxis } from './units.ts';
import { useCardRuns } from './useCardRuns.ts';
import { useDrawing } from './useDrawing.ts';
import { termsOfS } from '@jadebell/core/cards';

const largest = (lists: readonly ArrayLike<number>[]): number => {
  let most = 0;
  for (const list of lists) for (let i = 0; i < list.length; i++) if (Math.abs(list[i]) > most && Number.isFinite(list[i])) most = Math.abs(list[i]);
  return most;
};

/** Lines over frequency, wavelength, time or a parameter, with markers, limits, bandwidth and statistics. */
export function CurvesCard({ card }: { card: CurvesCardData }) {
  const board = useContext(CardContext)!;
  const runs = useCardRuns();
  const { drawing, traces, readings, error, loading } = useDrawing(card);
  const { drawn, over, faults } = drawing;
  const change = (next: Partial<CurvesCardData>): void => board.change(next);
  const stem = stemOf(runs[0], card.title ?? 'curves');

  const unitX = overUnit[over];
  const xs = unitOfAxis(unitX, largest(drawn.map((d) => d.x)), card.x.unit);
  const axis = (side: 'left' | 'right') => {
    const own = drawn.filter((d) => d.axis === side);
    const units = [...new Set(own.map((d) => d.unit))];
    const { size, unit } =
      units.length === 1 ? unitOfAxis(units[0], largest(own.map((d) => d.y)), card[side].unit) : { size: 1, unit: units.filter(Boolean).join(', ') };
    const names = new Set(own.map((d) => card.traces[d.trace].quantity));
    const title =
      card[side].title ??
      (names.size === 1 && [...names][0] !== 'formula' && [...names][0] !== 'data'
        ? axisTitle([...names][0], own[0] && card.traces[own[0].trace].form)
        : '');
    return { ...card[side], size, angles: unit === 'deg', label: [title, unit && `(${unit})`].filter(Boolean).join(' ') };
  };
  const xLabel = card.x.title ?? (over === 'parameter' ? card.over : over === 'number' ? '' : over);
  const x = useMemo(() => ({ ...card.x, size: xs.size, label: xs.unit ? `${xLabel} (${xs.unit})` : xLabel }), [card.x, xs.size, xs.unit, xLabel]);
  const left = axis('left');
  const right = axis('right');
  const leftAxis = useMemo(() => left, [left.label, left.size, card.left]); // eslint-disable-line react-hooks/exhaustive-deps
  const rightAxis = useMemo(() => right, [right.label, right.size, card.right]); // eslint-disable-line react-hooks/exhaustive-deps

  const view = { from: card.x.min, to: card.x.max };
  const spots = card.markers.flatMap((marker, m) =>
    drawn.flatMap((d, n) => {
      if (d.trace !== marker.trace) return [];
      const spot = spotOf(marker, d, view);
      return spot ? [{ m, n, spot }] : [];
    }),
  );
  const marks: PlotMark[] = [
    ...spots.map(({ m, n, spot }) => ({ ...spot, axis: drawn[n].axis, color: traces[n].color, label: String(m + 1), kind: 'marker' as const })),
    ...card.notes.map((n) => ({ x: n.x, y: n.y, axis: 'left' as const, color: 'var(--plum)', label: n.text, kind: 'note' as const })),
  ];
  const limits = card.limits.map((l) => {
    const verdicts = drawn.filter((d) => d.axis === 'left').flatMap((d) => held(d, l) ?? []);
    return {
      ...l,
      ok: verdicts.length ? verdicts.every((v) => v.ok) : null,
      worst: verdicts.reduce<(typeof verdicts)[number] | null>((a, b) => (!a || b.margin < a.margin ? b : a), null),
    };
  });
  const { bandwidth } = card;
  const stretches = bandwidth ? drawn.map((d) => bandsOf(d, bandwidth.level, bandwidth.side === 'below' ? -1 : 1)) : [];

  const csv = (): void => {
    const columns = drawn.flatMap((d, n) => [
      { title: `${xLabel}${unitX ? ` (${unitX})` : ''}`, values: Array.from(d.x) },
      { title: `${traces[n].name}${d.unit ? ` (${d.unit})` : ''}`, values: Array.from(d.y) },
    ]);
    const rows = Math.max(0, ...columns.map((c) => c.values.length));
    download(`${stem}.csv`, writeCsv(columns.map((c) => ({ title: c.title, values: Array.from({ length: rows }, (_, i) => c.values[i] ?? ('' as unknown as number)) }))), 'text/csv'); // prettier-ignore
  };
  const onlyS = card.traces.length > 0 && card.traces.every((t) => t.quantity === 's' && (t.form ?? 'db') === (card.traces[0].form ?? 'db'));
  const terms = onlyS && runs[0] ? termsOfS(runs[0].run.meta!) : [];
  const refused = [...new Set(readings.flatMap((r) => r.network?.refused ?? []))];
  const reading = readings[0];
  const references = onlyS && reading?.network ? aboutReferences(reading) : '';
  return (
    <Card
      title={card.title ?? 'Curves'}
      about={[references, reading && !reading.bare && reading.network?.bare ? 'gaps of ports taken out' : '', runs.length === 1 ? runs[0].label : '']
        .filter(Boolean)
        .join(', ')}
      file={stem}
      tools={
        terms.length > 1 && (
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
            renderValue={(v) => (v.length > 3 ? `${v.length} terms` : v.join('  '))}
            inputProps={{ 'aria-label': 'Terms of S' }}
            sx={{ fontSize: 12.5, minWidth: 84 }}
          >
            {terms.map((t) => (
              <MenuItem key={t.key} value={t.key}>
                {t.label}
              </MenuItem>
            ))}
          </Select>
        )
      }
      exports={[{ label: 'Curves (CSV)', act: csv }, ...(onlyS && runs[0] ? TouchstoneExports(runs[0].run) : [])]}
    >
      <div style={{ display: 'flex', flexDirection: 'column', height: '100%' }}>
        {error && (
          <p role="alert" className="bad">
            {error.message}
          </p>
        )}
        <Legend traces={traces} />
        <div style={{ flex: 1, minHeight: 0 }}>
          {loading && !traces.length ? (
            <p className="quiet pad">Reading the curves …</p>
          ) : traces.length ? (
            <Plot
              label={card.title ?? 'Curves'}
              x={x}
              left={leftAxis}
              right={rightAxis}
              traces={traces}
              marks={marks}
              limits={limits}
              bands={stretches.flat()}
              levels={bandwidth ? [bandwidth.level] : []}
              tell={(t, _, y) => told(y, drawn[traces.indexOf(t)]?.unit ?? '')}
              tellX={(v) => told(v, unitX, 6)}
              onPick={(n, at) => change({ markers: [...card.markers, { kind: 'at', trace: drawn[n].trace, x: at, nth: 1 }] })}
              onZoom={(range) => change({ x: { ...card.x, min: range?.min, max: range?.max } })}
              cursor={(px, top, bottom) => <LensCursor x={px} top={top} bottom={bottom} over={over} />}
            />
          ) : (
            <p className="quiet pad">{card.traces.length ? '' : 'No curve is chosen. Set the card up to add some.'}</p>
          )}
        </div>
        {[...faults.map((f) => f.text), ...refused].slice(0, 3).map((t) => (
          <p key={t} className="warn small-line">
            {t}
          </p>
        ))}
        {spots.length > 0 && (
          <div className="readout">
            <table className="figures" aria-label="Markers">
              <tbody>
                {spots.map(({ m, n, spot }) => {
                  const base =
                    card.base === undefined ? undefined : spots.find((s) => s.m === card.base && (s.n === n || drawn[s.n].trace !== drawn[n].trace));
                  const apart = base && base.m !== m;
                  return (
                    <tr key={`${m}-${n}`}>
                      <td>
                        <i className="swatch" style={{ background: traces[n].color }} /> {m + 1}
                        {card.base === m ? ' (from here)' : ''}
                      </td>
                      <td>{traces[n].name}</td>
                      <td className="mono">{told(spot.x, unitX, 6)}</td>
                      <td className="mono">{told(spot.y, drawn[n].unit)}</td>
                      {card.base !== undefined && (
                        <>
                          <td className="mono">{apart ? `Δ ${told(spot.x - base.spot.x, unitX, 5)}` : ''}</td>
                          <td className="mono">
                            {apart && drawn[base.n].unit === drawn[n].unit ? `Δ ${told(spot.y - base.spot.y, drawn[n].unit)}` : ''}
                          </td>
                        </>
                      )}
                    </tr>
                  );
                })}
              </tbody>
            </table>
          </div>
        )}
        {limits.map(
          (l, i) =>
            l.worst && (
              <p key={i} className={`small-line ${l.ok ? 'good' : 'bad'}`} role="status">
                {l.ok ? 'keeps' : 'breaks'} limit {i + 1}: {told(Math.abs(l.worst.margin), drawn[0]?.unit ?? '')} {l.ok ? 'to spare' : 'beyond'} at{' '}
                {told(l.worst.at, unitX, 5)}
              </p>
            ),
        )}
        {bandwidth &&
          drawn.map((d, n) => (
            <p key={n} className="small-line">
              {traces[n].name}: {bandwidth.side} {told(bandwidth.level, d.unit)}{' '}
              {stretches[n].length
                ? stretches[n]
                    .slice(0, 4)
                    .map(
                      (b) =>
                        `${b.openFrom || b.openTo ? 'at least ' : ''}${told(b.to - b.from, unitX)} (${b.openFrom ? '≤ ' : ''}${told(b.from, unitX, 5)} to ${b.openTo ? '≥ ' : ''}${told(b.to, unitX, 5)}${b.from > 0 && over === 'frequency' ? `, ${((200 * (b.to - b.from)) / (b.to + b.from)).toPrecision(3)} %` : ''})`,
                    )
                    .join('; ')
                : 'nowhere'}
            </p>
          ))}
        {card.statistics &&
          drawn.map((d, n) => {
            const s = statistics(d, card.statistics!.from, card.statistics!.to);
            return (
              s && (
                <p key={n} className="small-line">
                  {traces[n].name}: min {told(s.min.y, d.unit)} at {told(s.min.x, unitX, 5)}, max {told(s.max.y, d.unit)} at {told(s.max.x, unitX, 5)}
                  , mean {told(s.mean, d.unit)}, peak to peak {told(s.span, d.unit)}
                </p>
              )
            );
          })}
      </div>
    </Card>
  );
}
