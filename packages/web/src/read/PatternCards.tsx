import { formatSI } from '@jadebell/core/format';
import type { ViewBody } from '../workers/protocol.ts';
import type { Pattern } from '@jadebell/core/radiation';
import type { PatternFigures } from '@jadebell/core/results';
import { useState } from 'react';
import type { Run } from '../api/types.ts';
import { Card } from '../charts/Card.tsx';
import { Pattern3D } from '../charts/Pattern3D.tsx';
import { cutOf, type Quantity, quantityNames } from '../charts/patterns.ts';
import { PolarCut } from '../charts/PolarCut.tsx';
import { traceStyle } from '../charts/traces.ts';
import { writeCsv } from '@jadebell/core/csv';
import { download } from '../ui/download.ts';
import { useDark } from '../ui/useDark.ts';

interface Props {
  run: Run;
  pattern: Pattern;
  figures: PatternFigures;
  bodies: readonly ViewBody[];
  stem: string;
}

const cuts = { phi0: 'phi 0°, over theta', phi90: 'phi 90°, over theta', horizon: 'theta 90°, over phi' } as const;

/** The pattern on the model and two polar cuts. */
export function PatternCards({ run, pattern, figures, bodies, stem }: Props) {
  const [quantity, setQuantity] = useState<Quantity>('directivity');
  const choose = (
    <select className="plain-select" aria-label="Pattern quantity" value={quantity} onChange={(e) => setQuantity(e.target.value as Quantity)}>
      {Object.entries(quantityNames).map(([value, label]) => (
        <option key={value} value={value}>
          {label}
        </option>
      ))}
    </select>
  );
  const all = [{ label: 'Pattern (CSV)', act: () => window.location.assign(`/api/runs/${run.id}/files/pattern`) }];
  return (
    <>
      <Card
        title="Pattern"
        about={`${quantityNames[quantity]}, run ${run.number}, ${formatSI(figures.frequency, 'frequency')}`}
        file={`${stem}-pattern`}
        flush
        tools={choose}
        exports={all}
      >
        <Pattern3D pattern={pattern} figures={figures} quantity={quantity} bodies={bodies} />
      </Card>
      {(['phi0', 'phi90'] as const).map((first) => (
        <CutCard key={first} first={first} quantity={quantity} {...{ run, pattern, figures, stem }} />
      ))}
    </>
  );
}

function CutCard({ first, quantity, run, pattern, figures, stem }: Omit<Props, 'bodies'> & { first: keyof typeof cuts; quantity: Quantity }) {
  const [cut, setCut] = useState<keyof typeof cuts>(first);
  const dark = useDark();
  const values = cutOf(pattern, figures, quantity, cut);
  const top = Math.ceil((10 * Math.log10(figures[quantity]) + 0.01) / 5) * 5;
  const style = traceStyle(run.number, dark);
  const csv = (): void =>
    download(
      `${stem}-cut-${cut}.csv`,
      writeCsv([
        { title: 'angle (deg)', values: values.map((_, i) => (360 * i) / values.length) },
        { title: `${quantityNames[quantity]} (dBi)`, values },
      ]),
      'text/csv',
    );
  const chooser = (
    <select className="plain-select" aria-label="Cut" value={cut} onChange={(e) => setCut(e.target.value as keyof typeof cuts)}>
      {Object.entries(cuts).map(([value, label]) => (
        <option key={value} value={value}>
          {label}
        </option>
      ))}
    </select>
  );
  return (
    <Card
      title="Cut"
      about={`${quantityNames[quantity]} (dBi), run ${run.number}`}
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
    <Card title="Antenna figures" about={`run ${run.number}, 1 W incident`} file={`${stem}-figures`} exports={[{ label: 'Table (CSV)', act: csv }]}>
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
