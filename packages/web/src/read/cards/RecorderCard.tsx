import { fieldShares } from '@jadebell/core/reading';
import { type AnyRecorderKind, recorderKinds, type RecorderTold } from '@jadebell/core/recorders';
import type { ComponentType } from 'react';
import type { Run } from '../../api/types.ts';
import { Card } from '../../charts/Card.tsx';
import { RecordedTable } from '../../recorders/RecordedTable.tsx';
import type { RecorderCardProps } from '../../recorders/cardProps.ts';
import { recorderParts } from '../../recorders/registry.tsx';
import { type Excitation, useLens } from '../../lens/lens.ts';
import { stemOf } from './stem.ts';
import { useCardRuns } from './useCardRuns.ts';
import type { CardOf } from '@jadebell/core/cards';

/** A run with what its recorders told for the one excitation that the lens chose; powers of several waves together are not known from those of each. */
function ofExcitation(run: Run, excitation: Excitation | null): Run {
  const shares = fieldShares(run.meta!, excitation);
  const other = shares.length === 1 ? run.meta!.others?.find((o) => o.turn === shares[0].column) : undefined;
  if (!other) return run;
  const own = (r: RecorderTold): RecorderTold => other.recorded.find((o) => o.kind === r.kind && o.name === r.name) ?? r;
  return { ...run, meta: { ...run.meta!, recorded: run.meta!.recorded.map(own) } };
}

/** What a recorder kept in the form that suits it; '*flux' and its like stand for all recorders of one kind. */
export function RecorderCard({ card }: { card: CardOf<'recorder'> }) {
  const [shown] = useCardRuns();
  const excitation = useLens((s) => s.excitation);
  if (!shown) return null;
  const run = ofExcitation(shown.run, excitation);
  const stem = stemOf(shown, '');
  const { recorder } = card;
  const { recorded } = run.meta!;
  const kind = recorderKinds.find((k) => recorder === `*${k.kind}` && k.table)?.kind as AnyRecorderKind['kind'];
  if (kind && recorded.some((r) => r.kind === kind)) return <RecordedTable run={run} stem={stem} kind={kind} />;
  const told = recorded.find((r) => r.name === recorder && recorderParts[r.kind].card);
  if (told) {
    const Show = recorderParts[told.kind].card!.show as ComponentType<RecorderCardProps>;
    return <Show run={run} stem={stem} told={told} />;
  }
  return (
    <Card title={card.title ?? recorder.replace('*', '')} about={shown.label} file={stem}>
      <p className="quiet pad">Run {run.number} kept nothing of that kind.</p>
    </Card>
  );
}
