import { BufferAttribute, BufferGeometry, type Intersection, Mesh, type Raycaster } from 'three';
import { acceleratedRaycast, MeshBVH } from 'three-mesh-bvh';

/** Corners, as x, y, z after each other in metres, and triangles between them, of one thing among those that are drawn together. */
export interface Piece {
  name: string;
  positions: Float32Array;
  triangles?: Uint32Array;
}

/** Rays seek among so many triangles through a tree of boxes. */
const manyTriangles = 2000;

/** Pieces that look alike in one geometry, one after the other: a model may have hundreds, and each drawing of its own costs as much as its triangles. */
export class Batch {
  readonly geometry = new BufferGeometry();
  private pieces: readonly Piece[] = [];
  /** The first triangle of each piece. */
  private starts: number[] = [];

  /** Takes the pieces; what is as long as before is written in its place, as while a dial is turned. */
  put(pieces: readonly Piece[]): void {
    const old = this.pieces;
    const same =
      pieces.length === old.length &&
      pieces.every((p, i) => p.positions.length === old[i].positions.length && p.triangles?.length === old[i].triangles?.length);
    this.pieces = pieces;
    if (!same) this.layOut();
    const position = this.geometry.getAttribute('position') as BufferAttribute;
    const index = this.geometry.getIndex();
    let corner = 0;
    pieces.forEach((p, i) => {
      if (!same || p.positions !== old[i].positions) {
        position.array.set(p.positions, corner);
        position.needsUpdate = true;
      }
      if (p.triangles && (!same || p.triangles !== old[i].triangles)) {
        for (let k = 0, to = 3 * this.starts[i]; k < p.triangles.length; k++) index!.array[to + k] = p.triangles[k] + corner / 3;
        index!.needsUpdate = true;
      }
      corner += p.positions.length;
    });
    this.geometry.boundingSphere = null;
    this.geometry.boundsTree = undefined;
  }

  private layOut(): void {
    let [corners, triangles] = [0, 0];
    this.starts = this.pieces.map((p) => {
      const start = triangles;
      corners += p.positions.length;
      triangles += (p.triangles?.length ?? 0) / 3;
      return start;
    });
    this.geometry.dispose();
    this.geometry.setAttribute('position', new BufferAttribute(new Float32Array(corners), 3));
    this.geometry.setIndex(triangles ? new BufferAttribute(new Uint32Array(3 * triangles), 1) : null);
  }

  /** The name of the piece with a hit, and which of its own triangles was met. */
  at(hit: Intersection): { name: string; triangle: number } {
    const piece = hit.instanceId!;
    return { name: this.pieces[piece].name, triangle: hit.faceIndex! - this.starts[piece] };
  }

  /** Finds where a ray meets the pieces; each hit carries the number of its piece, by which those who listen tell them apart. */
  cast(mesh: Mesh, ray: Raycaster, found: Intersection[]): void {
    const { geometry, starts } = this;
    // Only when a ray comes: while the model changes nothing is sought in it. The tree leaves the triangles in their order.
    if (!geometry.boundsTree && (geometry.getIndex()?.count ?? 0) > 3 * manyTriangles)
      geometry.boundsTree = new MeshBVH(geometry, { indirect: true } as never);
    const from = found.length;
    acceleratedRaycast.call(mesh, ray, found);
    for (let i = from; i < found.length; i++) {
      const triangle = found[i].faceIndex!;
      let [low, high] = [0, starts.length];
      while (high - low > 1) {
        const middle = (low + high) >> 1;
        if (starts[middle] <= triangle) low = middle;
        else high = middle;
      }
      found[i].instanceId = low;
    }
  }
}

/** What a ray has met: the name of the body or curve, and which of its triangles; null for marks. */
export function metBy(hit: Intersection): { name: string; triangle: number | null } | null {
  const { batch } = hit.object.userData as { batch?: Batch };
  if (batch) return batch.at(hit);
  return hit.object.name ? { name: hit.object.name, triangle: null } : null;
}
