import { unzipSync } from 'fflate';
import { type Affine, apply, compose, identity } from '../../numerics/affine.ts';
import { type Imported, ImportFault, type Importer, type LengthUnit, mostTriangles, nothing, textOf, tooManyTriangles } from './importer.ts';

/** Longest model text that is unpacked, bytes. */
const most = 400_000_000;
const units: Record<string, LengthUnit> = { micron: 'um', millimeter: 'mm', centimeter: 'cm', meter: 'm', inch: 'inch' };
const attribute = (tag: string, name: string): string | undefined => new RegExp(`\\b${name}\\s*=\\s*"([^"]*)"`).exec(tag)?.[1];

/** Affine map of a transform attribute: twelve numbers, four columns of three (3MF core specification, section 3.3). */
function matrixOf(text: string | undefined): Affine {
  const n = text?.trim().split(/\s+/).map(Number);
  if (n?.length !== 12 || !n.every(Number.isFinite)) return identity;
  return [n[0], n[3], n[6], n[9], n[1], n[4], n[7], n[10], n[2], n[5], n[8], n[11]];
}

interface Piece {
  name: string;
  positions: number[];
  triangles: number[];
  components: { id: string; matrix: Affine }[];
}

/** 3MF: the meshes of the build, placed as it says. */
export const threeMf: Importer = {
  endings: ['.3mf'],
  title: '3MF mesh',
  read(bytes): Imported {
    let files: Record<string, Uint8Array>;
    try {
      files = unzipSync(bytes, {
        filter: (f) => {
          if (!f.name.toLowerCase().endsWith('.model')) return false;
          if (f.originalSize > most) throw new ImportFault('The model inside the file is larger than 400 MB.', 'Simplify it where it was made.');
          return true;
        },
      });
    } catch (error) {
      if (error instanceof ImportFault) throw error;
      throw new ImportFault(`The file is no 3MF package: ${(error as Error).message}.`, 'It may be damaged; export it again.');
    }
    const model = Object.entries(files).find(([n]) => /(^|\/)3dmodel\.model$/i.test(n))?.[1] ?? Object.values(files)[0];
    if (!model) throw nothing('model');
    const text = textOf(model);
    const objects = new Map<string, Piece>();
    let total = 0;
    for (const m of text.matchAll(/<object\b([^>]*)>([\s\S]*?)<\/object>/g)) {
      const piece: Piece = { name: attribute(m[1], 'name') ?? '', positions: [], triangles: [], components: [] };
      for (const v of m[2].matchAll(/<vertex\b[^>]*>/g)) for (const c of ['x', 'y', 'z']) piece.positions.push(Number(attribute(v[0], c)));
      for (const t of m[2].matchAll(/<triangle\b[^>]*>/g)) for (const c of ['v1', 'v2', 'v3']) piece.triangles.push(Number(attribute(t[0], c)));
      for (const c of m[2].matchAll(/<component\b[^>]*>/g))
        piece.components.push({ id: attribute(c[0], 'objectid') ?? '', matrix: matrixOf(attribute(c[0], 'transform')) });
      total += piece.triangles.length / 3;
      if (total > mostTriangles) throw tooManyTriangles(total);
      if (!piece.positions.every(Number.isFinite))
        throw new ImportFault('A corner of the model is no point.', 'The file is damaged; export it again.');
      if (piece.triangles.some((t) => !Number.isInteger(t) || t < 0 || t >= piece.positions.length / 3))
        throw new ImportFault('A triangle names a corner that is not there.', 'The file is damaged; export it again.');
      objects.set(attribute(m[1], 'id') ?? String(objects.size), piece);
    }
    const meshes: Imported['meshes'] = [];
    const place = (id: string, matrix: Affine, depth: number): void => {
      const piece = objects.get(id);
      if (!piece || depth > 30 || meshes.length > 2000) return;
      if (piece.triangles.length) {
        const positions = new Float32Array(piece.positions.length);
        for (let i = 0; i < positions.length; i += 3)
          positions.set(apply(matrix, [piece.positions[i], piece.positions[i + 1], piece.positions[i + 2]]), i);
        meshes.push({ name: piece.name || `part ${meshes.length + 1}`, mesh: { positions, triangles: Uint32Array.from(piece.triangles) } });
      }
      for (const c of piece.components) place(c.id, compose(matrix, c.matrix), depth + 1);
    };
    const items = [...text.matchAll(/<item\b[^>]*>/g)];
    if (items.length) for (const i of items) place(attribute(i[0], 'objectid') ?? '', matrixOf(attribute(i[0], 'transform')), 0);
    else for (const id of objects.keys()) place(id, identity, 0);
    if (!meshes.length) throw nothing('triangles');
    return { meshes, layers: [], unit: units[attribute(/<model\b[^>]*>/.exec(text)?.[0] ?? '', 'unit') ?? 'millimeter'] ?? 'mm', notes: [] };
  },
};
