import { formatSI } from '@jadebell/core/expressions/format';
import { edgeName, edgeRuns, extentName, faceName, type Named, pointName } from '@jadebell/core/geometry/naming';
import type { View, ViewBody } from '../workers/protocol.ts';
import { boundsOfEdges } from '../space/frameOf.ts';
import type { Hit } from '../project/stageState.ts';

const bodyOf = (view: View, hit: Hit): ViewBody | undefined => view.bodies.find((b) => b.name === hit.body);

/** A body or curve as names are found in it. */
function namedOf(view: View, name: string): Named | null {
  const body = view.bodies.find((b) => b.name === name);
  if (body) return body;
  const curve = view.curves.find((c) => c.name === name);
  if (!curve) return null;
  return {
    name,
    faces: [],
    edges: curve.edges,
    edgeFaces: new Uint16Array(curve.edges.length / 3),
    corners: curve.corners,
    ...boundsOfEdges(curve.edges),
  };
}

const place = (p: readonly number[]): string => p.map((c) => formatSI(Math.abs(c) < 1e-15 ? 0 : c, 'length', 4)).join(', ');

/** Length of the whole edge that a segment lies on. */
function edgeLength(named: Named, segment: number): number {
  const [f, g] = [named.edgeFaces[2 * segment], named.edgeFaces[2 * segment + 1]];
  const at = (i: number): number[] => [0, 1, 2].map((a) => named.edges[3 * i + a]);
  const straight = Math.hypot(...at(2 * segment).map((c, a) => c - at(2 * segment + 1)[a]));
  if (f === g) return straight;
  const size = Math.max(...named.max.map((m, a) => m - named.min[a])) || 1;
  const run = edgeRuns(named, f, g).find((r) => r.some((p) => p.every((c, a) => Math.abs(c - at(2 * segment)[a]) < 2e-6 * size)));
  return run ? run.reduce((s, p, i) => (i ? s + Math.hypot(...p.map((c, a) => c - run[i - 1][a])) : 0), 0) : straight;
}

/** One line on what is under the pointer. */
export function tell(view: View, hit: Hit): string {
  const body = bodyOf(view, hit);
  const named = namedOf(view, hit.body);
  if (!named) return '';
  if (hit.kind === 'face' && body) {
    const face = body.faces[hit.face!];
    return `face ${faceName(body, hit.face!)} · ${formatSI(face.area, 'area', 4)} · ${face.normal ? `centre ${place(face.centre)}` : 'curved'}`;
  }
  if (hit.kind === 'edge') return `edge of ${hit.body} · ${formatSI(edgeLength(named, hit.segment!), 'length', 4)}`;
  if (hit.kind === 'point') return `${pointName(named, hit.point) ?? `point of ${hit.body}`} · ${place(hit.point)}`;
  if (!body) return `curve ${hit.body}`;
  return `${body.name} · ${body.material.name} · ${[0, 1, 2].map((a) => formatSI(body.max[a] - body.min[a], 'length', 4)).join(' × ')}`;
}

/** What an open chip gets when something is picked: a reference, never a number. Null where it has no name. */
export function referenceTo(view: View, hit: Hit, axis: number | null): string | null {
  const named = namedOf(view, hit.body);
  if (!named) return null;
  const letter = 'xyz'[axis ?? 0];
  if (hit.kind === 'point') {
    const name = pointName(named, hit.point);
    return name ? `${name}.${letter}` : extentName(named, hit.point, axis ?? 0);
  }
  if (hit.kind === 'edge') return edgeName(named, hit.segment!) ?? (named.faces.length ? null : `${named.name}.length`);
  if (hit.kind === 'face') {
    const body = bodyOf(view, hit)!;
    return `${body.sheet ? body.name : faceName(body, hit.face!)}.centre.${letter}`;
  }
  return bodyOf(view, hit) ? `${named.name}.centre.${letter}` : `${named.name}.length`;
}

const direction = (named: Named, segment: number): number[] => {
  const d = [0, 1, 2].map((a) => named.edges[6 * segment + 3 + a] - named.edges[6 * segment + a]);
  const l = Math.hypot(...d) || 1;
  return d.map((c) => c / l);
};

/** Direction of a picked edge, or normal of a picked flat face. */
function directionOf(view: View, hit: Hit): number[] | null {
  const named = namedOf(view, hit.body);
  if (!named) return null;
  if (hit.kind === 'edge') return direction(named, hit.segment!);
  if (hit.kind === 'face') return bodyOf(view, hit)?.faces[hit.face!].normal ?? null;
  return null;
}

/** What was measured, in words. */
export function measured(view: View, picks: readonly Hit[]): string {
  if (!picks.length) return 'Measure: pick a point, an edge or a face, then another.';
  if (picks.length === 1) return `Measure from ${tell(view, picks[0])} … pick the other end.`;
  const [a, b] = picks;
  const parts: string[] = [];
  const [da, db] = [directionOf(view, a), directionOf(view, b)];
  const d = b.point.map((c, i) => c - a.point[i]);
  const cosine = da && db ? Math.min(1, Math.abs(da.reduce((s, c, i) => s + c * db[i], 0))) : null;
  if (a.kind === 'face' && b.kind === 'face' && cosine !== null && cosine > 1 - 1e-9)
    parts.push(`distance of the faces ${formatSI(Math.abs(da!.reduce((s, c, i) => s + c * d[i], 0)), 'length', 5)}`);
  else parts.push(`distance ${formatSI(Math.hypot(...d), 'length', 5)}`, `along x, y, z ${place(d)}`);
  if (cosine !== null) {
    const between = Math.acos(cosine);
    const angle = a.kind === b.kind ? between : Math.PI / 2 - between;
    parts.push(`angle ${formatSI(angle, 'angle', 4)}`);
  }
  return parts.join(' · ');
}
