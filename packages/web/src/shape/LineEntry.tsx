import { type Line, type Problem, shapeOf } from '@jadebell/core/document';
import { type MouseEvent, memo } from 'react';
import { useShallow } from 'zustand/react/shallow';
import { Tool } from '../kit/Tool.tsx';
import { Entry } from '../ledger/Entry.tsx';
import { glyphOf } from '../ledger/glyphs.tsx';
import { Sentence } from '../ledger/Sentence.tsx';
import { duplicateLines, removeEntry, replaceEntry } from '../project/edits.ts';
import { useModel, useProblemsOf } from '../project/model.ts';
import { cycleShowing, useStage } from '../project/stageState.ts';
import { madeBy } from '../project/ofLine.ts';
import { useProject } from '../project/store.ts';
import { DenseLine } from './DenseLine.tsx';

interface Props {
  line: Line;
  number: number;
  materials: string[];
  chosen: boolean;
  muted: boolean;
  /** In one row, but for the picked one. */
  dense: boolean;
  frames: string[];
  /** Why its new name was refused. */
  refused?: Problem;
  onChoose(e: MouseEvent, name: string): void;
  onRename(from: string, to: string): void;
}

/** One line of the model; drawn anew only when something of its own changes, as a model may have hundreds. */
export const LineEntry = memo(function LineEntry({ line, number, materials, chosen, muted, dense, frames, refused, onChoose, onRename }: Props) {
  const { edit } = useProject.getState();
  const picked = useProject((s) => s.picked === line.name);
  const own = useProblemsOf('lines', line.name);
  const made = useModel(
    useShallow(({ view }) => {
      const { bodies, curves } = madeBy(view, line.name);
      return [...bodies, ...curves].map((m) => m.name);
    }),
  );
  const showing = useStage((s) => (made.length ? (s.showing[made[0]] ?? 'shown') : undefined));
  const shape = shapeOf(line);
  const replace = (what: string, next: Line): void => edit(what, (d) => replaceEntry(d, 'lines', line.name, next));
  return (
    <Entry
      name={line.name}
      number={number}
      glyph={glyphOf(line.kind)}
      muted={muted}
      problems={refused ? [...own, refused] : own}
      sortable
      chosen={chosen}
      showing={showing}
      onChoose={(e) => onChoose(e, line.name)}
      onShow={() => cycleShowing(made)}
      onMute={() => replace('mute', { ...line, muted: !line.muted })}
      onDuplicate={() => edit('duplicate line', (d) => duplicateLines(d, new Set([line.name])).project)}
      onRemove={() => edit('remove line', (d) => removeEntry(d, 'lines', line.name))}
    >
      {dense && !picked ? (
        <DenseLine line={line} />
      ) : (
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
            <Tool style={{ marginLeft: 6 }} onClick={() => replace('frame', { ...line, in: frames[frames.length - 1] })}>
              In a frame
            </Tool>
          )}
        </span>
      )}
    </Entry>
  );
});
