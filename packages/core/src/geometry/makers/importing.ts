import { type MeshData, type Point2, unpackMesh, unpackOutlines } from '../../shapes/index.ts';
import { compose, rotation, scaling, translation } from '../../numerics/affine.ts';
import { GeometryFault } from '../fault.ts';
import { tidyLoops } from '../flat.ts';
import { axisFrame } from '../item.ts';
import { prismSolid } from '../solids.ts';
import { columns } from './basic.ts';
import type { BuildContext, BuildResult, Maker } from './maker.ts';

/**
 * Reads the data of a part of the project.
 * @throws GeometryFault where the data are damaged.
 */
function partOf<T>(bench: BuildContext, name: string, kind: 'mesh' | 'outlines', read: (data: string) => T): T {
  const part = bench.part(name);
  if (!part || part.kind !== kind)
    throw new GeometryFault(
      name ? `The project has no ${kind === 'mesh' ? 'mesh' : 'outlines'} named ${name}.` : 'No part is chosen.',
      'Import the file, or choose another part.',
      'part',
    );
  try {
    return read(part.data);
  } catch (error) {
    throw new GeometryFault(`The data of ${name} cannot be read: ${(error as Error).message}`, 'Import the file again.', 'part');
  }
}

/**
 * Kernel body of a mesh; its corners are merged where they coincide.
 * @throws GeometryFault where it does not close.
 */
export function closedBody(bench: Pick<BuildContext, 'kernel' | 'origins' | 'line'>, { positions, triangles }: MeshData) {
  const { Manifold, Mesh } = bench.kernel;
  const id = Manifold.reserveIDs(1);
  bench.origins.set(id, { line: bench.line, faces: [] });
  const mesh = new Mesh({
    numProp: 3,
    vertProperties: positions,
    triVerts: triangles,
    runOriginalID: Uint32Array.of(id),
    runIndex: Uint32Array.of(0, triangles.length),
  });
  mesh.merge();
  try {
    return new Manifold(mesh);
  } catch {
    throw new GeometryFault(
      'The mesh does not close: it has holes or edges that more than two triangles share.',
      'Import it with repair, or mend it where it was made.',
      'part',
    );
  }
}

/**
 * A body from a file.
 * @throws GeometryFault where nothing is left of it.
 */
export const imported: Maker<'import'> = ({ part, scale, at, turn, simplify }, bench): BuildResult => {
  const data = partOf(bench, part, 'mesh', unpackMesh);
  const [x, y, z] = turn;
  const turned = compose(rotation([0, 0, 1], z), compose(rotation([0, 1, 0], y), rotation([1, 0, 0], x)));
  const m = compose(translation(at), compose(turned, scaling([scale, scale, scale], [0, 0, 0])));
  const raw = closedBody(bench, data);
  const placed = raw.transform(columns(m));
  raw.delete();
  if (simplify === 0) return { solid: { manifold: placed, exact: null } };
  const simple = placed.simplify(simplify);
  placed.delete();
  if (simple.isEmpty()) throw new GeometryFault('Nothing is left after simplifying.', 'Give a smaller distance.', 'simplify');
  return { solid: { manifold: simple, exact: null } };
};

/**
 * Outlines from a file, as sheets or solids.
 * @throws GeometryFault where they enclose no area.
 */
export const drawing: Maker<'drawing'> = ({ part, normal, offset, scale, shift, thickness }, bench): BuildResult => {
  const raw = partOf(bench, part, 'outlines', unpackOutlines);
  const loops = tidyLoops(
    bench.kernel,
    raw.map((l) => l.map((p): Point2 => [p[0] * scale + shift[0], p[1] * scale + shift[1]])),
  );
  if (!loops.length) throw new GeometryFault('The outlines enclose no area.', 'Choose another layer.', 'part');
  if (thickness === 0) return { sheet: { frame: axisFrame(normal, offset), loops } };
  const manifold = prismSolid(bench.kernel, bench.origins, bench.line, normal, offset, thickness, loops);
  return { solid: { manifold, exact: { form: 'prism', normal, offset, height: thickness, loops } } };
};
