import { Canvas } from '@react-three/fiber';
import { useEffect, useMemo, useRef } from 'react';
import { BufferAttribute, BufferGeometry, DoubleSide } from 'three';
import { Bodies } from '../space/Bodies.tsx';
import { type CameraHandle, ViewCamera } from '../space/Camera.tsx';
import { frameOf } from '../space/frameOf.ts';
import { LabelLayer, LabelMover } from '../space/Labels.tsx';
import { axisLabels, Floor } from '../space/Surroundings.tsx';
import { useDark } from '../ui/useDark.ts';
import type { ViewBody } from '../workers/protocol.ts';
import { type ColourMap, ColourScale } from './ColourScale.tsx';
import { InSpace } from './InSpace.tsx';

interface Props {
  /** Triangles [n][3][3], metres, and a colour for each corner. */
  corners: Float32Array;
  colours: Float32Array;
  /** Triangles [n][3][3], drawn plainly over the surface. */
  arrows: Float32Array | null;
  bodies: readonly ViewBody[];
  /** The triangles are the bodies' own faces; else they hang in space and bodies are drawn faintly. */
  solid: boolean;
  /** Of solid ones: the line whose bodies they are; all other bodies are drawn faintly beside them. Absent: none is. */
  beside?: string;
  upper: string;
  lower: string;
  map: ColourMap;
}

/** Coloured surfaces with the model, turned as the stage view is. */
export function SurfaceView({ corners, colours, arrows, bodies, solid, beside, upper, lower, map }: Props) {
  const dark = useDark();
  const camera = useRef<CameraHandle>(null);
  const layer = useRef<HTMLDivElement>(null);
  const frame = useMemo(() => frameOf(bodies), [bodies]);
  const labels = useMemo(() => axisLabels(frame), [frame]);
  const surface = useMemo(() => {
    const g = new BufferGeometry();
    g.setAttribute('position', new BufferAttribute(corners, 3));
    g.computeVertexNormals();
    return g;
  }, [corners]);
  useEffect(() => () => surface.dispose(), [surface]);
  const colour = useMemo(() => new BufferAttribute(colours, 3), [colours]);
  const marks = useMemo(() => {
    if (!arrows?.length) return null;
    const g = new BufferGeometry();
    g.setAttribute('position', new BufferAttribute(arrows, 3));
    return g;
  }, [arrows]);
  useEffect(() => () => marks?.dispose(), [marks]);
  return (
    <InSpace scale={<ColourScale top={upper} bottom={lower} map={map} />}>
      <Canvas frameloop="demand" dpr={[0.5, 2]} gl={{ antialias: true, preserveDrawingBuffer: true }}>
        <ViewCamera frame={frame} handle={camera} />
        <LabelMover labels={labels} layer={layer} />
        <Floor frame={frame} dark={dark} />
        {(!solid || beside !== undefined) && <Bodies bodies={bodies.filter((b) => !solid || b.line !== beside)} dark={dark} faint />}
        <mesh geometry={surface} key={colours.length}>
          <primitive object={colour} attach="geometry-attributes-color" />
          {solid ? (
            <meshBasicMaterial vertexColors side={DoubleSide} />
          ) : (
            <meshStandardMaterial vertexColors side={DoubleSide} roughness={0.8} transparent opacity={0.85} />
          )}
        </mesh>
        {marks && (
          <mesh geometry={marks} renderOrder={5}>
            <meshBasicMaterial color={map === 'size' ? '#ffffff' : '#1d2a26'} side={DoubleSide} />
          </mesh>
        )}
      </Canvas>
      <LabelLayer labels={labels} layer={layer} />
    </InSpace>
  );
}
