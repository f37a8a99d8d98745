import { type Line, shapeOf } from '@jadebell/core/document';
import { type MouseEvent } from 'react';
import { Entry } from '../ledger/Entry.tsx';
import { glyphOf } from '../ledger/glyphs.tsx';
import { Sentence } from '../ledger/Sentence.tsx';
import { duplicateLines, removeEntry, replaceEntry } from '../project/edits.ts';
import { problemsAt, useModel } from '../project/model.ts';
import { useProject } from '../project/store.ts';
import { cycleShowing, useStage } from '../project/stageState.ts';
import type { Problem } from '@jadebell/core/document';

interface Props {
  line: Line;
  number: number;
  materials: string[];
  chosen: boolean;
  muted: boolean;
  frames: string[];
  withFault(name: string, own: Problem[]): Problem[];
  onChoose(e: MouseEvent, name: string): void;
  onRename(from: string, to: string): void;
}

/** One line of the model. */
export function LineEntry({ line, number, materials, chosen, muted, frames, withFault, onChoose, onRename }: Props) {
  const edit = useProject((s) => s.edit);
  const picked = useProject((s) => s.picked === line.name);
  const problems = useModel((s) => s.view.problems);
  const bodies = useModel((s) => s.view.bodies);
  const curves = useModel((s) => s.view.curves);
  const showing = useStage((s) => s.showing);
  const shape = shapeOf(line);
  const own = problemsAt(problems, 'lines', line.name);
  const made = [...bodies.filter((b) => b.line === line.name).map((b) => b.name), ...curves.filter((c) => c.name === line.name).map((c) => c.name)];
  const replace = (what: string, next: Line): void => edit(what, (d) => replaceEntry(d, 'lines', line.name, next));
  return (
    <Entry
      name={line.name}
      number={number}
      glyph={glyphOf(line.kind)}
      muted={muted}
      problems={withFault(line.name, own)}
      sortable
      chosen={chosen}
      showing={made.length ? (showing[made[0]] ?? 'shown') : undefined}
      onChoose={(e) => onChoose(e, line.name)}
      onShow={() => cycleShowing(made)}
      onMute={() => replace('mute', { ...line, muted: !line.muted })}
      onDuplicate={() => edit('duplicate line', (d) => duplicateLines(d, new Set([line.name])).project)}
      onRemove={() => edit('remove line', (d) => removeEntry(d, 'lines', line.name))}
    >
      <span>
        <Sentence
          entry={line}
          parts={shape.sentence(line)}
          chips={shape.chips(line)}
          problems={own}
          materials={materials}
          inherited={shape.material === 'first' ? 'material as before' : undefined}
          onChange={(next, what) => replace(what, next)}
          onRename={(name) => onRename(line.name, name)}
        />
        {picked && line.in === undefined && frames.length > 0 && shape.kind !== 'section' && (
          <button
            type="button"
            className="tool"
            style={{ marginLeft: 6 }}
            onClick={() => replace('frame', { ...line, in: frames[frames.length - 1] })}
          >
            In a frame
          </button>
        )}
      </span>
    </Entry>
  );
}
