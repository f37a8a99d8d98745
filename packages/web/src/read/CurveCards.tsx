import { writeCsv } from '@jadebell/core/csv';
import { Card } from '../charts/Card.tsx';
import { Legend } from '../charts/Legend.tsx';
import { LineChartBox, type Trace } from '../charts/LineChartBox.tsx';
import { traceStyle } from '../charts/traces.ts';
import { download } from '../ui/download.ts';
import { useDark } from '../ui/useDark.ts';
import type { RunCurves } from './useCurves.ts';

interface Curve {
  label: string;
  dash?: string;
  pick(c: RunCurves): number[];
}
interface Plot {
  title: string;
  axis: string;
  file: string;
  curves: Curve[];
  touchstone?: boolean;
  ticks?: number[];
}

const plots: Plot[] = [
  { title: 'Reflection S11', axis: 'S11 (dB)', file: 's11', touchstone: true, curves: [{ label: 'S11 (dB)', pick: (c) => c.db }] },
  {
    title: 'Phase of S11',
    axis: 'phase (deg)',
    file: 's11-phase',
    ticks: [-180, -120, -60, 0, 60, 120, 180],
    curves: [{ label: 'phase (deg)', pick: (c) => c.phase }],
  },
  {
    title: 'Input impedance',
    axis: 'impedance (ohm)',
    file: 'impedance',
    curves: [
      { label: 'resistance (ohm)', pick: (c) => c.resistance },
      { label: 'reactance (ohm)', dash: '5 3', pick: (c) => c.reactance },
    ],
  },
];

/** S11 in dB and phase, and input impedance, of the chosen runs. */
export function CurveCards({ curves, cursor, stem }: { curves: RunCurves[]; cursor?: number; stem: string }) {
  const dark = useDark();
  if (!curves.length) return null;
  const many = curves.length > 1;
  return plots.map((plot) => {
    const traces: Trace[] = curves.flatMap((c) =>
      plot.curves.map((curve) => {
        const style = traceStyle(c.run.number, dark);
        const part = plot.curves.length > 1 ? curve.label.split(' (')[0] : '';
        return {
          name: [many || !part ? `run ${c.run.number}` : '', part].filter(Boolean).join(', '),
          color: style.color,
          dash: curve.dash ?? (plot.curves.length > 1 ? undefined : style.dash),
          values: curve.pick(c),
          x: c.frequency,
        };
      }),
    );
    const csv = (): void => {
      const columns = curves.flatMap((c) => [
        { title: `run ${c.run.number} frequency (Hz)`, values: c.frequency },
        ...plot.curves.map((curve) => ({ title: `run ${c.run.number} ${curve.label}`, values: curve.pick(c) })),
      ]);
      const rows = Math.max(...columns.map((c) => c.values.length));
      download(
        `${stem}-${plot.file}.csv`,
        writeCsv(columns.map((c) => ({ ...c, values: Array.from({ length: rows }, (_, i) => c.values[i] ?? ('' as unknown as number)) }))),
        'text/csv',
      );
    };
    const exports = [
      { label: 'Curve (CSV)', act: csv },
      ...(plot.touchstone
        ? [{ label: 'Touchstone (.s1p)', act: () => window.location.assign(`/api/runs/${curves[0].run.id}/files/touchstone`) }]
        : []),
    ];
    const port = curves[0].run.meta!.ports.find((p) => p.name === curves[0].run.meta!.excited);
    return (
      <Card
        key={plot.title}
        title={plot.title}
        about={plot.touchstone || plot.file === 's11-phase' ? `reference ${port?.resistance} ohm` : undefined}
        file={`${stem}-${plot.file}`}
        exports={exports}
      >
        <div style={{ display: 'flex', flexDirection: 'column', height: '100%' }}>
          <Legend traces={traces} />
          <div style={{ flex: 1, minHeight: 0 }}>
            <LineChartBox
              x={{ label: 'frequency', unit: 'frequency', values: curves[0].frequency }}
              y={{ label: plot.axis, ticks: plot.ticks }}
              traces={traces}
              cursor={cursor}
            />
          </div>
        </div>
      </Card>
    );
  });
}
