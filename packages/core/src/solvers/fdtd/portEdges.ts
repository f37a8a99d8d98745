import type { Point3 } from '../../document/index.ts';
import { nearestLine, type Grid } from '../../grid/index.ts';
import type { ScenePort } from '../../scene/index.ts';
import type { Axis } from '../../numerics/axis.ts';

/** One electric edge that a lumped port loads and drives. */
export interface PortEdge {
  component: Axis;
  /** Grid indices of the edge's lower end. */
  index: [number, number, number];
  /** The port's voltage is the sum of weight * E over its edges, V/m to V, signed along the path. */
  weight: number;
  /** Part of the port's current through this edge, signed along the path. */
  current: number;
  /** Area of the edge's dual face, m^2. */
  area: number;
  /** Update coefficients without the port: E = ca E + cb curl H'. Zero until discretised. */
  ca: number;
  cb: number;
}

const dualStep = (x: Float64Array, i: number): number => (x[Math.min(i + 1, x.length - 1)] - x[Math.max(i - 1, 0)]) / 2;

/** A line of edges along a port's axis: its place on the other two axes, and its share of the port. */
export interface PortColumn {
  index: Point3;
  weight: number;
}

/** The columns of a port on the grid, with their widths. */
export function portColumns(port: ScenePort, { lines }: Grid): PortColumn[] {
  const { axis, across } = port;
  const thin = (3 - axis - across) as Axis;
  const a0 = nearestLine(lines[across], port.min[across]);
  const a1 = nearestLine(lines[across], port.max[across]);
  const t = nearestLine(lines[thin], (port.min[thin] + port.max[thin]) / 2);
  return Array.from({ length: a1 - a0 + 1 }, (_, n) => {
    const a = a0 + n;
    const index: Point3 = [0, 0, 0];
    [index[across], index[thin]] = [a, t];
    const weight = a0 === a1 ? 1 : (a > a0 ? lines[across][a] - lines[across][a - 1] : 0) / 2 + (a < a1 ? lines[across][a + 1] - lines[across][a] : 0) / 2; // prettier-ignore
    return { index, weight };
  });
}

/** Edges of a port in given columns, those of a column after one another. */
export function columnEdges(port: ScenePort, grid: Grid, columns: readonly PortColumn[]): PortEdge[] {
  const { axis } = port;
  const { lines } = grid;
  const [i0, i1] = [nearestLine(lines[axis], port.min[axis]), nearestLine(lines[axis], port.max[axis])];
  const total = columns.reduce((s, c) => s + c.weight, 0);
  const sides = ([0, 1, 2] as const).filter((a) => a !== axis);
  // Half of a gap has half its voltage; of a half-wide port each column off the plane has an image that carries as much.
  const twice = port.halved?.[axis] ? 2 : 1;
  const planes = sides.map((a) => (port.halved?.[a] ? Math.min(...columns.map((c) => c.index[a])) : null));
  return columns.flatMap(({ index, weight }) => {
    const share = sides.reduce<number>((s, a, n) => (planes[n] !== null && index[a] > planes[n] ? s / 2 : s), 1);
    return Array.from({ length: i1 - i0 }, (_, n): PortEdge => {
      const at = index.map((v, a) => (a === axis ? i0 + n : v)) as Point3;
      return {
        component: axis,
        index: at,
        weight: (twice * port.direction * (lines[axis][i0 + n + 1] - lines[axis][i0 + n]) * weight) / total,
        current: (share * port.direction * weight) / total,
        area: dualStep(lines[sides[0]], at[sides[0]]) * dualStep(lines[sides[1]], at[sides[1]]),
        ca: 0,
        cb: 0,
      };
    });
  });
}

/** Edges of a port on the grid. */
export const portEdges = (port: ScenePort, grid: Grid): PortEdge[] => columnEdges(port, grid, portColumns(port, grid));
