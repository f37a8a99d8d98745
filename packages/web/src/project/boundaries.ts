import { axes, type Boundary, type Project, type Side, sides, type Symmetry } from '@jadebell/core/document';

/** What the sides of the region can be, in words. */
export const boundaryNames: Record<Boundary, string> = {
  open: 'absorbs (open)',
  electric: 'perfect electric',
  magnetic: 'perfect magnetic',
  periodic: 'repeats (periodic)',
};

/** How the field lies at a plane in which the model is mirrored. */
export const mirrorNames: Record<Symmetry['wall'], string> = { electric: 'E across it', magnetic: 'E along it' };

export const sideNames: Record<Side, string> = { xMin: 'low x', xMax: 'high x', yMin: 'low y', yMax: 'high y', zMin: 'low z', zMax: 'high z' };

type Axis = (typeof axes)[number];

/** Sets one side; periodic ones come and go in pairs. */
export function withBoundary(d: Project, side: Side, to: Boundary): Project {
  const n = sides.indexOf(side);
  const other = sides[n ^ 1];
  const boundaries = { ...d.boundaries, [side]: to };
  if (to === 'periodic') boundaries[other] = 'periodic';
  else if (boundaries[other] === 'periodic') boundaries[other] = to;
  return { ...d, boundaries };
}

/** Sets or removes the plane of symmetry across an axis. */
export function withSymmetry(d: Project, axis: Axis, to: Symmetry | null): Project {
  const { symmetry: old, ...rest } = d;
  const symmetry = { ...old };
  if (to) symmetry[axis] = to;
  else delete symmetry[axis];
  return Object.keys(symmetry).length ? { ...rest, symmetry } : rest;
}

/** What stands at a side: the plane of symmetry takes the place of the low one. */
export const sideText = (d: Pick<Project, 'boundaries' | 'symmetry'>, side: Side): string => {
  const n = sides.indexOf(side);
  const plane = n % 2 ? undefined : d.symmetry?.[axes[n >> 1]];
  return plane ? `mirror, ${mirrorNames[plane.wall]}` : boundaryNames[d.boundaries[side]];
};
