import type { ModelCurve } from '@jadebell/core/geometry';
import { type ThreeEvent, useThree } from '@react-three/fiber';
import { memo, useEffect, useLayoutEffect, useMemo } from 'react';
import { BufferAttribute, BufferGeometry, DoubleSide, Mesh } from 'three';
import { acceleratedRaycast, MeshBVH } from 'three-mesh-bvh';
import type { ViewBody } from '../workers/protocol.ts';
import type { Showing } from '../project/stageState.ts';

// Picking in meshes of many triangles goes through a tree of boxes.
Mesh.prototype.raycast = acceleratedRaycast;
const manyTriangles = 2000;

type PointerHandler = (e: ThreeEvent<PointerEvent | MouseEvent>) => void;
interface Props {
  bodies: readonly ViewBody[];
  curves?: readonly ModelCurve[];
  dark: boolean;
  picked?: string | null;
  lit?: string | null;
  showing?: Record<string, Showing>;
  /** Drawn faintly, as the ground of a pattern. */
  faint?: boolean;
  onPoint?: PointerHandler;
  onLeave?(): void;
  onPick?: PointerHandler;
}

const dielectrics = ['#9fc4b0', '#a9b8d6', '#d4c79a', '#c7abc7', '#a7cdd0'];
const colourOf = (b: ViewBody, order: string[]): string =>
  b.material.kind === 'conductor' ? '#c0874a' : dielectrics[order.indexOf(b.material.name) % dielectrics.length];

/** The bodies of the model; metal opaque, dielectrics translucent. Coordinates in metres. */
export function Bodies({ bodies, curves = [], dark, picked, lit, showing = {}, faint, onPoint, onLeave, onPick }: Props) {
  const order = useMemo(() => [...new Set(bodies.filter((b) => b.material.kind !== 'conductor').map((b) => b.material.name))], [bodies]);
  const ink = (own: boolean): string => (own ? (dark ? '#5CC7A0' : '#1F7A5C') : dark ? '#8fa198' : '#46554e');
  const is = (b: { name: string; line?: string }, name: string | null | undefined): boolean => !!name && (b.name === name || b.line === name);
  return (
    <>
      {bodies
        .filter((b) => showing[b.name] !== 'hidden')
        .map((b) => (
          <BodyMesh
            key={b.name}
            body={b}
            colour={colourOf(b, order)}
            edge={ink(is(b, picked))}
            strong={is(b, picked) || is(b, lit)}
            faint={faint || showing[b.name] === 'faint'}
            onPoint={onPoint}
            onLeave={onLeave}
            onPick={onPick}
          />
        ))}
      {curves
        .filter((c) => showing[c.name] !== 'hidden')
        .map((c) => (
          <CurveLine key={c.name} curve={c} colour={ink(c.name === picked || c.name === lit)} onPoint={onPoint} onLeave={onLeave} onPick={onPick} />
        ))}
    </>
  );
}

interface MeshProps {
  body: ViewBody;
  colour: string;
  edge: string;
  strong: boolean;
  faint?: boolean;
  onPoint?: PointerHandler;
  onLeave?(): void;
  onPick?: PointerHandler;
}

/** Puts corners, and triangles between them, into a geometry, in the place of as many that it has. */
function keep(geometry: BufferGeometry, positions: Float32Array, triangles?: Uint32Array): void {
  const old = geometry.getAttribute('position') as BufferAttribute | undefined;
  const index = geometry.getIndex();
  if (old?.array.length === positions.length && index?.array.length === triangles?.length) {
    // Written into copies of its own: what came from the worker is the model's.
    old.array.set(positions);
    old.needsUpdate = true;
    if (index) {
      index.array.set(triangles!);
      index.needsUpdate = true;
    }
  } else {
    geometry.dispose();
    geometry.setAttribute('position', new BufferAttribute(positions.slice(), 3));
    // The tree sorts the triangles, so that it gets its own copy; without it hits name triangles as they are.
    if (triangles) geometry.setIndex(new BufferAttribute(triangles.slice(), 1));
  }
  geometry.computeBoundingSphere();
  geometry.boundingBox = null;
}

/** Drawn anew only when something of its own changes: a model may have hundreds. */
const BodyMesh = memo(function BodyMesh({ body, colour, edge, strong, faint, onPoint, onLeave, onPick }: MeshProps) {
  const { positions, triangles, edges } = body;
  const invalidate = useThree((s) => s.invalidate);
  const [surface, outline] = useMemo(() => [new BufferGeometry(), new BufferGeometry()], []);
  // As the body changes its places are written over: while a dial is turned their number stays, and nothing is made anew.
  useLayoutEffect(() => {
    keep(surface, positions, triangles);
    surface.boundsTree = triangles.length > 3 * manyTriangles ? new MeshBVH(surface, { indirect: true } as never) : undefined;
    keep(outline, edges);
    invalidate();
  }, [surface, outline, positions, triangles, edges, invalidate]);
  useEffect(
    () => () => {
      surface.dispose();
      outline.dispose();
    },
    [surface, outline],
  );
  // A thin wire would be lost between the pixels: its axis is a line of their width.
  const { wire } = body;
  const axis = useMemo(() => {
    if (!wire) return null;
    const { points, closed } = wire;
    const ends: number[] = [];
    for (let i = closed ? 0 : 1; i < points.length; i++) ends.push(...points[(i || points.length) - 1], ...points[i]);
    const g = new BufferGeometry();
    g.setAttribute('position', new BufferAttribute(Float32Array.from(ends), 3));
    return g;
  }, [wire]);
  useEffect(() => () => axis?.dispose(), [axis]);
  const metal = body.material.kind === 'conductor';
  const opacity = faint ? 0.16 : metal ? 1 : strong ? 0.6 : 0.42;
  return (
    <group>
      <mesh name={body.name} geometry={surface} renderOrder={body.sheet ? 2 : 1} onPointerMove={onPoint} onPointerOut={onLeave} onClick={onPick}>
        <meshStandardMaterial
          color={colour}
          emissive={colour}
          emissiveIntensity={strong ? 0.35 : 0.08}
          roughness={0.75}
          metalness={0}
          flatShading
          side={DoubleSide}
          transparent={opacity < 1}
          opacity={opacity}
          depthWrite={opacity === 1}
          polygonOffset
          polygonOffsetFactor={body.sheet ? -1 : 1}
          polygonOffsetUnits={1}
        />
      </mesh>
      {axis && (
        <lineSegments geometry={axis} renderOrder={3}>
          <lineBasicMaterial color={strong ? edge : colour} transparent opacity={faint ? 0.4 : 1} />
        </lineSegments>
      )}
      <lineSegments geometry={outline} renderOrder={3}>
        <lineBasicMaterial color={edge} transparent opacity={faint ? 0.4 : 1} />
      </lineSegments>
    </group>
  );
});

function CurveLine({
  curve,
  colour,
  ...events
}: {
  curve: ModelCurve;
  colour: string;
  onPoint?: PointerHandler;
  onLeave?(): void;
  onPick?: PointerHandler;
}) {
  const geometry = useMemo(() => {
    const g = new BufferGeometry();
    g.setAttribute('position', new BufferAttribute(curve.edges, 3));
    return g;
  }, [curve.edges]);
  useEffect(() => () => geometry.dispose(), [geometry]);
  return (
    <lineSegments
      name={curve.name}
      geometry={geometry}
      renderOrder={4}
      onPointerMove={events.onPoint}
      onPointerOut={events.onLeave}
      onClick={events.onPick}
    >
      <lineBasicMaterial color={colour} depthTest={false} transparent />
    </lineSegments>
  );
}
