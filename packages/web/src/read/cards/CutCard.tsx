import { writeCsv } from '@jadebell/core/formats/csv';
import type { CutCard as CutCardData } from '@jadebell/core/document';
import { formatSI } from '@jadebell/core/expressions/format';
import { cutText } from '@jadebell/core/reading';
import { useContext, useMemo } from 'react';
import { Card } from '../../charts/Card.tsx';
import { PolarCut } from '../../charts/PolarCut.tsx';
import { download } from '../../ui/download.ts';
import { CardContext } from '../../charts/CardContext.ts';
import { Plot } from '../../charts/plot/Plot.tsx';
import type { PlotTrace } from '../../charts/plot/parts.ts';
import { patternFiles } from './exports.ts';
import { stemOf } from './stem.ts';
import { cutPoints, type ReadCut, useCuts } from './useCuts.ts';
import { Choice } from '../../kit/Choice.tsx';
import { Message } from '../../kit/Message.tsx';

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
  const { runs, cuts, error } = useCuts(card);
  const first = cuts?.[0];
  const unit = first ? (card.normalised && first.title.level ? 'dB' : first.title.unit) : '';
  const stem = stemOf(runs[0], card.title ?? `cut-${card.path}-${Math.round(card.at * degrees)}`);
  const csv = (): void =>
    download(
      `${stem}.csv`,
      writeCsv([
        { title: 'angle (deg)', values: Array.from({ length: cutPoints }, (_, i) => (360 * i) / cutPoints) },
        ...(cuts ?? []).map((c) => ({ title: `${c.shown.label} ${c.title.label} (${unit})`, values: c.values })),
      ]),
      'text/csv',
    );
  return (
    <Card
      title={card.title ?? 'Cut'}
      about={
        first
          ? `${first.title.label}${card.normalised ? ', normalised' : ''} (${unit}), ${cutName(card)}${card.frame ? ', local frame' : ''}, ${formatSI(first.source.frequency, 'frequency')}`
          : undefined
      }
      file={stem}
      tools={<PathChoice card={card} wave={!!runs[0]?.run.meta!.wave} />}
      exports={[{ label: 'Cut (CSV)', act: csv }, ...patternFiles(runs[0]?.run)]}
      waiting={!cuts && !error}
    >
      <div style={{ display: 'flex', flexDirection: 'column', height: '100%' }}>
        {error && <Message>{error.message}</Message>}
        <div style={{ flex: 1, minHeight: 0 }}>
          {first ? (
            <CutChart card={card} cuts={cuts} unit={unit} />
          ) : (
            <p className="quiet pad">{cuts ? 'No run that is shown has a far field.' : 'Reading the far field …'}</p>
          )}
        </div>
        {cuts?.map(
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

/** Chooses a principal cut, or that of the plane wave; a path set by hand stands there too. */
function PathChoice({ card, wave }: { card: CutCardData; wave: boolean }) {
  const board = useContext(CardContext)!;
  const chosen =
    quick.find((q) => q.card.path === card.path && Math.abs(q.card.at - card.at) < 1e-9)?.value ?? (card.path === 'wave' ? 'wave' : 'own');
  return (
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
  );
}

/** Levels go round a circle; what is no level, and what is asked so, on straight axes. */
function CutChart({ card, cuts, unit }: { card: CutCardData; cuts: readonly ReadCut[]; unit: string }) {
  const { title } = cuts[0];
  const levels = cuts.filter((c) => c.title.level);
  const top = title.level ? Math.ceil((Math.max(...levels.map((c) => Math.max(...c.values))) + 0.01) / 5) * 5 : 0;
  const straight = useMemo(
    () =>
      cuts.map((c): PlotTrace => {
        // From -180 to 180 degrees: what lies beyond half a turn comes first.
        const y = Float64Array.from({ length: cutPoints + 1 }, (_, i) => c.values[(i + cutPoints / 2) % cutPoints]);
        return { name: c.name, color: c.color, dash: c.dash, x: straightAngles, y, axis: 'left' };
      }),
    [cuts],
  );
  if (!card.cartesian && levels.length === cuts.length)
    return <PolarCut label={`${title.label}, ${cutName(card)}`} cuts={cuts} top={top} span={card.floor} />;
  return (
    <Plot
      label={card.title ?? 'Cut'}
      x={straightX}
      left={{ label: `${title.label} (${unit})`, size: 1, ...(title.level ? { min: top - card.floor, max: top } : {}) }}
      traces={straight}
      tell={(_, __, y) => `${y.toFixed(2)} ${unit}`}
      tellX={(x) => `${x.toFixed(1)}°`}
    />
  );
}

const straightAngles = Float64Array.from({ length: cutPoints + 1 }, (_, i) => -180 + (360 * i) / cutPoints);
const straightX = { label: 'angle (°)', size: 1, min: -180, max: 180, angles: true };
