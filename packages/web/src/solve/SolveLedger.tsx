import { Link, useParams } from 'react-router';
import { useRuns } from '../api/hooks.ts';
import type { Run } from '../api/types.ts';
import { useProject } from '../project/store.ts';
import { Checks } from './Checks.tsx';
import { RunItem } from './RunItem.tsx';
import { Settings } from './Settings.tsx';
import { LedgerFrame } from '../ledger/LedgerFrame.ts';

/** Settings, checks with their cost, and the runs. */
export function SolveLedger() {
  const { id = '' } = useParams();
  const runs = useRuns(id).data ?? [];
  // Points of studies have pages of their own; here are those under way, and those that failed, with the reason.
  const shown = runs.filter((r) => !r.study || r.state === 'running' || r.state === 'failed');
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
        {shown.map((r) => (
          <RunItem key={r.id} run={r} />
        ))}
        <Elsewhere runs={runs} project={id} />
      </section>
    </LedgerFrame>
  );
}

/** How many runs are points of which study or search. */
function Elsewhere({ runs, project }: { runs: readonly Run[]; project: string }) {
  const searches = useProject((s) => s.document?.searches);
  const counts = new Map<string, number>();
  for (const { study } of runs) if (study) counts.set(study, (counts.get(study) ?? 0) + 1);
  return [...counts].map(([name, count]) => (
    <p key={name} className="quiet" style={{ padding: '2px 14px' }}>
      {count} {count === 1 ? 'point' : 'points'} of{' '}
      <Link
        to={`/project/${project}/explore?${searches?.some((s) => s.name === name) ? 'search' : 'study'}=${name}`}
        style={{ color: 'var(--jade)' }}
      >
        {name}
      </Link>
    </p>
  ));
}
