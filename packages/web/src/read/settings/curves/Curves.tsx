import type { CardTrace } from '@jadebell/core/document';
import { curveForms, quantities, traceLetter } from '@jadebell/core/reading';
import type { ResultMeta } from '@jadebell/core/results';
import { Choice } from '../../../kit/Choice.tsx';
import { TypedField } from '../../../kit/Field.tsx';
import { Tick } from '../../../kit/Tick.tsx';
import { useProject } from '../../../project/store.ts';
import { Part, Row } from '../Fields.tsx';
import { add, remove, set, without, type CurvesProps } from './common.tsx';

/** The curves themselves. */
export function Curves({ card, change, meta }: CurvesProps & { meta: ResultMeta }) {
  return (
    <Part
      title="Curves"
      action={add('Add a curve', () => change({ traces: [...card.traces, freshTrace(meta, card.traces)] }), card.traces.length >= 64)}
    >
      {card.traces.map((t, i) => (
        <TraceRow
          key={i}
          letter={traceLetter(i)}
          trace={t}
          meta={meta}
          change={(next) => change({ traces: set(card.traces, i, next) })}
          remove={() =>
            change({
              traces: without(card.traces, i),
              markers: card.markers.filter((m) => m.trace !== i).map((m) => (m.trace > i ? { ...m, trace: m.trace - 1 } : m)),
            })
          }
        />
      ))}
      <Row label="runs beside">
        <Tick label="as differences from the first" value={card.differences} onChange={(differences) => change({ differences })} />
      </Row>
    </Part>
  );
}

const groups = { network: 'Network', lines: 'Lines and modes', antenna: 'Antenna', recorded: 'Recorded', time: 'Time' } as const;

/** A further trace: the next term of the last one's quantity that is not there yet. */
function freshTrace(meta: ResultMeta, traces: readonly CardTrace[]): CardTrace {
  const last = traces[traces.length - 1];
  const quantity = last && quantities[last.quantity]?.terms(meta).length ? last.quantity : 's';
  const free = quantities[quantity].terms(meta).find((t) => !traces.some((o) => o.quantity === quantity && o.of === t.key));
  return { quantity, of: free?.key ?? quantities[quantity].terms(meta)[0]?.key ?? '', axis: 'left', ...(last?.form ? { form: last.form } : {}) };
}

interface TraceProps {
  letter: string;
  trace: CardTrace;
  meta: ResultMeta;
  change(next: Partial<CardTrace>): void;
}

/** One curve: of what, which term, in which form, on which axis, under which name. */
function TraceRow({ letter, trace, meta, change, remove: drop }: TraceProps & { remove(): void }) {
  const columns = useDataColumns();
  const forms = quantities[trace.quantity]?.forms ?? (trace.quantity === 'data' ? dataForms(columns, trace.of) : []);
  return (
    <div className="settings-trace">
      <b className="mono">{letter}</b>
      <QuantityChoice {...{ letter, trace, meta, change }} />
      <TermChoice {...{ letter, trace, meta, change }} />
      {forms.length > 1 && (
        <Choice
          label={`Form of curve ${letter}`}
          value={trace.form ?? forms[0]}
          options={forms.map((f) => ({ value: f, label: curveForms[f].label }))}
          onChange={(form) => change({ form })}
        />
      )}
      <Choice
        label={`Axis of curve ${letter}`}
        value={trace.axis}
        options={[
          { value: 'left', label: 'left' },
          { value: 'right', label: 'right' },
        ]}
        onChange={(axis) => change({ axis })}
      />
      <TypedField
        label={`Name of curve ${letter}`}
        width={86}
        value={trace.name ?? ''}
        placeholder="name"
        check={(t) => (t.length > 60 ? 'at most 60 characters' : null)}
        onChange={(name) => change({ name: name || undefined })}
      />
      {remove(`Remove curve ${letter}`, drop)}
    </div>
  );
}

interface DataColumn {
  value: string;
  label: string;
  complex: boolean;
}

/** Columns of the data that were brought in to compare with. */
function useDataColumns(): DataColumn[] {
  const data = useProject((s) => s.document?.data) ?? [];
  return data.flatMap((d) => d.columns.map((c) => ({ value: `${d.name}/${c.name}`, label: `${d.name}: ${c.name}`, complex: !!c.complex })));
}

const dataForms = (columns: readonly DataColumn[], of: string): readonly (keyof typeof curveForms)[] =>
  columns.find((c) => c.value === of)?.complex ? ['db', 'magnitude', 'real', 'imaginary', 'phase', 'unwrapped', 'vswr'] : ['plain'];

function QuantityChoice({ letter, trace, meta, change }: TraceProps) {
  const columns = useDataColumns();
  const known = Object.entries(quantities).filter(([, q]) => q.terms(meta).length);
  const options = [
    ...Object.entries(groups).flatMap(([group, heading]) => {
      const all = known.filter(([, q]) => q.group === group);
      return all.length ? [{ heading }, ...all.map(([value, q]) => ({ value, label: q.title }))] : [];
    }),
    { heading: 'Other' },
    { value: 'formula', label: 'Formula of curves' },
    ...(columns.length ? [{ value: 'data', label: 'Data brought in' }] : []),
  ];
  // What the shown run has no quantity for keeps its place.
  const listed = trace.quantity in quantities || options.some((o) => 'value' in o && o.value === trace.quantity);
  return (
    <Choice
      label={`Quantity of curve ${letter}`}
      value={trace.quantity}
      options={listed ? options : [...options, { value: trace.quantity, label: trace.quantity }]}
      onChange={(quantity) => {
        const first =
          quantity === 'formula' ? 'a' : quantity === 'data' ? (columns[0]?.value ?? '') : (quantities[quantity].terms(meta)[0]?.key ?? '');
        change({ quantity, of: first, form: undefined });
      }}
    />
  );
}

/** Which of a quantity's terms, which column of data, or what formula. */
function TermChoice({ letter, trace, meta, change }: TraceProps) {
  const columns = useDataColumns();
  if (trace.quantity === 'formula')
    return (
      <TypedField
        label={`Formula of curve ${letter}`}
        width={130}
        value={trace.of}
        check={(t) => (t ? null : 'such as a - b')}
        onChange={(of) => change({ of })}
      />
    );
  if (trace.quantity === 'data')
    return <Choice label={`Data of curve ${letter}`} value={trace.of} options={columns} onChange={(of) => change({ of, form: undefined })} />;
  const terms = quantities[trace.quantity]?.terms(meta) ?? [];
  if (terms.length < 2) return null;
  const options = terms.map((t) => ({ value: t.key, label: t.label }));
  return <Choice label={`Term of curve ${letter}`} value={trace.of} options={options} onChange={(of) => change({ of })} />;
}
