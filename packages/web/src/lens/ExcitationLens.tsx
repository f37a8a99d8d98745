import { Popover, TableHead, TableRow, TableCell, TableBody } from '@mui/material';
import { channelKeys, channelNames } from '@jadebell/core/results';
import { useState } from 'react';
import type { Run } from '../api/types.ts';
import { type Excitation, useLens } from './lens.ts';
import { Tool } from '../kit/Tool.tsx';
import { Figures } from '../kit/Figures.tsx';
import { Choice } from '../kit/Choice.tsx';
import { TypedField } from '../kit/Field.tsx';

/** What runs into the ports: one channel, what was recorded, or a named combination of waves. */
export function ExcitationLens({ run }: { run: Run }) {
  const { excitation, set } = useLens();
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const { ports, excitations, combined } = run.meta!;
  const names = channelKeys(ports);
  const read = (key: string): string => channelNames(ports)[names.indexOf(key)] ?? key;
  const own = excitations.map((c) => names[c]);
  if (own.length < 2) return null;
  const recorded = combined ? 'as recorded together' : `${read(own[0])}, as recorded`;
  const waves =
    excitation?.waves ??
    (combined
      ? combined.map((w) => ({ channel: names[w.channel], amplitude: w.amplitude, phase: (180 * w.phase) / Math.PI }))
      : [{ channel: own[0], amplitude: 1, phase: 0 }]);
  const change = (channel: string, part: Partial<Excitation['waves'][number]>): void => {
    const known = waves.find((w) => w.channel === channel);
    const next = { channel, amplitude: 0, phase: 0, ...known, ...part };
    const all = [...waves.filter((w) => w.channel !== channel), next].filter((w) => w.amplitude !== 0);
    set({
      excitation: {
        name: excitation?.name && !own.includes(excitation.name) ? excitation.name : 'together',
        waves: own.flatMap((c) => all.filter((w) => w.channel === c)),
      },
    });
  };
  return (
    <div className="group">
      <span className="group">
        <span className="quiet">excited</span>
        <Choice
          label="Excitation"
          value={excitation?.name ?? ''}
          options={[
            { value: '', label: recorded },
            ...own.map((c) => ({ value: c, label: `${read(c)} alone` })),
            ...(excitation && !own.includes(excitation.name) ? [{ value: excitation.name, label: excitation.name }] : []),
          ]}
          onChange={(name) => set({ excitation: name === '' ? null : { name, waves: [{ channel: name, amplitude: 1, phase: 0 }] } })}
        />
      </span>
      <Tool aria-haspopup="dialog" onClick={(e) => setAnchor(e.currentTarget)}>
        Waves
      </Tool>
      <Popover anchorEl={anchor} open={anchor !== null} onClose={() => setAnchor(null)} anchorOrigin={{ vertical: 'bottom', horizontal: 'left' }}>
        <div className="pad" role="dialog" aria-label="Waves that run in together" style={{ maxHeight: 420, overflow: 'auto' }}>
          <span className="row">
            <span className="quiet">name</span>
            <TypedField
              label="Name of the combination"
              value={excitation?.name ?? ''}
              placeholder="together"
              check={(t) => (t.length > 40 ? 'at most 40 characters' : null)}
              onChange={(name) => set({ excitation: { name: name || 'together', waves } })}
            />
          </span>
          <Figures>
            <TableHead>
              <TableRow>
                <TableCell>channel</TableCell>
                <TableCell>amplitude</TableCell>
                <TableCell>phase (deg)</TableCell>
              </TableRow>
            </TableHead>
            <TableBody>
              {own.map((channel) => {
                const wave = waves.find((w) => w.channel === channel);
                const number = (t: string): string | null => (t !== '' && !Number.isFinite(Number(t)) ? 'a number' : null);
                return (
                  <TableRow key={channel}>
                    <TableCell>{read(channel)}</TableCell>
                    <TableCell>
                      <TypedField
                        label={`Amplitude of ${read(channel)}`}
                        width={60}
                        value={String(wave?.amplitude ?? 0)}
                        check={number}
                        onChange={(t) => change(channel, { amplitude: Number(t) })}
                      />
                    </TableCell>
                    <TableCell>
                      <TypedField
                        label={`Phase of ${read(channel)}`}
                        width={60}
                        value={String(Number((wave?.phase ?? 0).toFixed(4)))}
                        check={number}
                        onChange={(t) => change(channel, { phase: Number(t) })}
                      />
                    </TableCell>
                  </TableRow>
                );
              })}
            </TableBody>
          </Figures>
        </div>
      </Popover>
    </div>
  );
}
