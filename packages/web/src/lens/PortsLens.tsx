import { Popover } from '@mui/material';
import { channelNames, referenceOf } from '@jadebell/core/results';
import { useState } from 'react';
import type { Run } from '../api/types.ts';
import { useLens } from './lens.ts';
import { PortsTable } from './PortsTable.tsx';

/** Reference impedances, planes and gaps of the ports: how S is seen, without a new run. */
export function PortsLens({ run, gaps: known }: { run: Run; gaps: boolean }) {
  const { references, shifts, gaps, set } = useLens();
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const { ports, excitations } = run.meta!;
  const names = channelNames(ports);
  const whole = excitations.length === ports.length;
  const changed = Object.values(references).filter(Boolean).length + Object.values(shifts).filter(Boolean).length + (gaps === 'kept' ? 0 : 1);
  const portNames = [...new Set(ports.map((p) => p.name))];
  return (
    <>
      <button
        type="button"
        className="tool"
        aria-haspopup="dialog"
        aria-expanded={anchor !== null}
        aria-pressed={changed > 0}
        onClick={(e) => setAnchor(e.currentTarget)}
      >
        Ports{changed ? `: ${changed} changed` : ''}
      </button>
      <Popover anchorEl={anchor} open={anchor !== null} onClose={() => setAnchor(null)} anchorOrigin={{ vertical: 'bottom', horizontal: 'left' }}>
        <div className="pad" role="dialog" aria-label="Ports as they are read" style={{ minWidth: 380, maxHeight: 460, overflow: 'auto' }}>
          <PortsTable meta={run.meta!} />
          {whole && portNames.length > 0 && (
            <p className="row" style={{ marginTop: 8 }}>
              {names.some((_, c) => referenceOf(ports[c])) && <span className="quiet">all ports to</span>}
              {(names.some((_, c) => referenceOf(ports[c])) ? ['50', '75'] : []).map((z) => (
                <button
                  key={z}
                  type="button"
                  className="tool"
                  onClick={() => set({ references: Object.fromEntries(names.filter((_, c) => referenceOf(ports[c])).map((n) => [n, z])) })}
                >
                  {z} ohm
                </button>
              ))}
              <button type="button" className="tool" onClick={() => set({ references: {}, shifts: {}, gaps: 'kept' })}>
                As solved
              </button>
            </p>
          )}
          {known && (
            <p className="row" style={{ marginTop: 8 }}>
              <label title="What the gaps of lumped ports add to their lines, as a reference run found it.">
                gaps of lumped ports{' '}
                <select
                  className="plain-select"
                  aria-label="Gaps of ports"
                  value={gaps}
                  onChange={(e) => set({ gaps: e.target.value as typeof gaps })}
                >
                  <option value="kept">kept</option>
                  <option value="out">taken out</option>
                  <option value="both">both</option>
                </select>
              </label>
            </p>
          )}
        </div>
      </Popover>
    </>
  );
}
