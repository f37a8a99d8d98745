import { compileValue } from '@jadebell/core/expressions';
import { formatSI } from '@jadebell/core/expressions/format';
import { type ResultMeta, channelKeys, channelNames, readReference, referenceOf } from '@jadebell/core/results';
import { referenceText, useLens } from './lens.ts';
import { Figures } from '../kit/Figures.tsx';
import { TableHead, TableRow, TableCell, TableBody } from '@mui/material';
import { TypedField } from '../kit/Field.tsx';

/** For each port the impedance that S refers to, and how far its plane is moved. */
export function PortsTable({ meta }: { meta: ResultMeta }) {
  const { references, shifts, set } = useLens();
  const { ports, excitations } = meta;
  const keys = channelKeys(ports);
  const names = channelNames(ports);
  const whole = excitations.length === ports.length;
  return (
    <Figures>
      <TableHead>
        <TableRow>
          <TableCell>port</TableCell>
          <TableCell title="Ohm; empty: its own. Complex ones as 50-20j.">referred to (ohm)</TableCell>
          <TableCell title="Into the structure is positive.">plane in by</TableCell>
        </TableRow>
      </TableHead>
      <TableBody>
        {keys.map((key, c) => {
          const name = names[c];
          const own = referenceOf(ports[c]);
          const first = ports.findIndex((p) => p.name === ports[c].name) === c;
          return (
            <TableRow key={key}>
              <TableCell>{name}</TableCell>
              <TableCell>
                <TypedField
                  label={`Reference of ${name}`}
                  width={72}
                  value={references[key] ?? ''}
                  placeholder={own ? referenceText(own) : 'its mode'}
                  disabled={!whole || !own}
                  hint={
                    !whole
                      ? 'S can be referred to another impedance only where every port was excited.'
                      : own
                        ? null
                        : 'This mode has no impedance of its own to come from.'
                  }
                  check={(t) => (t && !readReference(t) ? 'ohms, such as 50 or 50-20j' : null)}
                  onChange={(t) => set({ references: { ...references, [key]: t } })}
                />
              </TableCell>
              <TableCell>
                {first && (
                  <TypedField
                    label={`Plane of ${ports[c].name}`}
                    width={72}
                    value={shifts[ports[c].name] ? formatSI(shifts[ports[c].name], 'length', 6) : ''}
                    placeholder="0 mm"
                    disabled={ports[c].mode === undefined}
                    hint={ports[c].mode === undefined ? 'A lumped port has no line of its own along which its plane could move.' : null}
                    check={(t) => {
                      const v = t ? compileValue(t, 'length') : 0;
                      return typeof v === 'string' ? v : null;
                    }}
                    onChange={(t) => set({ shifts: { ...shifts, [ports[c].name]: t ? (compileValue(t, 'length') as number) : 0 } })}
                  />
                )}
              </TableCell>
            </TableRow>
          );
        })}
      </TableBody>
    </Figures>
  );
}
