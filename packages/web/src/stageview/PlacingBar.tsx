import { Paper } from '@mui/material';
import { useEffect, useRef } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { TypedField } from '../kit/Field.tsx';
import { Tool } from '../kit/Tool.tsx';
import { useModel } from '../project/model.ts';
import { type Placing, useStage } from '../project/stageState.ts';
import { useProject } from '../project/store.ts';
import { nextStep, stepOf, stopPlacing, typeValue, valuesOfStep } from './placing.ts';

/** While a new line is placed: what the next click does, and the values that it gives, to be typed as well. */
export function PlacingBar() {
  const placing = useStage((s) => s.placing);
  return placing && <Bar placing={placing} />;
}

function Bar({ placing }: { placing: Placing }) {
  const bar = useRef<HTMLDivElement>(null);
  const picked = useProject((s) => s.picked);
  // The step follows from the line and its values.
  useProject((s) => s.document?.lines.find((l) => l.name === placing.line));
  useModel((s) => s.view.values[placing.line]);
  // Enter on a button is the button's.
  useHotkeys('enter', (e) => void ((e.target as Element).closest('button') ?? nextStep()));
  useHotkeys('escape', stopPlacing);
  useEffect(() => {
    const outside = (e: PointerEvent): void => {
      if (!(e.target as Element).closest('.stage')) stopPlacing();
    };
    /** What is typed goes into the first value. */
    const typed = (e: KeyboardEvent): void => {
      const target = e.target as HTMLElement;
      if (!/^[\d.-]$/.test(e.key) || e.ctrlKey || e.metaKey || e.altKey || target.matches('input, textarea')) return;
      const field = bar.current?.querySelector('input');
      e.stopPropagation();
      field?.focus();
      field?.select();
    };
    window.addEventListener('pointerdown', outside, true);
    window.addEventListener('keydown', typed, true);
    return () => {
      window.removeEventListener('pointerdown', outside, true);
      window.removeEventListener('keydown', typed, true);
    };
  }, []);
  const gone = picked !== placing.line;
  useEffect(() => {
    if (gone) stopPlacing();
  }, [gone]);
  useEffect(() => stopPlacing, []);
  const now = stepOf(placing);
  if (!now) return null;
  return (
    <Paper
      ref={bar}
      variant="outlined"
      className="over"
      role="group"
      aria-label="Placing"
      sx={{ left: 10, bottom: 64, px: 1.25, py: 0.625, fontSize: 12.5 }}
    >
      <div className="row">
        <span>
          {now.step.kind === 'place' ? 'Click where ' : 'Move and click to size '}
          <b>{placing.line}</b>
          {now.step.kind === 'place' ? ' stands' : ''}
        </span>
        {valuesOfStep(now.line, now.step).map(({ path, label, text }) => (
          <span key={path} className="row" style={{ gap: 3 }}>
            <span className="quiet">{label}</span>
            <TypedField
              label={label}
              mono
              width={76}
              value={text}
              check={(t) => (t.trim() ? null : 'a length')}
              onChange={(t) => typeValue(placing, path, t)}
            />
          </span>
        ))}
        <Tool hint="Takes these values (Enter)" onClick={nextStep}>
          {now.last ? 'Done' : 'Next'}
        </Tool>
        <Tool hint="Leaves the line as it is (Esc)" onClick={stopPlacing}>
          Leave
        </Tool>
      </div>
    </Paper>
  );
}
