import Module, { type ManifoldToplevel } from 'manifold-3d';
import { type Point2, type Point3, type Recipe, signedArea } from '../document/index.ts';
import { inPlane, liftPoint } from './body.ts';

let loading: Promise<ManifoldToplevel> | null = null;

/** Loads the solid kernel once. `locate` gives the address of its WebAssembly file where the default does not serve. */
export function loadGeometryKernel(locate?: () => string): Promise<ManifoldToplevel> {
  loading ??= Module(locate ? { locateFile: locate } : undefined).then((wasm) => {
    wasm.setup();
    return wasm;
  });
  return loading;
}

/** Sides of the polygon that stands for a circle when drawn. */
const circleSides = 64;

export interface Mesh {
  positions: Float32Array;
  triangles: Uint32Array;
  edges: Float32Array;
  volume: number;
  area: number;
}

/** Column-major affine matrix that sends z to `axis` by a cyclic exchange of the axes. */
function turnTo(
  axis: 0 | 1 | 2,
  [x, y, z]: Point3,
): [number, number, number, number, number, number, number, number, number, number, number, number, number, number, number, number] {
  const columns = [0, 1, 2].map((c) => {
    const target = (c + axis + 1) % 3;
    return [0, 1, 2].map((r) => (r === target ? 1 : 0));
  });
  return [...columns[0], 0, ...columns[1], 0, ...columns[2], 0, x, y, z, 1] as unknown as ReturnType<typeof turnTo>;
}

/** Mesh of a recipe for drawing and measuring; areas and volumes of round bodies are those of the exact shape. */
export function meshOf(kernel: ManifoldToplevel, recipe: Recipe): Mesh {
  if (recipe.form === 'sheet') return sheetMesh(kernel, recipe);
  const { Manifold } = kernel;
  const raw =
    recipe.form === 'box'
      ? Manifold.cube(recipe.max.map((m, i) => m - recipe.min[i]) as Point3).translate(recipe.min)
      : Manifold.cylinder(recipe.height, recipe.radius, recipe.radius, circleSides).transform(turnTo(recipe.axis, recipe.base));
  const mesh = raw.getMesh();
  const exact =
    recipe.form === 'cylinder'
      ? { volume: Math.PI * recipe.radius ** 2 * recipe.height, area: 2 * Math.PI * recipe.radius * (recipe.radius + recipe.height) }
      : { volume: raw.volume(), area: raw.surfaceArea() };
  raw.delete();
  const positions = mesh.numProp === 3 ? mesh.vertProperties : mesh.vertProperties.filter((_, i) => i % mesh.numProp < 3);
  return { positions, triangles: mesh.triVerts, edges: sharpEdges(positions, mesh.triVerts), ...exact };
}

function sheetMesh(kernel: ManifoldToplevel, recipe: Extract<Recipe, { form: 'sheet' }>): Mesh {
  const { normal, offset } = recipe;
  const area = signedArea(recipe.outline);
  const outline: Point2[] = area > 0 ? recipe.outline : [...recipe.outline].reverse();
  const positions = new Float32Array(outline.flatMap((p) => liftPoint(normal, offset, p)));
  const triangles = Uint32Array.from(kernel.triangulate([outline]).flat());
  const edges = new Float32Array(
    outline.flatMap((p, i) => [...liftPoint(normal, offset, p), ...liftPoint(normal, offset, outline[(i + 1) % outline.length])]),
  );
  return { positions, triangles, edges, volume: 0, area: Math.abs(area) };
}

/** Segments between triangles that meet at more than 25 degrees. */
function sharpEdges(positions: Float32Array, triangles: Uint32Array): Float32Array {
  const normals: Point3[] = [];
  const at = (v: number): Point3 => [positions[3 * v], positions[3 * v + 1], positions[3 * v + 2]];
  const shared = new Map<string, number[]>();
  for (let t = 0; t < triangles.length / 3; t++) {
    const [a, b, c] = [0, 1, 2].map((i) => at(triangles[3 * t + i]));
    const u = b.map((v, i) => v - a[i]);
    const w = c.map((v, i) => v - a[i]);
    const n = [0, 1, 2].map((i) => u[inPlane[i][0]] * w[inPlane[i][1]] - u[inPlane[i][1]] * w[inPlane[i][0]]);
    const length = Math.hypot(...n) || 1;
    normals.push(n.map((v) => v / length) as Point3);
    for (let i = 0; i < 3; i++) {
      const [p, q] = [triangles[3 * t + i], triangles[3 * t + ((i + 1) % 3)]];
      const key = p < q ? `${p} ${q}` : `${q} ${p}`;
      shared.set(key, [...(shared.get(key) ?? []), t]);
    }
  }
  const out: number[] = [];
  for (const [key, [t0, t1]] of shared) {
    if (t1 !== undefined && normals[t0].reduce((s, v, i) => s + v * normals[t1][i], 0) > Math.cos((25 * Math.PI) / 180)) continue;
    const [p, q] = key.split(' ').map(Number);
    out.push(...at(p), ...at(q));
  }
  return new Float32Array(out);
}
