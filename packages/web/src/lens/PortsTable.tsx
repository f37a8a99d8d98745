import { compileValue } from '@jadebell/core/expressions';
import { formatSI } from '@jadebell/core/expressions/format';
import { type ResultMeta, channelNames, readReference, referenceOf } from '@jadebell/core/results';
import { referenceText, useLens } from './lens.ts';
import { TypedField } from './TypedField.tsx';

/** For each port the impedance that S refers to, and how far its plane is moved. */
export function PortsTable({ meta }: { meta: ResultMeta }) {
  const { references, shifts, set } = useLens();
  const { ports, excitations } = meta;
  const names = channelNames(ports);
  const whole = excitations.length === ports.length;
  return (
    <table className="figures">
      <thead>
        <tr>
          <th>port</th>
          <th title="Ohm; empty: its own. Complex ones as 50-20j.">referred to (ohm)</th>
          <th title="Into the structure is positive.">plane in by</th>
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
                  width={72}
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
                    width={72}
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
  );
}
