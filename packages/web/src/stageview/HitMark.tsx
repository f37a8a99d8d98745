import { useMemo } from 'react';
import { BufferAttribute, BufferGeometry, DoubleSide } from 'three';
import type { View } from '../workers/protocol.ts';
import type { Hit } from '../project/stageState.ts';

const geometryOf = (positions: Float32Array): BufferGeometry => {
  const g = new BufferGeometry();
  g.setAttribute('position', new BufferAttribute(positions, 3));
  return g;
};

/** Marks a face, an edge or a point that is under the pointer or picked. */
export function HitMark({ view, hit, colour }: { view: View; hit: Hit; colour: string }) {
  const geometry = useMemo(() => {
    const body = view.bodies.find((b) => b.name === hit.body) ?? view.curves.find((c) => c.name === hit.body);
    if (!body) return null;
    if (hit.kind === 'face' && 'faceOf' in body) {
      const out: number[] = [];
      body.faceOf.forEach((f, t) => {
        if (f !== hit.face) return;
        for (let i = 0; i < 3; i++) for (let a = 0; a < 3; a++) out.push(body.positions[3 * body.triangles[3 * t + i] + a]);
      });
      return geometryOf(Float32Array.from(out));
    }
    if (hit.kind === 'edge') return geometryOf(body.edges.slice(6 * hit.segment!, 6 * hit.segment! + 6));
    if (hit.kind === 'point') return geometryOf(Float32Array.from(hit.point));
    return null;
  }, [view, hit]);
  if (!geometry) return null;
  if (hit.kind === 'face')
    return (
      <mesh geometry={geometry} renderOrder={7} raycast={() => null}>
        <meshBasicMaterial color={colour} transparent opacity={0.45} side={DoubleSide} depthTest={false} />
      </mesh>
    );
  if (hit.kind === 'edge')
    return (
      <lineSegments geometry={geometry} renderOrder={8} raycast={() => null}>
        <lineBasicMaterial color={colour} depthTest={false} linewidth={2} transparent />
      </lineSegments>
    );
  return (
    <points geometry={geometry} renderOrder={9} raycast={() => null}>
      <pointsMaterial color={colour} size={9} sizeAttenuation={false} depthTest={false} transparent />
    </points>
  );
}
