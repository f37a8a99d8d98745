import { compileValue } from '@jadebell/core/expressions';
import { formatSI } from '@jadebell/core/expressions/format';
import type { ReactNode } from 'react';
import { TypedField } from '../../kit/Field.tsx';

/** A part of a card's settings. */
export const Part = ({ title, children, action }: { title: string; children?: ReactNode; action?: ReactNode }) => (
  <section className="settings-part">
    <header className="row">
      <h4>{title}</h4>
      <span className="grow" />
      {action}
    </header>
    {children}
  </section>
);

export const Row = ({ label, children }: { label: string; children: ReactNode }) => (
  <div className="settings-row">
    <span className="quiet">{label}</span>
    <span className="row" style={{ flexWrap: 'wrap', gap: 4 }}>
      {children}
    </span>
  </div>
);

type Measure = 'frequency' | 'length' | 'time' | 'angle' | 'number';
const quantityOf: Record<string, Measure> = { Hz: 'frequency', m: 'length', s: 'time', deg: 'number', dB: 'number' };
/** The measure of a unit, for typing. */
export const measureOf = (unit: string): Measure => quantityOf[unit] ?? 'number';

/** A number with a unit as text; `optional` lets it be empty for none. */
export function Quantity({
  label,
  value,
  measure,
  optional,
  width = 84,
  placeholder = 'auto',
  check,
  onChange,
}: {
  label: string;
  value: number | undefined;
  measure: Measure;
  optional?: boolean;
  width?: number;
  placeholder?: string;
  check?(v: number): string | null;
  onChange(v: number | undefined): void;
}) {
  const read = (t: string): number | string => {
    const plain = Number(t);
    if (measure === 'number') return Number.isFinite(plain) ? plain : 'a number';
    // A bare angle is in degrees, as it is shown.
    if (measure === 'angle' && t !== '' && Number.isFinite(plain)) return (plain * Math.PI) / 180;
    return compileValue(t, measure);
  };
  const text = value === undefined ? '' : measure === 'number' ? String(Number(value.toPrecision(7))) : formatSI(value, measure, 7);
  return (
    <TypedField
      label={label}
      width={width}
      value={text}
      placeholder={optional ? placeholder : undefined}
      check={(t) => {
        if (t === '') return optional ? null : 'a value is needed';
        const v = read(t);
        return typeof v === 'string' ? v : (check?.(v) ?? null);
      }}
      onChange={(t) => onChange(t === '' ? undefined : (read(t) as number))}
    />
  );
}

/** How many decibels a scale spans. */
export const Span = ({ value, otherwise, onChange }: { value: number; otherwise: number; onChange(span: number): void }) => (
  <>
    over
    <Quantity
      label="Span"
      value={value}
      measure="number"
      width={48}
      check={(v) => (v >= 1 && v <= 200 ? null : '1 to 200 dB')}
      onChange={(span) => onChange(span ?? otherwise)}
    />{' '}
    dB
  </>
);
