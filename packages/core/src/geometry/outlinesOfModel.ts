import { type Point2, signedArea } from '../shapes/index.ts';
import { type Affine, compose, invert, scaling } from '../numerics/affine.ts';
import { cutLoops, type Loops, unionLoops } from './flat.ts';
import { insideLoops } from './exact.ts';
import { axisFrame } from './item.ts';
import type { Kernel } from './kernel.ts';
import { columns } from './makers/basic.ts';
import type { Axis } from '../numerics/axis.ts';

/**
 * Outlines of a drawing as one region: outlines inside others are holes, those inside holes are filled again, and those that
 * overlap in part become one.
 */
export function resolveOutlines(kernel: Kernel, loops: Loops): { loops: Loops; overlaps: number; holes: number } {
  const order = loops.map((l) => ({ loop: l, area: Math.abs(signedArea(l)) })).sort((a, b) => b.area - a.area);
  // Depth: how many larger outlines hold all corners of this one.
  const depth = order.map(({ loop }, i) => order.slice(0, i).filter((o) => loop.every((p) => insideLoops([o.loop], p))).length);
  let region: Loops = [];
  let overlaps = 0;
  for (let d = 0; d <= Math.max(0, ...depth); d++) {
    const level = order.filter((_, i) => depth[i] === d).map((o) => [o.loop]);
    if (!level.length) continue;
    const merged = unionLoops(kernel, level);
    if (d % 2 === 0) overlaps += Math.max(0, level.length - merged.filter((l) => signedArea(l) > 0).length);
    region = d === 0 ? merged : d % 2 ? cutLoops(kernel, region, [merged]) : unionLoops(kernel, [region, merged]);
  }
  return { loops: region, overlaps, holes: region.filter((l) => signedArea(l) < 0).length };
}

/** A body as it is drawn. */
export interface DrawnBody {
  name: string;
  sheet: boolean;
  normal: number | null;
  min: readonly number[];
  max: readonly number[];
  positions: Float32Array;
  triangles: Uint32Array;
}

/** Outlines, metres along the two axes of the plane, where the plane across an axis meets drawn bodies, by body. Solids are cut, sheets in the plane are taken whole. */
export function modelOutlines(kernel: Kernel, bodies: readonly DrawnBody[], normal: Axis, offset: number): { name: string; loops: Loops }[] {
  const frame: Affine = axisFrame(normal, offset);
  const out: { name: string; loops: Loops }[] = [];
  for (const b of bodies) {
    if (b.sheet) {
      if (b.normal !== normal || Math.abs(b.min[normal] - offset) > 1e-7 * Math.max(...b.max.map((m, a) => m - b.min[a]))) continue;
      const [u, w] = [(normal + 1) % 3, (normal + 2) % 3];
      const pieces: Loops[] = [];
      for (let t = 0; t < b.triangles.length; t += 3)
        pieces.push([[0, 1, 2].map((i): Point2 => [b.positions[3 * b.triangles[t + i] + u], b.positions[3 * b.triangles[t + i] + w]])]);
      out.push({ name: b.name, loops: unionLoops(kernel, pieces) });
      continue;
    }
    if (offset <= b.min[normal] || offset >= b.max[normal]) continue;
    const size = 1 / Math.max(...b.max.map((m, a) => m - b.min[a]));
    const mesh = new kernel.Mesh({ numProp: 3, vertProperties: b.positions, triVerts: b.triangles });
    mesh.merge();
    const solid = new kernel.Manifold(mesh);
    const unit = solid.transform(columns(compose(scaling([size, size, size], [0, 0, 0]), invert(frame))));
    const section = unit.slice(0);
    const loops = section.toPolygons().map((l) => l.map((p): Point2 => [p[0] / size, p[1] / size]));
    for (const o of [solid, unit, section]) o.delete();
    if (loops.length) out.push({ name: b.name, loops });
  }
  return out;
}
