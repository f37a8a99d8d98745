import type { ModelCurve } from '@jadebell/core/geometry';
import { type Camera, type Intersection, Vector3 } from 'three';
import { metBy } from '../space/batch.ts';
import type { View, ViewBody } from '../workers/protocol.ts';
import type { Hit, PickMode } from '../project/stageState.ts';

/** Pixels within which an edge or a point counts as under the pointer. */
const reach = 9;

interface Eye {
  camera: Camera;
  width: number;
  height: number;
  /** Pointer in pixels from the upper left. */
  x: number;
  y: number;
  /** Whether a point is on the side of the section plane that is shown. */
  visible(p: { x: number; y: number; z: number }): boolean;
}

const v = new Vector3();
/** Pixels of a point of the model. */
function project(eye: Eye, p: ArrayLike<number>, at = 0): [number, number] {
  v.set(p[at], p[at + 1], p[at + 2]).project(eye.camera);
  return [((v.x + 1) / 2) * eye.width, ((1 - v.y) / 2) * eye.height];
}

type Edged = Pick<ViewBody, 'name' | 'edges'> & { corners?: readonly (readonly number[])[] };

/** Nearest segment of a body's edges to the pointer: its number, pixels, and the point on it. */
function nearestEdge(eye: Eye, { edges }: Edged): { segment: number; pixels: number; point: Hit['point'] } | null {
  let best: { segment: number; pixels: number; point: Hit['point'] } | null = null;
  for (let s = 0; s < edges.length / 6; s++) {
    const [ax, ay] = project(eye, edges, 6 * s);
    const [bx, by] = project(eye, edges, 6 * s + 3);
    const [dx, dy] = [bx - ax, by - ay];
    const t = Math.max(0, Math.min(1, ((eye.x - ax) * dx + (eye.y - ay) * dy) / (dx * dx + dy * dy || 1)));
    const pixels = Math.hypot(ax + t * dx - eye.x, ay + t * dy - eye.y);
    if (pixels > reach || (best && pixels >= best.pixels)) continue;
    const point = [0, 1, 2].map((a) => edges[6 * s + a] + t * (edges[6 * s + 3 + a] - edges[6 * s + a])) as Hit['point'];
    if (eye.visible({ x: point[0], y: point[1], z: point[2] })) best = { segment: s, pixels, point };
  }
  return best;
}

/** Nearest end of an edge, or point that the user gave, to the pointer. */
function nearestPoint(eye: Eye, { edges, corners }: Edged): { pixels: number; point: Hit['point'] } | null {
  let best: { pixels: number; point: Hit['point'] } | null = null;
  const consider = (p: ArrayLike<number>, at: number): void => {
    const [x, y] = project(eye, p, at);
    const pixels = Math.hypot(x - eye.x, y - eye.y);
    if (pixels > reach || (best && pixels >= best.pixels)) return;
    const point: Hit['point'] = [p[at], p[at + 1], p[at + 2]];
    if (eye.visible({ x: point[0], y: point[1], z: point[2] })) best = { pixels, point };
  };
  corners?.forEach((c) => consider(c, 0));
  for (let i = 0; i < edges.length; i += 3) consider(edges, i);
  return best;
}

/** All that lies under the pointer in the given mode, front to back. */
export function hitsUnder(mode: PickMode, found: readonly Intersection[], view: View, eye: Eye): Hit[] {
  const hits: Hit[] = [];
  const front = found.flatMap((i) => {
    const met = eye.visible(i.point) && metBy(i);
    return met ? [{ ...met, point: [i.point.x, i.point.y, i.point.z] as Hit['point'] }] : [];
  });
  const bodies = [...new Set(front.map((i) => i.name))];
  if (mode === 'bodies') {
    for (const { name, point } of front) if (!hits.some((h) => h.body === name)) hits.push({ kind: 'body', body: name, point });
    return hits;
  }
  if (mode === 'faces') {
    for (const { name, triangle, point } of front) {
      const body = view.bodies.find((b) => b.name === name);
      if (!body || triangle === null) continue;
      const face = body.faceOf[triangle];
      if (!hits.some((h) => h.body === name && h.face === face)) hits.push({ kind: 'face', body: name, face, point });
    }
    return hits;
  }
  const known: (ViewBody | ModelCurve)[] = [...view.bodies, ...view.curves];
  const near = bodies.flatMap((name) => {
    const body = known.find((b) => b.name === name);
    if (!body) return [];
    if (mode === 'edges') {
      const edge = nearestEdge(eye, body);
      return edge ? [{ pixels: edge.pixels, hit: { kind: 'edge', body: name, segment: edge.segment, point: edge.point } as Hit }] : [];
    }
    const point = nearestPoint(eye, body);
    return point ? [{ pixels: point.pixels, hit: { kind: 'point', body: name, point: point.point } as Hit }] : [];
  });
  return near.sort((a, b) => a.pixels - b.pixels).map((n) => n.hit);
}
