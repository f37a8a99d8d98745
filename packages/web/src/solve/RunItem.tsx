import { durationText as duration } from '@jadebell/core/expressions/format';
import { cautionsOf } from '@jadebell/core/reading';
import { Button } from '@mui/material';
import { useState } from 'react';
import { Link } from 'react-router';
import { mutate } from '../api/mutate.ts';
import { sendJson } from '../api/client.ts';
import type { Run } from '../api/types.ts';
import { Lines } from '../charts/Lines.tsx';
import { Message } from '../kit/Message.tsx';
import { runName } from '../ui/runName.ts';

const words: Record<Run['state'], string> = {
  queued: 'waits in the queue',
  running: 'under way',
  done: 'done',
  stopped: 'stopped',
  failed: 'failed',
  interrupted: 'interrupted when the server ended',
};

/** One run: its state, live progress and S11 while under way, what can be done with it. */
export function RunItem({ run }: { run: Run }) {
  const [fault, setFault] = useState<string | null>(null);
  const act = (method: 'POST' | 'DELETE', path: string): void => {
    sendJson(method, path)
      .then(() => mutate(`/projects/${run.projectId}/runs`))
      .catch((error: Error) => setFault(error.message));
  };
  const p = run.progress;
  const e = run.meta?.evidence;
  const active = run.state === 'running' || run.state === 'queued';
  return (
    <div className="run-row" aria-label={`Run ${run.number}`}>
      <div className="row">
        <b>
          {run.starred ? '★ ' : ''}Run {runName(run)}
        </b>
        <span className={run.state === 'failed' ? 'bad' : 'quiet'}>
          {words[run.state]}
          {run.state === 'running' && p
            ? `, ${Math.round(100 * p.fraction)} %${p.secondsLeft === null ? '' : `, about ${duration(p.secondsLeft)} left`}`
            : ''}
          {e && !active ? `, ${run.accuracy}, ${duration(e.seconds)}` : ''}
        </span>
        <span className="grow" />
        {active && (
          <Button color="error" onClick={() => act('POST', `/runs/${run.id}/stop`)}>
            {run.state === 'running' ? 'Stop and keep' : 'Take off the queue'}
          </Button>
        )}
        {run.meta && (
          <Button component={Link} to={`/project/${run.projectId}/read?run=${run.id}`}>
            Read
          </Button>
        )}
        {run.kept > 0 && (
          <Button onClick={() => act('POST', `/runs/${run.id}/resume`)} title={`${run.kept} of its excitations are done and kept`}>
            Go on
          </Button>
        )}
        {!active && !run.meta && <Button onClick={() => act('POST', `/runs/${run.id}/again`)}>Run again</Button>}
        {!active && (
          <Button color="inherit" onClick={() => act('DELETE', `/runs/${run.id}`)} aria-label={`Remove run ${run.number}`}>
            Remove
          </Button>
        )}
      </div>
      {run.state === 'running' && <UnderWay run={run} />}
      {run.meta &&
        cautionsOf(run.meta).map((caution) => (
          <Message key={caution} tone="warn" role="note">
            {caution}
          </Message>
        ))}
      {e && e.ended === 'stopped' && (
        <Message tone="warn" role="note">
          Stopped by hand: the results are until then.
        </Message>
      )}
      {run.problems.map((q) => (
        <Message key={q.code}>
          {q.message} {q.fix}
        </Message>
      ))}
      {fault && <Message>{fault}</Message>}
    </div>
  );
}

/** How far a run is, what it does, and the reflection so far. */
function UnderWay({ run: { number, progress: p } }: { run: Run }) {
  const percent = 100 * (p?.fraction ?? 0);
  return (
    <>
      <div
        className="progress-line"
        role="progressbar"
        aria-valuenow={Math.round(percent)}
        aria-valuemin={0}
        aria-valuemax={100}
        aria-label={`Progress of run ${number}`}
      >
        <div style={{ width: `${percent}%` }} />
      </div>
      {p && <span className="quiet">{stepText(p)}</span>}
      {p?.s && (
        <div style={{ height: 170 }}>
          <Lines
            x={{ label: 'frequency', unit: 'frequency', values: p.s.frequencies }}
            y={{ label: 'reflection so far (dB)' }}
            traces={[
              {
                name: 'reflection',
                color: 'var(--jade)',
                values: p.s.re.map((re, i) => Math.max(-60, Math.min(20, 20 * Math.log10(Math.hypot(re, p.s!.im[i]))))),
              },
            ]}
          />
        </div>
      )}
    </>
  );
}

/** Pass, excitation and step that are under way, in words. */
function stepText(p: NonNullable<Run['progress']>): string {
  const pass = p.pass ? `pass ${p.pass}${typeof p.change !== 'number' ? '' : `, the last changed S by ${p.change.toPrecision(2)}`}, ` : '';
  const turn = p.turns > 1 ? `excitation ${p.turn + 1} of ${p.turns}, ` : '';
  if (p.energy === undefined) return `${pass}${turn}frequency ${p.step} of about ${p.steps}`;
  const energy = p.energy >= 0.999 ? 'at its peak' : `${(10 * Math.log10(p.energy)).toFixed(0)} dB`;
  return `${pass}${turn}step ${p.step.toLocaleString('en')}, field energy ${energy}`;
}
