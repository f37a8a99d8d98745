import { nearestLine, type Grid } from '../../grid/index.ts';
import type { ScenePort } from '../../scene/index.ts';

/** One electric edge that a lumped port loads and drives. */
export interface PortEdge {
  component: 0 | 1 | 2;
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

/** Edges of a port on the grid. */
export function portEdges(port: ScenePort, grid: Grid): PortEdge[] {
  const { axis, across } = port;
  const thin = (3 - axis - across) as 0 | 1 | 2;
  const lines = grid.lines;
  const i0 = nearestLine(lines[axis], port.min[axis]);
  const i1 = nearestLine(lines[axis], port.max[axis]);
  const a0 = nearestLine(lines[across], port.min[across]);
  const a1 = nearestLine(lines[across], port.max[across]);
  const t = nearestLine(lines[thin], (port.min[thin] + port.max[thin]) / 2);
  const edges: PortEdge[] = [];
  let total = 0;
  const columns: { a: number; w: number }[] = [];
  for (let a = a0; a <= a1; a++) {
    const w = a0 === a1 ? 1 : (a > a0 ? lines[across][a] - lines[across][a - 1] : 0) / 2 + (a < a1 ? lines[across][a + 1] - lines[across][a] : 0) / 2;
    columns.push({ a, w });
    total += w;
  }
  for (const { a, w } of columns)
    for (let i = i0; i < i1; i++) {
      const length = lines[axis][i + 1] - lines[axis][i];
      const index: [number, number, number] = [0, 0, 0];
      index[axis] = i;
      index[across] = a;
      index[thin] = t;
      edges.push({
        component: axis,
        index,
        // Half of a gap has half its voltage; of a half-wide port each column off the plane has an image that carries as much.
        weight: ((port.halved?.[axis] ? 2 : 1) * port.direction * length * w) / total,
        current: ((port.halved?.[across] && a > a0 ? 0.5 : 1) * port.direction * w) / total,
        area: dualStep(lines[across], a) * dualStep(lines[thin], t),
        ca: 0,
        cb: 0,
      });
    }
  return edges;
}
