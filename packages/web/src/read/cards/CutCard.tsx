import { writeCsv } from '@jadebell/core/formats/csv';
import type { CutCard as CutCardData } from '@jadebell/core/document';
import { formatSI } from '@jadebell/core/expressions/format';
import { cutText, frameOfCard, pathOf, patternTitle, readCut } from '@jadebell/core/reading';
import { useContext, useMemo } from 'react';
import { Card } from '../../charts/Card.tsx';
import { PolarCut } from '../../charts/PolarCut.tsx';
import { traceStyle } from '../../charts/traces.ts';
import { download } from '../../ui/download.ts';
import { useDark } from '../../ui/useDark.ts';
import { CardContext } from '../../charts/CardContext.ts';
import { Plot } from '../../charts/plot/Plot.tsx';
import type { PlotTrace } from '../../charts/plot/parts.ts';
import { patternFiles } from './exports.ts';
import { stemOf } from './stem.ts';
import { useFarFields } from './useFarField.ts';
import { useCardRuns } from './useCardRuns.ts';
import { Choice } from '../../kit/Choice.tsx';
import { Message } from '../../kit/Message.tsx';

const points = 720;
const degrees = 180 / Math.PI;

/** What the path of a cut is called. */
function cutName({ path, at, through, tilt }: Pick<CutCardData, 'path' | 'at' | 'through' | 'tilt'>): string {
  const d = (a: number): string => `${Number((a * degrees).toFixed(2))}°`;
  if (path === 'wave') return 'phi of the wave, over theta';
  if (path === 'theta') return `theta ${d(at)}, over phi`;
  if (path === 'great') return `great circle through theta ${d(at)}, phi ${d(through)}, leaving at ${d(tilt)}`;
  return `phi ${d(at)}, over theta`;
}

const quick = [
  { value: 'phi 0', label: 'phi 0°', card: { path: 'phi', at: 0 } },
  { value: 'phi 90', label: 'phi 90°', card: { path: 'phi', at: Math.PI / 2 } },
  { value: 'theta 90', label: 'theta 90°', card: { path: 'theta', at: Math.PI / 2 } },
] as const;

/** A cut through the far field of the shown runs, polar or on straight axes, with its figures. */
export function CutCard({ card }: { card: CutCardData }) {
  const board = useContext(CardContext)!;
  const dark = useDark();
  const runs = useCardRuns();
  const { fars, error } = useFarFields(useMemo(() => runs.map((r) => r.run), [runs]));
  const cuts = useMemo(() => {
    const frame = frameOfCard(card.frame);
    const parts = [card.part, ...(card.also && card.also !== card.part ? [card.also] : [])];
    return (fars ?? []).flatMap(({ run, source, sampler }) => {
      const shown = runs.find((r) => r.run.id === run.id);
      if (!shown) return [];
      const meta = run.meta!;
      return parts.map((part, k) => {
        const reading = { quantity: card.quantity, part, reference: card.reference };
        const { values, figures } = readCut(source, sampler, pathOf(card, meta), frame, reading, points);
        const title = patternTitle(source, reading);
        const shift = card.normalised && figures ? figures.peak : 0;
        const style = traceStyle(runs.length > 1 ? shown.tint : k + 1, dark);
        return {
          shown,
          source,
          title,
          part,
          figures,
          values: shift ? values.map((v) => v - shift) : values,
          name: [runs.length > 1 ? shown.label : '', parts.length > 1 || runs.length === 1 ? title.label : ''].filter(Boolean).join(', '),
          color: style.color,
          dash: runs.length > 1 && k ? '5 3' : style.dash,
        };
      });
    });
  }, [fars, card, runs, dark]);
  const first = cuts[0];
  const unit = first ? (card.normalised && first.title.level ? 'dB' : first.title.unit) : '';
  const top = first?.title.level ? Math.ceil((Math.max(...cuts.filter((c) => c.title.level).map((c) => Math.max(...c.values))) + 0.01) / 5) * 5 : 0;
  const polar = !card.cartesian && cuts.length > 0 && cuts.every((c) => c.title.level);
  const stem = stemOf(runs[0], card.title ?? `cut-${card.path}-${Math.round(card.at * degrees)}`);
  const angles = useMemo(() => Float64Array.from({ length: points + 1 }, (_, i) => -180 + (360 * i) / points), []);
  const straight = useMemo(
    () =>
      cuts.map((c): PlotTrace => {
        // From -180 to 180 degrees: what lies beyond half a turn comes first.
        const y = Float64Array.from({ length: points + 1 }, (_, i) => c.values[(i + points / 2) % points]);
        return { name: c.name, color: c.color, dash: c.dash, x: angles, y, axis: 'left' };
      }),
    [cuts, angles],
  );
  const csv = (): void =>
    download(
      `${stem}.csv`,
      writeCsv([
        { title: 'angle (deg)', values: Array.from({ length: points }, (_, i) => (360 * i) / points) },
        ...cuts.map((c) => ({ title: `${c.shown.label} ${c.title.label} (${unit})`, values: c.values })),
      ]),
      'text/csv',
    );
  const chosen =
    quick.find((q) => q.card.path === card.path && Math.abs(q.card.at - card.at) < 1e-9)?.value ?? (card.path === 'wave' ? 'wave' : 'own');
  const wave = !!runs[0]?.run.meta!.wave;
  return (
    <Card
      title={card.title ?? 'Cut'}
      about={
        first
          ? `${first.title.label}${card.normalised ? ', normalised' : ''} (${unit}), ${cutName(card)}${card.frame ? ', local frame' : ''}, ${formatSI(first.source.frequency, 'frequency')}`
          : undefined
      }
      file={stem}
      tools={
        <Choice
          label="Cut"
          value={chosen}
          options={[
            ...(wave ? [{ value: 'wave', label: 'of the wave' }] : []),
            ...quick.map(({ value, label }) => ({ value, label })),
            ...(chosen === 'own' ? [{ value: 'own', label: cutName(card).split(',')[0] }] : []),
          ]}
          onChange={(v) => {
            const next = v === 'wave' ? { path: 'wave' as const } : quick.find((q) => q.value === v)?.card;
            if (next) board.change(next as Partial<CutCardData>);
          }}
        />
      }
      exports={[{ label: 'Cut (CSV)', act: csv }, ...patternFiles(runs[0]?.run)]}
      waiting={!fars && !error}
    >
      <div style={{ display: 'flex', flexDirection: 'column', height: '100%' }}>
        {error && <Message>{error.message}</Message>}
        <div style={{ flex: 1, minHeight: 0 }}>
          {!cuts.length ? (
            <p className="quiet pad">{fars ? 'No run that is shown has a far field.' : 'Reading the far field …'}</p>
          ) : polar ? (
            <PolarCut
              label={`${first.title.label}, ${cutName(card)}`}
              cuts={cuts.map((c) => ({ name: c.name, color: c.color, dash: c.dash, values: c.values }))}
              top={top}
              span={card.floor}
            />
          ) : (
            <Plot
              label={card.title ?? 'Cut'}
              x={straightX}
              left={{ label: `${first.title.label} (${unit})`, size: 1, ...(first.title.level ? { min: top - card.floor, max: top } : {}) }}
              traces={straight}
              tell={(_, __, y) => `${y.toFixed(2)} ${unit}`}
              tellX={(x) => `${x.toFixed(1)}°`}
            />
          )}
        </div>
        {cuts.map(
          (c, i) =>
            c.figures && (
              <p key={i} className="small-line mono">
                {cuts.length > 1 ? `${c.name}: ` : ''}
                {cutText(c.figures, c.title.unit, c.part)}
              </p>
            ),
        )}
      </div>
    </Card>
  );
}
const straightX = { label: 'angle (°)', size: 1, min: -180, max: 180, angles: true };
