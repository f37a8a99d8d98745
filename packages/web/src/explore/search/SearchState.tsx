import { aims } from '@jadebell/core/document';
import { endings } from '@jadebell/core/exploring';
import { durationText, formatSI } from '@jadebell/core/expressions/format';
import { valueText } from '@jadebell/core/reading';
import { Button, LinearProgress } from '@mui/material';
import { useState } from 'react';
import { Link } from 'react-router';
import { sendJson } from '../../api/client.ts';
import { mutate } from '../../api/mutate.ts';
import { Message } from '../../kit/Message.tsx';
import { useModel } from '../../project/model.ts';
import { useProject } from '../../project/store.ts';
import { keepAndShow, takeValues } from '../study/edits.ts';
import { readText } from '../study/figures.ts';
import type { SearchData } from './useSearchData.ts';

/** Digits to which values are taken over. */
const digits = 9;

/** How far a search is, its best so far, and what can be done with it. */
export function SearchState({ data, most }: { data: SearchData; most: number }) {
  const [fault, setFault] = useState<string | null>(null);
  const { view, problems, path, project } = data;
  const errors = problems.filter((p) => p.severity === 'error');
  const seconds = useModel((s) => s.view.estimate?.seconds);
  const going = !!view?.going || data.open.length > 0;
  const act = (what: 'start' | 'stop'): void => {
    setFault(null);
    useProject
      .getState()
      .saveNow()
      .then(() => sendJson('POST', `${path}/${what}`))
      .then(() => Promise.all([mutate(`/projects/${project}/runs`), mutate((key) => Array.isArray(key) && key[0] === path)]))
      .catch((error: Error) => setFault(error.message));
  };
  const solved = view?.solved ?? 0;
  return (
    <>
      <section className="state" aria-label="State of the search">
        <b>
          {solved} of at most {most} points
        </b>
        <span className="quiet">
          {view?.ended
            ? `over, as ${endings[view.ended]}`
            : solved || !seconds || errors.length
              ? ''
              : `about ${durationText(seconds)} each as the project stands`}
        </span>
        <span className="grow" />
        {going && <LinearProgress variant="determinate" aria-label="Progress of the search" value={Math.min(100, (100 * solved) / most)} />}
        {going ? (
          <Button color="error" onClick={() => act('stop')}>
            Stop and keep
          </Button>
        ) : (
          !view?.ended && (
            <Button variant="contained" disabled={!data.stored || errors.length > 0} onClick={() => act('start')}>
              {solved ? 'Go on' : 'Search'}
            </Button>
          )
        )}
      </section>
      <Best data={data} />
      {problems.map((p) => (
        <Message key={p.code + p.message} tone={p.severity === 'error' ? 'bad' : 'warn'}>
          {p.message} {p.fix}
        </Message>
      ))}
      {(fault ?? data.fault) && <Message>{fault ?? data.fault}</Message>}
    </>
  );
}

/** The best point so far against the goals. */
function Best({ data }: { data: SearchData }) {
  const { view } = data;
  const best = view && view.best !== null ? view.tried[view.best] : undefined;
  if (!view || !best) return null;
  const values = Object.fromEntries(view.bounded.map((b) => [b.parameter, formatSI(best.values[b.parameter], b.measure, digits)]));
  return (
    <section className="state" aria-label="Best so far">
      <b>Best so far</b>
      <span className="mono">{view.bounded.map((b) => `${b.parameter} ${formatSI(best.values[b.parameter], b.measure)}`).join(', ')}</span>
      {view.sought.map((g, n) => (
        <span key={n} className={best.met[n] ? 'good' : 'warn'}>
          {g.measure} {readText(best.reads.find((r) => r.name === g.measure))}
          <span className="quiet">
            {' '}
            ({aims[g.aim]} {valueText(g.value, g.unit)}: {best.met[n] ? 'met' : 'missed'})
          </span>
        </span>
      ))}
      <span className="grow" />
      {best.run?.state === 'done' && (
        <Button component={Link} to={`/project/${best.run.projectId}/read?run=${best.run.id}`}>
          Read run {best.run.number}
        </Button>
      )}
      <Button onClick={() => takeValues(values)}>Take its values over</Button>
      <Button onClick={() => keepAndShow(values)}>Keep as variant</Button>
    </section>
  );
}
