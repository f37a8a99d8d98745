import { accuracies, detailBounds, type Details, placeName, type Problem, type Project, readDetail } from '@jadebell/core/document';
import { durationText as duration } from '@jadebell/core/format';
import { costText } from '@jadebell/core/cost';
import PlayArrow from '@mui/icons-material/PlayArrow';
import { Button } from '@mui/material';
import { useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { useMachine, useRuns } from '../api/hooks.ts';
import { Chip } from '../ledger/Chip.tsx';
import { problemsAt, useModel } from '../project/model.ts';
import { useProject } from '../project/store.ts';
import { RunItem } from './RunItem.tsx';
import { recommended, solverTexts } from './solverChoice.ts';
import { startRun } from './startRun.ts';

type Field = { key: Parameters<typeof readDetail>[0]; label: string; unit: string; otherwise?: string };
const changeField: Field = { key: 'change', label: 'change of S', unit: 'of accuracy certain', otherwise: '0.01' };
const detailFields: Record<Project['solve']['solver'], Field[]> = {
  fdtd: [
    { key: 'cellsPerWavelength', label: 'cells a wavelength', unit: '' },
    { key: 'pmlLayers', label: 'absorbing layers', unit: 'cells', otherwise: '10' },
    { key: 'stopAt', label: 'stop at energy', unit: 'of the peak', otherwise: '1e-5' },
    changeField,
    { key: 'maxSteps', label: 'most steps', unit: '', otherwise: '200 periods' },
  ],
  moment: [{ key: 'segmentsPerWavelength', label: 'segments a wavelength', unit: '' }, changeField],
};
const hintOf = ({ key, otherwise }: Field): string => {
  const { min, max } = detailBounds(key);
  return `${min} to ${max.toLocaleString('en')}${otherwise ? `; ${otherwise} if empty` : ''}`;
};

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
  const advice = recommended(view);
  const errors = view.problems.filter((p) => p.severity === 'error');
  const solve = (label: string, change: Partial<Project['solve']>): void => edit(label, (d) => ({ ...d, solve: { ...d.solve, ...change } }));

  const setDetail = <K extends keyof Details>(key: K, value: Details[K]): void => {
    const { [key]: _, ...rest } = document.solve.details ?? {};
    const next = value === undefined ? rest : { ...rest, [key]: value };
    solve(`detail ${key}`, { details: Object.keys(next).length ? (next as Details) : undefined });
  };
  /** Takes what was typed for a number; says why it does not. */
  const typeDetail = (key: Field['key'], text: string): string | null => {
    const read = readDetail(key, text);
    if ('fault' in read) return read.fault;
    setDetail(key, read.value);
    return null;
  };
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
            <span className="stops" role="group" aria-label="solver">
              {(Object.keys(solverTexts) as Project['solve']['solver'][]).map((name) => (
                <button
                  key={name}
                  type="button"
                  aria-pressed={document.solve.solver === name}
                  onClick={() => solve('solver', { solver: name })}
                  title={solverTexts[name].about}
                >
                  {solverTexts[name].title}
                </button>
              ))}
            </span>
            <span className="quiet">
              {solverTexts[document.solve.solver].about}.{' '}
              {advice && (advice.solver === document.solve.solver ? `Suits this model: ${advice.reason}` : '')}
            </span>
            {advice && advice.solver !== document.solve.solver && (
              <span className="warn">
                {solverTexts[advice.solver].title} would suit this model: {advice.reason}
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
            <input
              className="chip"
              style={{ width: 52 }}
              aria-label="number of frequencies"
              key={document.solve.points}
              defaultValue={document.solve.points}
              inputMode="numeric"
              onBlur={(e) => {
                const points = Math.round(Number(e.target.value));
                if (points >= 2 && points <= 10001) solve('points', { points });
                else e.target.value = String(document.solve.points);
              }}
              onKeyDown={(e) => {
                if (e.key === 'Enter') e.currentTarget.blur();
              }}
            />
            points
          </dd>
          <dt>accuracy</dt>
          <dd>
            <span className="stops" role="group" aria-label="accuracy">
              {accuracies.map((a) => (
                <button key={a} type="button" aria-pressed={document.solve.accuracy === a} onClick={() => solve('accuracy', { accuracy: a })}>
                  {a}
                </button>
              ))}
            </span>
            <span className="quiet">{solverTexts[document.solve.solver].accuracy[document.solve.accuracy]}</span>
          </dd>
          <dt>by hand</dt>
          <dd>
            <button type="button" className="tool" aria-expanded={open} onClick={() => setOpen(!open)}>
              {open ? 'Fold' : 'Show'} details
            </button>
          </dd>
          {open && (
            <>
              {detailFields[document.solve.solver].map((field) => (
                <DetailRow
                  key={field.key}
                  label={field.label}
                  unit={field.unit}
                  hint={hintOf(field)}
                  value={document.solve.details?.[field.key]?.toString() ?? ''}
                  onChange={(text) => typeDetail(field.key, text)}
                />
              ))}
              {document.solve.solver === 'moment' && (
                <>
                  <dt>frequencies</dt>
                  <dd>
                    <label className="row" style={{ gap: 6 }}>
                      <input
                        type="checkbox"
                        checked={document.solve.details?.eachFrequency ?? false}
                        onChange={(e) => setDetail('eachFrequency', e.target.checked || undefined)}
                      />
                      solve each of them
                    </label>
                    <span className="quiet">otherwise few, with a rational function between them whose error is told</span>
                  </dd>
                </>
              )}
              {document.solve.solver === 'fdtd' && (
                <DetailRow
                  label="smallest cell"
                  unit=""
                  hint="e.g. 0.2 mm; from the metal if empty"
                  value={document.solve.details?.smallestCell ?? ''}
                  onChange={(text) => {
                    setDetail('smallestCell', text.trim() || undefined);
                    return null;
                  }}
                />
              )}
            </>
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
            {p.place.part !== 'machine' && p.place.part !== 'materials' && (
              <button type="button" className="tool" onClick={() => show(p)}>
                Show
              </button>
            )}
          </div>
        ))}
        {view.estimate && machine && (
          <p className="cost">
            {costText(view.estimate)}. <b>About {duration(view.estimate.seconds)}</b> on this machine’s {machine.threads} threads
            {document.solve.accuracy === 'certain' ? ' for the first pass; each further one takes two to four times as long' : ''}.
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

interface DetailProps {
  label: string;
  unit: string;
  hint: string;
  value: string;
  /** Takes the text, or tells why it cannot. */
  onChange(text: string): string | null;
}
function DetailRow({ label, unit, hint, value, onChange }: DetailProps) {
  const [fault, setFault] = useState<string | null>(null);
  return (
    <>
      <dt>{label}</dt>
      <dd>
        <input
          className="chip"
          style={{ width: 84 }}
          key={value}
          aria-label={label}
          aria-invalid={!!fault}
          defaultValue={value}
          placeholder="automatic"
          onBlur={(e) => setFault(e.target.value === value ? null : onChange(e.target.value))}
          onKeyDown={(e) => {
            if (e.key === 'Enter') e.currentTarget.blur();
          }}
        />
        {unit} <span className="quiet">{hint}</span>
        {fault && (
          <span role="alert" className="bad">
            {fault}
          </span>
        )}
      </dd>
    </>
  );
}
