import { useMemo } from 'react';
import { BufferAttribute, BufferGeometry } from 'three';
import type { MeshView } from '@jadebell/core/solvers';
import type { View } from '../workers/protocol.ts';
import { type Project, sides } from '@jadebell/core/document';
import { sideText } from '../project/boundaries.ts';
import { type Frame, roundLength } from './frameOf.ts';
import type { Label } from './Labels.tsx';

/** Length of the drawn axes as a part of the frame. */
const axisLength = 0.12;

const segments = (points: number[]): BufferGeometry => {
  const g = new BufferGeometry();
  g.setAttribute('position', new BufferAttribute(new Float32Array(points), 3));
  return g;
};

/** A faint dotted floor at z = 0 and small lettered axes at the origin. */
export function Floor({ frame, dark }: { frame: Frame; dark: boolean }) {
  const dots = useMemo(() => {
    const step = roundLength(frame.size / 10);
    const n = 14;
    const at = frame.centre.map((c) => Math.round(c / step) * step);
    const points: number[] = [];
    for (let i = -n; i <= n; i++) for (let j = -n; j <= n; j++) points.push(at[0] + i * step, at[1] + j * step, 0);
    return segments(points);
  }, [frame]);
  const length = axisLength * frame.size;
  const axes = useMemo(() => segments([0, 0, 0, length, 0, 0, 0, 0, 0, 0, length, 0, 0, 0, 0, 0, 0, length]), [length]);
  return (
    <>
      <points geometry={dots}>
        <pointsMaterial color={dark ? '#4a5a52' : '#b3b6a8'} size={1.6} sizeAttenuation={false} />
      </points>
      <lineSegments geometry={axes} renderOrder={6}>
        <lineBasicMaterial color={dark ? '#A3B1AA' : '#54625C'} depthTest={false} transparent />
      </lineSegments>
    </>
  );
}

const boxEdges = (min: readonly number[], max: readonly number[]): number[] => {
  const out: number[] = [];
  for (let a = 0; a < 3; a++)
    for (const b of [0, 1])
      for (const c of [0, 1]) {
        const p = [0, 0, 0];
        p[(a + 1) % 3] = (b ? max : min)[(a + 1) % 3];
        p[(a + 2) % 3] = (c ? max : min)[(a + 2) % 3];
        const q = [...p];
        p[a] = min[a];
        q[a] = max[a];
        out.push(...p, ...q);
      }
  return out;
};

/** Letters at the ends of the axes. */
export const axisLabels = (frame: Frame): Label[] =>
  (['x', 'y', 'z'] as const).map((text, a) => ({
    key: text,
    at: [0, 1, 2].map((b) => (a === b ? axisLength * 1.15 * frame.size : 0)),
    text,
    className: 'axis-letter',
  }));

/** Names of the boundaries in the middle of the region's sides. */
export const boundaryLabels = ({ min, max }: NonNullable<View['region']>, project: Pick<Project, 'boundaries' | 'symmetry'>): Label[] =>
  sides.map((side, i) => {
    const at = min.map((m, a) => (m + max[a]) / 2);
    at[i >> 1] = (i & 1 ? max : min)[i >> 1];
    return { key: side, at, text: sideText(project, side), className: 'axis-letter quiet' };
  });

/** The frame of the computed region, dashed. */
export function RegionFrame({ region, dark }: { region: NonNullable<View['region']>; dark: boolean }) {
  const { min, max } = region;
  const geometry = useMemo(() => segments(dashed(boxEdges(min, max), 60)), [min, max]);
  return (
    <>
      <lineSegments geometry={geometry}>
        <lineBasicMaterial color={dark ? '#5CC7A0' : '#1F7A5C'} transparent opacity={0.7} />
      </lineSegments>
    </>
  );
}

/** Cuts segments into dashes, `count` per longest segment. */
function dashed(points: number[], count: number): number[] {
  const out: number[] = [];
  let longest = 0;
  for (let i = 0; i < points.length; i += 6)
    longest = Math.max(longest, Math.hypot(points[i + 3] - points[i], points[i + 4] - points[i + 1], points[i + 5] - points[i + 2]));
  for (let i = 0; i < points.length; i += 6) {
    const length = Math.hypot(points[i + 3] - points[i], points[i + 4] - points[i + 1], points[i + 5] - points[i + 2]);
    const n = Math.max(1, Math.round((count * length) / longest));
    for (let k = 0; k < n; k++)
      for (const t of [k / n, (k + 0.55) / n]) for (let a = 0; a < 3; a++) out.push(points[i + a] + t * (points[i + 3 + a] - points[i + a]));
  }
  return out;
}

/** Grid lines in the plane z = `level`; the absorbing layers are drawn fainter. */
export function GridPlane({ grid, level, dark }: { grid: NonNullable<MeshView['grid']>; level: number; dark: boolean }) {
  const [inner, outer] = useMemo(() => {
    const [x, y] = grid.lines;
    const [x0, x1, y0, y1] = grid.outerCells;
    const near: number[] = [];
    const far: number[] = [];
    const line = (a: number[], b: number[], absorbing: boolean): void => void (absorbing ? far : near).push(...a, level, ...b, level);
    x.forEach((v, i) => line([v, y[0]], [v, y[y.length - 1]], i < x0 || i > x.length - 1 - x1));
    y.forEach((v, i) => line([x[0], v], [x[x.length - 1], v], i < y0 || i > y.length - 1 - y1));
    return [segments(near), segments(far)];
  }, [grid, level]);
  const colour = dark ? '#7f948a' : '#7d897f';
  return (
    <>
      <lineSegments geometry={inner}>
        <lineBasicMaterial color={colour} transparent opacity={0.5} />
      </lineSegments>
      <lineSegments geometry={outer}>
        <lineBasicMaterial color={colour} transparent opacity={0.2} />
      </lineSegments>
    </>
  );
}

/** Axes of the working frames: x longer than y, z out of their plane. */
export function FrameAxes({ frames, size, dark }: { frames: View['frames']; size: number; dark: boolean }) {
  const geometry = useMemo(() => {
    const points: number[] = [];
    for (const { matrix: m } of frames)
      for (const [axis, part] of [
        [0, 0.09],
        [1, 0.06],
        [2, 0.06],
      ] as const)
        points.push(m[3], m[7], m[11], ...[0, 4, 8].map((r) => m[r + 3] + part * size * m[r + axis]));
    return segments(points);
  }, [frames, size]);
  if (!frames.length) return null;
  return (
    <lineSegments geometry={geometry} renderOrder={6} raycast={() => null}>
      <lineBasicMaterial color={dark ? '#c9a5c9' : '#6B3F6B'} depthTest={false} transparent />
    </lineSegments>
  );
}

/** A ground plane under wires: a square of hatching as wide as what stands on it. */
export function GroundPlane({ frame: { centre, size }, level, dark }: { frame: Frame; level: number; dark: boolean }) {
  const geometry = useMemo(() => {
    const half = 0.75 * size;
    const out: number[] = [];
    const n = 24;
    // Diagonals of a square, cut at its sides.
    for (let i = -n + 1; i < n; i++) {
      const s = (i / n) * 2 * half;
      const [x0, x1] = s > 0 ? [-half + s, half] : [-half, half + s];
      out.push(centre[0] + x0, centre[1] + x0 - s, level, centre[0] + x1, centre[1] + x1 - s, level);
    }
    for (const [a, b] of [
      [-1, -1, 1, -1],
      [1, -1, 1, 1],
      [1, 1, -1, 1],
      [-1, 1, -1, -1],
    ].map(([p, q, r, t]) => [
      [p, q],
      [r, t],
    ]))
      // prettier-ignore
      out.push(centre[0] + a[0] * half, centre[1] + a[1] * half, level, centre[0] + b[0] * half, centre[1] + b[1] * half, level);
    return segments(out);
  }, [centre, size, level]);
  return (
    <lineSegments geometry={geometry}>
      <lineBasicMaterial color={dark ? '#4a5a52' : '#b3b6a8'} transparent opacity={0.8} />
    </lineSegments>
  );
}
