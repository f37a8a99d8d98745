import { Canvas } from '@react-three/fiber';
import type { ViewBody } from '../workers/protocol.ts';
import type { Pattern } from '@jadebell/core/radiation';
import { interpolateSinebow, interpolateViridis } from 'd3-scale-chromatic';
import { useEffect, useMemo, useRef } from 'react';
import { BufferAttribute, BufferGeometry, Color, DoubleSide } from 'three';
import { Bodies } from '../space/Bodies.tsx';
import { type CameraHandle, ViewCamera } from '../space/Camera.tsx';
import { type Frame, frameOf } from '../space/frameOf.ts';
import { LabelLayer, LabelMover } from '../space/Labels.tsx';
import { axisLabels, Floor } from '../space/Surroundings.tsx';
import { useDark } from '../ui/useDark.ts';
import { ColourScale } from './ColourScale.tsx';
import { InSpace } from './InSpace.tsx';

interface Props {
  pattern: Pattern;
  /** [theta][phi], dB: how far out the surface stands. */
  shape: Float64Array;
  /** [theta][phi]: what it is coloured by. */
  values: Float64Array;
  unit: string;
  /** Levels are coloured from the peak down to the floor, a ratio from 0 to 40 dB, a phase round the circle. */
  scale: 'level' | 'ratio' | 'phase';
  /** dB below the peak. */
  floor: number;
  /** Distance goes with the size of the field in place of dB. */
  linear: boolean;
  bodies: readonly ViewBody[];
  /** Whether the model is drawn with it. */
  around: boolean;
}

const ratioTop = 40;

/** A pattern around the model that made it. */
export function Pattern3D({ pattern, shape, values, unit, scale, floor, linear, bodies, around }: Props) {
  const dark = useDark();
  const camera = useRef<CameraHandle>(null);
  const model = useMemo(() => frameOf(bodies), [bodies]);
  const frame: Frame = useMemo(() => ({ centre: model.centre, size: model.size * 2.3 }), [model]);
  const layer = useRef<HTMLDivElement>(null);
  const labels = useMemo(() => axisLabels(model), [model]);
  const top = useMemo(() => shape.reduce((a, v) => Math.max(a, v), -Infinity), [shape]);
  const surface = useMemo(() => {
    const { nTheta, nPhi } = pattern;
    const positions = new Float32Array(nTheta * (nPhi + 1) * 3);
    const colours = new Float32Array(nTheta * (nPhi + 1) * 3);
    const index: number[] = [];
    const colour = new Color();
    const paint = scale === 'phase' ? interpolateSinebow : interpolateViridis;
    for (let t = 0; t < nTheta; t++)
      for (let p = 0; p <= nPhi; p++) {
        const at = t * nPhi + (p % nPhi);
        const out = linear ? 10 ** ((shape[at] - top) / 20) : Math.max(0, 1 + (shape[at] - top) / floor);
        const hue =
          scale === 'level' ? Math.max(0, 1 + (values[at] - top) / floor) : scale === 'phase' ? values[at] / 360 + 0.5 : values[at] / ratioTop;
        const r = 0.75 * model.size * out;
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
        colour.set(paint(hue)).toArray(colours, 3 * n);
        if (t && p) index.push(n - nPhi - 2, n - nPhi - 1, n, n - nPhi - 2, n, n - 1);
      }
    const g = new BufferGeometry();
    g.setAttribute('position', new BufferAttribute(positions, 3));
    g.setAttribute('color', new BufferAttribute(colours, 3));
    g.setIndex(index);
    g.computeVertexNormals();
    return g;
  }, [pattern, shape, values, scale, floor, linear, top, model]);
  useEffect(() => () => surface.dispose(), [surface]);
  const ends =
    scale === 'level'
      ? { top: `${top.toFixed(1)} ${unit}`, bottom: (top - floor).toFixed(1) }
      : scale === 'phase'
        ? { top: '180°', bottom: '−180°' }
        : { top: `${ratioTop} dB`, bottom: '0 dB' };
  return (
    <InSpace scale={<ColourScale {...ends} map={scale === 'phase' ? 'cyclic' : 'size'} />}>
      <Canvas frameloop="demand" dpr={[0.5, 2]} gl={{ antialias: true, preserveDrawingBuffer: true }}>
        <ViewCamera frame={frame} handle={camera} />
        <LabelMover labels={labels} layer={layer} />
        <Floor frame={model} dark={dark} />
        {around && <Bodies bodies={bodies} dark={dark} />}
        <mesh geometry={surface} renderOrder={8}>
          <meshStandardMaterial vertexColors side={DoubleSide} roughness={0.9} transparent opacity={0.62} depthWrite={false} />
        </mesh>
      </Canvas>
      <LabelLayer labels={labels} layer={layer} />
    </InSpace>
  );
}
