import { type MaterialEntry, materialSchema } from '@jadebell/core/document';
import { useState } from 'react';
import { DispersionForm } from './DispersionForm.tsx';
import { Choice, plainOptions } from '../kit/Choice.tsx';
import { FigureField } from './FigureField.tsx';
import { Message } from '../kit/Message.tsx';

type NumberKey = 'permittivity' | 'lossTangent' | 'permeability' | 'magneticLossTangent' | 'atFrequency' | 'conductivity';
type TripleKey = 'permittivityAlong' | 'permeabilityAlong';

const fields: Record<MaterialEntry['kind'], [NumberKey, string, string][]> = {
  dielectric: [
    ['permittivity', 'relative permittivity', ''],
    ['lossTangent', 'loss tangent', ''],
    ['permeability', 'relative permeability', ''],
    ['magneticLossTangent', 'magnetic loss tangent', ''],
    ['atFrequency', 'given for', 'GHz'],
  ],
  conductor: [
    ['conductivity', 'conductivity', 'S/m'],
    ['permeability', 'relative permeability', ''],
  ],
};
const scale: Partial<Record<NumberKey, number>> = { atFrequency: 1e9 };
const triples: [TripleKey, string][] = [
  ['permittivityAlong', 'permittivity along x, y, z'],
  ['permeabilityAlong', 'permeability along x, y, z'],
];

/** Edits an own material; a figure that cannot be is refused in words and the old one stays. */
export function MaterialForm({ material, taken, onChange }: { material: MaterialEntry; taken: string[]; onChange(next: MaterialEntry): void }) {
  const [fault, setFault] = useState<string | null>(null);
  const propose = (change: Partial<MaterialEntry>): void => {
    const next = JSON.parse(JSON.stringify({ ...material, ...change })) as MaterialEntry;
    const result = materialSchema.safeParse(next);
    if (!next.name.trim() || taken.includes(next.name)) setFault(next.name.trim() ? `${next.name} is taken already.` : 'A material needs a name.');
    else if (!result.success) {
      const [issue] = result.error.issues;
      setFault(`The ${String(issue.path[0] ?? 'value').replaceAll(/[A-Z]/g, (l) => ` ${l.toLowerCase()}`)} does not fit: ${issue.message}.`);
    } else {
      setFault(null);
      onChange(next);
    }
  };
  const number = (text: string): number | undefined | null => {
    if (!text.trim()) return undefined;
    const v = Number(text);
    return Number.isFinite(v) ? v : null;
  };
  const field = (label: string, value: string, commit: (text: string) => void, unit = '') => (
    <FigureField key={label} label={label} value={value} unit={unit} onChange={commit} />
  );
  return (
    <div style={{ display: 'grid', gap: 4, marginTop: 10 }}>
      {field('name', material.name, (t) => propose({ name: t.trim() }))}
      <div className="row" style={{ gap: 6 }}>
        <span style={{ width: 170 }}>kind</span>
        <Choice
          look="chip"
          label="kind"
          value={material.kind}
          options={plainOptions(['dielectric', 'conductor'] as const)}
          onChange={(kind) => propose({ kind, dispersion: undefined })}
        />
      </div>
      {material.kind === 'dielectric' && (
        <DispersionForm value={material.dispersion} onChange={(dispersion) => propose({ dispersion })} onFault={setFault} />
      )}
      {!material.dispersion &&
        fields[material.kind].map(([k, label, unit]) =>
          field(
            label,
            material[k] === undefined ? '' : String(Number((material[k]! / (scale[k] ?? 1)).toPrecision(12))),
            (t) => {
              const v = number(t);
              if (v === null) setFault(`The ${label} is not a number.`);
              else propose({ [k]: v === undefined ? undefined : v * (scale[k] ?? 1) });
            },
            unit,
          ),
        )}
      {material.kind === 'dielectric' &&
        !material.dispersion &&
        triples.map(([k, label]) =>
          field(label, material[k]?.join(', ') ?? '', (t) => {
            const parts = t
              .split(/[,;\s]+/)
              .filter(Boolean)
              .map(Number);
            if (!t.trim()) propose({ [k]: undefined });
            else if (parts.length === 3 && parts.every(Number.isFinite)) propose({ [k]: parts as [number, number, number] });
            else setFault(`Give three numbers for the ${label}, or leave it empty.`);
          }),
        )}
      {field('source', material.source ?? '', (t) => propose({ source: t.trim() || undefined }))}
      {fault && <Message>{fault}</Message>}
    </div>
  );
}
