import { type Body, isSheet } from '../../geometry/index.ts';
import { buildGrid, gridLines } from '../../grid/index.ts';
import { indexAt } from '../../materials/index.ts';
import { c0 } from '../../numerics/constants.ts';
import type { SceneSection } from '../../scene/index.ts';
import type { Filled } from '../../geometry/index.ts';
import type { Axis } from '../../numerics/axis.ts';
import { sameMesh } from '../../numerics/tolerance.ts';

/** Grid of a section. The solver's u and v follow the normal in cyclic order, so that a mode runs towards larger coordinates. */
export interface SectionGrid {
  u: Float64Array;
  v: Float64Array;
  /** Axes of u and v. */
  axes: [Axis, Axis];
  /** Layers of absorbing edges at uMin, uMax, vMin, vMax. */
  layers: [number, number, number, number];
  /** Coordinates of faces within cells, on x, y and z. */
  unsnapped: [number[], number[], number[]];
  /** Half the extent along the normal that stands for the section in space. */
  depth: number;
}

/** Cells of a grid. */
export const sectionCells = (g: Pick<SectionGrid, 'u' | 'v'>): number => (g.u.length - 1) * (g.v.length - 1);

/** More cells are refused: the direct solver would take gigabytes and minutes. */
export const mostSectionCells = 250_000;

/** Growth of the cells of an absorbing edge, its thickness in free wavelengths, and its coarsest cell in them. */
const absorber = { growth: 1.2, thickness: 0.75, coarsest: 1 / 30 };

/** The section as a thin slice of space: the bodies that its plane meets, as dielectrics of their index. */
export function sliceOf(bodies: readonly Body[], s: SceneSection, depth: number): Filled {
  const [min, max] = [[0, 0, 0], [0, 0, 0]] as [[number, number, number], [number, number, number]]; // prettier-ignore
  s.axes.forEach((a, i) => {
    min[a] = s.min[i];
    max[a] = s.max[i];
  });
  min[s.normal] = s.at - depth;
  max[s.normal] = s.at + depth;
  return {
    // Only what the plane meets.
    bodies: bodies
      .filter((b) => b.min[s.normal] <= s.at && b.max[s.normal] >= s.at)
      .map((b) => (b.material.kind === 'conductor' ? b : { ...b, material: { ...b.material, permittivity: Math.max(1, indexAt(b.material, s.frequency).n ** 2) } })), // prettier-ignore
    min,
    max,
  };
}

/** A section has no absorbing layers of the grid's own, and its cells follow the materials as at normal accuracy. */
const walled = { boundaries: Array<'electric'>(6).fill('electric'), accuracy: 'normal' } as const;

/**
 * Where sheets stand and end on an axis between two ends: also on a uniform grid these are lines, as a sheet of no thickness stands on a line or not at
 * all.
 */
function sheetLines(bodies: readonly Body[], a: Axis, from: number, to: number): number[] {
  const least = sameMesh * (to - from);
  return bodies
    .filter(isSheet)
    .flatMap((b) => [b.min[a], b.max[a]])
    .filter((x) => x > from + least && x < to - least)
    .sort((p, q) => p - q)
    .filter((x, k, all) => k === 0 || x - all[k - 1] > least);
}

/** How much finer than elsewhere cells are that strips of no thickness, gaps between them and layers under them ask for. */
const besideStrips = 3;
const isStrip = (b: Body): boolean => isSheet(b) && b.material.kind === 'conductor';

/** The grid of a section, with cells so many `times` smaller than it asks for. */
export function sectionGrid(bodies: readonly Body[], s: SceneSection, times = 1): SectionGrid {
  const finer = times * (s.finer ?? 1);
  const [u, v] = [(s.normal + 1) % 3, (s.normal + 2) % 3] as [Axis, Axis];
  const size = Math.min(s.max[0] - s.min[0], s.max[1] - s.min[1]);
  const depth = 1e-3 * size;
  const slice = sliceOf(bodies, s, depth);
  let lines: Float64Array[];
  let unsnapped: [number[], number[], number[]] = [[], [], []];
  if ('cell' in s.grid) {
    const { cell } = s.grid;
    lines = [new Float64Array(0), new Float64Array(0), new Float64Array(0)];
    s.axes.forEach((a, i) => {
      const span = s.max[i] - s.min[i];
      const count = Math.max(2, Math.round((finer * span) / cell[i]));
      const size = span / count;
      const boxes = s.boxes.filter((b) => b.max[i] > s.min[i] && b.min[i] < s.max[i]);
      const inner = sheetLines(slice.bodies, a, s.min[i], s.max[i]);
      lines[a] =
        boxes.length || inner.length
          ? gridLines(
              [s.min[i], ...inner, s.max[i]].map((at) => ({ at, size })),
              [{ from: s.min[i], to: s.max[i], size }, ...boxes.map((b) => ({ from: b.min[i], to: b.max[i], size: b.cell / finer }))],
            )
          : Float64Array.from({ length: count + 1 }, (_, k) => s.min[i] + (span * k) / count);
    });
    // Where faces do not fall on lines, the averages must know them.
    for (const b of slice.bodies) for (const a of s.axes) unsnapped[a].push(b.min[a], b.max[a], ...(b.planes[a].length < 200 ? b.planes[a] : []));
  } else {
    const boxes = s.boxes.map((b) => {
      const box = { min: [-Infinity, -Infinity, -Infinity], max: [Infinity, Infinity, Infinity], cell: b.cell / finer };
      s.axes.forEach((a, i) => {
        box.min[a] = b.min[i];
        box.max[a] = b.max[i];
      });
      return box;
    });
    ({ lines, unsnapped } = buildGrid(
      { ...slice, ...walled, boxes, band: { to: s.frequency } },
      // The field at the edges of strips converges slowly, and cells beside them cost little in a plane.
      {
        finer: finer * (slice.bodies.some(isStrip) ? besideStrips : 1),
        cellsPerWavelength: s.grid.perWavelength * finer,
        limits: [],
        alongAxes: true,
      },
    ));
  }
  const open = (a: Axis, side: 0 | 1): boolean => s.edges[2 * s.axes.indexOf(a) + side] === 'open';
  const wave = c0 / s.frequency;
  const widened = [u, v].map((a) => withAbsorber(lines[a], open(a, 0), open(a, 1), wave, finer));
  return {
    u: widened[0].x,
    v: widened[1].x,
    axes: [u, v],
    layers: [...widened[0].layers, ...widened[1].layers] as SectionGrid['layers'],
    unsnapped,
    depth,
  };
}

function withAbsorber(inner: Float64Array, low: boolean, high: boolean, wave: number, finer: number): { x: Float64Array; layers: [number, number] } {
  const grow = (first: number): number[] => {
    const out: number[] = [];
    let cell = first;
    for (let depth = 0; depth < absorber.thickness * wave; depth += cell) {
      cell = Math.max(first, Math.min(cell * absorber.growth ** (1 / finer), (absorber.coarsest * wave) / finer));
      out.push(depth + cell);
    }
    return out;
  };
  const n = inner.length;
  const before = low ? grow(inner[1] - inner[0]).map((d) => inner[0] - d).reverse() : []; // prettier-ignore
  const after = high ? grow(inner[n - 1] - inner[n - 2]).map((d) => inner[n - 1] + d) : [];
  return { x: Float64Array.from([...before, ...inner, ...after]), layers: [before.length, after.length] };
}
