import { placeName, type Problem, type Project } from '@jadebell/core/document';
import { accuracies, costText, methodOf, methods, suitedTo } from '@jadebell/core/methods';
import { durationText as duration } from '@jadebell/core/expressions/format';
import PlayArrow from '@mui/icons-material/PlayArrow';
import { Button } from '@mui/material';
import { useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { useMachine, useRuns } from '../api/hooks.ts';
import { Chip } from '../ledger/Chip.tsx';
import { problemsAt, useModel } from '../project/model.ts';
import { useProject } from '../project/store.ts';
import { RunItem } from './RunItem.tsx';
import { DetailRows } from './DetailRows.tsx';
import { startRun } from './startRun.ts';
import { Tool } from '../kit/Tool.tsx';
import { TypedField } from '../kit/Field.tsx';
import { Stops } from '../kit/Stops.tsx';
import { plainOptions } from '../kit/Choice.tsx';

/** Where each part of a project is edited. */
const stageOf: Record<Problem['place']['part'], string> = {
  file: 'shape',
  parameters: 'shape',
  lines: 'shape',
  materials: 'shape',
  ports: 'feed',
  boundaries: 'feed',
  recorders: 'feed',
  sections: 'feed',
  band: 'solve',
  solve: 'solve',
  machine: 'solve',
};

/** Band, accuracy, checks, cost, and the runs. */
export function SolveLedger() {
  const { id = '' } = useParams();
  const document = useProject((s) => s.document)!;
  const { edit, pick } = useProject.getState();
  const { view, checked, looking } = useModel();
  const runs = useRuns(id).data ?? [];
  const machine = useMachine().data;
  const navigate = useNavigate();
  const [refusal, setRefusal] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const [open, setOpen] = useState(!!document.solve.details);
  const method = methodOf(document.solve.solver);
  const advice = suitedTo(view.bodies);
  const errors = view.problems.filter((p) => p.severity === 'error');
  const solve = (label: string, change: Partial<Project['solve']>): void => edit(label, (d) => ({ ...d, solve: { ...d.solve, ...change } }));

  const show = (p: Problem): void => {
    void navigate(`/project/${id}/${stageOf[p.place.part]}`);
    if (p.place.name) pick(p.place.name);
  };
  const run = async (): Promise<void> => {
    setBusy(true);
    setRefusal(await startRun(id));
    setBusy(false);
  };

  return (
    <div className="ledger" aria-label="Ledger">
      <section aria-label="Settings">
        <header>
          <h2>Settings</h2>
        </header>
        <dl className="settings">
          <dt>solver</dt>
          <dd>
            <Stops
              label="solver"
              value={document.solve.solver}
              options={methods.map(({ name, title, about }) => ({ value: name, label: title, about }))}
              onChange={(solver) => solve('solver', { solver })}
            />
            <span className="quiet">
              {method.about}. {advice && (advice.solver === document.solve.solver ? `Suits this model: ${advice.reason}` : '')}
            </span>
            {advice && advice.solver !== document.solve.solver && (
              <span className="warn">
                {methodOf(advice.solver).title} would suit this model: {advice.reason}
              </span>
            )}
          </dd>
          <dt>band</dt>
          <dd>
            <Chip
              label="lowest frequency"
              quantity="frequency"
              value={document.solve.from}
              problems={problemsAt(view.problems, 'band', undefined, 'from')}
              onChange={(from) => solve('band', { from })}
            />
            to
            <Chip
              label="highest frequency"
              quantity="frequency"
              value={document.solve.to}
              problems={problemsAt(view.problems, 'band', undefined, 'to')}
              onChange={(to) => solve('band', { to })}
            />
            in
            <TypedField
              width={52}
              label="number of frequencies"
              value={String(document.solve.points)}
              check={(t) => (Number.isInteger(Number(t)) && Number(t) >= 2 && Number(t) <= 10001 ? null : '2 to 10001')}
              onChange={(t) => solve('points', { points: Number(t) })}
            />
            points
          </dd>
          <dt>accuracy</dt>
          <dd>
            <Stops
              label="accuracy"
              value={document.solve.accuracy}
              options={plainOptions(accuracies)}
              onChange={(accuracy) => solve('accuracy', { accuracy })}
            />
            <span className="quiet">{method.accuracy[document.solve.accuracy]}</span>
          </dd>
          <dt>by hand</dt>
          <dd>
            <Tool aria-expanded={open} onClick={() => setOpen(!open)}>
              {open ? 'Fold' : 'Show'} details
            </Tool>
          </dd>
          {open && (
            <DetailRows details={method.details} given={document.solve.details} onChange={(details, key) => solve(`detail ${key}`, { details })} />
          )}
        </dl>
      </section>
      <section aria-label="Checks">
        <header>
          <h2>Checks</h2>
          <span className="quiet" role="status">
            {errors.length
              ? `${errors.length} to mend before a run`
              : !checked
                ? 'looking'
                : looking
                  ? 'looking at the ports on the grid'
                  : 'nothing stands in the way'}
          </span>
        </header>
        {view.problems.map((p, i) => (
          <div key={i} className="check">
            <span className="grow">
              <span className={p.severity === 'error' ? 'bad' : 'warn'}>
                {p.severity === 'error' ? 'To mend' : 'Note'}, {placeName(p.place)}:
              </span>{' '}
              {p.message} {p.fix}
            </span>
            {p.place.part !== 'machine' && p.place.part !== 'materials' && <Tool onClick={() => show(p)}>Show</Tool>}
          </div>
        ))}
        {view.estimate && machine && (
          <p className="cost">
            {costText(view.estimate)}. <b>About {duration(view.estimate.seconds)}</b> on this machine’s {machine.threads} threads
            {document.solve.accuracy === 'adaptive' ? ' for the first pass; each further one takes two to four times as long' : ''}.
          </p>
        )}
        <div className="row" style={{ padding: '2px 14px 8px' }}>
          <Button variant="contained" startIcon={<PlayArrow />} disabled={errors.length > 0 || busy || !checked} onClick={() => void run()}>
            Run
          </Button>
          {refusal && (
            <span role="alert" className="bad">
              {refusal}
            </span>
          )}
        </div>
      </section>
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
    </div>
  );
}
