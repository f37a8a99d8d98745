// When numbers count as equal. Each is a part of what it is compared with: an extent, or numbers whose size is 1.

/**
 * Numbers that were worked out in doubles from the same text: coordinates, directions, frequencies. Expressions and transforms lose a few hundred times
 * 1.1e-16; files and forms carry ten digits and more. No engineer means a billionth of a structure, so twice the true step either way changes nothing.
 */
export const sameNumber = 1e-9;

/**
 * Coordinates that went through single precision or through the booleans of meshes: half a step of 6e-8, and what the geometry kernel welds, which is some
 * ten steps. A millionth of a structure is below what any grid here resolves.
 */
export const sameMesh = 1e-6;

/** Eigenvalues and fields of modes that are known to the precision of their iteration (1e-8 or better): closer than this they are of one mode, or none. */
export const sameSolved = 1e-6;

/** What doubles leave of a zero among numbers of size 1 after a handful of operations: some thousand steps of 2.2e-16. */
export const nothing = 1e-12;
