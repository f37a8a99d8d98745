import type { SceneFieldLine, SceneRecorder } from '@jadebell/core/scene';
import { useMemo } from 'react';
import { BufferAttribute, BufferGeometry } from 'three';
import { RectangleMark } from './GuideMarks.tsx';

/** Rectangles through which power or current is recorded, with an arrow as it counts, and lines and points whose field is kept. */
export function RecorderMarks({ recorders, size, colour }: { recorders: readonly SceneRecorder[]; size: number; colour: string }) {
  return (
    <>
      {recorders.map((r) => {
        if (r.kind === 'flux' || r.kind === 'current')
          return (
            <RectangleMark
              key={r.name}
              rectangle={{ min: r.min, max: r.max, normal: r.normal, into: r.sign, shift: 0 }}
              size={size}
              colour={colour}
            />
          );
        if (r.kind === 'signal') return <PointMark key={r.name} at={r.at} colour={colour} />;
        if (r.kind === 'field-line') return <LineMark key={r.name} line={r} colour={colour} />;
        return null;
      })}
    </>
  );
}

function LineMark({ line, colour }: { line: SceneFieldLine; colour: string }) {
  const { axis, at, from, to } = line;
  const geometry = useMemo(() => {
    const end = (x: number): number[] => at.map((v, a) => (a === axis ? x : v));
    const g = new BufferGeometry();
    g.setAttribute('position', new BufferAttribute(Float32Array.from([...end(from), ...end(to)]), 3));
    return g;
  }, [axis, at, from, to]);
  return (
    <lineSegments geometry={geometry} renderOrder={9}>
      <lineBasicMaterial color={colour} depthTest={false} transparent />
    </lineSegments>
  );
}

function PointMark({ at, colour }: { at: readonly number[]; colour: string }) {
  const geometry = useMemo(() => {
    const g = new BufferGeometry();
    g.setAttribute('position', new BufferAttribute(Float32Array.from(at), 3));
    return g;
  }, [at]);
  return (
    <points geometry={geometry} renderOrder={9}>
      <pointsMaterial color={colour} size={9} sizeAttenuation={false} depthTest={false} />
    </points>
  );
}
