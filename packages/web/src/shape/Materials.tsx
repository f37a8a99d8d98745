import type { MaterialEntry } from '@jadebell/core/document';
import { findMaterial, materialSummary } from '@jadebell/core/materials';
import Add from '@mui/icons-material/Add';
import { Button } from '@mui/material';
import { useState } from 'react';
import { useProject } from '../project/store.ts';

const numberField = (label: string, unit: string, value: number | undefined, onChange: (v: number | undefined) => void) => (
  <label className="row" style={{ gap: 4 }}>
    {label}
    <input
      className="plain-input mono"
      style={{ width: 74, background: 'var(--paper)' }}
      type="text"
      inputMode="decimal"
      defaultValue={value ?? ''}
      onBlur={(e) => {
        const v = Number(e.target.value);
        onChange(e.target.value.trim() && Number.isFinite(v) ? v : undefined);
      }}
      onKeyDown={(e) => {
        if (e.key === 'Enter') e.currentTarget.blur();
      }}
    />
    {unit}
  </label>
);

/** Materials in use, and the project's own. */
export function Materials() {
  const document = useProject((s) => s.document)!;
  const edit = useProject((s) => s.edit);
  const [fault, setFault] = useState('');
  const used = [...new Set(document.lines.map((l) => l.material))];
  const set = (name: string, change: Partial<MaterialEntry>): void => {
    const next = { ...document.materials.find((m) => m.name === name)!, ...change };
    const wrong =
      (next.permittivity ?? 1) < 1
        ? 'The relative permittivity must be 1 or more.'
        : (next.lossTangent ?? 0) < 0
          ? 'The loss tangent must not be negative.'
          : '';
    setFault(wrong);
    if (!wrong)
      edit(`material ${name}`, (d) => ({ ...d, materials: d.materials.map((m) => (m.name === name ? JSON.parse(JSON.stringify(next)) : m)) }));
  };
  const add = (): void =>
    edit('add material', (d) => {
      let n = 1;
      while (findMaterial(d, `Material ${n}`)) n++;
      return {
        ...d,
        materials: [...d.materials, { name: `Material ${n}`, kind: 'dielectric', permittivity: 2.2, lossTangent: 0.001, atFrequency: 1e9 }],
      };
    });
  return (
    <section aria-label="Materials">
      <header>
        <h2>Materials</h2>
        <span className="grow" />
        <Button startIcon={<Add />} onClick={add}>
          Add material
        </Button>
      </header>
      {document.materials.map((m) => (
        <div key={m.name} className="row" style={{ padding: '2px 14px', flexWrap: 'wrap' }}>
          <b>{m.name}</b>
          {numberField('permittivity', '', m.permittivity, (permittivity) => set(m.name, { permittivity }))}
          {numberField('loss tangent', '', m.lossTangent, (lossTangent) => set(m.name, { lossTangent }))}
          {!used.includes(m.name) && (
            <button
              type="button"
              className="tool"
              onClick={() => edit('remove material', (d) => ({ ...d, materials: d.materials.filter((o) => o.name !== m.name) }))}
            >
              Remove
            </button>
          )}
        </div>
      ))}
      {fault && (
        <div role="alert" className="fault" style={{ padding: '0 14px' }}>
          {fault}
        </div>
      )}
      {used
        .filter((n) => !document.materials.some((m) => m.name === n))
        .map((name) => {
          const m = findMaterial(document, name);
          return (
            <div key={name} style={{ padding: '1px 14px' }}>
              {name} <span className="quiet">{m ? materialSummary(m) : 'not in the library'}</span>
            </div>
          );
        })}
    </section>
  );
}
