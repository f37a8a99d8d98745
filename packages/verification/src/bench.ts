import type { MaterialEntry, Point3, SheetRecipe } from '@jadebell/core/document';
import { type Body, type Exact, exactBounds, liftPoint, type TiltedSheet } from '@jadebell/core/geometry';
import type { Grid } from '@jadebell/core/grid';
import type { Mirrors, GridScene, ScenePort } from '@jadebell/core/scene';
import { apply, type Axis } from '@jadebell/core/numerics';

/** A body without a drawing mesh, for scenes made by hand. */
export function plainBody(name: string, order: number, material: MaterialEntry, shape: Exact | SheetRecipe | TiltedSheet): Body {
  const empty = {
    positions: new Float32Array(),
    triangles: new Uint32Array(),
    edges: new Float32Array(),
    faceOf: new Uint16Array(),
    faces: [],
    edgeFaces: new Uint16Array(),
    volume: 0,
    area: 0,
  };
  const points =
    shape.form === 'sheet'
      ? shape.loops.flat().map((p) => liftPoint(shape.normal, shape.offset, p))
      : shape.form === 'tilted sheet'
        ? shape.loops.flat().map((p) => apply(shape.frame, [p[0], p[1], 0]))
        : null;
  const pick = (f: (...v: number[]) => number): Point3 => [0, 1, 2].map((a) => points!.reduce((m, p) => f(m, p[a]), points![0][a])) as Point3;
  const { min, max } = points ? { min: pick(Math.min), max: pick(Math.max) } : exactBounds(shape as Exact);
  const curved = shape.form !== 'sheet' && shape.form !== 'box';
  return {
    name,
    line: name,
    order,
    id: order,
    material,
    conductor: { perfect: false, thickness: null, sides: 2 },
    shape,
    min,
    max,
    planes: [[], [], []],
    curved,
    ...empty,
  };
}

/** A filament port of one edge length from `from` along an axis. */
export const filament = (name: string, from: Point3, axis: Axis, length: number, resistance: number): ScenePort => {
  const max: Point3 = [...from];
  max[axis] += length;
  return { name, order: 0, resistance, axis, direction: 1, min: [...from], max, across: ((axis + 1) % 3) as Axis };
};

/** A scene in SI with the given parts and quiet defaults. */
export const plainScene = (parts: Pick<GridScene, 'bodies' | 'ports' | 'min' | 'max' | 'band'> & Partial<Omit<GridScene, 'solver'>>): GridScene => ({
  solver: 'fdtd',
  boundaries: ['open', 'open', 'open', 'open', 'open', 'open'],
  guides: [],
  source: null,
  excite: null,
  recorders: [],
  recordAt: [],
  accuracy: 'normal',
  details: {},
  ...parts,
});

/** A uniform grid of `cells` cells over a region, with absorbing layers added outside. */
export function uniformGrid(min: Point3, max: Point3, cells: Point3, layers: number): Grid {
  const lines = [0, 1, 2].map((a) => {
    const step = (max[a] - min[a]) / cells[a];
    return Float64Array.from({ length: cells[a] + 2 * layers + 1 }, (_, i) => min[a] + (i - layers) * step);
  }) as unknown as Grid['lines'];
  return { lines, outerCells: Array<number>(6).fill(layers), cellsPerWavelength: 0, unsnapped: [[], [], []] };
}

/** The half of a scene above a magnetic plane across an axis. */
export function halved(scene: GridScene, axis: Axis, at: number): GridScene {
  const mirrors = ([0, 1, 2] as const).map((x) => (x === axis ? { wall: 'magnetic', at } : (scene.mirrors?.[x] ?? null))) as unknown as Mirrors;
  const low = (p: [number, number, number]): [number, number, number] => p.map((x, i) => (i === axis ? at : x)) as [number, number, number];
  return {
    ...scene,
    mirrors,
    boundaries: scene.boundaries.map((b, s) => (s === 2 * axis ? 'magnetic' : b)),
    min: low(scene.min),
    guides: scene.guides.map((g) => ({ ...g, min: low(g.min), images: 2 * (g.images ?? 1), wholeImpedance: 0.5 * (g.wholeImpedance ?? 1) })),
  };
}
