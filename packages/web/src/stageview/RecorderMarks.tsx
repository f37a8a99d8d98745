import { type Mark, type PlacedRecorder, recorderKind } from '@jadebell/core/recorders';
import { useMemo } from 'react';
import { BufferAttribute, BufferGeometry } from 'three';
import { RectangleMark } from './GuideMarks.tsx';

type Corners = { min: readonly number[]; max: readonly number[] };

/** Where recorders look: rectangles with an arrow as they count, planes, boxes, lines, points, and bodies by the box around them. */
export function RecorderMarks({
  recorders,
  bodies,
  region,
  size,
  colour,
}: {
  recorders: readonly PlacedRecorder[];
  bodies: readonly (Corners & { line: string })[];
  region: Corners | null;
  size: number;
  colour: string;
}) {
  return recorders.flatMap((r) =>
    (recorderKind(r).marks?.(r) ?? []).map((mark, i) => (
      <MarkFigure key={`${r.name} ${i}`} mark={mark} bodies={bodies} region={region} size={size} colour={colour} />
    )),
  );
}

function MarkFigure({ mark, bodies, region, size, colour }: { mark: Mark } & Omit<Parameters<typeof RecorderMarks>[0], 'recorders'>) {
  switch (mark.form) {
    case 'rectangle':
      return <RectangleMark rectangle={{ ...mark, into: mark.sign, shift: 0 }} size={size} colour={colour} />;
    case 'plane': {
      if (!region) return null;
      const on = (p: readonly number[]): number[] => p.map((x, a) => (a === mark.normal ? mark.at : x));
      return <BoxMark min={on(region.min)} max={on(region.max)} colour={colour} />;
    }
    case 'box':
      return <BoxMark min={mark.min} max={mark.max} colour={colour} />;
    case 'line':
      return <Segments points={[...mark.from, ...mark.to]} colour={colour} />;
    case 'point':
      return <PointMark at={mark.at} colour={colour} />;
    case 'body':
      return bodies.filter((b) => b.line === mark.line).map((b, i) => <BoxMark key={i} min={b.min} max={b.max} colour={colour} />);
  }
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
