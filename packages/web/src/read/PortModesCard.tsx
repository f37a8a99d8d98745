import { writeCsv } from '@jadebell/core/csv';
import { formatSI } from '@jadebell/core/format';
import { channelNames } from '@jadebell/core/s';
import { useArray } from '../api/hooks.ts';
import type { Run } from '../api/types.ts';
import { Card } from '../charts/Card.tsx';
import { ModePicture } from '../charts/ModePicture.tsx';
import { download } from '../ui/download.ts';

/** Modes of the guided ports: their fields, and propagation at the middle and the ends of the band. */
export function PortModesCard({ run, stem }: { run: Run; stem: string }) {
  const { ports } = run.meta!;
  const guided = ports.map((p, n) => ({ ...p, n })).filter((p) => p.mode !== undefined);
  const beta = useArray(guided.length ? run.id : null, 'beta').data;
  const frequency = useArray(guided.length ? run.id : null, 'frequency').data;
  if (!guided.length) return null;
  const names = channelNames(ports);
  const at = (n: number, f: number): [number, number] => {
    const i = 2 * (f * ports.length + n);
    return [beta!.data[i], beta!.data[i + 1]];
  };
  const told = (n: number, f: number): string => {
    const [re, im] = at(n, f);
    return re > 0 ? `${re.toPrecision(5)} rad/m` : `cut off, ${(-im).toPrecision(4)} Np/m`;
  };
  const csv = (): void =>
    download(
      `${stem}-port-modes.csv`,
      writeCsv([
        { title: 'frequency (Hz)', values: frequency!.data },
        ...guided.flatMap(({ n }) => [
          { title: `${names[n]} beta (rad/m)`, values: Array.from(frequency!.data, (_, f) => at(n, f)[0]) },
          { title: `${names[n]} attenuation (Np/m)`, values: Array.from(frequency!.data, (_, f) => -at(n, f)[1]) },
        ]),
      ]),
      'text/csv',
    );
  return (
    <Card
      title="Port modes"
      about={`run ${run.number}, E across the guide`}
      file={`${stem}-port-modes`}
      exports={[{ label: 'Propagation (CSV)', act: csv }]}
    >
      <div className="scroll">
        <table className="figures">
          <tbody>
            {guided.map(({ n, family, impedance, voltage }) => (
              <tr key={n}>
                <td style={{ textAlign: 'left' }}>
                  <Picture run={run.id} channel={n} label={`Field of ${names[n]}`} />
                </td>
                <td style={{ whiteSpace: 'normal', textAlign: 'left' }}>
                  <b>{names[n]}</b> <span className="quiet">{family}</span>
                  {impedance !== undefined && <span className="mono"> {formatSI(impedance, 'resistance', 4)}</span>}
                  {voltage !== undefined && <div className="mono">{voltage.toPrecision(4)} V for 1 W along its path</div>}
                  {beta &&
                    frequency &&
                    [0, frequency.data.length >> 1, frequency.data.length - 1].map((f) => (
                      <div key={f}>
                        <span className="quiet">{formatSI(frequency.data[f], 'frequency', 4)}</span> <span className="mono">{told(n, f)}</span>
                      </div>
                    ))}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </Card>
  );
}

function Picture({ run, channel, label }: { run: string; channel: number; label: string }) {
  const e = useArray(run, `mode:${channel}`).data;
  const u = useArray(run, `mode:${channel}:u`).data;
  const v = useArray(run, `mode:${channel}:v`).data;
  return e && u && v ? <ModePicture u={u.data} v={v.data} e={e.data} label={label} /> : null;
}
