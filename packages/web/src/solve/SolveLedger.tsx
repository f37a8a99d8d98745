import { useParams } from 'react-router';
import { useRuns } from '../api/hooks.ts';
import { Checks } from './Checks.tsx';
import { RunItem } from './RunItem.tsx';
import { Settings } from './Settings.tsx';
import { LedgerFrame } from '../ledger/LedgerFrame.ts';

/** Settings, checks with their cost, and the runs. */
export function SolveLedger() {
  const { id = '' } = useParams();
  const runs = useRuns(id).data ?? [];
  return (
    <LedgerFrame className="ledger" aria-label="Ledger">
      <Settings />
      <Checks />
      <section aria-label="Runs">
        <header>
          <h2>Runs</h2>
          <span className="quiet">each keeps the model it solved</span>
        </header>
        {!runs.length && <p className="quiet pad">No run yet.</p>}
        {runs.map((r) => (
          <RunItem key={r.id} run={r} />
        ))}
      </section>
    </LedgerFrame>
  );
}
