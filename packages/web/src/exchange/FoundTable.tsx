import { formatSI } from '@jadebell/core/expressions/format';
import { TableBody, TableCell, TableHead, TableRow } from '@mui/material';
import { Choice, plainOptions } from '../kit/Choice.tsx';
import { Field } from '../kit/Field.tsx';
import { Figures } from '../kit/Figures.tsx';
import { Tick } from '../kit/Tick.tsx';
import type { Found, FoundPart } from '../workers/exchange.protocol.ts';

/** Metres of the units that a file may be in. */
export const units: Record<string, number> = { nm: 1e-9, um: 1e-6, mm: 1e-3, cm: 1e-2, m: 1, mil: 25.4e-6, inch: 25.4e-3 };

/** What is to become of a part of a file. */
export interface Taking {
  taken: boolean;
  material: string;
  thickness: string;
}

const size = (part: FoundPart, unit: string): string =>
  part.size.map((s) => (unit ? formatSI(s * units[unit], 'length', 4) : Number(s.toPrecision(4)))).join(' × ');

interface Props {
  found: Found;
  unit: string;
  choices: readonly Taking[];
  materials: readonly string[];
  onChange(part: number, change: Partial<Taking>): void;
}

/** Parts or layers of a file: which are taken, how large they are, of what they are. */
export function FoundTable({ found, unit, choices, materials, onChange }: Props) {
  return (
    <div className="table-scroll">
      <Figures>
        <TableHead>
          <TableRow>
            <TableCell>take</TableCell>
            <TableCell>{found.parts[0]?.kind === 'outlines' ? 'layer' : 'part'}</TableCell>
            <TableCell>size</TableCell>
            <TableCell>material</TableCell>
            <TableCell>{found.parts[0]?.kind === 'outlines' ? 'thickness' : 'triangles'}</TableCell>
            <TableCell>found</TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {found.parts.map((p, i) => (
            <TableRow key={p.index}>
              <TableCell>
                <Tick
                  silent
                  label={`Take ${p.name}`}
                  value={choices[i]?.taken ?? false}
                  disabled={!p.closed}
                  onChange={(taken) => onChange(i, { taken })}
                />
              </TableCell>
              <TableCell>{p.name}</TableCell>
              <TableCell className="mono">{size(p, unit)}</TableCell>
              <TableCell>
                <Choice
                  look="chip"
                  label={`Material of ${p.name}`}
                  value={choices[i]?.material ?? ''}
                  options={plainOptions(materials)}
                  onChange={(material) => onChange(i, { material })}
                />
              </TableCell>
              <TableCell>
                {p.kind === 'outlines' ? (
                  <Field
                    mono
                    width={80}
                    label={`Thickness of ${p.name}`}
                    value={choices[i]?.thickness ?? ''}
                    onChange={(thickness) => onChange(i, { thickness })}
                  />
                ) : (
                  <span className="quiet">{p.count.toLocaleString('en')}</span>
                )}
              </TableCell>
              <TableCell className={p.closed ? 'quiet' : 'bad'}>{p.remarks.join(' ')}</TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Figures>
    </div>
  );
}
