import type { Point3 } from '../document/index.ts';
import type { WirePlace, WireScene } from '../scene/index.ts';
import { polylineOf, pointOn, type WireMesh } from './wireMesh.ts';

/** Something that stands in a wire, for drawing: where, and which way current counts. */
export interface WireMark {
  name: string;
  kind: 'port' | 'load' | 'line' | 'probe';
  /** Place among all ports of the document, of a port. */
  order?: number;
  at: Point3;
  along: Point3;
  radius: number;
}

/** Marks of a scene: ports, loads, both ends of lines, probes. */
export function wireMarks(scene: WireScene): WireMark[] {
  const mark = (name: string, kind: WireMark['kind'], { wire, at }: WirePlace, order?: number): WireMark => {
    const path = polylineOf(scene.wires[wire]);
    const total = path.at[path.at.length - 1];
    const step = 1e-4 * total;
    const [p, q] = [pointOn(path, Math.max(0, at - step)), pointOn(path, Math.min(total, at + step))];
    const l = Math.hypot(q[0] - p[0], q[1] - p[1], q[2] - p[2]);
    return {
      name,
      kind,
      ...(order === undefined ? {} : { order }),
      at: pointOn(path, at),
      along: q.map((x, a) => (x - p[a]) / l) as Point3,
      radius: scene.wires[wire].radius,
    };
  };
  return [
    ...scene.ports.map((p) => mark(p.name, 'port', p.place, p.order)),
    ...scene.loads.map((p) => mark(p.name, 'load', p.place)),
    ...scene.lines.flatMap((p) => p.places.map((at) => mark(p.name, 'line', at))),
    ...scene.probes.map((p) => mark(p.name, 'probe', p.place)),
  ];
}

/** Ends of all segments, metres: x, y, z of each. */
export function meshNodes({ segments, count }: WireMesh): Float32Array {
  const out = new Float32Array(6 * count);
  for (let i = 0; i < count; i++)
    for (let a = 0; a < 3; a++) {
      out[6 * i + a] = segments[8 * i + a];
      out[6 * i + 3 + a] = segments[8 * i + a] + segments[8 * i + 6] * segments[8 * i + 3 + a];
    }
  return out;
}
