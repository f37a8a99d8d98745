import { Canvas } from '@react-three/fiber';
import { useRef, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { useModel } from '../project/model.ts';
import { useStage } from '../project/stageState.ts';
import { useProject } from '../project/store.ts';
import { Bodies } from '../space/Bodies.tsx';
import { type CameraHandle, ViewCamera, type ViewName } from '../space/Camera.tsx';
import { LabelLayer, LabelMover } from '../space/Labels.tsx';
import { Floor } from '../space/Surroundings.tsx';
import type { StagePath } from '../ui/stages.ts';
import { useDark } from '../ui/useDark.ts';
import { Dials } from './Dials.tsx';
import { type EyeRef, HandleLayer, HandleMover, usePlacedHandles } from './Handles.tsx';
import { EmptyStage } from './EmptyStage.tsx';
import { PlacingBar } from './PlacingBar.tsx';
import { PlacingPointer } from './PlacingPointer.tsx';
import { SectionPlane } from './SectionPlane.tsx';
import { AddRow, MeshToggle, StatusLine, ViewBar } from './StageBars.tsx';
import { HitMarks, MeshMarks, ModelMarks } from './StageMarks.tsx';
import { StageTools } from './StageTools.tsx';
import { useFrames } from './useFrames.ts';
import { usePicking } from './usePicking.ts';
import { useStageLabels } from './useStageLabels.ts';
import { StageFrame } from '../space/StageFrame.ts';

const arrowViews: Record<string, ViewName> = { up: 'top', down: 'front', left: 'left', right: 'right', home: 'oblique' };

type Pointing = Pick<Parameters<typeof Bodies>[0], 'dark' | 'onPoint' | 'onLeave' | 'onPick'>;

/** The model's bodies with what is picked, lit and hidden of them; apart, as the pointer changes that often. */
function BodiesHere(pointing: Pointing) {
  const bodies = useModel((s) => s.view.bodies);
  const curves = useModel((s) => s.view.curves);
  const picked = useProject((s) => s.picked);
  const lit = useProject((s) => s.lit);
  const showing = useStage((s) => s.showing);
  return <Bodies {...pointing} {...{ bodies, curves, picked, lit, showing }} />;
}

interface Props {
  stage: StagePath;
  /** Something else is in its place: it is kept as it is, unseen. */
  away: boolean;
}

/** The 3D view of the model with what the stage lays over it. */
export default function StageView({ stage, away }: Props) {
  const dark = useDark();
  const camera = useRef<CameraHandle>(null);
  const [scale, setScale] = useState(0);
  const [showMesh, setShowMesh] = useState(true);
  const { frame, shownFrame, region, fit } = useFrames(stage);
  useHotkeys('.', fit, { enabled: !away });
  useHotkeys('alt+up,alt+down,alt+left,alt+right,alt+home', (_, k) => camera.current?.look(arrowViews[k.keys?.join('') ?? 'home']), {
    preventDefault: true,
    enabled: !away,
  });
  const { under, step, note, onPoint, onLeave, onMissed, onPick } = usePicking(away);

  const layer = useRef<HTMLDivElement>(null);
  const handleLayer = useRef<HTMLDivElement>(null);
  const eye = useRef<EyeRef>(null);
  const handles = usePlacedHandles();
  // What is placed goes where the pointer is: handles would lie between.
  const placing = useStage((s) => s.placing !== null);
  const labels = useStageLabels(frame, region);
  const level = useModel((s) => s.view.bodies.find((b) => b.normal === 2)?.min[2] ?? 0);
  return (
    <StageFrame className="stage" aria-label="Stage view" style={away ? { display: 'none' } : undefined}>
      <Canvas
        frameloop={away ? 'never' : 'demand'}
        dpr={[0.5, 2]}
        gl={{ antialias: true, preserveDrawingBuffer: true }}
        raycaster={{ params: { Line: { threshold: scale ? 6 / scale : 1e-4 } } as never }}
        onPointerMissed={onMissed}
        // The canvas takes no focus from a chip that waits for a reference.
        onPointerDown={(e) => useStage.getState().editor && e.preventDefault()}
        onMouseDown={(e) => useStage.getState().editor && e.preventDefault()}
      >
        <ViewCamera frame={shownFrame} handle={camera} onScale={setScale} />
        <SectionPlane />
        <Floor frame={frame} dark={dark} />
        <BodiesHere dark={dark} onPoint={onPoint} onLeave={onLeave} onPick={onPick} />
        <HitMarks pointed={under[step]} dark={dark} />
        <ModelMarks frame={frame} shownFrame={shownFrame} region={region} dark={dark} />
        {!away && <LabelMover labels={labels} layer={layer} />}
        {stage === 'shape' && !away && <PlacingPointer />}
        {stage === 'shape' && !away && <HandleMover handles={handles} layer={handleLayer} eye={eye} />}
        {stage === 'solve' && showMesh && <MeshMarks level={level} dark={dark} />}
      </Canvas>
      {!away && (
        <>
          <LabelLayer labels={labels} layer={layer} />
          {stage === 'shape' && <HandleLayer hidden={placing} handles={handles} layer={handleLayer} eye={eye} />}
          <div className="over top-rows">
            {stage === 'shape' && <AddRow />}
            {stage === 'solve' && <MeshToggle level={level} on={showMesh} onChange={setShowMesh} />}
            <StageTools frame={frame} />
          </div>
          <ViewBar fit={fit} look={(from) => camera.current?.look(from)} />
          <StatusLine picking={{ under, step, note }} scale={scale} />
          {stage === 'shape' && <EmptyStage />}
          {stage === 'shape' && <PlacingBar />}
          <Dials />
        </>
      )}
    </StageFrame>
  );
}
