import type { MaterialEntry } from '@jadebell/core/document';
import { useState } from 'react';
import { Choice } from '../kit/Choice.tsx';
import { FigureField } from './FigureField.tsx';
import { Field } from '../kit/Field.tsx';

type Dispersion = NonNullable<MaterialEntry['dispersion']>;
type Form = Dispersion['form'];

/** A figure or a list of rows of a formula: how it is called, what unit it is typed in. */
interface Figure {
  key: string;
  label: string;
  unit?: string;
  scale?: number;
}
interface Rows {
  key: string;
  label: string;
  /** Factor of each column. */
  scale: number[];
}
interface FormEntry {
  title: string;
  make: Dispersion;
  figures: Figure[];
  rows?: Rows;
}

const infinity: Figure = { key: 'infinity', label: 'permittivity at infinite frequency' };
/** Ways in which a permittivity may depend on frequency; the keys are those of the document. */
const forms: Record<Form, FormEntry> = {
  debye: {
    title: 'relaxation (Debye)',
    make: { form: 'debye', infinity: 3, static: 6, relaxation: 1e-11 },
    figures: [infinity, { key: 'static', label: 'static permittivity' }, { key: 'relaxation', label: 'relaxation time', unit: 'ps', scale: 1e-12 }],
  },
  lorentz: {
    title: 'resonances (Lorentz)',
    make: { form: 'lorentz', infinity: 2, terms: [[0.5, 1e10, 1e9]] },
    figures: [infinity],
    rows: { key: 'terms', label: 'rise, resonance in GHz, damping in GHz', scale: [1, 1e9, 1e9] },
  },
  drude: {
    title: 'free carriers (Drude)',
    make: { form: 'drude', infinity: 1, plasma: 72800, collision: 215 },
    figures: [infinity, { key: 'plasma', label: 'plasma frequency', unit: '1/cm' }, { key: 'collision', label: 'collision frequency', unit: '1/cm' }],
  },
  sellmeier: {
    title: 'index formula (Sellmeier)',
    make: { form: 'sellmeier', constant: 1, terms: [[1.1, 0.1]] },
    figures: [{ key: 'constant', label: 'constant' }],
    rows: { key: 'terms', label: 'B, C in um', scale: [1, 1] },
  },
  poles: {
    title: 'poles and residues',
    make: { form: 'poles', infinity: 2, poles: [[-6e9, 6e10, 0, -2e10]] },
    figures: [infinity],
    rows: { key: 'poles', label: 'Re p, Im p, Re r, Im r in rad/s', scale: [1, 1, 1, 1] },
  },
  table: {
    title: 'table of values',
    make: { form: 'table', points: [[1e9, 4, 0.04], [1e10, 3.9, 0.05]] }, // prettier-ignore
    figures: [],
    rows: { key: 'points', label: 'frequency in GHz, real part, loss part', scale: [1e9, 1, 1] },
  },
};

const shown = (v: number, scale = 1): string => String(Number((v / scale).toPrecision(10)));

/** How a dielectric's permittivity depends on frequency: nothing, or one of the forms with its figures. */
export function DispersionForm({
  value,
  onChange,
  onFault,
}: {
  value: Dispersion | undefined;
  onChange(next: Dispersion | undefined): void;
  onFault(message: string): void;
}) {
  const entry = value && forms[value.form];
  const figures = value as unknown as Record<string, number> | undefined;
  return (
    <>
      <div className="row" style={{ gap: 6 }}>
        <span style={{ width: 170 }}>over frequency</span>
        <Choice
          look="chip"
          label="over frequency"
          value={value?.form ?? ''}
          options={[
            { value: '', label: 'constant, loss tangent as well' },
            ...Object.entries(forms).map(([form, f]) => ({ value: form, label: f.title })),
          ]}
          onChange={(form) => onChange(form ? forms[form as Form].make : undefined)}
        />
      </div>
      {entry?.figures.map(({ key, label, unit, scale = 1 }) => (
        <FigureField
          key={key}
          label={label}
          unit={unit}
          value={shown(figures![key], scale)}
          onChange={(text) => {
            const v = Number(text);
            if (!text || !Number.isFinite(v)) onFault(`The ${label} is not a number.`);
            else onChange({ ...value!, [key]: v * scale } as Dispersion);
          }}
        />
      ))}
      {entry?.rows && <RowsField key={JSON.stringify(value)} rows={entry.rows} value={value!} onChange={onChange} onFault={onFault} />}
    </>
  );
}

/** Rows of numbers as text, one row a line; also pasted from a table. */
function RowsField({
  rows,
  value,
  onChange,
  onFault,
}: {
  rows: Rows;
  value: Dispersion;
  onChange(next: Dispersion): void;
  onFault(message: string): void;
}) {
  const list = (value as unknown as Record<string, number[][]>)[rows.key];
  const written = list.map((row) => row.map((v, i) => shown(v, rows.scale[i])).join('  ')).join('\n');
  const [text, setText] = useState(written);
  const commit = (): void => {
    if (text === written) return;
    const next: number[][] = [];
    for (const [n, line] of text.split('\n').entries()) {
      const parts = line.split(/[,;\s]+/).filter(Boolean);
      if (!parts.length) continue;
      const numbers = parts.map(Number);
      if (numbers.length !== rows.scale.length || !numbers.every(Number.isFinite))
        return onFault(`Row ${n + 1} should hold ${rows.scale.length} numbers: ${rows.label}.`);
      next.push(numbers.map((v, i) => v * rows.scale[i]));
    }
    onChange({ ...value, [rows.key]: next } as Dispersion);
  };
  return (
    <div style={{ display: 'grid', gap: 4 }}>
      <span>{rows.label}; one row a line</span>
      <Field
        look="table"
        mono
        width={330}
        label={rows.label}
        rows={Math.min(10, Math.max(3, list.length + 1))}
        value={text}
        onChange={setText}
        onLeave={commit}
      />
    </div>
  );
}
