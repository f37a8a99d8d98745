import { type Imported, ImportFault, type Importer, mostTriangles, nothing, textOf, tooManyTriangles } from './importer.ts';

const plain = (name: string, positions: Float32Array, triangles: Uint32Array): Imported => ({
  meshes: [{ name, mesh: { positions, triangles } }],
  layers: [],
  unit: null,
  notes: [],
});

/** STL, binary or text. */
export const stl: Importer = {
  endings: ['.stl'],
  title: 'STL mesh',
  read(bytes) {
    const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
    const head = textOf(bytes.subarray(0, 512));
    const count = bytes.length >= 84 ? view.getUint32(80, true) : 0;
    const binary =
      bytes.length >= 84 &&
      84 + 50 * count <= bytes.length &&
      (84 + 50 * count === bytes.length || !/^\s*solid\b/.test(head) || !head.includes('facet'));
    if (!binary) {
      if (/^\s*solid\b/.test(head)) return readText(textOf(bytes));
      throw new ImportFault(
        bytes.length >= 84
          ? `The file says that it has ${count.toLocaleString('en')} triangles, but it is too short for them.`
          : 'The file is too short to be an STL mesh.',
        'It may be damaged or cut off; export it again.',
      );
    }
    if (count > mostTriangles) throw tooManyTriangles(count);
    if (!count) throw nothing('triangles');
    const positions = new Float32Array(9 * count);
    for (let t = 0; t < count; t++) for (let i = 0; i < 9; i++) positions[9 * t + i] = view.getFloat32(84 + 50 * t + 12 + 4 * i, true);
    if (!positions.every(Number.isFinite)) throw new ImportFault('Some coordinates are no numbers.', 'The file is damaged; export it again.');
    return plain(
      'body',
      positions,
      Uint32Array.from({ length: 3 * count }, (_, i) => i),
    );
  },
};

function readText(text: string): Imported {
  const meshes: Imported['meshes'] = [];
  // One solid after the other; each vertex is three numbers.
  for (const [i, part] of text
    .split(/^\s*solid\b/m)
    .slice(1)
    .entries()) {
    const name = /^[^\n\r]*/.exec(part)![0].trim() || `body ${i + 1}`;
    const numbers: number[] = [];
    for (const m of part.matchAll(/vertex\s+(\S+)\s+(\S+)\s+(\S+)/g)) {
      numbers.push(Number(m[1]), Number(m[2]), Number(m[3]));
      if (numbers.length > 9 * mostTriangles) throw tooManyTriangles(numbers.length / 9);
    }
    if (!numbers.every(Number.isFinite)) throw new ImportFault(`A corner of ${name} is no number.`, 'The file is damaged; export it again.');
    const whole = numbers.length - (numbers.length % 9);
    if (whole)
      meshes.push({
        name,
        mesh: { positions: Float32Array.from(numbers.slice(0, whole)), triangles: Uint32Array.from({ length: whole / 3 }, (_, k) => k) },
      });
  }
  if (!meshes.length) throw nothing('triangles');
  return { meshes, layers: [], unit: null, notes: [] };
}

/** OBJ: corners, faces of any number of sides, groups as parts. */
export const obj: Importer = {
  endings: ['.obj'],
  title: 'OBJ mesh',
  read(bytes) {
    const corners: number[] = [];
    const parts: { name: string; triangles: number[] }[] = [];
    let part: (typeof parts)[0] | null = null;
    let total = 0;
    for (const line of textOf(bytes).split('\n')) {
      const [word, ...rest] = line.trim().split(/\s+/);
      if (word === 'v') {
        const p = rest.slice(0, 3).map(Number);
        if (p.length < 3 || !p.every(Number.isFinite))
          throw new ImportFault(`The corner ‘${line.trim().slice(0, 60)}’ is no point.`, 'The file is damaged; export it again.');
        corners.push(...p);
      } else if (word === 'o' || word === 'g') {
        part = { name: rest.join(' ') || `part ${parts.length + 1}`, triangles: [] };
        parts.push(part);
      } else if (word === 'f') {
        if (!part) parts.push((part = { name: 'body', triangles: [] }));
        const face = rest.map((r) => {
          const n = parseInt(r, 10);
          return n < 0 ? corners.length / 3 + n : n - 1;
        });
        if (face.length < 3 || face.some((n) => !Number.isInteger(n) || n < 0 || n >= corners.length / 3))
          throw new ImportFault(`The face ‘${line.trim().slice(0, 60)}’ names a corner that is not there.`, 'The file is damaged; export it again.');
        for (let i = 1; i + 1 < face.length; i++) part.triangles.push(face[0], face[i], face[i + 1]);
        total += face.length - 2;
        if (total > mostTriangles) throw tooManyTriangles(total);
      }
    }
    const meshes = parts.filter((p) => p.triangles.length).map((p) => ({ name: p.name, mesh: compact(corners, p.triangles) }));
    if (!meshes.length) throw nothing('faces');
    return { meshes, layers: [], unit: null, notes: [] };
  },
};

/** A mesh with only the corners that its triangles use. */
export function compact(corners: ArrayLike<number>, triangles: ArrayLike<number>): { positions: Float32Array; triangles: Uint32Array } {
  const index = new Map<number, number>();
  const positions: number[] = [];
  const out = new Uint32Array(triangles.length);
  for (let i = 0; i < triangles.length; i++) {
    let at = index.get(triangles[i]);
    if (at === undefined) {
      at = positions.length / 3;
      index.set(triangles[i], at);
      positions.push(corners[3 * triangles[i]], corners[3 * triangles[i] + 1], corners[3 * triangles[i] + 2]);
    }
    out[i] = at;
  }
  return { positions: Float32Array.from(positions), triangles: out };
}
