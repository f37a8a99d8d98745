/** A plane of symmetry across an axis; the half towards larger coordinates is computed. */
export interface Mirror {
  /** Electric: E stands across the plane. Magnetic: E lies along it. */
  wall: 'electric' | 'magnetic';
  /** Metres. */
  at: number;
}

/** Planes of symmetry across x, y, z. */
export type Mirrors = readonly [Mirror | null, Mirror | null, Mirror | null];

/** Sign that a component of E (or of H) takes in the image behind a plane across `axis` (J. D. Jackson, Classical Electrodynamics, sec. 6.10). */
export function imageSign(wall: Mirror['wall'], axis: number, component: number, magnetic = false): 1 | -1 {
  const across = component === axis;
  // Behind an electric wall E along the plane turns round, behind a magnetic one E across it; H is an axial vector.
  return ((wall === 'electric') !== across) !== magnetic ? -1 : 1;
}

/** What the image of a stretch of an axis is. */
export const imageOf = (m: Mirror, [from, to]: readonly [number, number]): [number, number] => [2 * m.at - to, 2 * m.at - from];
