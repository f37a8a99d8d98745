import { acrossOf, cross } from '@jadebell/core/numerics';
import type { SceneDipole, SceneSource, SceneWave } from '@jadebell/core/scene';
import { useMemo } from 'react';
import { BufferAttribute, BufferGeometry } from 'three';
import type { Frame } from '../space/frameOf.ts';
import { plum } from './PortMarks.tsx';

/** How a source from without is drawn: where its name stands, and lines, pairs of points. */
interface Drawing<S> {
  tail(source: S, frame: Frame): number[];
  lines(source: S, frame: Frame): number[];
}

/** Off the bodies, on the side that a wave comes from. */
const waveTail = ({ towards }: SceneWave, { centre, size }: Frame): number[] => centre.map((c, a) => c - 1.05 * size * towards[a]);

/** A plane wave: an arrow of its propagation, and on two fronts the main axis of E. */
const wave: Drawing<SceneWave> = {
  tail: waveTail,
  lines({ towards: t, re: e, ...rest }, frame) {
    const { size } = frame;
    const tail = waveTail({ towards: t, re: e, ...rest }, frame);
    const across = cross(t, e);
    const along = (s: number, u = 0, v = 0): number[] => tail.map((x, a) => x + size * (s * t[a] + u * e[a] + v * across[a]));
    const front = (s: number, w: number): number[] => {
      const corners = [along(s, w, w), along(s, -w, w), along(s, -w, -w), along(s, w, -w)];
      return corners.flatMap((p, i) => [...p, ...corners[(i + 1) % 4]]);
    };
    return [
      ...along(0), ...along(0.34), ...along(0.34), ...along(0.28, 0.03), ...along(0.34), ...along(0.28, -0.03),
      ...front(0.06, 0.12), ...front(0.14, 0.12),
      ...along(0.14, -0.12), ...along(0.14, 0.12), ...along(0.14, 0.12), ...along(0.14, 0.085, 0.02), ...along(0.14, 0.12), ...along(0.14, 0.085, -0.02),
    ]; // prettier-ignore
  },
};

/** A current dipole: an arrow along its moment, and around a magnetic one the loop of which it is the limit. */
const dipole: Drawing<SceneDipole> = {
  // Beyond the arrow's head.
  tail: ({ at, direction }, { size }) => at.map((x, a) => x + 0.1 * size * direction[a]),
  lines({ at, of, direction: d }, { size }) {
    const [u, v] = acrossOf(d);
    const to = (s: number, p = 0, q = 0): number[] => at.map((x, a) => x + size * (s * d[a] + p * u[a] + q * v[a]));
    const ring = Array.from({ length: 25 }, (_, i) => to(0, 0.035 * Math.cos((Math.PI * i) / 12), 0.035 * Math.sin((Math.PI * i) / 12)));
    return [
      ...to(-0.08), ...to(0.08), ...to(0.08), ...to(0.055, 0.015), ...to(0.08), ...to(0.055, -0.015), ...to(0.08), ...to(0.055, 0, 0.015), ...to(0.08), ...to(0.055, 0, -0.015),
      ...(of === 'magnetic' ? ring.slice(1).flatMap((p, i) => [...ring[i], ...p]) : []),
    ]; // prettier-ignore
  },
};

const drawings: { [K in SceneSource['kind']]: Drawing<Extract<SceneSource, { kind: K }>> } = { wave, dipole };
const drawingOf = (source: SceneSource): Drawing<SceneSource> => drawings[source.kind] as Drawing<SceneSource>;

/** Where the name of a source stands. */
export const sourceTail = (source: SceneSource, frame: Frame): number[] => drawingOf(source).tail(source, frame);

/** What excites the structure from without. */
export function SourceMark({ source, frame, dark }: { source: SceneSource; frame: Frame; dark: boolean }) {
  const geometry = useMemo(() => {
    const g = new BufferGeometry();
    g.setAttribute('position', new BufferAttribute(new Float32Array(drawingOf(source).lines(source, frame)), 3));
    return g;
  }, [source, frame]);
  return (
    <lineSegments geometry={geometry} renderOrder={5}>
      <lineBasicMaterial color={dark ? '#c79fca' : plum} depthTest={false} />
    </lineSegments>
  );
}
