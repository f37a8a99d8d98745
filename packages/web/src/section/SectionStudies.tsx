import { writeCsv } from '@jadebell/core/formats/csv';
import { formatSI } from '@jadebell/core/expressions/format';
import type { SectionEntry } from '@jadebell/core/document';
import { useState } from 'react';
import { Lines, type Trace } from '../charts/Lines.tsx';
import { traceStyle } from '../charts/traces.ts';
import { useDark } from '../ui/useDark.ts';
import { Chip } from '../ledger/Chip.tsx';
import { useProject } from '../project/store.ts';
import { download } from '../ui/download.ts';
import { curveKinds, lossText } from './display.ts';
import { askSection, useSection } from './sectionState.ts';
import { Tool } from '../kit/Tool.tsx';
import { Figures } from '../kit/Figures.tsx';
import { TableHead, TableRow, TableCell, TableBody } from '@mui/material';
import { Choice } from '../kit/Choice.tsx';
import { TypedField } from '../kit/Field.tsx';

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
        <span>
          at{' '}
          <TypedField
            width={56}
            label="points"
            value={String(points)}
            check={(t) => (Number.isInteger(Number(t)) && Number(t) >= 2 && Number(t) <= 401 ? null : '2 to 401')}
            onChange={(t) => setPoints(Number(t))}
          />{' '}
          points
        </span>
        <Tool onClick={() => askSection(document, { task: 'sweep', from, to, points })}>Follow the modes</Tool>
        <span className="grow" />
        <Choice label="Curve" value={kind} options={Object.entries(curveKinds).map(([value, { label }]) => ({ value, label }))} onChange={setKind} />
        <Tool disabled={!sweep.length} onClick={csv}>
          CSV
        </Tool>
      </div>
      <div className="study-chart">
        {sweep.length > 1 ? (
          <Lines x={{ label: 'frequency', unit: 'frequency', values: frequencies }} y={{ label }} traces={traces} />
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
        <Choice label="Bound" value={bound} options={[1e-3, 1e-4, 1e-5, 1e-6].map((b) => ({ value: b, label: String(b) }))} onChange={setBound} />
        <Tool onClick={() => askSection(document, { task: 'converge', bound })}>Refine</Tool>
      </div>
      {passes.length > 0 && (
        <Figures>
          <TableHead>
            <TableRow>
              <TableCell>cells</TableCell>
              {passes[0].figures.map((_, n) => (
                <TableCell key={n}>index {n + 1}</TableCell>
              ))}
              <TableCell>loss 1</TableCell>
              <TableCell>largest change</TableCell>
            </TableRow>
          </TableHead>
          <TableBody>
            {passes.map((p) => (
              <TableRow key={p.finer}>
                <TableCell className="mono">{p.cells}</TableCell>
                {p.figures.map((f, n) => (
                  <TableCell key={n} className="mono">
                    {f.propagates ? f.index[0].toFixed(6) : `−j ${f.index[1].toPrecision(5)}`}
                  </TableCell>
                ))}
                <TableCell className="mono">{lossText(p.figures[0]?.alpha ?? 0)}</TableCell>
                <TableCell className="mono">{p.change === null ? '' : p.change.toExponential(1)}</TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Figures>
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
