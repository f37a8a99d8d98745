import type { MaterialEntry } from '@jadebell/core/document';
import { type Control, Controller, type Resolver, useForm } from 'react-hook-form';
import { Choice, plainOptions } from '../kit/Choice.tsx';
import { Field } from '../kit/Field.tsx';
import { Message } from '../kit/Message.tsx';
import { dispersions, type Form } from './dispersions.ts';
import { figures, materialOf, type MaterialValues, triples, valuesOf } from './materialValues.ts';

interface Props {
  material: MaterialEntry;
  taken: readonly string[];
  onChange(next: MaterialEntry): void;
}

/** Edits an own material: what cannot be is told beside it as one types, and what can is taken with Enter or on leaving. */
export function MaterialForm({ material, taken, onChange }: Props) {
  const resolver: Resolver<MaterialValues> = (values) => {
    const read = materialOf(values, material, taken);
    if ('material' in read) return { values, errors: {} };
    const errors: Record<string, unknown> = {};
    for (const [path, message] of Object.entries(read.faults)) {
      const [field, key] = path.split(/\.(.*)/);
      const told = { type: 'value', message };
      errors[field] = key ? { ...(errors[field] as object), [key]: told } : told;
    }
    return { values: {}, errors } as never;
  };
  const { control, handleSubmit, setValue, watch } = useForm<MaterialValues>({ values: valuesOf(material), resolver, mode: 'onChange' });
  const take = handleSubmit((values) => {
    const read = materialOf(values, material, taken);
    if ('material' in read && JSON.stringify(read.material) !== JSON.stringify(material)) onChange(read.material);
  });
  const [kind, form] = watch(['kind', 'form']);
  const entry = kind === 'dielectric' && form && material.dispersion?.form === form ? dispersions[form] : null;
  const text = (name: Name, label: string, unit?: string) => <Typed key={name} {...{ control, name, label, unit, take }} />;
  const choose = (name: 'kind' | 'form', value: string): void => {
    setValue(name, value as never);
    void take();
  };
  return (
    <form
      style={{ display: 'grid', gap: 4, marginTop: 10 }}
      onSubmit={(e) => {
        e.preventDefault();
        void take();
      }}
    >
      {text('name', 'name')}
      <Line label="kind">
        <Choice
          look="chip"
          label="kind"
          value={kind}
          options={plainOptions(['dielectric', 'conductor'] as const)}
          onChange={(v) => choose('kind', v)}
        />
      </Line>
      {kind === 'dielectric' && (
        <Line label="over frequency">
          <Choice
            look="chip"
            label="over frequency"
            value={form}
            options={[
              { value: '' as const, label: 'constant, loss tangent as well' },
              ...(Object.keys(dispersions) as Form[]).map((value) => ({ value, label: dispersions[value].title })),
            ]}
            onChange={(v) => choose('form', v)}
          />
        </Line>
      )}
      {entry?.figures.map(({ key, label, unit }) => text(`figures.dispersion ${key}`, label, unit))}
      {entry?.rows && <RowsField {...{ control, take }} label={entry.rows.label} />}
      {!form && figures[kind].map(({ key, label, unit }) => text(`figures.${key}`, label, unit))}
      {!form && kind === 'dielectric' && triples.map(({ key, label }) => text(`figures.${key}`, label))}
      {text('source', 'source')}
    </form>
  );
}

const Line = ({ label, children }: { label: string; children: React.ReactNode }) => (
  <div className="row" style={{ gap: 6 }}>
    <span style={{ width: 170 }}>{label}</span>
    {children}
  </div>
);

type Name = 'name' | 'source' | `figures.${string}`;
interface TypedProps {
  control: Control<MaterialValues>;
  name: Name;
  label: string;
  unit?: string;
  take(): Promise<void>;
}
/** A named text of the material with what is wrong with it. */
const Typed = ({ control, name, label, unit, take }: TypedProps) => (
  <Controller
    control={control}
    name={name}
    render={({ field, fieldState: { error } }) => (
      <div>
        <Line label={label}>
          <Field
            mono
            width={130}
            label={label}
            failing={!!error}
            value={field.value}
            onChange={field.onChange}
            onLeave={() => void take()}
            onKeyDown={(e) => e.key === 'Enter' && void take()}
          />
          {unit}
        </Line>
        {error && <Message>{error.message}</Message>}
      </div>
    )}
  />
);

/** Rows of numbers as text, one row a line; also pasted from a table. */
const RowsField = ({ control, label, take }: Pick<TypedProps, 'control' | 'label' | 'take'>) => (
  <Controller
    control={control}
    name="rows"
    render={({ field, fieldState: { error } }) => (
      <div style={{ display: 'grid', gap: 4 }}>
        <span>{label}; one row a line</span>
        <Field
          look="table"
          mono
          width={330}
          label={label}
          failing={!!error}
          rows={Math.min(10, Math.max(3, field.value.split('\n').length + 1))}
          value={field.value}
          onChange={field.onChange}
          onLeave={() => void take()}
        />
        {error && <Message>{error.message}</Message>}
      </div>
    )}
  />
);
