import type { SceneFieldLine, SceneRecorder } from '@jadebell/core/scene';
import { useMemo } from 'react';
import { BufferAttribute, BufferGeometry } from 'three';
import { RectangleMark } from './GuideMarks.tsx';

/** Rectangles of recorders, with an arrow as they count, and boxes, lines and points whose field is kept. */
export function RecorderMarks({ recorders, size, colour }: { recorders: readonly SceneRecorder[]; size: number; colour: string }) {
  return (
    <>
      {recorders.map((r) => {
        if (r.kind === 'flux' || r.kind === 'current' || r.kind === 'mode')
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
        if (r.kind === 'field-box') return <BoxMark key={r.name} min={r.min} max={r.max} colour={colour} />;
        return null;
      })}
    </>
  );
}

function LineMark({ line, colour }: { line: SceneFieldLine; colour: string }) {
  const { axis, at, from, to } = line;
  const ends = useMemo(() => [from, to].flatMap((x) => at.map((v, a) => (a === axis ? x : v))), [axis, at, from, to]);
  return <Segments points={ends} colour={colour} />;
}

/** The twelve edges of a box; of a flat one those that are left. */
function BoxMark({ min, max, colour }: { min: readonly number[]; max: readonly number[]; colour: string }) {
  const points = useMemo(
    () =>
      [0, 1, 2].flatMap((along) =>
        [0, 1, 2, 3].flatMap((corner) =>
          [min[along], max[along]].flatMap((x) => {
            const others = [0, 1, 2].filter((a) => a !== along);
            return [0, 1, 2].map((a) => (a === along ? x : corner & (a === others[0] ? 1 : 2) ? max[a] : min[a]));
          }),
        ),
      ),
    [min, max],
  );
  return <Segments points={points} colour={colour} />;
}

function Segments({ points, colour }: { points: number[]; colour: string }) {
  const geometry = useMemo(() => {
    const g = new BufferGeometry();
    g.setAttribute('position', new BufferAttribute(Float32Array.from(points), 3));
    return g;
  }, [points]);
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
