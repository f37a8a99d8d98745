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

function Part<T extends { name: string }>({
  entry,
  part,
  chips,
  problems,
  bodies,
  materials = [],
  inherited,
  onChange,
  onRename,
}: Props<T> & { part: SentencePart }): ReactNode {
  const parts = useProject((s) => s.document?.parts) ?? [];
  if (typeof part === 'string') return <span>{part}</span>;
  if ('name' in part) return <NameField name={entry.name} onRename={onRename} />;
  const set = (path: string, value: unknown): void => onChange(withPath(entry, path, value), `${entry.name} ${path}`);
  const at = (path: string): Problem[] => problems.filter((p) => p.place.chip === path || p.place.chip?.startsWith(`${path}.`));
  if ('material' in part) {
    const material = (entry as unknown as { material?: string }).material;
    const options = [...(inherited === undefined ? [] : [{ value: '', label: inherited }]), ...asOptions(materials, material ?? '')];
    const change = (v: string): void => {
      const { material: _, ...rest } = entry as T & { material?: string };
      onChange((v ? { ...entry, material: v } : rest) as T, `${entry.name} material`);
    };
    return <Choice look="chip" label="material" value={material ?? ''} options={options} failing={at('material').length > 0} onChange={change} />;
  }
  if ('conductor' in part) {
    const change = (conductor: Conductor | undefined): void => {
      const { conductor: _, ...rest } = entry as T & { conductor?: Conductor };
      onChange((conductor ? { ...entry, conductor } : rest) as T, `${entry.name} conductor`);
    };
    return <ConductorChips line={entry} problems={problems} onChange={change} />;
  }
  if ('choice' in part)
    return (
      <Choice
        look="chip"
        label={part.label}
        value={String(atPath(entry, part.choice) ?? part.otherwise)}
        options={part.options}
        onChange={(v) => set(part.choice, v)}
      />
    );
  if ('ref' in part) {
    const value = String(atPath(entry, part.ref) ?? '');
    const failing = at(part.ref);
    if (bodies)
      return (
        <Choice
          look="chip"
          label={part.label}
          value={value}
          options={asOptions(bodies, value)}
          failing={failing.length > 0}
          onChange={(v) => set(part.ref, v)}
        />
      );
    const change = (v: string): void => set(part.ref, part.optional && !v ? undefined : v);
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
  if ('refs' in part)
    return (
      <RefsChip
        line={entry.name}
        label={part.label}
        accepts={part.accepts}
        value={atPath(entry, part.refs) as string[]}
        problems={at(part.refs)}
        onChange={(v) => set(part.refs, v)}
      />
    );
  if ('face' in part)
    return (
      <FaceChip
        line={entry.name}
        label={part.label}
        value={String(atPath(entry, part.face))}
        problems={at(part.face)}
        onChange={(v) => set(part.face, v)}
      />
    );
  if ('list' in part)
    return (
      <ListEditor
        path={part.list}
        label={part.label}
        columns={part.columns}
        least={part.least}
        several={part.several}
        none={part.none}
        rows={(atPath(entry, part.list) ?? []) as string[][]}
        problems={problems}
        onChange={(v) => set(part.list, part.none && !v.length ? undefined : v)}
      />
    );
  if ('text' in part)
    return (
      <Field
        label={part.label}
        value={String(atPath(entry, part.text))}
        size={Math.max(6, String(atPath(entry, part.text)).length)}
        onChange={(text) => set(part.text, text)}
      />
    );
  if ('part' in part) {
    const value = String(atPath(entry, part.part));
    return <Choice look="chip" label={part.label} value={value} options={asOptions(parts.map((p) => p.name), value)} failing={at(part.part).length > 0} onChange={(v) => set(part.part, v)} />; // prettier-ignore
  }
  const info = chips.find((c) => c.path === part.chip)!;
  return (
    <Chip
      label={info.label}
      quantity={info.quantity}
      sampled={!!info.over}
      value={String(atPath(entry, part.chip) ?? info.otherwise)}
      problems={problems.filter((p) => p.place.chip === part.chip)}
      onChange={(v) => set(part.chip, v)}
    />
  );
}
