import { writeCsv } from '@jadebell/core/formats/csv';
import { formatSI } from '@jadebell/core/expressions/format';
import type { SectionEntry } from '@jadebell/core/document';
import { useState } from 'react';
import { LineChartBox, type Trace } from '../charts/LineChartBox.tsx';
import { traceStyle } from '../charts/traces.ts';
import { useDark } from '../ui/useDark.ts';
import { Chip } from '../ledger/Chip.tsx';
import { useProject } from '../project/store.ts';
import { download } from '../ui/download.ts';
import { curveKinds, lossText } from './display.ts';
import { askSection, useSection } from './sectionState.ts';

/** Modes over a stretch of frequencies. */
export function SweepStudy({ entry, band }: { entry: SectionEntry | null; band: [string, string] }) {
  const { sweep, busy } = useSection();
  const document = useProject((s) => s.document)!;
  const [from, setFrom] = useState(entry ? `0.9 * (${entry.frequency})` : band[0]);
  const [to, setTo] = useState(entry ? `1.1 * (${entry.frequency})` : band[1]);
  const [points, setPoints] = useState(11);
  const [kind, setKind] = useState('index');
  const dark = useDark();
  const steps = sweep.toSorted((a, b) => a.frequency - b.frequency);
  const count = Math.max(0, ...sweep.map((s) => s.figures.length));
  const { of, label } = curveKinds[kind];
  const frequencies = steps.map((s) => s.frequency);
  const traces = Array.from({ length: count }, (_, n): Trace => ({ ...traceStyle(n + 1, dark), name: `mode ${n + 1}`, values: steps.map((s) => (s.figures[n] ? (of(s.figures[n]) ?? NaN) : NaN)) })); // prettier-ignore
  const csv = (): void =>
    download(
      'section-modes.csv',
      writeCsv([
        { title: 'frequency (Hz)', values: frequencies },
        ...Object.values(curveKinds).flatMap(
          (k) =>
          Array.from({ length: count }, (_, n) => ({ title: `mode ${n + 1} ${k.label}`, values: steps.map((s) => (s.figures[n] ? (k.of(s.figures[n]) ?? NaN) : NaN)) })), // prettier-ignore
        ),
      ]),
      'text/csv',
    );
  return (
    <div className="section-study">
      <div className="row study-row">
        <Chip label="lowest frequency" quantity="frequency" value={from} problems={[]} onChange={setFrom} />
        to
        <Chip label="highest frequency" quantity="frequency" value={to} problems={[]} onChange={setTo} />
        <label>
          at{' '}
          <input
            className="chip text-chip"
            type="number"
            min={2}
            max={401}
            value={points}
            onChange={(e) => setPoints(Math.max(2, Math.min(401, Math.round(Number(e.target.value) || 2))))}
            style={{ width: 56 }}
          />{' '}
          points
        </label>
        <button type="button" className="tool" onClick={() => askSection(document, { task: 'sweep', from, to, points })}>
          Follow the modes
        </button>
        <span className="grow" />
        <select className="plain-select" aria-label="Curve" value={kind} onChange={(e) => setKind(e.target.value)}>
          {Object.entries(curveKinds).map(([key, k]) => (
            <option key={key} value={key}>
              {k.label}
            </option>
          ))}
        </select>
        <button type="button" className="tool" disabled={!sweep.length} onClick={csv}>
          CSV
        </button>
      </div>
      <div className="study-chart">
        {sweep.length > 1 ? (
          <LineChartBox x={{ label: 'frequency', unit: 'frequency', values: frequencies }} y={{ label }} traces={traces} />
        ) : (
          <p className="quiet pad">
            {busy?.task === 'sweep'
              ? 'Solving the first frequencies …'
              : 'Follow the modes over a band: a mode keeps its number by the overlap of its fields.'}
          </p>
        )}
      </div>
    </div>
  );
}

/** The same section on finer and finer grids. */
export function ConvergenceStudy() {
  const { passes, busy } = useSection();
  const document = useProject((s) => s.document)!;
  const [bound, setBound] = useState(1e-4);
  const last = passes.at(-1);
  return (
    <div className="section-study">
      <div className="row study-row">
        Halve the cells until no index changes by more than
        <select className="plain-select" aria-label="Bound" value={bound} onChange={(e) => setBound(Number(e.target.value))}>
          {[1e-3, 1e-4, 1e-5, 1e-6].map((b) => (
            <option key={b} value={b}>
              {b}
            </option>
          ))}
        </select>
        <button type="button" className="tool" onClick={() => askSection(document, { task: 'converge', bound })}>
          Refine
        </button>
      </div>
      {passes.length > 0 && (
        <table className="figures">
          <thead>
            <tr>
              <th>cells</th>
              {passes[0].figures.map((_, n) => (
                <th key={n}>index {n + 1}</th>
              ))}
              <th>loss 1</th>
              <th>largest change</th>
            </tr>
          </thead>
          <tbody>
            {passes.map((p) => (
              <tr key={p.finer}>
                <td className="mono">{p.cells}</td>
                {p.figures.map((f, n) => (
                  <td key={n} className="mono">
                    {f.propagates ? f.index[0].toFixed(6) : `−j ${f.index[1].toPrecision(5)}`}
                  </td>
                ))}
                <td className="mono">{lossText(p.figures[0]?.alpha ?? 0)}</td>
                <td className="mono">{p.change === null ? '' : p.change.toExponential(1)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {last && !busy && (
        <p className="quiet pad">
          {last.settled
            ? `Settled: the last halving changed no index by more than ${last.change!.toExponential(1)}.`
            : `Not settled: ${last.change === null ? 'the section is too large to be halved.' : `the last change was ${last.change.toExponential(1)}; the next grid would be too large.`}`}
        </p>
      )}
      {!passes.length && <p className="quiet pad">Cells now: {formatSI(useSection.getState().prepared?.cells ?? 0, 'number', 6)}.</p>}
    </div>
  );
}
