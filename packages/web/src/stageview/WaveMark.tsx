import type { SceneWave } from '@jadebell/core/scene';
import { useMemo } from 'react';
import { BufferAttribute, BufferGeometry } from 'three';
import type { Frame } from './frameOf.ts';
import { plum } from './PortMarks.tsx';

/** Where a plane wave's arrow begins: off the bodies, on the side it comes from. */
export const waveTail = ({ towards }: SceneWave, { centre, size }: Frame): number[] => centre.map((c, a) => c - 1.05 * size * towards[a]);

/** A plane wave: an arrow of its propagation, and on two fronts the main axis of E. */
export function WaveMark({ wave, frame, dark }: { wave: SceneWave; frame: Frame; dark: boolean }) {
  const geometry = useMemo(() => {
    const { size } = frame;
    const tail = waveTail(wave, frame);
    const along = (s: number, e = 0, h = 0): number[] => tail.map((x, a) => x + size * (s * wave.towards[a] + e * wave.re[a] + h * across[a]));
    const [t, e] = [wave.towards, wave.re];
    const across = [t[1] * e[2] - t[2] * e[1], t[2] * e[0] - t[0] * e[2], t[0] * e[1] - t[1] * e[0]];
    const front = (s: number, w: number): number[] => {
      const corners = [along(s, w, w), along(s, -w, w), along(s, -w, -w), along(s, w, -w)];
      return corners.flatMap((p, i) => [...p, ...corners[(i + 1) % 4]]);
    };
    const points = [
      ...along(0), ...along(0.34), ...along(0.34), ...along(0.28, 0.03), ...along(0.34), ...along(0.28, -0.03),
      ...front(0.06, 0.12), ...front(0.14, 0.12),
      ...along(0.14, -0.12), ...along(0.14, 0.12), ...along(0.14, 0.12), ...along(0.14, 0.085, 0.02), ...along(0.14, 0.12), ...along(0.14, 0.085, -0.02),
    ]; // prettier-ignore
    const g = new BufferGeometry();
    g.setAttribute('position', new BufferAttribute(new Float32Array(points), 3));
    return g;
  }, [wave, frame]);
  return (
    <lineSegments geometry={geometry} renderOrder={5}>
      <lineBasicMaterial color={dark ? '#c79fca' : plum} depthTest={false} />
    </lineSegments>
  );
}
