import { useThree } from '@react-three/fiber';
import { useEffect, useMemo } from 'react';
import { Plane, Vector3 } from 'three';
import type { Frame } from '../space/frameOf.ts';
import { useStage } from '../project/stageState.ts';

/** Cuts what is drawn at the section plane. */
export function SectionPlane() {
  const section = useStage((s) => s.section);
  const gl = useThree((s) => s.gl);
  const invalidate = useThree((s) => s.invalidate);
  const plane = useMemo(() => {
    if (!section) return null;
    const side = section.flipped ? 1 : -1;
    const normal = new Vector3(...[0, 1, 2].map((a) => (a === section.axis ? side : 0)));
    return new Plane(normal, -side * section.at);
  }, [section]);
  useEffect(() => {
    gl.clippingPlanes = plane ? [plane] : [];
    invalidate();
    return () => {
      gl.clippingPlanes = [];
    };
  }, [gl, plane, invalidate]);
  return null;
}

/** Whether a point is on the side of the section plane that is drawn. */
export function onShownSide(p: { x: number; y: number; z: number }): boolean {
  const { section } = useStage.getState();
  if (!section) return true;
  const d = [p.x, p.y, p.z][section.axis] - section.at;
  return section.flipped ? d >= -1e-12 : d <= 1e-12;
}

/** Bounds of the section plane along an axis. */
export const sectionRange = (frame: Frame, axis: number): [number, number] => [
  frame.centre[axis] - 0.6 * frame.size,
  frame.centre[axis] + 0.6 * frame.size,
];
