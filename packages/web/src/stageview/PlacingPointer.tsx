import { useThree } from '@react-three/fiber';
import { useEffect } from 'react';
import { Plane, Raycaster, Vector2, Vector3 } from 'three';
import { useModel } from '../project/model.ts';
import { useStage } from '../project/stageState.ts';
import { metBy } from '../space/batch.ts';
import { roundLength } from '../space/frameOf.ts';
import { hitsUnder } from './picking.ts';
import { keepStanding, nextStep, placeAt, type Ray, sizeTo, stepOf } from './placing.ts';
import { onShownSide } from './SectionPlane.tsx';

type Point = [number, number, number];

/** Pixels between the lengths that a pulled size is rounded to, and that a click may move. */
const grainPixels = 6;
const still = 4;

const asRay = ({ ray }: Raycaster): Ray => ({
  onPlane(through, normal) {
    const n = new Vector3(...normal);
    const p = ray.intersectPlane(new Plane(n, -n.dot(new Vector3(...through))), new Vector3());
    return p && p.toArray();
  },
  nearAxis(through, along) {
    const [o, d] = [new Vector3(...through), new Vector3(...along)];
    const cross = new Vector3().crossVectors(d, ray.direction);
    const size = cross.lengthSq();
    // Seen end on an axis has no nearest point.
    if (size < 1e-4) return null;
    const t = new Vector3().subVectors(ray.origin, o).cross(ray.direction).dot(cross) / size;
    return o.addScaledVector(d, t).toArray();
  },
});

/** Places and sizes a new line with the pointer: on a corner or an end nearby, on the face below, or on the floor. Stands inside the canvas. */
export function PlacingPointer() {
  const { gl, camera, scene } = useThree();
  const line = useStage((s) => s.placing?.line);
  useEffect(() => {
    if (line === undefined) return;
    const canvas = gl.domElement;
    const caster = new Raycaster();
    const follow = (e: PointerEvent): void => {
      const { placing } = useStage.getState();
      if (!placing || e.buttons > 0) return;
      const [x, y, width, height] = [e.offsetX, e.offsetY, canvas.clientWidth, canvas.clientHeight];
      caster.setFromCamera(new Vector2((2 * x) / width - 1, 1 - (2 * y) / height), camera);
      const grain = roundLength(grainPixels / camera.zoom);
      if (stepOf(placing)?.step.kind === 'sizes') return sizeTo(placing, asRay(caster), grain);
      const { view } = useModel.getState();
      const own = new Set(view.bodies.filter((b) => b.line === line || b.name === line).map((b) => b.name));
      const found = caster.intersectObjects(scene.children, true).filter((i) => {
        const met = metBy(i);
        return met && !own.has(met.name);
      });
      const face = found.find((i) => i.face && onShownSide(i.point));
      const up = face ? face.face!.normal.clone().transformDirection(face.object.matrixWorld).toArray() : ([0, 0, 1] as Point);
      const clean = up.map((c) => (Math.abs(c) < 1e-6 ? 0 : c)) as Point;
      const [corner] = hitsUnder('points', found, view, { camera, width, height, x, y, visible: onShownSide });
      const point = corner?.point ?? (face ? (face.point.toArray() as Point) : asRay(caster).onPlane([0, 0, 0], [0, 0, 1]));
      if (!point) return;
      // A corner is taken as it is; else what lies in the face is rounded, and what holds it on the face is not.
      const at = corner ? point : (point.map((c, a) => (Math.abs(clean[a]) > 0.5 && face ? c : Math.round(c / grain) * grain)) as Point);
      placeAt(placing, at, clean);
    };
    let down: [number, number] | null = null;
    const press = (e: PointerEvent): void => void (down = e.button === 0 ? [e.clientX, e.clientY] : null);
    const release = (e: PointerEvent): void => {
      if (down && Math.hypot(e.clientX - down[0], e.clientY - down[1]) < still) nextStep();
      down = null;
    };
    const endWatch = useModel.subscribe((now, before) => {
      const { placing } = useStage.getState();
      if (placing && now.view !== before.view) keepStanding(placing);
    });
    canvas.addEventListener('pointermove', follow);
    canvas.addEventListener('pointerdown', press);
    canvas.addEventListener('pointerup', release);
    return () => {
      endWatch();
      canvas.removeEventListener('pointermove', follow);
      canvas.removeEventListener('pointerdown', press);
      canvas.removeEventListener('pointerup', release);
    };
  }, [line, gl, camera, scene]);
  return null;
}
