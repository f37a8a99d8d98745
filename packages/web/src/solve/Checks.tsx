import { PlayArrow } from '../kit/icons.tsx';
import { placeName, type Problem } from '@jadebell/core/document';
import { durationText as duration } from '@jadebell/core/expressions/format';
import { costText } from '@jadebell/core/methods';
import { Button } from '@mui/material';
import { useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { useMachine } from '../api/hooks.ts';
import { Tool } from '../kit/Tool.tsx';
import { useModel } from '../project/model.ts';
import { useProject } from '../project/store.ts';
import { startRun } from './startRun.ts';
import { Message } from '../kit/Message.tsx';

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
  measures: 'explore',
  studies: 'explore',
  searches: 'explore',
  variants: 'explore',
  band: 'solve',
  solve: 'solve',
  machine: 'solve',
};

/** What stands in the way of a run, what it will cost, and the run itself. */
export function Checks() {
  const { id = '' } = useParams();
  const accuracy = useProject((s) => s.document!.solve.accuracy);
  const { pick } = useProject.getState();
  const { view, checked, looking } = useModel();
  const machine = useMachine().data;
  const navigate = useNavigate();
  const [refusal, setRefusal] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const errors = view.problems.filter((p) => p.severity === 'error');
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
    <section aria-label="Checks">
      <header>
        <h2>Checks</h2>
        <span className="quiet" role="status">
          {errors.length
            ? `${errors.length} to fix before a run`
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
              {p.severity === 'error' ? 'To fix' : 'Note'}, {placeName(p.place)}:
            </span>{' '}
            {p.message} {p.fix}
          </span>
          {p.place.part !== 'machine' && p.place.part !== 'materials' && <Tool onClick={() => show(p)}>Show</Tool>}
        </div>
      ))}
      {view.estimate && machine && (
        <p className="cost">
          {costText(view.estimate)}. <b>About {duration(view.estimate.seconds)}</b> on this machine’s {machine.threads} threads
          {accuracy !== 'adaptive'
            ? ''
            : view.estimate.passes
              ? ` for ${view.estimate.passes} passes`
              : ' for the first pass; each further one takes two to four times as long'}
          .
        </p>
      )}
      <div className="row" style={{ padding: '2px 14px 8px' }}>
        <Button variant="contained" startIcon={<PlayArrow />} disabled={errors.length > 0 || busy || !checked} onClick={() => void run()}>
          Run
        </Button>
        {refusal && <Message>{refusal}</Message>}
      </div>
    </section>
  );
}
