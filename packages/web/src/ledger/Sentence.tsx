import { atPath, type Chip as ChipInfo, type Conductor, type Problem, type SentencePart, withPath } from '@jadebell/core/document';
import type { ReactNode } from 'react';
import { useProject } from '../project/store.ts';
import { Chip } from './Chip.tsx';
import { ConductorChips } from './ConductorChips.tsx';
import { ListEditor } from './ListEditor.tsx';
import { NameField } from './NameField.tsx';
import { FaceChip, RefChip, RefsChip } from './RefChips.tsx';
import { Choice } from '../kit/Choice.tsx';
import { Field } from '../kit/Field.tsx';

interface Props<T extends { name: string }> {
  entry: T;
  parts: SentencePart[];
  chips: ChipInfo[];
  problems: Problem[];
  /** Names that a reference may take; absent: found from the model. */
  bodies?: string[];
  materials?: string[];
  /** What stands for a material that is taken over from the first input. */
  inherited?: string;
  onChange(next: T, what: string): void;
  onRename(name: string): void;
}

const asOptions = (names: readonly string[], current: string): { value: string; label: string }[] =>
  [...new Set([current, ...names])].filter(Boolean).map((n) => ({ value: n, label: n }));

/** A line of the ledger as a sentence with editable chips. */
export function Sentence<T extends { name: string }>(props: Props<T>) {
  return (
    <span className="sentence">
      {props.parts.map((part, i) => (
        <Part key={i} {...props} part={part} />
      ))}
    </span>
  );
}

/** A part of a sentence of some form, as it stands in a line. */
type PartProps<T extends { name: string }, Key extends string> = Props<T> & { part: Extract<SentencePart, Record<Key, unknown>> };

function Part<T extends { name: string }>(props: Props<T> & { part: SentencePart }): ReactNode {
  const { entry, part, problems, onRename } = props;
  if (typeof part === 'string') return <span>{part}</span>;
  if ('name' in part) return <NameField name={entry.name} onRename={onRename} />;
  if ('material' in part) return <MaterialPart {...props} />;
  if ('conductor' in part) return <ConductorChips line={entry} problems={problems} onChange={(c) => replace(props, 'conductor', c)} />;
  if ('choice' in part) return <ChoicePart {...props} part={part} />;
  if ('ref' in part) return <RefPart {...props} part={part} />;
  if ('list' in part) return <ListPart {...props} part={part} />;
  if ('text' in part) return <TextPart {...props} part={part} />;
  if ('part' in part) return <FilePart {...props} part={part} />;
  if ('chip' in part) return <ChipPart {...props} part={part} />;
  const path = 'refs' in part ? part.refs : part.face;
  const shared = { line: entry.name, label: part.label, problems: problemsOf(problems, path) };
  const change = (value: unknown): void => put(props, path, value);
  return 'refs' in part ? (
    <RefsChip {...shared} accepts={part.accepts} value={atPath(entry, path) as string[]} onChange={change} />
  ) : (
    <FaceChip {...shared} value={String(atPath(entry, path))} onChange={change} />
  );
}

const problemsOf = (problems: Problem[], path: string): Problem[] =>
  problems.filter((p) => p.place.chip === path || p.place.chip?.startsWith(`${path}.`));

/** Gives a place of the line a value. */
const put = <T extends { name: string }>({ entry, onChange }: Props<T>, path: string, value: unknown): void =>
  onChange(withPath(entry, path, value), `${entry.name} ${path}`);

/** Gives a key of the line a value, or takes the key away. */
const replace = <T extends { name: string }>({ entry, onChange }: Props<T>, key: string, value: string | Conductor | undefined): void => {
  const { [key]: _, ...rest } = entry as Record<string, unknown>;
  onChange((value ? { ...entry, [key]: value } : rest) as T, `${entry.name} ${key}`);
};

function MaterialPart<T extends { name: string }>(props: Props<T>) {
  const { entry, materials = [], inherited, problems } = props;
  const material = (entry as { material?: string }).material ?? '';
  const options = [...(inherited === undefined ? [] : [{ value: '', label: inherited }]), ...asOptions(materials, material)];
  const failing = problemsOf(problems, 'material').length > 0;
  return <Choice look="chip" label="material" value={material} options={options} failing={failing} onChange={(v) => replace(props, 'material', v)} />;
}

function ChoicePart<T extends { name: string }>({ part, ...props }: PartProps<T, 'choice'>) {
  const value = String(atPath(props.entry, part.choice) ?? part.otherwise);
  return <Choice look="chip" label={part.label} value={value} options={part.options} onChange={(v) => put(props, part.choice, v)} />;
}

function RefPart<T extends { name: string }>({ part, ...props }: PartProps<T, 'ref'>) {
  const { entry, bodies, problems } = props;
  const value = String(atPath(entry, part.ref) ?? '');
  const failing = problemsOf(problems, part.ref);
  const change = (v: string): void => put(props, part.ref, part.optional && !v ? undefined : v);
  if (bodies)
    return <Choice look="chip" label={part.label} value={value} options={asOptions(bodies, value)} failing={failing.length > 0} onChange={change} />;
  return (
    <RefChip
      line={entry.name}
      label={part.label}
      accepts={part.accepts}
      value={value}
      optional={part.optional}
      problems={failing}
      onChange={change}
    />
  );
}

function ListPart<T extends { name: string }>({ part, ...props }: PartProps<T, 'list'>) {
  return (
    <ListEditor
      path={part.list}
      label={part.label}
      columns={part.columns}
      least={part.least}
      several={part.several}
      none={part.none}
      rows={(atPath(props.entry, part.list) ?? []) as string[][]}
      problems={props.problems}
      onChange={(v) => put(props, part.list, part.none && !v.length ? undefined : v)}
    />
  );
}

function TextPart<T extends { name: string }>({ part, ...props }: PartProps<T, 'text'>) {
  const value = String(atPath(props.entry, part.text));
  return <Field label={part.label} value={value} size={Math.max(6, value.length)} onChange={(text) => put(props, part.text, text)} />;
}

/** A part of the project that came from a file. */
function FilePart<T extends { name: string }>({ part, ...props }: PartProps<T, 'part'>) {
  const parts = useProject((s) => s.document?.parts) ?? [];
  const value = String(atPath(props.entry, part.part));
  const options = asOptions(parts.map((p) => p.name), value); // prettier-ignore
  const failing = problemsOf(props.problems, part.part).length > 0;
  return <Choice look="chip" label={part.label} value={value} options={options} failing={failing} onChange={(v) => put(props, part.part, v)} />;
}

function ChipPart<T extends { name: string }>({ part, ...props }: PartProps<T, 'chip'>) {
  const info = props.chips.find((c) => c.path === part.chip)!;
  return (
    <Chip
      label={info.label}
      quantity={info.quantity}
      sampled={!!info.over}
      value={String(atPath(props.entry, part.chip) ?? info.otherwise)}
      problems={props.problems.filter((p) => p.place.chip === part.chip)}
      onChange={(v) => put(props, part.chip, v)}
    />
  );
}
