import { formatSI } from '@jadebell/core/format';
import type { ViewBody } from '../workers/protocol.ts';
import type { Pattern } from '@jadebell/core/radiation';
import type { PatternFigures, ScatterFigures } from '@jadebell/core/results';
import { useState } from 'react';
import type { Run } from '../api/types.ts';
import { Card } from '../charts/Card.tsx';
import { Pattern3D } from '../charts/Pattern3D.tsx';
import { type Cut, cutOf, type PatternScale } from '../charts/patterns.ts';
import { PolarCut } from '../charts/PolarCut.tsx';
import { traceStyle } from '../charts/traces.ts';
import { writeCsv } from '@jadebell/core/csv';
import { download } from '../ui/download.ts';
import { useDark } from '../ui/useDark.ts';

interface Props {
  run: Run;
  pattern: Pattern;
  frequency: number;
  /** What the pattern can be read as. */
  scales: readonly PatternScale[];
  bodies: readonly ViewBody[];
  stem: string;
}

const plainCuts: Record<Cut, string> = { phi0: 'phi 0°, over theta', phi90: 'phi 90°, over theta', horizon: 'theta 90°, over phi' };

/** The cuts of a run: with a plane wave also the one through where it comes from. */
function cutsOf({ meta }: Run, { nPhi }: Pattern): { key: string; label: string; cut: Cut | number }[] {
  const plain = (Object.keys(plainCuts) as Cut[]).map((cut) => ({ key: cut, label: plainCuts[cut], cut }));
  if (!meta!.wave) return plain;
  const n = (Math.round((meta!.wave.phi * nPhi) / (2 * Math.PI)) + nPhi) % nPhi;
  return [{ key: 'wave', label: `phi ${Math.round((360 * n) / nPhi)}°, of the wave`, cut: n }, ...plain];
}

/** The pattern on the model and two polar cuts. */
export function PatternCards({ run, pattern, frequency, scales, bodies, stem }: Props) {
  const [wanted, setWanted] = useState(0);
  const scale = scales[Math.min(wanted, scales.length - 1)];
  const choose = scales.length > 1 && (
    <select className="plain-select" aria-label="Pattern quantity" value={wanted} onChange={(e) => setWanted(Number(e.target.value))}>
      {scales.map((s, n) => (
        <option key={s.label} value={n}>
          {s.label}
        </option>
      ))}
    </select>
  );
  const all = [{ label: 'Pattern (CSV)', act: () => window.location.assign(`/api/runs/${run.id}/files/pattern`) }];
  return (
    <>
      <Card
        title={run.meta!.wave ? 'Scattered field' : 'Pattern'}
        about={`${scale.label}, run ${run.number}, ${formatSI(frequency, 'frequency')}`}
        file={`${stem}-pattern`}
        flush
        tools={choose}
        exports={all}
      >
        <Pattern3D pattern={pattern} scale={scale} bodies={bodies} />
      </Card>
      {cutsOf(run, pattern)
        .slice(0, 2)
        .map(({ key: first }) => (
          <CutCard key={first} first={first} {...{ run, pattern, scale, stem }} />
        ))}
    </>
  );
}

function CutCard({ first, scale, run, pattern, stem }: { first: string; scale: PatternScale; run: Run; pattern: Pattern; stem: string }) {
  const [cut, setCut] = useState(first);
  const cuts = cutsOf(run, pattern);
  const dark = useDark();
  const values = cutOf(pattern, scale, cuts.find((c) => c.key === cut)!.cut);
  const top = Math.ceil((10 * Math.log10(scale.peak) + 0.01) / 5) * 5;
  const style = traceStyle(run.number, dark);
  const title = `${scale.label} (${scale.unit})`;
  const csv = (): void =>
    download(
      `${stem}-cut-${cut}.csv`,
      writeCsv([
        { title: 'angle (deg)', values: values.map((_, i) => (360 * i) / values.length) },
        { title, values },
      ]),
      'text/csv',
    );
  const chooser = (
    <select className="plain-select" aria-label="Cut" value={cut} onChange={(e) => setCut(e.target.value)}>
      {cuts.map(({ key, label }) => (
        <option key={key} value={key}>
          {label}
        </option>
      ))}
    </select>
  );
  return (
    <Card
      title="Cut"
      about={`${title}, run ${run.number}`}
      file={`${stem}-cut-${cut}`}
      tools={chooser}
      exports={[{ label: 'Curve (CSV)', act: csv }]}
    >
      <PolarCut cuts={[{ name: `run ${run.number}`, ...style, dash: '', values }]} top={top} />
    </Card>
  );
}

const dbi = (v: number): string => (10 * Math.log10(v)).toFixed(2);
const percent = (v: number): string => `${(100 * v).toFixed(1)}`;
const degrees = (v: number): string => `${Math.round((180 * v) / Math.PI)}°`;

/** Antenna figures per recorded frequency. */
export function FiguresCard({ run, at, onChoose, stem }: { run: Run; at: number; onChoose(i: number): void; stem: string }) {
  const { figures } = run.meta!.farField!;
  const columns: [string, (f: PatternFigures) => string][] = [
    ['directivity (dBi)', (f) => dbi(f.directivity)],
    ['gain (dBi)', (f) => dbi(f.gain)],
    ['realised gain (dBi)', (f) => dbi(f.realisedGain)],
    ['peak at theta, phi', (f) => `${degrees(f.theta)}, ${degrees(f.phi)}`],
    ['radiation efficiency (%)', (f) => percent(f.radiationEfficiency)],
    ['total efficiency (%)', (f) => percent(f.totalEfficiency)],
    ['accepted (W)', (f) => f.accepted.toFixed(4)],
    ['radiated (W)', (f) => f.radiated.toFixed(4)],
    ['lost in materials (W)', (f) => f.lost.toExponential(2)],
    ...(figures[0]?.lostInMetal ?? []).map(({ line }): [string, (f: PatternFigures) => string] => [
      `of that in ${line} (W)`,
      (f) => (f.lostInMetal?.find((m) => m.line === line)?.power ?? 0).toExponential(2),
    ]),
  ];
  const csv = (): void =>
    download(
      `${stem}-figures.csv`,
      writeCsv(
        (
          [
            'frequency',
            'directivity',
            'gain',
            'realisedGain',
            'theta',
            'phi',
            'radiationEfficiency',
            'totalEfficiency',
            'accepted',
            'radiated',
            'lost',
          ] as const
        ).map((key) => ({ title: key, values: figures.map((f) => f[key]) })),
      ),
      'text/csv',
    );
  return (
    <FigureTable
      title="Antenna figures"
      about={`run ${run.number}, 1 W incident`}
      file={`${stem}-figures`}
      {...{ figures, columns, at, onChoose, csv }}
    />
  );
}

/** Cross-sections of a scatterer per recorded frequency. */
export function ScatterCard({ run, at, onChoose, stem }: { run: Run; at: number; onChoose(i: number): void; stem: string }) {
  const { figures } = run.meta!.scattered!;
  const area = (v: number): string => (v > 0 && v < 1e-3 ? v.toExponential(2) : v.toPrecision(4));
  const columns: [string, (f: ScatterFigures) => string][] = [
    ['radar cross-section back (dBsm)', (f) => dbi(f.back)],
    ['largest (dBsm)', (f) => dbi(f.largest)],
    ['at theta, phi', (f) => `${degrees(f.theta)}, ${degrees(f.phi)}`],
    ['scattering cross-section (m²)', (f) => area(f.scattering)],
    ['absorption cross-section (m²)', (f) => area(f.absorption)],
    ['extinction, from the field ahead (m²)', (f) => area(f.extinction)],
  ];
  const csv = (): void =>
    download(
      `${stem}-figures.csv`,
      writeCsv(
        (['frequency', 'back', 'largest', 'theta', 'phi', 'scattering', 'absorption', 'extinction'] as const).map((key) => ({
          title: key,
          values: figures.map((f) => f[key]),
        })),
      ),
      'text/csv',
    );
  const { name, theta, phi } = run.meta!.wave!;
  return (
    <FigureTable
      title="Cross-sections"
      about={`run ${run.number}, ${name} from theta ${degrees(theta)}, phi ${degrees(phi)}`}
      file={`${stem}-figures`}
      {...{ figures, columns, at, onChoose, csv }}
    />
  );
}

interface TableProps<F> {
  title: string;
  about: string;
  file: string;
  figures: readonly F[];
  columns: readonly [string, (f: F) => string][];
  at: number;
  onChoose(i: number): void;
  csv(): void;
}

/** A row for each figure, a column for each frequency; a frequency's head chooses it. */
function FigureTable<F extends { frequency: number }>({ title, about, file, figures, columns, at, onChoose, csv }: TableProps<F>) {
  return (
    <Card title={title} about={about} file={file} exports={[{ label: 'Table (CSV)', act: csv }]}>
      <div className="scroll">
        <table className="figures">
          <thead>
            <tr>
              <th>frequency</th>
              {figures.map((f, i) => (
                <th key={f.frequency} style={i === at ? { color: 'var(--plum)' } : undefined}>
                  <button
                    type="button"
                    className="plain-input"
                    style={{ cursor: 'pointer', fontWeight: 'inherit', width: 'auto' }}
                    onClick={() => onChoose(i)}
                  >
                    {formatSI(f.frequency, 'frequency')}
                  </button>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {columns.map(([title, text]) => (
              <tr key={title}>
                <td>{title}</td>
                {figures.map((f) => (
                  <td key={f.frequency} className="mono">
                    {text(f)}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </Card>
  );
}
