import { Canvas } from '@react-three/fiber';
import { useMemo, useRef } from 'react';
import { useDark } from '../ui/useDark.ts';
import type { ViewBody } from '../workers/protocol.ts';
import { Bodies } from './Bodies.tsx';
import { type CameraHandle, ViewCamera } from './Camera.tsx';
import { frameOf } from './frameOf.ts';
import { LabelLayer, LabelMover } from './Labels.tsx';
import { axisLabels, Floor } from './Surroundings.tsx';
import { StageFrame } from './StageFrame.ts';

/** Bodies on the floor, turned as the stage view is. */
export default function BodiesView({ bodies, label }: { bodies: readonly ViewBody[]; label: string }) {
  const dark = useDark();
  const camera = useRef<CameraHandle>(null);
  const layer = useRef<HTMLDivElement>(null);
  const frame = useMemo(() => frameOf(bodies), [bodies]);
  const labels = useMemo(() => axisLabels(frame), [frame]);
  return (
    <StageFrame className="stage" role="img" aria-label={label}>
      <Canvas frameloop="demand" dpr={[0.5, 2]} gl={{ antialias: true, preserveDrawingBuffer: true }}>
        <ViewCamera frame={frame} handle={camera} />
        <LabelMover labels={labels} layer={layer} />
        <Floor frame={frame} dark={dark} />
        <Bodies bodies={bodies} dark={dark} />
      </Canvas>
      <LabelLayer labels={labels} layer={layer} />
    </StageFrame>
  );
}
