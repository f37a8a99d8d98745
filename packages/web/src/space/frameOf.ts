/** Centre and size, in metres, that a view is fitted to. */
export interface Frame {
  centre: [number, number, number];
  size: number;
}

/** Frame around bodies; a decimetre at the origin if there are none. */
export function frameOf(bodies: readonly { min: readonly number[]; max: readonly number[] }[]): Frame {
  if (!bodies.length) return { centre: [0, 0, 0], size: 0.1 };
  const min = [0, 1, 2].map((a) => Math.min(...bodies.map((b) => b.min[a])));
  const max = [0, 1, 2].map((a) => Math.max(...bodies.map((b) => b.max[a])));
  return { centre: [0, 1, 2].map((a) => (min[a] + max[a]) / 2) as Frame['centre'], size: Math.max(...max.map((m, a) => m - min[a])) || 0.1 };
}

/** A round length (1, 2 or 5 times a power of ten) at most `limit`. */
export function roundLength(limit: number): number {
  const power = 10 ** Math.floor(Math.log10(limit));
  return [5, 2, 1].map((m) => m * power).find((l) => l <= limit * 1.0000001) ?? power;
}

/** Bounds of segments, six coordinates each. */
export function boundsOfEdges(edges: ArrayLike<number>): { min: number[]; max: number[] } {
  const min = [Infinity, Infinity, Infinity];
  const max = [-Infinity, -Infinity, -Infinity];
  for (let i = 0; i < edges.length; i++) {
    min[i % 3] = Math.min(min[i % 3], edges[i]);
    max[i % 3] = Math.max(max[i % 3], edges[i]);
  }
  return { min, max };
}

/** Bounds of bodies and of a ground at a height under them; null where there are no bodies. */
export function boundsOver(
  bodies: readonly { min: readonly number[]; max: readonly number[] }[],
  ground: number | null,
): { min: number[]; max: number[] } | null {
  if (!bodies.length) return null;
  const min = [0, 1, 2].map((a) => Math.min(...bodies.map((b) => b.min[a])));
  if (ground !== null) min[2] = Math.min(min[2], ground);
  return { min, max: [0, 1, 2].map((a) => Math.max(...bodies.map((b) => b.max[a]))) };
}
