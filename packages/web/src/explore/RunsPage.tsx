import { writeCsv } from '@jadebell/core/formats/csv';
import { formatSI } from '@jadebell/core/expressions/format';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { getJson, sendJson } from '../api/client.ts';
import { useRuns } from '../api/hooks.ts';
import { mutate } from '../api/mutate.ts';
import { useProject } from '../project/store.ts';
import { projectSchema, withModelOf } from '@jadebell/core/document';
import type { Run } from '../api/types.ts';
import { Card } from '../charts/Card.tsx';
import { Lines, type Trace } from '../charts/Lines.tsx';
import { traceStyle } from '../charts/traces.ts';
import { useLensFreeCurves, type RunCurve } from './useLensFreeCurves.ts';
import { download } from '../ui/download.ts';
import { useDark } from '../ui/useDark.ts';
import { sizeOf } from '@jadebell/core/methods';
import { TypedField } from '../kit/Field.tsx';
import { IconTool } from '../kit/IconTool.tsx';
import { Star, StarOutline } from '../kit/icons.tsx';
import { Tool } from '../kit/Tool.tsx';
import { runName } from '../ui/runName.ts';
import { type Column, DataTable } from '../kit/DataTable.tsx';
import { Button } from '@mui/material';
import { Tick } from '../kit/Tick.tsx';
import { Message } from '../kit/Message.tsx';
import { RunsFrame } from './ExploreFrame.ts';

/** Names of parameters whose value differs among runs, or that not all runs have. */
function differing(runs: Run[]): string[] {
  const names = [...new Set(runs.flatMap((r) => r.parameters.map((g) => g.name)))];
  return names.filter((name) => new Set(runs.map((r) => r.parameters.find((g) => g.name === name)?.si ?? NaN)).size > 1);
}

const valueOf = (run: Run, name: string): string => {
  const g = run.parameters.find((o) => o.name === name);
  return g && g.si !== null ? formatSI(g.si, g.measure, 5) : 'none';
};

/** Which run it is, with its colour, and whether its curve is shown. */
const runColumn = (hidden: readonly string[], setHidden: (next: string[]) => void, dark: boolean): Column<Run> => ({
  title: 'run',
  value: (r) => r.number,
  cell: (r) => (
    <span className="row" style={{ gap: 6 }}>
      <Tick
        silent
        label={`Show run ${r.number}`}
        value={!hidden.includes(r.id)}
        onChange={() => setHidden(hidden.includes(r.id) ? hidden.filter((h) => h !== r.id) : [...hidden, r.id])}
      />
      <i className="swatch" style={{ background: traceStyle(r.number, dark).color, margin: 0 }} />
      {r.number}
    </span>
  ),
});

const parameterColumns = (names: readonly string[], varied: readonly string[]): Column<Run>[] =>
  names.map((n) => ({
    title: n,
    style: varied.includes(n) ? { color: 'var(--plum)' } : undefined,
    value: (r) => r.parameters.find((p) => p.name === n)?.si,
    mono: true,
    cell: (r) => valueOf(r, n),
  }));

/** Says something of a run that it has not solved. */
const tell = (run: Run, told: Partial<Pick<Run, 'name' | 'note' | 'starred'>>): Promise<unknown> =>
  sendJson('PUT', `/runs/${run.id}/told`, told).then(() => mutate(`/projects/${run.projectId}/runs`));

/** Star, name and note of a run. */
const toldColumns = (failed: (message: string) => void): Column<Run>[] => {
  const set = (run: Run, told: Parameters<typeof tell>[1]): void =>
    void tell(run, told).catch((e: Error) => failed(`Run ${run.number}: ${e.message}`));
  const field = (key: 'name' | 'note', width: number, most: number): Column<Run> => ({
    title: key,
    value: (r) => r[key],
    cell: (r) => (
      <TypedField
        label={`${key} of run ${r.number}`}
        width={width}
        value={r[key]}
        placeholder={key}
        check={(t) => (t.trim().length <= most ? null : `at most ${most} characters`)}
        onChange={(t) => set(r, { [key]: t.trim() })}
      />
    ),
  });
  return [
    {
      title: '★',
      value: (r) => Number(r.starred),
      cell: (r) => (
        <IconTool
          label={r.starred ? `Take the star from run ${r.number}` : `Star run ${r.number}`}
          aria-pressed={r.starred}
          icon={r.starred ? <Star /> : <StarOutline />}
          onClick={() => set(r, { starred: !r.starred })}
        />
      ),
    },
    field('name', 110, 60),
    field('note', 130, 500),
  ];
};

/** Where a curve is lowest. */
function lowest(c: RunCurve | undefined): { db: number; frequency: number } | null {
  if (!c) return null;
  const i = c.db.indexOf(Math.min(...c.db));
  return { db: c.db[i], frequency: c.frequency[i] };
}

/** Largest realised gain in dBi of all patterns of a run. */
const gain = (r: Run): number | null => {
  const figures = r.meta!.farField?.figures ?? [];
  return figures.length ? 10 * Math.log10(Math.max(...figures.map((f) => f.realisedGain))) : null;
};

/** Takes the model that a run has solved back into the project. */
async function takeBack(run: Run): Promise<void> {
  const solved = await getJson(`/runs/${run.id}/document`, projectSchema);
  useProject.getState().edit(`model of run ${run.number}`, (d) => withModelOf(d, solved));
}

const backColumn = (failed: (message: string) => void): Column<Run> => ({
  title: '',
  cell: (r) => (
    <Tool
      hint="The project becomes what this run has solved; Undo brings back what it is now"
      onClick={() => void takeBack(r).catch((e: Error) => failed(`Run ${r.number}: ${e.message}`))}
    >
      Take its model
    </Tool>
  ),
});

const figureColumns = (low: (r: Run) => ReturnType<typeof lowest>): Column<Run>[] => [
  { title: 'lowest S11 (dB)', value: (r) => low(r)?.db, mono: true, cell: (r) => low(r)?.db.toFixed(2) },
  { title: 'at', value: (r) => low(r)?.frequency, mono: true, cell: (r) => low(r) && formatSI(low(r)!.frequency, 'frequency') },
  { title: 'best realised gain (dBi)', value: gain, mono: true, cell: (r) => gain(r)?.toFixed(2) },
  { title: 'cells or unknowns', value: (r) => sizeOf(r.meta!).count, mono: true, cell: (r) => sizeOf(r.meta!).count.toLocaleString('en') },
];

/** Curves side by side, each with its own frequencies; shorter ones end in empty cells. */
function curvesCsv(curves: readonly (RunCurve & { name: string })[]): string {
  const rows = Math.max(...curves.map((c) => c.db.length));
  const pad = (v: ArrayLike<number>): number[] => Array.from({ length: rows }, (_, i) => v[i] ?? ('' as unknown as number));
  return writeCsv(
    curves.flatMap((c) => [
      { title: `${c.name}: frequency (Hz)`, values: pad(c.frequency) },
      { title: `${c.name}: S11 (dB)`, values: pad(c.db) },
    ]),
  );
}

/** The project's runs side by side: their parameters, figures and S11. */
export function RunsPage() {
  const { id = '' } = useParams();
  const dark = useDark();
  const every = (useRuns(id).data ?? []).filter((r) => r.meta);
  const [points, setPoints] = useState(false);
  const single = every.filter((r) => !r.study);
  // Points of studies have pages of their own.
  const own = points || !single.length ? every : single;
  const [starred, setStarred] = useState(false);
  const marked = own.filter((r) => r.starred);
  const runs = starred && marked.length ? marked : own;
  const [fault, setFault] = useState<string | null>(null);
  const [hidden, setHidden] = useState<string[]>([]);
  const [all, setAll] = useState(false);
  const shown = runs.filter((r) => !hidden.includes(r.id)).sort((a, b) => a.number - b.number);
  const { curves, error } = useLensFreeCurves(shown);
  if (!runs.length)
    return (
      <div className="empty">
        <span>Here the runs of the project stand side by side. There is none yet.</span>
        <Button variant="outlined" component={Link} to={`/project/${id}/solve`}>
          Go to Solve
        </Button>
      </div>
    );
  const varied = differing(runs);
  const names = all ? [...new Set(runs.flatMap((r) => r.parameters.map((g) => g.name)))] : varied;
  const label = (r: Run): string => [`run ${runName(r)}`, ...varied.slice(0, 3).map((n) => `${n} ${valueOf(r, n)}`)].join(', ');
  const traces: Trace[] = curves.map((c) => {
    const { color, dash } = traceStyle(c.run.number, dark);
    return { name: label(runs.find((r) => r.id === c.run.id) ?? c.run), color, dash, values: c.db, x: c.frequency };
  });
  const columns = [
    runColumn(hidden, setHidden, dark),
    ...toldColumns(setFault),
    { title: 'accuracy', value: (r: Run) => r.accuracy },
    ...parameterColumns(names, varied),
    ...figureColumns((r) => lowest(curves.find((c) => c.run.id === r.id))),
    backColumn(setFault),
  ];
  const csv = (): void => download('runs-s11.csv', curvesCsv(curves.map((c) => ({ ...c, name: label(c.run) }))), 'text/csv');
  return (
    <RunsFrame>
      <Card
        title="Runs"
        about={varied.length ? 'parameters that differ' : 'all runs have the same parameters'}
        file="runs"
        tools={
          <>
            {single.length > 0 && single.length < every.length && (
              <Tool aria-pressed={points} onClick={() => setPoints(!points)}>
                Points of studies
              </Tool>
            )}
            {every.some((r) => r.starred) && (
              <Tool aria-pressed={starred} onClick={() => setStarred(!starred)}>
                Starred
              </Tool>
            )}
            <Tool aria-pressed={all} onClick={() => setAll(!all)}>
              All parameters
            </Tool>
          </>
        }
      >
        <div className="scroll">
          <DataTable label="Runs of the project" columns={columns} rows={runs} keyOf={(r) => r.id} />
          {(fault ?? error) && <Message>{fault ?? error?.message}</Message>}
        </div>
      </Card>
      <Card title="S11 of the runs" file="runs-s11" exports={[{ label: 'Curves (CSV)', act: csv }]}>
        {curves.length ? (
          <div style={{ display: 'flex', flexDirection: 'column', height: '100%' }}>
            <div style={{ flex: 1, minHeight: 0 }}>
              <Lines x={{ label: 'frequency', unit: 'frequency', values: curves[0].frequency }} y={{ label: 'S11 (dB)' }} traces={traces} />
            </div>
          </div>
        ) : (
          <p className="quiet pad">Tick a run to see its curve.</p>
        )}
      </Card>
    </RunsFrame>
  );
}
