import { type SheetRecipe, signedArea } from '../document/index.ts';
import { inPlane, insideLoops } from '../geometry/index.ts';

/** A straight edge of a sheet across an axis. */
export interface SheetEdge {
  at: number;
  /** Side on which the metal ends: +1 if free space lies towards larger coordinates. */
  outward: 1 | -1;
  length: number;
}

/** Turn at a corner above which it counts as one; below, the outline is taken as a smooth curve. */
const sharp = (20 * Math.PI) / 180;

/**
 * Straight edges of a sheet that stand across an axis of its plane, and coordinates on that axis of other features: sharp
 * corners that lie on no such edge, and the outermost points of round outlines.
 */
export function sheetEdges(sheet: SheetRecipe, axis: number): { edges: SheetEdge[]; corners: number[] } {
  const which = inPlane[sheet.normal][0] === axis ? 0 : 1;
  const edges: SheetEdge[] = [];
  const corners = new Set<number>();
  for (const loop of sheet.loops) {
    const n = loop.length;
    // A hole turns the other way round: metal lies outside it.
    const hole = sheet.loops.length > 1 && sheet.loops.some((o) => o !== loop && insideLoops([o], loop[0]));
    const turn = Math.sign(signedArea(loop)) * (hole ? -1 : 1);
    const all = loop.map((p) => p[which]);
    const [low, high] = [Math.min(...all), Math.max(...all)];
    const onEdge = new Set<number>();
    loop.forEach((p, i) => {
      const q = loop[(i + 1) % n];
      if (p[which] !== q[which]) return;
      // Free space lies to the right of an edge of an outline that turns to the left.
      const along = q[1 - which] - p[1 - which];
      const right = which === 0 ? Math.sign(along) : -Math.sign(along);
      edges.push({ at: p[which], outward: (right * turn) as 1 | -1, length: Math.abs(along) });
      onEdge.add(p[which]);
    });
    loop.forEach((p, i) => {
      if (onEdge.has(p[which])) return;
      const [a, b] = [loop[(i + n - 1) % n], loop[(i + 1) % n]];
      const [ux, uy, vx, vy] = [p[0] - a[0], p[1] - a[1], b[0] - p[0], b[1] - p[1]];
      const bend = Math.abs(Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy));
      if (bend > sharp || p[which] === low || p[which] === high) corners.add(p[which]);
    });
  }
  return { edges, corners: [...corners].filter((c) => !edges.some((e) => e.at === c)) };
}
