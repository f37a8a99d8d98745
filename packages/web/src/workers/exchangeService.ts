import { type MeshData, packMesh, packOutlines, type Part, type Point2 } from '@jadebell/core/document';
import { type Kernel, modelOutlines, resolveOutlines } from '@jadebell/core/geometry';
import { ImportFault, largestFile, readFileFor, repairMesh } from '@jadebell/core/formats/import';
import type { ExchangeReply, ExchangeRequest, FoundPart } from './exchange.protocol.ts';

const sizeOf = (points: ArrayLike<number>, width: 2 | 3): number[] => {
  const low = Array<number>(width).fill(Infinity);
  const high = Array<number>(width).fill(-Infinity);
  for (let i = 0; i < points.length; i++) {
    low[i % width] = Math.min(low[i % width], points[i]);
    high[i % width] = Math.max(high[i % width], points[i]);
  }
  return high.map((h, a) => h - low[a]);
};

const plural = (n: number, one: string, many = `${one}s`): string => `${n.toLocaleString('en')} ${n === 1 ? one : many}`;

/** What reads files for the page and takes parts of them into a project; one file is held at a time. */
export function exchangeService(
  kernel: Promise<Kernel>,
  stepReader: string | undefined,
  post: (reply: ExchangeReply) => void,
): (request: ExchangeRequest) => Promise<void> {
  const progress = (text: string, fraction: number): void => post({ kind: 'progress', text, fraction });
  /** What was read last, to be taken by index. */
  let held: ({ kind: 'mesh'; name: string; mesh: MeshData } | { kind: 'outlines'; name: string; loops: Point2[][] })[] = [];

  async function read(file: File): Promise<void> {
    if (file.size > largestFile) throw new ImportFault(`The file is larger than ${largestFile / 1e6} MB.`, 'Simplify it where it was made.');
    progress(`Reading ${file.name}`, 0.05);
    const data = await readFileFor(file.name, new Uint8Array(await file.arrayBuffer()), { stepReader });
    const wasm = await kernel;
    held = [];
    const parts: FoundPart[] = [];
    for (const [i, { name, mesh }] of data.meshes.entries()) {
      progress(`Checking ${name}`, 0.3 + (0.7 * i) / data.meshes.length);
      const fixed = repairMesh(mesh);
      const remarks: string[] = [];
      if (fixed.removed) remarks.push(`${plural(fixed.removed, 'triangle')} of no area or double removed.`);
      if (fixed.turned) remarks.push(`${plural(fixed.turned, 'triangle')} turned to face outwards.`);
      if (fixed.holes) remarks.push(`The mesh leaks: ${plural(fixed.holes, 'hole')} closed.`);
      let closed = fixed.closed;
      if (closed) {
        try {
          const m = new wasm.Mesh({ numProp: 3, vertProperties: fixed.mesh.positions, triVerts: fixed.mesh.triangles });
          m.merge();
          new wasm.Manifold(m).delete();
        } catch {
          closed = false;
        }
      }
      if (!closed)
        remarks.push(`It does not close${fixed.bad ? `: ${plural(fixed.bad, 'edge')} cannot be mended` : ''}, so it cannot be taken as a body.`);
      held.push({ kind: 'mesh', name, mesh: fixed.mesh });
      parts.push({
        index: held.length - 1,
        kind: 'mesh',
        name,
        size: sizeOf(fixed.mesh.positions, 3),
        count: fixed.mesh.triangles.length / 3,
        closed,
        remarks,
      });
    }
    for (const [i, { name, loops, open }] of data.layers.entries()) {
      progress(`Joining outlines of ${name}`, 0.3 + (0.7 * i) / data.layers.length);
      const resolved = resolveOutlines(wasm, loops);
      const remarks: string[] = [`${plural(loops.length, 'closed outline')}${resolved.holes ? `, ${plural(resolved.holes, 'hole')}` : ''}.`];
      if (resolved.overlaps) remarks.push(`${plural(resolved.overlaps, 'overlap')} made one.`);
      if (open) remarks.push(`${plural(open, 'piece')} that closes to nothing left out.`);
      held.push({ kind: 'outlines', name, loops: resolved.loops });
      const flat = resolved.loops.flat(2);
      parts.push({
        index: held.length - 1,
        kind: 'outlines',
        name,
        size: flat.length ? sizeOf(flat, 2) : [0, 0],
        count: flat.length / 2,
        closed: resolved.loops.length > 0,
        remarks,
      });
    }
    post({ kind: 'found', found: { unit: data.unit, parts, notes: data.notes } });
  }

  function take(indices: number[], scale: number, source: string): void {
    const parts = indices.map((index, i): Part => {
      const part = held[index];
      progress(`Packing ${part.name}`, i / indices.length);
      if (part.kind === 'mesh')
        return {
          name: part.name,
          kind: 'mesh',
          source,
          data: packMesh({ positions: part.mesh.positions.map((v) => v * scale), triangles: part.mesh.triangles }),
        };
      return {
        name: part.name,
        kind: 'outlines',
        source,
        data: packOutlines(part.loops.map((l) => l.map((p): Point2 => [p[0] * scale, p[1] * scale]))),
      };
    });
    post({ kind: 'taken', parts });
  }

  return async (data) => {
    try {
      if (data.kind === 'read') await read(data.file);
      else if (data.kind === 'take') take(data.indices, data.scale, data.source);
      else post({ kind: 'outlines', layers: modelOutlines(await kernel, data.bodies, data.normal, data.offset) });
    } catch (error) {
      const text =
        error instanceof ImportFault ? `${error.message} ${error.fix}` : `The file could not be taken: ${(error as Error).message || String(error)}.`;
      post({ kind: 'fault', text });
    }
  };
}
