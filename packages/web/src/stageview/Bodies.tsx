import type { Body } from '@jadebell/core/geometry';
import type { ThreeEvent } from '@react-three/fiber';
import { useEffect, useMemo } from 'react';
import { BufferAttribute, BufferGeometry, DoubleSide } from 'three';

interface Props {
  bodies: readonly Body[];
  dark: boolean;
  picked?: string | null;
  lit?: string | null;
  /** Drawn faintly, as the ground of a pattern. */
  faint?: boolean;
  onPoint?(names: string[]): void;
  onPick?(name: string): void;
}

const dielectrics = ['#9fc4b0', '#a9b8d6', '#d4c79a', '#c7abc7', '#a7cdd0'];
const colourOf = (b: Body, order: string[]): string =>
  b.material.kind === 'conductor' ? '#c0874a' : dielectrics[order.indexOf(b.material.name) % dielectrics.length];

/** The bodies of the model; metal opaque, dielectrics translucent. Coordinates in metres. */
export function Bodies({ bodies, dark, picked, lit, faint, onPoint, onPick }: Props) {
  const order = useMemo(() => [...new Set(bodies.filter((b) => b.material.kind === 'dielectric').map((b) => b.material.name))], [bodies]);
  const names = (e: ThreeEvent<PointerEvent | MouseEvent>): string[] => [...new Set(e.intersections.map((i) => i.object.name).filter(Boolean))];
  return (
    <>
      {bodies.map((b) => (
        <BodyMesh
          key={b.name}
          body={b}
          colour={colourOf(b, order)}
          edge={picked === b.name ? (dark ? '#5CC7A0' : '#1F7A5C') : dark ? '#8fa198' : '#46554e'}
          strong={picked === b.name || lit === b.name}
          faint={faint}
          onPoint={onPoint && ((e) => onPoint(names(e)))}
          onLeave={onPoint && (() => onPoint([]))}
          onPick={
            onPick &&
            ((e) => {
              if (e.delta > 4) return;
              e.stopPropagation();
              onPick(names(e)[0]);
            })
          }
        />
      ))}
    </>
  );
}

interface MeshProps {
  body: Body;
  colour: string;
  edge: string;
  strong: boolean;
  faint?: boolean;
  onPoint?(e: ThreeEvent<PointerEvent>): void;
  onLeave?(): void;
  onPick?(e: ThreeEvent<MouseEvent>): void;
}

function BodyMesh({ body, colour, edge, strong, faint, onPoint, onLeave, onPick }: MeshProps) {
  const { positions, triangles, edges } = body;
  const [surface, outline] = useMemo(() => {
    const mesh = new BufferGeometry();
    mesh.setAttribute('position', new BufferAttribute(positions, 3));
    mesh.setIndex(new BufferAttribute(triangles, 1));
    const lines = new BufferGeometry();
    lines.setAttribute('position', new BufferAttribute(edges, 3));
    return [mesh, lines];
  }, [positions, triangles, edges]);
  useEffect(
    () => () => {
      surface.dispose();
      outline.dispose();
    },
    [surface, outline],
  );
  const metal = body.material.kind === 'conductor';
  const sheet = body.volume === 0;
  const opacity = faint ? 0.35 : metal ? 1 : strong ? 0.6 : 0.42;
  return (
    <group>
      <mesh name={body.name} geometry={surface} renderOrder={sheet ? 2 : 1} onPointerMove={onPoint} onPointerOut={onLeave} onClick={onPick}>
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
          polygonOffsetFactor={sheet ? -1 : 1}
          polygonOffsetUnits={1}
        />
      </mesh>
      <lineSegments geometry={outline} renderOrder={3}>
        <lineBasicMaterial color={edge} transparent opacity={faint ? 0.4 : 1} />
      </lineSegments>
    </group>
  );
}
