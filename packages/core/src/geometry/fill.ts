import { type Body, isSheet, rowSpans } from './body.ts';

/**
 * The body that fills each point of a grid of coordinates (metres), by its number from 1; 0 for none. Where bodies overlap the later one counts;
 * sheets fill nothing. Values are in the order [z][y][x].
 */
export function fillOf(bodies: readonly Body[], x: ArrayLike<number>, y: ArrayLike<number>, z: ArrayLike<number>): Uint16Array {
  const solid = bodies
    .map((body, n) => ({ body, mark: n + 1 }))
    .filter(({ body }) => !isSheet(body))
    .sort((p, q) => p.body.order - q.body.order);
  const out = new Uint16Array(x.length * y.length * z.length);
  for (let k = 0; k < z.length; k++)
    for (let j = 0; j < y.length; j++) {
      const row = (k * y.length + j) * x.length;
      for (const { body, mark } of solid) {
        if (y[j] < body.min[1] || y[j] > body.max[1] || z[k] < body.min[2] || z[k] > body.max[2]) continue;
        const spans = rowSpans(body.shape, y[j], z[k]);
        for (let s = 0; s < spans.length; s += 2) for (let i = 0; i < x.length; i++) if (x[i] >= spans[s] && x[i] < spans[s + 1]) out[row + i] = mark;
      }
    }
  return out;
}
