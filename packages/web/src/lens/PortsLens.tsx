import { Popover } from '@mui/material';
import { channelKeys, referenceOf } from '@jadebell/core/results';
import { useState } from 'react';
import type { Run } from '../api/types.ts';
import { useLens } from './lens.ts';
import { PortsTable } from './PortsTable.tsx';
import { Tool } from '../kit/Tool.tsx';
import { Choice } from '../kit/Choice.tsx';

/** Reference impedances, planes and gaps of the ports: how S is seen, without a new run. */
export function PortsLens({ run, gaps: known }: { run: Run; gaps: boolean }) {
  const { references, shifts, gaps, set } = useLens();
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const { ports, excitations } = run.meta!;
  const names = channelKeys(ports);
  const whole = excitations.length === ports.length;
  const changed = Object.values(references).filter(Boolean).length + Object.values(shifts).filter(Boolean).length + (gaps === 'kept' ? 0 : 1);
  const portNames = [...new Set(ports.map((p) => p.name))];
  return (
    <>
      <Tool aria-haspopup="dialog" aria-expanded={anchor !== null} aria-pressed={changed > 0} onClick={(e) => setAnchor(e.currentTarget)}>
        Ports{changed ? `: ${changed} changed` : ''}
      </Tool>
      <Popover anchorEl={anchor} open={anchor !== null} onClose={() => setAnchor(null)} anchorOrigin={{ vertical: 'bottom', horizontal: 'left' }}>
        <div className="pad" role="dialog" aria-label="Ports as they are read" style={{ minWidth: 380, maxHeight: 460, overflow: 'auto' }}>
          <PortsTable meta={run.meta!} />
          {whole && portNames.length > 0 && (
            <div className="row" style={{ marginTop: 8 }}>
              {names.some((_, c) => referenceOf(ports[c])) && <span className="quiet">all ports to</span>}
              {(names.some((_, c) => referenceOf(ports[c])) ? ['50', '75'] : []).map((z) => (
                <Tool
                  key={z}
                  onClick={() => set({ references: Object.fromEntries(names.filter((_, c) => referenceOf(ports[c])).map((n) => [n, z])) })}
                >
                  {z} ohm
                </Tool>
              ))}
              <Tool onClick={() => set({ references: {}, shifts: {}, gaps: 'kept' })}>As solved</Tool>
            </div>
          )}
          {known && (
            <div className="row" style={{ marginTop: 8 }}>
              <span title="What the gaps of lumped ports add to their lines, as a reference run found it.">
                gaps of lumped ports{' '}
                <Choice
                  label="Gaps of ports"
                  value={gaps}
                  options={[
                    { value: 'kept', label: 'kept' },
                    { value: 'out', label: 'taken out' },
                    { value: 'both', label: 'both' },
                  ]}
                  onChange={(v) => set({ gaps: v })}
                />
              </span>
            </div>
          )}
        </div>
      </Popover>
    </>
  );
}
