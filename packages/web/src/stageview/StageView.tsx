import { shapes } from '@jadebell/core/document';
import { formatSI } from '@jadebell/core/format';
import { Canvas } from '@react-three/fiber';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import type { StagePath } from '../frame/stages.ts';
import { useModel } from '../project/model.ts';
import { useProject } from '../project/store.ts';
import { addLine } from '../shape/ShapeLedger.tsx';
import { useDark } from '../ui/useDark.ts';
import { Bodies } from './Bodies.tsx';
import { type CameraHandle, ViewCamera, type ViewName } from './Camera.tsx';
import { Dials } from './Dials.tsx';
import { frameOf, roundLength } from './frameOf.ts';
import { type Label, LabelLayer, LabelMover } from './Labels.tsx';
import { portLabels, PortMarks } from './PortMarks.tsx';
import { axisLabels, boundaryLabels, Floor, GridPlane, RegionFrame } from './Surroundings.tsx';

const viewNames: ViewName[] = ['oblique', 'top', 'bottom', 'front', 'back', 'left', 'right'];
const arrowViews: Record<string, ViewName> = { up: 'top', down: 'front', left: 'left', right: 'right', home: 'oblique' };

/** The 3D view of the model with what the stage lays over it. */
export default function StageView({ stage }: { stage: StagePath }) {
  const { view, ready } = useModel();
  const boundaries = useProject((s) => s.document!.boundaries);
  const { picked, lit, pick, light } = useProject();
  const dark = useDark();
  const camera = useRef<CameraHandle>(null);
  const [scale, setScale] = useState(0);
  const [under, setUnder] = useState<string[]>([]);
  const [step, setStep] = useState(0);
  const [showGrid, setShowGrid] = useState(true);
  // The frame is taken when the model first comes and when the user fits; in between the model may grow out of it.
  const [fits, setFits] = useState(0);
  const frame = useMemo(() => frameOf(useModel.getState().view.bodies), [fits, ready]); // eslint-disable-line react-hooks/exhaustive-deps
  const region = stage !== 'shape' ? view.region : null;
  const shownFrame = useMemo(() => (region ? frameOf([region as never]) : frame), [frame, region?.min.join(), region?.max.join()]); // eslint-disable-line react-hooks/exhaustive-deps

  const fit = useCallback(() => setFits((n) => n + 1), []);
  useHotkeys('.', fit);
  useHotkeys('alt+up,alt+down,alt+left,alt+right,alt+home', (_, k) => camera.current?.look(arrowViews[k.keys?.join('') ?? 'home']), {
    preventDefault: true,
  });
  const through = (by: number): void => {
    if (!under.length) return;
    const next = (step + by + under.length) % under.length;
    setStep(next);
    pick(under[next]);
  };
  useHotkeys('bracketleft', () => through(-1), { useKey: false }, [under, step]);
  useHotkeys('bracketright', () => through(1), { useKey: false }, [under, step]);

  const onPoint = useCallback(
    (names: string[]) => {
      setUnder((old) => {
        if (names.join() === old.join()) return old;
        setStep(0);
        return names;
      });
      light(names[0] ?? null);
    },
    [light],
  );
  useEffect(() => () => light(null), [light]);

  const layer = useRef<HTMLDivElement>(null);
  const labels = useMemo(
    (): Label[] => [...axisLabels(frame), ...portLabels(view.ports), ...(region ? boundaryLabels(region, boundaries) : [])],
    [frame, view.ports, region, boundaries],
  );
  const told = view.bodies.find((b) => b.name === (under[step] ?? ''));
  const bar = scale ? roundLength(110 / scale) : 0;
  const level = useMemo(() => view.bodies.find((b) => b.recipe.form === 'sheet' && b.recipe.normal === 2)?.min[2] ?? 0, [view.bodies]);
  return (
    <div className="stage" aria-label="Stage view">
      <Canvas frameloop="demand" dpr={[1, 2]} gl={{ antialias: true, preserveDrawingBuffer: true }} onPointerMissed={() => pick(null)}>
        <ViewCamera frame={shownFrame} handle={camera} onScale={setScale} />
        <Floor frame={frame} dark={dark} />
        <Bodies bodies={view.bodies} dark={dark} picked={picked} lit={lit} onPoint={onPoint} onPick={pick} />
        <PortMarks ports={view.ports} size={frame.size} />
        {region && <RegionFrame region={region} dark={dark} />}
        <LabelMover labels={labels} layer={layer} />
        {stage === 'solve' && showGrid && view.grid && <GridPlane grid={view.grid} level={level} dark={dark} />}
      </Canvas>
      <LabelLayer labels={labels} layer={layer} />
      {stage === 'shape' && (
        <div className="over add-row">
          {shapes.map((s) => (
            <button key={s.kind} type="button" className="tool" title={s.about} onClick={() => addLine(s.kind)}>
              + {s.title}
            </button>
          ))}
        </div>
      )}
      {stage === 'solve' && (
        <div className="over add-row">
          <button type="button" className="tool" aria-pressed={showGrid} onClick={() => setShowGrid(!showGrid)}>
            Grid at z = {formatSI(level, 'length', 3)}
          </button>
        </div>
      )}
      <div className="over views" role="toolbar" aria-label="Views">
        <button type="button" className="tool" onClick={fit} title="Fit (.)">
          Fit
        </button>
        <select className="tool" aria-label="View from" value="" onChange={(e) => camera.current?.look(e.target.value as ViewName)}>
          <option value="" disabled>
            View
          </option>
          {viewNames.map((v) => (
            <option key={v} value={v}>
              {v}
            </option>
          ))}
        </select>
      </div>
      <div className="over tell" aria-live="polite">
        <span>
          {told
            ? `${told.name} · ${told.material.name} · ${[0, 1, 2].map((a) => formatSI(told.max[a] - told.min[a], 'length', 4)).join(' × ')}${under.length > 1 ? ` · ${step + 1} of ${under.length} here` : ''}`
            : view.bodies.length
              ? ' '
              : ready
                ? 'Nothing to see yet'
                : 'Building the model …'}
        </span>
        {bar > 0 && (
          <span>
            {formatSI(bar, 'length', 3)}
            <div className="scale-bar" style={{ width: bar * scale }} />
          </span>
        )}
      </div>
      <Dials />
    </div>
  );
}
