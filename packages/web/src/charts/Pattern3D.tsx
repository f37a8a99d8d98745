import { Canvas } from '@react-three/fiber';
import type { ViewBody } from '../workers/protocol.ts';
import type { Pattern } from '@jadebell/core/radiation';
import { interpolateViridis } from 'd3-scale-chromatic';
import { useMemo, useRef } from 'react';
import { BufferAttribute, BufferGeometry, Color, DoubleSide } from 'three';
import { Bodies } from '../stageview/Bodies.tsx';
import { type CameraHandle, ViewCamera } from '../stageview/Camera.tsx';
import { type Frame, frameOf } from '../stageview/frameOf.ts';
import { LabelLayer, LabelMover } from '../stageview/Labels.tsx';
import { axisLabels, Floor } from '../stageview/Surroundings.tsx';
import { useDark } from '../ui/useDark.ts';
import { patternDb, type PatternScale } from './patterns.ts';

const span = 30;

interface Props {
  pattern: Pattern;
  scale: PatternScale;
  bodies: readonly ViewBody[];
}

/** The pattern around the model that made it: distance and colour in dB, from the peak down to a floor 30 dB below. */
export function Pattern3D({ pattern, scale, bodies }: Props) {
  const dark = useDark();
  const camera = useRef<CameraHandle>(null);
  const model = useMemo(() => frameOf(bodies), [bodies]);
  const frame: Frame = useMemo(() => ({ centre: model.centre, size: model.size * 2.3 }), [model]);
  const layer = useRef<HTMLDivElement>(null);
  const labels = useMemo(() => axisLabels(model), [model]);
  const top = 10 * Math.log10(scale.peak);
  const surface = useMemo(() => {
    const { nTheta, nPhi } = pattern;
    const positions = new Float32Array(nTheta * (nPhi + 1) * 3);
    const colours = new Float32Array(nTheta * (nPhi + 1) * 3);
    const index: number[] = [];
    const colour = new Color();
    for (let t = 0; t < nTheta; t++)
      for (let p = 0; p <= nPhi; p++) {
        const level = Math.max(0, 1 + (patternDb(pattern, scale, t, p % nPhi) - top) / span);
        const r = 0.75 * model.size * level;
        const theta = (t * Math.PI) / (nTheta - 1);
        const phi = (p * 2 * Math.PI) / nPhi;
        const n = t * (nPhi + 1) + p;
        positions.set(
          [
            model.centre[0] + r * Math.sin(theta) * Math.cos(phi),
            model.centre[1] + r * Math.sin(theta) * Math.sin(phi),
            model.centre[2] + r * Math.cos(theta),
          ],
          3 * n,
        );
        colour.set(interpolateViridis(level)).toArray(colours, 3 * n);
        if (t && p) index.push(n - nPhi - 2, n - nPhi - 1, n, n - nPhi - 2, n, n - 1);
      }
    const g = new BufferGeometry();
    g.setAttribute('position', new BufferAttribute(positions, 3));
    g.setAttribute('color', new BufferAttribute(colours, 3));
    g.setIndex(index);
    g.computeVertexNormals();
    return g;
  }, [pattern, scale, top, model]);
  return (
    <div style={{ position: 'relative', height: '100%', background: 'var(--stage)' }}>
      <Canvas frameloop="demand" dpr={[1, 2]} gl={{ antialias: true, preserveDrawingBuffer: true }}>
        <ViewCamera frame={frame} handle={camera} />
        <LabelMover labels={labels} layer={layer} />
        <Floor frame={model} dark={dark} />
        <Bodies bodies={bodies} dark={dark} />
        <mesh geometry={surface} renderOrder={8}>
          <meshStandardMaterial vertexColors side={DoubleSide} roughness={0.9} transparent opacity={0.62} depthWrite={false} />
        </mesh>
      </Canvas>
      <LabelLayer labels={labels} layer={layer} />
      <ColourScale top={`${top.toFixed(1)} ${scale.unit}`} bottom={`${(top - span).toFixed(1)}`} />
    </div>
  );
}

const steps = Array.from({ length: 12 }, (_, i) => interpolateViridis(1 - i / 11));

/** A colour scale beside a plot. */
export function ColourScale({ top, bottom }: { top: string; bottom: string }) {
  return (
    <svg
      width={86}
      height={132}
      style={{ position: 'absolute', right: 2, bottom: 8, pointerEvents: 'none' }}
      aria-label={`Colours from ${bottom} to ${top}`}
    >
      {steps.map((c, i) => (
        <rect key={c} x={4} y={8 + i * 9.5} width={10} height={10} fill={c} />
      ))}
      <text x={20} y={18} fontSize={11.5} fill="var(--ink)">
        {top}
      </text>
      <text x={20} y={121} fontSize={11.5} fill="var(--ink)">
        {bottom}
      </text>
    </svg>
  );
}
