import { closestCenter, DndContext, KeyboardSensor, PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import { SortableContext, sortableKeyboardCoordinates, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { type Line, shapeOf, shapes } from '@jadebell/core/document';
import { library } from '@jadebell/core/materials';
import { useState } from 'react';
import { Entry } from '../ledger/Entry.tsx';
import { Givens } from '../ledger/Givens.tsx';
import { glyphs } from '../ledger/glyphs.tsx';
import { Sentence } from '../ledger/Sentence.tsx';
import { freeName, moveLine, nameFault, removeEntry, renameLine, replaceEntry } from '../project/edits.ts';
import { problemsAt, useModel } from '../project/model.ts';
import { useProject } from '../project/store.ts';
import { Materials } from './Materials.tsx';

/** Adds a line of a kind at the end and picks it. */
export function addLine(kind: string): void {
  const shape = shapes.find((s) => s.kind === kind)!;
  const { edit, pick, document } = useProject.getState();
  if (!document) return;
  const name = freeName(document, 'lines', kind);
  edit(`add ${kind}`, (d) => ({ ...d, lines: [...d.lines, shape.fresh(name)] }));
  pick(name);
}

/** Givens, bodies and materials of the project. */
export function ShapeLedger() {
  const document = useProject((s) => s.document)!;
  const edit = useProject((s) => s.edit);
  const problems = useModel((s) => s.view.problems);
  const [fault, setFault] = useState<{ name: string; text: string } | null>(null);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const names = document.lines.map((l) => l.name);
  const materials = [...document.materials.map((m) => m.name), ...library.map((m) => m.name)];

  const rename = (line: Line, name: string): void => {
    const wrong = nameFault(document, 'lines', name);
    setFault(wrong ? { name: line.name, text: wrong } : null);
    if (!wrong) edit('rename line', (d) => renameLine(d, line.name, name));
  };
  const duplicate = (line: Line): void =>
    edit('duplicate line', (d) => {
      const at = d.lines.findIndex((l) => l.name === line.name);
      const copy = { ...line, name: freeName(d, 'lines', line.name) };
      return { ...d, lines: [...d.lines.slice(0, at + 1), copy, ...d.lines.slice(at + 1)] };
    });

  return (
    <div className="ledger" aria-label="Ledger">
      <Givens />
      <section aria-label="Bodies">
        <header>
          <h2>Bodies</h2>
          <span className="quiet">where two overlap, the later wins</span>
        </header>
        {!names.length && <p className="quiet pad">Add a box, a sheet or a cylinder with the buttons over the stage view.</p>}
        <DndContext
          sensors={sensors}
          collisionDetection={closestCenter}
          onDragEnd={({ active, over }) => {
            if (over && active.id !== over.id) edit('reorder', (d) => moveLine(d, names.indexOf(String(active.id)), names.indexOf(String(over.id))));
          }}
        >
          <SortableContext items={names} strategy={verticalListSortingStrategy}>
            {document.lines.map((line, i) => {
              const shape = shapeOf(line);
              const own = problemsAt(problems, 'lines', line.name);
              const shown =
                fault?.name === line.name
                  ? [
                      ...own,
                      {
                        severity: 'error' as const,
                        code: 'name',
                        place: { part: 'lines' as const },
                        message: fault.text,
                        fix: 'Choose another name.',
                      },
                    ]
                  : own;
              return (
                <Entry
                  key={line.name}
                  name={line.name}
                  number={i + 1}
                  glyph={glyphs[line.kind]}
                  muted={line.muted}
                  problems={shown}
                  sortable
                  onMute={() => edit('mute', (d) => replaceEntry(d, 'lines', line.name, { ...line, muted: !line.muted }))}
                  onDuplicate={() => duplicate(line)}
                  onRemove={() => edit('remove line', (d) => removeEntry(d, 'lines', line.name))}
                >
                  <span>
                    <Sentence
                      entry={line}
                      parts={shape.sentence(line)}
                      chips={shape.chips(line)}
                      problems={own}
                      bodies={names}
                      materials={materials}
                      onChange={(next, what) => edit(what, (d) => replaceEntry(d, 'lines', line.name, next))}
                      onRename={(name) => rename(line, name)}
                    />
                    {line.kind === 'polygon' && (
                      <span className="row">
                        <button
                          type="button"
                          className="tool"
                          onClick={() =>
                            edit('add point', (d) => replaceEntry(d, 'lines', line.name, { ...line, points: [...line.points, ['0 mm', '0 mm']] }))
                          }
                        >
                          Add point
                        </button>
                        {line.points.length > 3 && (
                          <button
                            type="button"
                            className="tool"
                            onClick={() =>
                              edit('remove point', (d) => replaceEntry(d, 'lines', line.name, { ...line, points: line.points.slice(0, -1) }))
                            }
                          >
                            Remove last point
                          </button>
                        )}
                      </span>
                    )}
                  </span>
                </Entry>
              );
            })}
          </SortableContext>
        </DndContext>
      </section>
      <Materials />
    </div>
  );
}
