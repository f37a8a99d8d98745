import { writeCsv } from '@jadebell/core/formats/csv';
import { formatSI } from '@jadebell/core/expressions/format';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { useRuns } from '../api/hooks.ts';
import type { Run } from '../api/types.ts';
import { Card } from '../charts/Card.tsx';
import { Legend } from '../charts/Legend.tsx';
import { LineChartBox, type Trace } from '../charts/LineChartBox.tsx';
import { traceStyle } from '../charts/traces.ts';
import { useLensFreeCurves, type RunCurve } from './useLensFreeCurves.ts';
import { download } from '../ui/download.ts';
import { useDark } from '../ui/useDark.ts';
import { sizeOf } from '@jadebell/core/methods';

/** Names of parameters whose value differs among runs, or that not all runs have. */
function differing(runs: Run[]): string[] {
  const names = [...new Set(runs.flatMap((r) => r.parameters.map((g) => g.name)))];
  return names.filter((name) => new Set(runs.map((r) => r.parameters.find((g) => g.name === name)?.si ?? NaN)).size > 1);
}

const valueOf = (run: Run, name: string): string => {
  const g = run.parameters.find((o) => o.name === name);
  return g && g.si !== null ? formatSI(g.si, g.measure, 5) : 'none';
};

/** The project's runs side by side: their parameters, figures and S11. */
export default function ExploreStage() {
  const { id = '' } = useParams();
  const dark = useDark();
  const runs = (useRuns(id).data ?? []).filter((r) => r.meta);
  const [hidden, setHidden] = useState<string[]>([]);
  const [all, setAll] = useState(false);
  const shown = runs.filter((r) => !hidden.includes(r.id)).sort((a, b) => a.number - b.number);
  const { curves, error } = useLensFreeCurves(shown);
  if (!runs.length)
    return (
      <div className="empty">
        <span>Here the runs of the project stand side by side. There is none yet.</span>
        <Link className="tool" to={`/project/${id}/solve`} style={{ textDecoration: 'none' }}>
          Go to Solve
        </Link>
      </div>
    );
  const varied = differing(runs);
  const names = all ? [...new Set(runs.flatMap((r) => r.parameters.map((g) => g.name)))] : varied;
  const label = (r: Run): string => [`run ${r.number}`, ...varied.slice(0, 3).map((n) => `${n} ${valueOf(r, n)}`)].join(', ');
  const traces: Trace[] = curves.map((c) => {
    const { color, dash } = traceStyle(c.run.number, dark);
    return { name: label(c.run), color, dash, values: c.db, x: c.frequency };
  });
  const lowest = (c: RunCurve | undefined): { db: number; frequency: number } | null => {
    if (!c) return null;
    const i = c.db.indexOf(Math.min(...c.db));
    return { db: c.db[i], frequency: c.frequency[i] };
  };
  const csv = (): void => {
    const rows = Math.max(...curves.map((c) => c.db.length));
    const pad = (v: ArrayLike<number>): number[] => Array.from({ length: rows }, (_, i) => v[i] ?? ('' as unknown as number));
    download(
      'runs-s11.csv',
      writeCsv(
        curves.flatMap((c) => [
          { title: `${label(c.run)}: frequency (Hz)`, values: pad(c.frequency) },
          { title: `${label(c.run)}: S11 (dB)`, values: pad(c.db) },
        ]),
      ),
      'text/csv',
    );
  };
  return (
    <div className="explore" style={{ gridTemplateColumns: 'minmax(0, 1fr)', gridTemplateRows: 'minmax(150px, auto) minmax(360px, 1fr)' }}>
      <Card
        title="Runs"
        about={varied.length ? 'parameters that differ' : 'all runs have the same parameters'}
        file="runs"
        tools={
          <button type="button" className="tool" aria-pressed={all} onClick={() => setAll(!all)}>
            All parameters
          </button>
        }
      >
        <div className="scroll">
          <table className="figures">
            <thead>
              <tr>
                <th>run</th>
                <th>accuracy</th>
                {names.map((n) => (
                  <th key={n} style={varied.includes(n) ? { color: 'var(--plum)' } : undefined}>
                    {n}
                  </th>
                ))}
                <th>lowest S11 (dB)</th>
                <th>at</th>
                <th>best realised gain (dBi)</th>
                <th>cells or unknowns</th>
              </tr>
            </thead>
            <tbody>
              {runs.map((r) => {
                const low = lowest(curves.find((c) => c.run.id === r.id));
                const figures = r.meta!.farField?.figures ?? [];
                return (
                  <tr key={r.id}>
                    <td>
                      <label className="row" style={{ gap: 6 }}>
                        <input
                          type="checkbox"
                          aria-label={`Show run ${r.number}`}
                          checked={!hidden.includes(r.id)}
                          onChange={() => setHidden(hidden.includes(r.id) ? hidden.filter((h) => h !== r.id) : [...hidden, r.id])}
                        />
                        <i className="swatch" style={{ background: traceStyle(r.number, dark).color, margin: 0 }} />
                        {r.number}
                      </label>
                    </td>
                    <td>{r.accuracy}</td>
                    {names.map((n) => (
                      <td key={n} className="mono">
                        {valueOf(r, n)}
                      </td>
                    ))}
                    <td className="mono">{low ? low.db.toFixed(2) : ''}</td>
                    <td className="mono">{low ? formatSI(low.frequency, 'frequency') : ''}</td>
                    <td className="mono">{figures.length ? (10 * Math.log10(Math.max(...figures.map((f) => f.realisedGain)))).toFixed(2) : ''}</td>
                    <td className="mono">{sizeOf(r.meta!).count.toLocaleString('en')}</td>
                  </tr>
                );
              })}
            </tbody>
          </table>
          {error && (
            <p role="alert" className="bad">
              {error.message}
            </p>
          )}
        </div>
      </Card>
      <Card title="S11 of the runs" file="runs-s11" exports={[{ label: 'Curves (CSV)', act: csv }]}>
        {curves.length ? (
          <div style={{ display: 'flex', flexDirection: 'column', height: '100%' }}>
            <Legend traces={traces} />
            <div style={{ flex: 1, minHeight: 0 }}>
              <LineChartBox x={{ label: 'frequency', unit: 'frequency', values: curves[0].frequency }} y={{ label: 'S11 (dB)' }} traces={traces} />
            </div>
          </div>
        ) : (
          <p className="quiet pad">Tick a run to see its curve.</p>
        )}
      </Card>
    </div>
  );
}
