import { acrossOf } from '@jadebell/core/numerics';
import type { WireMark } from '@jadebell/core/grid';
import { useMemo } from 'react';
import { BufferAttribute, BufferGeometry } from 'three';
import type { Label } from '../space/Labels.tsx';
import { plum } from './PortMarks.tsx';

/** Tags of ports, and names of all else that stands in wires. */
export const wireLabels = (marks: readonly WireMark[]): Label[] =>
  marks
    // A line is named at its first end.
    .filter((m, i) => m.kind !== 'line' || marks.findIndex((o) => o.kind === 'line' && o.name === m.name) === i)
    .map((m) =>
      m.kind === 'port'
        ? { key: `port ${m.name}`, at: m.at, text: `${m.order! + 1} ${m.name}`, className: 'port-tag' }
        : { key: `${m.kind} ${m.name}`, at: m.at, text: m.name, className: 'axis-letter beside' },
    );

/** What stands in wires: rings around them, in plum for ports, loads and lines, with an arrow as the current of a port counts; points of probes. */
export function WireMarks({ marks, size, probe }: { marks: readonly WireMark[]; size: number; probe: string }) {
  const [fed, lines, probes] = useMemo(() => {
    const rings: number[] = [];
    const links: number[] = [];
    const points: number[] = [];
    for (const m of marks) {
      if (m.kind === 'probe') points.push(...m.at);
      else rings.push(...ring(m, Math.max(2.2 * m.radius, 0.012 * size)));
      if (m.kind === 'port') rings.push(...arrow(m, 0.05 * size));
    }
    // The two ends of a line follow each other.
    const ends = marks.filter((m) => m.kind === 'line');
    for (let i = 0; i + 1 < ends.length; i += 2) links.push(...ends[i].at, ...ends[i + 1].at);
    return [made(rings), made(links), made(points)];
  }, [marks, size]);
  return (
    <group>
      <lineSegments geometry={fed} renderOrder={9}>
        <lineBasicMaterial color={plum} depthTest={false} transparent />
      </lineSegments>
      <lineSegments geometry={lines} renderOrder={8}>
        <lineBasicMaterial color={plum} depthTest={false} transparent opacity={0.5} />
      </lineSegments>
      <points geometry={probes} renderOrder={9}>
        <pointsMaterial color={probe} size={9} sizeAttenuation={false} depthTest={false} />
      </points>
    </group>
  );
}

/** Ends of the segments of wires as points. */
export function SegmentNodes({ nodes, dark }: { nodes: Float32Array; dark: boolean }) {
  const geometry = useMemo(() => made(nodes), [nodes]);
  return (
    <points geometry={geometry} renderOrder={8}>
      <pointsMaterial color={dark ? '#E6ECE8' : '#1D2A26'} size={4} sizeAttenuation={false} depthTest={false} />
    </points>
  );
}

function made(points: ArrayLike<number>): BufferGeometry {
  const g = new BufferGeometry();
  g.setAttribute('position', new BufferAttribute(Float32Array.from(points), 3));
  return g;
}

function ring({ at, along }: WireMark, radius: number): number[] {
  const [u, w] = acrossOf(along);
  const n = 24;
  const point = (i: number): number[] => {
    const t = (2 * Math.PI * i) / n;
    return at.map((c, a) => c + radius * (Math.cos(t) * u[a] + Math.sin(t) * w[a]));
  };
  return Array.from({ length: n }, (_, i) => [...point(i), ...point(i + 1)]).flat();
}

function arrow({ at, along }: WireMark, length: number): number[] {
  const [u] = acrossOf(along);
  const side = at.map((c, a) => c + 0.35 * length * u[a]);
  const point = (s: number, out: number): number[] => side.map((c, a) => c + s * length * along[a] + out * length * u[a]);
  return [...point(-0.5, 0), ...point(0.5, 0), ...point(0.5, 0), ...point(0.2, 0.12), ...point(0.5, 0), ...point(0.2, -0.12)];
}
