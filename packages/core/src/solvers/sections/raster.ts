import type { SceneSection } from '../../scene/index.ts';
import { Filling } from '../../geometry/index.ts';
import type { FilledSection } from './fillSection.ts';
import { type SectionGrid, sliceOf } from './sectionGrid.ts';

/** Which body stands where, at `each` points along a cell each way. */
export interface Raster {
  /** Points along u and v. */
  nu: number;
  nv: number;
  /** 1 + place of the body among those that the plane meets; 0 where there is none. u fastest. */
  body: Uint16Array;
}

/** Looks up the bodies at points spread evenly over the cells of a section. Sheets are not seen. */
export function rasterOf({ bodies }: FilledSection, s: SceneSection, g: SectionGrid, each: number): Raster {
  const { min, max } = sliceOf(bodies, s, g.depth);
  const filling = new Filling(bodies, undefined, { min, max });
  const points = (x: Float64Array): Float64Array =>
    Float64Array.from({ length: each * (x.length - 1) }, (_, p) => {
      const i = Math.floor(p / each);
      return x[i] + ((x[i + 1] - x[i]) * ((p % each) + 0.5)) / each;
    });
  const places: Float64Array[] = [Float64Array.of(s.at), Float64Array.of(s.at), Float64Array.of(s.at)];
  places[g.axes[0]] = points(g.u);
  places[g.axes[1]] = points(g.v);
  const xs = places[0].map((x) => filling.clamp(0, x));
  const row = new Uint16Array(xs.length);
  const [nu, nv] = [places[g.axes[0]].length, places[g.axes[1]].length];
  const body = new Uint16Array(nu * nv);
  const index = [0, 0, 0];
  for (index[2] = 0; index[2] < places[2].length; index[2]++)
    for (index[1] = 0; index[1] < places[1].length; index[1]++) {
      filling.row(places[1][index[1]], places[2][index[2]], xs, row);
      for (index[0] = 0; index[0] < row.length; index[0]++) body[index[g.axes[1]] * nu + index[g.axes[0]]] = row[index[0]];
    }
  return { nu, nv, body };
}

/** Sample points along each side of a quarter of a cell. */
const looks = 2;

/** Covered parts of the quarters of cells, for each dielectric body that is seen in the section. */
export function coverages(filled: FilledSection, s: SceneSection, g: SectionGrid): { body: string; quarters: Float32Array }[] {
  const { nu, nv, body } = rasterOf(filled, s, g, 2 * looks);
  const cells = g.u.length - 1;
  const found = new Map<number, Float32Array>();
  for (let q = 0; q < nv; q++)
    for (let p = 0; p < nu; p++) {
      const m = body[q * nu + p];
      if (m === 0) continue;
      let quarters = found.get(m);
      if (!quarters) found.set(m, (quarters = new Float32Array(4 * cells * (g.v.length - 1))));
      const [i, j] = [Math.floor(p / (2 * looks)), Math.floor(q / (2 * looks))];
      const quarter = (p % (2 * looks) >= looks ? 1 : 0) + (q % (2 * looks) >= looks ? 2 : 0);
      quarters[4 * (j * cells + i) + quarter] += 1 / (looks * looks);
    }
  return filled.bodies.flatMap((b, i) =>
    b.material.kind === 'dielectric' && found.has(i + 1) ? [{ body: b.name, quarters: found.get(i + 1)! }] : [],
  );
}
