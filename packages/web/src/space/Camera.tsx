import { OrbitControls, OrthographicCamera } from '@react-three/drei';
import { useFrame, useThree } from '@react-three/fiber';
import { useEffect, useImperativeHandle, useRef, type Ref } from 'react';
import { type OrthographicCamera as Camera, Vector3 } from 'three';
import type { OrbitControls as Controls } from 'three-stdlib';
import type { Frame } from './frameOf.ts';

/** Directions from which the model is seen. */
export const views = {
  oblique: [-0.55, -1, 0.7],
  top: [0, -1e-4, 1],
  bottom: [0, -1e-4, -1],
  front: [0, -1, 0],
  back: [0, 1, 0],
  left: [-1, 0, 0],
  right: [1, 0, 0],
} as const;
export type ViewName = keyof typeof views;

export interface CameraHandle {
  look(view: ViewName): void;
  fit(): void;
}

/** Orthographic camera with orbit, pan and zoom; fits `frame` when asked. `onScale` tells pixels per metre. */
export function ViewCamera({ frame, handle, onScale }: { frame: Frame; handle: Ref<CameraHandle>; onScale?(pixelsPerMetre: number): void }) {
  // Those that draw: references to elements may still hold ones that were made anew meanwhile.
  const controls = useThree((s) => s.controls) as Controls | null;
  const camera = useThree((s) => s.camera) as Camera;
  const size = useThree((s) => s.size);
  const invalidate = useThree((s) => s.invalidate);
  const setEvents = useThree((s) => s.setEvents);
  const last = useRef(0);
  const placed = useRef(false);

  const place = (direction: readonly number[]): void => {
    const [c, o] = [camera, controls];
    if (!o || !c.isOrthographicCamera) return;
    const target = new Vector3(...frame.centre);
    c.position.copy(target).addScaledVector(new Vector3(...direction).normalize(), frame.size * 10);
    c.near = frame.size * 0.01;
    c.far = frame.size * 30;
    c.zoom = (0.72 * Math.min(size.width, size.height * 1.5)) / frame.size;
    c.updateProjectionMatrix();
    o.target.copy(target);
    o.update();
    placed.current = true;
    invalidate();
  };
  const now = (): readonly number[] => (controls ? camera.position.clone().sub(controls.target).toArray() : views.oblique);
  useImperativeHandle(handle, () => ({ look: (view) => place(views[view]), fit: () => place(now()) }));
  useEffect(() => {
    place(placed.current ? now() : views.oblique);
    // Only a new frame, or a new camera, moves the camera.
    // oxlint-disable-next-line react/exhaustive-deps
  }, [frame, size.width, size.height, camera, controls]);
  // While the view is turned nothing is asked what lies under the pointer: with large models that would take longer than the picture.
  useEffect(() => {
    if (!controls) return;
    let held = false;
    const start = (): void => void (held = true);
    const change = (): void => {
      if (held) setEvents({ enabled: false });
    };
    const end = (): void => {
      held = false;
      setEvents({ enabled: true });
    };
    controls.addEventListener('start', start);
    controls.addEventListener('change', change);
    controls.addEventListener('end', end);
    return () => {
      controls.removeEventListener('start', start);
      controls.removeEventListener('change', change);
      controls.removeEventListener('end', end);
      end();
    };
  }, [controls, setEvents]);
  useFrame(() => {
    const zoom = camera.zoom;
    if (zoom && zoom !== last.current) {
      last.current = zoom;
      onScale?.(zoom);
    }
  });
  return (
    <>
      <OrthographicCamera makeDefault up={[0, 0, 1]} />
      <OrbitControls makeDefault enableDamping={false} zoomToCursor />
      <ambientLight intensity={1.4} />
      <directionalLight position={[-2, -3, 5]} intensity={1.5} />
      <directionalLight position={[3, 2, -2]} intensity={0.5} />
    </>
  );
}
