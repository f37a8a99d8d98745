import type { Point3 } from '../shapes/index.ts';
import { type Body, inPlane, isSheet } from './body.ts';
import { type Exact, insideLoops, spansAlong } from './exact.ts';
import type { Filled } from './filled.ts';

/** What metal stands below and above a plane, to be asked at its points. */
export class Grounds {
  private readonly bodies: Body[];

  /** `walls` says which ends of the region are electric walls; lengths in metres. */
  constructor(
    private readonly scene: Filled & { boundaries?: readonly string[] },
    private readonly normal: 0 | 1 | 2,
    private readonly offset: number,
  ) {
    const slack = this.slack();
    this.bodies = scene.bodies.filter(
      (b) =>
        b.material.kind === 'conductor' &&
        (!isSheet(b) || (b.shape.form === 'sheet' && b.shape.normal === normal && Math.abs(b.shape.offset - offset) > slack)),
    );
  }

  /** Distances to the next metal below and above a point of the plane; Infinity where there is none. */
  at(p: Point3): [below: number, above: number] {
    const { scene, normal, offset } = this;
    const found: [number, number] = [Infinity, Infinity];
    const meet = (t: number): void => {
      if (Math.abs(t) > this.slack()) found[t < 0 ? 0 : 1] = Math.min(found[t < 0 ? 0 : 1], Math.abs(t));
    };
    [scene.min[normal], scene.max[normal]].forEach((end, side) => {
      if (scene.boundaries?.[2 * normal + side] === 'electric') meet(end - offset);
    });
    const across: Point3 = [0, 0, 0];
    across[normal] = 1;
    const [u, w] = inPlane[normal];
    for (const { shape, min, max } of this.bodies) {
      if (p[u] < min[u] || p[u] > max[u] || p[w] < min[w] || p[w] > max[w]) continue;
      if (shape.form !== 'sheet') spansAlong(shape as Exact, p, across).forEach(meet);
      else if (insideLoops(shape.loops, [p[u], p[w]])) meet(shape.offset - offset);
    }
    return found;
  }

  private slack(): number {
    return 1e-6 * (this.scene.max[this.normal] - this.scene.min[this.normal]);
  }
}
