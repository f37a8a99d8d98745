import { formatSI } from '@jadebell/core/format';
import { useArray } from '../api/hooks.ts';
import type { Run } from '../api/types.ts';
import { Card } from '../charts/Card.tsx';
import { duration } from '../solve/SolveLedger.tsx';

const endings = {
  decayed: 'the energy had decayed',
  settled: 'the waves at the ports had settled',
  steps: 'the step limit was reached',
  stopped: 'stopped by hand',
};

/** Where a result can be held against itself. */
export function EvidenceCard({ run, stem }: { run: Run; stem: string }) {
  const e = run.meta!.evidence;
  const several = run.meta!.ports.length > 1;
  const { data: signal } = useArray(run.id, 'signal');
  const { data: time } = useArray(run.id, 'time');
  const balance = e.powerBalance?.map((b) => `${(100 * b).toFixed(2)} %`).join(', ');
  const rows: [string, string][] = [
    [run.meta!.wave ? 'extinction less scattering and absorption' : 'power balance: accepted less radiated and lost', balance ?? 'needs a far field'],
    ['field energy at the end', `${(10 * Math.log10(e.residualEnergy)).toFixed(1)} dB, ${endings[e.ended]}`],
    ...(run.meta!.wave
      ? []
      : [[several ? 'largest amplitude out for 1 in (passive up to 1)' : 'largest |S11|', e.largestReflection.toFixed(4)] as [string, string]]),
    ...(e.asymmetry === null ? [] : [['largest difference of S and its transpose', e.asymmetry.toExponential(1)] as [string, string]]),
    ...(e.passes
      ? [
          [
            'passes: cells, change of the result',
            e.passes.map((p) => `${p.cells.toLocaleString('en')}${p.change === null ? '' : ` ${p.change.toPrecision(2)}`}`).join('; '),
          ] as [string, string],
        ]
      : []),
    ...(e.carriedOn
      ? [
          ['ringing carried on by decaying exponentials', `foretold within ${(100 * e.carriedOn.error).toPrecision(2)} %`] as [string, string],
          [
            'resonances and Q',
            e.carriedOn.resonances
              .slice(0, 6)
              .map((r) => `${formatSI(r.frequency, 'frequency', 5)} ${r.q.toPrecision(3)}`)
              .join('; '),
          ] as [string, string],
        ]
      : []),
    ...run.meta!.ports.flatMap(({ name, gap }): [string, string][] =>
      gap
        ? [
            [
              `gap of ${name}, by a reference line`,
              `${formatSI(gap.capacitance[0], 'capacitance', 3)} across, ${formatSI(gap.inductance[0], 'inductance', 3)} in series; it sees ${gap.impedance[0].toPrecision(4)} ohm; S off by ${gap.before.toPrecision(2)} with, ${gap.after.toPrecision(2)} without`,
            ],
          ]
        : [],
    ),
    ...(e.gapsKept ?? []).map(({ name, why }): [string, string] => [`gap of ${name} kept`, why]),
    ['least cells a wavelength', e.cellsPerWavelength.toFixed(1)],
    ['cells', `${e.cells.join(' × ')}`],
    ['steps', `${e.steps.toLocaleString('en')} of ${(e.timeStep * 1e12).toPrecision(3)} ps`],
    ['pulse at the band’s edges', e.pulseAtEdges.map((d) => `${d.toFixed(1)} dB`).join(', ')],
    [
      'time',
      `${duration(e.seconds)}, ${e.threads} ${e.threads === 1 ? 'thread' : 'threads'}, ${(e.cellsPerSecond / 1e6).toFixed(0)} Mcell/s, ${(e.bytes / 1e6).toFixed(0)} MB`,
    ],
  ];
  return (
    <Card title="Evidence" about={`run ${run.number}`} file={`${stem}-evidence`}>
      <div className="scroll">
        <table className="figures">
          <tbody>
            {rows.map(([what, value]) => (
              <tr key={what}>
                <td>{what}</td>
                <td className="mono" style={{ whiteSpace: 'normal' }}>
                  {value}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        {signal && time && (
          <p className="quiet" style={{ padding: '4px 8px' }}>
            Port signals of the first excitation recorded for {formatSI(time.data[time.data.length - 1] * 1e9, 'number', 3)} ns; last value{' '}
            {Math.abs(signal.data[signal.data.length - 1]).toExponential(1)}.
          </p>
        )}
      </div>
    </Card>
  );
}
