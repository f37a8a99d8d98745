import { atPath, type Chip as ChipInfo, type Problem, type SentencePart, withPath } from '@jadebell/core/document';
import { Chip } from './Chip.tsx';
import { ChoiceChip } from './ChoiceChip.tsx';
import { NameField } from './NameField.tsx';

interface Props<T extends { name: string }> {
  entry: T;
  parts: SentencePart[];
  chips: ChipInfo[];
  problems: Problem[];
  /** Names that a body part may take, and materials. */
  bodies: string[];
  materials?: string[];
  onChange(next: T, what: string): void;
  onRename(name: string): void;
}

/** A line of the ledger as a sentence with editable chips. */
export function Sentence<T extends { name: string }>({ entry, parts, chips, problems, bodies, materials = [], onChange, onRename }: Props<T>) {
  const set = (path: string, value: string): void => onChange(withPath(entry, path, value), `${entry.name} ${path}`);
  const options = (names: string[], current: string): { value: string; label: string }[] =>
    [...new Set([current, ...names])].map((n) => ({ value: n, label: n }));
  return (
    <span className="sentence">
      {parts.map((part, i) => {
        if (typeof part === 'string') return <span key={i}>{part}</span>;
        if ('name' in part) return <NameField key={i} name={entry.name} onRename={onRename} />;
        if ('material' in part) {
          const material = (entry as unknown as { material: string }).material;
          return (
            <ChoiceChip
              key={i}
              label="material"
              value={material}
              options={options(materials, material)}
              failing={problems.some((p) => p.place.chip === 'material')}
              onChange={(v) => set('material', v)}
            />
          );
        }
        if ('choice' in part)
          return (
            <ChoiceChip
              key={i}
              label={part.label}
              value={String(atPath(entry, part.choice))}
              options={part.options}
              onChange={(v) => set(part.choice, v)}
            />
          );
        if ('body' in part) {
          const value = String(atPath(entry, part.body));
          return (
            <ChoiceChip
              key={i}
              label={part.label}
              value={value}
              options={options(bodies, value)}
              failing={problems.some((p) => p.place.chip === part.body)}
              onChange={(v) => set(part.body, v)}
            />
          );
        }
        const info = chips.find((c) => c.path === part.chip)!;
        return (
          <Chip
            key={i}
            label={info.label}
            quantity={info.quantity}
            value={String(atPath(entry, part.chip))}
            problems={problems.filter((p) => p.place.chip === part.chip)}
            onChange={(v) => set(part.chip, v)}
          />
        );
      })}
    </span>
  );
}
