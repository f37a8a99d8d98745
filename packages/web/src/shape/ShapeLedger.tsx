import { closestCenter, DndContext, KeyboardSensor, PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import { SortableContext, sortableKeyboardCoordinates, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { renameLine } from '@jadebell/core/document';
import { library } from '@jadebell/core/materials';
import { type ReactNode, type RefObject, useMemo, useRef, useState } from 'react';
import { showDialog } from '../ui/dialogs.ts';
import { useRemembered } from '../ui/remembered.ts';
import { z } from 'zod';
import { Parameters } from '../ledger/Parameters.tsx';
import { VariantChoice } from '../ledger/VariantChoice.tsx';
import { useRename } from '../ledger/useRename.ts';
import { moveLine, removeEntry, replaceEntry } from '../project/edits.ts';
import { useModel } from '../project/model.ts';
import { useProject } from '../project/store.ts';
import { LongList } from '../kit/LongList.tsx';
import { ToolMenu } from '../kit/ToolMenu.tsx';
import { addLine } from '../project/addLine.ts';
import { LineEntry } from './LineEntry.tsx';
import { Materials } from './Materials.tsx';
import { MultiEdit } from './MultiEdit.tsx';
import { SectionHead } from './SectionHead.tsx';
import { filtersFor, filterText, type LineFilter, passes } from './filter.ts';
import { inSections, rowsOf, sectionLength } from './sections.ts';
import { useChosen } from './useChosen.ts';
import { TablePaste } from './TablePaste.tsx';
import { Tool } from '../kit/Tool.tsx';
import { Field } from '../kit/Field.tsx';
import { LedgerFrame } from '../ledger/LedgerFrame.ts';

const none: ReadonlySet<string> = new Set();
/** Lines that are overseen without a filter. */
const few = 4;
/** Lines beyond which each takes one row unless it is wanted otherwise: sentences are read one by one, and of so many nobody does. */
const many = 200;

/** Parameters, lines in their sections, and materials of the project. */
export function ShapeLedger() {
  const [table, setTable] = useState<string | null>(null);
  const choosing = useChosen(setTable);
  const scroller = useRef<HTMLDivElement>(null);
  const ownMaterials = useProject((s) => s.document!.materials);
  const materials = useMemo(() => [...ownMaterials.map((m) => m.name), ...library.map((m) => m.name)], [ownMaterials]);
  const { chosen, setChosen } = choosing;
  return (
    <LedgerFrame ref={scroller} className="ledger" aria-label="Ledger">
      <VariantChoice />
      <Parameters />
      {chosen.size > 1 && <MultiEdit names={chosen} materials={materials} onDone={(next) => setChosen(next ? new Set(next) : none)} />}
      <Bodies chosen={chosen} onChoose={choosing.choose} materials={materials} scroller={scroller} onTable={() => setTable('')} />
      <Materials />
      {table !== null && <TablePaste text={table} onClose={() => setTable(null)} />}
    </LedgerFrame>
  );
}

interface BodiesProps {
  chosen: ReadonlySet<string>;
  onChoose: ReturnType<typeof useChosen>['choose'];
  materials: string[];
  scroller: RefObject<HTMLDivElement | null>;
  onTable(): void;
}

/** The lines in their sections, found by words or a filter, in full or one row each; they can be dragged to another place. */
function Bodies({ chosen, onChoose, materials, scroller, onTable }: BodiesProps) {
  // Not the whole document: while a dial is turned the lines stay what they are, and so does their ledger.
  const lines = useProject((s) => s.document!.lines);
  const edit = useProject((s) => s.edit);
  const kinds = useModel((s) => s.view.kinds);
  const [search, setSearch] = useState('');
  const [filter, setFilter] = useState<LineFilter | null>(null);
  const parameters = useProject((s) => (filter ? s.document!.parameters : null));
  const [wanted, setDense] = useRemembered('ledger.dense', z.boolean().nullable(), null);
  const dense = wanted ?? lines.length > many;
  const [folded, setFolded] = useState<ReadonlySet<string>>(none);
  const picked = useProject((s) => s.picked);
  const { rename, refusedOf } = useRename('lines', renameLine);
  const all = lines.map((l) => l.name);
  // The same list while it says the same: all that can be dragged hangs on it.
  const names = useMemo(() => all, [all.join()]); // oxlint-disable-line react/exhaustive-deps
  const frames = useMemo(() => Object.keys(kinds).filter((n) => kinds[n] === 'frame'), [kinds]);
  const sections = useMemo(() => inSections(lines), [lines]);
  const fold = (name: string): void =>
    setFolded((old) => {
      const next = new Set(old);
      if (!next.delete(name)) next.add(name);
      return next;
    });
  const move = (name: string, to: string): void => {
    const from = names.indexOf(name);
    edit('reorder', (d) => moveLine(d, from, names.indexOf(to), folded.has(name) ? sectionLength(lines, from) : 1));
  };
  const rows = rowsOf(sections, search, folded, filter && passes(parameters ?? [], filter));
  const hidden = names.length - rows.filter((r) => r.line).length - sections.filter((s) => s.head).length;
  return (
    <section aria-label="Bodies">
      <header>
        <h2 title="Where two bodies overlap, the later wins">Bodies</h2>
        <span className="quiet grow">later wins</span>
        <Field look="search" width={92} type="search" label="Find lines" placeholder="find" value={search} onChange={setSearch} />
        {names.length > few && (
          <ToolMenu
            label="Filter"
            hint="Lines of a kind, of a material, or that follow a parameter"
            items={() => filtersFor(useProject.getState().document!).map((f) => ({ title: filterText(f), act: () => setFilter(f) }))}
          />
        )}
        <ToolMenu label="Exchange" items={() => exchanges(onTable)} />
        <Tool aria-pressed={dense} hint="One row a line; the picked one in full" onClick={() => setDense(!dense)}>
          Dense
        </Tool>
        <Tool onClick={() => addLine('section')}>Add section</Tool>
      </header>
      {filter && (
        <p className="pad" style={{ paddingBlock: 4 }}>
          {filterText(filter)} <span className="quiet">({hidden} lines are not shown)</span> <Tool onClick={() => setFilter(null)}>Show all</Tool>
        </p>
      )}
      {!names.length && (
        <p className="quiet pad">Add a solid, a sheet or a curve with the buttons over the stage view, paste a table, or import a file.</p>
      )}
      <Draggable names={names} onMove={move}>
        <LongList rows={rows} keyOf={(row) => (row.head ?? row.line).name} height={dense ? 28 : 76} scroller={scroller} shown={picked}>
          {(row) =>
            row.head ? (
              <SectionHead
                line={row.head}
                open={row.open}
                count={row.count}
                onFold={() => fold(row.head.name)}
                onChange={(next) => edit(`section ${row.head.name}`, (d) => replaceEntry(d, 'lines', row.head.name, next))}
                onRemove={() => edit('remove section', (d) => removeEntry(d, 'lines', row.head.name))}
              />
            ) : (
              <LineEntry
                line={row.line}
                number={row.number}
                materials={materials}
                frames={frames}
                chosen={chosen.has(row.line.name)}
                muted={row.muted}
                dense={dense}
                refused={refusedOf(row.line.name)}
                onChoose={onChoose}
                onRename={rename}
              />
            )
          }
        </LongList>
      </Draggable>
    </section>
  );
}

/** Ways for bodies in and out of the project. */
const exchanges = (onTable: () => void) => [
  { title: 'Import a file', about: 'DXF, STL, OBJ, 3MF, glTF, STEP, points', act: () => showDialog('import') },
  { title: 'Paste a table', about: 'one line for each row', act: onTable },
  { title: 'Export the model', about: 'STL, glTF, DXF', act: () => showDialog('export') },
];

/** Rows that are put into another order with the pointer or the keyboard. */
function Draggable({ names, onMove, children }: { names: string[]; onMove(name: string, to: string): void; children: ReactNode }) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={({ active, over }) => {
        if (over && active.id !== over.id) onMove(String(active.id), String(over.id));
      }}
    >
      <SortableContext items={names} strategy={verticalListSortingStrategy}>
        {children}
      </SortableContext>
    </DndContext>
  );
}
