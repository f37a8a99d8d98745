import type { Point2 } from '../../document/index.ts';

/** A body to be written: triangles in metres. */
export interface WrittenBody {
  name: string;
  positions: Float32Array;
  triangles: Uint32Array;
  /** Red, green, blue, opacity; 0 to 1. */
  colour: readonly [number, number, number, number];
}

/** Binary STL of all bodies, in millimetres, which is what most readers take. */
export function writeStl(bodies: readonly WrittenBody[]): Uint8Array {
  const count = bodies.reduce((n, b) => n + b.triangles.length / 3, 0);
  const bytes = new Uint8Array(84 + 50 * count);
  const view = new DataView(bytes.buffer);
  bytes.set(new TextEncoder().encode('Jade Bell, millimetres').subarray(0, 80));
  view.setUint32(80, count, true);
  let at = 84;
  for (const { positions: p, triangles: t } of bodies)
    for (let i = 0; i < t.length; i += 3) {
      const [a, b, c] = [3 * t[i], 3 * t[i + 1], 3 * t[i + 2]];
      const u = [p[b] - p[a], p[b + 1] - p[a + 1], p[b + 2] - p[a + 2]];
      const w = [p[c] - p[a], p[c + 1] - p[a + 1], p[c + 2] - p[a + 2]];
      const n = [u[1] * w[2] - u[2] * w[1], u[2] * w[0] - u[0] * w[2], u[0] * w[1] - u[1] * w[0]];
      const l = Math.hypot(...n) || 1;
      n.forEach((v, k) => view.setFloat32(at + 4 * k, v / l, true));
      [a, b, c].forEach((v, k) => {
        for (let x = 0; x < 3; x++) view.setFloat32(at + 12 + 12 * k + 4 * x, 1e3 * p[v + x], true);
      });
      at += 50;
    }
  return bytes;
}

/** Binary glTF 2.0 (.glb): one node and material a body, metres, y upwards as the format asks. */
export function writeGlb(bodies: readonly WrittenBody[]): Uint8Array {
  const views: { buffer: 0; byteOffset: number; byteLength: number; target: number }[] = [];
  const accessors: object[] = [];
  const chunks: Uint8Array[] = [];
  let offset = 0;
  const add = (data: Float32Array | Uint32Array, target: number): number => {
    const raw = new Uint8Array(data.buffer, data.byteOffset, data.byteLength);
    views.push({ buffer: 0, byteOffset: offset, byteLength: raw.length, target });
    chunks.push(raw);
    offset += raw.length;
    return views.length - 1;
  };
  const meshes = bodies.map((b, i) => {
    const turned = new Float32Array(b.positions.length);
    const min = [Infinity, Infinity, Infinity];
    const max = [-Infinity, -Infinity, -Infinity];
    for (let k = 0; k < turned.length; k += 3) {
      const p = [b.positions[k], b.positions[k + 2], -b.positions[k + 1]];
      p.forEach((v, a) => {
        turned[k + a] = v;
        min[a] = Math.min(min[a], turned[k + a]);
        max[a] = Math.max(max[a], turned[k + a]);
      });
    }
    accessors.push({ bufferView: add(turned, 34962), componentType: 5126, count: turned.length / 3, type: 'VEC3', min, max });
    accessors.push({ bufferView: add(b.triangles.slice(), 34963), componentType: 5125, count: b.triangles.length, type: 'SCALAR' });
    return { name: b.name, primitives: [{ attributes: { POSITION: 2 * i }, indices: 2 * i + 1, material: i }] };
  });
  const json = JSON.stringify({
    asset: { version: '2.0', generator: 'Jade Bell' },
    scene: 0,
    scenes: [{ nodes: bodies.map((_, i) => i) }],
    nodes: bodies.map((b, i) => ({ name: b.name, mesh: i })),
    meshes,
    materials: bodies.map((b) => ({
      name: b.name,
      pbrMetallicRoughness: { baseColorFactor: b.colour, metallicFactor: 0, roughnessFactor: 0.7 },
      doubleSided: true,
      ...(b.colour[3] < 1 ? { alphaMode: 'BLEND' } : {}),
    })),
    accessors,
    bufferViews: views,
    buffers: [{ byteLength: offset }],
  });
  const pad = (n: number): number => (n + 3) & ~3;
  const text = new TextEncoder().encode(json);
  const bytes = new Uint8Array(12 + 8 + pad(text.length) + 8 + pad(offset));
  const view = new DataView(bytes.buffer);
  view.setUint32(0, 0x46546c67, true);
  view.setUint32(4, 2, true);
  view.setUint32(8, bytes.length, true);
  view.setUint32(12, pad(text.length), true);
  view.setUint32(16, 0x4e4f534a, true);
  bytes.fill(0x20, 20, 20 + pad(text.length));
  bytes.set(text, 20);
  let at = 20 + pad(text.length);
  view.setUint32(at, pad(offset), true);
  view.setUint32(at + 4, 0x004e4942, true);
  at += 8;
  for (const c of chunks) {
    bytes.set(c, at);
    at += c.length;
  }
  return bytes;
}

/** DXF (text) of closed outlines by layer, in millimetres. */
export function writeDxf(layers: readonly { name: string; loops: readonly (readonly Point2[])[] }[]): string {
  const out: (string | number)[] = [0, 'SECTION', 2, 'HEADER', 9, '$INSUNITS', 70, 4, 0, 'ENDSEC', 0, 'SECTION', 2, 'ENTITIES'];
  for (const { name, loops } of layers)
    for (const loop of loops) {
      out.push(0, 'POLYLINE', 8, name, 66, 1, 70, 1, 10, 0, 20, 0, 30, 0);
      for (const p of loop) out.push(0, 'VERTEX', 8, name, 10, Number((p[0] * 1e3).toPrecision(12)), 20, Number((p[1] * 1e3).toPrecision(12)), 30, 0);
      out.push(0, 'SEQEND', 8, name);
    }
  out.push(0, 'ENDSEC', 0, 'EOF');
  return `${out.join('\n')}\n`;
}
