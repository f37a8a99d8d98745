import { pointText, studyText } from '@jadebell/core/exploring';
import { durationText } from '@jadebell/core/expressions/format';
import { Button, LinearProgress } from '@mui/material';
import { useState } from 'react';
import { sendJson } from '../../api/client.ts';
import { studyPath, useStudyCost } from '../../api/hooks.ts';
import { mutate } from '../../api/mutate.ts';
import { Message } from '../../kit/Message.tsx';
import { useProject } from '../../project/store.ts';
import type { StudyData } from './useStudyData.ts';

/** What a study comes to and costs, how far it is, and what can be done with it. */
export function StudyState({ data }: { data: StudyData }) {
  const [fault, setFault] = useState<string | null>(null);
  const { project, study, rows, moved, open, count, problems } = data;
  const different = new Map(rows.map((r) => [r.digest, r]));
  const done = [...different.values()].filter((r) => r.run?.state === 'done').length;
  const failed = [...different.values()].filter((r) => r.run?.state === 'failed');
  const left = different.size - done;
  const errors = problems.filter((p) => p.severity === 'error');
  const good = data.stored && !errors.length && rows.length > 0;
  // Only what makes it another study makes it another cost.
  const cost = useStudyCost(project, study.name, good ? rows.map((r) => r.digest.slice(0, 16)).join('') : '').data;
  const act = (what: 'runs' | 'stop'): void => {
    setFault(null);
    useProject
      .getState()
      .saveNow()
      .then(() => sendJson('POST', `${studyPath(project, study.name)}/${what}`))
      .then(() => mutate(`/projects/${project}/runs`))
      .catch((error: Error) => setFault(error.message));
  };
  const running = open.find((r) => r.state === 'running');
  return (
    <>
      <section className="state" aria-label="State of the study">
        <span>
          <b>
            {count.toLocaleString('en')} {count === 1 ? 'point' : 'points'}
          </b>
          {moved.length > 0 && !errors.length && `: ${studyText(moved)}`}
        </span>
        {good && <span className="quiet">{costWords(data, cost, done)}</span>}
        <span className="grow" />
        {open.length > 0 && (
          <LinearProgress
            variant="determinate"
            aria-label="Progress of the study"
            value={(100 * (done + (running?.progress?.fraction ?? 0))) / Math.max(1, different.size)}
          />
        )}
        {failed.length > 0 && <span className="bad">{failed.length} failed</span>}
        {open.length > 0 ? (
          <Button color="error" onClick={() => act('stop')}>
            Stop and keep
          </Button>
        ) : (
          left > 0 &&
          !errors.length && (
            <Button variant="contained" disabled={!good} onClick={() => act('runs')}>
              {done ? `Solve ${left} more` : `Solve ${left === 1 ? 'it' : `all ${left}`}`}
            </Button>
          )
        )}
      </section>
      {problems.map((p) => (
        <Message key={p.code + p.message} tone={p.severity === 'error' ? 'bad' : 'warn'}>
          {p.message} {p.fix}
        </Message>
      ))}
      {(cost?.faults ?? []).slice(0, 3).map((f) =>
        rows[f.at] ? (
          <Message key={f.at} tone="warn">
            {pointText(rows[f.at].values, moved)} cannot be solved: {f.fault}
          </Message>
        ) : null,
      )}
      {(fault ?? data.fault) && <Message>{fault ?? data.fault}</Message>}
    </>
  );
}

/** Seconds that the points which are left take, in words: by those of it that are done, or by estimates. */
function costWords({ rows, moved }: StudyData, cost: ReturnType<typeof useStudyCost>['data'], done: number): string {
  const all = new Set(rows.map((r) => r.digest)).size;
  if (done === all) return 'all solved';
  const part = done ? `${done} solved, ` : '';
  if (!cost) return `${part}reckoning what the rest costs …`;
  if (cost.seconds === null || !cost.dearest || !rows[cost.dearest.at]) return `${part}none of those that are left can be solved`;
  const rest = (cost.seconds * (all - done)) / Math.max(1, rows.length);
  const dearest = `${pointText(rows[cost.dearest.at].values, moved)} alone ${durationText(cost.dearest.seconds)}`;
  return `${part}about ${durationText(rest)}${done ? ' for the rest' : ' in all'}; ${dearest}`;
}
