import { writeCsv } from '@jadebell/core/formats/csv';
import { formatSI } from '@jadebell/core/expressions/format';
import { propagationColumns } from '@jadebell/core/reading';
import { channelNames } from '@jadebell/core/results';
import { useArray } from '../api/hooks.ts';
import type { Run } from '../api/types.ts';
import { Card } from '../charts/Card.tsx';
import { ModePicture } from '../charts/ModePicture.tsx';
import { useFrequency } from '../lens/useFrequency.ts';
import { c0 } from '@jadebell/core/numerics';
import { download } from '../ui/download.ts';
import { Figures } from '../kit/Figures.tsx';
import { TableBody, TableRow, TableCell } from '@mui/material';
import { Scroll } from '../kit/Scroll.tsx';

const eta0 = 376.730313668;
const formatNumber = (v: number): string => v.toPrecision(4);

/** Modes of the guided ports: their fields, and what they do at the frequency of the lens. */
export function PortModesCard({ run, stem }: { run: Run; stem: string }) {
  const { ports } = run.meta!;
  const guided = ports.map((p, n) => ({ ...p, n })).filter((p) => p.mode !== undefined);
  const beta = useArray(guided.length ? run.id : null, 'beta').data;
  const frequency = useArray(guided.length ? run.id : null, 'frequency').data;
  const where = useFrequency();
  if (!guided.length) return null;
  const names = channelNames(ports);
  const at = (n: number, f: number): [number, number] => {
    const i = 2 * (f * ports.length + n);
    return [beta!.data[i], beta!.data[i + 1]];
  };
  let near = 0;
  if (frequency && where !== null) frequency.data.forEach((f, i) => (near = Math.abs(f - where) < Math.abs(frequency.data[near] - where) ? i : near)); // prettier-ignore
  /** What a mode does at a frequency of the band. */
  const told = (n: number, f: number): [string, string][] => {
    const [re, im] = at(n, f);
    const k0 = (2 * Math.PI * frequency!.data[f]) / c0;
    if (!(re > 0)) return [['evanescent', `decays by ${formatNumber(-im)} Np/m, ${formatNumber(-8.685889638 * im)} dB/m`]];
    return [
      ['propagates', `${re.toPrecision(6)} rad/m, index ${(re / k0).toPrecision(5)}, wavelength ${formatSI((2 * Math.PI) / re, 'length', 5)}`],
      ...(im < 0 ? [['loses', `${formatNumber(-8.685889638 * im)} dB/m`] as [string, string]] : []),
      ...(ports[n].family === 'TE' ? [['wave impedance', `${((eta0 * k0) / re).toPrecision(5)} ohm`] as [string, string]] : []),
    ];
  };
  const csv = (): void => download(`${stem}-port-modes.csv`, writeCsv(propagationColumns(run.meta!, frequency!.data, beta!.data)), 'text/csv');
  return (
    <Card
      title="Port modes"
      about={`run ${run.number}, E across the guide${frequency ? `, at ${formatSI(frequency.data[near], 'frequency', 5)}` : ''}`}
      file={`${stem}-port-modes`}
      exports={[{ label: 'Propagation (CSV)', act: csv }]}
      waiting={!beta || !frequency}
    >
      <Scroll label="Port modes">
        <Figures>
          <TableBody>
            {guided.map(({ n, family, modeName, impedance, voltage }) => (
              <TableRow key={n}>
                <TableCell style={{ textAlign: 'left' }}>
                  <Picture run={run.id} channel={n} label={`Field of ${names[n]}`} />
                </TableCell>
                <TableCell style={{ whiteSpace: 'normal', textAlign: 'left' }}>
                  <b>{names[n]}</b> <span className="quiet">{names[n].endsWith(modeName ?? '') ? family : modeName}</span>
                  {impedance !== undefined && <span className="mono"> {formatSI(impedance, 'resistance', 4)}</span>}
                  {voltage !== undefined && <div className="mono">{voltage.toPrecision(4)} V for 1 W along its path</div>}
                  {beta &&
                    frequency &&
                    told(n, near).map(([what, value]) => (
                      <div key={what}>
                        <span className={what === 'evanescent' ? 'warn' : 'quiet'}>{what}</span> <span className="mono">{value}</span>
                      </div>
                    ))}
                </TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Figures>
      </Scroll>
    </Card>
  );
}

function Picture({ run, channel, label }: { run: string; channel: number; label: string }) {
  const e = useArray(run, `mode:${channel}`).data;
  const u = useArray(run, `mode:${channel}:u`).data;
  const v = useArray(run, `mode:${channel}:v`).data;
  return e && u && v ? <ModePicture u={u.data} v={v.data} e={e.data} label={label} /> : null;
}
