import type { CardOf } from '@jadebell/core/document';
import { frequenciesKept } from '@jadebell/core/results';
import { Card } from '../../charts/Card.tsx';
import { nearestRecorded, useFrequency } from '../lens/useFrequency.ts';
import { CurrentCard, FluxCard, LineCard, SignalCard } from '../RecorderCards.tsx';
import { EnergyCard, ModeWavesCard } from '../InsideCards.tsx';
import type { Run } from '../../api/types.ts';
import { type Excitation, useLens } from '../lens/lens.ts';
import { fieldShares } from '../lens/waves.ts';
import { stemOf } from './stem.ts';
import { useCardRuns } from './useCardRuns.ts';

/** A run with what its recorders told for the one excitation that the lens chose; powers of several waves together are not known from those of each. */
function ofExcitation(run: Run, excitation: Excitation | null): Run {
  const shares = fieldShares(run, excitation);
  const other = shares.length === 1 ? run.meta!.others?.find((o) => o.turn === shares[0].column) : undefined;
  if (!other) return run;
  const { fluxes, currents, modeWaves, energies } = other;
  return { ...run, meta: { ...run.meta!, fluxes, currents, modeWaves, energies } };
}

/** What a recorder kept in the form that suits it; '*flux' and its like stand for all recorders of one kind. */
export function RecorderCard({ card }: { card: CardOf<'recorder'> }) {
  const [shown] = useCardRuns();
  const frequency = useFrequency();
  const excitation = useLens((s) => s.excitation);
  if (!shown) return null;
  const run = ofExcitation(shown.run, excitation);
  const meta = run.meta!;
  const stem = stemOf(shown, '');
  const own = { run, stem };
  const { recorder } = card;
  if (recorder === '*flux' && meta.fluxes?.length) return <FluxCard {...own} />;
  if (recorder === '*current' && meta.currents?.length) return <CurrentCard {...own} />;
  if (recorder === '*mode' && meta.modeWaves?.length) return <ModeWavesCard {...own} />;
  if (recorder === '*energy' && meta.energies?.length) return <EnergyCard {...own} />;
  const line = meta.fieldLines?.find((l) => l.name === recorder);
  if (line) return <LineCard {...own} line={line} frequency={nearestRecorded(frequenciesKept(meta, line), frequency)} />;
  const signal = meta.signals?.find((s) => s.name === recorder);
  if (signal) return <SignalCard {...own} name={signal.name} at={signal.at} />;
  return (
    <Card title={card.title ?? recorder.replace('*', '')} about={shown.label} file={stem}>
      <p className="quiet pad">Run {run.number} kept nothing of that kind.</p>
    </Card>
  );
}
