import { writeCsv } from '@jadebell/core/csv';
import { Card } from '../charts/Card.tsx';
import { Legend } from '../charts/Legend.tsx';
import { LineChartBox, type Trace } from '../charts/LineChartBox.tsx';
import { traceStyle } from '../charts/traces.ts';
import { download } from '../ui/download.ts';
import { useDark } from '../ui/useDark.ts';
import type { RunCurves } from './useCurves.ts';

const referenceText = ({ re, im }: { re: number; im: number }): string => (im ? `${re}${im < 0 ? '-' : '+'}${Math.abs(im)}j` : String(re));

interface Curve {
  label: string;
  dash?: string;
  values: number[];
  /** Number of its colour where one run has many curves. */
  tint?: number;
  /** Seen from behind the gaps of the ports. */
  bare?: boolean;
}

/** What a curve is called beside one that keeps the gaps. */
const named = (c: RunCurves, bare: boolean, label: string): string => (bare && c.gaps === 'both' ? `${label} without gaps` : label);
interface Plot {
  title: string;
  axis: string;
  file: string;
  curves(c: RunCurves): Curve[];
  touchstone?: boolean;
  ticks?: number[];
}

/** Ports of the Touchstone file of a run: all channels where each was excited. */
const touchstonePorts = (run: RunCurves['run']): number => (run.meta!.excitations.length === run.meta!.ports.length ? run.meta!.ports.length : 1);

/** The plots for the chosen terms of S. */
function plotsFor(shown: readonly string[], several: boolean): Plot[] {
  const terms = (c: RunCurves, pick: (t: RunCurves['terms'][number]) => number[]): Curve[] =>
    c.terms.flatMap((t) =>
      shown.includes(t.label)
        ? [{ label: named(c, t.bare, t.label), values: pick(t), tint: shown.indexOf(t.label) + 1, bare: t.bare && c.gaps === 'both' }]
        : [],
    );
  const what = several ? 'S' : 'S11';
  return [
    {
      title: several ? 'Scattering' : 'Reflection S11',
      axis: `${what} (dB)`,
      file: several ? 's' : 's11',
      touchstone: true,
      curves: (c) => terms(c, (t) => t.db),
    },
    {
      title: `Phase of ${what}`,
      axis: 'phase (deg)',
      file: several ? 's-phase' : 's11-phase',
      ticks: [-180, -120, -60, 0, 60, 120, 180],
      curves: (c) => terms(c, (t) => t.phase),
    },
    {
      title: 'Input impedance',
      axis: 'impedance (ohm)',
      file: 'impedance',
      curves: (c) =>
        c.impedances.flatMap((z) => [
          { label: named(c, z.bare, 'resistance'), dash: z.bare && c.gaps === 'both' ? '1 3' : undefined, values: z.resistance },
          { label: named(c, z.bare, 'reactance'), dash: z.bare && c.gaps === 'both' ? '8 3 1 3' : '5 3', values: z.reactance },
        ]),
    },
  ];
}

/** The chosen terms of S in dB and phase, and input impedance, of the chosen runs. */
export function CurveCards({ curves, shown, cursor, stem }: { curves: RunCurves[]; shown: string[]; cursor?: number; stem: string }) {
  const dark = useDark();
  if (!curves.length) return null;
  const many = curves.length > 1;
  const several = curves.some((c) => c.terms.length > 1);
  return plotsFor(shown, several).map((plot) => {
    const sets = curves.map((c) => ({ c, drawn: plot.curves(c) })).filter((s) => s.drawn.length);
    if (!sets.length) return null;
    const traces: Trace[] = sets.flatMap(({ c, drawn }) =>
      drawn.map((curve) => {
        const byRun = traceStyle(c.run.number, dark);
        // With one run the terms differ in colour; with several the runs do, and the terms in dashes.
        const style = curve.tint === undefined || (many && drawn.length === 1) ? byRun : traceStyle(many ? c.run.number : curve.tint, dark);
        const part = drawn.length > 1 || several ? curve.label : '';
        return {
          name: [many || !part ? `run ${c.run.number}` : '', part].filter(Boolean).join(', '),
          color: style.color,
          dash:
            curve.dash ??
            (curve.bare ? '1 3' : undefined) ??
            (curve.tint === undefined
              ? drawn.length > 1
                ? undefined
                : style.dash
              : traceStyle(many && drawn.length > 1 ? curve.tint : many ? c.run.number : curve.tint, dark).dash),
          values: curve.values,
          x: c.frequency,
        };
      }),
    );
    const csv = (): void => {
      const columns = sets.flatMap(({ c, drawn }) => [
        { title: `run ${c.run.number} frequency (Hz)`, values: c.frequency },
        ...drawn.map((curve) => ({ title: `run ${c.run.number} ${curve.label}, ${plot.axis}`, values: curve.values })),
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
        ? [
            {
              label: `Touchstone (.s${touchstonePorts(curves[0].run)}p)`,
              act: () =>
                window.location.assign(
                  `/api/runs/${curves[0].run.id}/files/touchstone?${new URLSearchParams({
                    ...(curves[0].reference ? { reference: referenceText(curves[0].reference) } : {}),
                    ...(curves[0].gaps === 'out' ? { gaps: 'out' } : {}),
                  }).toString()}`,
                ),
            },
          ]
        : []),
    ];
    const { ports, excitations } = curves[0].run.meta!;
    const port = ports[excitations[0]];
    const reference = curves[0].reference
      ? `referred to ${referenceText(curves[0].reference)} ohm`
      : port.mode === undefined
        ? ports.some((p) => p.mode !== undefined || p.resistance !== port.resistance || p.reactance !== port.reactance)
          ? 'each port on its own reference'
          : `reference ${referenceText({ re: port.resistance, im: port.reactance ?? 0 })} ohm`
        : 'modes referred to their own impedance';
    return (
      <Card
        key={plot.title}
        title={plot.title}
        about={[...(plot.file === 'impedance' ? [] : [reference]), ...(curves[0].gaps === 'out' ? ['gaps of ports taken out'] : [])].join(', ')}
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
