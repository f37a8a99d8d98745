import { writeCsv } from '@jadebell/core/csv';
import { formatSI } from '@jadebell/core/format';
import { channelNames } from '@jadebell/core/s';
import { useArray } from '../api/hooks.ts';
import type { Run } from '../api/types.ts';
import { Card } from '../charts/Card.tsx';
import { LineChartBox } from '../charts/LineChartBox.tsx';
import { traceStyle } from '../charts/traces.ts';
import { download } from '../ui/download.ts';
import { useDark } from '../ui/useDark.ts';

interface Props {
  run: Run;
  stem: string;
}

/** Waves that were combined, power and currents through rectangles, and a card for each line and point whose field was kept. */
export function RecorderCards({ run, at, stem }: Props & { at: number }) {
  const { combined, currents = [], fieldLines = [], fluxes = [], signals = [] } = run.meta!;
  return (
    <>
      {combined && <CombinedCard run={run} stem={stem} />}
      {fluxes.length > 0 && <FluxCard run={run} stem={stem} />}
      {currents.length > 0 && <CurrentCard run={run} stem={stem} />}
      {fieldLines.map((l) => (
        <LineCard key={l.name} run={run} stem={stem} line={l} frequency={at} />
      ))}
      {signals.map((s) => (
        <SignalCard key={s.name} run={run} stem={stem} name={s.name} at={s.at} />
      ))}
    </>
  );
}

/** What each of the combined waves meets while all are there. */
function CombinedCard({ run, stem }: Props) {
  const { combined = [], ports, recordAt } = run.meta!;
  const names = channelNames(ports);
  const level = ([re, im]: readonly [number, number]): number => 20 * Math.log10(Math.hypot(re, im));
  const csv = (): void =>
    download(
      `${stem}-waves.csv`,
      writeCsv([
        { title: 'frequency (Hz)', values: recordAt },
        ...combined.map((w) => ({ title: `active reflection of ${names[w.channel]} (dB)`, values: w.reflection.map(level) })),
      ]),
      'text/csv',
    );
  return (
    <Card
      title="Waves together"
      about={`run ${run.number}, active reflection`}
      file={`${stem}-waves`}
      exports={[{ label: 'Values (CSV)', act: csv }]}
    >
      <div className="scroll">
        <table className="figures">
          <thead>
            <tr>
              <th>wave</th>
              <th>amplitude</th>
              <th>phase</th>
              {recordAt.map((f) => (
                <th key={f}>{formatSI(f, 'frequency')}</th>
              ))}
            </tr>
          </thead>
          <tbody>
            {combined.map((w) => (
              <tr key={w.channel}>
                <td>{names[w.channel]}</td>
                <td className="mono">{w.amplitude.toFixed(3)}</td>
                <td className="mono">{((w.phase * 180) / Math.PI).toFixed(1)}°</td>
                {w.reflection.map((r, i) => (
                  <td key={recordAt[i]} className="mono">
                    {level(r).toFixed(2)} dB
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

function FluxCard({ run, stem }: Props) {
  const { fluxes = [], recordAt, wave } = run.meta!;
  const csv = (): void =>
    download(
      `${stem}-power.csv`,
      writeCsv([{ title: 'frequency (Hz)', values: recordAt }, ...fluxes.map((f) => ({ title: `${f.name} (W)`, values: f.power }))]),
      'text/csv',
    );
  return (
    <Card
      title="Power through rectangles"
      about={`run ${run.number}, for ${wave ? '1 V/m' : '1 W in'}`}
      file={`${stem}-power`}
      exports={[{ label: 'Values (CSV)', act: csv }]}
    >
      <div className="scroll">
        <table className="figures">
          <thead>
            <tr>
              <th>rectangle</th>
              {recordAt.map((f) => (
                <th key={f}>{formatSI(f, 'frequency')}</th>
              ))}
            </tr>
          </thead>
          <tbody>
            {fluxes.map((flux) => (
              <tr key={flux.name}>
                <td>
                  {flux.name}, {'xyz'[flux.normal]} = {formatSI(flux.at, 'length', 4)}
                </td>
                {flux.power.map((p, i) => (
                  <td key={recordAt[i]} className="mono">
                    {p.toPrecision(4)} W
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

function CurrentCard({ run, stem }: Props) {
  const { currents = [], recordAt, wave } = run.meta!;
  const csv = (): void =>
    download(
      `${stem}-current.csv`,
      writeCsv([
        { title: 'frequency (Hz)', values: recordAt },
        ...currents.flatMap((c) => [
          { title: `${c.name} real (A)`, values: c.current.map((v) => v[0]) },
          { title: `${c.name} imaginary (A)`, values: c.current.map((v) => v[1]) },
        ]),
      ]),
      'text/csv',
    );
  return (
    <Card
      title="Current through rectangles"
      about={`run ${run.number}, peak, for ${wave ? '1 V/m' : '1 W in'}`}
      file={`${stem}-current`}
      exports={[{ label: 'Values (CSV)', act: csv }]}
    >
      <div className="scroll">
        <table className="figures">
          <thead>
            <tr>
              <th>rectangle</th>
              {recordAt.map((f) => (
                <th key={f}>{formatSI(f, 'frequency')}</th>
              ))}
            </tr>
          </thead>
          <tbody>
            {currents.map((c) => (
              <tr key={c.name}>
                <td>
                  {c.name}, {'xyz'[c.normal]} = {formatSI(c.at, 'length', 4)}
                </td>
                {c.current.map(([re, im], i) => (
                  <td key={recordAt[i]} className="mono">
                    {(1e3 * Math.hypot(re, im)).toPrecision(4)} mA, {((180 * Math.atan2(im, re)) / Math.PI).toFixed(1)}°
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

type FieldLine = NonNullable<NonNullable<Run['meta']>['fieldLines']>[number];

/** Size of the field's components along a line at the lens frequency. */
function LineCard({ run, stem, line, frequency }: Props & { line: FieldLine; frequency: number }) {
  const dark = useDark();
  const field = useArray(run.id, `line:${line.name}`).data;
  const place = useArray(run.id, `line:${line.name}:at`).data;
  const count = place?.data.length ?? 0;
  const start = frequency * count * 6;
  const size = (c: number): Float64Array =>
    Float64Array.from({ length: count }, (_, i) => Math.hypot(field!.data[start + 6 * i + 2 * c], field!.data[start + 6 * i + 2 * c + 1]));
  const sizes = field && place ? [0, 1, 2].map(size) : null;
  const csv = (): void => {
    if (sizes && place)
      download(
        `${stem}-${line.name}.csv`,
        writeCsv([
          { title: `${'xyz'[line.axis]} (m)`, values: place.data },
          ...sizes.map((values, c) => ({ title: `|E${'xyz'[c]}| (V/m)`, values })),
        ]),
        'text/csv',
      );
  };
  return (
    <Card
      title={`E along ${line.name}`}
      about={`run ${run.number}, ${formatSI(run.meta!.recordAt[frequency], 'frequency')}`}
      file={`${stem}-${line.name}`}
      exports={[{ label: 'Values (CSV)', act: csv }]}
    >
      {sizes && place ? (
        <LineChartBox
          x={{ label: 'xyz'[line.axis], unit: 'length', values: place.data }}
          y={{ label: 'size of the field (V/m)' }}
          traces={sizes.map((values, c) => ({ name: `|E${'xyz'[c]}|`, ...traceStyle(c + 1, dark), values }))}
        />
      ) : (
        <p className="quiet pad">Reading the line …</p>
      )}
    </Card>
  );
}

function SignalCard({ run, stem, name, at }: Props & { name: string; at: readonly number[] }) {
  const dark = useDark();
  const field = useArray(run.id, `point:${name}`).data;
  const time = useArray(run.id, `point:${name}:time`).data;
  const part = (c: number): Float64Array => Float64Array.from({ length: time!.data.length }, (_, i) => field!.data[3 * i + c]);
  const parts = field && time ? [0, 1, 2].map(part) : null;
  const csv = (): void => {
    if (parts && time)
      download(
        `${stem}-${name}.csv`,
        writeCsv([{ title: 'time (s)', values: time.data }, ...parts.map((values, c) => ({ title: `E${'xyz'[c]} (V/m)`, values }))]),
        'text/csv',
      );
  };
  return (
    <Card
      title={`E at ${name}`}
      about={`run ${run.number}, ${at.map((x) => formatSI(x, 'length', 3)).join(', ')}`}
      file={`${stem}-${name}`}
      exports={[{ label: 'Values (CSV)', act: csv }]}
    >
      {parts && time ? (
        <LineChartBox
          x={{ label: 'time', unit: 'time', values: time.data }}
          y={{ label: 'field (V/m)' }}
          traces={parts.map((values, c) => ({ name: `E${'xyz'[c]}`, ...traceStyle(c + 1, dark), values }))}
        />
      ) : (
        <p className="quiet pad">Reading the signal …</p>
      )}
    </Card>
  );
}
