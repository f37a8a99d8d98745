import type { SceneGuide } from '@jadebell/core/scene';
import { useMemo } from 'react';
import { BufferAttribute, BufferGeometry, DoubleSide } from 'three';
import { plum } from './PortMarks.tsx';

/** Guided ports: their rectangle, and an arrow into the structure that starts where the reference plane lies. */
export function GuideMarks({ guides, size }: { guides: readonly SceneGuide[]; size: number }) {
  return (
    <>
      {guides.map((g) => (
        <RectangleMark key={g.name} rectangle={g} size={size} colour={plum} />
      ))}
    </>
  );
}

/** A rectangle across an axis with an arrow along it. */
export function RectangleMark({
  rectangle,
  size,
  colour,
}: {
  rectangle: Pick<SceneGuide, 'min' | 'max' | 'normal' | 'into' | 'shift'>;
  size: number;
  colour: string;
}) {
  const { face, lines } = useMemo(() => {
    const { min, max, normal, into, shift } = rectangle;
    const [u, v] = [(normal + 1) % 3, (normal + 2) % 3];
    const at = (a: number, b: number, along = 0): number[] => {
      const p: number[] = [...min];
      p[u] = a ? max[u] : min[u];
      p[v] = b ? max[v] : min[v];
      p[normal] += into * along;
      return p;
    };
    const corners = (along: number): number[][] => [at(0, 0, along), at(1, 0, along), at(1, 1, along), at(0, 1, along)];
    const rim = (c: number[][]): number[] => c.flatMap((p, i) => [...p, ...c[(i + 1) % 4]]);
    const surface = new BufferGeometry();
    surface.setAttribute('position', new BufferAttribute(new Float32Array(corners(0).flat()), 3));
    surface.setIndex([0, 1, 2, 0, 2, 3]);
    const length = Math.max(0.06 * size, 0.4 * Math.min(max[u] - min[u], max[v] - min[v]));
    const tail = min.map((m, a) => (m + max[a]) / 2);
    const tip = [...tail];
    tip[normal] += into * length;
    const side = (s: number): number[] => {
      const p = [...tip];
      p[normal] -= into * 0.35 * length;
      p[u] += s * 0.18 * length;
      return p;
    };
    const drawn = new BufferGeometry();
    const all = [...rim(corners(0)), ...(shift ? rim(corners(shift)) : []), ...tail, ...tip, ...tip, ...side(1), ...tip, ...side(-1)];
    drawn.setAttribute('position', new BufferAttribute(new Float32Array(all), 3));
    return { face: surface, lines: drawn };
  }, [rectangle, size]);
  return (
    <group>
      <mesh geometry={face} renderOrder={4}>
        <meshBasicMaterial color={colour} side={DoubleSide} transparent opacity={0.35} depthTest={false} />
      </mesh>
      <lineSegments geometry={lines} renderOrder={5}>
        <lineBasicMaterial color={colour} depthTest={false} />
      </lineSegments>
    </group>
  );
}
