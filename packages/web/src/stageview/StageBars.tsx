import { shapeGroups, shapes } from '@jadebell/core/document';
import { formatSI } from '@jadebell/core/expressions/format';
import { addLine, canAdd } from '../project/addLine.ts';
import { canPlace, startPlacing } from './placing.ts';
import { useModel } from '../project/model.ts';
import { type Hit, useStage } from '../project/stageState.ts';
import { useProject } from '../project/store.ts';
import type { ViewName } from '../space/Camera.tsx';
import { roundLength } from '../space/frameOf.ts';
import { ToolMenu } from '../kit/ToolMenu.tsx';
import { measured, tell } from './told.ts';
import { Tool } from '../kit/Tool.tsx';

/** Adds a line, and lets the pointer place it where it has a place. */
function addByHand(kind: string): void {
  const name = addLine(kind);
  const line = useProject.getState().document?.lines.find((l) => l.name === name);
  if (line && canPlace(line)) startPlacing(line.name);
}

/** Menus of lines to add, a group each. */
export function AddRow() {
  return (
    <div className="add-row" role="toolbar" aria-label="Add a line">
      {shapeGroups
        .filter((g) => g !== 'Order')
        .map((group) => (
          <ToolMenu
            key={group}
            label={`+ ${group}`}
            items={() =>
              shapes
                .filter((s) => s.group === group)
                .map((s) => ({
                  title: s.title,
                  about: s.about,
                  disabled: !canAdd(s.kind, useProject.getState().document!),
                  act: () => addByHand(s.kind),
                }))
            }
          />
        ))}
    </div>
  );
}

/** Shows or hides the grid at a height, or the segments of wires. */
export function MeshToggle({ level, on, onChange }: { level: number; on: boolean; onChange(on: boolean): void }) {
  const wires = useModel((s) => s.view.wires);
  return (
    <div className="add-row">
      <Tool aria-pressed={on} onClick={() => onChange(!on)}>
        {wires ? 'Segments' : `Grid at z = ${formatSI(level, 'length', 3)}`}
      </Tool>
    </div>
  );
}

const viewNames: ViewName[] = ['oblique', 'top', 'bottom', 'front', 'back', 'left', 'right'];
/** From where the model is seen. */
export function ViewBar({ fit, look }: { fit(): void; look(from: ViewName): void }) {
  return (
    <div className="over views" role="toolbar" aria-label="Views">
      <Tool onClick={fit} hint="Fit (.)">
        Fit
      </Tool>
      <ToolMenu label="View from" face="View" items={() => viewNames.map((v) => ({ title: v, act: () => look(v) }))} />
    </div>
  );
}

/** What the line below the view says: what cannot be done, what is waited for, or what lies under the pointer. */
function useStatus({ under, step, note }: { under: readonly Hit[]; step: number; note: string | null }): string {
  const { view, ready } = useModel();
  const { mode, hit, measuring, editor } = useStage();
  const pointed = under[step];
  if (note) return note;
  if (editor && mode === 'bodies') return 'A chip is open: pick a point, an edge or a face (key , changes which) to put its reference into it.';
  if (measuring) return measured(view, measuring);
  if (pointed) return `${tell(view, pointed)}${under.length > 1 ? ` · ${step + 1} of ${under.length} here` : ''}`;
  if (!view.bodies.length && !view.curves.length) return ready ? ' ' : 'Building the model …';
  return hit && hit.kind !== 'body' ? tell(view, hit) : ' ';
}

/** The line below the view, and a bar of a round length. `scale`: pixels a metre. */
export function StatusLine({ picking, scale }: { picking: Parameters<typeof useStatus>[0]; scale: number }) {
  const line = useStatus(picking);
  const bar = scale ? roundLength(110 / scale) : 0;
  return (
    <div className="over tell" aria-live="polite">
      <span>{line}</span>
      {bar > 0 && (
        <span>
          {formatSI(bar, 'length', 3)}
          <div className="scale-bar" style={{ width: bar * scale }} />
        </span>
      )}
    </div>
  );
}
