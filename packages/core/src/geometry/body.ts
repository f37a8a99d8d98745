import type { MaterialEntry, Point2, Point3, Recipe } from '../document/index.ts';

/** A body of the model in SI, from one ledger line. */
export interface Body {
  name: string;
  /** Position of its line: where bodies overlap the higher one wins. */
  order: number;
  material: MaterialEntry;
  recipe: Recipe;
  min: Point3;
  max: Point3;
  /** Triangle mesh for drawing: xyz per vertex in metres, three indices per triangle. */
  positions: Float32Array;
  triangles: Uint32Array;
  /** Pairs of points that draw its sharp edges: xyz xyz per segment. */
  edges: Float32Array;
  /** Cubic metres; zero for a sheet. */
  volume: number;
  /** Square metres of the whole surface; one side of a sheet. */
  area: number;
}

/** In-plane axes of a sheet by its normal: (u, w) so that u x w = normal. */
export const inPlane = [
  [1, 2],
  [2, 0],
  [0, 1],
] as const;

/** A point of a sheet's plane in space. */
export function liftPoint(normal: 0 | 1 | 2, offset: number, [u, w]: Point2): Point3 {
  const point: Point3 = [0, 0, 0];
  point[normal] = offset;
  point[inPlane[normal][0]] = u;
  point[inPlane[normal][1]] = w;
  return point;
}

/** Axis-aligned bounds of a recipe, metres. */
export function bounds(recipe: Recipe): { min: Point3; max: Point3 } {
  switch (recipe.form) {
    case 'box':
      return { min: [...recipe.min], max: [...recipe.max] };
    case 'cylinder': {
      const min = recipe.base.map((b) => b - recipe.radius) as Point3;
      const max = recipe.base.map((b) => b + recipe.radius) as Point3;
      min[recipe.axis] = recipe.base[recipe.axis];
      max[recipe.axis] = recipe.base[recipe.axis] + recipe.height;
      return { min, max };
    }
    case 'sheet': {
      const points = recipe.outline.map((p) => liftPoint(recipe.normal, recipe.offset, p));
      const pick = (f: (...v: number[]) => number): Point3 => [0, 1, 2].map((a) => points.reduce((m, p) => f(m, p[a]), points[0][a])) as Point3;
      return { min: pick(Math.min), max: pick(Math.max) };
    }
  }
}

/**
 * Where the line through (y, z) along x is inside a solid: [x0, x1], or null. Exact for box and cylinder.
 * Points on the surface count as outside.
 */
export function rowInside(recipe: Recipe, y: number, z: number): [number, number] | null {
  if (recipe.form === 'box') {
    const { min, max } = recipe;
    return y > min[1] && y < max[1] && z > min[2] && z < max[2] ? [min[0], max[0]] : null;
  }
  if (recipe.form === 'sheet') return null;
  const { axis, base, height, radius } = recipe;
  const dy = y - base[1];
  const dz = z - base[2];
  if (axis === 0) return dy * dy + dz * dz < radius * radius ? [base[0], base[0] + height] : null;
  const along = axis === 1 ? dy : dz;
  const across = axis === 1 ? dz : dy;
  const half = radius * radius - across * across;
  if (along <= 0 || along >= height || half <= 0) return null;
  return [base[0] - Math.sqrt(half), base[0] + Math.sqrt(half)];
}

/** Where the line w = const crosses an outline: sorted u coordinates, even-odd inside between pairs. */
export function outlineCrossings(outline: readonly Point2[], w: number): number[] {
  const found: number[] = [];
  outline.forEach(([u0, w0], i) => {
    const [u1, w1] = outline[(i + 1) % outline.length];
    if (w0 <= w !== w1 <= w) found.push(u0 + ((w - w0) / (w1 - w0)) * (u1 - u0));
  });
  return found.sort((a, b) => a - b);
}

/** Whether a point of the plane is inside an outline, the edge counted in within `tolerance`. */
export function insideOutline(outline: readonly Point2[], [u, w]: Point2, tolerance: number): boolean {
  for (const dw of [-tolerance, tolerance]) {
    const crossings = outlineCrossings(outline, w + dw);
    for (let i = 0; i + 1 < crossings.length; i += 2) if (u >= crossings[i] - tolerance && u <= crossings[i + 1] + tolerance) return true;
  }
  return false;
}

/** Whether a point is in or on a body within `tolerance` metres. */
export function touches(recipe: Recipe, p: Point3, tolerance: number): boolean {
  if (recipe.form === 'sheet') {
    const [u, w] = inPlane[recipe.normal];
    return Math.abs(p[recipe.normal] - recipe.offset) <= tolerance && insideOutline(recipe.outline, [p[u], p[w]], tolerance);
  }
  for (const dy of [-tolerance, tolerance])
    for (const dz of [-tolerance, tolerance]) {
      const row = rowInside(recipe, p[1] + dy, p[2] + dz);
      if (row && p[0] >= row[0] - tolerance && p[0] <= row[1] + tolerance) return true;
    }
  return false;
}
