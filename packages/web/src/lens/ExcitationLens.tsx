import { Popover } from '@mui/material';
import { channelKeys, channelNames } from '@jadebell/core/results';
import { useState } from 'react';
import type { Run } from '../api/types.ts';
import { Choice } from '../kit/Choice.tsx';
import { Tool } from '../kit/Tool.tsx';
import { useLens } from './lens.ts';
import { WavesEditor } from './WavesEditor.tsx';

/** What runs into the ports: one channel, what was recorded, or a named combination of waves. */
export function ExcitationLens({ run }: { run: Run }) {
  const { excitation, combinations, set } = useLens();
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const { ports, excitations, combined } = run.meta!;
  const keys = channelKeys(ports);
  const names = channelNames(ports);
  const read = (key: string): string => names[keys.indexOf(key)] ?? key;
  const own = excitations.map((c) => keys[c]);
  if (own.length < 2) return null;
  const recorded = combined ? 'as recorded together' : `${read(own[0])}, as recorded`;
  const waves =
    excitation?.waves ??
    (combined
      ? combined.map((w) => ({ channel: keys[w.channel], amplitude: w.amplitude, phase: (180 * w.phase) / Math.PI }))
      : [{ channel: own[0], amplitude: 1, phase: 0 }]);
  // One that the browser kept before projects did stands among them too.
  const named =
    excitation && !own.includes(excitation.name) && !combinations.some((c) => c.name === excitation.name)
      ? [...combinations, excitation]
      : combinations;
  const choose = (name: string): void => {
    const alone = { name, waves: [{ channel: name, amplitude: 1, phase: 0 }] };
    set({ excitation: name === '' ? null : (named.find((c) => c.name === name) ?? alone) });
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
            ...named.map(({ name }) => ({ value: name, label: name })),
          ]}
          onChange={choose}
        />
      </span>
      <Tool aria-haspopup="dialog" onClick={(e) => setAnchor(e.currentTarget)}>
        Waves
      </Tool>
      <Popover anchorEl={anchor} open={anchor !== null} onClose={() => setAnchor(null)} anchorOrigin={{ vertical: 'bottom', horizontal: 'left' }}>
        <div className="pad" role="dialog" aria-label="Waves that run in together" style={{ maxHeight: 420, overflow: 'auto' }}>
          <WavesEditor channels={own} read={read} waves={waves} />
        </div>
      </Popover>
    </div>
  );
}
