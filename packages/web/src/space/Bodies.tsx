import type { ModelCurve } from '@jadebell/core/geometry';
import { type ThreeEvent, useThree } from '@react-three/fiber';
import { useEffect, useLayoutEffect, useMemo } from 'react';
import { BufferAttribute, BufferGeometry, DoubleSide, type Intersection, type Mesh, type Raycaster } from 'three';
import type { ViewBody } from '../workers/protocol.ts';
import type { Showing } from '../project/stageState.ts';
import { Batch, type Piece } from './batch.ts';

type PointerHandler = (e: ThreeEvent<PointerEvent | MouseEvent>) => void;
interface Pointing {
  onPoint?: PointerHandler;
  onLeave?(): void;
  onPick?: PointerHandler;
}
interface Props extends Pointing {
  bodies: readonly ViewBody[];
  curves?: readonly ModelCurve[];
  dark: boolean;
  picked?: string | null;
  lit?: string | null;
  showing?: Record<string, Showing>;
  /** Drawn faintly, as the ground of a pattern. */
  faint?: boolean;
}

/** What bodies that are drawn together have in common. */
interface Look {
  colour: string;
  metal: boolean;
  sheet: boolean;
  faint: boolean;
}
type Group = Look & { key: string; bodies: ViewBody[] };

const copper = '#c0874a';
const dielectrics = ['#9fc4b0', '#a9b8d6', '#d4c79a', '#c7abc7', '#a7cdd0'];

/** Bodies by their look. */
function grouped(bodies: readonly ViewBody[], showing: Record<string, Showing>, allFaint: boolean): Group[] {
  const materials = [...new Set(bodies.filter((b) => b.material.kind !== 'conductor').map((b) => b.material.name))];
  const groups = new Map<string, Group>();
  for (const body of bodies) {
    if (showing[body.name] === 'hidden') continue;
    const metal = body.material.kind === 'conductor';
    const look: Look = {
      colour: metal ? copper : dielectrics[materials.indexOf(body.material.name) % dielectrics.length],
      metal,
      sheet: body.sheet,
      faint: allFaint || showing[body.name] === 'faint',
    };
    const key = Object.values(look).join();
    const group = groups.get(key);
    if (group) group.bodies.push(body);
    else groups.set(key, { ...look, key, bodies: [body] });
  }
  return [...groups.values()];
}

/** Ends of the segments of a wire's axis: a thin one would be lost between the pixels. */
function axisOf({ name, wire }: ViewBody): Piece[] {
  if (!wire) return [];
  const { points, closed } = wire;
  const ends: number[] = [];
  for (let i = closed ? 0 : 1; i < points.length; i++) ends.push(...points[(i || points.length) - 1], ...points[i]);
  return [{ name, positions: Float32Array.from(ends) }];
}
const outlineOf = ({ name, edges }: ViewBody): Piece => ({ name, positions: edges });

/** The bodies of the model; metal opaque, dielectrics translucent. Coordinates in metres. */
export function Bodies({ bodies, curves = [], dark, picked, lit, showing = noneHidden, faint = false, ...pointing }: Props) {
  const groups = useMemo(() => grouped(bodies, showing, faint), [bodies, showing, faint]);
  const ink = (own: boolean): string => (own ? (dark ? '#5CC7A0' : '#1F7A5C') : dark ? '#8fa198' : '#46554e');
  const is = (b: { name: string; line?: string }, name: string | null | undefined): boolean => !!name && (b.name === name || b.line === name);
  return (
    <>
      {groups.map(({ key, bodies: alike, ...look }) => (
        <Alike key={key} bodies={alike} look={look} ink={ink(false)} {...pointing} />
      ))}
      {groups.flatMap(({ key, bodies: alike, ...look }) =>
        alike
          .filter((b) => is(b, picked) || is(b, lit))
          .map((b) => <Alike key={`marked ${key} ${b.name}`} bodies={[b]} look={look} ink={ink(is(b, picked))} marked />),
      )}
      {curves
        .filter((c) => showing[c.name] !== 'hidden')
        .map((c) => (
          <CurveLine key={c.name} curve={c} colour={ink(c.name === picked || c.name === lit)} {...pointing} />
        ))}
    </>
  );
}
const noneHidden: Record<string, Showing> = {};

/** Surfaces, outlines and axes of bodies of one look; those that are marked are drawn once more over themselves, brighter. */
function Alike({ bodies, look, ink, marked = false, ...pointing }: Pointing & { bodies: ViewBody[]; look: Look; ink: string; marked?: boolean }) {
  const outlines = useMemo(() => bodies.map(outlineOf), [bodies]);
  const axes = useMemo(() => bodies.flatMap(axisOf), [bodies]);
  const shade = look.faint ? 0.4 : 1;
  return (
    <group>
      <Surfaces pieces={bodies} look={look} marked={marked} {...pointing} />
      {axes.length > 0 && <Segments pieces={axes} colour={marked ? ink : look.colour} opacity={shade} above={marked} />}
      <Segments pieces={outlines} colour={ink} opacity={shade} above={marked} />
    </group>
  );
}

/** A geometry that follows its pieces. */
function useBatch(pieces: readonly Piece[]): Batch {
  const batch = useMemo(() => new Batch(), []);
  const invalidate = useThree((s) => s.invalidate);
  useLayoutEffect(() => {
    batch.put(pieces);
    invalidate();
  }, [batch, pieces, invalidate]);
  useEffect(() => () => batch.geometry.dispose(), [batch]);
  return batch;
}

function Surfaces({ pieces, look, marked, onPoint, onLeave, onPick }: Pointing & { pieces: readonly Piece[]; look: Look; marked: boolean }) {
  const batch = useBatch(pieces);
  const cast = useMemo(
    () =>
      marked
        ? () => {}
        : function (this: Mesh, ray: Raycaster, found: Intersection[]) {
            batch.cast(this, ray, found);
          },
    [batch, marked],
  );
  const userData = useMemo(() => ({ batch }), [batch]);
  // What is marked lies over what it marks: together they are as dense as one of 0.6.
  const opacity = look.faint ? 0.16 : look.metal ? 1 : marked ? 0.31 : 0.42;
  return (
    <mesh
      geometry={batch.geometry}
      raycast={cast}
      userData={userData}
      frustumCulled={false}
      renderOrder={(look.sheet ? 2 : 1) + (marked ? 0.5 : 0)}
      onPointerMove={onPoint}
      onPointerOut={onLeave}
      onClick={onPick}
    >
      <meshStandardMaterial
        color={look.colour}
        emissive={look.colour}
        emissiveIntensity={marked ? 0.35 : 0.08}
        roughness={0.75}
        metalness={0}
        flatShading
        side={DoubleSide}
        transparent={opacity < 1}
        opacity={opacity}
        depthWrite={opacity === 1}
        polygonOffset
        polygonOffsetFactor={look.sheet ? -1 : 1}
        polygonOffsetUnits={1}
      />
    </mesh>
  );
}

function Segments({ pieces, colour, opacity, above }: { pieces: readonly Piece[]; colour: string; opacity: number; above: boolean }) {
  const { geometry } = useBatch(pieces);
  return (
    <lineSegments geometry={geometry} frustumCulled={false} renderOrder={above ? 3.5 : 3} raycast={nothing}>
      <lineBasicMaterial color={colour} transparent opacity={opacity} />
    </lineSegments>
  );
}
const nothing = (): void => {};

function CurveLine({ curve, colour, ...events }: Pointing & { curve: ModelCurve; colour: string }) {
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
