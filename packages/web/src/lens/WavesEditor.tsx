import { TableBody, TableCell, TableHead, TableRow } from '@mui/material';
import { TypedField } from '../kit/Field.tsx';
import { Figures } from '../kit/Figures.tsx';
import { Tool } from '../kit/Tool.tsx';
import { freshName, withCombination, withWave } from './combinations.ts';
import { type Excitation, useLens } from './lens.ts';

interface Props {
  /** Channels that were excited, and how each is read. */
  channels: readonly string[];
  read(channel: string): string;
  /** The waves that run in now. */
  waves: Excitation['waves'];
}

/** Amplitudes and phases of the waves that run in, as a combination that has a name. */
export function WavesEditor({ channels, read, waves }: Props) {
  const { excitation, combinations, set } = useLens();
  const chosen = combinations.find((c) => c.name === excitation?.name);
  const take = (next: Excitation, was?: string): void => set({ excitation: next, combinations: withCombination(combinations, next, was) });
  const change = (channel: string, part: Partial<Excitation['waves'][number]>): void =>
    take({ name: chosen?.name ?? freshName(combinations, channels), waves: withWave(waves, channels, channel, part) });
  const number = (t: string): string | null => (t !== '' && !Number.isFinite(Number(t)) ? 'a number' : null);
  const nameFault = (t: string): string | null =>
    t.length > 40
      ? 'at most 40 characters'
      : channels.includes(t) || combinations.some((c) => c !== chosen && c.name === t)
        ? 'another name: this one is taken'
        : null;
  return (
    <>
      <span className="row">
        <span className="quiet">name</span>
        <TypedField
          label="Name of the combination"
          value={chosen?.name ?? ''}
          placeholder={freshName(combinations, channels)}
          check={nameFault}
          onChange={(name) => take({ name: name || freshName(combinations, channels), waves }, chosen?.name)}
        />
        <Tool onClick={() => take({ name: freshName(combinations, channels), waves })}>Keep as new</Tool>
        {chosen && <Tool onClick={() => set({ excitation: null, combinations: combinations.filter((c) => c !== chosen) })}>Remove</Tool>}
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
          {channels.map((channel) => {
            const wave = waves.find((w) => w.channel === channel);
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
    </>
  );
}
