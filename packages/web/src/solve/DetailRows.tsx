import { type Detail, detailForm, detailHint, type Details, readDetail } from '@jadebell/core/methods';
import { Tick } from '../kit/Tick.tsx';
import { TypedField } from '../kit/Field.tsx';

interface RowsProps {
  /** The settings of a method, by their keys. */
  details: Record<string, Detail>;
  given: Details | undefined;
  /** Takes all that is given then, undefined for nothing, and which of it has changed. */
  onChange(next: Details | undefined, key: string): void;
}

/** Settings by hand of a method, a row each, in the form that its schema asks for. */
export function DetailRows({ details, given = {}, onChange }: RowsProps) {
  const set = (key: string, value: unknown): void => {
    const next: Record<string, unknown> = { ...given, [key]: value };
    if (value === undefined) delete next[key];
    onChange(Object.keys(next).length ? (next as Details) : undefined, key);
  };
  return Object.entries(details).map(([key, detail]) => {
    const value = given[key as keyof Details];
    return detailForm(detail) === 'choice' ? (
      <ChoiceRow key={key} detail={detail} on={value === true} onChange={(on) => set(key, on || undefined)} />
    ) : (
      <TypedRow key={key} detail={detail} value={value?.toString() ?? ''} onChange={(v) => set(key, v)} />
    );
  });
}

function ChoiceRow({ detail, on, onChange }: { detail: Detail; on: boolean; onChange(on: boolean): void }) {
  return (
    <>
      <dt>{detail.label}</dt>
      <dd>
        <Tick label={detail.choice!} value={on} onChange={onChange} />
        <span className="quiet">{detailHint(detail)}</span>
      </dd>
    </>
  );
}

/** A setting that is typed; what cannot be taken is told below it, and what was typed stays. */
function TypedRow({ detail, value, onChange }: { detail: Detail; value: string; onChange(value: number | string | undefined): void }) {
  const read = (text: string) => readDetail(detail, text);
  return (
    <>
      <dt>{detail.label}</dt>
      <dd>
        <TypedField
          width={84}
          label={detail.label}
          value={value}
          placeholder="automatic"
          check={(text) => {
            const found = read(text);
            return 'fault' in found ? found.fault : null;
          }}
          onChange={(text) => {
            const found = read(text);
            if (!('fault' in found)) onChange(found.value);
          }}
        />
        {detail.unit} <span className="quiet">{detailHint(detail)}</span>
      </dd>
    </>
  );
}
