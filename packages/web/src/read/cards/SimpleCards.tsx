import { EvidenceCard as Evidence } from '../EvidenceCard.tsx';
import { PortModesCard } from '../PortModesCard.tsx';
import { CombinedCard } from '../CombinedCard.tsx';
import { Card } from '../../charts/Card.tsx';
import { stemOf } from './stem.ts';
import { useCardRuns } from './useCardRuns.ts';

const lacking = (title: string, why: string) => (
  <Card title={title} file="card">
    <p className="quiet pad">{why}</p>
  </Card>
);

/** Where a result can be held against itself. */
export function EvidenceCard() {
  const [shown] = useCardRuns();
  return shown ? <Evidence run={shown.run} stem={stemOf(shown, '')} /> : null;
}

/** Modes of the guided ports. */
export function ModesCard() {
  const [shown] = useCardRuns();
  if (!shown?.run.meta!.ports.some((p) => p.mode !== undefined)) return lacking('Port modes', 'This run has no guided port.');
  return <PortModesCard run={shown.run} stem={stemOf(shown, '')} />;
}

/** Waves that were recorded together. */
export function WavesCard() {
  const [shown] = useCardRuns();
  if (!shown?.run.meta!.combined) return lacking('Waves together', 'This run combined no waves.');
  return <CombinedCard run={shown.run} stem={stemOf(shown, '')} />;
}
