import { type Affine, apply, compose, determinant, identity } from '../../numerics/affine.ts';
import { type Imported, ImportFault, type Importer, mostTriangles, nothing, textOf, tooManyTriangles } from './importer.ts';

interface Gltf {
  asset?: { version?: string };
  scene?: number;
  scenes?: { nodes?: number[] }[];
  nodes?: { name?: string; mesh?: number; children?: number[]; matrix?: number[]; translation?: number[]; rotation?: number[]; scale?: number[] }[];
  meshes?: { name?: string; primitives: { attributes: Record<string, number>; indices?: number; mode?: number }[] }[];
  accessors?: { bufferView?: number; byteOffset?: number; componentType: number; count: number; type: string }[];
  bufferViews?: { buffer: number; byteOffset?: number; byteLength: number; byteStride?: number }[];
  buffers?: { uri?: string; byteLength: number }[];
}

const damaged = (what: string): ImportFault => new ImportFault(`The glTF file is damaged: ${what}.`, 'Export it again.');
const sizes: Record<number, number> = { 5121: 1, 5123: 2, 5125: 4, 5126: 4 };

/**
 * JSON and binary chunk of a .glb or .gltf file (Khronos glTF 2.0, section 4.4).
 * @throws ImportFault where the file is damaged.
 */
function unpack(bytes: Uint8Array): { json: Gltf; bin: Uint8Array | null } {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const parse = (text: string): Gltf => {
    try {
      return JSON.parse(text) as Gltf;
    } catch (error) {
      throw damaged((error as Error).message);
    }
  };
  if (bytes.length < 12 || view.getUint32(0, true) !== 0x46546c67) return { json: parse(textOf(bytes)), bin: null };
  let json: Gltf | null = null;
  let bin: Uint8Array | null = null;
  for (let at = 12; at + 8 <= bytes.length;) {
    const length = view.getUint32(at, true);
    const kind = view.getUint32(at + 4, true);
    if (at + 8 + length > bytes.length) throw damaged('a chunk is longer than the file');
    const chunk = bytes.subarray(at + 8, at + 8 + length);
    if (kind === 0x4e4f534a) json = parse(textOf(chunk));
    else if (kind === 0x004e4942) bin = chunk;
    at += 8 + length + ((4 - (length % 4)) % 4);
  }
  if (!json) throw damaged('it has no description');
  return { json, bin };
}

/**
 * Numbers of an accessor.
 * @throws ImportFault where the array is missing or damaged.
 */
function numbers(g: Gltf, buffers: (Uint8Array | null)[], index: number, width: number): number[] {
  const a = g.accessors?.[index];
  const v = a?.bufferView === undefined ? undefined : g.bufferViews?.[a.bufferView];
  const buffer = v && buffers[v.buffer];
  const size = a && sizes[a.componentType];
  if (!a || !v || !buffer || !size) throw damaged('an array is missing or of a kind that is not known');
  const stride = v.byteStride ?? size * width;
  const start = (v.byteOffset ?? 0) + (a.byteOffset ?? 0);
  if (!(a.count >= 0) || a.count > 3 * mostTriangles || start + stride * Math.max(0, a.count - 1) + size * width > buffer.length)
    throw damaged('an array is longer than its data');
  const view = new DataView(buffer.buffer, buffer.byteOffset, buffer.byteLength);
  const out = new Array<number>(a.count * width);
  for (let i = 0; i < a.count; i++)
    for (let k = 0; k < width; k++) {
      const at = start + i * stride + k * size;
      out[i * width + k] =
        a.componentType === 5126
          ? view.getFloat32(at, true)
          : size === 4
            ? view.getUint32(at, true)
            : size === 2
              ? view.getUint16(at, true)
              : view.getUint8(at);
    }
  return out;
}

/** Affine map of a node. */
function matrixOf(node: NonNullable<Gltf['nodes']>[0]): Affine {
  if (node.matrix?.length === 16) {
    const m = node.matrix;
    return [m[0], m[4], m[8], m[12], m[1], m[5], m[9], m[13], m[2], m[6], m[10], m[14]];
  }
  const [x, y, z, w] = node.rotation ?? [0, 0, 0, 1];
  const [a, b, c] = node.scale ?? [1, 1, 1];
  const [tx, ty, tz] = node.translation ?? [0, 0, 0];
  return [
    (1 - 2 * (y * y + z * z)) * a, 2 * (x * y - z * w) * b, 2 * (x * z + y * w) * c, tx,
    2 * (x * y + z * w) * a, (1 - 2 * (x * x + z * z)) * b, 2 * (y * z - x * w) * c, ty,
    2 * (x * z - y * w) * a, 2 * (y * z + x * w) * b, (1 - 2 * (x * x + y * y)) * c, tz,
  ]; // prettier-ignore
}

/** glTF has y upwards and metres; here z is upwards. */
const upright: Affine = [1, 0, 0, 0, 0, 0, -1, 0, 0, 1, 0, 0];

/** glTF 2.0 meshes, .glb or .gltf with embedded buffers. */
export const gltf: Importer = {
  endings: ['.glb', '.gltf'],
  title: 'glTF mesh',
  read(bytes): Imported {
    const { json: g, bin } = unpack(bytes);
    if (!g.asset?.version?.startsWith('2')) throw new ImportFault('This is not a glTF 2.0 file.', 'Export it as glTF 2.0.');
    const buffers = (g.buffers ?? []).map((b, i) => {
      if (b.uri === undefined) return i === 0 ? bin : null;
      const data = /^data:[^,]*;base64,(.*)$/s.exec(b.uri);
      if (!data) throw new ImportFault(`The file refers to another file, ${b.uri.slice(0, 60)}.`, 'Export it as one .glb file.');
      try {
        return Uint8Array.from(atob(data[1]), (c) => c.charCodeAt(0));
      } catch {
        throw damaged('its embedded data cannot be read');
      }
    });
    const meshes: Imported['meshes'] = [];
    let total = 0;
    const visit = (index: number, above: Affine, depth: number): void => {
      const node = g.nodes?.[index];
      if (!node || depth > 60) throw damaged('its nodes hang together in a way that cannot be');
      const m = compose(above, matrixOf(node));
      const mesh = node.mesh === undefined ? undefined : g.meshes?.[node.mesh];
      mesh?.primitives?.forEach((p) => {
        if ((p.mode ?? 4) !== 4 || p.attributes?.POSITION === undefined) return;
        const raw = numbers(g, buffers, p.attributes.POSITION, 3);
        const positions = new Float32Array(raw.length);
        for (let i = 0; i < raw.length; i += 3) positions.set(apply(m, [raw[i], raw[i + 1], raw[i + 2]]), i);
        const list = p.indices === undefined ? raw.slice(0, raw.length / 3).map((_, i) => i) : numbers(g, buffers, p.indices, 1);
        if (list.some((v) => v >= raw.length / 3)) throw damaged('a triangle names a corner that is not there');
        if (!positions.every(Number.isFinite)) throw damaged('a coordinate is no number');
        total += list.length / 3;
        if (total > mostTriangles) throw tooManyTriangles(total);
        const triangles = Uint32Array.from(list.slice(0, list.length - (list.length % 3)));
        if (determinant(m) < 0)
          for (let i = 0; i < triangles.length; i += 3) [triangles[i + 1], triangles[i + 2]] = [triangles[i + 2], triangles[i + 1]];
        if (triangles.length) meshes.push({ name: node.name ?? mesh.name ?? `part ${meshes.length + 1}`, mesh: { positions, triangles } });
      });
      node.children?.forEach((c) => visit(c, m, depth + 1));
    };
    const roots = g.scenes?.[g.scene ?? 0]?.nodes ?? (g.nodes ?? []).map((_, i) => i);
    roots.forEach((n) => visit(n, compose(upright, identity), 0));
    if (!meshes.length) throw nothing('triangles');
    return { meshes, layers: [], unit: 'm', notes: [] };
  },
};
