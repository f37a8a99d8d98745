import { Popover } from '@mui/material';
import { formatSI } from '@jadebell/core/format';
import { compileValue } from '@jadebell/core/expressions';
import { channelNames, readReference, referenceOf } from '@jadebell/core/s';
import { useEffect, useState } from 'react';
import type { Run } from '../../api/types.ts';
import { referenceText, useLens } from './lens.ts';

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
          <table className="figures">
            <thead>
              <tr>
                <th>port</th>
                <th title="Ohm; empty: its own. Complex ones as 50-20j.">referred to (ohm)</th>
                <th title="Into the structure is positive.">plane moved in by</th>
              </tr>
            </thead>
            <tbody>
              {names.map((name, c) => {
                const own = referenceOf(ports[c]);
                const first = ports.findIndex((p) => p.name === ports[c].name) === c;
                return (
                  <tr key={name}>
                    <td>{name}</td>
                    <td>
                      <TypedField
                        label={`Reference of ${name}`}
                        value={references[name] ?? ''}
                        placeholder={own ? referenceText(own) : 'its mode'}
                        disabled={!whole || !own}
                        why={
                          !whole
                            ? 'S can be referred to another impedance only where every port was excited.'
                            : own
                              ? null
                              : 'This mode has no impedance of its own to come from.'
                        }
                        check={(t) => (t && !readReference(t) ? 'ohms, such as 50 or 50-20j' : null)}
                        onChange={(t) => set({ references: { ...references, [name]: t } })}
                      />
                    </td>
                    <td>
                      {first && (
                        <TypedField
                          label={`Plane of ${ports[c].name}`}
                          value={shifts[ports[c].name] ? formatSI(shifts[ports[c].name], 'length', 6) : ''}
                          placeholder="0 mm"
                          disabled={ports[c].mode === undefined}
                          why={ports[c].mode === undefined ? 'A lumped port has no line of its own along which its plane could move.' : null}
                          check={(t) => {
                            const v = t ? compileValue(t, 'length') : 0;
                            return typeof v === 'string' ? v : null;
                          }}
                          onChange={(t) => set({ shifts: { ...shifts, [ports[c].name]: t ? (compileValue(t, 'length') as number) : 0 } })}
                        />
                      )}
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </table>
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

interface FieldProps {
  label: string;
  value: string;
  placeholder?: string;
  disabled?: boolean;
  why?: string | null;
  width?: number;
  /** Why a text cannot be taken; null if it can. */
  check(text: string): string | null;
  onChange(text: string): void;
}

/** A small field that takes its text with Enter or on leaving, and says why it does not. */
export function TypedField({ label, value, placeholder, disabled, why, width = 96, check, onChange }: FieldProps) {
  const [text, setText] = useState(value);
  useEffect(() => setText(value), [value]);
  const fault = check(text.trim());
  const commit = (): void => {
    if (!fault && text.trim() !== value) onChange(text.trim());
  };
  return (
    <>
      <input
        className="chip mono"
        style={{ width }}
        aria-label={label}
        aria-invalid={fault !== null}
        title={why ?? fault ?? undefined}
        placeholder={placeholder}
        disabled={disabled}
        value={text}
        onChange={(e) => setText(e.target.value)}
        onBlur={commit}
        onKeyDown={(e) => {
          if (e.key === 'Enter') commit();
          if (e.key === 'Escape') setText(value);
        }}
      />
      {fault && (
        <span role="alert" className="bad" style={{ display: 'block', maxWidth: 220, whiteSpace: 'normal', fontSize: 12 }}>
          {fault}
        </span>
      )}
    </>
  );
}
