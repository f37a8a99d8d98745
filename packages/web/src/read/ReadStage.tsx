import { formatSI } from '@jadebell/core/format';
import type { Pattern } from '@jadebell/core/radiation';
import { channelNames, knowsGaps, readReference } from '@jadebell/core/s';
import { MenuItem, Select } from '@mui/material';
import { useMemo, useState } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';
import { useArray, useRunDocument, useRuns } from '../api/hooks.ts';
import type { Run } from '../api/types.ts';
import { antennaScales, radarScales } from '../charts/patterns.ts';
import { traceStyle } from '../charts/traces.ts';
import { useProject } from '../project/store.ts';
import { useDark } from '../ui/useDark.ts';
import { changesSince } from './changes.ts';
import { CurveCards } from './CurveCards.tsx';
import { EvidenceCard } from './EvidenceCard.tsx';
import { FieldCards } from './FieldCards.tsx';
import { RecorderCards } from './RecorderCards.tsx';
import { FiguresCard, PatternCards, ScatterCard } from './PatternCards.tsx';
import { firstTerms, type Gaps, termsOf, useCurves } from './useCurves.ts';
import { ReferenceField } from './ReferenceField.tsx';
import { PortModesCard } from './PortModesCard.tsx';
import { useRunBodies } from './useRunBodies.ts';

/** The board of a project: linked cards under one lens bar. */
export default function ReadStage() {
  const { id = '' } = useParams();
  const [search, setSearch] = useSearchParams();
  const runs = useRuns(id).data;
  const readable = (runs ?? []).filter((r) => r.meta);
  const run = readable.find((r) => r.id === search.get('run')) ?? readable[0];
  if (!runs) return <p className="quiet pad">Reading the runs …</p>;
  if (!run)
    return (
      <div className="empty">
        <span>There is no result yet.</span>
        <Link className="tool" to={`/project/${id}/solve`} style={{ textDecoration: 'none' }}>
          Go to Solve and run the model
        </Link>
      </div>
    );
  return <Board key={id} runs={readable} run={run} choose={(r) => setSearch({ run: r.id }, { replace: true })} />;
}

function Board({ runs, run, choose }: { runs: Run[]; run: Run; choose(r: Run): void }) {
  const now = useProject((s) => s.document)!;
  const dark = useDark();
  const [others, setOthers] = useState<string[]>([]);
  const [at, setAt] = useState<number | null>(null);
  const [picked, setPicked] = useState<string[] | null>(null);
  const [reference, setReference] = useState('');
  const [gaps, setGaps] = useState<Gaps>('both');
  const solved = useRunDocument(run.id).data;
  const bodies = useRunBodies(run.id, solved);
  const shown = [run, ...runs.filter((r) => r.id !== run.id && others.includes(r.id))];
  const { curves, error } = useCurves(shown, readReference(reference), gaps);
  const meta = run.meta!;
  const f = Math.min(at ?? Math.floor(meta.recordAt.length / 2), meta.recordAt.length - 1);
  const frequency = meta.recordAt[f];
  const terms = termsOf(run);
  const names = channelNames(meta.ports);
  const shownTerms = picked?.filter((l) => terms.some((t) => t.label === l)) ?? firstTerms(run);
  const changes = solved ? changesSince(solved, now) : [];

  const far = useArray(run.id, (meta.farField ?? meta.scattered) ? 'farField' : null);
  const pattern = useMemo((): Pattern | null => {
    if (!far.data) return null;
    const [, nTheta, nPhi] = far.data.shape;
    const size = nTheta * nPhi * 4;
    return { nTheta, nPhi, values: far.data.data.subarray(f * size, (f + 1) * size) as Float64Array };
  }, [far.data, f]);

  return (
    <div style={{ display: 'flex', flexDirection: 'column', height: '100%' }}>
      <div className="lens" role="toolbar" aria-label="Lens bar">
        <label>
          run
          <select className="plain-select" aria-label="Run" value={run.id} onChange={(e) => choose(runs.find((r) => r.id === e.target.value)!)}>
            {runs.map((r) => (
              <option key={r.id} value={r.id}>
                {r.number}, {r.accuracy}
              </option>
            ))}
          </select>
        </label>
        {runs.length > 1 && (
          <span className="row" style={{ gap: 4 }} role="group" aria-label="Runs shown beside it">
            beside it
            {runs
              .filter((r) => r.id !== run.id)
              .slice(0, 10)
              .map((r) => (
                <button
                  key={r.id}
                  type="button"
                  className="tool"
                  aria-pressed={others.includes(r.id)}
                  onClick={() => setOthers(others.includes(r.id) ? others.filter((o) => o !== r.id) : [...others, r.id])}
                >
                  <i className="swatch" style={{ background: traceStyle(r.number, dark).color }} />
                  {r.number}
                </button>
              ))}
          </span>
        )}
        {meta.recordAt.length > 0 && (
          <label>
            frequency
            <input
              type="range"
              aria-label="Frequency"
              aria-valuetext={formatSI(frequency, 'frequency')}
              min={0}
              max={meta.recordAt.length - 1}
              step={1}
              value={f}
              onChange={(e) => setAt(Number(e.target.value))}
            />
            <span className="mono" style={{ minWidth: 70 }}>
              {formatSI(frequency, 'frequency')}
            </span>
          </label>
        )}
        {terms.length > 1 && (
          <label>
            S
            <Select
              multiple
              size="small"
              variant="standard"
              disableUnderline
              value={shownTerms}
              onChange={(e) => setPicked(typeof e.target.value === 'string' ? e.target.value.split(';') : e.target.value)}
              renderValue={(v) => (v.length > 4 ? `${v.length} terms` : v.join('  '))}
              inputProps={{ 'aria-label': 'Terms of S' }}
              sx={{ fontSize: 13, minWidth: 70 }}
            >
              {terms.map((t) => (
                <MenuItem key={t.label} value={t.label}>
                  {t.label}
                  <span className="quiet" style={{ marginLeft: 12 }}>
                    {names[meta.excitations[t.from]]} to {names[t.to]}
                  </span>
                </MenuItem>
              ))}
            </Select>
          </label>
        )}
        {meta.excitations.length > 0 && <ReferenceField run={run} value={reference} onChange={setReference} />}
        {shown.some((r) => knowsGaps(r.meta!)) && (
          <label title="What the gaps of lumped ports add to their lines, as a reference run found it.">
            gaps
            <select className="plain-select" aria-label="Gaps of ports" value={gaps} onChange={(e) => setGaps(e.target.value as Gaps)}>
              <option value="kept">kept</option>
              <option value="out">taken out</option>
              <option value="both">both</option>
            </select>
          </label>
        )}
        <span className="quiet">
          {meta.wave
            ? `lit by ${meta.wave.name}, 1 V/m`
            : meta.recordAt.length > 0 && (meta.farField ?? meta.fieldPlanes.length)
              ? `fields of ${(meta.combined?.map((w) => w.channel) ?? [meta.excitations[0]]).map((c) => names[c]).join(' + ')}, 1 W incident`
              : ''}
        </span>
      </div>
      {changes.length > 0 && (
        <div className="notice" role="status">
          <b>The model has changed since run {run.number}:</b>
          <span className="grow" style={{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }} title={changes.join('\n')}>
            {changes.join('; ')}
          </span>
          <Link className="tool" to={`/project/${run.projectId}/solve`} style={{ textDecoration: 'none' }}>
            Run it anew
          </Link>
        </div>
      )}
      {(error ?? far.error) && (
        <div role="alert" className="notice bad">
          {(error ?? (far.error as Error)).message}
        </div>
      )}
      <div className="board">
        {curves.length > 0 && <CurveCards curves={curves} shown={shownTerms} cursor={frequency} stem={stemOf(now.title, run)} />}
        {meta.farField && pattern && (
          <PatternCards {...{ run, pattern, frequency, bodies }} scales={antennaScales(meta.farField.figures[f])} stem={stemOf(now.title, run)} />
        )}
        {meta.scattered && pattern && (
          <PatternCards {...{ run, pattern, frequency, bodies }} scales={radarScales(meta.scattered.figures[f])} stem={stemOf(now.title, run)} />
        )}
        {meta.scattered && <ScatterCard run={run} at={f} onChoose={setAt} stem={stemOf(now.title, run)} />}
        {meta.farField && <FiguresCard run={run} at={f} onChoose={setAt} stem={stemOf(now.title, run)} />}
        <FieldCards run={run} at={f} bodies={bodies} stem={stemOf(now.title, run)} />
        <RecorderCards run={run} at={f} bodies={bodies} stem={stemOf(now.title, run)} />
        <PortModesCard run={run} stem={stemOf(now.title, run)} />
        <EvidenceCard run={run} stem={stemOf(now.title, run)} />
      </div>
    </div>
  );
}

const stemOf = (title: string, run: Run): string => `${title.toLowerCase().replaceAll(/[^a-z0-9]+/g, '-')}-run${run.number}`;
