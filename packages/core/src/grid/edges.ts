import { type Recipe, signedArea } from '../document/index.ts';
import { inPlane } from '../geometry/index.ts';

/** A straight edge of a sheet across an axis. */
export interface SheetEdge {
  at: number;
  /** Side on which the metal ends: +1 if free space lies towards larger coordinates. */
  outward: 1 | -1;
  length: number;
}

/** Straight edges of a sheet that stand across an axis of its plane, and coordinates of corners that lie on none. */
export function sheetEdges(recipe: Extract<Recipe, { form: 'sheet' }>, axis: number): { edges: SheetEdge[]; corners: number[] } {
  const which = inPlane[recipe.normal][0] === axis ? 0 : 1;
  const turn = Math.sign(signedArea(recipe.outline));
  const edges: SheetEdge[] = [];
  recipe.outline.forEach((p, i) => {
    const q = recipe.outline[(i + 1) % recipe.outline.length];
    if (p[which] !== q[which]) return;
    // Free space lies to the right of an edge of an outline that turns to the left.
    const along = q[1 - which] - p[1 - which];
    const right = which === 0 ? Math.sign(along) : -Math.sign(along);
    edges.push({ at: p[which], outward: (right * turn) as 1 | -1, length: Math.abs(along) });
  });
  const corners = [...new Set(recipe.outline.map((p) => p[which]))].filter((c) => !edges.some((e) => e.at === c));
  return { edges, corners };
}
