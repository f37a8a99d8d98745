import type { Complexes } from '../../numerics/complex.ts';
import type { GuidedMode, Section } from '../modes/index.ts';

/** Values at a node: real and imaginary part of E along u, v, w, then of H. */
export const nodeParts = 12;

/** Fields of a mode on the nodes of a section, [v][u][12], each the mean of what stands beside the node; V/m and A/m. */
export function nodeFields(s: Section, { e, h }: Pick<GuidedMode, 'e' | 'h'>): Float32Array {
  const w = s.u.length;
  const rows = s.v.length;
  const out = new Float32Array(nodeParts * w * rows);
  const put = (node: number, part: number, from: Complexes, places: number[]): void => {
    for (const n of places) {
      out[nodeParts * node + 2 * part] += from.re[n] / places.length;
      out[nodeParts * node + 2 * part + 1] += from.im[n] / places.length;
    }
  };
  for (let j = 0; j < rows; j++)
    for (let i = 0; i < w; i++) {
      const n = j * w + i;
      const besideU = [...(i > 0 ? [n - 1] : []), ...(i + 1 < w ? [n] : [])];
      const besideV = [...(j > 0 ? [n - w] : []), ...(j + 1 < rows ? [n] : [])];
      put(n, 0, e.u, besideU);
      put(n, 1, e.v, besideV);
      put(n, 2, e.w, [n]);
      // H along u stands on the edges along v, and the other way round; along the guide in the cells.
      put(n, 3, h.u, besideV);
      put(n, 4, h.v, besideU);
      put(
        n,
        5,
        h.w,
        besideU.flatMap((p) => [...(j > 0 ? [p - w] : []), ...(j + 1 < rows ? [p] : [])]),
      );
    }
  return out;
}
