import type { CardOf } from '@jadebell/core/document';
import { Card } from '../../charts/Card.tsx';
import { nearestRecorded, useFrequency } from '../lens/useFrequency.ts';
import { CurrentCard, FluxCard, LineCard, SignalCard } from '../RecorderCards.tsx';
import { EnergyCard, ModeWavesCard } from '../InsideCards.tsx';
import { stemOf } from './stem.ts';
import { useCardRuns } from './useCardRuns.ts';

/** What a recorder kept in the form that suits it; '*flux' and its like stand for all recorders of one kind. */
export function RecorderCard({ card }: { card: CardOf<'recorder'> }) {
  const [shown] = useCardRuns();
  const frequency = useFrequency();
  if (!shown) return null;
  const { run } = shown;
  const meta = run.meta!;
  const stem = stemOf(shown, '');
  const at = nearestRecorded(meta, frequency);
  const own = { run, stem };
  const { recorder } = card;
  if (recorder === '*flux' && meta.fluxes?.length) return <FluxCard {...own} />;
  if (recorder === '*current' && meta.currents?.length) return <CurrentCard {...own} />;
  if (recorder === '*mode' && meta.modeWaves?.length) return <ModeWavesCard {...own} />;
  if (recorder === '*energy' && meta.energies?.length) return <EnergyCard {...own} />;
  const line = meta.fieldLines?.find((l) => l.name === recorder);
  if (line) return <LineCard {...own} line={line} frequency={at} />;
  const signal = meta.signals?.find((s) => s.name === recorder);
  if (signal) return <SignalCard {...own} name={signal.name} at={signal.at} />;
  return (
    <Card title={card.title ?? recorder.replace('*', '')} about={shown.label} file={stem}>
      <p className="quiet pad">Run {run.number} kept nothing of that kind.</p>
    </Card>
  );
}
