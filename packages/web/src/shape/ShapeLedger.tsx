import { closestCenter, DndContext, KeyboardSensor, PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import { SortableContext, sortableKeyboardCoordinates, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { type Line, renameLine, shapeOf } from '@jadebell/core/document';
import { library } from '@jadebell/core/materials';
import { namesUsed } from '@jadebell/core/expressions/uses';
import { type MouseEvent, useCallback, useEffect, useMemo, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { useDialogs } from '../ui/dialogs.ts';
import { Parameters } from '../ledger/Parameters.tsx';
import { useRename } from '../ledger/useRename.ts';
import { moveLine, removeEntry, removeLines, replaceEntry } from '../project/edits.ts';
import { useModel } from '../project/model.ts';
import { useProject } from '../project/store.ts';
import { ToolMenu } from '../kit/ToolMenu.tsx';
import { addLine } from '../project/addLine.ts';
import { copyLines, cutLines, pasteLines } from './clipboard.ts';
import { LineEntry } from './LineEntry.tsx';
import { Materials } from './Materials.tsx';
import { MultiEdit } from './MultiEdit.tsx';
import { SectionHead } from './SectionHead.tsx';
import { inSections, matches, sectionLength } from './sections.ts';
import { TablePaste } from './TablePaste.tsx';
import { Tool } from '../kit/Tool.tsx';
import { Field } from '../kit/Field.tsx';

const none: ReadonlySet<string> = new Set();

/** Parameters, lines in their sections, and materials of the project. */
export function ShapeLedger() {
  const document = useProject((s) => s.document)!;
  const edit = useProject((s) => s.edit);
  const kinds = useModel((s) => s.view.kinds);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(none);
  const [search, setSearch] = useState('');
  const [folded, setFolded] = useState<ReadonlySet<string>>(none);
  const [table, setTable] = useState<string | null>(null);
  const { rename, refusedOf } = useRename('lines', renameLine);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const all = document.lines.map((l) => l.name);
  // The same list while it says the same: all that can be dragged hangs on it.
  const names = useMemo(() => all, [all.join()]); // eslint-disable-line react-hooks/exhaustive-deps
  const materials = useMemo(() => [...document.materials.map((m) => m.name), ...library.map((m) => m.name)], [document.materials]);
  const frames = useMemo(() => Object.keys(kinds).filter((n) => kinds[n] === 'frame'), [kinds]);
  const sections = useMemo(() => inSections(document.lines), [document.lines]);

  const choose = useCallback((e: MouseEvent, name: string): void => {
    const { picked, document } = useProject.getState();
    const names = document?.lines.map((l) => l.name) ?? [];
    setChosen((old) => {
      const next = new Set(old);
      if (e.shiftKey) {
        const from = names.indexOf(picked ?? name);
        const to = names.indexOf(name);
        for (const n of names.slice(Math.min(from, to), Math.max(from, to) + 1)) next.add(n);
        return next;
      }
      if (!next.size && picked && picked !== name && names.includes(picked)) next.add(picked);
      if (next.has(name)) next.delete(name);
      else next.add(name);
      return next;
    });
  }, []);
  /** The chosen lines, or the picked one. */
  const targets = (): ReadonlySet<string> => {
    const { picked } = useProject.getState();
    return chosen.size ? chosen : new Set(picked && names.includes(picked) ? [picked] : []);
  };
  useHotkeys('mod+c', () => void copyLines(targets(), namesUsed), [chosen, names]);
  useHotkeys('mod+x', () => void cutLines(targets(), namesUsed), [chosen, names]);
  useHotkeys('delete', () => edit('remove lines', (d) => removeLines(d, targets())), [chosen, names]);
  useHotkeys('escape', () => setChosen(none));
  useEffect(() => {
    const take = (e: ClipboardEvent): void => {
      if (/^(input|textarea|select)$/i.test((e.target as HTMLElement).tagName)) return;
      const text = e.clipboardData?.getData('text') ?? '';
      const made = pasteLines(text);
      if (made) setChosen(new Set(made));
      else if (text.includes('\t') || text.includes('\n')) setTable(text);
    };
    window.addEventListener('paste', take);
    return () => window.removeEventListener('paste', take);
  }, []);

  const shown = (line: Line): boolean => !search || matches(line, shapeOf(line).title, search);
  return (
    <div className="ledger" aria-label="Ledger">
      <Parameters />
      {chosen.size > 1 && <MultiEdit names={chosen} materials={materials} onDone={(next) => setChosen(next ? new Set(next) : none)} />}
      <section aria-label="Bodies">
        <header>
          <h2 title="Where two bodies overlap, the later wins">Bodies</h2>
          <span className="quiet grow">later wins</span>
          <Field look="search" width={92} type="search" label="Find lines" placeholder="find" value={search} onChange={setSearch} />
          <ToolMenu
            label="Exchange"
            items={[
              { title: 'Import a file', about: 'DXF, STL, OBJ, 3MF, glTF, STEP, points', act: () => useDialogs.getState().show('import') },
              { title: 'Paste a table', about: 'one line for each row', act: () => setTable('') },
              { title: 'Export the model', about: 'STL, glTF, DXF', act: () => useDialogs.getState().show('export') },
            ]}
          />
          <Tool onClick={() => addLine('section')}>Add section</Tool>
        </header>
        {!names.length && (
          <p className="quiet pad">Add a solid, a sheet or a curve with the buttons over the stage view, paste a table, or import a file.</p>
        )}
        <DndContext
          sensors={sensors}
          collisionDetection={closestCenter}
          onDragEnd={({ active, over }) => {
            if (!over || active.id === over.id) return;
            const from = names.indexOf(String(active.id));
            const fold = folded.has(String(active.id)) ? sectionLength(document.lines, from) : 1;
            edit('reorder', (d) => moveLine(d, from, names.indexOf(String(over.id)), fold));
          }}
        >
          <SortableContext items={names} strategy={verticalListSortingStrategy}>
            {sections.map(({ head, lines }) => {
              const found = lines.filter(({ line }) => shown(line));
              if (search && !found.length) return null;
              const open = !head || search !== '' || !folded.has(head.name);
              return (
                <div key={head?.name ?? ''}>
                  {head && (
                    <SectionHead
                      line={head}
                      open={open}
                      count={lines.length}
                      onFold={() =>
                        setFolded((old) => {
                          const next = new Set(old);
                          if (!next.delete(head.name)) next.add(head.name);
                          return next;
                        })
                      }
                      onChange={(next) => edit(`section ${head.name}`, (d) => replaceEntry(d, 'lines', head.name, next))}
                      onRemove={() => edit('remove section', (d) => removeEntry(d, 'lines', head.name))}
                    />
                  )}
                  {open &&
                    found.map(({ line, number }) => (
                      <LineEntry
                        key={line.name}
                        line={line}
                        number={number}
                        materials={materials}
                        frames={frames}
                        chosen={chosen.has(line.name)}
                        muted={line.muted === true || head?.muted === true}
                        refused={refusedOf(line.name)}
                        onChoose={choose}
                        onRename={rename}
                      />
                    ))}
                </div>
              );
            })}
          </SortableContext>
        </DndContext>
      </section>
      <Materials />
      {table !== null && <TablePaste text={table} onClose={() => setTable(null)} />}
    </div>
  );
}
