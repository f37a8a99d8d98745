import { formatSI } from '@jadebell/core/expressions/format';
import { useHotkeys } from 'react-hotkeys-hook';
import { useModel } from '../project/model.ts';
import { useProject } from '../project/store.ts';
import type { Frame } from '../space/frameOf.ts';
import { sectionRange } from './SectionPlane.tsx';
import { type PickMode, pickModes, useStage } from '../project/stageState.ts';
import type { Axis } from '@jadebell/core/numerics';
import { Tool } from '../kit/Tool.tsx';
import { Choice, plainOptions } from '../kit/Choice.tsx';
import { Range } from '../kit/Range.tsx';

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
      <Choice
        look="tool"
        label="What is picked (,)"
        value={mode}
        options={plainOptions(pickModes)}
        shows={`pick ${mode}`}
        onChange={(m) => set({ mode: m, hit: null })}
      />
      <Tool aria-pressed={measuring !== null} hint="Measure distance and angle (m)" onClick={toggleMeasure}>
        Measure
      </Tool>
      {axes.map((a, i) => (
        <Tool
          key={a}
          aria-pressed={section?.axis === i}
          hint={`Section plane across ${a} (${a})`}
          aria-label={`Section across ${a}`}
          onClick={() => toggleSection(i as Axis)}
        >
          {i === 0 ? `Section ${a}` : a}
        </Tool>
      ))}
      {section && (
        <span className="section-slider">
          <Range
            label={`Section plane along ${axes[section.axis]}`}
            min={low}
            max={high}
            step={(high - low) / 500}
            value={section.at}
            told={formatSI(section.at, 'length', 4)}
            width={120}
            onChange={(at) => set({ section: { ...section, at } })}
          />
          <span className="mono">{formatSI(section.at, 'length', 3)}</span>
          <Tool onClick={() => set({ section: { ...section, flipped: !section.flipped } })}>Other side</Tool>
        </span>
      )}
      {picked && !hidden && (
        <Tool hint="Show only what is picked (i)" onClick={isolate}>
          Isolate
        </Tool>
      )}
      {hidden > 0 && <Tool onClick={showAll}>Show all ({hidden})</Tool>}
    </div>
  );
}
