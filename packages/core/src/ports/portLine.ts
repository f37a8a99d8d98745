import type { Point3 } from '../shapes/index.ts';
import { type Body, touches } from '../geometry/index.ts';
import type { PortLine, ScenePort } from './types.ts';

/** How far from the port the line must go on, in gaps of the port. */
export const lineDepth = 1.5;

/** Width, in gaps of the port and widths of it, that metal which faces metal across a gap may have to be that gap's own. */
const own = { gaps: 12, widths: 1 };

/** Whether the metal that faces metal straight across a port's gap ends on all sides close by, so that a current spread over it has a meaning. */
export function facesEnd(port: ScenePort, bodies: readonly Body[]): boolean {
  const metal = bodies.filter((b) => b.material.kind === 'conductor');
  const gap = port.max[port.axis] - port.min[port.axis];
  const middle = port.min.map((x, a) => (x + port.max[a]) / 2) as Point3;
  return ([0, 1, 2] as const).every(
    (axis) =>
      axis === port.axis ||
      ([1, -1] as const).every((sign) => {
        const p = [...middle] as Point3;
        p[axis] += sign * (own.gaps * gap + own.widths * (port.max[port.across] - port.min[port.across]));
        return ![port.min[port.axis], port.max[port.axis]].every((end) => {
          p[port.axis] = end;
          return metal.some((b) => touches(b.shape, p, 1e-4 * gap));
        });
      }),
  );
}

/**
 * The line at whose end a lumped port stands: the one direction across its voltage in which both of its ends lie on metal that goes on,
 * and do not on the other side. Null where there is none, or more than one.
 */
export function portLine(port: ScenePort, bodies: readonly Body[]): PortLine | null {
  const gap = port.max[port.axis] - port.min[port.axis];
  const metal = bodies.filter((b) => b.material.kind === 'conductor');
  const wide = port.max[port.across] > port.min[port.across];
  const middle = port.min.map((x, a) => (x + port.max[a]) / 2) as Point3;
  const goesOn = (axis: number, sign: number, end: number, gaps: number): boolean => {
    const p = [...middle] as Point3;
    p[port.axis] = end;
    p[axis] += sign * gaps * gap;
    return metal.some((b) => touches(b.shape, p, 1e-4 * gap));
  };
  const both = (axis: number, sign: number): boolean =>
    [port.min[port.axis], port.max[port.axis]].every((end) => [0.5, 1, lineDepth].every((gaps) => goesOn(axis, sign, end, gaps)));
  const found = ([0, 1, 2] as const).flatMap((axis) =>
    axis === port.axis || (wide && axis === port.across)
      ? []
      : ([1, -1] as const).flatMap((inward) => (both(axis, inward) && !both(axis, -inward) ? [{ axis, inward }] : [])),
  );
  return found.length === 1 ? found[0] : null;
}
