import type { ScenePort } from '@jadebell/core/scene';
import { useMemo } from 'react';
import { BufferAttribute, BufferGeometry, DoubleSide } from 'three';
import type { Label } from '../space/Labels.tsx';

export const plum = '#6B3F6B';

/** Bell-shaped tags with number and name. */
export const portLabels = (ports: readonly Pick<ScenePort, 'name' | 'order' | 'min' | 'max'>[]): Label[] =>
  ports.map((p) => ({ key: `port ${p.name}`, at: p.min.map((m, a) => (m + p.max[a]) / 2), text: `${p.order + 1} ${p.name}`, className: 'port-tag' }));

/** Ports: a plum patch across the gap and an arrow along the voltage path. */
export function PortMarks({ ports, size }: { ports: readonly ScenePort[]; size: number }) {
  return (
    <>
      {ports.map((p) => (
        <PortMark key={p.name} port={p} size={size} />
      ))}
    </>
  );
}

function PortMark({ port, size }: { port: ScenePort; size: number }) {
  const { min, max, axis, across, direction } = port;
  const centre = min.map((m, a) => (m + max[a]) / 2) as [number, number, number];
  const patch = useMemo(() => {
    const at = (u: number, v: number): number[] => {
      const p = [...centre];
      p[axis] = u ? max[axis] : min[axis];
      p[across] = v ? max[across] : min[across];
      return p;
    };
    const g = new BufferGeometry();
    g.setAttribute('position', new BufferAttribute(new Float32Array([at(0, 0), at(1, 0), at(1, 1), at(0, 1)].flat()), 3));
    g.setIndex([0, 1, 2, 0, 2, 3]);
    return g;
    // The port object is made anew at each evaluation.
    // oxlint-disable-next-line react/exhaustive-deps
  }, [port]);
  const arrow = useMemo(() => {
    const length = Math.max(max[axis] - min[axis], 0.03 * size);
    const head = 0.35 * length;
    const tip = [...centre];
    const tail = [...centre];
    tip[axis] += (direction * length) / 2;
    tail[axis] -= (direction * length) / 2;
    const side = (s: number): number[] => {
      const p = [...tip];
      p[axis] -= direction * head;
      p[across] += s * head * 0.5;
      return p;
    };
    const g = new BufferGeometry();
    g.setAttribute('position', new BufferAttribute(new Float32Array([tail, tip, tip, side(1), tip, side(-1)].flat()), 3));
    return g;
    // oxlint-disable-next-line react/exhaustive-deps
  }, [port, size]);
  return (
    <group>
      <mesh geometry={patch} renderOrder={4}>
        <meshBasicMaterial color={plum} side={DoubleSide} transparent opacity={0.75} depthTest={false} />
      </mesh>
      <lineSegments geometry={arrow} renderOrder={5}>
        <lineBasicMaterial color={plum} depthTest={false} />
      </lineSegments>
    </group>
  );
}
