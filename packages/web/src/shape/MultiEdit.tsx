import { atPath, type Chip as ChipInfo, type Line, type SentencePart, shapeOf, withPath } from '@jadebell/core/document';
import { namesUsed } from '@jadebell/core/expressions/uses';
import { Chip } from '../ledger/Chip.tsx';
import { changeLines, duplicateLines, removeLines } from '../project/edits.ts';
import { useProject } from '../project/store.ts';
import { SettingRow } from '../kit/SettingRow.tsx';
import { copyLines } from './clipboard.ts';
import { Tool } from '../kit/Tool.tsx';
import { Choice } from '../kit/Choice.tsx';
import { SettingList } from '../kit/SettingList.ts';

type Choice = Extract<SentencePart, { choice: string }>;

/** Chips and choices that all lines have. */
function common(lines: readonly Line[]): { chips: ChipInfo[]; choices: Choice[] } {
  const [first, ...rest] = lines;
  const chips = shapeOf(first)
    .chips(first)
    .filter(
      (c) =>
        !c.over &&
        rest.every((l) =>
          shapeOf(l)
            .chips(l)
            .some((o) => o.path === c.path && o.quantity === c.quantity),
        ),
    );
  const choicesOf = (l: Line): Choice[] =>
    shapeOf(l)
      .sentence(l)
      .filter((p): p is Choice => typeof p !== 'string' && 'choice' in p);
  const choices = choicesOf(first).filter((c) =>
    rest.every((l) =>
      choicesOf(l).some((o) => o.choice === c.choice && o.options.map((x) => x.value).join() === c.options.map((x) => x.value).join()),
    ),
  );
  return { chips, choices };
}

/** The one value of a path among lines, or null where they differ. */
const oneValue = (lines: readonly Line[], path: string): string | null => {
  const values = new Set(lines.map((l) => String(atPath(l, path) ?? '')));
  return values.size === 1 ? [...values][0] : null;
};

/** What several chosen lines have in common; one edit changes all. */
export function MultiEdit({ names, materials, onDone }: { names: ReadonlySet<string>; materials: string[]; onDone(next?: string[]): void }) {
  const document = useProject((s) => s.document)!;
  const edit = useProject((s) => s.edit);
  const lines = document.lines.filter((l) => names.has(l.name));
  if (lines.length < 2) return null;
  const { chips, choices } = common(lines);
  const set = (path: string, value: unknown): void =>
    edit(`${lines.length} lines ${path}`, (d) => changeLines(d, names, (l) => withPath(l, path, value)));
  const withMaterial = lines.every((l) => shapeOf(l).material === 'own');
  const material = oneValue(lines, 'material');
  return (
    <section className="multi" aria-label="Chosen lines">
      <header>
        <h2>{lines.length} lines chosen</h2>
        <span className="grow" />
        <Tool onClick={() => edit('mute lines', (d) => changeLines(d, names, (l) => ({ ...l, muted: !lines.every((o) => o.muted) })))}>
          {lines.every((l) => l.muted) ? 'Unmute' : 'Mute'}
        </Tool>
        <Tool onClick={() => void copyLines(names, namesUsed)}>Copy</Tool>
        <Tool
          onClick={() => {
            let made: string[] = [];
            edit('duplicate lines', (d) => {
              const result = duplicateLines(d, names);
              made = result.made;
              return result.project;
            });
            onDone(made);
          }}
        >
          Duplicate
        </Tool>
        <Tool
          onClick={() => {
            edit('remove lines', (d) => removeLines(d, names));
            onDone();
          }}
        >
          Remove
        </Tool>
        <Tool onClick={() => onDone()}>Done</Tool>
      </header>
      <SettingList>
        {withMaterial && (
          <>
            <dt>material</dt>
            <dd>
              <Choice
                look="chip"
                label="material of all"
                value={material ?? ''}
                options={[...(material === null ? [{ value: '', label: 'several' }] : []), ...materials.map((m) => ({ value: m, label: m }))]}
                onChange={(v) => v && set('material', v)}
              />
            </dd>
          </>
        )}
        {choices.map((c) => {
          const value = oneValue(lines, c.choice);
          return (
            <SettingRow key={c.choice} title={c.label}>
              <Choice
                look="chip"
                label={`${c.label} of all`}
                value={value ?? ''}
                options={value === null ? [{ value: '', label: 'several' }, ...c.options] : c.options}
                onChange={(v) => v && set(c.choice, v)}
              />
            </SettingRow>
          );
        })}
        {chips.map((c) => {
          const value = oneValue(lines, c.path);
          return (
            <SettingRow key={c.path} title={c.label}>
              <Chip
                label={`${c.label} of all`}
                quantity={c.quantity}
                value={value ?? String(atPath(lines[0], c.path))}
                placeholder={value === null ? 'several' : undefined}
                onChange={(v) => set(c.path, v)}
              />
            </SettingRow>
          );
        })}
      </SettingList>
      {!chips.length && !choices.length && !withMaterial && <p className="quiet pad">These lines have no value in common.</p>}
    </section>
  );
}
