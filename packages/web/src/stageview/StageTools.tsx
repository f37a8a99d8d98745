import { formatSI } from '@jadebell/core/expressions/format';
import { useHotkeys } from 'react-hotkeys-hook';
import { useModel } from '../project/model.ts';
import { useProject } from '../project/store.ts';
import type { Frame } from '../space/frameOf.ts';
import { sectionRange } from './SectionPlane.tsx';
import { type PickMode, pickModes, useStage } from '../project/stageState.ts';
import type { Axis } from '@jadebell/core/numerics';

const axes = ['x', 'y', 'z'] as const;

/** Shows the picked body alone, or all again. */
function isolate(): void {
  const { showing, show, showAll } = useStage.getState();
  const { picked } = useProject.getState();
  if (Object.values(showing).includes('hidden')) return showAll();
  if (!picked) return;
  const { bodies, curves } = useModel.getState().view;
  const others = [...bodies.map((b) => ({ name: b.name, line: b.line })), ...curves.map((c) => ({ name: c.name, line: c.name }))];
  show(
    others.filter((b) => b.name !== picked && b.line !== picked).map((b) => b.name),
    'hidden',
  );
}

/** What is picked, measuring, the section plane, and what is shown. */
export function StageTools({ frame }: { frame: Frame }) {
  const { mode, section, measuring, showing, set, showAll } = useStage();
  const picked = useProject((s) => s.picked);
  // Through the middle of what is picked, or of all.
  const middle = (axis: Axis): number => {
    const own = useModel.getState().view.bodies.filter((b) => picked !== null && (b.name === picked || b.line === picked));
    return own.length ? (Math.min(...own.map((b) => b.min[axis])) + Math.max(...own.map((b) => b.max[axis]))) / 2 : frame.centre[axis];
  };
  const toggleSection = (axis: Axis): void =>
    set({ section: section?.axis === axis ? null : { axis, at: middle(axis), flipped: section?.flipped ?? false } });
  const toggleMeasure = (): void =>
    set({ measuring: measuring ? null : [], ...(measuring || mode !== 'bodies' ? {} : { mode: 'points' as PickMode }) });
  useHotkeys('comma', () => set({ mode: pickModes[(pickModes.indexOf(mode) + 1) % pickModes.length], hit: null }), { useKey: false }, [mode]);
  useHotkeys('x', () => toggleSection(0), [section, frame, picked]);
  useHotkeys('y', () => toggleSection(1), [section, frame, picked]);
  useHotkeys('z', () => toggleSection(2), [section, frame, picked]);
  useHotkeys('m', toggleMeasure, [measuring, mode]);
  useHotkeys('i', isolate);
  const hidden = Object.keys(showing).length;
  const [low, high] = section ? sectionRange(frame, section.axis) : [0, 1];
  return (
    <div className="stage-tools" role="toolbar" aria-label="Picking and showing">
      <label className="tool">
        pick{' '}
        <select aria-label="What is picked (,)" value={mode} onChange={(e) => set({ mode: e.target.value as PickMode, hit: null })}>
          {pickModes.map((m) => (
            <option key={m} value={m}>
              {m}
            </option>
          ))}
        </select>
      </label>
      <button type="button" className="tool" aria-pressed={measuring !== null} title="Measure distance and angle (m)" onClick={toggleMeasure}>
        Measure
      </button>
      {axes.map((a, i) => (
        <button
          key={a}
          type="button"
          className="tool"
          aria-pressed={section?.axis === i}
          title={`Section plane across ${a} (${a})`}
          aria-label={`Section across ${a}`}
          onClick={() => toggleSection(i as Axis)}
        >
          {i === 0 ? `Section ${a}` : a}
        </button>
      ))}
      {section && (
        <span className="tool section-slider">
          <input
            type="range"
            aria-label={`Section plane along ${axes[section.axis]}`}
            min={low}
            max={high}
            step={(high - low) / 500}
            value={section.at}
            aria-valuetext={formatSI(section.at, 'length', 4)}
            onChange={(e) => set({ section: { ...section, at: Number(e.target.value) } })}
          />
          <span className="mono">{formatSI(section.at, 'length', 3)}</span>
          <button type="button" className="tool" onClick={() => set({ section: { ...section, flipped: !section.flipped } })}>
            Other side
          </button>
        </span>
      )}
      {picked && !hidden && (
        <button type="button" className="tool" title="Show only what is picked (i)" onClick={isolate}>
          Isolate
        </button>
      )}
      {hidden > 0 && (
        <button type="button" className="tool" onClick={showAll}>
          Show all ({hidden})
        </button>
      )}
    </div>
  );
}
