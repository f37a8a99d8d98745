import { describe, expect, test } from '@jest/globals';
import { DoubleSide, type Intersection, Mesh, MeshBasicMaterial, Raycaster, Vector3 } from 'three';
import { Batch, metBy, type Piece } from './batch.ts';

/** A square of `n` × `n` tiles of 1 m across z at a height, its first corner at (x, 0). */
function tiles(name: string, n: number, x: number, z: number): Piece {
  const positions: number[] = [];
  const triangles: number[] = [];
  for (let i = 0; i <= n; i++) for (let j = 0; j <= n; j++) positions.push(x + i, j, z);
  for (let i = 0; i < n; i++)
    for (let j = 0; j < n; j++) {
      const a = i * (n + 1) + j;
      triangles.push(a, a + 1, a + n + 1, a + 1, a + n + 2, a + n + 1);
    }
  return { name, positions: Float32Array.from(positions), triangles: Uint32Array.from(triangles) };
}

/** What a ray straight down at (x, y) meets, from above: names and triangles. */
function below(batch: Batch, x: number, y: number): { name: string; triangle: number | null }[] {
  const mesh = new Mesh(batch.geometry, new MeshBasicMaterial({ side: DoubleSide }));
  mesh.userData.batch = batch;
  const found: Intersection[] = [];
  batch.cast(mesh, new Raycaster(new Vector3(x, y, 10), new Vector3(0, 0, -1)), found);
  return found.sort((a, b) => a.distance - b.distance).map((hit) => metBy(hit)!);
}

describe('pieces in one geometry', () => {
  // Few triangles are gone through, many are sought in a tree.
  for (const n of [2, 40])
    test(`each is told by its name and its own triangle, among ${2 * n * n} triangles each`, () => {
      const batch = new Batch();
      batch.put([tiles('low', n, 0, 0), tiles('high', n, 1, 2), tiles('aside', n, 3 * n, 0)]);
      expect(below(batch, 0.25, 0.25)).toEqual([{ name: 'low', triangle: 0 }]);
      expect(below(batch, 1.25, 0.25)).toEqual([{ name: 'high', triangle: 0 }, { name: 'low', triangle: 2 * n }]); // prettier-ignore
      expect(below(batch, 3 * n + 0.9, 1.9)).toEqual([{ name: 'aside', triangle: 3 }]);
      expect(below(batch, 2 * n, 0.5)).toEqual([]);
    });

  test('follows pieces that move, that are taken away, and that are other ones', () => {
    const batch = new Batch();
    batch.put([tiles('a', 2, 0, 0), tiles('b', 2, 5, 0)]);
    expect(below(batch, 5.2, 0.2)).toEqual([{ name: 'b', triangle: 0 }]);
    const before = batch.geometry.getAttribute('position');
    batch.put([tiles('a', 2, 0, 0), tiles('b', 2, 8, 0)]);
    // In the place of the old ones: a turned dial makes nothing anew.
    expect(batch.geometry.getAttribute('position')).toBe(before);
    expect([below(batch, 5.2, 0.2), below(batch, 8.2, 0.2)]).toEqual([[], [{ name: 'b', triangle: 0 }]]);
    batch.put([tiles('b', 3, 8, 0)]);
    expect([below(batch, 0.2, 0.2), below(batch, 8.2, 0.2)]).toEqual([[], [{ name: 'b', triangle: 0 }]]);
  });
});
