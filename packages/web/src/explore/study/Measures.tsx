import { type CurveMeasure, isFormula, type Measure, takeTitles } from '@jadebell/core/document';
import { formulaFault } from '@jadebell/core/exploring';
import { curveForms, quantities, unitInForm } from '@jadebell/core/reading';
import type { ResultMeta } from '@jadebell/core/results';
import type { ReactNode } from 'react';
import { Choice, type Option } from '../../kit/Choice.tsx';
import { TypedField } from '../../kit/Field.tsx';
import { IconTool } from '../../kit/IconTool.tsx';
import { Close } from '../../kit/icons.tsx';
import { Tool } from '../../kit/Tool.tsx';
import { Chip } from '../../ledger/Chip.tsx';
import { useProject } from '../../project/store.ts';
import { addMeasure, changeMeasure, nameFaultOf, removeMeasure, renameMeasureTo, takenAs } from './edits.ts';

const groups = { network: 'Network', lines: 'Lines and modes', antenna: 'Antenna', recorded: 'Recorded', time: 'Time' } as const;
const measuredOver = { frequency: 'frequency', time: 'time', angle: 'angle' } as const;

/** Quantities that a measure may be of: those that a result has, or all while there is none. */
export function quantityOptions(meta: ResultMeta | undefined, own: string): Option<string>[] {
  const known = Object.entries(quantities).filter(([key, q]) => !meta || key === own || q.terms(meta).length);
  return Object.entries(groups).flatMap(([group, heading]) => {
    const all = known.filter(([, q]) => q.group === group);
    return all.length ? [{ heading }, ...all.map(([value, q]) => ({ value, label: q.title }))] : [];
  });
}

/** Which of a quantity's curves; the first where nothing is said. */
export function termOptions(
  meta: ResultMeta | undefined,
  { quantity, of }: Pick<CurveMeasure, 'quantity' | 'of'>,
): { value: string; label: string }[] {
  const terms = (meta && quantities[quantity]?.terms(meta)) ?? [];
  const options = terms.map((t) => ({ value: t.key, label: t.label }));
  return options.some((o) => o.value === of) ? options : of ? [...options, { value: of, label: of }] : options;
}

interface PartProps {
  measure: CurveMeasure;
  change(next: Measure): void;
}

/** A place of the curve, as an expression. */
const Place = ({ measure, field, change }: PartProps & { field: 'at' | 'from' | 'to' }) => (
  <Chip
    label={`${measure.name} ${field}`}
    quantity={measuredOver[quantities[measure.quantity]?.over ?? 'frequency']}
    value={String((measure as Record<string, unknown>)[field])}
    onChange={(v) => change({ ...measure, [field]: v } as Measure)}
  />
);

/** All of the curve, or a stretch of it. */
function Stretch({ measure, change, band }: PartProps & { band: { from: string; to: string } }) {
  const part = 'from' in measure && measure.from !== undefined;
  const set = (all: string): void => {
    const { from: _f, to: _t, ...rest } = measure as Extract<Measure, { take: 'least' }>;
    change((all === 'part' ? { ...rest, ...band } : rest) as Measure);
  };
  return (
    <>
      <Choice
        look="chip"
        label={`Where ${measure.name} looks`}
        value={part ? 'part' : 'all'}
        options={[
          { value: 'all', label: 'over all of it' },
          { value: 'part', label: 'from' },
        ]}
        onChange={set}
      />
      {part && (
        <>
          <Place {...{ measure, change }} field="from" /> to <Place {...{ measure, change }} field="to" />
        </>
      )}
    </>
  );
}

const number = (t: string): string | null => (t !== '' && Number.isFinite(Number(t)) ? null : 'a number');

/** What a take says before and after the curve that it is of. */
const parts: Record<
  CurveMeasure['take'],
  { before?(p: PartProps): ReactNode; after?(p: PartProps & { band: { from: string; to: string } }): ReactNode }
> = {
  at: { before: (p) => <Place {...p} field="at" /> },
  least: { after: Stretch },
  most: { after: Stretch },
  mean: { after: Stretch },
  'where-least': { after: Stretch },
  'where-most': { after: Stretch },
  width: {
    after: ({ measure, change }) => {
      const own = measure as Extract<Measure, { take: 'width' }>;
      return (
        <>
          <Choice
            look="chip"
            label={`Side of ${own.name}`}
            value={own.side}
            options={[
              { value: 'below', label: 'below' },
              { value: 'above', label: 'above' },
            ]}
            onChange={(side) => change({ ...own, side })}
          />
          <TypedField
            mono
            label={`Level of ${own.name}`}
            width={64}
            value={String(own.level)}
            check={number}
            onChange={(t) => change({ ...own, level: Number(t) })}
          />
          {unitOf(own)}
        </>
      );
    },
  },
};

const unitOf = (measure: CurveMeasure): string => {
  const kind = quantities[measure.quantity];
  return kind ? unitInForm(measure.quantity, measure.form ?? kind.forms[0], kind.unit) : '';
};

/** The sentences of what is read from each point: the measures of the project. */
export function Measures({ meta, onSeek }: { meta: ResultMeta | undefined; onSeek?(measure: Measure): void }) {
  const measures = useProject((s) => s.document!.measures) ?? [];
  const solve = useProject((s) => s.document!.solve);
  const band = { from: solve.from, to: solve.to };
  return (
    <>
      {measures.map((measure) => (
        <MeasureRow key={measure.name} {...{ measure, measures, meta, band, onSeek }} />
      ))}
      {!measures.length && <p className="quiet">Nothing is read yet: add a figure, such as the least reflection or the gain at a frequency.</p>}
      <div className="statement">
        <Tool onClick={() => addMeasure('s', meta ? (quantities.s.terms(meta)[0]?.key ?? '') : '')}>Read another figure</Tool>
      </div>
    </>
  );
}

interface RowProps {
  measure: Measure;
  measures: readonly Measure[];
  meta: ResultMeta | undefined;
  band: { from: string; to: string };
  /** Begins a search for a value of it. */
  onSeek?(measure: Measure): void;
}

function MeasureRow({ measure, measures, meta, band, onSeek }: RowProps) {
  const change = (next: Measure): void => changeMeasure(measure.name, next);
  return (
    <div className="statement" role="group" aria-label={`Measure ${measure.name}`}>
      <TypedField
        look="chip"
        label={`Name of ${measure.name}`}
        width={96}
        value={measure.name}
        check={(t) => nameFaultOf(measures, measure.name, t)}
        onChange={(to) => renameMeasureTo(measure.name, to)}
      />
      is
      <Choice
        look="chip"
        label={`Figure of ${measure.name}`}
        value={measure.take}
        options={Object.entries(takeTitles).map(([value, label]) => ({ value: value as Measure['take'], label }))}
        onChange={(take) => change(takenAs(measure, take, band, measures))}
      />
      {isFormula(measure) ? (
        <TypedField
          look="chip"
          mono
          label={`Formula of ${measure.name}`}
          width={260}
          value={measure.formula}
          check={(formula) => formulaFault({ ...measure, formula }, useProject.getState().document!)}
          onChange={(formula) => change({ ...measure, formula })}
        />
      ) : (
        <OfCurve {...{ measure, meta, band, change }} />
      )}
      <span className="acts">
        {onSeek && (
          <Tool
            bare
            aria-label={`Seek a value of ${measure.name}`}
            hint="Search for the parameter at which it has a value"
            onClick={() => onSeek(measure)}
          >
            Seek
          </Tool>
        )}
        <IconTool label={`Read ${measure.name} no more`} icon={<Close />} size={14} onClick={() => removeMeasure(measure.name)} />
      </span>
    </div>
  );
}

/** Of which curve a figure is taken, and where. */
function OfCurve({ measure, meta, band, change }: PartProps & Pick<RowProps, 'meta' | 'band'>) {
  const kind = quantities[measure.quantity];
  const terms = termOptions(meta, measure);
  const { before: Before, after: After } = parts[measure.take];
  const given = { measure, change };
  return (
    <>
      {Before && <Before {...given} />}
      of
      <Choice
        look="chip"
        label={`Quantity of ${measure.name}`}
        value={measure.quantity}
        options={quantityOptions(meta, measure.quantity)}
        onChange={(quantity) => change({ ...measure, quantity, of: '', form: undefined })}
      />
      {terms.length > 1 && (
        <Choice
          look="chip"
          label={`Curve of ${measure.name}`}
          value={measure.of || terms[0].value}
          options={terms}
          onChange={(of) => change({ ...measure, of })}
        />
      )}
      {kind && kind.forms.length > 1 && (
        <Choice
          look="chip"
          label={`Form of ${measure.name}`}
          value={measure.form ?? kind.forms[0]}
          options={kind.forms.map((f) => ({ value: f, label: curveForms[f].label }))}
          onChange={(form) => change({ ...measure, form })}
        />
      )}
      {After && <After {...given} band={band} />}
    </>
  );
}
